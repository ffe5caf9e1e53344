using System.Text.Json;
using Fid.Core.Calendars;
using NodaTime;

namespace Fid.Core.Fields;

/// <summary>A record to evaluate.</summary>
/// <param name="Values">The values of its fields, by key.</param>
/// <param name="Typed">The fields whose values somebody entered, empty ones too: no rule and no default touches them.</param>
/// <param name="Changed">The fields that were changed just now: their rules act.</param>
/// <param name="Rights">What the user who looks at it may see and edit; null for the whole record, as the system sees it.</param>
/// <param name="Stage">The stage the hire is in; null for none: then all later stages are ahead.</param>
/// <param name="Today">Today.</param>
/// <param name="Lists">The codes of each list. A list that is not among them is not looked at.</param>
/// <param name="Calendar">The working days that formulas count; Monday to Friday where it is not given.</param>
public sealed record RecordQuestion(
    IReadOnlyDictionary<string, JsonElement> Values,
    IReadOnlyCollection<string> Typed,
    IReadOnlyList<string> Changed,
    FieldRights? Rights,
    string? Stage,
    LocalDate Today,
    IReadOnlyDictionary<string, IReadOnlySet<string>> Lists,
    WorkCalendar? Calendar = null
)
{
    /// <summary>For <see cref="Lists"/>, where entries are checked elsewhere: no list is looked at.</summary>
    public static IReadOnlyDictionary<string, IReadOnlySet<string>> NoLists { get; } = new Dictionary<string, IReadOnlySet<string>>();
}

/// <summary>A record, evaluated: as its reader may see it.</summary>
/// <param name="Values">The values, with what rules, defaults and computations filled in; fields without a value left out.</param>
/// <param name="SetBy">Where a value came from in this evaluation: "typed", "rule:" and the field whose change set it, "default"
/// or "computed". Values that were there before are left out.</param>
/// <param name="Emptied">Fields that a rule left without a value.</param>
/// <param name="Access">What the reader may do with each field they may see.</param>
/// <param name="Shown">The fields to show, in order.</param>
/// <param name="Errors">What is wrong with values of shown fields.</param>
/// <param name="MissingNow">Shown fields that are required by now and empty.</param>
/// <param name="MissingLater">For each later stage, in order, the shown fields that become required there and are empty.</param>
/// <param name="Filled">How many of the fields required by now have a value.</param>
/// <param name="Required">How many fields are required by now.</param>
public sealed record EvaluatedRecord(
    IReadOnlyDictionary<string, JsonElement> Values,
    IReadOnlyDictionary<string, string> SetBy,
    IReadOnlyList<string> Emptied,
    IReadOnlyDictionary<string, FieldAccess> Access,
    IReadOnlyList<string> Shown,
    IReadOnlyList<FieldError> Errors,
    IReadOnlyList<string> MissingNow,
    IReadOnlyList<(string Stage, IReadOnlyList<string> Fields)> MissingLater,
    int Filled,
    int Required
);

/// <summary>What is wrong with the value of a field.</summary>
/// <param name="Field">The field.</param>
/// <param name="Misfit">What is wrong.</param>
public readonly record struct FieldError(string Field, Misfit Misfit);
