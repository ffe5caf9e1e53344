using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.Json;
using NodaTime;

namespace Fid.Core.Compute;

/// <summary>`fields.evaluate`: a record with its rules, defaults and computations, as a role may see it.</summary>
internal static class FieldsEvaluateComputation
{
    private static readonly Shape Question = new("fields", "stages?", "lists?", "values", "typed?", "changed?", "role", "stage?", "today");

    private static readonly Choices Misfits = new("", "type", "option", "within", "pattern", "min", "max");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        List<FieldDefinition> fields = [];
        List<string> stages = [],
            typed = [],
            changed = [];
        var lists = new Dictionary<string, IReadOnlySet<string>>();
        var values = new Dictionary<string, JsonElement>();
        string role = "";
        string? stage = null;
        LocalDate today = default;
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
                        lists = question.Named<IReadOnlySet<string>>(
                            (ref q) => q.Items((ref i) => i.Text().Trim()).ToHashSet(StringComparer.OrdinalIgnoreCase)
                        );
                        break;
                    case 3:
                        values = question.Named((ref q) => q.Json());
                        break;
                    case 4:
                        typed = question.Items((ref q) => q.Id());
                        break;
                    case 5:
                        changed = question.Items((ref q) => q.Id());
                        break;
                    case 6:
                        role = question.Text();
                        break;
                    case 7:
                        stage = question.Id();
                        break;
                    default:
                        today = question.Date();
                        break;
                }
            }
        if (!question.IsSound)
            return;
        if (stage is not null && !stages.Contains(stage))
            question.Report("unknown-stage", $"There is no stage {stage}.", "stage");
        if (!question.IsSound || FieldSet.Read(fields, stages).Take(ref question) is not { } set)
            return;
        foreach (var key in values.Keys.Where(k => !set.HoldsValue(k)))
            question.Report("unknown-field", $"There is no field {key}.", "values");
        foreach (var key in typed.Where(k => set.Find(k) is null))
            question.Report("unknown-field", $"There is no field {key}.", "typed");
        foreach (var key in changed.Where(k => set.Find(k) is null))
            question.Report("unknown-field", $"There is no field {key}.", "changed");
        if (!question.IsSound)
            return;
        Write(
            writer,
            RecordEvaluation.Of(
                set,
                new RecordQuestion(values, typed.ToHashSet(StringComparer.Ordinal), changed, FieldRights.OfRoles(set, [role]), stage, today, lists)
            )
        );
    }

    private static void Write(Utf8JsonWriter writer, EvaluatedRecord record)
    {
        writer.WriteStartObject();
        writer.WriteStartObject("values");
        foreach (var (key, value) in record.Values)
        {
            writer.WritePropertyName(key);
            value.WriteTo(writer);
        }
        writer.WriteEndObject();
        writer.WriteStartObject("setBy");
        foreach (var (key, by) in record.SetBy)
            writer.WriteString(key, by);
        writer.WriteEndObject();
        writer.WriteStartObject("access");
        foreach (var (key, access) in record.Access)
            writer.WriteString(key, FieldReader.Accesses.Word((int)access));
        writer.WriteEndObject();
        writer.Texts("shown", record.Shown);
        writer.WriteStartArray("errors");
        foreach (var error in record.Errors)
        {
            writer.WriteStartObject();
            writer.WriteString("field", error.Field);
            writer.WriteString("code", Misfits.Word((int)error.Misfit));
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteStartObject("missing");
        writer.Texts("now", record.MissingNow);
        foreach (var (stage, fields) in record.MissingLater)
            writer.Texts(stage, fields);
        writer.WriteEndObject();
        writer.WriteStartObject("completeness");
        writer.WriteNumber("filled", record.Filled);
        writer.WriteNumber("required", record.Required);
        writer.WriteEndObject();
        writer.WriteEndObject();
    }
}
