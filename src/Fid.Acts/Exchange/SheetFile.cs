using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;

namespace Fid.Acts.Exchange;

/// <summary>
/// Reads the rows of a sheet, one after the other: comma-, semicolon-, tab- or bar-separated values in UTF-8, UTF-16 or
/// Windows-1252 (RFC 4180, separator and encoding found out), or an Office Open XML workbook, whose first sheet counts. Of a
/// formula its value is taken; it is never computed here.
/// </summary>
public static class SheetFile
{
    /// <summary>The largest file that is taken, in bytes.</summary>
    public const long LargestFile = 50_000_000;

    /// <summary>The most rows that are taken.</summary>
    public const int MostRows = 250_000;

    /// <summary>The most columns that are taken.</summary>
    public const int MostColumns = 200;

    /// <summary>The longest cell that is taken, in characters.</summary>
    internal const int LongestCell = 20_000;

    private const int Sniffed = 64 * 1024;

    /// <summary>The rows of a file, cells as text; rows of nothing are left out. Throws <see cref="SheetException"/> where it is no
    /// sheet or too much of one.</summary>
    /// <param name="open">Opens the file at its beginning; must be seekable.</param>
    /// <param name="cancellation">Stops the reading.</param>
    public static IEnumerable<string[]> Rows(Func<Stream> open, CancellationToken cancellation = default)
    {
        using var file = open();
        Span<byte> start = stackalloc byte[4];
        var read = file.ReadAtLeast(start, 4, throwOnEndOfStream: false);
        file.Position = 0;
        if (read >= 4 && start.SequenceEqual("PK\x03\x04"u8))
            return Workbook(open, cancellation);
        if (read >= 4 && start.SequenceEqual(new byte[] { 0xD0, 0xCF, 0x11, 0xE0 }))
            throw new SheetException("This is a workbook of an old kind. Save it as .xlsx or .csv, and try again.");
        return Separated(open, cancellation);
    }

    private static IEnumerable<string[]> Separated(Func<Stream> open, CancellationToken cancellation)
    {
        using var file = open();
        var head = new byte[Sniffed];
        var length = file.ReadAtLeast(head, Sniffed, throwOnEndOfStream: false);
        var encoding = EncodingOf(head.AsSpan(0, length), whole: length < Sniffed, file);
        file.Position = 0;
        var sample = encoding.GetString(head, 0, length).TrimStart('\uFEFF');
        if (sample.Contains('\0', StringComparison.Ordinal))
            throw new SheetException("This is no sheet. Choose a .csv, .tsv or .xlsx file.");
        using var reader = new BoundedLines(new StreamReader(file, encoding, detectEncodingFromByteOrderMarks: true), cancellation);
        using var csv = new CsvParser(reader, Configuration(SeparatorOf(sample)));
        var count = 0;
        while (true)
        {
            try
            {
                if (!csv.Read())
                    break;
            }
            catch (CsvHelperException e)
            {
                throw new SheetException(
                    $"Row {csv.Row} cannot be read: {(e is MaxFieldSizeException ? "a cell is too long" : "its quotes do not close")}.",
                    e
                );
            }
            if (Take(csv.Record!, ref count) is { } row)
                yield return row;
        }
    }

    private static IEnumerable<string[]> Workbook(Func<Stream> open, CancellationToken cancellation)
    {
        using var file = open();
        using var reader = Sound(() => new WorkbookReader(file, cancellation));
        using var at = reader.Rows().GetEnumerator();
        var count = 0;
        while (Sound(at.MoveNext))
            if (Take(at.Current, ref count) is { } row)
                yield return row;
    }

    // A file that is no sound workbook fails in many ways; to the reader all of them mean one thing.
    private static T Sound<T>(Func<T> read)
    {
        try
        {
            return read();
        }
        catch (Exception e) when (e is System.Xml.XmlException or InvalidDataException or IOException or FormatException or ArgumentException)
        {
            throw new SheetException("The workbook cannot be read. Open it, save it anew as .xlsx, and try again.", e);
        }
    }

    internal static SheetException TooWide() => new($"A row has more than {MostColumns} columns. Take away those that are not needed.");

    internal static SheetException TooLong() => new($"A cell holds more than {LongestCell} characters. Shorten it, and try again.");

    private static string[]? Take(string[] cells, ref int count)
    {
        var used = cells.Length;
        while (used > 0 && string.IsNullOrWhiteSpace(cells[used - 1]))
            used--;
        if (used == 0)
            return null;
        if (used > MostColumns)
            throw TooWide();
        if (++count > MostRows + 1)
            throw new SheetException($"The sheet has more than {MostRows} rows. Split it.");
        return used == cells.Length ? cells : cells[..used];
    }

    // A spreadsheet keeps 0.1 + 0.2 as a binary fraction; people mean what they see, which is fifteen digits.
    internal static string Number(double number) =>
        Math.Abs(number) < 1e15
            ? ((decimal)number).ToString("0.###############", CultureInfo.InvariantCulture)
            : number.ToString("R", CultureInfo.InvariantCulture);

    private static CsvConfiguration Configuration(char separator) =>
        new(CultureInfo.InvariantCulture)
        {
            Delimiter = separator.ToString(),
            HasHeaderRecord = false,
            BadDataFound = null,
            MaxFieldSize = LongestCell,
            IgnoreBlankLines = true,
        };

    /// <summary>The separator that cuts the sample's rows into most columns of the same number.</summary>
    internal static char SeparatorOf(string sample)
    {
        var (best, score) = (',', 0.0);
        foreach (var candidate in (ReadOnlySpan<char>)[',', ';', '\t', '|'])
        {
            using var reader = new StringReader(sample);
            using var csv = new CsvParser(reader, Configuration(candidate));
            var widths = new List<int>();
            try
            {
                while (widths.Count < 50 && csv.Read())
                    widths.Add(csv.Count);
            }
            catch (CsvHelperException)
            {
                // The end of the sample may cut a cell in two.
            }
            if (widths.Count > 1)
                widths.RemoveAt(widths.Count - 1);
            if (widths.Count == 0 || widths[0] < 2)
                continue;
            var agreeing = widths.Count(w => w == widths[0]) / (double)widths.Count;
            if (agreeing * agreeing * widths[0] > score)
                (best, score) = (candidate, agreeing * agreeing * widths[0]);
        }
        return best;
    }

    private static Encoding EncodingOf(ReadOnlySpan<byte> head, bool whole, Stream file)
    {
        if (head.StartsWith("\uFEFF"u8))
            return Encoding.UTF8;
        if (head.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE]))
            return Encoding.Unicode;
        if (head.StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF]))
            return Encoding.BigEndianUnicode;
        // UTF-16 without a mark: every other byte of plain text is zero.
        if (head.Length >= 4 && head[1] == 0 && head[3] == 0)
            return Encoding.Unicode;
        if (head.Length >= 4 && head[0] == 0 && head[2] == 0)
            return Encoding.BigEndianUnicode;
        return IsUtf8(head, whole, file) ? new UTF8Encoding(false) : Windows1252();
    }

    // The first byte that is no UTF-8 may stand anywhere, so the whole file is looked through.
    private static bool IsUtf8(ReadOnlySpan<byte> head, bool whole, Stream file)
    {
        if (whole)
            return System.Text.Unicode.Utf8.IsValid(head);
        file.Position = 0;
        var decoder = new UTF8Encoding(false, throwOnInvalidBytes: true).GetDecoder();
        var bytes = new byte[81920];
        var characters = new char[81920];
        try
        {
            for (int read; (read = file.Read(bytes)) > 0; )
                decoder.GetChars(bytes, 0, read, characters, 0, flush: false);
            decoder.GetChars([], 0, 0, characters, 0, flush: true);
            return true;
        }
        catch (DecoderFallbackException)
        {
            return false;
        }
    }

    private static Encoding Windows1252()
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        return Encoding.GetEncoding(1252);
    }
}

/// <summary>A file cannot be read as a sheet. The message tells people what to do.</summary>
public sealed class SheetException(string message, Exception? inner = null) : Exception(message, inner);
