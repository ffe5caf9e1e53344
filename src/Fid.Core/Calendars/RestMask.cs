using System.Diagnostics.CodeAnalysis;

namespace Fid.Core.Calendars;

/// <summary>The days of the week on which nobody works, Monday first, as in OpenFormula's weekend strings: "0000011" rests on
/// Saturday and Sunday. At least one day is always left for work.</summary>
public sealed class RestMask : IEquatable<RestMask>
{
    private readonly string _text;
    private readonly int[] _workingBefore = new int[8]; // [weekday] = working weekdays before it; [7] = a whole week's
    private readonly int[] _workingDays; // the weekdays worked, ascending

    private RestMask(string text)
    {
        _text = text;
        for (var d = 0; d < 7; d++)
            _workingBefore[d + 1] = _workingBefore[d] + (text[d] == '0' ? 1 : 0);
        _workingDays = new int[_workingBefore[7]];
        for (var d = 0; d < 7; d++)
            if (text[d] == '0')
                _workingDays[_workingBefore[d]] = d;
    }

    /// <summary>No rest day in the week.</summary>
    public static RestMask None { get; } = new("0000000");

    /// <summary>Saturday and Sunday.</summary>
    public static RestMask Weekend { get; } = new("0000011");

    /// <summary>Reads seven characters, `1` for rest. False for anything else, and for a week without a working day.</summary>
    public static bool TryParse(string? text, [NotNullWhen(true)] out RestMask? mask)
    {
        mask = text is { Length: 7 } && text.All(c => c is '0' or '1') && text.Contains('0') ? new RestMask(text) : null;
        return mask is not null;
    }

    internal bool IsRest(int day) => _text[day % 7] == '1'; // day 0, 0001-01-01, is a Monday

    internal int WorkingBefore(int day) => day / 7 * _workingBefore[7] + _workingBefore[day % 7];

    internal long NthWorking(uint index)
    {
        var perWeek = (uint)_workingDays.Length;
        var week = index / perWeek;
        return week * 7L + _workingDays[index - week * perWeek];
    }

    /// <inheritdoc/>
    public bool Equals(RestMask? other) => other?._text == _text;

    /// <inheritdoc/>
    public override bool Equals(object? obj) => Equals(obj as RestMask);

    /// <inheritdoc/>
    public override int GetHashCode() => _text.GetHashCode(StringComparison.Ordinal);

    /// <summary>The seven characters, Monday first.</summary>
    public override string ToString() => _text;
}
