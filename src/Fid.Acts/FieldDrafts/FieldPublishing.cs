using System.Text;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Core.Approvals;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Fields;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.FieldDrafts;

/// <summary>Looks through drafts of the record's fields, and makes them live.</summary>
public sealed class FieldPublishing(FidDb db)
{
    /// <summary>The findings that keep a draft from being published; the others are advice.</summary>
    public static bool Blocks(Finding finding) =>
        finding.Code is not ("duplicate-label" or "never-true" or "nothing-to-choose" or "default-outside" or "strands-values");

    /// <summary>The configuration of a version; what ships for 0; null where there is none such.</summary>
    public async Task<FieldConfiguration?> VersionAsync(int version, CancellationToken cancellation)
    {
        if (version == 0)
            return FieldConfiguration.Shipped;
        var text = await db.FieldVersions.Where(v => v.Version == version).Select(v => v.Configuration).FirstOrDefaultAsync(cancellation);
        return text is null ? null : FieldConfiguration.Read(Encoding.UTF8.GetBytes(text)).Answer;
    }

    /// <summary>The version that is live; 0 for what ships.</summary>
    public async Task<int> LiveVersionAsync(CancellationToken cancellation) => await db.FieldVersions.MaxAsync(v => (int?)v.Version, cancellation) ?? 0;

    /// <summary>What a draft would do: findings, differences from what is live, and whom it touches.</summary>
    /// <param name="sees">Whether the user who asks may see a field as it is live: of the others nothing is counted.</param>
    public async Task<DraftReview> ReviewAsync(FieldConfiguration draft, LocalDate today, Func<string, bool> sees, CancellationToken cancellation)
    {
        var live = (await VersionAsync(await LiveVersionAsync(cancellation), cancellation))!;
        var stages = await StagesAsync(cancellation);
        var rights = await LiveRights.LiveAsync(db, cancellation);
        string[] roles = [.. rights.Roles.Select(r => r.Id)];
        var lists = (await db.ListEntries.AsNoTracking().Select(e => new { e.List, e.Code }).ToListAsync(cancellation))
            .GroupBy(e => e.List)
            .ToDictionary(g => g.Key, g => (IReadOnlyList<string>)[.. g.Select(e => e.Code)]);
        foreach (var list in Core.Lists.ShippedLists.All)
            lists.TryAdd(list.Key, []);
        var differences = ConfigurationDifference.Of(live, draft);
        var findings = ConfigurationCheck.Of(
            new ConfigurationQuestion(draft.Fields, stages, lists, roles, live.Fields, await StoredAsync(live, differences, sees, cancellation))
        );
        findings = [.. findings, .. ApprovalCheck.Of(draft, roles)];
        var gone = Fid
            .Core.Fields.Shipped.ShippedFields.All.Where(f => draft.Fields.All(d => d.Key != f.Key))
            .Select(f => new Finding(
                "shipped-removed",
                [f.Key],
                $"“{f.Label("en")}” ships with Fid and cannot be taken away. Hide it instead: show it only when false."
            ));
        var removed = differences.Where(d => d.Kind == DifferenceKind.Removed).Select(d => d.Field).OfType<string>().Where(rights.GoesBy);
        gone = gone.Concat(
            removed.Select(key => new Finding(
                "named-in-rights",
                [key],
                $"A role or a group of people goes by “{live.Fields.First(f => f.Key == key).Label("en")}”. Change that under Admin first."
            ))
        );
        var all = gone.Concat(await SensitiveAsync(live, draft, cancellation)).Concat(findings).ToList();
        return new DraftReview(
            all,
            differences,
            all.Exists(Blocks) ? [] : await TouchedAsync(live, draft, stages, differences, today, sees, cancellation),
            AccessWidening.Of(live, draft, roles)
        );
    }

    /// <summary>Makes a draft the live version, with every record's projection brought up to it. All in the caller's transaction.</summary>
    /// <param name="differences">How it differs from what is live, as its review says.</param>
    public async Task<int> PublishAsync(
        FieldConfiguration draft,
        IReadOnlyList<FieldDifference> differences,
        Author author,
        string? why,
        CancellationToken cancellation
    )
    {
        await Locks.FieldDraftAsync(db, cancellation);
        var written = draft.Write();
        var version = await LiveVersionAsync(cancellation) + 1;
        db.FieldVersions.Add(
            new FieldVersion
            {
                Version = version,
                Configuration = Encoding.UTF8.GetString(written),
                Hash = LiveFieldsLoader.HashOf(written),
                At = author.At,
                ByName = author.Name,
                Why = why,
            }
        );
        var firm = await db.Firms.Select(f => f.Id).SingleAsync(cancellation);
        db.Changes.Add(
            author.Change("fields.published", firm, version.ToString(System.Globalization.CultureInfo.InvariantCulture), why) with
            {
                // So that the chain of changes vouches for the configuration too.
                Details = System.Text.Json.JsonSerializer.Serialize(new { sha256 = LiveFieldsLoader.HashOf(written) }),
            }
        );
        await db.SaveChangesAsync(cancellation);
        await db.FieldDrafts.ExecuteDeleteAsync(cancellation);
        if (differences.Any(d => d.CanChangeCompleteness))
            await RecordReprojection.DoAsync(db, cancellation);
        return version;
    }

    // Rows are never rewritten: what was stored readable would stay readable, and the other way round.
    private async Task<List<Finding>> SensitiveAsync(FieldConfiguration live, FieldConfiguration draft, CancellationToken cancellation)
    {
        var findings = draft
            .Fields.SelectMany(f => f.WithColumns())
            .Where(f =>
                f.Sensitive
                && f.Type
                    is not (
                        FieldType.Text
                        or FieldType.LongText
                        or FieldType.Identifier
                        or FieldType.Iban
                        or FieldType.Phone
                        or FieldType.Email
                        or FieldType.Date
                    )
            )
            .Select(f => new Finding(
                "sensitive-type",
                Named(f),
                $"“{f.Label("en")}” cannot be sensitive: only texts, identifiers, bank accounts, telephone numbers, e-mail addresses and "
                    + "dates can be kept sealed.",
                null,
                Part(f)
            ))
            .ToList();
        var old = live.Fields.SelectMany(f => f.WithColumns()).DistinctBy(f => f.Key).ToDictionary(f => f.Key);
        var turned = draft
            .Fields.SelectMany(f => f.WithColumns())
            .Where(f => old.TryGetValue(f.Key, out var before) && before.Sensitive != f.Sensitive)
            .ToDictionary(f => f.Key);
        if (turned.Count == 0)
            return findings;
        var keys = turned.Keys.ToArray();
        var stored = await db
            .RecordValues.Where(v => keys.Contains(v.Field))
            .GroupBy(v => v.Field)
            .Select(g => new { g.Key, Count = g.Select(v => v.OwnerId).Distinct().Count() })
            .ToListAsync(cancellation);
        findings.AddRange(
            stored.Select(s => new Finding(
                "sensitive-stored",
                Named(turned[s.Key]),
                turned[s.Key].Sensitive
                    ? $"“{turned[s.Key].Label("en")}” is stored readable in {s.Count} records, and what was recorded is never rewritten. Add a "
                        + "new sensitive field, and take the values over."
                    : $"“{turned[s.Key].Label("en")}” is stored sealed in {s.Count} records, and what was recorded is never rewritten. Add a new "
                        + "field that is not sensitive, and take the values over.",
                null,
                Part(turned[s.Key])
            ))
        );
        return findings;

        // Of a column, the rows are what is opened.
        static IReadOnlyList<string> Named(FieldDefinition field) => field.IsColumn ? [FieldAddress.Read(field.Key).Whole, field.Key] : [field.Key];

        string Part(FieldDefinition field) =>
            FieldAddress.Read(field.Key) is { Column: { } column, Whole: var whole }
                ? $"columns/{draft.Fields.First(f => f.Key == whole).Columns!.ToList().FindIndex(c => c.Key == column)}/sensitive"
                : "sensitive";
    }

    private async Task<List<string>> StagesAsync(CancellationToken cancellation) =>
        await db.Stages.AsNoTracking().Where(s => s.Occasion == Occasion.Arrival).OrderBy(s => s.Position).Select(s => s.Key).ToListAsync(cancellation);

    // How many active records hold which value, of fields that are changed or gone.
    private async Task<Dictionary<string, IReadOnlyDictionary<string, int>>> StoredAsync(
        FieldConfiguration live,
        IReadOnlyList<FieldDifference> differences,
        Func<string, bool> sees,
        CancellationToken cancellation
    )
    {
        var keys = differences
            .Where(d => d.Field is { } field && sees(field))
            .Where(d => d.Kind == DifferenceKind.Removed || d.Parts.Any(p => p.Part is "type" or "options" or "list" or "columns"))
            .SelectMany(d => live.Fields.First(f => f.Key == d.Field).WithColumns())
            .Select(f => f.Key)
            .ToArray();
        if (keys.Length == 0)
            return [];
        var texts = live
            .Fields.SelectMany(f => f.WithColumns())
            .Where(f => !(f.Type is FieldType.Number or FieldType.Money or FieldType.YesNo or FieldType.Choices))
            .Select(f => f.Key)
            .ToArray();
        var rows = await db
            .Database.SqlQuery<StoredCount>(
                $"""
                select field, case when field = any({texts}) then value #>> array[]::text[] else value::text end as value, count(distinct owner_id)::int as
                  count
                from record_values where field = any({keys}) and upper_inf(known) and upper_inf(effective) group by 1, 2
                """
            )
            .ToListAsync(cancellation);
        return rows.GroupBy(r => r.Field).ToDictionary(g => g.Key, g => (IReadOnlyDictionary<string, int>)g.ToDictionary(r => r.Value, r => r.Count));
    }

    private async Task<IReadOnlyList<Touched>> TouchedAsync(
        FieldConfiguration live,
        FieldConfiguration draft,
        List<string> stages,
        IReadOnlyList<FieldDifference> differences,
        LocalDate today,
        Func<string, bool> sees,
        CancellationToken cancellation
    )
    {
        var changed = differences.Where(d => d.CanChangeCompleteness).Select(d => d.Field).OfType<string>().ToHashSet(StringComparer.Ordinal);
        if (changed.Count == 0)
            return [];
        if (FieldSet.Read(live.Fields, stages).Answer is not { } before || FieldSet.Read(draft.Fields, stages).Answer is not { } after)
            return [];
        // Those whose conditions read what changed, though they did not; and of all of them only what says whether they are shown or lacking.
        var concerned = before
            .Keys.Union(after.Keys)
            .Where(k => changed.Contains(k) || before.ConditionsRead(k).Concat(after.ConditionsRead(k)).Any(changed.Contains))
            .ToHashSet(StringComparer.Ordinal);
        var read = concerned.Union(concerned.SelectMany(k => before.Reads(k).Concat(after.Reads(k)))).ToHashSet(StringComparer.Ordinal);
        var (was, will) = (Part(live), Part(draft));
        var active = await ActiveRecords.LoadAsync(
            db,
            today,
            cancellation,
            fields: [.. read.Concat(draft.Fields.Concat(live.Fields).Where(f => read.Contains(f.Key)).SelectMany(f => f.ColumnsAsFields()).Select(f => f.Key))]
        );
        var (lacking, hidden) = (new Dictionary<string, int>(), new Dictionary<string, int>());
        foreach (
            var (missing, gone) in active
                .Records.Values.AsParallel()
                .WithCancellation(cancellation)
                .Select(r => Compare(was, will, concerned, Seen(r, sees)))
                .ToArray()
        )
        {
            foreach (var key in missing)
                lacking[key] = lacking.GetValueOrDefault(key) + 1;
            foreach (var key in gone)
                hidden[key] = hidden.GetValueOrDefault(key) + 1;
        }
        return
        [
            .. draft
                .Fields.Where(f => lacking.ContainsKey(f.Key) || hidden.ContainsKey(f.Key))
                .Select(f => new Touched(f.Key, lacking.GetValueOrDefault(f.Key), hidden.GetValueOrDefault(f.Key))),
        ];

        // Evaluating the rest of each record would take most of the time. What can be read as a whole can be in part.
        FieldSet Part(FieldConfiguration whole) => FieldSet.Read([.. whole.Fields.Where(f => read.Contains(f.Key))], stages).Answer!;
    }

    // Fields that a record would newly lack, and values it has that would no longer show.
    private static (string[] Missing, string[] Hidden) Compare(FieldSet before, FieldSet after, HashSet<string> concerned, ActiveRecord record)
    {
        var (was, will) = (Completeness.Count(before, record.Values, record.AsOf), Completeness.Count(after, record.Values, record.AsOf));
        return ([.. will.Missing.Except(was.Missing).Where(concerned.Contains)], [.. was.ShownFilled.Except(will.ShownFilled).Where(concerned.Contains)]);
    }

    // A condition over what somebody may not see would tell it by the number of those it touches.
    private static ActiveRecord Seen(ActiveRecord record, Func<string, bool> sees) =>
        record.Values.Keys.All(sees) ? record : record with { Values = record.Values.Where(v => sees(v.Key)).ToDictionary() };

    private sealed record StoredCount(string Field, string Value, int Count);
}

/// <summary>What a draft would do.</summary>
/// <param name="Findings">What would trip people up.</param>
/// <param name="Differences">What differs from what is live.</param>
/// <param name="Touched">Whom it touches; empty while findings keep it from being published.</param>
/// <param name="Widened">What is guarded and would be seen by more; where there is any, a second person has to agree.</param>
public sealed record DraftReview(
    IReadOnlyList<Finding> Findings,
    IReadOnlyList<FieldDifference> Differences,
    IReadOnlyList<Touched> Touched,
    IReadOnlyList<WidenedAccess> Widened
);

/// <summary>Active records that a draft touches.</summary>
/// <param name="Field">The field.</param>
/// <param name="Lacking">Records that would then lack it, and do not now.</param>
/// <param name="Hidden">Records whose value would no longer show.</param>
public sealed record Touched(string Field, int Lacking, int Hidden);
