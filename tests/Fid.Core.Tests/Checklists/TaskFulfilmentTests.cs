using System.Text.Json;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Checklists;

/// <summary>Whether tasks that complete themselves are complete. Today is 22 March 2027.</summary>
public class TaskFulfilmentTests
{
    private static readonly LocalDate Today = new(2027, 3, 22);
    private static readonly FieldSet Fields = FieldSet.Read(FieldConfiguration.Shipped.Fields, []).Answer!;
    private static readonly Guid One = new("00000000-0000-4000-8000-000000000001");
    private static readonly Guid Two = new("00000000-0000-4000-8000-000000000002");

    [Fact]
    public void Fields_are_filled_when_each_of_them_has_a_value()
    {
        Met(TaskKind.Fill, ["badge", "email"], ("badge", "4711")).ShouldBeFalse();
        Met(TaskKind.Fill, ["badge", "email"], ("badge", "4711"), ("email", "a@example.org")).ShouldBeTrue();
        Met(TaskKind.Fill, ["badge"], ("badge", "")).ShouldBeFalse();
    }

    [Fact]
    public void A_field_that_does_not_apply_has_nothing_to_be_filled()
    {
        // Asked for only of those who hold a licence.
        Met(TaskKind.Fill, ["licence_until"], Array.Empty<(string, JsonElement)>()).ShouldBeTrue();
        Met(TaskKind.Fill, ["licence_until"], Of("licence_classes", new[] { "B" })).ShouldBeFalse();
        Met(TaskKind.Fill, ["licence_until"], Of("licence_classes", new[] { "B" }), Of("licence_until", "2030-01-01")).ShouldBeTrue();
    }

    [Fact]
    public void Rows_are_filled_when_there_is_one_and_a_field_that_has_gone_is_passed_over()
    {
        Met(TaskKind.Fill, ["items"], Array.Empty<(string, JsonElement)>()).ShouldBeFalse();
        Met(TaskKind.Fill, ["items"], Cell("items", "item", One, "RADIO")).ShouldBeTrue();
        Met(TaskKind.Fill, ["gone", "badge"], ("badge", "4711")).ShouldBeTrue();
        TaskFulfilment.Needs(TaskKind.Fill, ["gone"], Record([])).ShouldBeEmpty();
    }

    [Fact]
    public void Everything_is_back_when_nothing_that_was_issued_and_is_not_for_keeps_is_out()
    {
        (string, JsonElement)[] radio = [Cell("items", "item", One, "RADIO"), Cell("items", "issued", One, "2027-03-01")];
        (string, JsonElement)[] badge = [Cell("items", "item", Two, "BADGE"), Cell("items", "issued", Two, "2027-03-22")];
        // Without anything ever issued there is nothing to give back.
        Met(TaskKind.Return, [], Array.Empty<(string, JsonElement)>()).ShouldBeTrue();
        Met(TaskKind.Return, [], Cell("items", "item", One, "RADIO"), Cell("items", "issued", One, "2027-03-23")).ShouldBeTrue();
        Met(TaskKind.Return, [], [.. radio, .. badge]).ShouldBeFalse();
        Met(TaskKind.Return, [], [.. radio, .. badge, Cell("items", "returned", One, "2027-03-22")]).ShouldBeFalse();
        Met(TaskKind.Return, ["RADIO"], [.. radio, .. badge, Cell("items", "returned", One, "2027-03-22")]).ShouldBeTrue();
        Met(TaskKind.Return, ["RADIO"], [.. radio, .. badge, Cell("items", "returned", One, "2027-03-23")]).ShouldBeFalse();
        var kept = new RecordContent(Fields, radio.ToDictionary(v => v.Item1, v => v.Item2), Today, Today, new HashSet<string> { "RADIO" });
        kept.GivenOut.ShouldBeEmpty();
        TaskFulfilment.IsMet(TaskKind.Return, [], kept).ShouldBeTrue();
        TaskFulfilment.Needs(TaskKind.Return, [], Record([.. badge, .. radio])).ShouldBe([new TaskNeed("BADGE", false), new TaskNeed("RADIO", false)]);
    }

    [Theory]
    [InlineData(null, null, false)]
    [InlineData("2027-03-22", null, true)]
    [InlineData("2027-03-23", null, false)]
    [InlineData("2027-03-01", "2027-03-22", false)]
    [InlineData("2027-03-01", "2027-03-23", true)]
    public void An_item_is_issued_from_the_day_it_is_given_to_the_day_before_it_comes_back(string? issued, string? returned, bool isIssued)
    {
        List<(string, JsonElement)> values = [Cell("items", "item", One, "RADIO")];
        if (issued is not null)
            values.Add(Cell("items", "issued", One, issued));
        if (returned is not null)
            values.Add(Cell("items", "returned", One, returned));
        Met(TaskKind.Issue, ["RADIO"], [.. values]).ShouldBe(isIssued);
        Met(TaskKind.Issue, ["LAPTOP"], [.. values]).ShouldBeFalse();
    }

    [Fact]
    public void One_item_issued_and_another_of_its_kind_returned_is_issued_and_all_that_are_asked_for_count()
    {
        (string, JsonElement)[] values =
        [
            Cell("items", "item", One, "RADIO"),
            Cell("items", "issued", One, "2027-01-01"),
            Cell("items", "returned", One, "2027-02-01"),
            Cell("items", "item", Two, "RADIO"),
            Cell("items", "issued", Two, "2027-02-01"),
        ];
        Met(TaskKind.Issue, ["RADIO"], values).ShouldBeTrue();
        TaskFulfilment.Needs(TaskKind.Issue, ["RADIO", "LAPTOP"], Record(values)).ShouldBe([new TaskNeed("RADIO", true), new TaskNeed("LAPTOP", false)]);
    }

    [Theory]
    [InlineData("2027-01-01", "2027-03-22", true)]
    [InlineData("2027-01-01", "2027-03-21", false)]
    [InlineData("2027-03-23", null, false)]
    [InlineData(null, "2030-01-01", true)]
    [InlineData("2027-03-01", null, true)]
    [InlineData(null, null, false)]
    public void A_certificate_is_obtained_while_it_is_valid_or_about_to_expire(string? from, string? until, bool isHeld)
    {
        List<(string, JsonElement)> values = [Cell("certificates", "kind", One, "SEA"), Cell("certificates", "need", One, "essential")];
        if (from is not null)
            values.Add(Cell("certificates", "from", One, from));
        if (until is not null)
            values.Add(Cell("certificates", "until", One, until));
        Met(TaskKind.Certify, ["SEA"], [.. values]).ShouldBe(isHeld);
    }

    [Fact]
    public void What_is_done_by_hand_or_about_nothing_never_completes_itself()
    {
        foreach (var kind in Enum.GetValues<TaskKind>())
        {
            // Where nothing was issued, nothing is out.
            Met(kind, [], ("badge", "4711")).ShouldBe(kind == TaskKind.Return, kind.ToString());
            Met(kind, ["badge"], ("badge", "4711")).ShouldBe(kind is TaskKind.Fill or TaskKind.Return, kind.ToString());
        }
    }

    private static bool Met(TaskKind kind, string[] about, params (string Address, JsonElement Value)[] values) =>
        TaskFulfilment.IsMet(kind, about, Record(values));

    private static bool Met(TaskKind kind, string[] about, params (string Address, string Value)[] values) =>
        Met(kind, about, [.. values.Select(v => Of(v.Address, v.Value))]);

    private static RecordContent Record((string Address, JsonElement Value)[] values) =>
        new(Fields, values.ToDictionary(v => v.Address, v => v.Value), Today, Today);

    private static (string, JsonElement) Of(string address, object value) => (address, JsonSerializer.SerializeToElement(value));

    private static (string, JsonElement) Cell(string rows, string column, Guid row, string value) =>
        Of(FieldAddress.Cell(rows, column, row.ToString("D")).ToString(), value);
}
