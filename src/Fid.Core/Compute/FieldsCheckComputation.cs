using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.Json;

namespace Fid.Core.Compute;

/// <summary>`fields.check`: what would trip people up in a configuration.</summary>
internal static class FieldsCheckComputation
{
    private static readonly Shape Question = new("fields", "stages?", "lists?", "roles?", "live?", "stored?");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        List<FieldDefinition> fields = [];
        List<FieldDefinition>? live = null;
        List<string> stages = [],
            roles = [];
        var lists = new Dictionary<string, IReadOnlyList<string>>();
        Dictionary<string, IReadOnlyDictionary<string, int>>? stored = null;
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        fields = question.Items(FieldReader.Read);
                        break;
                    case 1:
                        stages = question.Items((ref q) => q.Id());
                        break;
                    case 2:
                        lists = question.Named<IReadOnlyList<string>>((ref q) => q.Items((ref i) => i.Text()));
                        break;
                    case 3:
                        roles = question.Items((ref q) => q.Id());
                        break;
                    case 4:
                        live = question.Items(FieldReader.Read);
                        break;
                    default:
                        stored = question.Named<IReadOnlyDictionary<string, int>>((ref q) => q.Named((ref n) => n.Whole(0, int.MaxValue)));
                        break;
                }
            }
        if (!question.IsSound)
            return;
        writer.WriteStartObject();
        writer.WriteStartArray("findings");
        foreach (var finding in ConfigurationCheck.Of(new ConfigurationQuestion(fields, stages, lists, roles, live, stored)))
        {
            writer.WriteStartObject();
            writer.WriteString("code", finding.Code);
            writer.WriteStartArray("fields");
            foreach (var key in finding.Fields)
                writer.WriteStringValue(key);
            writer.WriteEndArray();
            writer.WriteString("message", finding.Message);
            if (finding.Suggestion is { } suggestion)
                writer.WriteString("suggestion", suggestion);
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteEndObject();
    }
}
