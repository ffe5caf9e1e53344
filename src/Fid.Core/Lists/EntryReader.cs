namespace Fid.Core.Lists;

/// <summary>Makes an entry of what was entered, from an editor or a sheet, and says at which column something is wrong.</summary>
public static class EntryReader
{
    /// <summary>The column key of the code.</summary>
    public const string Code = "code";

    /// <summary>The column key of the name.</summary>
    public const string Name = "name";

    /// <summary>The column key of the name in German.</summary>
    public const string NameDe = "name_de";

    /// <summary>Reads an entry.</summary>
    /// <param name="list">The list it is for.</param>
    /// <param name="code">The code as entered.</param>
    /// <param name="name">The name as entered.</param>
    /// <param name="nameDe">The German name as entered; null for none.</param>
    /// <param name="valueOf">What was entered in a column.</param>
    /// <param name="find">The code of an entry of a list by its code or name, or null; <see cref="EntryCheck.People"/> stands for employee numbers.</param>
    public static ReadEntry Read(
        ListDefinition list,
        string code,
        string name,
        string? nameDe,
        Func<ListColumn, CellValue> valueOf,
        Func<string, string, string?> find
    )
    {
        var problems = new List<EntryProblem>();
        var values = new Dictionary<string, object>(list.Columns.Count, StringComparer.Ordinal);
        var cleanCode = Take(Code, EntryCheck.Code(code)) as string ?? "";
        var cleanName = Take(Name, EntryCheck.Name(name, required: true)) as string ?? "";
        var german = Take(NameDe, EntryCheck.Name(nameDe ?? "", required: false)) as string;
        foreach (var column in list.Columns)
            if (Take(column.Key, EntryCheck.Refer(column, valueOf(column), find)) is { } value)
                values[column.Key] = value;

        var content = new EntryContent(cleanCode, cleanName, german == cleanName ? null : german, values);
        var unread = problems.Select(p => p.Column).ToHashSet(StringComparer.Ordinal);
        foreach (var (column, kind, message) in ListConsistency.Within(list, content))
            if (problems.All(p => p.Column != column))
                problems.Add(new EntryProblem(column, kind, message, EntryCause.InRow(Causes.Of(column, unread, c => ListConsistency.Reads(list, c)))));
        return new ReadEntry(content, problems);

        object? Take(string column, CellValue read)
        {
            if (read.IsWrong)
                problems.Add(new EntryProblem(column, read.Code!, read.Message!));
            return read.Value;
        }
    }
}

/// <summary>An entry as it was entered.</summary>
/// <param name="Content">The entry; where there are problems, without what is wrong.</param>
/// <param name="Problems">What is wrong with it; empty for nothing.</param>
public sealed record ReadEntry(EntryContent Content, IReadOnlyList<EntryProblem> Problems);

/// <summary>What is wrong in a column of an entry.</summary>
/// <param name="Column">The column's key.</param>
/// <param name="Code">A stable word for the kind of mistake.</param>
/// <param name="Message">A sentence saying what to do.</param>
/// <param name="From">What is wrong elsewhere that this only follows from; null where it is wrong by itself.</param>
public sealed record EntryProblem(string Column, string Code, string Message, EntryCause? From = null);

/// <summary>Something wrong that something else follows from.</summary>
/// <param name="Row">The number of the row; null in an editor and for the row itself.</param>
/// <param name="Column">The column's key; null for the whole row.</param>
public sealed record EntryCause(int? Row, string? Column)
{
    /// <summary>A cause in the row itself; null for none.</summary>
    public static EntryCause? InRow(string? column) => column is null ? null : new(null, column);
}
