using System.Text.Json;
using NodaTime;
using NodaTime.Text;

namespace Fid.Core.Fields;

/// <summary>The rows of a field as a record holds them.</summary>
public static class HeldRows
{
    /// <summary>The rows that have a value in any column, in no order.</summary>
    /// <param name="rows">The key of the field.</param>
    /// <param name="values">What the record holds, by address.</param>
    public static IReadOnlyList<HeldRow> Of(string rows, IReadOnlyDictionary<string, JsonElement> values) =>
        [
            .. values
                .Keys.Select(FieldAddress.Read)
                .Where(a => a.Whole == rows && a.RowId is not null)
                .Select(a => a.RowId!.Value)
                .Distinct()
                .Select(id => new HeldRow(rows, id, values)),
        ];
}

/// <summary>A row of a record.</summary>
/// <param name="Rows">The key of the field.</param>
/// <param name="Values">What the record holds, by address.</param>
public sealed record HeldRow(string Rows, Guid Id, IReadOnlyDictionary<string, JsonElement> Values)
{
    /// <summary>The address of a column in it.</summary>
    public string Address(string column) => FieldAddress.Cell(Rows, column, Id.ToString("D")).ToString();

    /// <summary>The text in a column; null for none.</summary>
    public string? Text(string column) =>
        Values.TryGetValue(Address(column), out var value) && value.ValueKind == JsonValueKind.String ? value.GetString() : null;

    /// <summary>The number in a column; null for none.</summary>
    public decimal? Number(string column) =>
        Values.TryGetValue(Address(column), out var value) && value.ValueKind == JsonValueKind.Number ? value.GetDecimal() : null;

    /// <summary>The day in a column (ISO 8601); null for none.</summary>
    public LocalDate? Day(string column) => Text(column) is { } text && LocalDatePattern.Iso.Parse(text) is { Success: true } day ? day.Value : null;
}
