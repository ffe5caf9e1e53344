using System.Text.Json;
using Fid.Core.Fields;
using Fid.Core.Pay;
using Fid.Data.People;
using NodaTime;

namespace Fid.Acts.PayRuns;

/// <summary>A stint and all that is believed today of what its pay hangs on: what holds now, what held, and what is entered ahead.</summary>
internal sealed class PaidStint(Employment employment, CurrentRecord record, IReadOnlyList<RecordValue> believed)
{
    public Employment Employment => employment;

    public CurrentRecord Record => record;

    /// <summary>The days on which one of some fields begins to hold another value or none, in order; after the first day of the stint.</summary>
    public IEnumerable<LocalDate> DaysOfChange(IReadOnlyCollection<string> fields) =>
        believed
            .Where(v => fields.Contains(v.Field))
            .Select(v => EffectiveRange.FromDatabase(v.Effective))
            .SelectMany(days => days.To is { } to && to < LocalDate.MaxIsoValue ? [days.From, to.PlusDays(1)] : (LocalDate[])[days.From])
            .Where(day => day > employment.Start)
            .Distinct()
            .Order();

    /// <summary>What holds on a day, by address.</summary>
    public Dictionary<string, JsonElement?> On(LocalDate day) => Rows(day).ToDictionary(v => v.Address, v => (JsonElement?)v.Value, StringComparer.Ordinal);

    /// <summary>The value of a field that holds on a day; null for none.</summary>
    public RecordValue? Row(string field, LocalDate day) => Rows(day).SingleOrDefault(v => v.Field == field);

    /// <summary>Whether anything is, was or will be held in rows of a field.</summary>
    public bool HasRowsOf(string field) => believed.Any(v => v.RowId is not null && FieldAddress.Read(v.Field).Whole == field);

    /// <summary>What somebody is paid from their first day on, and from each day on which that changes.</summary>
    /// <param name="fields">What it hangs on.</param>
    /// <param name="amount">What they are paid by what holds on a day.</param>
    public IReadOnlyList<AmountFrom> Amounts(IReadOnlyCollection<string> fields, Func<IReadOnlyDictionary<string, JsonElement?>, decimal> amount)
    {
        var amounts = new List<AmountFrom> { new(employment.Start, amount(On(employment.Start))) };
        foreach (var day in DaysOfChange(fields))
            if (amount(On(day)) is var then && then != amounts[^1].Amount)
                amounts.Add(new AmountFrom(day, then));
        return amounts;
    }

    private IEnumerable<RecordValue> Rows(LocalDate day) => believed.Where(v => v.HoldsOn(day));
}
