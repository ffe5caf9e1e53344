using System.Security.Cryptography;
using System.Text;

namespace Fid.Core.Fields;

/// <summary>
/// Which value of a record is meant: that of a field by its key, "site"; or of a column in one of the rows of a field,
/// "certificates.number@" and the row. A record knows its rows by ids; a template, whose rows belong to nobody yet, by what they are about.
/// </summary>
/// <param name="Field">The key of the field; of a column, with that of the rows before it: "certificates.number".</param>
/// <param name="Row">The row; null for a value that stands alone.</param>
public readonly record struct FieldAddress(string Field, string? Row)
{
    private const char ColumnMark = '.';
    private const char RowMark = '@';

    /// <summary>The field with the rows; the field itself where there are none.</summary>
    public string Whole => Field.IndexOf(ColumnMark) is var mark and >= 0 ? Field[..mark] : Field;

    /// <summary>The key of the column within the rows; null for the field itself, or the whole of a row.</summary>
    public string? Column => Field.IndexOf(ColumnMark) is var mark and >= 0 ? Field[(mark + 1)..] : null;

    /// <summary>The id of the row; null for none, and for a row of a template.</summary>
    public Guid? RowId => Guid.TryParseExact(Row, "D", out var id) ? id : null;

    /// <summary>The address of a column in a row.</summary>
    public static FieldAddress Cell(string rows, string column, string row) => new(ColumnKey(rows, column), row);

    /// <summary>The key of a column as a field of the record.</summary>
    public static string ColumnKey(string rows, string column) => $"{rows}{ColumnMark}{column}";

    /// <summary>Whether a key is that of a column.</summary>
    internal static bool IsColumn(string key) => key.Contains(ColumnMark);

    /// <summary>Reads an address as <see cref="ToString"/> writes it. Any text is one; whether there is such a field is not looked at.</summary>
    public static FieldAddress Read(string text) =>
        text.IndexOf(RowMark) is var mark and >= 0 ? new FieldAddress(text[..mark], text[(mark + 1)..]) : new FieldAddress(text, null);

    /// <summary>The address of a value as it is kept.</summary>
    public static string Of(string field, Guid? row) => row is { } id ? $"{field}{RowMark}{id:D}" : field;

    /// <summary>The key of the field an address is of, without the row.</summary>
    public static string FieldOf(string address) => address.IndexOf(RowMark) is var mark and >= 0 ? address[..mark] : address;

    /// <summary>Whether an address is of something in a row.</summary>
    public static bool IsInRow(string address) => address.Contains(RowMark);

    /// <summary>The same place in the record of somebody for whom the rows of a template become their own. The id follows from the owner, the
    /// rows and what the row is about, so that a later version of the template finds the row again.</summary>
    public FieldAddress For(Guid owner) => Row is null || RowId is not null ? this : this with { Row = IdOf(owner, Whole, Row).ToString("D") };

    // RFC 9562, version 8: made from a hash.
    private static Guid IdOf(Guid owner, string rows, string key)
    {
        var bytes = SHA256.HashData(Encoding.UTF8.GetBytes($"{owner:D}/{rows}/{key}"))[..16];
        bytes[6] = (byte)((bytes[6] & 0x0F) | 0x80);
        bytes[8] = (byte)((bytes[8] & 0x3F) | 0x80);
        return new Guid(bytes, bigEndian: true);
    }

    /// <summary>The address as one text.</summary>
    public override string ToString() => Row is null ? Field : $"{Field}{RowMark}{Row}";
}
