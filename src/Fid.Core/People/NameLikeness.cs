using System.Numerics;
using System.Text;
using F23.StringSimilarity;
using Fid.Core.Texts;

namespace Fid.Core.People;

/// <summary>A person's names in a form in which accents, case, order and punctuation no longer tell, and how alike two are.</summary>
internal sealed class NameLikeness
{
    // Below this two names have nothing to do with each other: some letters agree by chance.
    private const double Chance = 0.5;
    private const double OfAnInitial = 0.85;
    private const double WithMoreNames = 0.95;

    private static readonly OptimalStringAlignment Letters = new();

    private readonly Word[] _given;
    private readonly Word[] _family;
    private readonly Word[] _whole;
    private readonly Word[][] _others;

    public NameLikeness(PersonFacts person)
    {
        (_given, _family) = (Words(person.Given), Words(person.Family));
        _whole = [.. _given, .. _family];
        _others = [.. (person.OtherNames ?? []).Select(Words).Where(w => w.Length > 0)];
    }

    /// <summary>How alike two people's names are, from 0 to 1, and by which of their names.</summary>
    /// <param name="atLeast">A likeness below this need not be exact: it is of no use to the caller.</param>
    public (double Likeness, NameReason Reason) To(NameLikeness other, double atLeast)
    {
        var best = (Likeness: Both(_given, other._given, _family, other._family), Reason: NameReason.Name);
        Try(Both(_given, other._family, _family, other._given), NameReason.SwappedNames);
        foreach (var also in other._others)
            TryOther(this, other, also);
        foreach (var also in _others)
            TryOther(other, this, also);
        // Words that stand in the wrong part: a second given name among the family names.
        if (_whole.Length + other._whole.Length > 4 && MostAlike(_whole, other._whole) * WithMoreNames is var most && most >= atLeast && most > best.Likeness)
            Try(Alike(_whole, other._whole) * WithMoreNames, NameReason.Name);
        return best;

        // Letters that differ tell of most names that they will not do, before the slow comparison; then the second words, the first known.
        double Both(Word[] one, Word[] otherOne, Word[] two, Word[] otherTwo)
        {
            var most = MostAlike(two, otherTwo);
            if ((MostAlike(one, otherOne) + most) / 2 < atLeast)
                return 0;
            var first = Alike(one, otherOne);
            return (first + most) / 2 < atLeast ? first / 2 : (first + Alike(two, otherTwo)) / 2;
        }

        void Try(double likeness, NameReason reason)
        {
            if (likeness > best.Likeness)
                best = (likeness, reason);
        }

        // One by the name they have, the other by a name they had.
        void TryOther(NameLikeness one, NameLikeness renamed, Word[] also)
        {
            Try(Both(one._given, renamed._given, one._family, also), NameReason.OtherName);
            if (also.Length > 1)
                Try(Alike(one._whole, also), NameReason.OtherName);
        }
    }

    // Each word of the shorter finds its like in the longer, every word once.
    private static double Alike(Word[] a, Word[] b)
    {
        if (a.Length > b.Length)
            (a, b) = (b, a);
        if (a.Length == 0)
            return 0;
        if (a.Length == 1 && b.Length == 1)
            return Alike(a[0], b[0]);
        var (taken, sum) = (new bool[b.Length], 0.0);
        foreach (var word in a)
        {
            var (best, at) = (0.0, -1);
            for (var i = 0; i < b.Length; i++)
                if (!taken[i] && Alike(word, b[i]) is var likeness && likeness > best)
                    (best, at) = (likeness, i);
            if (at >= 0)
                taken[at] = true;
            sum += best;
        }
        return sum / a.Length * (a.Length == b.Length ? 1 : WithMoreNames);
    }

    // At least as much as Alike says: as if a word could be the like of several.
    private static double MostAlike(Word[] a, Word[] b)
    {
        if (a.Length > b.Length)
            (a, b) = (b, a);
        if (a.Length == 0)
            return 0;
        var sum = 0.0;
        foreach (var word in a)
        {
            var best = 0.0;
            foreach (var other in b)
                best = Math.Max(best, WithoutLetters(word, other) ?? MostByLetters(word, other));
            sum += best;
        }
        return sum / a.Length * (a.Length == b.Length ? 1 : WithMoreNames);
    }

    private static double Alike(Word one, Word other)
    {
        if (WithoutLetters(one, other) is { } told)
            return told;
        if (MostByLetters(one, other) < Chance)
            return 0;
        var likeness = 1 - Letters.Distance(one.Text, other.Text) / Math.Max(one.Text.Length, other.Text.Length);
        return likeness < Chance ? 0 : likeness;
    }

    // Null where the letters have to be compared.
    private static double? WithoutLetters(Word one, Word other)
    {
        var (a, b) = (one.Text, other.Text);
        if (a == b || one.Families.AsSpan().ContainsAny(other.Families))
            return 1;
        return a.Length > 1 && b.Length > 1 ? null
            : a[0] == b[0] ? OfAnInitial
            : 0;
    }

    // Each letter that only one of them has takes a change of its own, and so does each one that is too many.
    private static double MostByLetters(Word one, Word other)
    {
        var changes = Math.Max(BitOperations.PopCount(one.Letters & ~other.Letters), BitOperations.PopCount(other.Letters & ~one.Letters));
        var (a, b) = (one.Text.Length, other.Text.Length);
        return 1 - (double)Math.Max(changes, Math.Abs(a - b)) / Math.Max(a, b);
    }

    private static Word[] Words(string name)
    {
        var words = new StringBuilder(name.Length);
        foreach (var c in TextRules.Fold(name))
            words.Append(
                c switch
                {
                    'ß' => "ss",
                    'æ' => "ae",
                    'œ' => "oe",
                    'ø' => "o",
                    'ł' => "l",
                    'đ' or 'ð' => "d",
                    'þ' => "th",
                    'ı' => "i",
                    // O'Brien is one word, and so is Obrien.
                    '\'' or '’' or '`' or 'ʼ' or '.' => "",
                    _ when char.IsLetterOrDigit(c) => c.ToString(),
                    _ => " ",
                }
            );
        return [.. words.ToString().Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(w => new Word(w))];
    }

    /// <summary>A word of a name, with a bit for each of its letters. Letters that share a bit make words look more alike, never less.</summary>
    private readonly struct Word(string text)
    {
        public string Text { get; } = text;

        public int[] Families { get; } = ShortForms.FamiliesOf(text);

        public ulong Letters { get; } = text.Aggregate(0UL, (letters, letter) => letters | (1UL << (letter & 63)));
    }
}

/// <summary>By which names two people are alike.</summary>
internal enum NameReason
{
    Name,
    SwappedNames,
    OtherName,
}
