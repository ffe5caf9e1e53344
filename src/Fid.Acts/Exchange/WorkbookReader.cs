using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Xml;

namespace Fid.Acts.Exchange;

/// <summary>
/// Reads the first sheet of an Office Open XML workbook (ECMA-376, part 1, 18) as a stream of rows, and never takes more of it into
/// memory than a row: what the file says of its own size is not believed, rows and cells that hold nothing cost nothing, and every
/// text is cut off where it is longer than a cell may be.
/// </summary>
internal sealed class WorkbookReader : IDisposable
{
    /// <summary>The most a workbook may hold once it is unpacked, in bytes.</summary>
    public const long LargestUnpacked = 600_000_000;

    // What people type packs to a tenth or a twentieth; of what packs tighter, only so much is taken.
    private const int TightestPacked = 200;
    private const long LargestTightlyPacked = 60_000_000;
    private const long MostSharedCharacters = 60_000_000;
    private const int MostEntries = 5_000;
    private const int LookEvery = 1_000;
    private const string Relations = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";

    private static readonly XmlReaderSettings Xml = new()
    {
        DtdProcessing = DtdProcessing.Prohibit,
        IgnoreComments = true,
        IgnoreProcessingInstructions = true,
        XmlResolver = null,
    };

    private readonly ZipArchive _zip;
    private readonly CancellationToken _cancellation;
    private readonly char[] _chunk = new char[4096];
    private long _unpacked;

    /// <param name="file">The file; must be seekable.</param>
    public WorkbookReader(Stream file, CancellationToken cancellation)
    {
        _cancellation = cancellation;
        _zip = new ZipArchive(file, ZipArchiveMode.Read, leaveOpen: true);
        if (_zip.Entries.Count > MostEntries)
            throw new SheetException("The workbook has too many parts. Save the sheet as .csv, and try again.");
    }

    /// <summary>The rows that have cells, each with its cells as text up to the last that holds something.</summary>
    public IEnumerable<string[]> Rows()
    {
        var (path, from1904) = FirstSheet();
        var texts = SharedTexts();
        var styles = DateStyles();
        using var xml = Open(path) ?? throw new SheetException("The workbook has no sheet.");
        var cells = new List<string>();
        var read = 0;
        while (xml.Read())
        {
            if (++read % LookEvery == 0)
                _cancellation.ThrowIfCancellationRequested();
            if (xml.NodeType == XmlNodeType.Element && xml.LocalName == "row")
            {
                cells.Clear();
                if (xml.IsEmptyElement)
                    continue;
                foreach (var (at, text) in Cells(xml, texts, styles, from1904))
                {
                    while (cells.Count < at)
                        cells.Add("");
                    if (cells.Count == at)
                        cells.Add(text);
                    else
                        cells[at] = text;
                }
                if (cells.Count > 0)
                    yield return [.. cells];
            }
            else if (xml.NodeType == XmlNodeType.EndElement && xml.LocalName == "sheetData")
                yield break;
        }
    }

    public void Dispose() => _zip.Dispose();

    // The cells of a row that hold something. A cell that says no place stands after the one before it.
    private IEnumerable<(int At, string Text)> Cells(XmlReader xml, List<string> texts, bool[] dateStyles, bool from1904)
    {
        var next = 0;
        var read = 0;
        while (xml.Read() && !(xml.NodeType == XmlNodeType.EndElement && xml.LocalName == "row"))
        {
            if (++read % LookEvery == 0)
                _cancellation.ThrowIfCancellationRequested();
            if (xml.NodeType != XmlNodeType.Element || xml.LocalName != "c")
                continue;
            var at = xml.GetAttribute("r") is { } place ? ColumnOf(place) : next;
            next = at + 1;
            if (xml.IsEmptyElement)
                continue;
            var kind = xml.GetAttribute("t") ?? "n";
            var isDate =
                int.TryParse(xml.GetAttribute("s"), NumberStyles.None, CultureInfo.InvariantCulture, out var style)
                && style < dateStyles.Length
                && dateStyles[style];
            var text = Value(xml, kind);
            if (text.Length == 0)
                continue;
            if (at >= SheetFile.MostColumns)
                throw SheetFile.TooWide();
            yield return (
                at,
                kind switch
                {
                    "s" => int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var shared) && shared < texts.Count
                        ? texts[shared]
                        : throw Unsound(),
                    "b" => text == "1" ? "yes" : "no",
                    "n" => Number(text, isDate, from1904),
                    "d" => text.EndsWith("T00:00:00", StringComparison.Ordinal) ? text[..^9] : text,
                    _ => text,
                }
            );
        }
    }

    // What stands in a cell: its value, or the text written in it. Its formula is passed over.
    private string Value(XmlReader xml, string kind)
    {
        var text = new StringBuilder();
        var depth = xml.Depth;
        while (xml.Read() && xml.Depth > depth)
        {
            if (xml.NodeType != XmlNodeType.Element || xml.IsEmptyElement)
                continue;
            if ((kind != "inlineStr" && xml.LocalName == "v") || (kind == "inlineStr" && xml.LocalName == "t"))
                Append(xml, text);
            else if (xml.LocalName is "f" or "rPh")
                Skip(xml);
        }
        return text.ToString();
    }

    private static string Number(string text, bool isDate, bool from1904)
    {
        if (!double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) || !double.IsFinite(number))
            return text;
        if (!isDate)
            return SheetFile.Number(number);
        // Part of a day is a time; days are counted from 1900, or from 1904 where the workbook says so.
        if (number is >= 0 and < 1)
            return TimeSpan.FromDays(number).ToString(@"hh\:mm", CultureInfo.InvariantCulture);
        if (from1904)
            number += 1462;
        if (number is < 0 or > 2_958_465)
            return SheetFile.Number(number);
        var moment = DateTime.FromOADate(number);
        return moment.TimeOfDay < TimeSpan.FromSeconds(1)
            ? moment.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
            : moment.ToString("yyyy-MM-dd HH:mm:ss", CultureInfo.InvariantCulture);
    }

    private (string Path, bool From1904) FirstSheet()
    {
        string? relation = null;
        var from1904 = false;
        using (var workbook = Open("xl/workbook.xml") ?? throw Unsound())
            while (workbook.Read())
            {
                if (workbook.NodeType != XmlNodeType.Element)
                    continue;
                if (workbook.LocalName == "workbookPr")
                    from1904 = workbook.GetAttribute("date1904") is "1" or "true";
                if (workbook.LocalName == "sheet" && relation is null)
                    relation = workbook.GetAttribute("id", Relations) ?? workbook.GetAttribute("r:id");
            }
        using (var relations = Open("xl/_rels/workbook.xml.rels"))
            while (relations?.Read() == true)
                if (
                    relations.NodeType == XmlNodeType.Element
                    && relations.LocalName == "Relationship"
                    && relations.GetAttribute("Id") == relation
                    && relations.GetAttribute("Target") is { } target
                )
                    return (target.StartsWith('/') ? target[1..] : "xl/" + target, from1904);
        return ("xl/worksheets/sheet1.xml", from1904);
    }

    private List<string> SharedTexts()
    {
        var texts = new List<string>();
        using var xml = Open("xl/sharedStrings.xml");
        if (xml is null)
            return texts;
        long characters = 0;
        var text = new StringBuilder();
        while (xml.Read())
        {
            if (xml.NodeType != XmlNodeType.Element || xml.LocalName != "si")
                continue;
            if (texts.Count % LookEvery == 0)
                _cancellation.ThrowIfCancellationRequested();
            text.Clear();
            var depth = xml.Depth;
            if (!xml.IsEmptyElement)
                while (xml.Read() && xml.Depth > depth)
                {
                    if (xml.NodeType != XmlNodeType.Element || xml.IsEmptyElement)
                        continue;
                    if (xml.LocalName == "t")
                        Append(xml, text);
                    else if (xml.LocalName == "rPh")
                        Skip(xml);
                }
            if ((characters += text.Length + 16) > MostSharedCharacters)
                throw new SheetException("The workbook holds more text than can be taken. Split it, or save it as .csv.");
            texts.Add(text.ToString());
        }
        return texts;
    }

    // For each style of cells, whether it shows a date or a time.
    private bool[] DateStyles()
    {
        using var xml = Open("xl/styles.xml");
        if (xml is null)
            return [];
        var own = new Dictionary<int, bool>();
        var styles = new List<bool>();
        var inCells = false;
        while (xml.Read())
        {
            if (xml.LocalName == "cellXfs")
                inCells = xml.NodeType == XmlNodeType.Element && !xml.IsEmptyElement;
            if (xml.NodeType != XmlNodeType.Element || styles.Count > 100_000)
                continue;
            if (xml.LocalName == "numFmt" && int.TryParse(xml.GetAttribute("numFmtId"), out var id))
                own[id] = ShowsDate(xml.GetAttribute("formatCode") ?? "");
            else if (xml.LocalName == "xf" && inCells)
                styles.Add(
                    int.TryParse(xml.GetAttribute("numFmtId"), out var format) && (own.TryGetValue(format, out var shows) ? shows : IsBuiltInDate(format))
                );
        }
        return [.. styles];
    }

    // ECMA-376 part 1, 18.8.30: formats every application knows by their number.
    private static bool IsBuiltInDate(int format) => format is >= 14 and <= 22 or >= 27 and <= 36 or >= 45 and <= 47 or >= 50 and <= 58;

    // Letters of days and hours outside of quoted text, colours and escapes.
    private static bool ShowsDate(string format)
    {
        bool quoted = false,
            bracketed = false;
        for (var i = 0; i < format.Length; i++)
        {
            var c = format[i];
            if (c == '\\')
                i++;
            else if (c == '"')
                quoted = !quoted;
            else if (quoted)
                continue;
            else if (c is '[' or ']')
                bracketed = c == '[';
            else if (!bracketed && c is 'y' or 'm' or 'd' or 'h' or 's' or 'Y' or 'M' or 'D' or 'H' or 'S')
                return true;
        }
        return false;
    }

    // Takes the text of an element, and stands on its end.
    private void Append(XmlReader xml, StringBuilder text)
    {
        while (xml.Read() && xml.NodeType is not XmlNodeType.EndElement)
        {
            if (xml.NodeType is not (XmlNodeType.Text or XmlNodeType.CDATA or XmlNodeType.SignificantWhitespace or XmlNodeType.Whitespace))
                continue;
            for (int length; (length = xml.ReadValueChunk(_chunk, 0, _chunk.Length)) > 0; )
            {
                text.Append(_chunk, 0, length);
                if (text.Length > SheetFile.LongestCell)
                    throw SheetFile.TooLong();
            }
        }
    }

    private static void Skip(XmlReader xml)
    {
        var depth = xml.Depth;
        while (xml.Read() && xml.Depth > depth)
        {
            // What stands there is of no interest.
        }
    }

    private static int ColumnOf(string place)
    {
        var column = 0;
        foreach (var c in place)
        {
            if (!char.IsAsciiLetter(c))
                break;
            column = column * 26 + (char.ToUpperInvariant(c) - 'A' + 1);
            if (column > 1_000_000)
                throw Unsound();
        }
        return Math.Max(column - 1, 0);
    }

    private XmlReader? Open(string path)
    {
        var entry = _zip.GetEntry(path) ?? _zip.Entries.FirstOrDefault(e => string.Equals(e.FullName, path, StringComparison.OrdinalIgnoreCase));
        return entry is null ? null : XmlReader.Create(new Counted(entry.Open(), this, entry.CompressedLength), Xml);
    }

    private static SheetException Unsound() => new("The workbook cannot be read. Open it, save it anew as .xlsx, and try again.");

    // Counts what comes out of the archive, all parts together; what a zip says about its sizes may be a lie.
    private sealed class Counted(Stream inner, WorkbookReader reader, long packed) : Stream
    {
        private long _here;

        public override bool CanRead => true;

        public override bool CanSeek => false;

        public override bool CanWrite => false;

        public override long Length => throw new NotSupportedException();

        public override long Position
        {
            get => _here;
            set => throw new NotSupportedException();
        }

        public override int Read(Span<byte> buffer)
        {
            reader._cancellation.ThrowIfCancellationRequested();
            var read = inner.Read(buffer);
            _here += read;
            reader._unpacked += read;
            if (reader._unpacked > LargestUnpacked || (_here > LargestTightlyPacked && _here > packed * TightestPacked))
                throw new SheetException(
                    $"Unpacked, this workbook holds more than can be taken, at most {LargestUnpacked / 1_000_000} MB. Split it, or save it as .csv."
                );
            return read;
        }

        public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

        public override void Flush() { }

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();

        protected override void Dispose(bool disposing)
        {
            if (disposing)
                inner.Dispose();
            base.Dispose(disposing);
        }
    }
}
