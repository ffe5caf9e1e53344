using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Exchange;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Npgsql;

namespace Fid.Acts.Exchange;

/// <summary>Reads a file, matches its columns, and says of every row what it would do.</summary>
public sealed class ImportCheck(FidDb db, NpgsqlDataSource source, ImportFiles files, SheetSeals seals, ImportTargets targets)
{
    private const int Sampled = 200;
    private const int HeaderWithin = 10;
    private const int TellEvery = 2000,
        CheckedAtOnce = 250;

    /// <summary>Reads the file of a run from its beginning.</summary>
    public async Task ReadAsync(ImportRun run, LocalDate today, CancellationToken cancellation)
    {
        var file = await files.FetchAsync(run, cancellation);
        var target = await targets.OfAsync(run, cancellation);
        var first = SheetFile.Rows(Open, cancellation).Take(HeaderWithin + Sampled).ToList();
        if (first.Count == 0)
            throw new SheetException("The file is empty.");
        var header = HeaderAmong(target.Definition, first);
        run.Headers = [.. first[header].Select((h, i) => h.Trim().Length > 0 ? h.Trim() : $"({SheetWriter.Letters(i + 1)})")];
        var sample = first.Skip(header + 1).ToList();
        await MatchAsync(run, target, sample, cancellation);
        // Where somebody may be known, the answer needs a cell to stand in.
        if (run.Columns.Contains(PeopleTarget.Template) && !run.Columns.Contains(EntryReader.Code))
        {
            run.Headers = [.. run.Headers, await LanguageAsync(run, cancellation) == "de" ? "Personalnummer" : "Employee number"];
            await MatchAsync(run, target, sample, cancellation);
        }
        await CheckAsync(
            run,
            target,
            today,
            () => SheetFile.Rows(Open, cancellation).Skip(header + 1).Select((cells, i) => (i + 1, cells)),
            guess: true,
            cancellation
        );

        Stream Open() => new MemoryStream(file, writable: false);
    }

    /// <summary>Checks the rows of a run anew, as they stand now.</summary>
    public async Task CheckAgainAsync(ImportRun run, LocalDate today, CancellationToken cancellation)
    {
        var generation = run.Generation;
        await using var reading = await source.OpenConnectionAsync(cancellation);
        using var seal = seals.Of(run);
        await CheckAsync(
            run,
            await targets.OfAsync(run, cancellation),
            today,
            () => Watched(ImportRows.Cells(reading, seal, run.Id, generation), cancellation),
            guess: run.Dates is null,
            cancellation
        );
    }

    /// <summary>How the columns of a run are remembered: by the list and the headers.</summary>
    public static string MemoryKey(ImportRun run) => run.List + "\n" + string.Join('\t', run.Headers.Select(h => h.ToUpperInvariant()));

    private static IEnumerable<T> Watched<T>(IEnumerable<T> rows, CancellationToken cancellation)
    {
        foreach (var row in rows)
        {
            cancellation.ThrowIfCancellationRequested();
            yield return row;
        }
    }

    // A title may stand above the header: the header is the row that names most columns, else the first.
    private static int HeaderAmong(ListDefinition list, List<string[]> rows)
    {
        var spellings = ColumnMatcher.Spellings(list).Select(s => Bare(s.Spelling)).ToHashSet(StringComparer.Ordinal);
        var scores = rows.Take(HeaderWithin).Select(r => r.Count(c => spellings.Contains(Bare(c)))).ToArray();
        var best = scores.Max();
        return best == 0 ? 0 : Array.IndexOf(scores, best);

        static string Bare(string text) => string.Concat(text.ToLowerInvariant().Where(char.IsLetterOrDigit));
    }

    private async Task MatchAsync(ImportRun run, ImportTarget target, List<string[]> sample, CancellationToken cancellation)
    {
        // What somebody else matched may be a column that the user who sends this sheet may not see.
        if (
            await db.FindAsync<ImportMemory>([MemoryKey(run)], cancellation) is { } memory
            && memory.Columns.Length == run.Headers.Length
            && memory.Columns.All(c => c.Length == 0 || target.Definition.Takes(c))
        )
        {
            run.Columns = memory.Columns;
            run.MatchedBy = [.. memory.Columns.Select(c => c.Length > 0 ? nameof(MatchedBy.Memory) : nameof(MatchedBy.Nothing))];
            return;
        }
        var language = await LanguageAsync(run, cancellation);
        var matches = ColumnMatcher.Match(target.Definition, run.Headers, sample, (await target.SuggestionsAsync(cancellation)).IsEntry, language);
        run.Columns = [.. matches.Select(m => m.Column ?? "")];
        run.MatchedBy = [.. matches.Select(m => m.By.ToString())];
    }

    private async Task<string> LanguageAsync(ImportRun run, CancellationToken cancellation) =>
        await db.Users.Where(u => u.Id == run.ById).Select(u => u.Language).SingleOrDefaultAsync(cancellation) ?? "en";

    private async Task CheckAsync(
        ImportRun run,
        ImportTarget target,
        LocalDate today,
        Func<IEnumerable<(int Number, string[] Cells)>> rows,
        bool guess,
        CancellationToken cancellation
    )
    {
        var list = target.Definition;
        var dates = Array.FindAll(Enumerable.Range(0, run.Columns.Length).ToArray(), i => list.Find(run.Columns[i])?.Type == ColumnType.Date);
        var numbers = Array.FindAll(Enumerable.Range(0, run.Columns.Length).ToArray(), i =>
            list.Find(run.Columns[i])?.Type is ColumnType.Number or ColumnType.Whole
        );
        if (guess)
        {
            // The whole sheet has its say: the one row that tells day from month may be the last.
            var seen = new StyleGuess();
            if (dates.Length + numbers.Length > 0)
                foreach (var (_, cells) in rows())
                {
                    foreach (var i in dates)
                        if (i < cells.Length)
                            seen.SeeDate(cells[i]);
                    foreach (var i in numbers)
                        if (i < cells.Length)
                            seen.SeeNumber(cells[i]);
                }
            run.Decimal = seen.Decimal('.').ToString();
            run.AskDates = seen.DatesAreAmbiguous || seen.DatesContradict;
            run.Dates = run.AskDates ? null : seen.Dates.ToString();
        }
        var style = new CellStyle(run.Dates is { } said ? Enum.Parse<DateOrder>(said) : DateOrder.DayMonthYear, run.Decimal[0]);
        var checker = await target.CheckerAsync(run, style, today, cancellation);
        if (checker.AnnouncesFirst)
        {
            foreach (var (_, cells) in rows())
                checker.Announce(cells);
            await checker.LoadAnnouncedAsync(cancellation);
        }
        await WriteAsync(run, checker, rows, cancellation);
    }

    private async Task WriteAsync(ImportRun run, IRowChecker checker, Func<IEnumerable<(int Number, string[] Cells)>> rows, CancellationToken cancellation)
    {
        using var seal = seals.Of(run);
        var counts = new int[Enum.GetValues<RowOutcome>().Length];
        var generation = run.Generation + 1;
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var total = 0;
        await using (var writer = await ImportRows.WriterAsync(connection, cancellation))
        {
            writer.Timeout = TimeSpan.FromSeconds(FidDatabase.LongestWork);
            foreach (var some in rows().Chunk(CheckedAtOnce))
            {
                await checker.LookAheadAsync([.. some.Select(r => r.Cells)], cancellation);
                foreach (var (number, cells) in some)
                {
                    var row = checker.Check(number, cells);
                    counts[(int)row.Outcome]++;
                    ImportRows.Write(writer, seal, run.Id, generation, row);
                    if (++total % TellEvery == 0)
                        await TellAsync(source, run, total, cancellation);
                }
                cancellation.ThrowIfCancellationRequested();
            }
            await writer.CompleteAsync(cancellation);
        }
        if (checker.AnnouncesFirst)
            await RefuseTogetherAsync(run, seal, generation, checker.CheckTogether(), counts, connection, cancellation);
        await ExecuteAsync(connection, "delete from import_rows where run_id = $1 and generation < $2", cancellation, run.Id, generation);
        run.Generation = generation;
        (run.Rows, run.Done) = (total, total);
        (run.New, run.Changed, run.Same, run.Wrong, run.Ignored) = (counts[0], counts[1], counts[2], counts[3], counts[4]);
        var began = run.State.ToString();
        run.State = ImportState.Ready;
        // What has been read is kept in rows alone.
        await ExecuteAsync(connection, "delete from import_pieces where run_id = $1", cancellation, run.Id);
        // The run and its rows change in one transaction, whichever connection each came by; not where it was dropped meanwhile.
        var written = await ExecuteAsync(
            connection,
            """
            update import_runs set generation = $2, rows = $3, done = $3, "new" = $4, changed = $5, same = $6, wrong = $7, ignored = $8, state = $9,
              headers = $10, columns = $11, matched_by = $12, dates = $13, ask_dates = $14, "decimal" = $15 where id = $1 and state = $16
            """,
            cancellation,
            run.Id,
            generation,
            total,
            counts[0],
            counts[1],
            counts[2],
            counts[3],
            counts[4],
            run.State.ToString(),
            run.Headers,
            run.Columns,
            run.MatchedBy,
            (object?)run.Dates ?? DBNull.Value,
            run.AskDates,
            run.Decimal,
            began
        );
        if (written > 0)
            await transaction.CommitAsync(cancellation);
    }

    private static async Task RefuseTogetherAsync(
        ImportRun run,
        SheetSeal seal,
        int generation,
        IReadOnlyDictionary<int, EntryProblem[]> wrong,
        int[] counts,
        NpgsqlConnection connection,
        CancellationToken cancellation
    )
    {
        foreach (var (number, problems) in wrong)
        {
            await using var update = new NpgsqlCommand(
                """
                with old as (select outcome from import_rows where run_id = $1 and generation = $2 and no = $3)
                update import_rows set outcome = $4, problems = $5, entry_id = null from old
                where run_id = $1 and generation = $2 and no = $3 returning old.outcome
                """,
                connection
            )
            {
                Parameters =
                {
                    new() { Value = run.Id },
                    new() { Value = generation },
                    new() { Value = number },
                    new() { Value = (short)RowOutcome.Wrong },
                    new() { Value = seal.CloseProblems(problems)! },
                },
            };
            counts[(short)(await update.ExecuteScalarAsync(cancellation))!]--;
            counts[(int)RowOutcome.Wrong]++;
        }
    }

    /// <summary>Tells everybody who watches how many rows are done.</summary>
    internal static async Task TellAsync(NpgsqlDataSource source, ImportRun run, int done, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await ExecuteAsync(connection, "update import_runs set done = $2, rows = greatest(rows, $2) where id = $1", cancellation, run.Id, done);
    }

    private static async Task<int> ExecuteAsync(NpgsqlConnection connection, string sql, CancellationToken cancellation, params object[] values)
    {
        await using var command = new NpgsqlCommand(sql, connection) { CommandTimeout = FidDatabase.LongestWork };
        foreach (var value in values)
            command.Parameters.Add(new NpgsqlParameter { Value = value });
        return await command.ExecuteNonQueryAsync(cancellation);
    }
}
