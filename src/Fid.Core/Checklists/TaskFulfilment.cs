using System.Text.Json;
using Fid.Core.Certificates;
using Fid.Core.Fields;
using NodaTime;

namespace Fid.Core.Checklists;

/// <summary>Which tasks complete themselves, and what of the record they wait for.</summary>
public static class TaskFulfilment
{
    /// <summary>The kinds whose tasks are complete when the record says so, and open whenever it does not.</summary>
    public static IReadOnlyList<TaskKind> ByThemselves { get; } = [TaskKind.Fill, TaskKind.Issue, TaskKind.Certify, TaskKind.Return];

    /// <summary>Whether nobody ticks tasks of a kind off: the record says whether they are done.</summary>
    public static bool CompletesItself(TaskKind kind) => ByThemselves.Contains(kind);

    /// <summary>Whether tasks of a kind have to name what they are about: fields by their keys, items and certificates by their codes.</summary>
    public static bool IsAbout(TaskKind kind) => kind == TaskKind.Check || (CompletesItself(kind) && kind != TaskKind.Return);

    /// <summary>Whether tasks of a kind look at the record: they complete themselves by it, or name what of it is to be looked over.</summary>
    public static bool LooksAtRecord(TaskKind kind) => CompletesItself(kind) || IsAbout(kind);

    /// <summary>Whether a task of a kind that completes itself is complete.</summary>
    /// <param name="about">What it is about.</param>
    /// <returns>Never of one that is about nothing and has to be about something, or not of such a kind.</returns>
    public static bool IsMet(TaskKind kind, IReadOnlyCollection<string> about, RecordContent record) =>
        CompletesItself(kind) && (about.Count > 0 || !IsAbout(kind)) && Needs(kind, about, record).All(n => n.IsMet);

    /// <summary>Of everything that a task is about, whether the record has it. Fields that have gone from the configuration are passed over.</summary>
    public static IReadOnlyList<TaskNeed> Needs(TaskKind kind, IReadOnlyCollection<string> about, RecordContent record) =>
        kind switch
        {
            TaskKind.Fill or TaskKind.Check => [.. about.Where(f => record.Fields.Find(f) is not null).Select(f => new TaskNeed(f, record.IsFilled(f)))],
            TaskKind.Issue => [.. about.Select(i => new TaskNeed(i, record.IsIssued(i)))],
            TaskKind.Return => [.. record.GivenOut.Where(i => about.Count == 0 || about.Contains(i)).Select(i => new TaskNeed(i, !record.IsIssued(i)))],
            TaskKind.Certify => [.. about.Select(c => new TaskNeed(c, record.IsCertified(c)))],
            _ => [],
        };
}

/// <summary>One thing a task is about.</summary>
/// <param name="About">The key of a field, or the code of an item or certificate.</param>
/// <param name="IsMet">Whether the record has it.</param>
public sealed record TaskNeed(string About, bool IsMet);

/// <summary>What a record holds on a day, as tasks look at it.</summary>
/// <param name="fields">The configuration that is live.</param>
/// <param name="values">By address.</param>
/// <param name="shownFor">The day the values are those of: formulas that say whether a field applies count from it.</param>
/// <param name="today">The day on which items are issued and certificates valid.</param>
/// <param name="kept">The items that whoever has them keeps; null for none.</param>
public sealed class RecordContent(
    FieldSet fields,
    IReadOnlyDictionary<string, JsonElement> values,
    LocalDate shownFor,
    LocalDate today,
    IReadOnlySet<string>? kept = null
)
{
    private const string Items = "items";

    private readonly Lazy<HashSet<string>> _filled = new(() =>
        [.. values.Where(v => !FieldValues.IsEmpty(v.Value)).Select(v => FieldAddress.Read(v.Key).Whole)]
    );

    private readonly Lazy<HashSet<string>> _shown = new(() =>
        [.. RecordEvaluation.Of(fields, new RecordQuestion(values, fields.Keys, [], null, null, shownFor, RecordQuestion.NoLists)).Shown]
    );

    private readonly Lazy<HashSet<string>> _certified = new(() =>
        [
            .. CertificateStates
                .Of(today, CertificateStates.UsualWarnings, [], CertificateRows.Held(CertificateRows.Of(fields, values), today))
                .Certificates.Where(c => c.State is CertificateState.Valid or CertificateState.Expiring)
                .Select(c => c.Kind),
        ]
    );

    /// <summary>The configuration that is live.</summary>
    public FieldSet Fields { get; } = fields;

    /// <summary>Whether a field has a value, or rows; one that does not apply to this record has nothing to be filled.</summary>
    public bool IsFilled(string field) => _filled.Value.Contains(field) || !_shown.Value.Contains(field);

    /// <summary>Whether an item is out: issued by today, and not returned.</summary>
    public bool IsIssued(string item) =>
        Fields.Find(Items) is { RowKey: { } key, Dates: { } dates } rows
        && HeldRows
            .Of(rows.Key, values)
            .Any(r => r.Text(key) == item && r.Day(dates.From) is { } issued && issued <= today && !(r.Day(dates.Until) is { } returned && returned <= today));

    /// <summary>The items that were ever issued and are not for keeps, each once, by code.</summary>
    public IReadOnlyList<string> GivenOut =>
        Fields.Find(Items) is { RowKey: { } key, Dates: { } dates } rows
            ?
            [
                .. HeldRows
                    .Of(rows.Key, values)
                    .Where(r => r.Day(dates.From) is { } issued && issued <= today)
                    .Select(r => r.Text(key))
                    .OfType<string>()
                    .Where(i => kept?.Contains(i) != true)
                    .Distinct()
                    .Order(StringComparer.Ordinal),
            ]
            : [];

    /// <summary>Whether a certificate is held.</summary>
    public bool IsCertified(string certificate) => _certified.Value.Contains(certificate);
}
