namespace Fid.Core.Fields;

/// <summary>Values in records that would no longer fit once a changed configuration is live.</summary>
internal static class StoredFindings
{
    public static void Find(ConfigurationCheck check)
    {
        if (check.Question is not { Live: { } live, Stored: { } stored })
            return;
        foreach (var before in live.DistinctBy(f => f.Key).SelectMany(f => f.WithColumns()))
        {
            if (!stored.TryGetValue(before.Key, out var values))
                continue;
            var at = check.Set.Place(FieldAddress.Read(before.Key).Whole);
            if (check.Set.Find(before.Key) is not { } after)
            {
                if (values.Values.Sum() is var lost and > 0)
                    check.Add(
                        check.Set.Fields.Count,
                        new Finding(
                            "strands-values",
                            [before.Key],
                            $"{ConfigurationCheck.Name(before)} would be gone, and {Records(lost)} a value in it. Hide it instead."
                        )
                    );
                continue;
            }
            if (after.Type == FieldType.Computed || before.Type == FieldType.Computed)
                continue;
            var stranded = values.Where(v => v.Value > 0 && Fits(check, before, before, v.Key) && !Fits(check, before, after, v.Key)).ToList();
            if (stranded.Count == 0)
                continue;
            var count = stranded.Sum(s => s.Value);
            var message =
                before.Type != after.Type
                    ? $"{ConfigurationCheck.Name(after)} would become another type, and {Records(count)} a value in it that does not fit. Add a "
                        + "new field instead, or change those values first."
                    : $"{ConfigurationCheck.Name(after)} would lose "
                        + $"{string.Join(", ", stranded.Take(5).Select(s => $"“{s.Key}”"))}{(stranded.Count > 5 ? " and more" : "")}, and "
                        + $"{Records(count)} it. Retire the option instead of removing it.";
            check.Add(at, "strands-values", message, part: before.Type != after.Type ? "type" : "options");
        }
    }

    private static bool Fits(ConfigurationCheck check, FieldDefinition before, FieldDefinition field, string text)
    {
        // The value stays as it was stored, whatever the field becomes.
        var value = ConfigurationQuestion.StoredValue(before.Type, text);
        var entries = field.List is { } list ? check.Lists.GetValueOrDefault(list) : null;
        return ValueFit.Check(field, value, field == before ? null : entries, null) is not (Misfit.Type or Misfit.Option);
    }

    private static string Records(int count) => count == 1 ? "1 active record has" : $"{count} active records have";
}
