namespace Fid.Core.Fields;

/// <summary>What somebody may do with each field of one record, and with each column of its rows. A column gives no more than its rows, and
/// nobody edits what is computed.</summary>
public sealed class FieldRights
{
    private static readonly FieldRights Nothing = new(new Dictionary<string, FieldAccess>(StringComparer.Ordinal));

    private readonly Dictionary<string, FieldAccess> _access;

    // Of the columns of each field of rows, by their keys within the rows.
    private readonly Dictionary<string, FieldRights> _within = new(StringComparer.Ordinal);

    private FieldRights(Dictionary<string, FieldAccess> access) => _access = access;

    /// <summary>What is given of each field of a set.</summary>
    /// <param name="set">The fields. Of any other nothing may be done.</param>
    /// <param name="given">What is given of a field, or of a column as a field of the record.</param>
    public static FieldRights Of(FieldSet set, Func<FieldDefinition, FieldAccess> given)
    {
        var rights = new FieldRights(new Dictionary<string, FieldAccess>(set.Fields.Count, StringComparer.Ordinal));
        foreach (var (field, columns) in set.Compiled.Select(c => (c.Field, c.ColumnFields)))
        {
            var access = AtMost(field, given(field));
            if (!rights._access.TryAdd(field.Key, access) || columns.Count == 0)
                continue;
            var within = new Dictionary<string, FieldAccess>(columns.Count, StringComparer.Ordinal);
            foreach (var column in columns)
            {
                var may = (FieldAccess)Math.Min((int)access, (int)AtMost(column, given(column)));
                rights._access.TryAdd(column.Key, may);
                within.TryAdd(FieldAddress.Read(column.Key).Column!, may);
            }
            rights._within[field.Key] = new FieldRights(within);
        }
        return rights;
    }

    /// <summary>What the fields themselves give to somebody with certain roles: of each field the most that one of the roles has.</summary>
    public static FieldRights OfRoles(FieldSet set, IReadOnlyCollection<string> roles) => Of(set, f => f.AccessOf(roles));

    /// <summary>What may be done with the field that holds the value at an address.</summary>
    public FieldAccess On(string address) => _access.GetValueOrDefault(FieldAddress.FieldOf(address));

    /// <summary>Whether the value at an address may be seen.</summary>
    public bool Sees(string address) => On(address) != FieldAccess.None;

    /// <summary>Whether the value at an address may be changed.</summary>
    public bool MayEdit(string address) => On(address) == FieldAccess.Edit;

    /// <summary>The rights by which what is asked for is entered: what may be asked for counts as if it might be changed.</summary>
    public FieldRights ForAsking()
    {
        var raised = new FieldRights(_access.ToDictionary(a => a.Key, a => a.Value == FieldAccess.Ask ? FieldAccess.Edit : a.Value, StringComparer.Ordinal));
        foreach (var (rows, columns) in _within)
            raised._within[rows] = columns.ForAsking();
        return raised;
    }

    /// <summary>What may be done with the columns of a field of rows, by their keys within the rows.</summary>
    internal FieldRights Within(string rows) => _within.GetValueOrDefault(rows, Nothing);

    private static FieldAccess AtMost(FieldDefinition field, FieldAccess access) =>
        field.Type == FieldType.Computed && access > FieldAccess.View ? FieldAccess.View : access;
}
