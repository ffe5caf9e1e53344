using System.Runtime.CompilerServices;
using Fid.Acts.Tasks;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Fid.Acts;

/// <summary>
/// The locks that acts take, each to the end of its transaction. They are taken in the order of <see cref="LockLevel"/>, so that two
/// acts never wait for each other: one that would go back throws, whether or not anybody else is there.
/// </summary>
public static class Locks
{
    private static readonly ConditionalWeakTable<IDbContextTransaction, Held> OfTransactions = [];

    /// <summary>One at a time saves, publishes or throws away the draft of the fields.</summary>
    public static Task FieldDraftAsync(FidDb db, CancellationToken cancellation) => AloneAsync(db, LockLevel.FieldDraft, 0xF1E1D5, cancellation);

    /// <summary>One at a time saves, publishes or throws away the draft of roles and groups.</summary>
    public static Task RightsDraftAsync(FidDb db, CancellationToken cancellation) => AloneAsync(db, LockLevel.RightsDraft, 0x819475, cancellation);

    /// <summary>One at a time publishes templates.</summary>
    public static Task TemplatesAsync(FidDb db, CancellationToken cancellation) => AloneAsync(db, LockLevel.Templates, 0x7E4B1A7E, cancellation);

    /// <summary>One at a time undoes a run of template updates.</summary>
    public static Task UpdateRunAsync(FidDb db, Guid run, CancellationToken cancellation)
    {
        Take(db, LockLevel.UpdateRun, run.ToString());
        return WaitAsync(db, $"select 1 from template_update_runs where id = {run} for update", cancellation);
    }

    /// <summary>One at a time takes in what the recruiting feed says.</summary>
    public static Task FeedAsync(FidDb db, CancellationToken cancellation) => AloneAsync(db, LockLevel.Feed, 0x1A7ABE, cancellation);

    /// <summary>One at a time writes a day's reminders, or says when they go out.</summary>
    public static Task RemindersAsync(FidDb db, CancellationToken cancellation) => AloneAsync(db, LockLevel.Reminders, 0x4E314D, cancellation);

    /// <summary>One at a time changes a text that goes out by mail.</summary>
    public static Task MailTextsAsync(FidDb db, CancellationToken cancellation) => AloneAsync(db, LockLevel.MailTexts, 0x3A117E, cancellation);

    /// <summary>Keeps others from writing to a list, and from deleting entries of any.</summary>
    public static Task ListAsync(FidDb db, string list, CancellationToken cancellation)
    {
        Take(db, LockLevel.List, list);
        return WaitAsync(
            db,
            $"select pg_advisory_xact_lock_shared(hashtext('list-deletes')), pg_advisory_xact_lock(hashtext('list:' || {list}))",
            cancellation
        );
    }

    /// <summary>Keeps others from writing to any list: the user who deletes entries does so alone, else one could go while somebody refers to it.</summary>
    public static Task ListForDeletingAsync(FidDb db, string list, CancellationToken cancellation)
    {
        Take(db, LockLevel.List, list);
        return WaitAsync(db, $"select pg_advisory_xact_lock(hashtext('list-deletes')), pg_advisory_xact_lock(hashtext('list:' || {list}))", cancellation);
    }

    /// <summary>One at a time decides on a request, or says something of it.</summary>
    public static Task RequestAsync(FidDb db, Guid request, CancellationToken cancellation)
    {
        Take(db, LockLevel.Request, request.ToString());
        return WaitAsync(db, $"select 1 from record_requests where id = {request} for update", cancellation);
    }

    /// <summary>Lets one save of each record at a time through: what is read of it then stays. Those of several are taken together.</summary>
    public static Task RecordsAsync(FidDb db, IEnumerable<Guid> employments, CancellationToken cancellation)
    {
        var ids = employments.Distinct().ToArray();
        foreach (var id in ids)
            Take(db, LockLevel.Record, id.ToString());
        return ids.Length == 0
            ? Task.CompletedTask
            : WaitAsync(db, $"select 1 from records_now where employment_id = any({ids}) order by employment_id for update", cancellation);
    }

    /// <summary>The same of one record.</summary>
    public static Task RecordAsync(FidDb db, Guid employment, CancellationToken cancellation) => RecordsAsync(db, [employment], cancellation);

    /// <summary>Keeps others from closing hires, and from changing their tasks. Those of several are taken together.</summary>
    public static Task HiresAsync(FidDb db, IReadOnlyCollection<Guid> hires, CancellationToken cancellation)
    {
        foreach (var hire in hires)
            Take(db, LockLevel.Hire, hire.ToString());
        var ids = hires.ToArray();
        return WaitAsync(db, $"select 1 from hires where id = any({ids}) order by id for update", cancellation);
    }

    /// <summary>Keeps hires from being closed meanwhile, and others from changing some of their tasks. Those of several are taken together.</summary>
    public static async Task TasksAsync(FidDb db, IReadOnlyCollection<TaskRef> tasks, CancellationToken cancellation)
    {
        foreach (var task in tasks)
            Take(db, LockLevel.Task, $"{task.Hire} {task.Key}");
        var (hires, keys) = (tasks.Select(t => t.Hire).ToArray(), tasks.Select(t => t.Key).ToArray());
        await WaitAsync(db, $"select 1 from hires where id = any({hires}) order by id for share", cancellation);
        await WaitAsync(
            db,
            $"""
            select 1 from hire_tasks t join unnest({hires}, {keys}) w(hire, key) on t.hire_id = w.hire and t.key = w.key
              order by t.hire_id, t.key for update of t
            """,
            cancellation
        );
    }

    /// <summary>One at a time begins the checklists of pay runs, or settles a task of one.</summary>
    public static Task RunChecklistsAsync(FidDb db, CancellationToken cancellation) => AloneAsync(db, LockLevel.RunChecklists, 0x9A74C4, cancellation);

    /// <summary>One at a time hands out the tasks of teams.</summary>
    public static Task TeamTurnsAsync(FidDb db, CancellationToken cancellation) => AloneAsync(db, LockLevel.TeamTurns, 0x7EA4, cancellation);

    /// <summary>Keeps others from taking the next free badge.</summary>
    public static Task BadgesAsync(FidDb db, CancellationToken cancellation) => AloneAsync(db, LockLevel.Badges, 0x0BAD6E, cancellation);

    /// <summary>Lets those who enter values into the same unique fields come one after the other.</summary>
    public static async Task UniqueValuesAsync(FidDb db, IEnumerable<string> fields, CancellationToken cancellation)
    {
        foreach (var field in fields.Distinct().Order(StringComparer.Ordinal))
        {
            Take(db, LockLevel.UniqueValues, field);
            await WaitAsync(db, $"select pg_advisory_xact_lock(hashtextextended({"unique " + field}, 0))", cancellation);
        }
    }

    /// <summary>One at a time changes who may sign in: of two administrators, both of whom disable the other, one stays.</summary>
    public static Task AccountsAsync(FidDb db, CancellationToken cancellation) => AloneAsync(db, LockLevel.Accounts, 0xACC0, cancellation);

    /// <summary>Keeps list entries from being deleted.</summary>
    /// <param name="entries">The keys of lists, and codes.</param>
    /// <returns>How many of them there are.</returns>
    public static async Task<int> EntriesAsync(FidDb db, IReadOnlyCollection<(string List, string Code)> entries, CancellationToken cancellation)
    {
        // Also where there are none: what is locked after them may not be before others.
        Take(db, LockLevel.Entries, "");
        if (entries.Count == 0)
            return 0;
        var (lists, codes) = (entries.Select(e => e.List).ToArray(), entries.Select(e => e.Code.ToLowerInvariant()).ToArray());
        return (await InTurnAsync(db, () => db
                    .Database.SqlQuery<int>(
                        $"""
                        select 1 as "Value" from list_entries e join unnest({lists}, {codes}) w(list, code) on e.list = w.list and lower(e.code) = w.code
                          for key share of e
                        """
                    )
                    .ToListAsync(cancellation))).Count;
    }

    /// <summary>Waits until nobody refers to an entry any more who is not done yet, and keeps others from it.</summary>
    public static Task EntryAloneAsync(FidDb db, Guid entry, CancellationToken cancellation)
    {
        Take(db, LockLevel.Entries, "");
        return WaitAsync(db, $"select 1 from list_entries where id = {entry} for update", cancellation);
    }

    /// <summary>Says that employee numbers are counted up from here on, which holds the counter.</summary>
    public static void Numbers(FidDb db) => Take(db, LockLevel.Numbers, "");

    private static Task<int> AloneAsync(FidDb db, LockLevel level, long key, CancellationToken cancellation)
    {
        Take(db, level, "");
        return WaitAsync(db, $"select pg_advisory_xact_lock({key})", cancellation);
    }

    private static Task<int> WaitAsync(FidDb db, FormattableString sql, CancellationToken cancellation) =>
        InTurnAsync(db, () => db.Database.ExecuteSqlAsync(sql, cancellation));

    /// <summary>Waits for others who are at the same. The database answers meanwhile: it is given more time than one that does not.</summary>
    internal static async Task<T> InTurnAsync<T>(FidDb db, Func<Task<T>> take)
    {
        if (db.Database.GetCommandTimeout() is not null)
            return await take();
        db.Database.SetCommandTimeout(FidDatabase.LongestTurn);
        try
        {
            return await take();
        }
        finally
        {
            db.Database.SetCommandTimeout((int?)null);
        }
    }

    private static void Take(FidDb db, LockLevel level, string key)
    {
        var transaction = db.Database.CurrentTransaction ?? throw new InvalidOperationException("A lock ends with a transaction, and there is none.");
        var held = OfTransactions.GetOrCreateValue(transaction);
        if (level < held.Highest && !held.Keys.Contains((level, key)))
            throw new InvalidOperationException($"{level} {key} is locked after {held.Highest}: take it before, in the order of {nameof(LockLevel)}.");
        held.Highest = level > held.Highest ? level : held.Highest;
        held.Keys.Add((level, key));
    }

    private sealed class Held
    {
        public LockLevel Highest { get; set; }

        public HashSet<(LockLevel, string)> Keys { get; } = [];
    }
}

/// <summary>What is locked, in the order in which it is.</summary>
internal enum LockLevel
{
    Nothing,
    FieldDraft,
    RightsDraft,
    Templates,
    UpdateRun,
    Feed,
    Reminders,
    MailTexts,
    List,
    Request,
    Record,
    Hire,
    Task,
    RunChecklists,
    TeamTurns,
    Badges,
    UniqueValues,
    Accounts,
    Entries,
    Numbers,
}
