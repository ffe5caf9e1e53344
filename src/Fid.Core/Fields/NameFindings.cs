using Fid.Core.Texts;

namespace Fid.Core.Fields;

/// <summary>Keys and labels that stand twice, and names of things there are not. Names inside formulas are looked at with them.</summary>
internal static class NameFindings
{
    public static void Find(ConfigurationCheck check)
    {
        var fields = check.Set.Fields;
        var (keys, labels) = (
            new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase),
            new Dictionary<(string Section, string Language, string Label), int>()
        );
        for (var i = 0; i < fields.Count; i++)
        {
            var field = fields[i];
            if (!keys.TryAdd(field.Key.Trim(), i))
                check.Add(i, "duplicate-key", $"Two fields have the key “{field.Key}”. Give one of them another.", part: "key");
            foreach (var (language, label) in field.Labels)
            {
                if (string.IsNullOrWhiteSpace(label))
                    continue;
                var at = (field.Section, language, TextRules.Fold(label));
                if (labels.TryGetValue(at, out var first))
                    check.Add(
                        i,
                        "duplicate-label",
                        $"Two fields of one section are called “{label.Trim()}”, so nobody can tell them apart. Call one of them something else.",
                        part: $"label/{language}",
                        alsoAbout: fields[first].Key
                    );
                else
                    labels[at] = i;
            }
            Stage(check, i);
            List(check, i);
            Parent(check, i);
            for (var r = 0; r < field.OnChange.Count; r++)
                if (check.Set.Place(field.OnChange[r].Set) < 0)
                    Unknown(
                        check,
                        i,
                        "unknown-field",
                        $"A change of {ConfigurationCheck.Name(field)} is to set the field “{field.OnChange[r].Set}”, which there is not.",
                        field.OnChange[r].Set,
                        fields.Select(f => f.Key),
                        $"onChange/{r}/set"
                    );
        }
    }

    internal static void Unknown(
        ConfigurationCheck check,
        int at,
        string code,
        string message,
        string wrong,
        IEnumerable<string> names,
        string part,
        int? character = null
    )
    {
        var (suggestion, sentence) = ConfigurationCheck.Meant(wrong, names);
        check.Add(at, code, message + sentence, suggestion, part, character);
    }

    private static void Stage(ConfigurationCheck check, int at)
    {
        var field = check.Set.Fields[at];
        if (field.Required is { Kind: RequirementKind.From, Stage: { } stage } && !check.Question.Stages.Contains(stage))
            Unknown(
                check,
                at,
                "unknown-stage",
                $"{ConfigurationCheck.Name(field)} is required from the stage “{stage}”, which there is not.",
                stage,
                check.Question.Stages,
                "required"
            );
    }

    private static void List(ConfigurationCheck check, int at)
    {
        var field = check.Set.Fields[at];
        if (field.List is { } list && !check.Lists.ContainsKey(list))
            Unknown(
                check,
                at,
                "unknown-list",
                $"{ConfigurationCheck.Name(field)} takes its entries from the list “{list}”, which there is not.",
                list,
                check.Lists.Keys,
                "list"
            );
    }

    private static void Parent(ConfigurationCheck check, int at)
    {
        var field = check.Set.Fields[at];
        if (field.Parent is not { } parent)
            return;
        var place = check.Set.Place(parent);
        if (place < 0)
            Unknown(
                check,
                at,
                "unknown-field",
                $"{ConfigurationCheck.Name(field)} is narrowed by the field “{parent}”, which there is not.",
                parent,
                check.Set.Fields.Select(f => f.Key),
                "parent"
            );
        else if (place == at)
            check.Add(at, "parent-after-child", $"{ConfigurationCheck.Name(field)} is narrowed by itself. Choose another field, or none.", part: "parent");
        else if (place > at)
            check.Add(
                at,
                "parent-after-child",
                $"{ConfigurationCheck.Name(field)} is narrowed by {ConfigurationCheck.Name(check.Set.Fields[place])}, which stands below it. "
                    + $"Move {ConfigurationCheck.Name(check.Set.Fields[place])} above it.",
                part: "parent",
                alsoAbout: parent
            );
    }
}
