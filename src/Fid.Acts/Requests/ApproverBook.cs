using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.Rights;
using Fid.Core.Approvals;
using Fid.Core.Calendars;
using Fid.Core.Fields;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.People;
using Fid.Data.Requests;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Requests;

/// <summary>
/// Who can be asked about changes of some records: all who can sign in, and the managers above those it is about. Somebody with several accounts
/// is one; a manager who cannot sign in, and whoever may not see what it is about, counts as away with nobody in their place.
/// </summary>
public sealed class ApproverBook
{
    /// <summary>What stands for those who may change the fields they are asked about: no role can be called so.</summary>
    public static ApproverChoice WhoeverMay { get; } = new(ApproverKind.Role, ":change");

    private readonly LiveFields _fields;
    private readonly LocalDate _today;
    private readonly Dictionary<string, Holder> _holders;
    private readonly Dictionary<Guid, string> _idOfAccount;
    private readonly Dictionary<Guid, (Guid Person, Guid? Manager)> _lines;
    private readonly Dictionary<Guid, Guid> _named;
    private readonly IReadOnlyDictionary<Guid, ReachTarget> _targets;

    // Of those who are away today, by account: the account of who stands in, if anybody.
    private readonly IReadOnlyDictionary<Guid, Guid?> _away;

    // By account; whose roles are the same share them.
    private readonly Dictionary<Guid, HeldRights> _rights = [];
    private readonly Dictionary<(HeldRights, ReachSet), FieldRights> _on = [];

    private ApproverBook(
        LiveFields fields,
        LocalDate today,
        List<AccountRoles> holders,
        Dictionary<Guid, string> idOfAccount,
        Dictionary<Guid, (Guid, Guid?)> lines,
        Dictionary<Guid, Guid> named,
        IReadOnlyDictionary<Guid, ReachTarget> targets,
        IReadOnlyDictionary<Guid, Guid?> away
    )
    {
        (_fields, _today, _idOfAccount, _lines, _named, _targets, _away) = (fields, today, idOfAccount, lines, named, targets, away);
        _holders = holders
            .GroupBy(h => IdOf(h.Person, h.Account))
            .ToDictionary(
                g => g.Key,
                g => new Holder([.. g], [.. g.SelectMany(h => h.AllOf(fields.Roles)).Distinct(StringComparer.Ordinal)]),
                StringComparer.Ordinal
            );
        foreach (var same in holders.GroupBy(h => string.Join(' ', h.AllOf(fields.Roles).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal))))
        {
            var held = HeldRights.Of(fields.Roles, same.Key.Split(' '));
            foreach (var holder in same)
                _rights[holder.Account] = held;
        }
    }

    /// <summary>Reads them.</summary>
    /// <param name="records">Of those it can be about.</param>
    /// <param name="askers">The accounts of those who ask, beside those who can sign in.</param>
    /// <param name="choices">How approvers are found, beside the approvals that are live.</param>
    public static async Task<ApproverBook> LoadAsync(
        FidDb db,
        LiveFields fields,
        IReadOnlyCollection<CurrentRecord> records,
        IReadOnlyCollection<Guid> askers,
        IEnumerable<string> choices,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var holders = await AccountRoles.OfWhoSignsInAsync(db, today, cancellation);
        var accounts = holders.ToDictionary(h => h.Account, h => IdOf(h.Person, h.Account));
        var others = askers.Where(a => !accounts.ContainsKey(a)).Distinct().ToArray();
        if (others.Length > 0)
            foreach (var other in await db.Users.Where(u => others.Contains(u.Id)).Select(u => new { u.Id, u.PersonId }).ToListAsync(cancellation))
                accounts[other.Id] = IdOf(other.PersonId, other.Id);
        var named = choices
            .Select(ApproverChoice.Read)
            .Concat(fields.Approvals.Rules.SelectMany(r => r.By).Select(c => (ApproverChoice?)c))
            .Select(c => c is { Kind: ApproverKind.Person, Name: var name } && Guid.TryParse(name, out var id) ? id : (Guid?)null)
            .OfType<Guid>()
            .Distinct()
            .ToArray();
        var people = await db.Employments.Where(e => named.Contains(e.Id)).ToDictionaryAsync(e => e.Id, e => e.PersonId, cancellation);
        var from = records.Select(r => r.EmploymentId).ToArray();
        var lines = await db
            .Database.SqlQuery<Line>(
                $"""
                with recursive up(id) as (select unnest({from}) union
                  select r.manager_id from up join records_now r on r.employment_id = up.id where r.manager_id is not null)
                select r.employment_id as employment, r.person_id as person, r.manager_id as manager from up join records_now r on r.employment_id = up.id
                """
            )
            .ToDictionaryAsync(l => l.Employment, l => (l.Person, l.Manager), cancellation);
        var away = await db.AccountAbsences.Where(a => a.From <= today && a.To >= today).ToDictionaryAsync(a => a.AccountId, a => a.StandInId, cancellation);
        return new ApproverBook(fields, today, holders, accounts, lines, people, await ReachTarget.LoadAsync(db, records, cancellation), away);
    }

    /// <summary>By which somebody is known here: their person, or the account of one the firm has no record of.</summary>
    public static string IdOf(Guid? person, Guid account) => (person ?? account).ToString();

    /// <summary>What somebody is called who can sign in; null for all others.</summary>
    public string? NameOf(string id) => _holders.GetValueOrDefault(id)?.Accounts[0].Name;

    /// <summary>Who would be asked, one step after the other, and about what; and the fields nobody is asked about.</summary>
    /// <param name="asked">What is asked for, with what follows from it.</param>
    /// <param name="mayNot">The addresses that whoever asks may not change: where no approval asks about one, whoever may change it is asked.</param>
    public ApprovalSteps Route(AskedChange asked, IReadOnlyCollection<string> mayNot)
    {
        var rules = _fields.Approvals.Rules.Select(r => r with { By = [.. r.By.Select(Resolved)] }).ToList();
        string[] left =
        [
            .. asked
                .Changes.Where(c => mayNot.Contains(c.Field) && !rules.Exists(r => r.Asks(c, asked.Values, _today)))
                .Select(c => c.Field)
                .Distinct(StringComparer.Ordinal),
        ];
        if (left.Length > 0)
            rules.Add(new ApprovalRule("", left, null, [WhoeverMay]));
        var route = ApprovalSteps.Of(QuestionOf(asked, left) with { Rules = rules }).Answer
            ?? throw new InvalidOperationException("The approvals cannot be worked out.");
        // Kept as the approval has it: somebody's employment stays theirs, also where their person turns out to be another.
        return route with { Steps = [.. route.Steps.Select(s => s with { Choice = AsConfigured(s) })] };

        ApproverChoice AsConfigured(ApprovalStep step) =>
            step.Choice.Kind == ApproverKind.Person
                ? _fields.Approvals.Rules.First(r => r.Id == step.Rule).By.First(by => Resolved(by) == step.Choice)
                : step.Choice;
    }

    /// <summary>Who is asked by a step as things are today: their ids, sorted.</summary>
    public IReadOnlyList<string> Who(RecordRequest request, RequestStep step, CurrentRecord record)
    {
        var asked = AskedChange.Of(request, record);
        // Whom it was given to, as long as they can decide on it.
        if (step.HandedTo is { } account && _idOfAccount.TryGetValue(account, out var id) && CanBeAsked(asked, id))
            return [id];
        return ApprovalSteps.Who(Resolved(ApproverChoice.Read(step.By)!.Value), QuestionOf(asked, step.Fields));
    }

    /// <summary>Whether somebody could be asked about a change: not who asks for it, nor whom it is about, nor who may not see it.</summary>
    public bool CanBeAsked(AskedChange asked, string id) =>
        id != _idOfAccount[asked.By] && id != asked.Record.PersonId.ToString() && _holders.TryGetValue(id, out var holder) && Sees(holder, asked);

    /// <summary>The accounts of those who could be asked about a change, each with its name.</summary>
    public IReadOnlyList<(Guid Account, string Name)> Others(AskedChange asked) =>
        [
            .. _holders
                .Where(h => CanBeAsked(asked, h.Key))
                .Select(h => h.Value.Accounts[0])
                .Select(a => (a.Account, a.Name))
                .OrderBy(a => a.Name, StringComparer.CurrentCulture),
        ];

    private ApprovalQuestion QuestionOf(AskedChange asked, IReadOnlyCollection<string> toChange)
    {
        var people = new Dictionary<string, Approver>(StringComparer.Ordinal);
        var managers = Managers(asked.Record);
        foreach (var (id, holder) in _holders)
        {
            var maySay = toChange.Count > 0 && holder.Accounts.Any(h => toChange.All(RightsOf(h, asked.Record).MayEdit));
            IReadOnlyList<string> roles = maySay ? [.. holder.Roles, WhoeverMay.Name!] : holder.Roles;
            people[id] = new Approver(id, managers.GetValueOrDefault(id), roles, AwayOf(holder, asked));
        }
        foreach (
            var id in managers.Keys.Concat(managers.Values.OfType<string>()).Concat(_named.Values.Select(p => p.ToString())).Append(_idOfAccount[asked.By])
        )
            people.TryAdd(id, new Approver(id, managers.GetValueOrDefault(id), [], Away(null)));
        return new ApprovalQuestion(
            _today,
            [.. people.Values],
            [],
            new ChangeRequest(_idOfAccount[asked.By], asked.Record.PersonId.ToString(), asked.Changes, asked.Values)
        );
    }

    // From whom it is about up, each with the next; somebody who is met twice keeps whoever came first.
    private Dictionary<string, string?> Managers(CurrentRecord record)
    {
        var managers = new Dictionary<string, string?>(StringComparer.Ordinal) { [record.PersonId.ToString()] = null };
        var (at, seen) = (record.PersonId.ToString(), new HashSet<Guid>());
        for (var next = record.ManagerId; next is { } employment && seen.Add(employment) && _lines.TryGetValue(employment, out var line); next = line.Manager)
        {
            var id = line.Person.ToString();
            if (id == at || managers.ContainsKey(id))
                continue;
            (managers[at], managers[id], at) = (id, null, id);
        }
        return managers;
    }

    private bool Sees(Holder holder, AskedChange asked) =>
        holder.Accounts.Any(h => RightsOf(h, asked.Record) is var rights && asked.Changes.All(c => rights.Sees(c.Field)));

    private FieldRights RightsOf(AccountRoles holder, CurrentRecord record)
    {
        var held = _rights[holder.Account];
        var reached = _targets[record.EmploymentId].ReachedBy(holder, _fields.Roles);
        if (!_on.TryGetValue((held, reached), out var rights))
            _on[(held, reached)] = rights = held.On(_fields.Set, reached);
        return rights;
    }

    // A person is chosen by an employment of theirs. Where there is none such any more, nobody is left, which leaves it to the administrators.
    private ApproverChoice Resolved(ApproverChoice choice) =>
        choice is not { Kind: ApproverKind.Person, Name: var name } ? choice
        : Guid.TryParse(name, out var employment) && _named.TryGetValue(employment, out var person) ? new ApproverChoice(ApproverKind.Person, person.ToString())
        : new ApproverChoice(ApproverKind.Role, $":nobody {name}");

    private Absence[] AwayOf(Holder holder, AskedChange asked)
    {
        if (!Sees(holder, asked))
            return Away(null);
        // With several accounts somebody is away when each of them says so.
        var absences = holder.Accounts.Select(h => _away.TryGetValue(h.Account, out var standIn) ? (Is: true, StandIn: standIn) : default).ToList();
        if (!absences.TrueForAll(a => a.Is))
            return [];
        // Who may not see what it is about does not stand in for it either.
        var standsIn = absences.Select(a => a.StandIn).OfType<Guid>().Where(_rights.ContainsKey).Select(a => _idOfAccount[a]);
        return Away(standsIn.FirstOrDefault(id => CanBeAsked(asked, id)));
    }

    private Absence[] Away(string? standIn) => [new Absence(_today, _today, standIn)];

    // Somebody with their accounts, by name, and the roles held with any of them.
    private sealed record Holder(AccountRoles[] Accounts, string[] Roles);

    private sealed record Line(Guid Employment, Guid Person, Guid? Manager);
}

/// <summary>A change of a record that is asked for, with the values it is decided by.</summary>
/// <param name="By">The account of who asks.</param>
/// <param name="Record">Of whose record.</param>
/// <param name="Changes">What is to change.</param>
/// <param name="Values">What the record holds; empty where nothing is decided by it.</param>
public sealed record AskedChange(Guid By, CurrentRecord Record, IReadOnlyList<RequestedChange> Changes, IReadOnlyDictionary<string, JsonElement> Values)
{
    private static readonly Dictionary<string, JsonElement> NoValues = [];

    /// <summary>What a request that waits asks for.</summary>
    public static AskedChange Of(RecordRequest request, CurrentRecord record) =>
        new(request.AskedById, record, [.. request.Changes.Select(c => RequestedChange.Of(c.Field, c.Old, c.New))], NoValues);
}
