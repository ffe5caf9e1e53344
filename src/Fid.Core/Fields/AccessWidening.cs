using Fid.Core.Formulas;

namespace Fid.Core.Fields;

/// <summary>
/// Finds where a configuration lets more be seen of what is guarded: fields that are sensitive, and those about pay. Whoever
/// publishes it could otherwise grant themselves a field; with this, a second person agrees first.
/// </summary>
public static class AccessWidening
{
    /// <summary>The section whose fields are guarded whether they are sensitive or not.</summary>
    public const string GuardedSection = "pay";

    /// <summary>What one configuration opens that another did not: to which roles, and by which field. A field that is new holds
    /// nothing yet, and opens nothing by itself.</summary>
    /// <param name="live">What is live.</param>
    /// <param name="draft">What is to be.</param>
    /// <param name="roles">The roles there are.</param>
    public static IReadOnlyList<WidenedAccess> Of(FieldConfiguration live, FieldConfiguration draft, IReadOnlyList<string> roles)
    {
        var before = ByKey(live);
        var after = ByKey(draft);
        var widened = new List<WidenedAccess>();
        foreach (var field in draft.Fields.SelectMany(f => f.WithColumns()))
        {
            if (!before.TryGetValue(field.Key, out var old))
                continue;
            if (!IsGuarded(old) && !IsGuarded(field))
                continue;
            var more = roles.Where(r => field.AccessOf(r) > old.AccessOf(r)).ToList();
            if (more.Count > 0)
                widened.Add(new WidenedAccess(field.Key, field.Key, more));
        }
        // A rule or a default that copies what is guarded shows it to everybody who sees the copy.
        foreach (var (field, set, formula) in draft.Fields.SelectMany(f => f.WithColumns()).SelectMany(Copies))
        {
            if (
                before.TryGetValue(field.Key, out var old)
                && Copies(old).Any(c => c.Set == set && c.Formula == formula)
                && !widened.Exists(w => w.Through == set)
            )
                continue;
            if (!after.TryGetValue(set, out var target) || RecordFormula.Read(formula).Formula is not { } read)
                continue;
            foreach (var name in read.Names)
            {
                // In a row, a name is that of a column first.
                var own = FieldAddress.ColumnKey(FieldAddress.Read(field.Key).Whole, name);
                if ((before.GetValueOrDefault(own) ?? before.GetValueOrDefault(name)) is not { } source || !IsGuarded(source))
                    continue;
                var more = roles.Where(r => target.AccessOf(r) != FieldAccess.None && source.AccessOf(r) == FieldAccess.None).ToList();
                if (more.Count > 0)
                    widened.Add(new WidenedAccess(source.Key, set, more));
            }
        }
        // Where fewer are asked, more is done by one alone.
        widened.AddRange(
            draft.Fields.SelectMany(f => f.WithColumns()).Where(f => IsGuarded(f) && AsksLess(f.Key)).Select(f => new WidenedAccess(f.Key, f.Key, []))
        );
        return [.. widened.DistinctBy(w => (w.Field, w.Through))];

        bool AsksLess(string field) =>
            live.Approvals.Any(l =>
                l.IsAbout(field) && !draft.Approvals.Any(d => d.IsAbout(field) && d.When == l.When && d.By.SequenceEqual(l.By, StringComparer.Ordinal))
            );
    }

    /// <summary>Whether a second person has to agree before more is seen of a field.</summary>
    public static bool IsGuarded(FieldDefinition field) => field.Sensitive || field.Section == GuardedSection;

    // What it writes into a field of the record; a computed field is worked out from what its reader sees, and writes nothing.
    private static IEnumerable<(FieldDefinition Field, string Set, string Formula)> Copies(FieldDefinition field)
    {
        foreach (var rule in field.OnChange)
            yield return (field, rule.Set, rule.Formula);
        if (field.Type != FieldType.Computed && field.DefaultFormula is { } formula)
            yield return (field, field.Key, formula);
    }

    private static Dictionary<string, FieldDefinition> ByKey(FieldConfiguration configuration) =>
        configuration.Fields.SelectMany(f => f.WithColumns()).DistinctBy(f => f.Key).ToDictionary(f => f.Key, StringComparer.Ordinal);
}

/// <summary>A guarded field of which more is to be seen.</summary>
/// <param name="Field">The field.</param>
/// <param name="Through">The field by which it is seen: itself, or one it is copied into.</param>
/// <param name="Roles">Who would see or edit more than now; empty where fewer would be asked about its changes.</param>
public sealed record WidenedAccess(string Field, string Through, IReadOnlyList<string> Roles);
