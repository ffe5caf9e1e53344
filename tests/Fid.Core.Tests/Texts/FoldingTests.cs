using System.Globalization;
using System.Text;
using Fid.Core.Texts;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Texts;

public class FoldingTests
{
    // Letters and digits of these are folded by a table of our own; this process has the library's normal forms to hold it against.
    [Theory]
    [InlineData(0x20, 0x0DFF)]
    [InlineData(0x1D00, 0x1FFF)]
    [InlineData(0x2070, 0x209F)]
    [InlineData(0x2100, 0x218F)]
    [InlineData(0x3040, 0x30FF)]
    [InlineData(0xAC00, 0xD7A3)]
    [InlineData(0xFF10, 0xFF9D)]
    public void Folds_as_the_compatible_normal_form_without_its_marks(int first, int last)
    {
        for (var code = first; code <= last; code++)
        {
            var text = ((char)code).ToString();
            if (!char.IsLetterOrDigit(text, 0))
                continue;
            TextRules.Fold(text).ShouldBe(Plain(text), $"U+{code:X4}");
        }
    }

    [Fact]
    public void Composed_and_taken_apart_a_text_folds_alike()
    {
        foreach (var text in new[] { "Núñez Łódź", "Ångström", "한국어 이름", "Ýýÿ ĳ ﬁn", "ガンバ" })
            TextRules.Fold(text.Normalize(NormalizationForm.FormD)).ShouldBe(TextRules.Fold(text.Normalize(NormalizationForm.FormC)));
    }

    private static string Plain(string text)
    {
        var plain = text.ToLowerInvariant()
            .Normalize(NormalizationForm.FormKD)
            .EnumerateRunes()
            .Where(r => Rune.GetUnicodeCategory(r) is not (UnicodeCategory.NonSpacingMark or UnicodeCategory.EnclosingMark))
            .Aggregate(new StringBuilder(), (folded, rune) => folded.Append(Rune.ToLowerInvariant(rune)));
        return plain.ToString().Trim();
    }
}
