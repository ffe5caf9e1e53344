using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Fields;
using Fid.Core.Formulas;
using NodaTime;

namespace Fid.Core.Rights;

/// <summary>Formulas that take people in by the values of their records.</summary>
internal static class GroupFormula
{
    /// <summary>Whether a formula takes somebody in: not where it cannot be computed, or reads a value that is not there.</summary>
    public static bool Holds(RecordFormula formula, IReadOnlyDictionary<string, JsonElement> values, LocalDate today) =>
        formula.Names.All(name => values.TryGetValue(name, out var value) && !FieldValues.IsEmpty(value))
        && formula.Holds(new FormulaFacts(name => FieldValues.FromJson(values[name]), today, WorkCalendar.EveryDay));
}
