using System.Globalization;
using System.Net;
using Fid.Acts.Intake;
using Fid.Core;
using Fid.Data.Exchange;
using Fid.Data.Intake;
using Microsoft.Extensions.Http.Resilience;
using Polly;

namespace Fid.Server.Intake;

/// <summary>Speaks with the recruiting feed, as docs/recruiting-feed.openapi.json says. Tries again after pauses that grow.</summary>
public sealed class FeedClient(HttpClient http, FeedPatience patience)
{
    private const long LargestAnswer = 5_000_000;

    /// <summary>The candidates the feed has now, with what went wrong on the way; null where it could not be read in the end.</summary>
    public async Task<(FeedCandidate[]? Candidates, IReadOnlyList<string> Trouble, int Tries)> PullAsync(Uri feed, CancellationToken cancellation)
    {
        var trouble = new List<string>();
        var tries = 0;
        try
        {
            using var response = await Pipeline(trouble)
                .ExecuteAsync(
                    async token =>
                    {
                        tries++;
                        return await http.GetAsync(Under(feed, "candidates"), HttpCompletionOption.ResponseContentRead, token);
                    },
                    cancellation
                );
            if (!response.IsSuccessStatusCode)
            {
                trouble.Add(Status(response.StatusCode));
                return (null, trouble, tries);
            }
            var content = await response.Content.ReadAsByteArrayAsync(cancellation);
            var read =
                content.LongLength > LargestAnswer
                    ? Fid.Core.Result<FeedCandidate[]>.Failed(new Problem("", "too-large", "The answer is larger than 5 MB."))
                    : FeedAnswer.Read(content);
            trouble.AddRange(read.Problems.Take(5).Select(p => $"{p.Path} {p.Message}".Trim()));
            return (read.Answer, trouble, tries);
        }
        catch (Exception e) when (Failure(e) is not null && !cancellation.IsCancellationRequested)
        {
            trouble.Add(Failure(e)!);
            return (null, trouble, tries);
        }
    }

    /// <summary>Tells the feed what became of a candidate: null where it heard, otherwise what went wrong.</summary>
    public async Task<string?> TellAsync(Uri feed, OutboxMessage message, CancellationToken cancellation)
    {
        var said = message.Payload;
        try
        {
            using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
            limit.CancelAfter(patience.Answer);
            using var response = await http.PutAsJsonAsync(
                Under(feed, $"candidates/{Uri.EscapeDataString(message.Recipient)}/hire"),
                new
                {
                    message.Id,
                    status = said.Kind,
                    number = said.Number.Length == 0 ? null : said.Number,
                    start = said.Start.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture),
                },
                Wire,
                limit.Token
            );
            return response.IsSuccessStatusCode ? null : Status(response.StatusCode);
        }
        catch (Exception e) when (Failure(e) is not null && !cancellation.IsCancellationRequested)
        {
            return Failure(e);
        }
    }

    private static readonly System.Text.Json.JsonSerializerOptions Wire = new(System.Text.Json.JsonSerializerDefaults.Web)
    {
        Converters = { new System.Text.Json.Serialization.JsonStringEnumConverter(System.Text.Json.JsonNamingPolicy.CamelCase) },
    };

    private ResiliencePipeline<HttpResponseMessage> Pipeline(List<string> trouble) =>
        new ResiliencePipelineBuilder<HttpResponseMessage>()
            .AddRetry(
                new HttpRetryStrategyOptions
                {
                    MaxRetryAttempts = patience.Retries,
                    Delay = patience.Pause,
                    OnRetry = retry =>
                    {
                        trouble.Add(retry.Outcome.Exception is { } e ? Failure(e) ?? e.Message : Status(retry.Outcome.Result!.StatusCode));
                        return default;
                    },
                }
            )
            .AddTimeout(patience.Answer)
            .Build();

    private static string Status(HttpStatusCode status) => string.Create(CultureInfo.InvariantCulture, $"It answered {(int)status}.");

    private static string? Failure(Exception e) =>
        e switch
        {
            Polly.Timeout.TimeoutRejectedException or OperationCanceledException => "It did not answer in time.",
            HttpRequestException { HttpRequestError: HttpRequestError.ConfigurationLimitExceeded } => "The answer is larger than 5 MB.",
            // A bare socket's failure: the connection broke before its first byte.
            HttpRequestException or System.Net.Sockets.SocketException => "It could not be reached.",
            _ => null,
        };

    private static Uri Under(Uri feed, string path) => new($"{feed.AbsoluteUri.TrimEnd('/')}/{path}");
}

/// <summary>How patient Fid is with the feed.</summary>
/// <param name="Retries">How often it tries again.</param>
/// <param name="Pause">The first pause; each further one is about twice as long.</param>
/// <param name="Answer">How long it waits for an answer.</param>
/// <param name="Between">The time between two pulls by itself.</param>
public sealed record FeedPatience(int Retries, TimeSpan Pause, TimeSpan Answer, TimeSpan Between)
{
    /// <summary>As it is where nothing else is set.</summary>
    public static FeedPatience Usual { get; } = new(4, TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(10), TimeSpan.FromMinutes(5));
}
