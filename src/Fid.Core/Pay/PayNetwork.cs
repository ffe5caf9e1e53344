using Fid.Core.Formulas;

namespace Fid.Core.Pay;

/// <summary>Which component reads which, checked: every code known, every rule whole, no ring.</summary>
internal sealed record PayNetwork(IReadOnlyList<int> Order, IReadOnlyList<NumberFormula?> Formulas)
{
    public static Result<PayNetwork> Of(IReadOnlyList<PayComponent> components)
    {
        if (components.Count > PayPreview.Most)
            return Result<PayNetwork>.Failed(new Problem("/components", "out-of-range", $"Give at most {PayPreview.Most} components."));
        var problems = new List<Problem>();
        var places = new Dictionary<string, int>(StringComparer.Ordinal);
        for (var i = 0; i < components.Count; i++)
            if (!places.TryAdd(components[i].Code, i))
                problems.Add(new Problem($"/components/{i}/code", "duplicate-code", $"The code {components[i].Code} stands twice. Give one of them another."));

        var formulas = new NumberFormula?[components.Count];
        var reads = new List<int>[components.Count];
        for (var i = 0; i < components.Count; i++)
        {
            reads[i] = [];
            var component = components[i];
            CheckRule(component, $"/components/{i}", problems);
            for (var k = 0; k < (component.Of?.Count ?? 0); k++)
                Read(i, component.Of![k], $"/components/{i}/of/{k}");
            if (component.Formula is null)
                continue;
            var formula = NumberFormula.Read(component.Formula);
            problems.AddRange(formula.Problems.Select(p => p with { Path = $"/components/{i}/formula" }));
            formulas[i] = formula.Answer;
            foreach (var name in formula.Answer?.Names ?? [])
                Read(i, name, $"/components/{i}/formula");
        }
        if (problems.Count > 0)
            return Result<PayNetwork>.Failed(problems);
        var (order, ring) = DependencySort.Sort([.. reads.Select(r => r.ToArray())]);
        if (ring is null)
            return new PayNetwork(order, formulas);
        var names = string.Join(" reads ", ring.Append(ring[0]).Select(i => components[i].Code));
        return Result<PayNetwork>.Failed(
            new Problem($"/components/{ring[0]}", "loop", $"These components read each other: {names}. Take one of the links away.")
        );

        void Read(int reader, string code, string path)
        {
            if (places.TryGetValue(code, out var at))
                reads[reader].Add(at);
            else
                problems.Add(new Problem(path, "unknown-code", $"There is no component {code}. Known: {string.Join(", ", places.Keys)}."));
        }
    }

    private static void CheckRule(PayComponent component, string path, List<Problem> problems)
    {
        if (component.Code.Length == 0)
            problems.Add(new Problem($"{path}/code", "bad-value", "A code cannot be empty."));
        var rules =
            (component.Amount is null ? 0 : 1)
            + (component.Percent is null ? 0 : 1)
            + (component.Brackets is null ? 0 : 1)
            + (component.Formula is null ? 0 : 1);
        if (rules != 1)
            problems.Add(new Problem(path, "one-rule", $"{component.Code} needs exactly one of an amount, a percentage, brackets or a formula."));
        var hasBase = component.Percent is not null || component.Brackets is not null;
        if (hasBase && component.Of is not { Count: > 0 })
            problems.Add(new Problem($"{path}/of", "missing-property", $"Say of which codes {component.Code} is worked out."));
        if (!hasBase && component.Of is not null)
            problems.Add(new Problem($"{path}/of", "unknown-property", "Only a percentage or brackets are of other codes."));
        if (!hasBase && (component.Floor is not null || component.Cap is not null))
            problems.Add(new Problem(path, "unknown-property", "Only a percentage or brackets have a floor or a cap."));
        if (component.Cap < component.Floor)
            problems.Add(new Problem($"{path}/cap", "reversed-range", "The cap lies below the floor."));
        decimal?[] figures = [component.Amount, component.Percent, component.Floor, component.Cap];
        if (figures.Any(f => f is { } figure && Math.Abs(figure) > Money.Most))
            problems.Add(new Problem(path, "out-of-range", "A figure is too large."));
        var brackets = component.Brackets ?? [];
        if (component.Brackets is { Count: 0 })
            problems.Add(new Problem($"{path}/brackets", "bad-value", "Give at least one bracket."));
        for (var i = 0; i < brackets.Count; i++)
        {
            var before = i == 0 ? 0 : brackets[i - 1].UpTo;
            if (Math.Abs(brackets[i].Percent) > 1000)
                problems.Add(new Problem($"{path}/brackets/{i}/percent", "out-of-range", "Enter a percentage from -1000 to 1000."));
            if (brackets[i].UpTo is { } end ? before is null || end <= before || end > Money.Most : i < brackets.Count - 1)
                problems.Add(new Problem($"{path}/brackets/{i}", "bad-value", "Brackets ascend, and only the last may have no end."));
        }
    }
}
