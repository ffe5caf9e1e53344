using System.Text.Json;
using Fid.Core;
using Fid.Core.Texts;
using FluentValidation;
using FluentValidation.Results;

namespace Fid.Server.Platform;

/// <summary>Checks requests before their endpoint sees them.</summary>
internal static class Validation
{
    /// <summary>Answers with problem details when the request does not pass its validator.</summary>
    public static RouteHandlerBuilder Validated<T>(this RouteHandlerBuilder endpoint)
        where T : class =>
        endpoint.AddEndpointFilter(
            async (context, next) =>
            {
                var request = context.Arguments.OfType<T>().FirstOrDefault();
                if (request is null)
                    return Problems.Invalid(new Problem("", "missing-property", "The request needs a body."));
                var validator = context.HttpContext.RequestServices.GetRequiredService<IValidator<T>>();
                var result = await validator.ValidateAsync(request, context.HttpContext.RequestAborted);
                return result.IsValid ? await next(context) : Problems.Invalid([.. result.Errors.Select(ToProblem)]);
            }
        );

    /// <summary>A text that is there, not too long, and storable.</summary>
    public static IRuleBuilderOptions<T, string> Text<T>(this IRuleBuilder<T, string> rule, int longest) =>
        rule.NotEmpty()
            .WithErrorCode("missing")
            .WithMessage("Fill this in.")
            .MaximumLength(longest)
            .WithErrorCode("too-long")
            .WithMessage($"Enter at most {longest} characters.")
            .Must(t => TextRules.TryClean(t, out _))
            .WithErrorCode("bad-characters")
            .WithMessage(TextRules.BadCharacters);

    private static Problem ToProblem(ValidationFailure failure) =>
        new("/" + JsonNamingPolicy.CamelCase.ConvertName(failure.PropertyName), failure.ErrorCode, failure.ErrorMessage);
}
