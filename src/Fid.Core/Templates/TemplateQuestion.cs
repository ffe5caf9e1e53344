using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Formulas;
using NodaTime;

namespace Fid.Core.Templates;

/// <summary>What a hire would start with is asked by this.</summary>
/// <param name="Facts">What is known of the hire, by name; conditions and formulas read it.</param>
/// <param name="Templates">The templates there are.</param>
/// <param name="Use">The id of the one the hire is opened from.</param>
/// <param name="AddOns">The add-ons there are.</param>
/// <param name="Typed">What the coordinator typed, by field key.</param>
/// <param name="Fields">The fields there are; null where that is not to be looked at.</param>
/// <param name="Today">What today() gives; null where no formula may ask.</param>
/// <param name="Calendar">The working days that formulas count; null for Monday to Friday.</param>
public sealed record TemplateQuestion(
    IReadOnlyDictionary<string, JsonElement> Facts,
    IReadOnlyList<TemplateDefinition> Templates,
    string Use,
    IReadOnlyList<AddOnDefinition> AddOns,
    IReadOnlyDictionary<string, JsonElement> Typed,
    IReadOnlySet<string>? Fields = null,
    LocalDate? Today = null,
    WorkCalendar? Calendar = null
);

/// <summary>A role template.</summary>
/// <param name="BuildsOn">The id of the template it builds on; null for none.</param>
public sealed record TemplateDefinition(string Id, int Version, string? BuildsOn, LayerContent Content);

/// <summary>An add-on: what some hires get besides.</summary>
/// <param name="When">The condition under which it applies; null where it always does.</param>
/// <param name="Order">Add-ons apply in this order; those of equal order by id.</param>
public sealed record AddOnDefinition(string Id, int Version, RecordFormula? When, int Order, LayerContent Content);
