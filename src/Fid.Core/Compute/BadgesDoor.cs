using System.Text.Json;
using Fid.Core.Clock;

namespace Fid.Core.Compute;

/// <summary>`clock.badges`: conflicts between badge assignments.</summary>
internal static class BadgesDoor
{
    private static readonly Shape Question = new("assignments", "restDays");
    private static readonly Shape Assignment = new("id", "badge", "group", "person", "from", "to?");

    private static readonly Choices<BadgeConflictKind> Kinds = new(
        ("overlap", BadgeConflictKind.Overlap), ("tooSoon", BadgeConflictKind.TooSoon), ("twoBadges", BadgeConflictKind.TwoBadges));

    public static void Answer(Node question, Utf8JsonWriter writer)
    {
        var o = question.Object(Question);
        var assignments = o.Items("assignments", Read);
        var restDays = o.Whole("restDays", 0, 100_000);
        if (question.Problems.Count > 0 || Badges.Check(assignments, restDays).Take(question) is not { } conflicts) return;
        writer.WriteStartObject();
        writer.WriteStartArray("conflicts");
        foreach (var conflict in conflicts)
        {
            writer.WriteStartObject();
            writer.WriteString("code", Kinds.Word(conflict.Kind));
            if (conflict.Badge is not null) writer.WriteString("badge", conflict.Badge);
            writer.WriteStartArray("ids");
            foreach (var id in conflict.Ids) writer.WriteStringValue(id);
            writer.WriteEndArray();
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteEndObject();
    }

    private static BadgeAssignment Read(Node node)
    {
        var o = node.Object(Assignment);
        return new BadgeAssignment(o.Id("id"), o.Id("badge"), o.Id("group"), o.Id("person"), o.Date("from"), o.DateOrNull("to"));
    }
}
