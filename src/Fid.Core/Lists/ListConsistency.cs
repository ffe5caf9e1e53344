using Fid.Core.Pay;

namespace Fid.Core.Lists;

/// <summary>What must hold within one entry and between the entries of a list: trees without loops, patterns that know their shifts.</summary>
public static class ListConsistency
{
    /// <summary>What is wrong within one entry, by column.</summary>
    public static IEnumerable<(string Column, string Code, string Message)> Within(ListDefinition list, EntryContent entry)
    {
        foreach (var column in list.Columns)
            if (column.Required && !entry.Values.ContainsKey(column.Key))
                yield return (column.Key, "missing", "Fill this in.");
        switch (list.Key)
        {
            case "shiftPatterns":
                var letters = entry.Parts<ShiftEntry>("shifts").Select(s => s.Letter).ToHashSet(StringComparer.Ordinal);
                foreach (var letter in (entry.Text("cycle") ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries))
                    if (letter != Clock.ShiftCycle.Off && !letters.Contains(letter))
                    {
                        yield return (
                            "cycle",
                            "unknown-shift",
                            $"The cycle has a shift {letter} that is not described. Add it to the shifts, or paint that day anew."
                        );
                        break;
                    }
                if ((entry.Text("cycle") ?? "").Count(c => c == ' ') >= Clock.ShiftCycle.Longest)
                    yield return ("cycle", "out-of-range", $"A cycle has at most {Clock.ShiftCycle.Longest} days.");
                break;
            case "payGroups":
                if (entry.Text("every") is "week" or "fortnight" or "fourWeeks" && !entry.Values.ContainsKey("first_period_start"))
                    yield return ("first_period_start", "missing", "Say on which day the first period begins: periods counted in weeks have no other start.");
                break;
            case "payComponents":
                var rules = new[] { "amount", "percent", "brackets", "formula" }.Count(entry.Values.ContainsKey);
                if (rules != 1)
                    yield return ("amount", "one-rule", "Fill in exactly one of amount, percentage, brackets or formula.");
                var based = entry.Values.ContainsKey("percent") || entry.Values.ContainsKey("brackets");
                if (based && !entry.Values.ContainsKey("of"))
                    yield return ("of", "missing", "Say of which components this is worked out.");
                if (!based && rules == 1 && entry.Values.ContainsKey("of"))
                    yield return ("of", "bad-value", "Only a percentage or brackets are of other components. Empty this.");
                if (entry.Values.ContainsKey("stands_for") && !entry.Values.ContainsKey("amount"))
                    yield return ("stands_for", "amount-needed", "What stands for what records say has an amount, as an example. Empty this, or the rule.");
                if (entry.Values.ContainsKey("stands_for") && entry.Text("kind") is not (null or "earning"))
                    yield return ("stands_for", "earning-needed", "What records say is paid is earned. Empty this, or make it an earning.");
                if (string.CompareOrdinal(entry.Text("paid_to"), entry.Text("paid_from")) < 0 && entry.Values.ContainsKey("paid_to"))
                    yield return ("paid_to", "reversed-range", "The last day comes before the first. Swap them.");
                if (entry.Number("cap") < entry.Number("floor"))
                    yield return ("cap", "reversed-range", "The cap lies below the floor.");
                break;
        }
    }

    /// <summary>The columns that what <see cref="Within"/> says of a column is judged by.</summary>
    public static IEnumerable<string> Reads(ListDefinition list, string column) =>
        (list.Key, column) switch
        {
            ("shiftPatterns", "cycle") => ["shifts"],
            ("payGroups", "first_period_start") => ["every"],
            ("payComponents", "amount") => ["percent", "brackets", "formula"],
            ("payComponents", "of") => ["percent", "brackets", "formula"],
            ("payComponents", "cap") => ["floor"],
            ("payComponents", "stands_for") => ["amount", "kind"],
            ("payComponents", "paid_to") => ["paid_from"],
            _ => [],
        };

    /// <summary>What a change of an entry may not do: an option of a choice list that was there is retired, never taken away, since
    /// records may hold it.</summary>
    public static IEnumerable<EntryProblem> Against(ListDefinition list, EntryContent before, EntryContent after)
    {
        if (list.Key != "choiceLists")
            yield break;
        var kept = after.Parts<OptionEntry>("options").Select(o => o.Value).ToHashSet(StringComparer.Ordinal);
        if (before.Parts<OptionEntry>("options").FirstOrDefault(o => !kept.Contains(o.Value)) is { } gone)
            yield return new EntryProblem("options", "option-gone", $"The option {gone.Value} may be in use. Put it back and retire it instead.");
    }

    /// <summary>What is wrong between the entries of a list: the code of an entry, the column at fault, and what to do.</summary>
    public static IEnumerable<(string Entry, string Column, string Code, string Message)> Between(ListDefinition list, IReadOnlyList<EntryContent> entries) =>
        list.Key switch
        {
            "payComponents" => Components(entries),
            _ => list.Columns.Where(c => c.Type == ColumnType.Entry && c.List == list.Key).SelectMany(c => Tree(list, c, entries)),
        };

    private static IEnumerable<(string, string, string, string)> Components(IReadOnlyList<EntryContent> entries)
    {
        var preview = PayPreview.Of(PayPeriod.Month, [.. entries.Select(PayComponentEntry.Component)]);
        foreach (var problem in preview.Problems)
        {
            var parts = problem.Path.Split('/');
            if (parts.Length < 3 || !int.TryParse(parts[2], out var at))
                continue;
            var column =
                parts.Length > 3 ? parts[3]
                : entries[at].Values.ContainsKey("formula") ? "formula"
                : "of";
            yield return (entries[at].Code, column, problem.Code, problem.Message);
        }
        foreach (var what in PayComponentEntry.Standing.Values.Prepend(PayComponentEntry.BasePay))
        {
            var standing = entries.Where(e => e.Text("stands_for") == what).ToArray();
            for (var i = 1; i < standing.Length; i++)
                if (standing.Take(i).FirstOrDefault(e => PayComponentEntry.MeetInGroup(e, standing[i])) is { } other)
                    yield return (
                        standing[i].Code,
                        "stands_for",
                        "stands-twice",
                        $"{other.Code} stands for the same already, for one of these pay groups at one of these times. Change one of them."
                    );
        }
    }

    private static IEnumerable<(string, string, string, string)> Tree(ListDefinition list, ListColumn column, IReadOnlyList<EntryContent> entries)
    {
        var parents = entries.ToDictionary(e => e.Code, e => e.Text(column.Key), StringComparer.Ordinal);
        var depths = new Dictionary<string, int>(StringComparer.Ordinal);
        var told = new HashSet<string>(StringComparer.Ordinal);
        foreach (var entry in entries)
        {
            var path = new List<string>();
            var at = entry.Code;
            while (at is not null && !depths.ContainsKey(at) && !path.Contains(at))
            {
                path.Add(at);
                at = parents.GetValueOrDefault(at);
            }
            if (at is not null && !depths.ContainsKey(at))
            {
                var ring = path[path.IndexOf(at)..];
                foreach (var member in ring)
                    if (told.Add(member))
                        yield return (member, column.Key, "loop", $"This would close a ring: {string.Join(" → ", ring.Append(ring[0]))}. Choose another.");
                foreach (var code in path)
                    depths[code] = 1;
                continue;
            }
            var depth = at is null ? 0 : depths[at];
            for (var i = path.Count - 1; i >= 0; i--)
            {
                depths[path[i]] = ++depth;
                if (list.DeepestTree > 0 && depth > list.DeepestTree)
                    yield return (path[i], column.Key, "too-deep", $"This would be level {depth}. There are at most {list.DeepestTree}.");
            }
        }
    }
}
