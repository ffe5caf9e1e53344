using System.Text;

namespace Fid.Core.Texts;

/// <summary>
/// Letters and digits with what is added to them taken away: marks, and the forms of width and style that Unicode calls
/// compatible (Unicode Standard Annex 15, form KD). Letters of the alphabets, kana and Hangul; others stay as they are.
/// </summary>
internal static class PlainLetters
{
    // Hangul syllables are composed by counting (Unicode Standard, 3.12).
    private const int FirstSyllable = 0xAC00,
        LastSyllable = 0xD7A3,
        FirstLead = 0x1100,
        FirstVowel = 0x1161,
        BeforeFirstTail = 0x11A7,
        Vowels = 21,
        Tails = 28;

    // A plain form, a colon, and the lower-case letters that come to it.
    private const string Table =
        " :ͺ 0:⁰₀０ 0⁄3:↉ 1:¹₁１ 1⁄:⅟ 1⁄10:⅒ 1⁄2:½ 1⁄3:⅓ 1⁄4:¼ 1⁄5:⅕ 1⁄6:⅙ 1⁄7:⅐ 1⁄8:⅛ 1⁄9:⅑ 2:²₂２ 2⁄3:⅔ 2⁄5:⅖ 3:³₃３ 3⁄4:¾ 3⁄5:⅗ "
        + "3⁄8:⅜ 4:⁴₄４ 4⁄5:⅘ 5:⁵₅５ 5⁄6:⅚ 5⁄8:⅝ 6:⁶₆６ 7:⁷₇７ 7⁄8:⅞ 8:⁸₈８ 9:⁹₉９ a:ªàáâãäåāăąǎǟǡǻȁȃȧᴬᵃḁạảấầẩẫậắằẳẵặₐａ aʾ:ẚ b:ᴮᵇḃḅḇℬｂ "
        + "c:çćĉċčᶜḉℂℭⅽｃ d:ďᴰᵈḋḍḏḑḓⅅⅆⅾｄ dz:ǆǳ e:èéêëēĕėęěȅȇȩᴱᵉḕḗḙḛḝẹẻẽếềểễệₑℯℰⅇｅ f:ᶠḟℱｆ ff:ﬀ ffi:ﬃ ffl:ﬄ fi:ﬁ fl:ﬂ g:ĝğġģǧǵᴳᵍḡℊｇ "
        + "h:ĥȟʰᴴḣḥḧḩḫẖₕℋℌℍℎｈ i:ìíîïĩīĭįİǐȉȋᴵᵢḭḯỉịⁱℐℑℹⅈⅰｉ ii:ⅱ iii:ⅲ ij:ĳ iv:ⅳ ix:ⅸ j:ĵǰʲᴶⅉｊ k:ķǩᴷᵏḱḳḵₖｋ l:ĺļľˡᴸḷḹḻḽₗℒℓⅼｌ lj:ǉ l·:ŀ "
        + "m:ᴹᵐḿṁṃₘℳⅿｍ n:ñńņňǹᴺṅṇṉṋⁿₙℕｎ nj:ǌ o:ºòóôõöōŏőơǒǫǭȍȏȫȭȯȱᴼᵒṍṏṑṓọỏốồổỗộớờởỡợₒℴｏ p:ᴾᵖṕṗₚℙｐ q:ℚｑ r:ŕŗřȑȓʳᴿᵣṙṛṝṟℛℜℝｒ "
        + "s:śŝşšſșˢṡṣṥṧṩẛₛｓ st:ﬅﬆ t:ţťțᵀᵗṫṭṯṱẗₜｔ u:ùúûüũūŭůűųưǔǖǘǚǜȕȗᵁᵘᵤṳṵṷṹṻụủứừửữựｕ v:ᵛᵥṽṿⅴｖ vi:ⅵ vii:ⅶ viii:ⅷ w:ŵʷᵂẁẃẅẇẉẘｗ "
        + "x:ˣẋẍₓⅹｘ xi:ⅺ xii:ⅻ y:ýÿŷȳʸẏẙỳỵỷỹｙ z:źżžᶻẑẓẕℤℨｚ æ:ǣǽᴭ ð:ᶞ ø:ǿ ħ:ℏ ŋ:ᵑ ƫ:ᶵ ǝ:ᴲ ȣ:ᴽ ɐ:ᵄ ɑ:ᵅ ɒ:ᶛ ɔ:ᵓ ɕ:ᶝ ə:ᵊₔ ɛ:ᵋℇ ɜ:ᵌᶟ ɟ:ᶡ "
        + "ɡ:ᶢ ɣ:ˠ ɥ:ᶣ ɦ:ʱ ɨ:ᶤ ɩ:ᶥ ɪ:ᶦ ɭ:ᶩ ɯ:ᵚ ɰ:ᶭ ɱ:ᶬ ɲ:ᶮ ɳ:ᶯ ɴ:ᶰ ɵ:ᶱ ɸ:ᶲ ɹ:ʴ ɻ:ʵ ʁ:ʶ ʂ:ᶳ ʃ:ᶴ ʉ:ᶶ ʊ:ᶷ ʋ:ᶹ ʌ:ᶺ ʐ:ᶼ ʑ:ᶽ ʒ:ǯᶾ ʕ:ˤ ʝ:ᶨ "
        + "ʟ:ᶫ ʹ:ʹ ʼn:ŉ α:άἀἁἂἃἄἅἆἇὰάᾀᾁᾂᾃᾄᾅᾆᾇᾰᾱᾲᾳᾴᾶᾷ β:ϐᵝᵦ γ:ᵞᵧℽℾ δ:ᵟ ε:έϵἐἑἒἓἔἕὲέ η:ήἠἡἢἣἤἥἦἧὴήᾐᾑᾒᾓᾔᾕᾖᾗῂῃῄῆῇ θ:ϑᶿ "
        + "ι:ΐίϊἰἱἲἳἴἵἶἷὶίιῐῑῒΐῖῗ κ:ϰ μ:µ ο:όὀὁὂὃὄὅὸό π:ϖℼℿ ρ:ϱᵨῤῥ ς:ϲ υ:ΰϋύϒϓϔὐὑὒὓὔὕὖὗὺύῠῡῢΰῦῧ φ:ϕᵠᵩ χ:ᵡᵪ "
        + "ω:ώὠὡὢὣὤὥὦὧὼώᾠᾡᾢᾣᾤᾥᾦᾧῲῳῴῶῷ а:ӑӓ г:ѓ е:ѐёӗ ж:ӂӝ з:ӟ и:йѝӣӥ к:ќ н:ᵸ о:ӧ у:ўӯӱӳ ч:ӵ ы:ӹ э:ӭ і:ї ѵ:ѷ ә:ӛ ө:ӫ եւ:և א:ℵ ב:ℶ "
        + "ג:ℷ ד:ℸ ا:آأإ اٴ:ٵ و:ؤ وٴ:ٶ ي:ئ يٴ:ٸ ہ:ۂ ۇٴ:ٷ ے:ۓ ە:ۀ क:क़ ख:ख़ ग:ग़ ज:ज़ ड:ड़ ढ:ढ़ न:ऩ फ:फ़ य:य़ र:ऱ ळ:ऴ ড:ড় ঢ:ঢ় য:য় ਖ:ਖ਼ ਗ:ਗ਼ "
        + "ਜ:ਜ਼ ਫ:ਫ਼ ਲ:ਲ਼ ਸ:ਸ਼ ଡ:ଡ଼ ଢ:ଢ଼ ஔ:ஔ ᴂ:ᵆ ᴖ:ᵔ ᴗ:ᵕ ᴜ:ᶸ ᴝ:ᵙ ᴥ:ᵜ ᵻ:ᶧ ᶅ:ᶪ う:ゔ か:が き:ぎ く:ぐ け:げ こ:ご さ:ざ し:じ す:ず せ:ぜ そ:ぞ た:だ ち:ぢ つ:づ て:で "
        + "と:ど は:ばぱ ひ:びぴ ふ:ぶぷ へ:べぺ ほ:ぼぽ より:ゟ ゝ:ゞ ァ:ｧ ア:ｱ ィ:ｨ イ:ｲ ゥ:ｩ ウ:ヴｳ ェ:ｪ エ:ｴ ォ:ｫ オ:ｵ カ:ガｶ キ:ギｷ ク:グｸ ケ:ゲｹ コ:ゴｺ コト:ヿ サ:ザｻ シ:ジｼ "
        + "ス:ズｽ セ:ゼｾ ソ:ゾｿ タ:ダﾀ チ:ヂﾁ ッ:ｯ ツ:ヅﾂ テ:デﾃ ト:ドﾄ ナ:ﾅ ニ:ﾆ ヌ:ﾇ ネ:ﾈ ノ:ﾉ ハ:バパﾊ ヒ:ビピﾋ フ:ブプﾌ ヘ:ベペﾍ ホ:ボポﾎ マ:ﾏ ミ:ﾐ ム:ﾑ メ:ﾒ モ:ﾓ ャ:ｬ "
        + "ヤ:ﾔ ュ:ｭ ユ:ﾕ ョ:ｮ ヨ:ﾖ ラ:ﾗ リ:ﾘ ル:ﾙ レ:ﾚ ロ:ﾛ ワ:ヷﾜ ヰ:ヸ ヱ:ヹ ヲ:ヺｦ ン:ﾝ ー:ｰ ヽ:ヾ";

    private static readonly Dictionary<int, string> Plain = Table
        .Split(' ')
        .SelectMany(group =>
            group[(group.IndexOf(':', StringComparison.Ordinal) + 1)..]
                .EnumerateRunes()
                .Select(r => (r.Value, Plain: group[..group.IndexOf(':', StringComparison.Ordinal)]))
        )
        .ToDictionary(l => l.Value, l => l.Plain);

    /// <summary>Appends the plain form of a lower-case letter.</summary>
    public static void Append(StringBuilder text, Rune letter)
    {
        if (letter.IsAscii)
            text.Append((char)letter.Value);
        else if (letter.Value is >= FirstSyllable and <= LastSyllable)
        {
            var place = letter.Value - FirstSyllable;
            text.Append((char)(FirstLead + place / (Vowels * Tails))).Append((char)(FirstVowel + place / Tails % Vowels));
            if (place % Tails > 0)
                text.Append((char)(BeforeFirstTail + place % Tails));
        }
        else if (Plain.TryGetValue(letter.Value, out var plain))
            text.Append(plain);
        else
            text.Append(letter);
    }
}
