using Fid.Acts.Plans;
using Fid.Acts.Rights;
using Fid.Acts.Tasks;
using Fid.Core.Checklists;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Checklists;

/// <summary>Hands the tasks of teams to their members, in teams that have it so: as soon as a task can be begun, and again where its owner has left
/// the team or gave it back.</summary>
internal sealed class TeamHandOut(FidDb db, LocalDate today)
{
    /// <summary>As the trail names it.</summary>
    public const string Action = "task.handedOut";

    private readonly List<TaskRow> _ready = [];

    /// <summary>Looks for tasks of a hire that can be begun and are a team's.</summary>
    public void Look(HireUnderWay hire, Plan plan)
    {
        for (var i = 0; i < hire.Tasks.Count; i++)
            if (plan.Tasks[i] is { Unfinished: true, CanStart: true } && HireTask.TeamOf(hire.Tasks[i].Owner) is not null)
                _ready.Add(hire.Tasks[i]);
    }

    /// <summary>Hands out what was found, as part of an act that holds the hires, and saves it.</summary>
    /// <returns>How many tasks came to somebody.</returns>
    public async Task<int> HandOutAsync(ActScope act, Author author, CancellationToken cancellation)
    {
        var ways = await WaysAsync(cancellation);
        var ready = _ready.Where(t => ways.ContainsKey(HireTask.TeamOf(t.Owner)!)).ToList();
        if (ready.Count == 0)
            return 0;
        var accounts = await AccountRoles.OfWhoSignsInAsync(db, today, cancellation);
        var inTeam = accounts.SelectMany(a => a.Teams.Select(t => (Team: t, a.Account))).ToHashSet();
        ready.RemoveAll(t => t.TakenById is { } taken && inTeam.Contains((HireTask.TeamOf(t.Owner)!, taken)));
        if (ready.Count == 0)
            return 0;
        await Locks.TeamTurnsAsync(db, cancellation);
        var last = await db.TeamTurns.ToDictionaryAsync(t => t.Team, cancellation);
        var turns = await TurnsAsync(ways, accounts, last, cancellation);
        var (gaveBack, rows) = (await GaveBackAsync(ready, cancellation), await RowsAsync(ready, cancellation));
        var count = 0;
        foreach (var task in ready)
        {
            var (team, row) = (HireTask.TeamOf(task.Owner)!, rows[(task.HireId, task.Key)]);
            row.TakenById = turns[team].Next([.. gaveBack[(task.HireId, task.Key)]]);
            if (TaskFacts.OfChange(db, row) is not { } facts)
                continue;
            act.Note(author.Change(Action, row.HireId, row.Key) with { Details = facts.Write() });
            count++;
        }
        foreach (var (team, turn) in turns)
        {
            if (turn.Last is not { } now)
                continue;
            if (last.TryGetValue(team, out var before))
                before.AccountId = now;
            else
                db.TeamTurns.Add(new TeamTurn { Team = team, AccountId = now });
        }
        await db.SaveChangesAsync(cancellation);
        return count;
    }

    // The teams that hand out, and how.
    private async Task<Dictionary<string, HandOut>> WaysAsync(CancellationToken cancellation) =>
        _ready.Count == 0
            ? []
            : (await db.ListEntries.AsNoTracking().Where(e => e.List == "teams").ToListAsync(cancellation))
                .Select(e =>
                    (e.Code, Way: Enum.TryParse<HandOut>(e.Content().Values.GetValueOrDefault("hand_out") as string, true, out var way) ? way : default)
                )
                .Where(t => t.Way != HandOut.Whoever)
                .ToDictionary(t => t.Code, t => t.Way, StringComparer.Ordinal);

    private async Task<Dictionary<string, TeamTurns>> TurnsAsync(
        Dictionary<string, HandOut> ways,
        List<AccountRoles> accounts,
        Dictionary<string, TeamTurn> last,
        CancellationToken cancellation
    )
    {
        var away = (await db.AccountAbsences.Where(a => a.From <= today && a.To >= today).Select(a => a.AccountId).ToListAsync(cancellation)).ToHashSet();
        var open = await db
            .HireTasks.Where(t => t.TakenById != null && t.Done == null && t.SkippedWhy == null && db.Hires.Any(h => h.Id == t.HireId && h.Closed == null))
            .GroupBy(t => t.TakenById!.Value)
            .Select(g => new { Account = g.Key, Open = g.Count() })
            .ToDictionaryAsync(g => g.Account, g => g.Open, cancellation);
        return ways.ToDictionary(
            w => w.Key,
            w => new TeamTurns(
                w.Value,
                [
                    .. accounts
                        .Where(a => a.Teams.Contains(w.Key))
                        .Select(a => new TeamMember(a.Account, open.GetValueOrDefault(a.Account), !away.Contains(a.Account))),
                ],
                last.GetValueOrDefault(w.Key)?.AccountId
            ),
            StringComparer.Ordinal
        );
    }

    private async Task<ILookup<(Guid, string), Guid>> GaveBackAsync(List<TaskRow> tasks, CancellationToken cancellation)
    {
        var hires = tasks.Select(t => t.HireId).Distinct().ToArray();
        return (
            await db
                .Changes.AsNoTracking()
                .Where(c => hires.Contains(c.SubjectId) && c.Action == TakeTasks.GivenBack && c.Part != null && c.ById != null)
                .Select(c => new
                {
                    c.SubjectId,
                    c.Part,
                    c.ById,
                })
                .ToListAsync(cancellation)
        ).ToLookup(c => (c.SubjectId, c.Part!), c => c.ById!.Value);
    }

    private async Task<Dictionary<(Guid, string), HireTask>> RowsAsync(List<TaskRow> tasks, CancellationToken cancellation)
    {
        var (hires, keys) = (tasks.Select(t => t.HireId).Distinct().ToArray(), tasks.Select(t => t.Key).Distinct().ToArray());
        var rows = await db.HireTasks.Where(t => hires.Contains(t.HireId) && keys.Contains(t.Key)).ToListAsync(cancellation);
        return rows.ToDictionary(t => (t.HireId, t.Key));
    }
}
