using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Formulas;

namespace Fid.Core.Fields;

/// <summary>
/// Evaluates a record, in this order: rules of the fields that changed, each field set once and none that was typed; defaults of
/// empty fields and computed fields, each after what it reads; what is shown; errors; what is missing. A reader gets what follows
/// from the fields they may see: the others count as empty, so nothing of them shows, neither a value nor that there is one.
/// </summary>
public sealed class RecordEvaluation
{
    private const int Always = -1;

    private readonly FieldSet _set;
    private readonly RecordQuestion _question;
    private readonly JsonElement?[] _values;
    private readonly object?[] _facts;
    private readonly string?[] _setBy;
    private readonly bool[] _seen;
    private readonly bool[] _typed;
    private readonly FormulaFacts _reading;
    private readonly RecordRows? _rows;

    private RecordEvaluation(FieldSet set, RecordQuestion question, Func<string, object?>? around = null)
    {
        var count = set.Fields.Count;
        (_set, _question) = (set, question);
        (_values, _facts, _setBy, _seen, _typed) = (new JsonElement?[count], new object?[count], new string?[count], new bool[count], new bool[count]);
        var typed = question.Typed as ISet<string> ?? question.Typed.ToHashSet(StringComparer.Ordinal);
        for (var i = 0; i < count; i++)
        {
            var field = set.Fields[i];
            if (set.Place(field.Key) != i)
                continue;
            _seen[i] = question.Rights?.Sees(field.Key) ?? true;
            if (!_seen[i])
                continue;
            _typed[i] = typed.Contains(field.Key);
            if (field.Type == FieldType.Rows)
                PutRows(i, (_rows ??= RecordRows.Of(set, question)).AboutOf(field.Key));
            else if (question.Values.TryGetValue(field.Key, out var value) && !FieldValues.IsEmpty(value))
                Put(i, value, _typed[i] ? "typed" : null);
        }
        _reading = new FormulaFacts(
            key => set.Place(key) is var at and >= 0 ? _facts[at] : around?.Invoke(key),
            question.Today,
            question.Calendar ?? WeekdayCalendar
        );
    }

    private static WorkCalendar WeekdayCalendar { get; } = new(RestMask.TryParse("0000011", out var weekend) ? weekend : RestMask.None, []);

    /// <summary>Evaluates a record.</summary>
    public static EvaluatedRecord Of(FieldSet set, RecordQuestion question) => new RecordEvaluation(set, question).Evaluate();

    /// <summary>Evaluates a row: its columns, whose formulas read the rest of the record too.</summary>
    internal static EvaluatedRecord OfRow(FieldSet columns, RecordQuestion row, FormulaFacts record) =>
        new RecordEvaluation(columns, row, record.ValueOf).Evaluate();

    private EvaluatedRecord Evaluate()
    {
        ApplyRules();
        Fill();
        return Answer();
    }

    private void ApplyRules()
    {
        var changed = new Queue<int>(_question.Changed.Select(_set.Place).Where(p => p >= 0).Distinct());
        var settled = new HashSet<int>(changed);
        while (changed.TryDequeue(out var by))
        {
            if (!_seen[by])
                continue;
            foreach (var (set, formula) in _set.Compiled[by].OnChange)
            {
                var at = _set.Place(set);
                if (at < 0 || formula is null || !_seen[at] || _typed[at] || settled.Contains(at))
                    continue;
                var (value, trouble) = formula.Compute(_reading);
                if (trouble is not null)
                    continue;
                settled.Add(at);
                Put(at, Filled(value), $"rule:{_set.Fields[by].Key}");
                changed.Enqueue(at);
            }
        }
    }

    private void Fill()
    {
        foreach (var at in _set.FillOrder)
        {
            var (field, isComputed) = (_set.Fields[at], _set.Fields[at].Type == FieldType.Computed);
            if (!_seen[at] || (!isComputed && (_values[at] is not null || _typed[at] || _setBy[at] is not null)))
                continue;
            var value = _set.Compiled[at].Default is { } formula ? Filled(formula.Compute(_reading).Value) : field.Default!.Value;
            Put(at, value, isComputed ? "computed" : "default");
        }
    }

    // An empty text is no value.
    private static JsonElement? Filled(object? value) => RecordFunctions.IsEmpty(value) ? null : FieldValues.ToJson(value);

    private void Put(int at, JsonElement? value, string? setBy)
    {
        var empty = FieldValues.IsEmpty(value);
        if (!empty && _set.Fields[at].Sensitive)
            value = SealedText.Shown(value!.Value);
        _values[at] = empty ? null : value;
        _facts[at] = empty ? null : FieldValues.FromJson(value);
        _setBy[at] = setBy;
    }

    // To formulas, rows are the list of what they are about.
    private void PutRows(int at, IReadOnlyList<JsonElement> about)
    {
        if (about.Count == 0)
            return;
        _values[at] = JsonSerializer.SerializeToElement(about);
        _facts[at] = FieldValues.FromJson(_values[at]);
    }

    private EvaluatedRecord Answer()
    {
        var count = _set.Fields.Count;
        var now = _set.StageAt(_question.Stage);
        var later = _set.Stages.Skip(now + 1).Select(s => (Stage: s, Fields: new List<string>())).ToList();
        var (values, setBy, access) = (
            new Dictionary<string, JsonElement>(count),
            new Dictionary<string, string>(),
            new Dictionary<string, FieldAccess>(count)
        );
        var (shown, errors, missing, emptied) = (new List<string>(count), new List<FieldError>(), new List<string>(), new List<string>());
        var (filled, required) = (0, 0);
        var rows = _rows?.Evaluate(_question, _seen, _reading) ?? [];
        for (var i = 0; i < count; i++)
        {
            if (!_seen[i])
                continue;
            var (field, compiled) = (_set.Fields[i], _set.Compiled[i]);
            access[field.Key] = _question.Rights?.On(field.Key) ?? FieldAccess.Edit;
            if (_values[i] is null && _setBy[i]?.StartsWith("rule:", StringComparison.Ordinal) == true)
                emptied.Add(field.Key);
            if (_values[i] is { } value)
            {
                values[field.Key] = value;
                if (_setBy[i] is { } by)
                    setBy[field.Key] = by;
            }
            if (compiled.ShowWhen is { } showWhen && !showWhen.Holds(_reading))
                continue;
            shown.Add(field.Key);
            if (_values[i] is { } held && Misfit(i, held) is var misfit and not Fields.Misfit.None)
                errors.Add(new FieldError(field.Key, misfit));
            // What a row lacks, its field lacks.
            var lacking = LackingFrom(now, rows.GetValueOrDefault(i));
            var from = RequiredFrom(field, compiled);
            if (from <= now || lacking <= now)
            {
                required++;
                if (_values[i] is null || lacking <= now)
                    missing.Add(field.Key);
                else
                    filled++;
            }
            if ((_values[i] is null ? from : lacking) is { } coming && coming > now)
                later[coming - now - 1].Fields.Add(field.Key);
        }
        foreach (var (at, table) in rows)
            AddCells(_set.Fields[at], table, values, setBy, errors);
        for (var i = 0; i < count; i++)
            foreach (var column in _seen[i] ? _set.Compiled[i].ColumnFields : [])
                if ((_question.Rights?.On(column.Key) ?? FieldAccess.Edit) is var may and not FieldAccess.None)
                    access[column.Key] = may;
        return new EvaluatedRecord(
            values,
            setBy,
            emptied,
            access,
            shown,
            errors,
            missing,
            [.. later.Select(l => (l.Stage, (IReadOnlyList<string>)l.Fields))],
            filled,
            required
        );
    }

    // The stage from which the first of the rows lacks something, as RequiredFrom has it; null where none does.
    private static int? LackingFrom(int now, IReadOnlyList<(string Row, EvaluatedRecord Cells)>? table)
    {
        int? first = null;
        foreach (var (_, cells) in table ?? [])
        {
            if (cells.MissingNow.Count > 0)
                return now;
            for (var i = 0; i < cells.MissingLater.Count; i++)
                if (cells.MissingLater[i].Fields.Count > 0 && (first is null || now + 1 + i < first))
                    first = now + 1 + i;
        }
        return first;
    }

    private static void AddCells(
        FieldDefinition field,
        IReadOnlyList<(string Row, EvaluatedRecord Cells)> table,
        Dictionary<string, JsonElement> values,
        Dictionary<string, string> setBy,
        List<FieldError> errors
    )
    {
        foreach (var (row, cells) in table)
        {
            foreach (var (column, value) in cells.Values)
                values[At(column)] = value;
            foreach (var (column, by) in cells.SetBy)
                setBy[At(column)] = by;
            errors.AddRange(cells.Errors.Select(e => e with { Field = At(e.Field) }));

            string At(string column) => FieldAddress.Cell(field.Key, column, row).ToString();
        }
    }

    // The place of the stage from which the field is required, −1 for always; null where it is not, or its condition does not hold.
    private int? RequiredFrom(FieldDefinition field, CompiledField compiled)
    {
        if (compiled.RequiredWhen is { } condition && !condition.Holds(_reading))
            return null;
        return field.Required.Kind switch
        {
            RequirementKind.Always => Always,
            RequirementKind.From => _set.StageAt(field.Required.Stage) is var stage and >= 0 ? stage : null,
            _ => compiled.RequiredWhen is null ? null
            : _set.Stages.Count > 0 ? 0
            : Always,
        };
    }

    private Misfit Misfit(int at, JsonElement value)
    {
        var field = _set.Fields[at];
        // It was looked at when it was sealed.
        if (field.Sensitive && SealedText.IsMask(value))
            return Fields.Misfit.None;
        var parent = field.Parent is { } key && _set.Place(key) is var p and >= 0 ? _values[p] : null;
        return ValueFit.Check(
            field,
            value,
            field.List is { } list ? _question.Lists.GetValueOrDefault(list) : null,
            _set.Compiled[at].Pattern,
            parent,
            _question.Changed.Contains(field.Key)
        );
    }
}
