using Fid.Acts;
using Fid.Acts.Work;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Work;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Admin;

/// <summary>What Fid does by itself: what runs next, what failed and why, what ran; and having it done now.</summary>
internal static class JobsEndpoints
{
    private const int MostShown = 100;

    public static void MapJobs(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/jobs", Show).WhoMay(Actions.Edit, Things.Work);
        app.MapPost("/api/jobs/{id:guid}/again", Again).WhoMay(Actions.Edit, Things.Work).ProducesProblem(404);
    }

    private static async Task<Ok<JobsResponse>> Show(FidDb db, CancellationToken cancellation)
    {
        var jobs = await db
            .Jobs.AsNoTracking()
            .OrderBy(j => j.State == JobState.Failed ? 0 : 1)
            .ThenBy(j => j.Due)
            .Take(MostShown)
            .Select(j => new JobResponse(j.Id, j.Kind, j.Argument, j.Recurs, j.State, j.Due, j.Tries, j.Trouble, j.Done, j.Of))
            .ToArrayAsync(cancellation);
        var runs = await db
            .JobRuns.AsNoTracking()
            .OrderByDescending(r => r.EndedAt)
            .Take(MostShown)
            .Select(r => new JobRunResponse(r.Id, r.Kind, r.Argument, r.StartedAt, r.EndedAt, r.Handled, r.Trouble))
            .ToArrayAsync(cancellation);
        return TypedResults.Ok(new JobsResponse(jobs, runs));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Again(Guid id, Actor actor, RunJobAgain again, CancellationToken cancellation) =>
        (await again.DoAsync(new RunJobAgainRequest(id), actor, cancellation)).Answer();
}

/// <param name="Jobs">What is to be done: what failed first, then by when it is due.</param>
/// <param name="Runs">What was done, or tried in vain, the latest first.</param>
public sealed record JobsResponse(JobResponse[] Jobs, JobRunResponse[] Runs);

/// <summary>Something that is to be done.</summary>
/// <param name="Kind">What it is, such as "import".</param>
/// <param name="Argument">With what, such as the id of an import.</param>
/// <param name="Recurs">Whether it is done again and again.</param>
/// <param name="Due">Not before this.</param>
/// <param name="Tries">How often it was tried in vain.</param>
/// <param name="Trouble">What went wrong last.</param>
/// <param name="Done">How far the run under way has come, of how many; null for what does not say so.</param>
public sealed record JobResponse(
    Guid Id,
    string Kind,
    string? Argument,
    bool Recurs,
    JobState State,
    Instant Due,
    int Tries,
    string? Trouble,
    int? Done,
    int? Of
);

/// <summary>Something that was done.</summary>
/// <param name="Handled">How many things were done.</param>
/// <param name="Trouble">What went wrong; null for nothing.</param>
public sealed record JobRunResponse(Guid Id, string Kind, string? Argument, Instant StartedAt, Instant EndedAt, int Handled, string? Trouble);
