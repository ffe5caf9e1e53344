using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using DocumentFormat.OpenXml.Validation;
using Fid.Acts.Exchange;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Reading and writing sheets.</summary>
public class SheetFileTests
{
    public static TheoryData<string> Spectrum =>
        [
            .. Directory
                .GetFiles(Path.Combine(Repository.Web, "node_modules/csv-spectrum/csvs"), "*.csv")
                .Select(f => Path.GetFileNameWithoutExtension(f)!)
                .Order(),
        ];

    /// <summary>A collection of awkward files, with the answers of those who collected them.</summary>
    [Theory]
    [MemberData(nameof(Spectrum))]
    public void Every_file_of_the_csv_spectrum_reads_as_it_should(string name)
    {
        var folder = Path.Combine(Repository.Web, "node_modules/csv-spectrum");
        var rows = Read(File.ReadAllBytes(Path.Combine(folder, $"csvs/{name}.csv")));
        var expected = JsonNode.Parse(File.ReadAllText(Path.Combine(folder, $"json/{name}.json")))!;
        // One answer is the row itself instead of a list of one, and has a telephone number that its file does not.
        var answers = expected is JsonArray list ? list.Select(a => a!.AsObject()).ToArray() : [expected.AsObject()];
        if (name == "location_coordinates")
            answers[0]["Contact Phone Number"] = "2095257564";
        rows.Skip(1).Count().ShouldBe(answers.Length);
        foreach (var (row, answer) in rows.Skip(1).Zip(answers))
            answer.Select(p => (p.Key, (string)p.Value!)).ShouldBe(rows[0].Select((h, i) => (h, i < row.Length ? row[i] : "")));
    }

    [Theory]
    [InlineData("utf-8", "Größe;Straße\n1;é\n")]
    [InlineData("utf-16", "Größe;Straße\n1;é\n")]
    [InlineData("windows-1252", "Größe;Straße\n1;é\n")]
    [InlineData("utf-8", "Größe\tStraße\r\n1\té\r\n")]
    [InlineData("utf-8", "Größe|Straße\n1|é")]
    [InlineData("utf-8", "\"Größe\",\"Straße\"\n\"1\",\"é\"\n")]
    [InlineData("utf-8", "Größe;Straße\n\n  ;  \n1;é\n")]
    public void Separator_and_encoding_are_found_out(string encoding, string text)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        Read(Encoding.GetEncoding(encoding).GetBytes(text))
            .ShouldBe([
                ["Größe", "Straße"],
                ["1", "é"],
            ]);
    }

    [Fact]
    public void A_byte_that_is_no_UTF_8_far_down_makes_the_whole_file_Windows_1252()
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        var text = "name;town\n" + string.Concat(Enumerable.Repeat("x;y\n", 40_000)) + "Zoë;Köln\n";
        Read(Encoding.GetEncoding(1252).GetBytes(text))[^1].ShouldBe(["Zoë", "Köln"]);
    }

    [Fact]
    public void Of_a_formula_the_value_is_taken_and_dates_numbers_and_texts_come_as_they_are_seen()
    {
        using var stream = new MemoryStream();
        using (var document = SpreadsheetDocument.Create(stream, SpreadsheetDocumentType.Workbook))
        {
            var workbook = document.AddWorkbookPart();
            workbook.AddNewPart<WorkbookStylesPart>().Stylesheet = new Stylesheet(
                new Fonts(new Font()),
                new Fills(new Fill()),
                new Borders(new Border()),
                new CellStyleFormats(new CellFormat()),
                new CellFormats(new CellFormat(), new CellFormat { NumberFormatId = 14, ApplyNumberFormat = true })
            );
            var sheet = workbook.AddNewPart<WorksheetPart>();
            sheet.Worksheet = new Worksheet(
                new SheetData(
                    new Row(
                        new Cell
                        {
                            CellReference = "A1",
                            CellFormula = new CellFormula("1+1"),
                            CellValue = new CellValue("42"),
                        },
                        new Cell
                        {
                            CellReference = "B1",
                            CellFormula = new CellFormula("HYPERLINK(\"http://x\")"),
                            CellValue = new CellValue("seen"),
                            DataType = CellValues.String,
                        },
                        new Cell
                        {
                            CellReference = "C1",
                            CellValue = new CellValue("46450"),
                            StyleIndex = 1,
                        },
                        new Cell { CellReference = "D1", CellValue = new CellValue("0.30000000000000004") },
                        new Cell
                        {
                            CellReference = "E1",
                            DataType = CellValues.Boolean,
                            CellValue = new CellValue("1"),
                        },
                        new Cell
                        {
                            CellReference = "G1",
                            DataType = CellValues.InlineString,
                            InlineString = new InlineString(new Text("007")),
                        }
                    )
                )
            );
            workbook.Workbook = new Workbook(
                new Sheets(
                    new Sheet
                    {
                        Id = workbook.GetIdOfPart(sheet),
                        SheetId = 1,
                        Name = "S",
                    }
                )
            );
        }
        Read(stream.ToArray())
            .ShouldBe([
                ["42", "seen", "2027-03-04", "0.3", "yes", "", "007"],
            ]);
    }

    [Theory]
    [InlineData("zeros", "more than can be taken")]
    [InlineData("one cell", "20000 characters")]
    [InlineData("one shared text", "20000 characters")]
    [InlineData("shared texts", "more text than can be taken")]
    [InlineData("wide", "200 columns")]
    public void What_would_swell_beyond_measure_is_refused_while_it_is_read(string how, string says)
    {
        var (sheet, shared) = how switch
        {
            "zeros" => (
                (Action<StreamWriter>)(
                    w =>
                    {
                        for (var i = 0; i < 70_000; i++)
                            w.Write(new string(' ', 10_000));
                    }
                ),
                (Action<StreamWriter>?)null
            ),
            "one cell" => (
                w =>
                {
                    w.Write("<row><c t=\"inlineStr\"><is><t>");
                    for (var i = 0; i < 5_000; i++)
                        w.Write(new string('x', 10_000));
                    w.Write("</t></is></c></row>");
                },
                null
            ),
            "one shared text" => (
                w => w.Write("<row><c t=\"s\"><v>0</v></c></row>"),
                w =>
                {
                    w.Write("<si><t>");
                    for (var i = 0; i < 5_000; i++)
                        w.Write(new string('x', 10_000));
                    w.Write("</t></si>");
                }
            ),
            "shared texts" => (
                w => w.Write("<row><c t=\"s\"><v>0</v></c></row>"),
                w =>
                {
                    for (var i = 0; i < 2_000_000; i++)
                        w.Write($"<si><t>{i * 7919L:x}</t></si>");
                    for (var i = 0; i < 3_000; i++)
                        w.Write($"<si><t>{new string('y', 15_000)}</t></si>");
                }
            ),
            _ => (w => w.Write("<row><c r=\"A1\" t=\"str\"><v>a</v></c><c r=\"XFD1\" t=\"str\"><v>b</v></c></row>"), null),
        };
        var file = Workbook("", sheet, shared);
        file.Length.ShouldBeLessThan(10_000_000);
        var before = GC.GetAllocatedBytesForCurrentThread();
        Should.Throw<SheetException>(() => Read(file)).Message.ShouldContain(says);
        (GC.GetAllocatedBytesForCurrentThread() - before).ShouldBeLessThan(1_000_000_000);
    }

    [Theory]
    [InlineData(
        "<dimension ref=\"A1:XFD1048576\"/>",
        "<row r=\"1\"><c r=\"A1\" t=\"str\"><v>a</v></c></row><row r=\"2\"><c r=\"A2\" t=\"str\"><v>b</v></c></row>"
    )]
    [InlineData("", "<row r=\"1\"><c r=\"A1\" t=\"str\"><v>a</v></c></row><row r=\"2000000000\"><c r=\"A2000000000\" t=\"str\"><v>b</v></c></row>")]
    [InlineData(
        "<cols><col min=\"1\" max=\"16384\" style=\"1\"/></cols>",
        "<row r=\"1\"><c r=\"A1\" t=\"str\"><v>a</v></c><c r=\"XFD1\" s=\"1\"/></row><row r=\"2\" s=\"1\"/><row r=\"3\"><c r=\"A3\" "
            + "t=\"str\"><v>b</v></c></row>"
    )]
    public void What_a_workbook_says_of_its_size_and_what_is_only_formatted_costs_nothing(string before, string rows) =>
        Read(Workbook(before, w => w.Write(rows)))
            .ShouldBe([
                ["a"],
                ["b"],
            ]);

    [Fact]
    public void A_whole_sheet_of_formatted_cells_reads_as_what_stands_in_it()
    {
        var file = Workbook("", w =>
        {
            w.Write("<row r=\"1\"><c r=\"A1\" t=\"str\"><v>a</v></c></row>");
            for (var row = 2; row <= 400_000; row++)
                w.Write($"<row r=\"{row}\"><c r=\"A{row}\" s=\"1\"/><c r=\"B{row}\" s=\"1\"/></row>");
        });
        Read(file)
            .ShouldBe([
                ["a"],
            ]);
    }

    [Fact]
    public void Reading_can_be_stopped_in_the_middle()
    {
        using var stop = new CancellationTokenSource();
        var file = Workbook("", w =>
        {
            for (var row = 1; row <= 100_000; row++)
                w.Write($"<row r=\"{row}\"><c r=\"A{row}\" t=\"str\"><v>a</v></c></row>");
        });
        var read = 0;
        Should.Throw<OperationCanceledException>(() =>
        {
            foreach (var _ in SheetFile.Rows(() => new MemoryStream(file), stop.Token))
                if (++read == 5)
                    stop.Cancel();
        });
        read.ShouldBeLessThan(5_000);
        Should.Throw<OperationCanceledException>(() =>
            SheetFile.Rows(() => new MemoryStream(Encoding.UTF8.GetBytes(string.Concat(Enumerable.Repeat("a,b\n", 50_000)))), stop.Token).Count()
        );
    }

    [Fact]
    public void A_line_that_never_ends_is_no_row() =>
        Should.Throw<SheetException>(() => Read(Encoding.UTF8.GetBytes("a,b\n" + new string(',', 5_000_000)))).Message.ShouldContain("too long");

    // A workbook with one sheet, written as a program would that means harm.
    private static byte[] Workbook(string beforeRows, Action<StreamWriter> rows, Action<StreamWriter>? shared = null)
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
        {
            Part("xl/workbook.xml", w =>
                w.Write(
                    """<workbook xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="S" """
                        + """sheetId="1" r:id="rId1"/></sheets></workbook>"""
                )
            );
            Part("xl/_rels/workbook.xml.rels", w => w.Write("""<Relationships><Relationship Id="rId1" Target="worksheets/sheet1.xml"/></Relationships>"""));
            Part("xl/worksheets/sheet1.xml", w =>
            {
                w.Write($"<worksheet>{beforeRows}<sheetData>");
                rows(w);
                w.Write("</sheetData></worksheet>");
            });
            if (shared is not null)
                Part("xl/sharedStrings.xml", w =>
                {
                    w.Write("<sst>");
                    shared(w);
                    w.Write("</sst>");
                });

            void Part(string name, Action<StreamWriter> write)
            {
                using var writer = new StreamWriter(zip.CreateEntry(name, CompressionLevel.SmallestSize).Open());
                write(writer);
            }
        }
        return stream.ToArray();
    }

    [Theory]
    [InlineData(new byte[] { 0xD0, 0xCF, 0x11, 0xE0, 0xA1, 0xB1, 0x1A, 0xE1 }, "old kind")]
    [InlineData(new byte[] { 0x50, 0x4B, 3, 4, 1, 2, 3 }, "cannot be read")]
    [InlineData(new byte[] { 0x89, 0x50, 0x4E, 0x47, 0, 0, 0, 1, 0, 0 }, "no sheet")]
    public void What_is_no_sheet_is_refused_in_words(byte[] file, string says) => Should.Throw<SheetException>(() => Read(file)).Message.ShouldContain(says);

    [Fact]
    public void A_sheet_that_is_written_is_sound_holds_no_formula_and_reads_back()
    {
        SheetColumn[] columns = [new("Code", "What it is", []), new("Grade", "Which <grade> & why", ["C1", "C2"]), new("Note", "", [], Wide: true)];
        IReadOnlyList<string>[] rows =
        [
            ["=1+1", "C1", "-5"],
            ["+x", "@y", "plain"],
            ["007", "", "two\nlines"],
        ];
        using var stream = new MemoryStream();
        SheetWriter.Write(stream, "A/B: [list]", columns, rows);
        stream.Position = 0;
        using (var document = SpreadsheetDocument.Open(stream, false))
        {
            new OpenXmlValidator(FileFormatVersions.Office2019).Validate(document).Select(e => $"{e.Path?.XPath} {e.Description}").ShouldBeEmpty();
            var sheet = document.WorkbookPart!.WorksheetParts.First(p => p.WorksheetCommentsPart is not null);
            sheet
                .WorksheetCommentsPart!.Comments!.CommentList!.Elements<Comment>()
                .Select(c => $"{c.Reference} {c.InnerText}")
                .ShouldBe(["A1 What it is", "B1 Which <grade> & why"]);
            sheet.Worksheet!.Descendants<DataValidation>().Single().SequenceOfReferences!.InnerText.ShouldBe("B2:B20000");
            sheet.Worksheet!.Descendants<CellFormula>().ShouldBeEmpty();
            document.WorkbookPart.WorksheetParts.ShouldAllBe(p => p.Worksheet!.GetFirstChild<SheetProtection>() == null);
        }
        Read(stream.ToArray())
            .ShouldBe([
                ["Code", "Grade", "Note"],
                ["'=1+1", "C1", "-5"],
                ["'+x", "'@y", "plain"],
                ["007", "", "two\nlines"],
            ]);
    }

    private static List<string[]> Read(byte[] file) => [.. SheetFile.Rows(() => new MemoryStream(file))];
}
