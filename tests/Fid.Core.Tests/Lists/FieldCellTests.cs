using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.Lists;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Lists;

/// <summary>Values of fields as cells of a sheet, and back.</summary>
public class FieldCellTests
{
    private static readonly FieldDefinition Deck = new()
    {
        Key = "deck",
        Type = FieldType.Choice,
        Options =
        [
            new FieldOption("fore", new Dictionary<string, string> { ["en"] = "Fore deck", ["de"] = "Vordeck" }),
            new FieldOption("aft", new Dictionary<string, string> { ["en"] = "Aft deck", ["de"] = "Achterdeck" }),
        ],
    };

    [Theory]
    [InlineData("aft", "aft")]
    [InlineData("AFT", "aft")]
    [InlineData("áft", "aft")] // accents do not count
    [InlineData("Aft deck", "aft")]
    [InlineData("achterdeck", "aft")]
    [InlineData("Vordeck", "fore")]
    [InlineData("mid", null)]
    public void An_option_is_known_by_its_value_or_its_label_in_any_language(string cell, string? option)
    {
        var (value, problem) = Read(Deck, cell);
        (value?.GetString()).ShouldBe(option);
        (problem is null).ShouldBe(option is not null);
    }

    [Theory]
    [InlineData("true", "yes")]
    [InlineData("false", "no")]
    [InlineData("12.50", "12.5")]
    [InlineData("\"E-7\"", "0042")] // a person stands as their number
    [InlineData("\"plain\"", "plain")]
    [InlineData("[\"a\",\"b\"]", "a; b")]
    [InlineData("null", "")]
    public void A_value_is_written_as_somebody_would_type_it(string json, string cell) =>
        FieldCell.Write(JsonDocument.Parse(json).RootElement, text => text == "E-7" ? "0042" : null).ShouldBe(cell);

    [Fact]
    public void What_cannot_be_kept_in_a_sheet_has_no_cell()
    {
        FieldCell.Has(Deck).ShouldBeTrue();
        FieldCell.Has(Deck with { Sensitive = true }).ShouldBeFalse();
        FieldCell.Has(new FieldDefinition { Key = "scan", Type = FieldType.File }).ShouldBeFalse();
        FieldCell.Has(new FieldDefinition { Key = "sum", Type = FieldType.Computed }).ShouldBeFalse();
    }

    private static (JsonElement? Value, Problem? Problem) Read(FieldDefinition field, string cell) =>
        FieldCell.Read(field, cell, CellStyle.Own, (_, _) => null);
}
