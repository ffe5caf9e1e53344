using Fid.Core.Formulas;

namespace Fid.Core.Fields;

/// <summary>Formulas that cannot be read, read what there is not, or come to what does not fit.</summary>
internal sealed class FormulaFindings
{
    private readonly ConfigurationCheck _check;
    private readonly Dictionary<string, FormulaPart> _parts = new(StringComparer.Ordinal);
    private readonly HashSet<string> _working = new(StringComparer.Ordinal);

    private FormulaFindings(ConfigurationCheck check) => _check = check;

    public static void Find(ConfigurationCheck check)
    {
        var findings = new FormulaFindings(check);
        for (var i = 0; i < check.Set.Fields.Count; i++)
            findings.Look(i);
    }

    private void Look(int at)
    {
        var (field, compiled) = (_check.Set.Fields[at], _check.Set.Compiled[at]);
        foreach (var (part, code, message, mistake) in compiled.Mistakes)
        {
            if (code != "formula-error")
                continue;
            var (suggestion, sentence) = mistake?.Function is { } unknown ? ConfigurationCheck.Meant(unknown, RecordFormula.Functions) : (null, "");
            _check.Add(at, "formula-error", $"{Where(field, part)} cannot be used. {message}{sentence}", suggestion, part, mistake?.Character);
        }
        if (field.Type == FieldType.Computed && field.DefaultFormula is null && field.Default?.Value is null)
            _check.Add(at, "formula-error", $"{ConfigurationCheck.Name(field)} is computed, but has no formula. Give it one.", part: "default/formula");
        Look(at, compiled.Default, "default/formula", field);
        Look(at, compiled.RequiredWhen, "requiredWhen", null);
        Look(at, compiled.ShowWhen, "showWhen", null);
        for (var r = 0; r < compiled.OnChange.Count; r++)
        {
            var target = _check.Set.Find(compiled.OnChange[r].Set);
            Look(at, compiled.OnChange[r].Formula, $"onChange/{r}/formula", target, isRule: true);
        }
    }

    private void Look(int at, RecordFormula? formula, string part, FieldDefinition? fills, bool isRule = false)
    {
        if (formula is null)
            return;
        var field = _check.Set.Fields[at];
        foreach (var name in formula.Names)
            if (_check.Set.Place(name) < 0)
                NameFindings.Unknown(
                    _check,
                    at,
                    "unknown-field",
                    $"{Where(field, part)} reads the field “{name}”, which there is not.",
                    name,
                    _check.Set.Fields.Select(f => f.Key),
                    part,
                    ParsedFormula.At(formula.Text, name)
                );
        var (result, clashes, compared) = FormulaTyping.Of(formula, PartOf);
        foreach (var clash in clashes)
            _check.Add(at, "formula-type", $"{Where(field, part)} does not fit together. {clash}", part: part);
        foreach (var (of, text) in compared.Distinct())
            if (OptionFindings.ValuesOf(_check, of) is { } values && !values.Contains(text))
                NameFindings.Unknown(
                    _check,
                    at,
                    "never-true",
                    $"{Where(field, part)} compares {ConfigurationCheck.Name(of)} with “{text}”, which it can never be.",
                    text,
                    values,
                    part,
                    ParsedFormula.At(formula.Text, text)
                );
        if (clashes.Count > 0)
            return;
        if (fills is null && !isRule)
        {
            if (result.Kind is not (FormulaKind.YesNo or FormulaKind.Unknown))
                _check.Add(at, "formula-type", $"{Where(field, part)} must come to true or false, such as a comparison.", part: part);
            return;
        }
        if (fills is null || fills.Type == FieldType.Computed)
            return;
        if (!Suits(fills, result))
            _check.Add(
                at,
                "formula-type",
                $"{Where(field, part)} comes to {Word(result.Kind)}, and {ConfigurationCheck.Name(fills)} holds {Holds(fills.Type)}.",
                part: part
            );
        else if (OptionFindings.ValuesOf(_check, fills) is { } options)
            foreach (var literal in (result.Literals ?? []).Distinct())
                if (!options.Contains(literal))
                    NameFindings.Unknown(
                        _check,
                        at,
                        "unknown-option",
                        $"{Where(field, part)} can come to “{literal}”, which {ConfigurationCheck.Name(fills)} does not have.",
                        literal,
                        options,
                        part,
                        ParsedFormula.At(formula.Text, literal)
                    );
    }

    // What a name comes to: by its type, and for a computed field by its formula.
    private FormulaPart PartOf(string name)
    {
        if (_parts.TryGetValue(name, out var known))
            return known;
        var place = _check.Set.Place(name);
        if (place < 0)
            return new FormulaPart(FormulaKind.Unknown);
        var field = _check.Set.Fields[place];
        if (field.Type != FieldType.Computed)
            return _parts[name] = new FormulaPart(KindOf(field.Type), field);
        if (_check.Set.Compiled[place].Default is not { } formula || !_working.Add(name))
            return new FormulaPart(FormulaKind.Unknown, field);
        var kind = FormulaTyping.Of(formula, PartOf).Result.Kind;
        _working.Remove(name);
        return _parts[name] = new FormulaPart(kind == FormulaKind.Nothing ? FormulaKind.Unknown : kind, field);
    }

    private static FormulaKind KindOf(FieldType type) =>
        type switch
        {
            FieldType.Number or FieldType.Money => FormulaKind.Number,
            FieldType.Date => FormulaKind.Date,
            FieldType.YesNo => FormulaKind.YesNo,
            FieldType.Choices or FieldType.Rows => FormulaKind.List,
            _ => FormulaKind.Text,
        };

    private static bool Suits(FieldDefinition field, FormulaPart result) =>
        result.Kind is FormulaKind.Unknown or FormulaKind.Nothing
        || KindOf(field.Type) switch
        {
            FormulaKind.Date => result.IsDate
                && (result.Kind == FormulaKind.Date || result.IsLiteral || (result.Literals ?? []).All(l => RecordFormula.IsDate(l, out _))),
            FormulaKind.Text => result.Kind == FormulaKind.Text || (result.Kind == FormulaKind.Date && field.Type is FieldType.Text or FieldType.LongText),
            var kind => kind == result.Kind,
        };

    private static string Where(FieldDefinition field, string part)
    {
        var name = ConfigurationCheck.Name(field);
        return part.Split('/')[0] switch
        {
            "default" when field.Type == FieldType.Computed => $"The formula of {name}",
            "default" => $"The default of {name}",
            "requiredWhen" => $"The condition under which {name} is required",
            "showWhen" => $"The condition under which {name} is shown",
            _ => $"A rule for changes of {name}",
        };
    }

    private static string Word(FormulaKind kind) =>
        kind switch
        {
            FormulaKind.Number => "a number",
            FormulaKind.Date => "a date",
            FormulaKind.YesNo => "true or false",
            FormulaKind.List => "a list",
            _ => "a text",
        };

    private static string Holds(FieldType type) =>
        type switch
        {
            FieldType.Number => "a number",
            FieldType.Money => "an amount",
            FieldType.Date => "a date",
            FieldType.YesNo => "yes or no",
            FieldType.Choices => "a list of options",
            _ => "a text",
        };
}
