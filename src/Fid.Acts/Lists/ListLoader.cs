using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Lists;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Lists;

/// <summary>Loads entries that Fid itself brings along, by the rules that hold for everybody's.</summary>
public sealed class ListLoader(FidDb db)
{
    /// <summary>Rows of comma-separated values (RFC 4180) whose header holds column keys.</summary>
    public static IReadOnlyList<IReadOnlyDictionary<string, string>> Rows(TextReader text)
    {
        using var csv = new CsvReader(text, new CsvConfiguration(CultureInfo.InvariantCulture));
        csv.Read();
        csv.ReadHeader();
        var rows = new List<IReadOnlyDictionary<string, string>>();
        while (csv.Read())
            rows.Add(csv.HeaderRecord!.ToDictionary(h => h, h => csv.GetField(h) ?? "", StringComparer.Ordinal));
        return rows;
    }

    /// <summary>Adds entries and saves them. The caller has the transaction.</summary>
    /// <returns>What is wrong, by row from 0 and column; nothing is added then.</returns>
    public async Task<IReadOnlyList<(int Row, EntryProblem Problem)>> AddAsync(
        ListDefinition list,
        IReadOnlyList<IReadOnlyDictionary<string, string>> rows,
        Author author,
        CancellationToken cancellation
    )
    {
        await Locks.ListAsync(db, list.Key, cancellation);
        var index = await EntryIndex.LoadAsync(db, list, cancellation);
        var there = (await db.ListEntries.AsNoTracking().Where(e => e.List == list.Key).ToListAsync(cancellation)).ConvertAll(e => e.Content());
        var taken = there.Select(e => e.Code).ToHashSet(StringComparer.OrdinalIgnoreCase);
        // Rows of one list may refer to each other, whichever comes first.
        foreach (var row in rows)
            index.Add(list.Key, Cell(row, EntryReader.Code).Trim(), Cell(row, EntryReader.Name), null);

        var problems = new List<(int, EntryProblem)>();
        var contents = new List<EntryContent>();
        for (var i = 0; i < rows.Count; i++)
        {
            var row = rows[i];
            var read = EntryReader.Read(
                list,
                Cell(row, EntryReader.Code),
                Cell(row, EntryReader.Name),
                Cell(row, EntryReader.NameDe),
                column => ColumnValue.FromText(column, row.TryGetValue(column.Key, out var cell) ? cell : column.Default ?? "", CellStyle.Own),
                index.Find
            );
            problems.AddRange(read.Problems.Select(p => (i, p)));
            if (!taken.Add(read.Content.Code))
                problems.Add((i, new EntryProblem(EntryReader.Code, "duplicate-code", $"The code {read.Content.Code} is taken. Choose another.")));
            contents.Add(read.Content);
        }
        if (problems.Count == 0)
            problems.AddRange(
                ListConsistency
                    .Between(list, [.. there, .. contents])
                    .Select(w => (contents.FindIndex(c => c.Code == w.Entry), new EntryProblem(w.Column, w.Code, w.Message)))
            );
        if (problems.Count > 0)
            return problems;
        foreach (var content in contents)
        {
            var entry = ListEntry.Of(list, content);
            db.ListEntries.Add(entry);
            db.Changes.Add(author.Change("list.added", entry.Id, list.Key) with { Details = ListWriter.Details(null, ListWriter.Describe(entry)) });
        }
        await db.SaveChangesAsync(cancellation);
        return [];
    }

    private static string Cell(IReadOnlyDictionary<string, string> row, string column) => row.GetValueOrDefault(column, "");
}
