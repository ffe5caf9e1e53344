using NodaTime;

namespace Fid.Core.History;

/// <summary>
/// Works out what a save does to the values of one field that are believed now. Nothing is overwritten: a value that was wrong,
/// or that no longer holds for part of its time, stops being believed, and what is true instead is believed from then on.
/// </summary>
public static class Timeline
{
    /// <summary>
    /// Starts a new value from a date. It holds until the next value already planned after that date, if any; the value before it
    /// ends on the day before.
    /// </summary>
    /// <param name="believed">The values believed now, without overlaps, in any order.</param>
    /// <param name="from">First day of the new value.</param>
    /// <param name="value">The new value; null for none.</param>
    public static TimelineEdit<T> Change<T>(IReadOnlyList<DatedValue<T>> believed, LocalDate from, T? value)
        where T : class
    {
        var next = believed.Where(s => s.From > from).Select(s => (LocalDate?)s.From).Min();
        var retired = believed.Where(s => s.Holds(from)).ToList();
        var added = new List<DatedValue<T>>();
        foreach (var spell in retired)
            if (spell.From < from)
                added.Add(spell with { To = from.PlusDays(-1) });
        if (value is not null)
            added.Add(new DatedValue<T>(value, from, next?.PlusDays(-1)));
        return new TimelineEdit<T>(retired, added);
    }

    /// <summary>
    /// Corrects a mistake: the value that holds on a date is replaced for the same time. Where none holds on that date, the new
    /// value fills the gap around it.
    /// </summary>
    /// <param name="believed">The values believed now, without overlaps, in any order.</param>
    /// <param name="on">A day of the mistaken value.</param>
    /// <param name="value">What is true instead; null for nothing.</param>
    /// <param name="gapFrom">Where a filled gap begins when no earlier value does: the first day the field can have a value.</param>
    public static TimelineEdit<T> Fix<T>(IReadOnlyList<DatedValue<T>> believed, LocalDate on, T? value, LocalDate gapFrom)
        where T : class
    {
        var wrong = believed.FirstOrDefault(s => s.Holds(on));
        if (wrong is not null)
            return new TimelineEdit<T>([wrong], value is null ? [] : [wrong with { Value = value }]);
        if (value is null)
            return new TimelineEdit<T>([], []);
        var next = believed.Where(s => s.From > on).Select(s => (LocalDate?)s.From).Min();
        var last = believed.Where(s => s.To < on).Select(s => s.To!.Value.PlusDays(1)).DefaultIfEmpty(gapFrom).Max();
        return new TimelineEdit<T>([], [new DatedValue<T>(value, LocalDate.Min(last, on), next?.PlusDays(-1))]);
    }

    /// <summary>Moves the day on which values began: those that held from <paramref name="oldFirst"/> hold from
    /// <paramref name="newFirst"/> instead. Values that began on another day stay, and a moved one ends before the next.</summary>
    public static TimelineEdit<T> MoveFirst<T>(IReadOnlyList<DatedValue<T>> believed, LocalDate oldFirst, LocalDate newFirst)
        where T : class
    {
        var moved = believed.SingleOrDefault(s => s.From == oldFirst);
        if (moved is null || oldFirst == newFirst || moved.To < newFirst || believed.Any(s => s != moved && s.Holds(newFirst)))
            return new TimelineEdit<T>([], []);
        return new TimelineEdit<T>([moved], [moved with { From = newFirst }]);
    }
}

/// <summary>A value and the time it is true for.</summary>
/// <param name="Value">The value.</param>
/// <param name="From">First day.</param>
/// <param name="To">Last day, included; null for no end.</param>
public sealed record DatedValue<T>(T Value, LocalDate From, LocalDate? To)
    where T : class
{
    /// <summary>Whether the value is true on a day.</summary>
    public bool Holds(LocalDate day) => From <= day && (To is null || day <= To);
}

/// <summary>What a save does to a field's values.</summary>
/// <param name="Retired">No longer believed.</param>
/// <param name="Added">Believed from now on.</param>
public sealed record TimelineEdit<T>(IReadOnlyList<DatedValue<T>> Retired, IReadOnlyList<DatedValue<T>> Added)
    where T : class;
