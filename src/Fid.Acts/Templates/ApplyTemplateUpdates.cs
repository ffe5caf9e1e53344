using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Core.Rights;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>Brings hires to the live versions of their templates, taking of each what was decided. All or none.</summary>
public sealed class ApplyTemplateUpdates(FidDb db, RecordWriter records)
{
    public async Task<ActResult<TemplateUpdateRun>> DoAsync(ApplyUpdatesRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Template))
            return Refusal.Forbidden;
        if (request.Hires.Length == 0)
            return Refusal.Invalid("/hires", "missing", "Choose the hires to update.");
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return await db.TemplateUpdateRuns.AsNoTracking().Where(r => r.ByName == actor.Name).OrderByDescending(r => r.At).FirstAsync(cancellation);
        var ids = request.Hires.Select(h => h.Id).ToHashSet();
        if (!ids.IsSubsetOf(await ReachedHires.AmongAsync(actor, db, Actions.Edit, ids, cancellation)))
            return Refusal.NotFound;
        await Locks.RecordsAsync(db, await db.Hires.Where(h => ids.Contains(h.Id)).Select(h => h.EmploymentId).ToListAsync(cancellation), cancellation);
        var found = (await new TemplateUpdates(db).FindAsync(await TemplateSet.LoadAsync(db, cancellation), null, ids, actor.Today, cancellation)).ToDictionary(
            u => u.Hire.Id
        );
        if (!ids.All(found.ContainsKey))
            return Refusal.Conflict("changed-meanwhile", "Some of these hires are up to date already. Look again.");
        if (found.Values.FirstOrDefault(u => u.Trouble is not null) is { } stuck)
            return Refusal.Conflict("cannot-resolve", stuck.Trouble!);
        var reader = await Reader.OfAsync(actor, db, cancellation);
        var decided = request
            .Hires.Select(h =>
                (
                    found[h.Id],
                    (IReadOnlySet<string>)
                        h.Take.Intersect(found[h.Id].Facts.Where(f => MayTake(f, reader)).Select(f => f.Key)).ToHashSet(StringComparer.Ordinal)
                )
            )
            .ToList();
        var (run, problems) = await new TemplateUpdateWriter(db, records).ApplyAsync(decided, actor.Author("templates"), actor.Today, cancellation);
        if (run is null)
            return Refusal.Invalid([.. problems.Select(p => p.Problem.Under($"/hires/{p.Record}/take"))]);
        await act.CommitAsync(cancellation);
        return run;
    }

    /// <summary>A value of the record is taken by those who may edit its field; what a task sets by those who may see that; the rest of tasks and what
    /// is issued by all who update hires.</summary>
    public static bool MayTake(MergedFact fact, Reader reader) =>
        fact.Key.Split('/', 3) switch
        {
            ["values", var field, ..] => reader.MayEdit(field),
            [TemplateLists.Tasks, _, var property] => new[] { fact.Before, fact.Mine, fact.Theirs }.All(v => reader.SeesProperty(property, v)),
            _ => true,
        };
}

/// <param name="Hires">The hires, and for each the facts to take.</param>
public sealed record ApplyUpdatesRequest(DecidedUpdate[] Hires);

public sealed record DecidedUpdate(Guid Id, string[] Take);
