using System.Text.Json;
using Fid.Acts;
using Fid.Core;
using Fid.Core.Json;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fid.Server.Platform;

/// <summary>Errors as problem details (RFC 9457): a stable code, and for each part of the request that is wrong a pointer to it,
/// a code, and a sentence saying what to do.</summary>
public static class Problems
{
    public static ProblemHttpResult Invalid(params IReadOnlyList<Problem> problems) =>
        Make(StatusCodes.Status400BadRequest, "invalid", "Something entered is not right.", problems);

    public static ProblemHttpResult NotFound() => Make(StatusCodes.Status404NotFound, "not-found", "There is nothing here, or nothing you may see.");

    public static ProblemHttpResult Forbidden() => Make(StatusCodes.Status403Forbidden, "forbidden", "You may not do this.");

    public static ProblemHttpResult Conflict(string code, string title) => Make(StatusCodes.Status409Conflict, code, title);

    /// <summary>What this server has no means for.</summary>
    public static ProblemHttpResult Unavailable(string code, string title) => Make(StatusCodes.Status503ServiceUnavailable, code, title);

    /// <summary>Somebody else saved in between. Carries what is there now, so that both versions can be shown.</summary>
    public static ProblemHttpResult Stale(object current) =>
        Make(StatusCodes.Status412PreconditionFailed, "changed-meanwhile", "Somebody else saved this in the meantime.", current: current);

    public static ProblemHttpResult VersionNeeded() =>
        Make(StatusCodes.Status428PreconditionRequired, "version-needed", "Say with If-Match which version you saw.");

    /// <summary>Too much at once, with how long to wait as Retry-After has it (RFC 9110, 10.2.3).</summary>
    public static ProblemHttpResult Wait(HttpContext http, NodaTime.Duration wait)
    {
        var seconds = Math.Max(1, (int)Math.Ceiling(wait.TotalSeconds));
        http.Response.Headers.RetryAfter = seconds.ToString(System.Globalization.CultureInfo.InvariantCulture);
        return Make(StatusCodes.Status429TooManyRequests, "too-many", $"Too many tries. Wait {seconds} seconds, and try again.");
    }

    /// <summary>Why an act was not done.</summary>
    /// <param name="current">What is there now, where somebody else saved in between.</param>
    public static ProblemHttpResult Of(Refusal refusal, object? current = null) =>
        Make(
            refusal.Kind switch
            {
                RefusalKind.Invalid => StatusCodes.Status400BadRequest,
                RefusalKind.NotFound => StatusCodes.Status404NotFound,
                RefusalKind.Forbidden => StatusCodes.Status403Forbidden,
                RefusalKind.Conflict => StatusCodes.Status409Conflict,
                RefusalKind.ChangedMeanwhile => StatusCodes.Status412PreconditionFailed,
                RefusalKind.VersionNeeded => StatusCodes.Status428PreconditionRequired,
                RefusalKind.KeyReused => StatusCodes.Status422UnprocessableEntity,
                RefusalKind.TooLarge => StatusCodes.Status413PayloadTooLarge,
                _ => throw new InvalidOperationException($"There is no answer for {refusal.Kind}."),
            },
            refusal.Code,
            refusal.Message,
            refusal.Problems,
            current
        );

    /// <summary>The answer to an act that says nothing but that it is done, or why it was not.</summary>
    public static Results<NoContent, ProblemHttpResult> Answer(this ActResult result) => result.Refusal is { } refusal ? Of(refusal) : TypedResults.NoContent();

    /// <summary>The same of an act of whose answer nothing is told.</summary>
    public static Results<NoContent, ProblemHttpResult> Answer<T>(this ActResult<T> result) =>
        result.Refusal is { } refusal ? Of(refusal) : TypedResults.NoContent();

    /// <summary>For answers that the framework gives with a status alone.</summary>
    public static ProblemHttpResult OfStatus(int status) =>
        status switch
        {
            StatusCodes.Status404NotFound => NotFound(),
            StatusCodes.Status405MethodNotAllowed => Make(status, "wrong-method", "This cannot be done here."),
            StatusCodes.Status413PayloadTooLarge => Make(status, "too-large", "This is more than can be taken at once: at most 1 MB."),
            StatusCodes.Status415UnsupportedMediaType => Make(status, "wrong-kind", "Send JSON."),
            StatusCodes.Status429TooManyRequests => Make(status, "too-many", "Too many tries. Wait a minute."),
            _ => Make(status, "refused", "This was refused."),
        };

    public static ProblemHttpResult Make(int status, string code, string title, IReadOnlyList<Problem>? errors = null, object? current = null)
    {
        var details = new ProblemDetails
        {
            Status = status,
            Title = title,
            Type = $"urn:fid:problem:{code}",
        };
        // By which the line in the log is found again.
        if (status >= 500 && System.Diagnostics.Activity.Current is { } activity)
            details.Extensions["traceId"] = activity.TraceId.ToString();
        details.Extensions["code"] = code;
        if (errors is { Count: > 0 })
            details.Extensions["errors"] = errors.Select(ProblemEntry.Of).ToArray();
        if (current is not null)
            details.Extensions["current"] = current;
        return TypedResults.Problem(details);
    }
}

/// <summary>One thing wrong with a request.</summary>
/// <param name="Pointer">JSON Pointer to it in the request's body, or the name of a query parameter after a slash.</param>
/// <param name="Code">A stable word for the kind of mistake.</param>
/// <param name="Detail">What to do, in English.</param>
/// <param name="Follows">JSON Pointer to what is wrong elsewhere that this only follows from; null where it is wrong by itself.</param>
public sealed record ProblemEntry(string Pointer, string Code, string Detail, string? Follows = null)
{
    internal static ProblemEntry Of(Problem problem) => new(problem.Path, problem.Code, problem.Message, problem.Follows);
}

/// <summary>Turns what goes wrong outside an endpoint's own checks into problem details.</summary>
internal sealed class ProblemHandler(ILogger<ProblemHandler> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext http, Exception exception, CancellationToken cancellationToken)
    {
        if (exception is OperationCanceledException && http.RequestAborted.IsCancellationRequested)
            return true;
        var problem = exception switch
        {
            BadHttpRequestException { InnerException: JsonException json } => Problems.Invalid(
                Missing(json) is { Count: > 0 } missing
                    ? [.. missing]
                    : [new Problem(Pointer(json.Path), "wrong-type", "This is not of the kind expected here.")]
            ),
            BadHttpRequestException bad => Problems.Make(
                bad.StatusCode,
                bad.StatusCode == StatusCodes.Status413PayloadTooLarge ? "too-large" : "invalid",
                "The request cannot be read.",
                [new Problem(Parameter(bad.Message), "bad-value", "This is missing or not of the kind expected here.")]
            ),
            DbUpdateConcurrencyException => Problems.Conflict("changed-meanwhile", Meanwhile),
            _ when OfDatabase(exception) is { } state => state switch
            {
                PostgresErrorCodes.ExclusionViolation
                or PostgresErrorCodes.UniqueViolation
                or PostgresErrorCodes.SerializationFailure
                or PostgresErrorCodes.DeadlockDetected => Problems.Conflict("changed-meanwhile", Meanwhile),
                PostgresErrorCodes.CharacterNotInRepertoire or PostgresErrorCodes.UntranslatableCharacter => Problems.Invalid(
                    new Problem("", "bad-characters", Core.Texts.TextRules.BadCharacters)
                ),
                _ => Fault(http),
            },
            _ when IsOutOfReach(exception) => Unsure(http),
            _ => Fault(http),
        };
        if (problem.StatusCode >= 500)
            log.LogError(exception, "Unexpected failure");
        await problem.ExecuteAsync(http);
        return true;
    }

    private const string Meanwhile = "Somebody else saved this at the same moment. Look at what is there now, and save again.";
    private static readonly NodaTime.Duration BeforeTryingAgain = NodaTime.Duration.FromSeconds(2);

    private static bool IsReading(HttpContext http) => HttpMethods.IsGet(http.Request.Method) || HttpMethods.IsHead(http.Request.Method);

    // What failed in here failed before it was committed; of a page that was only read nothing is said about saving.
    private static ProblemHttpResult Fault(HttpContext http) =>
        Problems.Make(
            StatusCodes.Status500InternalServerError,
            "fault",
            IsReading(http) ? "Something went wrong here. Load the page again." : "Something went wrong here. Nothing was saved."
        );

    /// <summary>Where the database died or hangs, its last answer is not known: it may have saved what it was told.</summary>
    private static ProblemHttpResult Unsure(HttpContext http)
    {
        http.Response.Headers.RetryAfter = ((int)BeforeTryingAgain.TotalSeconds).ToString(System.Globalization.CultureInfo.InvariantCulture);
        return IsReading(http)
            ? Problems.Make(StatusCodes.Status503ServiceUnavailable, "out-of-reach", "This cannot be shown just now. Try again in a moment.")
            : Problems.Make(
                StatusCodes.Status503ServiceUnavailable,
                "unsure",
                "It is not sure whether this was saved. Look at what is there in a moment, or send it again."
            );
    }

    // The state of an answer that PostgreSQL gave, unless it says that it is going down.
    private static string? OfDatabase(Exception exception) =>
        (exception as PostgresException ?? exception.InnerException as PostgresException ?? exception.InnerException?.InnerException as PostgresException)
            is { } said
        && (!said.IsTransient || said.SqlState is PostgresErrorCodes.SerializationFailure or PostgresErrorCodes.DeadlockDetected)
            ? said.SqlState
            : null;

    private static bool IsOutOfReach(Exception? exception)
    {
        for (; exception is not null; exception = exception.InnerException)
            if (exception is NpgsqlException or TimeoutException or System.Net.Sockets.SocketException)
                return true;
        return false;
    }

    // … was missing required properties including: 'a', 'b'.
    private static List<Problem> Missing(JsonException json)
    {
        var at = json.Message.IndexOf("missing required properties including:", StringComparison.Ordinal);
        if (at < 0)
            return [];
        var names = System.Text.RegularExpressions.Regex.Matches(json.Message[at..], "'([^']+)'").Select(m => m.Groups[1].Value);
        return [.. names.Select(n => new Problem($"{Pointer(json.Path)}/{JsonPointer.Escape(n)}", "missing-property", "This is needed here."))];
    }

    // $.typed['a/b'].c[0] → /typed/a~1b/c/0
    internal static string Pointer(string? path)
    {
        if (path is null or "$")
            return "";
        var pointer = new System.Text.StringBuilder();
        foreach (
            System.Text.RegularExpressions.Match part in System.Text.RegularExpressions.Regex.Matches(
                path[1..],
                @"\['((?:[^'\\]|\\.)*)'\]|\[([0-9]+)\]|\.([^.\[]+)"
            )
        )
        {
            var name = part.Groups.Cast<System.Text.RegularExpressions.Group>().Skip(1).First(g => g.Success).Value;
            pointer.Append('/').Append(JsonPointer.Escape(name));
        }
        return pointer.ToString();
    }

    // The framework names the parameter only in its message: Failed to bind parameter "LocalDate start" from "x".
    private static string Parameter(string message)
    {
        var quoted = message.Split('"');
        return quoted.Length < 2 ? "" : "/" + quoted[1].Split(' ')[^1];
    }
}
