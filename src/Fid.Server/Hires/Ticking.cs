using System.Security.Claims;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Server.People;
using Fid.Server.Platform;
using FluentValidation;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Server.Hires;

/// <summary>Ticking tasks off, skipping them, and taking either back. Each can be done twice without harm.</summary>
internal static class Ticking
{
    public static async Task<Results<NoContent, ProblemHttpResult>> Done(
        Guid id, string key, DoneRequest? request, ClaimsPrincipal user, FidDb db, FirmClock clock, HttpContext http, CancellationToken cancellation)
    {
        var today = await clock.TodayAsync(db, cancellation);
        var done = request?.Done ?? today;
        if (done > today) return Problems.Invalid(new Problem("/done", "in-future", "A task is done today or on a day before."));
        if (!ValueCheck.IsSensible(done)) return Problems.Invalid(new Problem("/done", "bad-date", "Enter a date from 1900 to 2199."));
        // Whoever says it second, without saying when, says nothing new.
        var tick = new Tick("task.done", null, (task, name) =>
        {
            if (task.Done is null || (request?.Done is { } on && on != task.Done)) (task.Done, task.DoneBy, task.SkippedWhy) = (done, name, null);
        });
        return await ChangeAsync(id, key, request, tick, user, db, clock, http, cancellation);
    }

    public static Task<Results<NoContent, ProblemHttpResult>> NotDone(
        Guid id, string key, ClaimsPrincipal user, FidDb db, FirmClock clock, HttpContext http, CancellationToken cancellation) =>
        ChangeAsync(id, key, null, new Tick("task.undone", null, (task, _) => (task.Done, task.DoneBy) = (null, null)), user, db, clock, http, cancellation);

    public static Task<Results<NoContent, ProblemHttpResult>> Skip(
        Guid id, string key, SkipRequest request, ClaimsPrincipal user, FidDb db, FirmClock clock, HttpContext http, CancellationToken cancellation)
    {
        var why = Reason.Clean(request.Why);
        return ChangeAsync(id, key, request, new Tick("task.skipped", why, (task, _) => (task.SkippedWhy, task.Done, task.DoneBy) = (why, null, null)), user, db, clock, http, cancellation);
    }

    public static Task<Results<NoContent, ProblemHttpResult>> NotSkipped(
        Guid id, string key, ClaimsPrincipal user, FidDb db, FirmClock clock, HttpContext http, CancellationToken cancellation) =>
        ChangeAsync(id, key, null, new Tick("task.unskipped", null, (task, _) => task.SkippedWhy = null), user, db, clock, http, cancellation);

    private static async Task<Results<NoContent, ProblemHttpResult>> ChangeAsync(
        Guid id, string key, object? request, Tick tick, ClaimsPrincipal user, FidDb db, FirmClock clock, HttpContext http, CancellationToken cancellation)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        var state = await ActKey.TakeAsync(http, user, db, clock, request, cancellation);
        if (state.Refuse() is { } refused) return refused;
        if (state == ActState.Done) return TypedResults.NoContent();
        // One after the other: whoever comes second finds it done. The hire is kept from being closed meanwhile.
        await db.Database.ExecuteSqlAsync($"select 1 from hires where id = {id} for share", cancellation);
        await db.Database.ExecuteSqlAsync($"select 1 from hire_tasks where hire_id = {id} and key = {key} for update", cancellation);
        var task = await db.HireTasks.FirstOrDefaultAsync(t => t.HireId == id && t.Key == key, cancellation);
        if (task is null || !await MayAsync(task, user, db, cancellation)) return Problems.NotFound();
        if (await db.Hires.AnyAsync(h => h.Id == id && h.Closed != null, cancellation)) return Problems.Conflict("closed", "This hire is closed. Its tasks stay as they are.");
        var author = user.Author(clock, "checklist");
        tick.Change(task, author.Name);
        if (db.Entry(task).State == EntityState.Modified) db.Changes.Add(author.Change(tick.Action, id, key, tick.Why));
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.NoContent();
    }

    /// <summary>What is done to a task.</summary>
    private sealed record Tick(string Action, string? Why, Action<HireTask, string> Change);

    /// <summary>A file that goes with a task, for whoever does it or sees the hire.</summary>
    public static async Task<Results<FileContentHttpResult, ProblemHttpResult>> ShowFile(
        Guid id, string key, Guid file, ClaimsPrincipal user, FidDb db, HttpContext http, CancellationToken cancellation)
    {
        var task = await db.HireTasks.AsNoTracking().FirstOrDefaultAsync(t => t.HireId == id && t.Key == key && t.Attachments.Contains(file), cancellation);
        if (task is null || (!user.MayReadEverybody() && !await MayAsync(task, user, db, cancellation))) return Problems.NotFound();
        return await db.StoredFiles.AsNoTracking().FirstOrDefaultAsync(f => f.Id == file, cancellation) is { } stored ? Files.Answer(stored, http) : Problems.NotFound();
    }

    private static async Task<bool> MayAsync(HireTask task, ClaimsPrincipal user, FidDb db, CancellationToken cancellation)
    {
        if (user.MayCoordinate()) return true;
        var employments = await HireAccess.EmploymentsOfAsync(user, db, cancellation);
        return await TaskOwner.OwnsAsync(task, user, employments, db, cancellation);
    }
}

/// <summary>The day a task was done; today when left out.</summary>
public sealed record DoneRequest(LocalDate? Done);

public sealed record SkipRequest(string Why);

internal sealed class SkipValidator : AbstractValidator<SkipRequest>
{
    public SkipValidator() => RuleFor(r => r.Why).Text(Reason.Longest)
        .Must(w => !string.IsNullOrWhiteSpace(w)).WithErrorCode("missing").WithMessage("Say why it does not apply.");
}
