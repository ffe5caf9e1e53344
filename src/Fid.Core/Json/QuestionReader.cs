using System.Globalization;
using System.Text;
using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Formulas;
using NodaTime;

namespace Fid.Core.Json;

/// <summary>
/// Reads a question once through, from its bytes. A mistake is noted with the way to it, and reading goes on with a harmless
/// value, so that one run names them all. Throws JsonException where the bytes are no JSON.
/// </summary>
internal ref struct QuestionReader
{
    private const int Deepest = 64;

    private readonly List<Problem> _problems;
    private readonly (string? Name, int Index)[] _way = new (string?, int)[Deepest + 1];
    private Utf8JsonReader _json;
    private int _depth;

    public QuestionReader(ReadOnlySpan<byte> question, List<Problem> problems)
    {
        _json = new Utf8JsonReader(question, new JsonReaderOptions { MaxDepth = Deepest });
        _problems = problems;
        _json.Read();
    }

    /// <summary>Reads a value where the reader stands, and leaves it on the value's last token.</summary>
    public delegate T Reading<T>(ref QuestionReader question);

    public readonly bool IsSound => _problems.Count == 0;

    /// <summary>Throws unless nothing follows the question.</summary>
    public void End() => _json.Read();

    /// <summary>Enters an object. False, after noting it, where there is none.</summary>
    public bool Object()
    {
        if (!Expect(JsonTokenType.StartObject, "an object"))
            return false;
        _depth++;
        return true;
    }

    /// <summary>
    /// The place in the shape of the object's next property, with the reader on its value; −1 at the end of the object. What is
    /// not in the shape, stands twice or is missing is noted; an optional property that is null counts as left out.
    /// </summary>
    /// <param name="shape">The properties there may be.</param>
    /// <param name="seen">The properties seen so far; start with 0.</param>
    public int Property(Shape shape, ref uint seen)
    {
        while (true)
        {
            _json.Read();
            if (_json.TokenType == JsonTokenType.EndObject)
            {
                _depth--;
                for (var i = 0; i < shape.Names.Length; i++)
                    if ((seen & (1u << i)) == 0 && !shape.Optional[i])
                        Report("missing-property", $"The property {shape.Names[i]} is needed here.", shape.Names[i]);
                return -1;
            }
            var at = shape.Find(ref _json, seen);
            if (at < 0)
            {
                Way(_json.GetString());
                Report("unknown-property", $"There is no such property here. Known: {string.Join(", ", shape.Names)}.");
                _json.Skip();
                continue;
            }
            Way(shape.Names[at]);
            if ((seen & (1u << at)) != 0)
            {
                Report("duplicate-property", "This property stands twice. Keep one.");
                _json.Skip();
                continue;
            }
            seen |= 1u << at;
            _json.Read();
            if (_json.TokenType == JsonTokenType.Null && shape.Optional[at])
                continue;
            return at;
        }
    }

    /// <summary>An object whose property names are the asker's own.</summary>
    public Dictionary<string, T> Named<T>(Reading<T> read)
    {
        var named = new Dictionary<string, T>(StringComparer.Ordinal);
        if (!Object())
            return named;
        while (_json.Read() && _json.TokenType != JsonTokenType.EndObject)
        {
            var name = _json.GetString()!;
            Way(name);
            _json.Read();
            if (!named.TryAdd(name, read(ref this)))
                Report("duplicate-property", "This property stands twice. Keep one.");
        }
        _depth--;
        return named;
    }

    public List<T> Items<T>(Reading<T> read)
    {
        var items = new List<T>();
        if (!Expect(JsonTokenType.StartArray, "a list"))
            return items;
        _depth++;
        while (_json.Read() && _json.TokenType != JsonTokenType.EndArray)
        {
            _way[_depth - 1] = (null, items.Count);
            items.Add(read(ref this));
        }
        _depth--;
        return items;
    }

    public readonly bool IsText => _json.TokenType == JsonTokenType.String;

    public string Text() => Expect(JsonTokenType.String, "a text") ? _json.GetString()! : "";

    public readonly bool IsNumber => _json.TokenType == JsonTokenType.Number;

    /// <summary>Any value, as it stands.</summary>
    public JsonElement Json() => JsonElement.ParseValue(ref _json);

    /// <summary>A text that names something, so not an empty one.</summary>
    public string Id()
    {
        if (IsText && _json.ValueSpan.IsEmpty)
            Report("bad-value", "An id cannot be empty.");
        return Text();
    }

    public bool YesNo()
    {
        if (_json.TokenType is JsonTokenType.True or JsonTokenType.False)
            return _json.GetBoolean();
        Expect(JsonTokenType.True, "true or false");
        return false;
    }

    /// <summary>A whole number, both ends included; 2.0 is one.</summary>
    public int Whole(int least, int most)
    {
        if (!Expect(JsonTokenType.Number, "a whole number"))
            return Math.Max(least, 0);
        if (_json.TryGetInt32(out var whole) && whole >= least && whole <= most)
            return whole;
        var fits = _json.TryGetDecimal(out var number);
        if (fits && number != decimal.Truncate(number))
            Report(WrongType, "This is to be a whole number.");
        else if (fits && number >= least && number <= most)
            return (int)number;
        else
            Report("out-of-range", $"This is to be from {least} to {most}.");
        return Math.Max(least, 0);
    }

    public decimal Number()
    {
        if (!Expect(JsonTokenType.Number, "a number"))
            return 0;
        if (_json.TryGetDecimal(out var number))
            return number;
        Report("out-of-range", "This number is too large or too long.");
        return 0;
    }

    /// <summary>A date as ISO 8601 year-month-day with four digits of year, in the years 1 to 9999.</summary>
    public LocalDate Date()
    {
        if (!Expect(JsonTokenType.String, "a date"))
            return default;
        if (_json.ValueIsEscaped ? Iso(Encoding.UTF8.GetBytes(_json.GetString()!), out var date) : Iso(_json.ValueSpan, out date))
            return date;
        Report("bad-date", "A date is written year-month-day, such as 2027-03-22, and must exist.");
        return default;
    }

    /// <summary>The value of an enumeration; its first where there is no such word.</summary>
    public int Choice(Choices choices)
    {
        if (!Expect(JsonTokenType.String, "a text"))
            return 0;
        if (choices.Find(ref _json) is var value and >= 0)
            return value;
        Report("bad-value", $"This is to be one of {choices.Known}.");
        return 0;
    }

    /// <summary>A calendar: a rest mask and holidays.</summary>
    public WorkCalendar Calendar()
    {
        var rest = RestMask.None;
        List<LocalDate> holidays = [];
        var seen = 0u;
        if (Object())
            while (Property(CalendarShape, ref seen) is var at and >= 0)
            {
                if (at == 0)
                    rest = Rest();
                else
                    holidays = Items((ref q) => q.Date());
            }
        return IsSound ? new WorkCalendar(rest, holidays) : WorkCalendar.EveryDay;
    }

    /// <summary>A formula over the fields of a record; null where it is none, with what is wrong noted.</summary>
    /// <param name="text">The formula as it is written.</param>
    /// <param name="member">The member of what was just read that holds it; null where it stands here.</param>
    public readonly RecordFormula? Formula(string text, string? member = null)
    {
        var (formula, mistake) = RecordFormula.Read(text);
        if (mistake is not null)
            Report("formula-error", mistake.Character is { } at ? $"{mistake.Message} (character {at})" : mistake.Message, member);
        return formula;
    }

    private const string WrongType = "wrong-type";

    private static readonly Shape CalendarShape = new("rest", "holidays?");

    private RestMask Rest()
    {
        if (!Expect(JsonTokenType.String, "a text"))
            return RestMask.None;
        var text = _json.GetString();
        if (RestMask.TryParse(text, out var mask))
            return mask;
        if (text == "1111111")
            Report("no-working-day", "This calendar has no working day at all. Leave at least one day of the week as 0.");
        else
            Report("bad-value", "The rest mask is seven characters, Monday first: 1 for rest, 0 for work.");
        return RestMask.None;
    }

    /// <summary>Notes a mistake here, or in a member of the object just read.</summary>
    public readonly void Report(string code, string message, string? member = null)
    {
        var path = new StringBuilder();
        for (var i = 0; i < _depth; i++)
            Append(path, _way[i].Name ?? _way[i].Index.ToString(CultureInfo.InvariantCulture));
        if (member is not null)
            Append(path, member);
        Add(new Problem(path.ToString(), code, message));
    }

    public readonly void Report(IEnumerable<Problem> problems)
    {
        foreach (var problem in problems)
            Add(problem);
    }

    // What is not even of the right type has nothing else wrong with it.
    private readonly void Add(Problem problem)
    {
        if (_problems is not [.., { Code: WrongType } last] || last.Path != problem.Path)
            _problems.Add(problem);
    }

    private static void Append(StringBuilder path, string name) => path.Append('/').Append(JsonPointer.Escape(name));

    private readonly void Way(string? name) => _way[_depth - 1] = (name, -1);

    private bool Expect(JsonTokenType token, string what)
    {
        if (_json.TokenType == token)
            return true;
        Report(WrongType, $"This is to be {what}.");
        if (_json.TokenType is JsonTokenType.StartObject or JsonTokenType.StartArray)
            _json.Skip();
        return false;
    }

    private static bool Iso(ReadOnlySpan<byte> text, out LocalDate date)
    {
        date = default;
        if (text.Length != 10 || text[4] != '-' || text[7] != '-')
            return false;
        int year = Digits(text[..4]),
            month = Digits(text[5..7]),
            day = Digits(text[8..]);
        if (year < 1 || month is < 1 or > 12 || day < 1 || day > DateTime.DaysInMonth(year, month))
            return false;
        date = new LocalDate(year, month, day);
        return true;
    }

    private static int Digits(ReadOnlySpan<byte> digits)
    {
        var number = 0;
        foreach (var d in digits)
        {
            if (d is < (byte)'0' or > (byte)'9')
                return -1;
            number = number * 10 + d - '0';
        }
        return number;
    }
}
