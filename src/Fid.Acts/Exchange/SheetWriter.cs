using System.Globalization;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Fid.Acts.Exchange;

/// <summary>Writes workbooks (Office Open XML) with notes at the headers and choices to pick from. Nothing in them is protected.</summary>
public static class SheetWriter
{
    // Validation reaches so far down that inserted and sorted rows stay within it.
    private const int LastRow = 20_000;
    private const string ChoicesSheet = "Choices";

    /// <summary>Whether a spreadsheet might take a text for a formula or a command.</summary>
    public static bool IsDangerous(ReadOnlySpan<char> text) => text.Length > 0 && text[0] is '=' or '+' or '-' or '@' or '\t' or '\r';

    /// <summary>A text that no spreadsheet takes for a formula: an apostrophe goes before what might be one. Plain numbers stay.</summary>
    public static string Harmless(string text) =>
        IsDangerous(text) && !decimal.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out _) ? "'" + text : text;

    /// <summary>What <see cref="Harmless"/> made of a text is itself again on the way in.</summary>
    public static string AsWritten(string cell) => cell.Length > 1 && cell[0] == '\'' && IsDangerous(cell.AsSpan(1)) ? cell[1..] : cell;

    /// <summary>Writes a workbook.</summary>
    public static void Write(Stream to, string title, IReadOnlyList<SheetColumn> columns, IEnumerable<IReadOnlyList<string>> rows)
    {
        using var document = SpreadsheetDocument.Create(to, SpreadsheetDocumentType.Workbook);
        var workbook = document.AddWorkbookPart();
        var styles = workbook.AddNewPart<WorkbookStylesPart>();
        styles.Stylesheet = Styles();
        var main = workbook.AddNewPart<WorksheetPart>();
        var choices = columns.Any(c => c.Choices.Count > 0) ? workbook.AddNewPart<WorksheetPart>() : null;
        WriteMain(main, columns, rows);
        if (choices is not null)
            WriteChoices(choices, columns);
        SheetNotes.Add(main, columns);

        var sheets = new Sheets(
            new Sheet
            {
                Id = workbook.GetIdOfPart(main),
                SheetId = 1,
                Name = SheetName(title),
            }
        );
        if (choices is not null)
            sheets.Append(
                new Sheet
                {
                    Id = workbook.GetIdOfPart(choices),
                    SheetId = 2,
                    Name = ChoicesSheet,
                    State = SheetStateValues.Hidden,
                }
            );
        workbook.Workbook = new Workbook(sheets);
    }

    private static void WriteMain(WorksheetPart part, IReadOnlyList<SheetColumn> columns, IEnumerable<IReadOnlyList<string>> rows)
    {
        using var writer = OpenXmlWriter.Create(part);
        writer.WriteStartElement(new Worksheet());
        writer.WriteElement(
            new SheetViews(
                new SheetView(
                    new Pane
                    {
                        VerticalSplit = 1,
                        TopLeftCell = "A2",
                        ActivePane = PaneValues.BottomLeft,
                        State = PaneStateValues.Frozen,
                    }
                )
                {
                    WorkbookViewId = 0,
                }
            )
        );
        writer.WriteStartElement(new Columns());
        for (var i = 0; i < columns.Count; i++)
            writer.WriteElement(
                new Column
                {
                    Min = (uint)i + 1,
                    Max = (uint)i + 1,
                    Width = columns[i].Wide ? 42 : Math.Max(14, columns[i].Header.Length + 4),
                    CustomWidth = true,
                    Style = 2,
                }
            );
        writer.WriteEndElement();
        writer.WriteStartElement(new SheetData());
        WriteRow(writer, 1, columns.Select(c => c.Header), style: 1);
        var at = 2u;
        foreach (var row in rows)
            WriteRow(writer, at++, row, style: 2);
        writer.WriteEndElement();

        var validations = columns.Select((c, i) => (c, i)).Where(c => c.c.Choices.Count > 0).ToArray();
        if (validations.Length > 0)
        {
            writer.WriteStartElement(new DataValidations { Count = (uint)validations.Length });
            var list = 0;
            foreach (var (column, i) in validations)
            {
                var letter = Letters(++list);
                writer.WriteElement(
                    new DataValidation(new Formula1($"{ChoicesSheet}!${letter}$1:${letter}${column.Choices.Count}"))
                    {
                        Type = DataValidationValues.List,
                        AllowBlank = true,
                        // Anything may be typed; Fid says what it does not know, and names the nearest.
                        ShowErrorMessage = false,
                        SequenceOfReferences = new ListValue<StringValue> { InnerText = $"{Letters(i + 1)}2:{Letters(i + 1)}{LastRow}" },
                    }
                );
            }
            writer.WriteEndElement();
        }
        writer.WriteElement(
            new PageMargins
            {
                Left = 0.7,
                Right = 0.7,
                Top = 0.75,
                Bottom = 0.75,
                Header = 0.3,
                Footer = 0.3,
            }
        );
        writer.WriteEndElement();
    }

    private static void WriteChoices(WorksheetPart part, IReadOnlyList<SheetColumn> columns)
    {
        var lists = columns.Where(c => c.Choices.Count > 0).Select(c => c.Choices).ToArray();
        using var writer = OpenXmlWriter.Create(part);
        writer.WriteStartElement(new Worksheet());
        writer.WriteStartElement(new SheetData());
        for (var r = 0; r < lists.Max(l => l.Count); r++)
            WriteRow(writer, (uint)r + 1, lists.Select(l => r < l.Count ? l[r] : ""), style: 2);
        writer.WriteEndElement();
        writer.WriteEndElement();
    }

    private static void WriteRow(OpenXmlWriter writer, uint number, IEnumerable<string> cells, uint style)
    {
        writer.WriteStartElement(new Row { RowIndex = number });
        var i = 0;
        foreach (var cell in cells)
        {
            i++;
            if (cell.Length == 0)
                continue;
            var text = Printable(Harmless(cell));
            writer.WriteElement(
                new Cell(new InlineString(new Text(text) { Space = SpaceProcessingModeValues.Preserve }))
                {
                    CellReference = $"{Letters(i)}{number.ToString(CultureInfo.InvariantCulture)}",
                    DataType = CellValues.InlineString,
                    StyleIndex = style,
                }
            );
        }
        writer.WriteEndElement();
    }

    // Control characters have no place in XML.
    private static string Printable(string text) =>
        text.Any(c => c < ' ' && c is not ('\t' or '\n' or '\r')) ? string.Concat(text.Where(c => c >= ' ' || c is '\t' or '\n' or '\r')) : text;

    private static Stylesheet Styles() =>
        new(
            new Fonts(new Font(), new Font(new Bold())),
            new Fills(new Fill(new PatternFill { PatternType = PatternValues.None }), new Fill(new PatternFill { PatternType = PatternValues.Gray125 })),
            new Borders(new Border()),
            new CellStyleFormats(new CellFormat()),
            // 2 is text: so 007 stays 007, and a date stays as it is written.
            new CellFormats(new CellFormat(), new CellFormat { FontId = 1, ApplyFont = true }, new CellFormat { NumberFormatId = 49, ApplyNumberFormat = true })
        );

    private static string SheetName(string title)
    {
        var name = string.Concat(title.Where(c => c is not ('[' or ']' or ':' or '*' or '?' or '/' or '\\')));
        return name.Length > 31 ? name[..31] : name;
    }

    /// <summary>The letters of a column from 1: A, B, …, Z, AA.</summary>
    internal static string Letters(int column)
    {
        var letters = "";
        for (; column > 0; column = (column - 1) / 26)
            letters = (char)('A' + (column - 1) % 26) + letters;
        return letters;
    }
}

/// <summary>A column of a workbook.</summary>
/// <param name="Note">What to enter; shown at the header.</param>
/// <param name="Choices">What can be picked; empty for anything.</param>
/// <param name="Wide">Whether what stands in it is long.</param>
public sealed record SheetColumn(string Header, string Note, IReadOnlyList<string> Choices, bool Wide = false);
