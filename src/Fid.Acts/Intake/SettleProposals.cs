using System.Text.Json;
using Fid.Acts.Hires;
using Fid.Acts.Lists;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Intake;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Intake;

/// <summary>Takes over into a record, or sets aside, what the feed says otherwise since the hire was opened.</summary>
public sealed class SettleProposals(FidDb db, RecordWriter records, EnteredValues enteredValues)
{
    /// <summary>Whether a proposal can be taken over as it is: a start is moved with its checklist, and another role is for somebody to
    /// think about.</summary>
    public static bool IsTakenOver(string field) => field is not (StartCorrection.Field or FeedCandidate.RoleField);

    public async Task<ActResult> DoAsync(SettleProposalsRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Candidate))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        if (await db.IntakeCandidates.SingleOrDefaultAsync(c => c.Id == request.Candidate, cancellation) is not { HireId: { } hire } candidate)
            return Refusal.NotFound;
        var proposals = Intake.Proposals(candidate);
        var (take, leave) = (request.Take.Where(proposals.ContainsKey).ToHashSet(), request.Leave.Where(proposals.ContainsKey).ToHashSet());
        if (take.FirstOrDefault(f => !IsTakenOver(f)) is { } by)
            return Refusal.Invalid($"/take/{by}", "by-hand", "Do this in the checklist, or leave it as it is.");
        if (await HireInHand.TakeAsync(db, actor, Actions.See, hire, cancellation) is not var (_, employment, record))
            return Refusal.NotFound;

        var reader = await Reader.OfAsync(actor, db, cancellation);
        var fields = reader.Fields;
        var sites = await SiteNames.LoadAsync(db, cancellation);
        var said = take.ToDictionary(
            f => f,
            f => JsonSerializer.SerializeToElement(f == "site" ? sites.Find(proposals[f].Now) ?? proposals[f].Now : proposals[f].Now)
        );
        await records.LockUniqueAsync(said.Keys, cancellation);
        var entered = await enteredValues.CheckAsync(fields, new EnteredRecord(said, employment.PersonId, employment.Id, reader.On(record)), cancellation);
        var problems = entered.Problems.Concat(RecordRules.Misfits(entered.Values, employment.Start)).ToList();
        if (problems.Count > 0)
            return Refusal.Invalid([.. problems.Select(p => p.Under("/take"))]);
        var change = act.Note(actor.Author("exchange").Change("record.fromRecruiting", employment.Id, string.Join(' ', take.Order(StringComparer.Ordinal))));
        // Nothing of a stint is true before its first day: until then, what it begins with is put right.
        LocalDate? From(string field) => fields.Set.Find(field)!.Of == FieldOwner.Employment && employment.Start > actor.Today ? null : actor.Today;
        var edits = entered.Values.Select(v => new FieldEdit(v.Key, v.Value, HireOrigin.FromRecruiting, From(v.Key))).ToList();
        if (await records.SaveAsync([new RecordEdit(employment, record, edits, change)], actor.Today, cancellation) is { Count: > 0 } clash)
            return Refusal.Invalid([.. clash.Select(c => c.Problem.Under("/take"))]);
        candidate.Settled = Settled(candidate.Settled!, candidate.Now, [.. take, .. leave]);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    private static FeedCandidate Settled(FeedCandidate before, FeedCandidate now, HashSet<string> fields) =>
        before with
        {
            GivenName = fields.Contains("given_name") ? now.GivenName : before.GivenName,
            FamilyName = fields.Contains("family_name") ? now.FamilyName : before.FamilyName,
            BirthDate = fields.Contains("birth_date") ? now.BirthDate : before.BirthDate,
            Email = fields.Contains("email") ? now.Email : before.Email,
            Phone = fields.Contains("phone") ? now.Phone : before.Phone,
            Site = fields.Contains("site") ? now.Site : before.Site,
            Start = fields.Contains(StartCorrection.Field) ? now.Start : before.Start,
            Role = fields.Contains(FeedCandidate.RoleField) ? now.Role : before.Role,
        };
}

/// <param name="Take">Fields to take over.</param>
/// <param name="Leave">Fields to leave as they are.</param>
public sealed record SettleProposalsRequest(Guid Candidate, IReadOnlyList<string> Take, IReadOnlyList<string> Leave);
