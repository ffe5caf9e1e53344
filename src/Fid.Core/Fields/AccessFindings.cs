namespace Fid.Core.Fields;

/// <summary>Required fields that nobody can fill or see.</summary>
internal static class AccessFindings
{
    public static void Find(ConfigurationCheck check)
    {
        var set = check.Set.Fields.SelectMany(f => f.OnChange.Where(r => r.Set != f.Key).Select(r => r.Set)).ToHashSet(StringComparer.Ordinal);
        for (var i = 0; i < check.Set.Fields.Count; i++)
        {
            var field = check.Set.Fields[i];
            if (!field.IsEverRequired || field.Type == FieldType.Computed)
                continue;
            var best = check.Question.Roles.Select(field.AccessOf).DefaultIfEmpty().Max();
            var name = ConfigurationCheck.Name(field);
            if (best != FieldAccess.Edit && field.Default is null && !set.Contains(field.Key))
                check.Add(
                    i,
                    "nobody-can-fill",
                    $"{name} must be filled, but nobody may edit it and nothing fills it by itself: records could never be complete. Let a role "
                        + "edit it, give it a default, or do not require it.",
                    part: "access"
                );
            if (best == FieldAccess.None)
                check.Add(i, "nobody-can-see", $"{name} must be filled, but no role may even see it. Let a role see it, or do not require it.", part: "access");
        }
    }
}
