using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Checklists;

public class FieldSettingsTests
{
    private static readonly LocalDate Today = new(2027, 3, 1);

    private static readonly Dictionary<string, JsonElement> Facts = new()
    {
        ["room"] = JsonSerializer.SerializeToElement("Berth 4"),
        ["weekly_hours"] = JsonSerializer.SerializeToElement(35.5m),
        ["start_date"] = JsonSerializer.SerializeToElement("2027-03-12"),
    };

    [Theory]
    [InlineData("'Corran'", "\"Corran\"")]
    [InlineData("weekly_hours / 2", "17.75")]
    [InlineData("weekly_hours > 30", "true")]
    [InlineData("addMonths(start_date, 6)", "\"2027-09-12\"")]
    [InlineData("today()", "\"2027-03-01\"")]
    // From Friday to Monday: nobody says otherwise.
    [InlineData("addWorkingDays(start_date, 1)", "\"2027-03-15\"")]
    public void A_field_becomes_what_its_formula_comes_to(string formula, string value) =>
        Of(null, ("town", formula)).Answer!["town"].GetRawText().ShouldBe(value);

    [Fact]
    public void Working_days_are_those_of_the_record() =>
        Of(WorkCalendar.EveryDay, ("end", "addWorkingDays(start_date, 1)")).Answer!["end"].GetString().ShouldBe("2027-03-13");

    [Fact]
    public void All_are_over_the_record_as_it_was_in_whatever_order_they_stand()
    {
        var values = Of(null, ("room", "'Loft'"), ("town", "room")).Answer!;
        (values["room"].GetString(), values["town"].GetString()).ShouldBe(("Loft", "Berth 4"));
    }

    [Theory]
    [InlineData("nothing_like_it", "missing")]
    [InlineData("''", "missing")]
    [InlineData("room +", "formula-error")]
    [InlineData("weekly_hours / 0", "formula-error")]
    [InlineData("room * 2", "formula-error")]
    public void What_comes_to_nothing_or_cannot_be_computed_is_said_at_its_field_and_then_none_is_set(string formula, string code)
    {
        var worked = Of(null, ("town", "'Corran'"), ("postcode", formula));
        worked.Answer.ShouldBeNull();
        worked.Problems.Select(p => (p.Path, p.Code)).ShouldBe([("/postcode", code)]);
    }

    [Theory]
    [InlineData(FieldType.Text, false, true)]
    [InlineData(FieldType.Money, false, true)]
    [InlineData(FieldType.Text, true, false)]
    [InlineData(FieldType.Rows, false, false)]
    [InlineData(FieldType.Computed, false, false)]
    [InlineData(FieldType.File, false, false)]
    public void What_is_sealed_worked_out_a_file_or_rows_is_set_by_nobody_but_people(FieldType type, bool sensitive, bool takes) =>
        FieldSettings
            .Takes(
                new FieldDefinition
                {
                    Key = "town",
                    Type = type,
                    Sensitive = sensitive,
                }
            )
            .ShouldBe(takes);

    private static Result<IReadOnlyDictionary<string, JsonElement>> Of(WorkCalendar? calendar, params (string Field, string Formula)[] settings) =>
        FieldSettings.Compute([.. settings.Select(s => new FieldSetting(s.Field, s.Formula))], Facts, Today, calendar);
}
