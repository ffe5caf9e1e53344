using Fid.Acts.Lists;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Fields;
using Fid.Core.Templates;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Intake;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Hires;

/// <summary>Works out what hires would start with, as asked for so far, and what is wrong with that. Nothing is saved.</summary>
public sealed class HirePreparation(FidDb db, HireOrigins origins, EnteredValues entered, HireOpening opening)
{
    private const string Typed = "/typed/";

    /// <summary>Prepares hires in their order, each as if those before it had been opened.</summary>
    public async Task<IReadOnlyList<PreparedHire>> PrepareAsync(IReadOnlyList<NewHireRequest> requests, OpeningContext context, CancellationToken cancellation)
    {
        // What they refer to is asked for all of them together.
        var typed = await entered.CheckAsync(
            context.Reader.Fields,
            [.. requests.Select(r => new EnteredRecord(r.Typed, r.Person ?? r.Id, null, context.Reader.Everybody))],
            cancellation
        );
        var recruited = await CandidatesAsync(requests, cancellation);
        var prepared = new List<PreparedHire>();
        for (var i = 0; i < requests.Count; i++)
        {
            var one = await PrepareAsync(requests[i], typed[i], context, cancellation);
            if (one.Draft is { } draft && requests[i].Candidate is { } candidate && recruited.Said.TryGetValue(candidate, out var said))
                one = one with { Draft = FromRecruiting(draft, said, recruited.Sites) };
            if (one.Draft is { } next)
                opening.PassBadgeOf(next);
            prepared.Add(one);
        }
        return prepared;
    }

    /// <summary>What must be there before a hire can be opened, and is looked at only then.</summary>
    public static IEnumerable<Problem> Lacking(NewHireRequest request, PreparedHire prepared, OpeningContext context)
    {
        if (request.Start is null)
            yield return new Problem("/start", "missing", "Say when the person starts.");
        else if (request.Start < context.Today && !request.BackDated)
            yield return new Problem("/start", "back-dated", "The start lies in the past. Say that it is meant so.");
        if (prepared.Draft is not { } draft)
            yield break;
        var cause = CauseIn(request, draft.Template, context, prepared.Problems);
        foreach (var field in HireOpening.Lacking(draft.Values))
            yield return new Problem($"/typed/{field}", "missing", "Fill this in.", cause(field));
    }

    private async Task<PreparedHire> PrepareAsync(NewHireRequest request, Entered typed, OpeningContext context, CancellationToken cancellation)
    {
        var (today, reader, templates, distances) = context;
        var code = request is { Template: "", Like: { } like }
            ? await origins.TemplateOfAsync(like.Employment, templates, reader, today, cancellation)
            : request.Template;
        if (code is null || templates.Find(code) is not { Opens: true } template)
            return new PreparedHire(null, [new Problem("/template", "unknown-template", "Choose a role template.")]);
        var problems = new List<Problem>();
        if (request.Start is { } start && !ValueCheck.IsSensible(start))
            problems.Add(new Problem("/start", "bad-date", "Enter a date from 1900 to 2199."));
        var from = await origins.OfAsync(request, reader, today, cancellation);
        problems.AddRange(from.Problems);
        problems.AddRange(typed.Problems.Select(p => p.Under("/typed")));
        var values = typed.Values.Where(v => v.Value is not null).ToDictionary(v => v.Key, v => v.Value!.Value);
        var drafted = await opening.DraftAsync(
            templates,
            template,
            values,
            request.Start is { } on && ValueCheck.IsSensible(on) ? on : null,
            today,
            cancellation,
            from.Answer
        );
        if (reader.Fields.Approvals.All.Count > 0 && drafted.Answer is { } starting)
            problems.AddRange(
                StartApprovals
                    .Asked(
                        reader.Fields,
                        templates,
                        template,
                        starting.Values.ToDictionary(v => v.Key, v => v.Value.Value, StringComparer.Ordinal),
                        values,
                        distances,
                        request.Start,
                        today
                    )
                    .Select(f => new Problem($"{Typed}{f}", RecordApprovals.NeedsApproval, StartApprovals.Message))
            );
        var cause = CauseIn(request, template, context, problems);
        problems.AddRange(drafted.Problems.Select(p => p with { Path = "/template", Follows = cause(TemplateSet.FieldAt(p.Path)) }));
        if (drafted.Answer is { } draft)
            problems.AddRange(
                RecordRules
                    .RowProblems(reader.Fields.Set, draft.Values.ToDictionary(v => v.Key, v => v.Value.Value, StringComparer.Ordinal), values.Keys)
                    .Select(p => p.Under("/typed"))
            );
        return new PreparedHire(drafted.Answer, problems);
    }

    // The part of the request at fault that a field's fault follows from.
    private static Func<string?, string?> CauseIn(NewHireRequest request, RoleTemplate template, OpeningContext context, IReadOnlyList<Problem> problems)
    {
        // Of a field that the reader may not see nothing follows, as little as of one that is not there.
        var wrong = problems
            .Where(p => p.Path.StartsWith(Typed, StringComparison.Ordinal))
            .Select(p => p.Path[Typed.Length..])
            .Where(context.Reader.Sees)
            .ToHashSet(StringComparer.Ordinal);
        if (request.Start is null || problems.Any(p => p.Path == "/start"))
            wrong.Add("start_date");
        return field =>
            context.Templates.CauseOf(field, template, context.Reader.Fields.Set, wrong) switch
            {
                null => null,
                "start_date" => "/start",
                var cause => Typed + cause,
            };
    }

    private async Task<(Dictionary<Guid, FeedCandidate> Said, SiteNames Sites)> CandidatesAsync(
        IReadOnlyList<NewHireRequest> requests,
        CancellationToken cancellation
    )
    {
        var ids = requests.Select(r => r.Candidate).OfType<Guid>().ToArray();
        if (ids.Length == 0)
            return ([], SiteNames.None);
        return (
            await db.IntakeCandidates.AsNoTracking().Where(c => ids.Contains(c.Id)).ToDictionaryAsync(c => c.Id, c => c.Now, cancellation),
            await SiteNames.LoadAsync(db, cancellation)
        );
    }

    // What came from recruiting and was left as it came says so; what was typed over it does not.
    private static HireDraft FromRecruiting(HireDraft draft, FeedCandidate said, SiteNames sites)
    {
        var (fields, site) = (said.Fields, sites.Find(said.Site));
        return draft with
        {
            Values = draft.Values.ToDictionary(
                v => v.Key,
                v =>
                    v.Value.From == Layer.Typed && Said(v.Key) is { } words && TextRules.AreAlike(words, v.Value.Value.ToString())
                        ? v.Value with
                        {
                            From = HireOrigin.FromRecruiting,
                        }
                        : v.Value,
                StringComparer.Ordinal
            ),
        };

        string? Said(string field) => field == "site" ? site : fields.GetValueOrDefault(field);
    }
}

/// <summary>What a hire would start with, and what is wrong with what was asked for.</summary>
/// <param name="Draft">Null where nothing can be worked out.</param>
/// <param name="Problems">The paths are those of the request.</param>
public sealed record PreparedHire(HireDraft? Draft, IReadOnlyList<Problem> Problems);
