using System.Buffers;
using System.Text.Encodings.Web;
using System.Text.Json;
using Fid.Core.Json;

namespace Fid.Core.Fields;

/// <summary>What a record holds: its sections and its fields, as one JSON document.</summary>
/// <param name="Sections">The sections, in order.</param>
/// <param name="Fields">The fields, in order within their sections.</param>
public sealed record FieldConfiguration(IReadOnlyList<FieldSection> Sections, IReadOnlyList<FieldDefinition> Fields)
{
    private static readonly Shape Document = new("sections", "fields", "approvals?");
    private static readonly Shape Section = new("key", "label");

    /// <summary>Who has to agree to which changes, in order; each asks once.</summary>
    public IReadOnlyList<FieldApproval> Approvals { get; init; } = [];

    /// <summary>The configuration that ships with Fid.</summary>
    public static FieldConfiguration Shipped { get; } = new(Fid.Core.Fields.Shipped.ShippedFields.Sections, Fid.Core.Fields.Shipped.ShippedFields.All);

    /// <summary>Reads a configuration; problems have the path to what cannot be read.</summary>
    /// <param name="json">UTF-8 JSON.</param>
    public static Result<FieldConfiguration> Read(ReadOnlySpan<byte> json)
    {
        var problems = new List<Problem>();
        try
        {
            var question = new QuestionReader(json, problems);
            List<FieldSection> sections = [];
            List<FieldDefinition> fields = [];
            List<FieldApproval> approvals = [];
            var seen = 0u;
            if (question.Object())
                while (question.Property(Document, ref seen) is var at and >= 0)
                {
                    if (at == 0)
                        sections = question.Items(ReadSection);
                    else if (at == 1)
                        fields = question.Items(FieldReader.Read);
                    else
                        approvals = question.Items(FieldApproval.Read);
                }
            question.End();
            return problems.Count > 0 ? Result<FieldConfiguration>.Failed(problems) : new FieldConfiguration(sections, fields) { Approvals = approvals };
        }
        catch (Exception e) when (e is JsonException or InvalidOperationException { Source: "System.Text.Json" or "System.Text.Json.Rethrowable" })
        {
            return Result<FieldConfiguration>.Failed(new Problem("", "malformed-json", "This is not JSON."));
        }
    }

    /// <summary>The configuration as UTF-8 JSON; what is as it is where nothing is said is left out.</summary>
    public byte[] Write()
    {
        var buffer = new ArrayBufferWriter<byte>();
        using (var writer = new Utf8JsonWriter(buffer, new JsonWriterOptions { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping }))
        {
            writer.WriteStartObject();
            writer.WriteStartArray("sections");
            foreach (var section in Sections)
            {
                writer.WriteStartObject();
                writer.WriteString("key", section.Key);
                FieldWriter.Labels(writer, section.Labels);
                writer.WriteEndObject();
            }
            writer.WriteEndArray();
            writer.WriteStartArray("fields");
            foreach (var field in Fields)
                FieldWriter.Write(writer, field);
            writer.WriteEndArray();
            if (Approvals.Count > 0)
            {
                writer.WriteStartArray("approvals");
                foreach (var approval in Approvals)
                    FieldApproval.Write(writer, approval);
                writer.WriteEndArray();
            }
            writer.WriteEndObject();
        }
        return buffer.WrittenSpan.ToArray();
    }

    private static FieldSection ReadSection(ref QuestionReader question)
    {
        var section = new FieldSection("", new Dictionary<string, string>());
        var seen = 0u;
        if (question.Object())
            while (question.Property(Section, ref seen) is var at and >= 0)
                section = at == 0 ? section with { Key = question.Id() } : section with { Labels = FieldReader.ReadLabels(ref question) };
        return section;
    }
}
