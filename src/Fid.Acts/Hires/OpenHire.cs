using System.Text.Json;
using Fid.Acts.Outbox;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Exchange;
using Fid.Data.Intake;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Hires;

/// <summary>Opens hires, all or none: from a template, and what was typed, to a record and a checklist.</summary>
public sealed class OpenHire(
    FidDb db,
    HirePreparation preparation,
    HireOpening opening,
    RecordWriter records,
    UniqueValues unique,
    PeopleIndex people,
    HireNotices notices
)
{
    public async Task<ActResult<OpenedHire[]>> DoAsync(OpenHireRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Open, Things.Hire))
            return Refusal.Forbidden;
        // Sent twice, opened once: the user who asks names the hires they want opened.
        var ids = request.Hires.Select(h => h.Id).Distinct().ToArray();
        if (await OpenedAsync(ids, cancellation) is { } there)
            return there;

        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        // Those that were opened under this key are found by their ids, above and below.
        await opening.LockBadgesAsync(cancellation);
        // Sent twice at the same moment, the second has waited for the first here.
        if (await OpenedAsync(ids, cancellation) is { } meanwhile)
            return meanwhile;
        if (await db.Hires.AnyAsync(h => ids.Contains(h.Id), cancellation))
            return Refusal.Invalid("/hires", "opened-already", "Some of these are open already. Look at Arrivals, and open the others.");

        var context = await OpeningContext.LoadAsync(actor, db, cancellation);
        await records.LockUniqueAsync(context.Reader.Fields.Set.FieldsAndColumns.Select(f => f.Key), cancellation);
        var prepared = await preparation.PrepareAsync(request.Hires, context, cancellation);
        var (hires, problems) = await CheckAsync(request, prepared, context, cancellation);
        if (problems.Count > 0)
            return Refusal.Invalid(problems);
        if (!await records.LockEntriesAsync(request.Hires.SelectMany(h => h.Typed).Select(t => (t.Key, (JsonElement?)t.Value)), cancellation))
            throw new DbUpdateConcurrencyException("A list entry that was chosen has been deleted.");

        var author = actor.Author("newHire");
        var numbers = await opening.NextNumbersAsync([.. hires.Select(h => h.Request.Start!.Value)], cancellation);
        var opened = new List<OpenedHire>();
        for (var i = 0; i < hires.Count; i++)
        {
            var (one, draft, candidate) = hires[i];
            var start = one.Start!.Value;
            var hire = await opening.AddAsync(
                draft,
                new HireStart(one.Id, numbers[i], start, LocalDate.Min(context.Today, start), actor.Account, Reason.Clean(one.Why)),
                author,
                context.Today,
                cancellation
            );
            if (candidate is not null)
                Take(candidate, new OpenedHire(hire.Id, hire.EmploymentId, numbers[i]), start, author);
            opened.Add(new OpenedHire(hire.Id, hire.EmploymentId, numbers[i]));
        }
        await act.CommitAsync(cancellation);
        return opened.ToArray();
    }

    // All of them, in the order in which they were asked for; null where one is not open yet.
    private async Task<OpenedHire[]?> OpenedAsync(Guid[] ids, CancellationToken cancellation)
    {
        var there = await db
            .Hires.Where(h => ids.Contains(h.Id))
            .Join(db.Employments, h => h.EmploymentId, e => e.Id, (h, e) => new OpenedHire(h.Id, e.Id, e.Number))
            .ToArrayAsync(cancellation);
        return there.Length == ids.Length ? [.. ids.Select(i => there.Single(t => t.Id == i))] : null;
    }

    private async Task<(List<ReadyHire> Hires, List<Problem> Problems)> CheckAsync(
        OpenHireRequest request,
        IReadOnlyList<PreparedHire> prepared,
        OpeningContext context,
        CancellationToken cancellation
    )
    {
        var undecided = request.PeopleAreDecided
            ? new Problem?[prepared.Count]
            : await UndecidedPeople.OfAsync(request.Hires, context.Reader, people, db, cancellation);
        var waiting = request.Hires.Select(h => h.Candidate).OfType<Guid>().ToArray();
        var candidates =
            waiting.Length == 0
                ? []
                : await db.IntakeCandidates.Where(c => waiting.Contains(c.Id) && c.State == IntakeState.Waiting).ToDictionaryAsync(c => c.Id, cancellation);
        var unexplained = await UnexplainedAsync(request, prepared, context, cancellation);
        var (problems, ready) = (new List<Problem>(), new List<ReadyHire>());
        for (var i = 0; i < prepared.Count; i++)
        {
            var one = request.Hires[i];
            List<Problem> wrong =
            [
                .. prepared[i].Problems,
                .. HirePreparation.Lacking(one, prepared[i], context).Where(l => prepared[i].Problems.All(p => p.Path != l.Path)),
            ];
            if (await WorksHereAsync(one, context.Today, cancellation) is { } beside)
                wrong.Add(beside);
            if (undecided[i] is { } who)
                wrong.Add(who);
            if ((Reason.Check(one.Why) ?? unexplained[i]) is { } why)
                wrong.Add(why);
            if (prepared[i].Draft is { } made && !MayOpen(made, one, context))
                wrong.Add(
                    new Problem("/template", "not-yours-to-open", "You may not open hires like this one. Choose another place, or ask somebody who may.")
                );
            IntakeCandidate? candidate = null;
            if (one.Candidate is { } id && !candidates.Remove(id, out candidate))
                wrong.Add(new Problem("/candidate", "not-waiting", "This candidate does not wait any more. Look at the tray again."));
            problems.AddRange(wrong.Select(p => p.Under($"/hires/{i}")));
            if (prepared[i].Draft is { } draft)
                ready.Add(new ReadyHire(one, draft, candidate));
        }
        if (problems.Count == 0)
            problems.AddRange(await TakenAsync(ready, context, cancellation));
        return (ready, problems);
    }

    // Pay that needs a reason and has none. What comes in sheets was looked through row by row before.
    private Task<Problem?[]> UnexplainedAsync(
        OpenHireRequest request,
        IReadOnlyList<PreparedHire> prepared,
        OpeningContext context,
        CancellationToken cancellation
    ) =>
        PayReason.MissingAtStartAsync(
            db,
            context.Reader,
            [
                .. prepared.Select(
                    (p, i) =>
                        p.Draft is { } draft
                        && !request.PeopleAreDecided
                        && Reason.Clean(request.Hires[i].Why) is null
                        && request.Hires[i].Typed.Keys.Any(PayReason.Decisive.Contains)
                        // What is wrong with it is told first.
                        && !PayReason.Decisive.Any(f => p.Problems.Any(wrong => wrong.Path == $"/typed/{f}"))
                            ? draft.Values.ToDictionary(v => v.Key, v => (JsonElement?)v.Value.Value, StringComparer.Ordinal)
                            : null
                ),
            ],
            context.Today,
            cancellation
        );

    private static bool MayOpen(HireDraft draft, NewHireRequest request, OpeningContext context) =>
        context.Reader.MayNew(
            Actions.Open,
            Things.Hire,
            draft.Values.ToDictionary(v => v.Key, v => v.Value.Value, StringComparer.Ordinal),
            request.Start ?? context.Today
        );

    // Mostly the same person opened twice; two jobs at once have to be meant. Badges are locked by now, so nobody opens one meanwhile.
    private async Task<Problem?> WorksHereAsync(NewHireRequest request, LocalDate today, CancellationToken cancellation) =>
        request is { Person: { } person, SecondStint: false } && await Stints.AnyGoesOnAsync(db, person, request.Start ?? today, null, cancellation)
            ? new Problem("/person", "works-here", "They work here then already. Open that record, or say that two stints at once are meant.")
            : null;

    // What the template, its formulas and the next badge gave is held against others as what was typed was.
    private async Task<IEnumerable<Problem>> TakenAsync(List<ReadyHire> hires, OpeningContext context, CancellationToken cancellation)
    {
        var claims = hires
            .SelectMany(
                (h, i) =>
                    h
                        .Draft.FieldValues.Select(v => (Hire: i, Field: context.Reader.Fields.Set.Find(v.Field)!, v.Value))
                        .Where(v => v.Field.Unique)
                        .Select(v => (v.Hire, Claim: new UniqueClaim(v.Field, v.Value, h.Request.Person ?? h.Request.Id)))
            )
            .ToList();
        return (await unique.FindTakenAsync(claims.ConvertAll(c => c.Claim), cancellation)).Select(t =>
            UniqueValues.Taken(claims[t].Claim.Field.Key).Under($"/hires/{claims[t].Hire}/typed")
        );
    }

    // The candidate leaves the tray with the hire that is opened, and recruiting is told.
    private void Take(IntakeCandidate candidate, OpenedHire hire, LocalDate start, Author author)
    {
        (candidate.State, candidate.HireId, candidate.Settled) = (IntakeState.Taken, hire.Id, candidate.Now);
        var change = author.Change("candidate.taken", candidate.Id, candidate.SourceId);
        db.Changes.Add(change);
        notices.TellRecruiting(candidate, new HireNotice(NoticeKind.Opened, hire.Number, start), hire.Id, change);
    }

    /// <summary>A hire that nothing is wrong with.</summary>
    private sealed record ReadyHire(NewHireRequest Request, HireDraft Draft, IntakeCandidate? Candidate);
}

/// <param name="Hires">The hires, in the order of the grid.</param>
/// <param name="PeopleAreDecided">Whether it is known of each whether they are somebody the firm knows, and need not be asked.</param>
public sealed record OpenHireRequest(IReadOnlyList<NewHireRequest> Hires, bool PeopleAreDecided = false);

public sealed record OpenedHire(Guid Id, Guid EmploymentId, string Number);
