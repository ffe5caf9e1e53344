using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Fields;
using Fid.Core.Formulas;
using NodaTime;

namespace Fid.Core.Checklists;

/// <summary>A field that Fid sets by itself, and to what.</summary>
/// <param name="Field">The field's key.</param>
/// <param name="Formula">What it becomes, over what the record holds before any of them is set.</param>
public sealed record FieldSetting(string Field, string Formula);

/// <summary>What automatic tasks set in a record.</summary>
public static class FieldSettings
{
    private static readonly WorkCalendar Weekdays = new(RestMask.Weekend, []);

    /// <summary>Whether a field can be set by itself: what is worked out anyway, made of rows, a file, or sealed cannot.</summary>
    public static bool Takes(FieldDefinition field) =>
        field is { IsColumn: false, Sensitive: false, Type: not (FieldType.Rows or FieldType.Computed or FieldType.File) };

    /// <summary>Works out the values, by field. All of them are over the record as it is, in whatever order they stand.</summary>
    /// <param name="facts">What the record holds, by field, and what else formulas may ask.</param>
    /// <param name="today">What today() gives.</param>
    /// <param name="calendar">The working days that formulas count; null for Monday to Friday.</param>
    /// <returns>Problems by the field: "formula-error" where a formula cannot be read, or computed with these values; "missing" where it comes to
    /// nothing.</returns>
    public static Result<IReadOnlyDictionary<string, JsonElement>> Compute(
        IReadOnlyList<FieldSetting> settings,
        IReadOnlyDictionary<string, JsonElement> facts,
        LocalDate today,
        WorkCalendar? calendar
    )
    {
        var (values, problems) = (new Dictionary<string, JsonElement>(StringComparer.Ordinal), new List<Problem>());
        var reading = new FormulaFacts(name => facts.TryGetValue(name, out var value) ? FieldValues.FromJson(value) : null, today, calendar ?? Weekdays);
        foreach (var setting in settings)
        {
            var (formula, mistake) = RecordFormula.Read(setting.Formula);
            var (value, trouble) = formula?.Compute(reading) ?? (null, mistake!.Message);
            var json = FieldValues.ToJson(value);
            if (trouble is not null)
                problems.Add(new Problem($"/{setting.Field}", "formula-error", trouble));
            else if (FieldValues.IsEmpty(json))
                problems.Add(new Problem($"/{setting.Field}", "missing", "It comes to nothing: what it is worked out from is not there yet."));
            else
                values[setting.Field] = json;
        }
        return problems.Count > 0 ? Result<IReadOnlyDictionary<string, JsonElement>>.Failed([.. problems]) : values;
    }
}
