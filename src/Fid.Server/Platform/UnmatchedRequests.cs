using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing.Patterns;
using Microsoft.AspNetCore.Routing.Template;

namespace Fid.Server.Platform;

/// <summary>
/// Says of a request that no endpoint takes what is wrong with it (RFC 9110, 15.5): that nothing is there, that it cannot be done there, or that
/// what it sends is of another kind. The framework would say so itself, but for the endpoint that answers for all paths nobody else does.
/// </summary>
internal static class UnmatchedRequests
{
    /// <summary>A request without a body says nothing, as an empty one of JSON does: without a kind it would be sent to no endpoint that reads any.</summary>
    public static void UseKindOfEmptyBodies(this WebApplication app) =>
        app.Use(
            (http, next) =>
            {
                var request = http.Request;
                if (request is { ContentType: null or "", ContentLength: null or 0, Method: "POST" or "PUT" } && request.Headers.TransferEncoding.Count == 0)
                    request.ContentType = "application/json";
                return next();
            }
        );

    public static void MapUnmatched(this WebApplication app) =>
        app.Map("/api/{**rest}", (HttpContext http, EndpointDataSource endpoints, ParameterPolicyFactory policies) =>
                Answer(http, endpoints.Endpoints.OfType<RouteEndpoint>().Where(e => IsAt(e.RoutePattern, http, policies)))
            )
            .RequireAuthorization(Access.Anybody)
            .ExcludeFromDescription();

    private static ProblemHttpResult Answer(HttpContext http, IEnumerable<RouteEndpoint> there)
    {
        var methods = there
            .SelectMany(e => e.Metadata.GetMetadata<IHttpMethodMetadata>()?.HttpMethods ?? [])
            .Distinct()
            .Order(StringComparer.Ordinal)
            .ToArray();
        if (methods.Length == 0)
            return Problems.NotFound();
        if (methods.Contains(http.Request.Method))
            return Problems.OfStatus(StatusCodes.Status415UnsupportedMediaType);
        http.Response.Headers.Allow = string.Join(", ", methods);
        return Problems.OfStatus(StatusCodes.Status405MethodNotAllowed);
    }

    private static bool IsAt(RoutePattern pattern, HttpContext http, ParameterPolicyFactory policies)
    {
        var values = new RouteValueDictionary();
        return pattern.RawText is { } text
            && !text.Contains("**", StringComparison.Ordinal)
            && new TemplateMatcher(TemplateParser.Parse(text), []).TryMatch(http.Request.Path, values)
            && pattern.Parameters.All(p =>
                p.ParameterPolicies.Select(r => policies.Create(p, r))
                    .OfType<IRouteConstraint>()
                    .All(c => c.Match(http, null, p.Name, values, RouteDirection.IncomingRequest))
            );
    }
}
