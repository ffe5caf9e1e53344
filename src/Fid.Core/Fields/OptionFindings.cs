namespace Fid.Core.Fields;

/// <summary>Options that lead nowhere, defaults outside their own field, and patterns that cannot be used.</summary>
internal static class OptionFindings
{
    public static void Find(ConfigurationCheck check)
    {
        for (var i = 0; i < check.Set.Fields.Count; i++)
        {
            Nothing(check, i);
            Narrowing(check, i);
            Pattern(check, i);
            Default(check, i);
        }
    }

    /// <summary>The values a field can have, retired ones too; null where they are not known beforehand.</summary>
    internal static IReadOnlyCollection<string>? ValuesOf(ConfigurationCheck check, FieldDefinition field) =>
        !field.IsChosen ? null
        : field.Options is { } options ? options.Select(o => o.Value).ToList()
        : field.List is { } list ? check.Lists.GetValueOrDefault(list)
        : null;

    // Nobody could ever fill it.
    private static void Nothing(ConfigurationCheck check, int at)
    {
        var field = check.Set.Fields[at];
        if (field is { Type: FieldType.File, Accepts: [] })
            check.Add(
                at,
                "nothing-to-choose",
                $"{ConfigurationCheck.Name(field)} takes no kind of file at all. Choose at least one, or let it take any.",
                part: "accepts"
            );
        if (!field.IsChosen || field.List is not null)
            return;
        if (field.Type == FieldType.ListEntry)
            check.Add(
                at,
                "nothing-to-choose",
                $"{ConfigurationCheck.Name(field)} is an entry of a list, and does not say of which. Choose the list.",
                part: "list"
            );
        else if (field.Options is not { } options || options.All(o => o.Retired))
            check.Add(
                at,
                "nothing-to-choose",
                $"{ConfigurationCheck.Name(field)} is a choice without anything to choose. Add its options, or take them from a list.",
                part: "options"
            );
    }

    private static void Narrowing(ConfigurationCheck check, int at)
    {
        var field = check.Set.Fields[at];
        if (field.Parent is null || field.Options is not { } options || check.Set.Find(field.Parent) is not { } parent || parent == field)
            return;
        if (ValuesOf(check, parent) is not { } values)
            return;
        for (var o = 0; o < options.Count; o++)
            foreach (var within in options[o].Within ?? [])
                if (!values.Contains(within))
                    NameFindings.Unknown(
                        check,
                        at,
                        "unknown-option",
                        $"{ConfigurationCheck.Name(field)} offers “{options[o].Label("en")}” under “{within}”, which "
                            + $"{ConfigurationCheck.Name(parent)} does not have.",
                        within,
                        values,
                        $"options/{o}/within"
                    );
        var current = parent.Options is { } all ? all.Where(o => !o.Retired).Select(o => o.Value) : values;
        var barren = current.Where(v => !options.Any(o => !o.Retired && (o.Within is null || o.Within.Contains(v)))).ToList();
        if (barren.Count == 0)
            return;
        var named = string.Join(", ", barren.Select(b => $"“{parent.Options?.First(o => o.Value == b).Label("en") ?? b}”"));
        check.Add(
            at,
            "nothing-to-choose",
            $"Under {named} of {ConfigurationCheck.Name(parent)} there is nothing to choose for {ConfigurationCheck.Name(field)}. Offer at "
                + "least one option there.",
            part: "options",
            alsoAbout: parent.Key
        );
    }

    private static void Pattern(ConfigurationCheck check, int at)
    {
        var (field, compiled) = (check.Set.Fields[at], check.Set.Compiled[at]);
        if (compiled.Mistakes.FirstOrDefault(m => m.Code == "bad-pattern") is { Message: { } trouble })
            check.Add(at, "bad-pattern", $"The pattern of {ConfigurationCheck.Name(field)} cannot be used. {trouble}", part: "pattern");
        else if (field.Pattern is { } pattern && PatternAmbiguity.CanRunAway(pattern))
            check.Add(
                at,
                "bad-pattern",
                $"The pattern of {ConfigurationCheck.Name(field)} can run away: some texts could be matched in so many ways that looking at "
                    + "them never ends. Look for a repetition inside a repetition.",
                part: "pattern"
            );
    }

    private static void Default(ConfigurationCheck check, int at)
    {
        var (field, compiled) = (check.Set.Fields[at], check.Set.Compiled[at]);
        if (field.Type == FieldType.Computed || field.Default?.Value is not { } value || FieldValues.IsEmpty(value))
            return;
        var entries = field.List is { } list ? check.Lists.GetValueOrDefault(list) : null;
        var misfit = ValueFit.Check(field, value, entries, compiled.Pattern, chosenNow: true);
        if (misfit == Misfit.None)
            return;
        var why = misfit switch
        {
            Misfit.Type => "it is of another kind than the field",
            Misfit.Option => "it is none of its options",
            Misfit.Pattern => "it does not match its pattern",
            Misfit.Min => "it is below the least that is allowed",
            _ => "it is above the most that is allowed",
        };
        var shown = FieldValues.FromJson(value) is string text ? text : value.GetRawText();
        var (suggestion, sentence) = misfit == Misfit.Option && ValuesOf(check, field) is { } values ? ConfigurationCheck.Meant(shown, values) : (null, "");
        check.Add(
            at,
            "default-outside",
            $"{ConfigurationCheck.Name(field)} starts with “{shown}”, but {why}: every new record would begin with an error.{sentence}",
            suggestion,
            "default"
        );
    }
}
