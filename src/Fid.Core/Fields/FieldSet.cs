using Fid.Core.Formulas;

namespace Fid.Core.Fields;

/// <summary>The fields of a configuration with all their formulas and patterns read, once: what records are evaluated with.</summary>
public sealed class FieldSet
{
    private readonly Dictionary<string, int> _byKey = new(StringComparer.Ordinal);
    private readonly HashSet<string> _keys;
    private readonly Dictionary<string, FieldDefinition> _columns = new(StringComparer.Ordinal);
    private readonly Dictionary<string, int> _stageAt = new(StringComparer.Ordinal);

    private FieldSet(IReadOnlyList<FieldDefinition> fields, IReadOnlyList<string> stages)
    {
        (Fields, Stages) = (fields, stages);
        for (var i = 0; i < fields.Count; i++)
            _byKey.TryAdd(fields[i].Key, i);
        _keys = [.. _byKey.Keys];
        for (var i = 0; i < stages.Count; i++)
            _stageAt.TryAdd(stages[i], i);
        Compiled = [.. fields.Select(f => new CompiledField(f, stages))];
        foreach (var column in Compiled.SelectMany(c => c.ColumnFields))
            _columns.TryAdd(column.Key, column);
        HasRows = _columns.Count > 0;
        FillOrder = OrderToFill();
        CountsWorkingDays = Compiled.Any(c => c.AllFormulas.Any(f => f.Text.Contains("addWorkingDays", StringComparison.OrdinalIgnoreCase)));
    }

    /// <summary>The fields, in the order they are shown.</summary>
    public IReadOnlyList<FieldDefinition> Fields { get; }

    /// <summary>The fields, and after them the columns of those that are rows.</summary>
    public IEnumerable<FieldDefinition> FieldsAndColumns => Fields.Concat(_columns.Values);

    /// <summary>Whether a field has rows.</summary>
    public bool HasRows { get; }

    /// <summary>The keys of all fields.</summary>
    public IReadOnlyCollection<string> Keys => _keys;

    /// <summary>The stages, in order.</summary>
    public IReadOnlyList<string> Stages { get; }

    /// <summary>Whether a formula counts working days, and so needs a calendar.</summary>
    public bool CountsWorkingDays { get; }

    internal CompiledField[] Compiled { get; }

    /// <summary>Places of the fields with a default or a formula, each after those it reads. Those in a ring are left out.</summary>
    internal int[] FillOrder { get; }

    /// <summary>Reads the formulas and patterns of fields. Problems have the path to each that cannot be read.</summary>
    /// <param name="fields">The fields. Of two with one key the first counts.</param>
    /// <param name="stages">The stages, in order.</param>
    public static Result<FieldSet> Read(IReadOnlyList<FieldDefinition> fields, IReadOnlyList<string> stages)
    {
        var set = new FieldSet(fields, stages);
        var problems = set.Compiled.SelectMany((c, i) => c.AllMistakes.Select(m => new Problem($"/fields/{i}/{m.Part}", m.Code, m.Message))).ToList();
        return problems.Count > 0 ? Result<FieldSet>.Failed(problems) : set;
    }

    /// <summary>As <see cref="Read"/>, with what cannot be read left out.</summary>
    internal static FieldSet Bare(IReadOnlyList<FieldDefinition> fields, IReadOnlyList<string> stages) => new(fields, stages);

    /// <summary>The field with a key, or the column at the address of a value in a row; null for none.</summary>
    public FieldDefinition? Find(string address) =>
        _byKey.TryGetValue(address, out var at) ? Fields[at]
        : HasRows ? _columns.GetValueOrDefault(FieldAddress.FieldOf(address))
        : null;

    /// <summary>The column by which the rows of a column are known, as a field of the record; null for none.</summary>
    public string? AboutColumnOf(string key) =>
        FieldAddress.Read(key) is { Column: not null, Whole: var whole } && Find(whole)?.RowKey is { } about ? FieldAddress.ColumnKey(whole, about) : null;

    /// <summary>Whether a record holds a value at an address: a field's own, or that of a column in a row.</summary>
    public bool HoldsValue(string address) => Find(address) is { } field && field.Type != FieldType.Rows && field.IsColumn == FieldAddress.IsInRow(address);

    /// <summary>The address of what the row of a value is about; null for a value that stands alone, and in rows without a key.</summary>
    public string? AboutOf(string address) =>
        FieldAddress.Read(address) is { Row: { } row, Whole: var whole } && Find(whole)?.RowKey is { } key
            ? FieldAddress.Cell(whole, key, row).ToString()
            : null;

    /// <summary>Whether a field must be filled before the first stage is over: always or from that stage on, perhaps by its condition.</summary>
    public bool IsRequiredFirst(string key) =>
        Find(key) is { } field
        && field.Required.Kind switch
        {
            RequirementKind.Always => true,
            RequirementKind.From => Stages.Count > 0 && field.Required.Stage == Stages[0],
            _ => field.RequiredWhen is not null,
        };

    /// <summary>The fields by which a field's being shown or required is decided, those that computed ones among them read too.</summary>
    public IReadOnlyCollection<string> ConditionsRead(string key) =>
        Place(key) is var at and >= 0 ? [.. ReadBy(Compiled[at].ShowWhen, Compiled[at].RequiredWhen), .. ReadInRows(Fields[at], Compiled[at].Columns)] : [];

    // That a row is incomplete tells of the columns it needs, and of what their conditions read.
    private IEnumerable<string> ReadInRows(FieldDefinition rows, FieldSet? columns) =>
        columns is null
            ? []
            : columns
                .Keys.SelectMany(columns.ConditionsRead)
                .Concat(columns.Fields.Where(c => c.IsEverRequired).Select(c => c.Key))
                .Distinct(StringComparer.Ordinal)
                .SelectMany(name => columns.Place(name) >= 0 ? [FieldAddress.ColumnKey(rows.Key, name)] : ReadBy(name).Append(name));

    private HashSet<string> ReadBy(string name) => Place(name) is var at and >= 0 && Fields[at].Type == FieldType.Computed ? ReadBy(Compiled[at].Default) : [];

    /// <summary>The fields by which a field's being shown is decided.</summary>
    public IReadOnlyCollection<string> ReadToShow(string key) => Place(key) is var at and >= 0 ? ReadBy(Compiled[at].ShowWhen) : [];

    private HashSet<string> ReadBy(params RecordFormula?[] conditions)
    {
        var read = new HashSet<string>(StringComparer.Ordinal);
        Add(conditions);
        return read;

        void Add(params RecordFormula?[] formulas)
        {
            foreach (var name in formulas.OfType<RecordFormula>().SelectMany(f => f.Names))
                if (read.Add(name) && Place(name) is var place and >= 0 && Fields[place].Type == FieldType.Computed)
                    Add(Compiled[place].Default);
        }
    }

    /// <summary>The fields that what a field holds is worked out from or judged by: its parent, its default and conditions, and the rules that set
    /// it.</summary>
    public IEnumerable<string> Reads(string key)
    {
        if (Place(key) is not (>= 0 and var at))
            return [];
        IEnumerable<string> own = ReadBy(Compiled[at].Default, Compiled[at].RequiredWhen, Compiled[at].ShowWhen);
        var rules = Compiled.SelectMany(c => c.OnChange.Where(r => r.Set == key).SelectMany(r => (r.Formula?.Names ?? []).Prepend(c.Field.Key)));
        return [.. (Fields[at].Parent is { } parent ? own.Prepend(parent) : own).Concat(rules).Distinct(StringComparer.Ordinal)];
    }

    /// <summary>Whether a change of another field can set a field.</summary>
    public bool IsSetByRule(string key) => Fields.Any(f => f.OnChange.Any(r => r.Set == key));

    internal int Place(string key) => _byKey.GetValueOrDefault(key, -1);

    /// <summary>The place of a stage; −1 for none.</summary>
    internal int StageAt(string? stage) => stage is null ? -1 : _stageAt.GetValueOrDefault(stage, -1);

    private int[] OrderToFill()
    {
        var reads = Compiled.Select(c => c.Default is { } formula ? formula.Names.Select(Place).Where(p => p >= 0).Distinct().ToArray() : []).ToArray();
        var component = DependencySort.Components(reads);
        var ringed = Enumerable
            .Range(0, reads.Length)
            .Where(i => reads[i].Contains(i))
            .Concat(component.Select((c, i) => (c, i)).GroupBy(x => x.c, x => x.i).Where(g => g.Count() > 1).SelectMany(g => g))
            .ToHashSet();
        var (order, _) = DependencySort.Sort([.. reads.Select((r, i) => ringed.Contains(i) ? [] : r)]);
        return [.. order.Where(i => Fields[i].Default is not null && !ringed.Contains(i))];
    }
}

/// <summary>A field with its formulas and pattern read.</summary>
internal sealed class CompiledField
{
    public CompiledField(FieldDefinition field, IReadOnlyList<string> stages)
    {
        Field = field;
        if (field is { Type: FieldType.Rows, Columns: { } columns })
        {
            Columns = FieldSet.Bare([.. columns.Select(c => c with { Access = field.AccessWithin(c), Of = field.Of })], stages);
            ColumnFields = [.. field.ColumnsAsFields()];
        }
        Default = ReadFormula(field.DefaultFormula, "default/formula");
        RequiredWhen = ReadFormula(field.RequiredWhen, "requiredWhen");
        ShowWhen = ReadFormula(field.ShowWhen, "showWhen");
        OnChange = [.. field.OnChange.Select((rule, i) => (rule.Set, ReadFormula(rule.Formula, $"onChange/{i}/formula")))];
        if (field.Pattern is null)
            return;
        (Pattern, var trouble) = TextPattern.Read(field.Pattern);
        if (trouble is not null)
            Mistakes.Add(("pattern", "bad-pattern", trouble, null));
    }

    public FieldDefinition Field { get; }

    public RecordFormula? Default { get; }

    public RecordFormula? RequiredWhen { get; }

    public RecordFormula? ShowWhen { get; }

    public IReadOnlyList<(string Set, RecordFormula? Formula)> OnChange { get; }

    public TextPattern? Pattern { get; }

    /// <summary>For rows, the columns, by their keys within the rows.</summary>
    public FieldSet? Columns { get; }

    /// <summary>For rows, the columns as fields of the record; none for other fields.</summary>
    public IReadOnlyList<FieldDefinition> ColumnFields { get; } = [];

    /// <summary>All its formulas that can be read, and those of its columns.</summary>
    public IEnumerable<RecordFormula> AllFormulas => Formulas.Concat(Columns?.Compiled.SelectMany(c => c.Formulas) ?? []);

    /// <summary>The parts that cannot be read, of its columns too.</summary>
    public IEnumerable<(string Part, string Code, string Message, FormulaMistake? Formula)> AllMistakes =>
        Mistakes.Concat(Columns?.Compiled.SelectMany((c, i) => c.Mistakes.Select(m => ($"columns/{i}/{m.Part}", m.Code, m.Message, m.Formula))) ?? []);

    /// <summary>All its formulas that can be read.</summary>
    public IEnumerable<RecordFormula> Formulas => new[] { Default, RequiredWhen, ShowWhen }.Concat(OnChange.Select(r => r.Formula)).OfType<RecordFormula>();

    /// <summary>The parts that cannot be read.</summary>
    public List<(string Part, string Code, string Message, FormulaMistake? Formula)> Mistakes { get; } = [];

    private RecordFormula? ReadFormula(string? text, string part)
    {
        if (text is null)
            return null;
        var (formula, mistake) = RecordFormula.Read(text);
        if (mistake is not null)
            Mistakes.Add((part, "formula-error", mistake.Message, mistake));
        return formula;
    }
}
