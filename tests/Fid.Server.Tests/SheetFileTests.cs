using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using DocumentFormat.OpenXml.Validation;
using Fid.Data.Exchange;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Reading and writing sheets.</summary>
public class SheetFileTests
{
    public static TheoryData<string> Spectrum => [.. Directory.GetFiles(Path.Combine(Repository.Web, "node_modules/csv-spectrum/csvs"), "*.csv").Select(f => Path.GetFileNameWithoutExtension(f)!).Order()];

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
        if (name == "location_coordinates") answers[0]["Contact Phone Number"] = "2095257564";
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
        Read(Encoding.GetEncoding(encoding).GetBytes(text)).ShouldBe([["Größe", "Straße"], ["1", "é"]]);
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
                new Fonts(new Font()), new Fills(new Fill()), new Borders(new Border()), new CellStyleFormats(new CellFormat()), new CellFormats(new CellFormat(), new CellFormat { NumberFormatId = 14, ApplyNumberFormat = true }));
            var sheet = workbook.AddNewPart<WorksheetPart>();
            sheet.Worksheet = new Worksheet(new SheetData(new Row(
                new Cell { CellReference = "A1", CellFormula = new CellFormula("1+1"), CellValue = new CellValue("42") },
                new Cell { CellReference = "B1", CellFormula = new CellFormula("HYPERLINK(\"http://x\")"), CellValue = new CellValue("seen"), DataType = CellValues.String },
                new Cell { CellReference = "C1", CellValue = new CellValue("46450"), StyleIndex = 1 },
                new Cell { CellReference = "D1", CellValue = new CellValue("0.30000000000000004") },
                new Cell { CellReference = "E1", DataType = CellValues.Boolean, CellValue = new CellValue("1") },
                new Cell { CellReference = "G1", DataType = CellValues.InlineString, InlineString = new InlineString(new Text("007")) })));
            workbook.Workbook = new Workbook(new Sheets(new Sheet { Id = workbook.GetIdOfPart(sheet), SheetId = 1, Name = "S" }));
        }
        Read(stream.ToArray()).ShouldBe([["42", "seen", "2027-03-04", "0.3", "yes", "", "007"]]);
    }

    [Fact]
    public void A_zip_bomb_is_refused_before_it_is_opened()
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
        {
            using var entry = zip.CreateEntry("xl/worksheets/sheet1.xml", CompressionLevel.SmallestSize).Open();
            var zeros = new byte[1_000_000];
            for (var i = 0; i < 700; i++) entry.Write(zeros);
        }
        stream.Length.ShouldBeLessThan(1_000_000);
        Should.Throw<SheetException>(() => Read(stream.ToArray())).Message.ShouldContain("600 MB");
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
        IReadOnlyList<string>[] rows = [["=1+1", "C1", "-5"], ["+x", "@y", "plain"], ["007", "", "two\nlines"]];
        using var stream = new MemoryStream();
        SheetWriter.Write(stream, "A/B: [list]", columns, rows);
        stream.Position = 0;
        using (var document = SpreadsheetDocument.Open(stream, false))
        {
            new OpenXmlValidator(FileFormatVersions.Office2019).Validate(document).Select(e => $"{e.Path?.XPath} {e.Description}").ShouldBeEmpty();
            var sheet = document.WorkbookPart!.WorksheetParts.First(p => p.WorksheetCommentsPart is not null);
            sheet.WorksheetCommentsPart!.Comments!.CommentList!.Elements<Comment>().Select(c => $"{c.Reference} {c.InnerText}").ShouldBe(["A1 What it is", "B1 Which <grade> & why"]);
            sheet.Worksheet!.Descendants<DataValidation>().Single().SequenceOfReferences!.InnerText.ShouldBe("B2:B20000");
            sheet.Worksheet!.Descendants<CellFormula>().ShouldBeEmpty();
            document.WorkbookPart.WorksheetParts.ShouldAllBe(p => p.Worksheet!.GetFirstChild<SheetProtection>() == null);
        }
        Read(stream.ToArray()).ShouldBe([["Code", "Grade", "Note"], ["'=1+1", "C1", "-5"], ["'+x", "'@y", "plain"], ["007", "", "two\nlines"]]);
    }

    private static List<string[]> Read(byte[] file) => [.. SheetFile.Rows(() => new MemoryStream(file))];
}
