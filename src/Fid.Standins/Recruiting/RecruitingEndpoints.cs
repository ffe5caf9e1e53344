namespace Fid.Standins.Recruiting;

/// <summary>The recruiting feed, and a page on which to change what it says.</summary>
public static class RecruitingEndpoints
{
    private static readonly TimeSpan Slowness = TimeSpan.FromSeconds(30);

    public static void MapRecruiting(this IEndpointRouteBuilder app)
    {
        var feed = app.MapGroup("/recruiting");
        feed.MapGet("/candidates", async (CandidateStore store, CancellationToken cancellation) =>
        {
            switch (store.Mood)
            {
                case FeedMood.Down:
                    return Results.StatusCode(StatusCodes.Status503ServiceUnavailable);
                case FeedMood.Slow:
                    await Task.Delay(Slowness, cancellation);
                    break;
                case FeedMood.Rubbish:
                    return Results.Text("<html>Under maintenance</html>", "text/html");
                default:
                    break;
            }
            return Results.Ok(new { candidates = store.All().Select(c => c.Candidate) });
        });
        feed.MapPut("/candidates/{id}/hire", (string id, HireStatus status, CandidateStore store) => store.Mood == FeedMood.Down
                ? Results.StatusCode(StatusCodes.Status503ServiceUnavailable)
            : store.Hear(id, status) ? Results.NoContent()
            : Results.NotFound());

        // For the page; no part of the feed.
        feed.MapGet("", () => Results.Stream(typeof(RecruitingEndpoints).Assembly.GetManifestResourceStream("recruiting.html")!, "text/html; charset=utf-8"));
        feed.MapGet("/page/candidates", (CandidateStore store) =>
            new { mood = store.Mood.ToString(), candidates = store.All().Select(c => new { c.Candidate, c.Last }) }
        );
        feed.MapPut("/page/candidates", (Candidate candidate, CandidateStore store) =>
        {
            store.Put(candidate);
            return Results.NoContent();
        });
        feed.MapPut("/page/mood/{mood}", (FeedMood mood, CandidateStore store) =>
        {
            store.Mood = mood;
            return Results.NoContent();
        });
    }
}
