using Fid.Core.Texts;

namespace Fid.Core.Fields;

/// <summary>
/// Reads a configuration before it is published and finds what would trip people up: fields that must be filled and that nobody
/// can fill, rings, names of things there are not, options that cannot be reached, formulas that do not fit, values that would
/// be stranded. Findings are in the order of the fields.
/// </summary>
public sealed class ConfigurationCheck
{
    private readonly List<(int At, Finding Finding)> _findings = [];

    private ConfigurationCheck(ConfigurationQuestion question)
    {
        Question = question;
        Set = FieldSet.Bare(question.Fields, question.Stages);
        Lists = question.Lists.ToDictionary(l => l.Key, l => l.Value.ToHashSet(StringComparer.Ordinal), StringComparer.Ordinal);
    }

    internal ConfigurationQuestion Question { get; }

    internal FieldSet Set { get; }

    internal IReadOnlyDictionary<string, HashSet<string>> Lists { get; }

    /// <summary>What there is to find.</summary>
    public static IReadOnlyList<Finding> Of(ConfigurationQuestion question)
    {
        var check = new ConfigurationCheck(question);
        check.FindOfFields();
        RowsFindings.Find(check);
        StoredFindings.Find(check);
        return [.. check._findings.OrderBy(f => f.At).Select(f => f.Finding)];
    }

    /// <summary>What there is to find of columns, the first of the fields in question, with their places.</summary>
    internal static IEnumerable<(int At, Finding Finding)> OfColumns(ConfigurationQuestion question, int columns)
    {
        var check = new ConfigurationCheck(question);
        check.FindOfFields();
        return check._findings.Where(f => f.At < columns).OrderBy(f => f.At);
    }

    private void FindOfFields()
    {
        AccessFindings.Find(this);
        NameFindings.Find(this);
        OptionFindings.Find(this);
        FormulaFindings.Find(this);
        RingFindings.Find(this);
    }

    internal void Add(int at, string code, string message, string? suggestion = null, string? part = null, int? character = null, params string[] alsoAbout) =>
        _findings.Add((at, new Finding(code, [Key(at), .. alsoAbout], message, suggestion, part, character)));

    internal void Add(int at, Finding finding) => _findings.Add((at, finding));

    internal string Key(int at) => at < Set.Fields.Count ? Set.Fields[at].Key : "";

    /// <summary>How a field is called in a sentence.</summary>
    internal static string Name(FieldDefinition field) => $"“{field.Label("en")}”";

    internal static string Names(IEnumerable<FieldDefinition> fields) => string.Join(", ", fields.Select(Name));

    /// <summary>The name that is meant by one there is not; the rest of a sentence that says so, or nothing.</summary>
    internal static (string? Name, string Sentence) Meant(string wrong, IEnumerable<string> names)
    {
        var nearest = Nearest.Find(wrong, names.Select(n => (n, n)));
        return (nearest, nearest is null ? "" : $" Did you mean “{nearest}”?");
    }
}
