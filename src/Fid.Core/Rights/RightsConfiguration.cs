using System.Buffers;
using System.Text.Encodings.Web;
using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.Json;

namespace Fid.Core.Rights;

/// <summary>The firm's own roles and groups, as one JSON document. The roles that ship stand beside them and are not part of it.</summary>
/// <param name="Roles">The roles, in order.</param>
/// <param name="Groups">The groups of people that rights speak of, and that have roles by rule.</param>
public sealed record RightsConfiguration(IReadOnlyList<RoleDefinition> Roles, IReadOnlyList<PeopleGroup> Groups)
{
    private static readonly Shape Document = new("roles", "groups", "secondFactor?");
    private static readonly Shape RoleShape = new("id", "label", "fields", "rights");
    private static readonly Shape GroupShape = new("id", "label", "when", "roles?");

    /// <summary>The ids of the roles, shipped ones too, whose holders prove by a second factor who they are.</summary>
    public IReadOnlyList<string> SecondFactor { get; init; } = [];

    /// <summary>What a firm starts with: nothing of its own.</summary>
    public static RightsConfiguration Empty { get; } = new([], []);

    /// <summary>Reads a configuration; problems have the path to what cannot be read.</summary>
    /// <param name="json">UTF-8 JSON.</param>
    public static Result<RightsConfiguration> Read(ReadOnlySpan<byte> json)
    {
        var problems = new List<Problem>();
        try
        {
            var question = new QuestionReader(json, problems);
            List<RoleDefinition> roles = [];
            List<PeopleGroup> groups = [];
            List<string> secondFactor = [];
            var seen = 0u;
            if (question.Object())
                while (question.Property(Document, ref seen) is var at and >= 0)
                {
                    if (at == 0)
                        roles = question.Items(ReadRole);
                    else if (at == 1)
                        groups = question.Items(ReadGroup);
                    else
                        secondFactor = question.Items((ref q) => q.Id());
                }
            question.End();
            return problems.Count > 0 ? Result<RightsConfiguration>.Failed(problems) : new RightsConfiguration(roles, groups) { SecondFactor = secondFactor };
        }
        catch (Exception e) when (e is JsonException or InvalidOperationException { Source: "System.Text.Json" or "System.Text.Json.Rethrowable" })
        {
            return Result<RightsConfiguration>.Failed(new Problem("", "malformed-json", "This is not JSON."));
        }
    }

    /// <summary>The configuration as UTF-8 JSON.</summary>
    public byte[] Write()
    {
        var buffer = new ArrayBufferWriter<byte>();
        using (var writer = new Utf8JsonWriter(buffer, new JsonWriterOptions { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping }))
        {
            writer.WriteStartObject();
            writer.WriteStartArray("roles");
            foreach (var role in Roles)
                Write(writer, role);
            writer.WriteEndArray();
            writer.WriteStartArray("groups");
            foreach (var group in Groups)
            {
                writer.WriteStartObject();
                writer.WriteString("id", group.Id);
                FieldWriter.Labels(writer, group.Labels);
                writer.WriteString("when", group.When);
                if (group.Roles.Count > 0)
                    writer.Texts("roles", group.Roles);
                writer.WriteEndObject();
            }
            writer.WriteEndArray();
            if (SecondFactor.Count > 0)
                writer.Texts("secondFactor", SecondFactor);
            writer.WriteEndObject();
        }
        return buffer.WrittenSpan.ToArray();
    }

    /// <summary>A role as it stands in the document.</summary>
    public static void Write(Utf8JsonWriter writer, RoleDefinition role)
    {
        writer.WriteStartObject();
        writer.WriteString("id", role.Id);
        FieldWriter.Labels(writer, role.Labels);
        writer.WriteStartArray("fields");
        foreach (var reach in role.FieldReaches)
            RightsJson.Write(writer, reach);
        writer.WriteEndArray();
        writer.WriteStartArray("rights");
        foreach (var right in role.Rights)
            RightsJson.Write(writer, right);
        writer.WriteEndArray();
        writer.WriteEndObject();
    }

    private static RoleDefinition ReadRole(ref QuestionReader question)
    {
        var role = new RoleDefinition("", new Dictionary<string, string>(), [], []);
        var seen = 0u;
        if (question.Object())
            while (question.Property(RoleShape, ref seen) is var at and >= 0)
                role = at switch
                {
                    0 => role with { Id = question.Id() },
                    1 => role with { Labels = FieldReader.ReadLabels(ref question) },
                    2 => role with { FieldReaches = question.Items(RightsJson.ReadReach) },
                    _ => role with { Rights = question.Items(RightsJson.ReadRight) },
                };
        return role;
    }

    private static PeopleGroup ReadGroup(ref QuestionReader question)
    {
        var group = new PeopleGroup("", new Dictionary<string, string>(), "", []);
        var seen = 0u;
        if (question.Object())
            while (question.Property(GroupShape, ref seen) is var at and >= 0)
                group = at switch
                {
                    0 => group with { Id = question.Id() },
                    1 => group with { Labels = FieldReader.ReadLabels(ref question) },
                    2 => group with { When = question.Text() },
                    _ => group with { Roles = question.Items((ref q) => q.Id()) },
                };
        return group;
    }
}
