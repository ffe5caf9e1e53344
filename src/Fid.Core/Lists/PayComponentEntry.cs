using Fid.Core.Pay;
using NodaTime;
using NodaTime.Text;

namespace Fid.Core.Lists;

/// <summary>A pay component as its list entry describes it.</summary>
public static class PayComponentEntry
{
    /// <summary>The component that stands for what a record says is paid.</summary>
    public const string BasePay = "basePay";

    /// <summary>The components that stand for what records say beside base pay, by what it is.</summary>
    public static IReadOnlyDictionary<PayElementKind, string> Standing { get; } =
        new Dictionary<PayElementKind, string>
        {
            [PayElementKind.Allowance] = "allowance",
            [PayElementKind.SecondJob] = "secondJob",
            [PayElementKind.OneOff] = "oneOff",
        };

    /// <summary>The component. One that stands for what records say has its own amount as an example.</summary>
    public static PayComponent Component(EntryContent entry) =>
        new(
            entry.Code,
            Enum.Parse<ComponentKind>(entry.Text("kind") ?? nameof(ComponentKind.Earning), ignoreCase: true),
            entry.Number("amount"),
            entry.Number("percent"),
            entry.Values.GetValueOrDefault("of") as string[],
            entry.Number("floor"),
            entry.Number("cap"),
            entry.Values.GetValueOrDefault("brackets") as PayBracket[],
            entry.Text("basis") == "period" ? BracketBasis.Period : BracketBasis.Annual,
            entry.Text("formula")
        );

    /// <summary>Whether it stands for the base pay of those it is paid to.</summary>
    public static bool StandsForBasePay(EntryContent entry) => entry.Text("stands_for") == BasePay;

    /// <summary>Whether it is paid to a pay group on a day.</summary>
    public static bool IsPaid(EntryContent entry, string group, LocalDate day) =>
        (Groups(entry) is not { Length: > 0 } groups || groups.Contains(group)) && !(Day(entry, "paid_from") > day) && !(Day(entry, "paid_to") < day);

    /// <summary>
    /// What makes up the pay of somebody. Components that are not paid to their group on the day come to nothing, so that those which are worked
    /// out from them still can be.
    /// </summary>
    /// <param name="entries">All pay components of the firm that are in use.</param>
    /// <param name="group">The code of their pay group.</param>
    /// <param name="day">The day that says which components hold.</param>
    /// <param name="elements">What their record says they are paid beside their base pay.</param>
    /// <returns>Null where no component stands for base pay, or for an element that there is.</returns>
    public static PaidComponents? Of(IReadOnlyList<EntryContent> entries, string group, LocalDate day, IReadOnlyList<PaidElement> elements)
    {
        if (StandingFor(BasePay) is not { } based)
            return null;
        var standing = Standing.ToDictionary(s => s.Key, s => StandingFor(s.Value));
        if (elements.Any(e => standing[e.Element.Kind] is null))
            return null;
        var components = PayPreview.InReadingOrder([
            .. entries.Select(e => IsPaid(e, group, day) && !IsStated(e) ? Component(e) : PayComponent.Fixed(Component(e), 0)),
        ]);
        return new PaidComponents(based, [.. elements.Select(e => (standing[e.Element.Kind]!, e))], components);

        string? StandingFor(string what) => entries.FirstOrDefault(e => e.Text("stands_for") == what && IsPaid(e, group, day))?.Code;
    }

    // What each record says; the list has only an example of it.
    private static bool IsStated(EntryContent entry) => entry.Values.ContainsKey("stands_for");

    /// <summary>Whether there is a pay group, and a day, to which both are paid.</summary>
    internal static bool MeetInGroup(EntryContent one, EntryContent other)
    {
        var (ones, others) = (Groups(one), Groups(other));
        return (ones.Length == 0 || others.Length == 0 || ones.Intersect(others, StringComparer.Ordinal).Any())
            && !(Day(one, "paid_from") > Day(other, "paid_to"))
            && !(Day(other, "paid_from") > Day(one, "paid_to"));
    }

    private static string[] Groups(EntryContent entry) => entry.Values.GetValueOrDefault("groups") as string[] ?? [];

    private static LocalDate? Day(EntryContent entry, string column) => entry.Text(column) is { } text ? LocalDatePattern.Iso.Parse(text).Value : null;
}
