using Fid.Core.Lists;
using Fid.Data.Exchange;
using NodaTime;

namespace Fid.Acts.Exchange;

/// <summary>What a sheet can go into: one of the firm's lists, or its people.</summary>
public abstract class ImportTarget
{
    internal const string Meanwhile = "meanwhile";

    /// <summary>How many codes <see cref="Name"/> names; one more has to be read to tell that there are more.</summary>
    protected const int MostNamed = 5;

    /// <summary>The columns a sheet can fill.</summary>
    public abstract ListDefinition Definition { get; }

    /// <summary>What says of each row of a run what it would do.</summary>
    public abstract Task<IRowChecker> CheckerAsync(ImportRun run, CellStyle style, LocalDate today, CancellationToken cancellation);

    /// <summary>What finds the entries that cells refer to.</summary>
    public abstract Task<CellSuggestions> SuggestionsAsync(CancellationToken cancellation);

    /// <summary>What a row that changes something changes.</summary>
    /// <param name="before">What was there, as its checker wrote it.</param>
    /// <param name="after">What the row says.</param>
    public abstract IEnumerable<CellDifference> Differences(string before, RowContent after);

    /// <summary>Puts the good rows of a run in, within the caller's transaction. False where what the rows were checked against
    /// has changed since: nothing is to be kept then.</summary>
    /// <param name="tell">Called with the rows done so far.</param>
    internal abstract Task<bool> ApplyAsync(ImportRun run, Actor actor, Func<int, Task> tell, CancellationToken cancellation);

    /// <summary>Takes a committed run out again, within the caller's transaction. Returns why it cannot be, with nothing done.</summary>
    internal abstract Task<string?> UndoAsync(ImportRun run, Actor actor, CancellationToken cancellation);

    /// <summary>The first few codes, as a sentence names them.</summary>
    protected static string Name(IReadOnlyCollection<string> codes) => string.Join(", ", codes.Take(MostNamed)) + (codes.Count > MostNamed ? ", …" : "");
}

/// <summary>Says of each row of a sheet what it would do. Rows are given in order, each once.</summary>
public interface IRowChecker
{
    /// <summary>Whether all rows are to be announced before the first is checked: they refer to each other, or to what is read for all of them at
    /// once.</summary>
    bool AnnouncesFirst { get; }

    /// <summary>Makes a row known, for rows of the same sheet that refer to it and for what it refers to itself.</summary>
    void Announce(string[] cells);

    /// <summary>Reads what the announced rows refer to, and no more.</summary>
    Task LoadAnnouncedAsync(CancellationToken cancellation);

    /// <summary>Works out beforehand, for several rows at once, what takes long for each.</summary>
    Task LookAheadAsync(IReadOnlyList<string[]> rows, CancellationToken cancellation) => Task.CompletedTask;

    /// <summary>What a row would do.</summary>
    ImportRow Check(int number, string[] cells);

    /// <summary>What is wrong between the rows that were good alone, by the number of the row at fault.</summary>
    IReadOnlyDictionary<int, EntryProblem[]> CheckTogether() => new Dictionary<int, EntryProblem[]>();
}

/// <summary>A cell that would change.</summary>
/// <param name="Column">The column's key.</param>
public sealed record CellDifference(string Column, string Before, string After);
