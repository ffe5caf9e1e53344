using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Fields;
using Fid.Core.Formulas;
using NodaTime;

namespace Fid.Core.Checklists;

/// <summary>Conditions that decide whether a task, or a stage with all its tasks, applies to somebody at all.</summary>
/// <param name="facts">The record's values by field, and what else conditions ask, as whether the person was here before.</param>
/// <param name="today">What today() gives.</param>
/// <param name="calendar">The working days that formulas count; null for Monday to Friday.</param>
public sealed class TaskConditions(IReadOnlyDictionary<string, JsonElement> facts, LocalDate today, WorkCalendar? calendar)
{
    private static readonly WorkCalendar Weekdays = new(RestMask.Weekend, []);

    // Many tasks have the same one.
    private readonly Dictionary<string, bool> _known = new(StringComparer.Ordinal);

    /// <summary>Whether something applies. As with add-ons, a condition that comes to nothing, or cannot be computed with these values, does not
    /// hold; one that cannot be read at all takes nothing away.</summary>
    /// <param name="when">The condition as a formula; null where it always applies.</param>
    public bool Hold(string? when)
    {
        if (when is null)
            return true;
        if (_known.TryGetValue(when, out var holds))
            return holds;
        return _known[when] =
            RecordFormula.Read(when).Formula is not { } formula
            || formula.Holds(
                new FormulaFacts(name => facts.TryGetValue(name, out var value) ? FieldValues.FromJson(value) : null, today, calendar ?? Weekdays)
            );
    }
}
