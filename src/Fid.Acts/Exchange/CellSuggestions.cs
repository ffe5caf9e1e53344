using Fid.Acts.Lists;
using Fid.Core.Lists;
using Fid.Core.Texts;

namespace Fid.Acts.Exchange;

/// <summary>What was probably meant by cells that name no option and no entry.</summary>
public sealed class CellSuggestions(ListDefinition list, EntryIndex index)
{
    /// <summary>Whether a text is an entry of a list, by code or name.</summary>
    public bool IsEntry(string of, string text) => index.Find(of, text) is not null;

    /// <summary>The entry or option that is nearest to what a cell says; null where none comes near.</summary>
    public string? For(EntryProblem problem, string cell)
    {
        // Mostly somebody who only looks known: whoever does come back has a number to put there.
        if (problem.Code is "already-known" or "twice")
            return "new";
        if (list.Find(problem.Column) is not { } column)
            return null;
        if (column.Type == ColumnType.Choice)
            return Nearest.Find(cell, column.Options!.SelectMany(o => o.Label.All.Append(o.Value).Select(l => (l, o.Value))));
        if (column.List is null)
            return null;
        if (column.Type == ColumnType.Entry)
            return index.FindNearest(column.List, cell);
        // One of several: only what is unknown is replaced.
        var parts = cell.Split([';', ','], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        var nearest = parts
            .Select(p => index.Find(column.List, p) is not null || column.Type != ColumnType.Entries ? p : index.FindNearest(column.List, p))
            .ToArray();
        return column.Type == ColumnType.Entries && nearest.All(n => n is not null) ? string.Join("; ", nearest) : null;
    }
}
