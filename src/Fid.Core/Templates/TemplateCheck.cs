using System.Text.Json;
using Fid.Core.Formulas;
using Fid.Core.Json;

namespace Fid.Core.Templates;

/// <summary>What is wrong with templates and add-ons, whatever the hire, and what clashes for one.</summary>
internal static class TemplateCheck
{
    /// <summary>What keeps a question from being answered at all; empty for nothing.</summary>
    public static List<Problem> Problems(TemplateQuestion question)
    {
        var problems = new List<Problem>();
        Identifiers.Index(question.Templates, t => t.Id, "/templates", problems);
        Identifiers.Index(question.AddOns, a => a.Id, "/addOns", problems);
        if (problems.Count > 0)
            return problems;

        var places = question.Templates.Select((t, i) => (t.Id, i)).ToDictionary(t => t.Id, t => t.i, StringComparer.Ordinal);
        if (!places.ContainsKey(question.Use))
            problems.Add(new Problem("/use", "unknown-template", $"There is no template {question.Use}."));
        for (var i = 0; i < question.Templates.Count; i++)
            if (question.Templates[i].BuildsOn is { } on && !places.ContainsKey(on))
                problems.Add(
                    new Problem($"/templates/{i}/buildsOn", "unknown-template", $"{question.Templates[i].Id} builds on {on}, and there is no such template.")
                );
        Rings(question, places, problems);
        if (question.Fields is { } fields)
            UnknownFields(question, fields, problems);
        if (question.Today is null)
            AskingForToday(question, problems);
        return problems;
    }

    /// <summary>What add-ons of equal order that apply to one hire set differently.</summary>
    public static IEnumerable<Problem> Clashes(TemplateQuestion question, IReadOnlyList<AddOnDefinition> applying)
    {
        foreach (var equal in applying.GroupBy(a => a.Order))
        {
            var some = equal.ToArray();
            for (var second = 1; second < some.Length; second++)
            for (var first = 0; first < second; first++)
                foreach (var (path, what) in Differences(some[first].Content, some[second].Content))
                    yield return new Problem(
                        $"/addOns/{Place(question.AddOns, some[second])}{path}",
                        "order-clash",
                        $"The add-ons {some[first].Id} and {some[second].Id} both have the order {equal.Key} and set {what} differently. Give "
                            + "one of them another order."
                    );
        }
    }

    /// <summary>The way to a value in the question.</summary>
    public static string PathOf(TemplateQuestion question, Layer layer, string field)
    {
        var template = question.Templates.ToList().FindIndex(t => ReferenceEquals(t.Content, layer.Content));
        var addOn = question.AddOns.ToList().FindIndex(a => ReferenceEquals(a.Content, layer.Content));
        var where =
            template >= 0 ? $"/templates/{template}/values"
            : addOn >= 0 ? $"/addOns/{addOn}/values"
            : "/typed";
        return $"{where}/{JsonPointer.Escape(field)}{(where == "/typed" ? "" : "/formula")}";
    }

    /// <summary>The place of a thing in its list.</summary>
    public static int Place<T>(IReadOnlyList<T> all, T one)
        where T : class
    {
        for (var i = 0; i < all.Count; i++)
            if (ReferenceEquals(all[i], one))
                return i;
        return -1;
    }

    // Each ring is told once, at the template of it that stands first.
    private static void Rings(TemplateQuestion question, Dictionary<string, int> places, List<Problem> problems)
    {
        var done = new bool[question.Templates.Count];
        for (var i = 0; i < done.Length; i++)
        {
            var way = new List<int>();
            var at = i;
            while (at >= 0 && !done[at] && !way.Contains(at))
            {
                way.Add(at);
                at = question.Templates[at].BuildsOn is { } on ? places.GetValueOrDefault(on, -1) : -1;
            }
            if (at >= 0 && !done[at])
            {
                var ring = way[way.IndexOf(at)..];
                var start = ring.IndexOf(ring.Min());
                List<int> fromFirst = [.. ring[start..], .. ring[..start], ring[start]];
                problems.Add(
                    new Problem(
                        $"/templates/{ring[start]}/buildsOn",
                        "builds-on-loop",
                        $"These templates build on each other in a ring: {string.Join(" → ", fromFirst.Select(r => question.Templates[r].Id))}. "
                            + "Let one of them build on nothing."
                    )
                );
            }
            foreach (var seen in way)
                done[seen] = true;
        }
    }

    private static void UnknownFields(TemplateQuestion question, IReadOnlySet<string> fields, List<Problem> problems)
    {
        for (var i = 0; i < question.Templates.Count; i++)
            Look(question.Templates[i].Content, $"/templates/{i}");
        for (var i = 0; i < question.AddOns.Count; i++)
        {
            Look(question.AddOns[i].Content, $"/addOns/{i}");
            if (question.AddOns[i].When is { } when)
                LookIn(when, $"/addOns/{i}/when");
        }
        foreach (var field in question.Typed.Keys.Where(f => !fields.Contains(f)))
            problems.Add(new Problem($"/typed/{JsonPointer.Escape(field)}", "unknown-field", $"There is no field {field}."));

        void Look(LayerContent content, string path)
        {
            foreach (var (field, value) in content.Values)
            {
                if (!fields.Contains(field))
                    problems.Add(new Problem($"{path}/values/{JsonPointer.Escape(field)}", "unknown-field", $"There is no field {field}."));
                if (value.Formula is { } formula)
                    LookIn(formula, $"{path}/values/{JsonPointer.Escape(field)}/formula");
            }
        }

        void LookIn(RecordFormula formula, string path)
        {
            foreach (var name in formula.Names.Where(n => !fields.Contains(n) && !question.Facts.ContainsKey(n)))
                problems.Add(new Problem(path, "unknown-field", $"The formula reads {name}, and there is neither a field nor a fact of that name."));
        }
    }

    private static void AskingForToday(TemplateQuestion question, List<Problem> problems)
    {
        for (var i = 0; i < question.Templates.Count; i++)
            Look(question.Templates[i].Content, $"/templates/{i}");
        for (var i = 0; i < question.AddOns.Count; i++)
        {
            Look(question.AddOns[i].Content, $"/addOns/{i}");
            Tell(question.AddOns[i].When, $"/addOns/{i}/when");
        }

        void Look(LayerContent content, string path)
        {
            foreach (var (field, value) in content.Values)
                Tell(value.Formula, $"{path}/values/{JsonPointer.Escape(field)}/formula");
        }

        void Tell(RecordFormula? formula, string path)
        {
            if (formula?.AsksForToday == true)
                problems.Add(new Problem(path, "formula-error", "The formula asks for today: say which day that is, as \"today\"."));
        }
    }

    private static IEnumerable<(string Path, string What)> Differences(LayerContent first, LayerContent second)
    {
        foreach (var (field, value) in second.Values)
            if (first.Values.TryGetValue(field, out var other) && !other.SameAs(value))
                yield return ($"/values/{JsonPointer.Escape(field)}", field);
        foreach (var list in TemplateLists.All)
        {
            var there = first.Entries(list).ToDictionary(e => e.Key, StringComparer.Ordinal);
            for (var i = 0; i < second.Entries(list).Count; i++)
            {
                var entry = second.Entries(list)[i];
                if (!there.TryGetValue(entry.Key, out var other))
                    continue;
                if (entry.Drop != other.Drop)
                    yield return ($"/{list}/{i}", entry.Key);
                foreach (var (name, value) in entry.Properties)
                    if (other.Properties.TryGetValue(name, out var set) && !JsonElement.DeepEquals(set, value))
                        yield return ($"/{list}/{i}/{JsonPointer.Escape(name)}", $"{name} of {entry.Key}");
            }
        }
    }
}
