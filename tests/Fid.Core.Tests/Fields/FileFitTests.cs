using System.IO.Compression;
using System.Text;
using Fid.Core.Fields;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Fields;

/// <summary>What a file is, and whether it fits a field.</summary>
public class FileFitTests
{
    public static readonly TheoryData<string, FileGroup?> Files = new()
    {
        { "\x89PNG\r\n\x1a\n…", FileGroup.Picture },
        { "\xff\xd8\xff\xe0", FileGroup.Picture },
        { "GIF89a", FileGroup.Picture },
        { "RIFF0000WEBPVP8 ", FileGroup.Picture },
        { "RIFF0000WAVEfmt ", null },
        { "%PDF-1.7", FileGroup.Pdf },
        { "%PDF-", FileGroup.Pdf }, // nothing after what it begins with
        { "%PDF", null },
        { " %PDF-1.7", null },
        { "<script>alert(1)</script>", null },
        { "PK\x03\x04 and then nothing that unpacks", null },
        { "", null },
    };

    [Theory]
    [MemberData(nameof(Files))]
    public void A_file_is_what_is_in_it(string content, FileGroup? group) => FileKind.GroupOf(Encoding.Latin1.GetBytes(content)).ShouldBe(group);

    // Sizes are told rounded up, so that what is said to fit does.
    [Theory]
    [InlineData("0.000999", 1_000, "1 kB", "999 bytes")]
    [InlineData("0.001", 1_001, "2 kB", "1 kB")]
    [InlineData("0.099999", 100_000, "0.1 MB", "100 kB")]
    [InlineData("0.1", 100_001, "0.2 MB", "0.1 MB")]
    [InlineData("2", 2_000_001, "2.1 MB", "2 MB")]
    public void How_large_a_file_is_and_may_be_is_told_in_words(string most, int size, string has, string atMost) =>
        FileFit
            .Check(
                new FieldDefinition
                {
                    Key = "paper",
                    Type = FieldType.File,
                    Max = new FieldLimit(decimal.Parse(most, System.Globalization.CultureInfo.InvariantCulture), null),
                },
                size,
                null
            )!
            .Message.ShouldBe($"The file has {has}. Choose one of at most {atMost}.");

    [Fact]
    public void What_only_speaks_of_parts_is_no_archive() => FileKind.GroupOf("Not one: [Content_Types].xml"u8).ShouldBeNull();

    [Theory]
    [InlineData("[Content_Types].xml", "<Types/>", FileGroup.Document)]
    [InlineData("mimetype", "application/vnd.oasis.opendocument.text", FileGroup.Document)]
    [InlineData("mimetype", "application/epub+zip", null)]
    [InlineData("setup.exe", "MZ", null)]
    public void A_document_is_an_archive_that_says_so_inside(string part, string content, FileGroup? group) =>
        FileKind.GroupOf(Archive(part, content)).ShouldBe(group);

    [Fact]
    public void What_a_field_takes_is_told_with_what_it_takes()
    {
        var field = new FieldDefinition
        {
            Key = "photo",
            Type = FieldType.File,
            Accepts = [FileGroup.Picture, FileGroup.Pdf],
            Max = new FieldLimit(0.25m, null),
        };
        FileFit.Check(field, 250_000, FileGroup.Pdf).ShouldBeNull();
        FileFit
            .Check(field, 250_001, FileGroup.Pdf)!
            .ShouldSatisfyAllConditions(p => p.Code.ShouldBe("too-large"), p => p.Path.ShouldBe("/photo"), p => p.Message.ShouldContain("at most 0.3 MB"));
        FileFit
            .Check(field, 10, FileGroup.Document)!
            .ShouldSatisfyAllConditions(p => p.Code.ShouldBe("wrong-kind"), p => p.Message.ShouldContain("a picture (PNG, JPEG, GIF, WebP) or a PDF"));
        FileFit.Check(field, 10, null)!.Code.ShouldBe("wrong-kind");
        // Without a word of its own a field takes anything, up to what anything may have.
        var any = new FieldDefinition { Key = "paper", Type = FieldType.File };
        FileFit.Check(any, FileFit.Largest, null).ShouldBeNull();
        FileFit.Check(any, FileFit.Largest + 1, null)!.Code.ShouldBe("too-large");
        // More than that no field can allow, and nothing below nothing.
        FileFit.MostBytes(any with { Max = new FieldLimit(500m, null) }).ShouldBe(FileFit.Largest);
        FileFit.MostBytes(any with { Max = new FieldLimit(10m, null) }).ShouldBe(FileFit.Largest);
        FileFit.MostBytes(any with { Max = new FieldLimit(-1m, null) }).ShouldBe(0);
        FileFit.MostBytes(any with { Max = new FieldLimit(decimal.MaxValue / 10, null) }).ShouldBe(FileFit.Largest);
    }

    [Fact]
    public void A_field_that_takes_no_kind_is_named_as_a_trap()
    {
        var paper = new FieldDefinition
        {
            Key = "paper",
            Type = FieldType.File,
            Accepts = [],
            Access = new Dictionary<string, FieldAccess> { ["coordinator"] = FieldAccess.Edit },
        };
        var question = new ConfigurationQuestion([paper], ["prepare"], new Dictionary<string, IReadOnlyList<string>>(), ["coordinator"]);
        ConfigurationCheck.Of(question).ShouldContain(f => f.Code == "nothing-to-choose" && f.Part == "accepts");
        ConfigurationCheck.Of(question with { Fields = [paper with { Accepts = [FileGroup.Pdf] }] }).ShouldNotContain(f => f.Code == "nothing-to-choose");
    }

    [Fact]
    public void The_kinds_of_a_field_are_kept_with_it()
    {
        var read = FieldConfiguration.Read("""{"sections":[],"fields":[{"key":"paper","type":"file","max":2.5,"accepts":["pdf","document"]}]}"""u8);
        var field = read.Answer!.Fields.Single();
        field.Max!.Number.ShouldBe(2.5m);
        field.Accepts!.ShouldBe([FileGroup.Pdf, FileGroup.Document]);
        Encoding.UTF8.GetString(read.Answer.Write()).ShouldContain("\"accepts\":[\"pdf\",\"document\"]");
        FieldConfiguration
            .Read("""{"sections":[],"fields":[{"key":"paper","type":"file","accepts":["film"]}]}"""u8)
            .Problems.ShouldContain(p => p.Path == "/fields/0/accepts/0");
    }

    private static byte[] Archive(string part, string content)
    {
        using var memory = new MemoryStream();
        using (var archive = new ZipArchive(memory, ZipArchiveMode.Create))
        using (var writer = new StreamWriter(archive.CreateEntry(part, CompressionLevel.NoCompression).Open()))
            writer.Write(content);
        return memory.ToArray();
    }
}
