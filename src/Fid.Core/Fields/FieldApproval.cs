using System.Text.Json;
using Fid.Core.Json;

namespace Fid.Core.Fields;

/// <summary>Who has to agree to changes of some fields, as a configuration has it.</summary>
/// <param name="Id">Its name in files and in requests: letters, digits, underscores and hyphens.</param>
/// <param name="Labels">What it is called, by language, such as "en".</param>
/// <param name="Fields">The keys of the fields; that of rows stands for all of their columns.</param>
/// <param name="When">A formula over "old", "new" and the record's values: only where it holds is anybody asked; null for always.</param>
/// <param name="By">Who has to agree, one after the other, as "manager", "manager2", "role:" and a role, "person:" and an id.</param>
public sealed record FieldApproval(string Id, IReadOnlyDictionary<string, string> Labels, IReadOnlyList<string> Fields, string? When, IReadOnlyList<string> By)
{
    private static readonly Shape Approval = new("id", "label?", "fields", "when?", "by");

    /// <summary>The label in a language; English, or else the id, where there is none in it.</summary>
    public string Label(string language) => Labels.GetValueOrDefault(language) ?? Labels.GetValueOrDefault("en") ?? Id;

    /// <summary>Whether it speaks of the field that holds the value at an address.</summary>
    public bool IsAbout(string address) => IsAbout(Fields, address);

    /// <summary>Whether the field that holds the value at an address is among some, or the rows it stands in are.</summary>
    internal static bool IsAbout(IReadOnlyList<string> fields, string address) =>
        fields.Contains(address, StringComparer.Ordinal)
        || fields.Contains(FieldAddress.FieldOf(address), StringComparer.Ordinal)
        || (FieldAddress.Read(address) is { Column: not null, Whole: var rows } && fields.Contains(rows, StringComparer.Ordinal));

    internal static FieldApproval Read(ref QuestionReader question)
    {
        var approval = new FieldApproval("", new Dictionary<string, string>(), [], null, []);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Approval, ref seen) is var at and >= 0)
                approval = at switch
                {
                    0 => approval with { Id = question.Id() },
                    1 => approval with { Labels = FieldReader.ReadLabels(ref question) },
                    2 => approval with { Fields = question.Items((ref q) => q.Id()) },
                    3 => approval with { When = question.Text() },
                    _ => approval with { By = question.Items((ref q) => q.Text()) },
                };
        return approval;
    }

    internal static void Write(Utf8JsonWriter writer, FieldApproval approval)
    {
        writer.WriteStartObject();
        writer.WriteString("id", approval.Id);
        if (approval.Labels.Count > 0)
            FieldWriter.Labels(writer, approval.Labels);
        writer.Texts("fields", approval.Fields);
        if (approval.When is { } when)
            writer.WriteString("when", when);
        writer.Texts("by", approval.By);
        writer.WriteEndObject();
    }
}
