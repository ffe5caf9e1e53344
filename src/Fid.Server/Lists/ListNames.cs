using System.Text.Json;
using Fid.Acts.Accounts;
using Fid.Acts.Hires;
using Fid.Acts.Plans;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Lists;

/// <summary>The names of list entries by code, for showing what records and tasks store as codes.</summary>
public sealed class ListNames
{
    private const string TaskOwners = "taskOwners";

    private readonly Dictionary<(string List, string Code), string> _names;

    private readonly HashSet<string> _emptyTeams;

    private ListNames(Dictionary<(string, string), string> names, HashSet<string> emptyTeams, bool ofPeople) =>
        (_names, _emptyTeams, OfPeople) = (names, emptyTeams, ofPeople);

    /// <summary>Whether people are called by their names; where not, by their numbers.</summary>
    public bool OfPeople { get; }

    /// <summary>Reads the names of all entries.</summary>
    /// <param name="ofPeople">Whether the user who asks may see people's names.</param>
    public static async Task<ListNames> EntriesAsync(FidDb db, CancellationToken cancellation, bool ofPeople = true)
    {
        var entries = await db
            .ListEntries.Select(e => new
            {
                e.List,
                e.Code,
                e.Name,
                e.NameDe,
            })
            .ToListAsync(cancellation);
        return new ListNames(entries.ToDictionary(e => (e.List, e.Code), e => ReaderLanguage.Choose(e.Name, e.NameDe)), [], ofPeople);
    }

    /// <summary>Reads the names of all entries, and of the people who own tasks: what looks through all tasks.</summary>
    /// <param name="ofPeople">Whether the user who asks may see people's names.</param>
    public static async Task<ListNames> LoadAsync(FidDb db, CancellationToken cancellation, bool ofPeople = true)
    {
        var names = await EntriesAsync(db, cancellation, ofPeople);
        names._emptyTeams.UnionWith(await TeamMembers.NobodyInAsync(db, cancellation));
        foreach (
            var person in await db
                .Database.SqlQuery<NamedPerson>(
                    $"""
                    select employment_id::text as code, case when {ofPeople} then trim(given_name || ' ' || family_name) else number end as name
                      from records_now r join employments e on e.id = r.employment_id
                    where employment_id in (
                      select substr(owner, 8)::uuid from hire_tasks where owner like 'person:%'
                      union select substr(contact, 8)::uuid from hire_tasks where contact like 'person:%')
                    """
                )
                .ToListAsync(cancellation)
        )
            names._names[(TaskOwners, person.Code)] = person.Name;
        return names;
    }

    /// <summary>The names of some entries only.</summary>
    public static ListNames Of(IEnumerable<(string List, string Code, string Name, string? NameDe)> entries) =>
        new(entries.ToDictionary(e => (e.List, e.Code), e => ReaderLanguage.Choose(e.Name, e.NameDe)), [], ofPeople: true);

    public string? Job(string? code) => Of("jobs", code);

    /// <summary>The name of a kind of employment; null for the usual one, which needs no saying.</summary>
    public string? Kind(string? code) => code == "permanent" ? null : Of("employmentKinds", code);

    public string? Site(string? code) => Of("sites", code);

    /// <summary>The name of the team or the person that owns a task; null when the owner is neither. A team that nobody is in says so:
    /// what it owns nobody does.</summary>
    public string? Owner(string owner) =>
        HireTask.TeamOf(owner) is { } team
            ? Of("teams", team) + (_emptyTeams.Contains(team) ? ReaderLanguage.Choose(" – nobody in it", " – niemand darin") : "")
        : HireTask.PersonOf(owner) is { } person ? Of(TaskOwners, person.ToString())
        : null;

    /// <summary>The same of a task of a hire: who changes jobs or leaves is called by their name, for they are no newcomer.</summary>
    public string? Owner(string owner, HireHead hire) => owner == OwnTasks.Newcomer && hire.Occasion != Occasion.Arrival ? hire.FullName : Owner(owner);

    /// <summary>The entry's name; its code where the list does not know it; null for no code.</summary>
    public string? Of(string list, string? code) => code is null ? null : _names.GetValueOrDefault((list, code), code);

    /// <summary>The names of the entries that a value holds, one after the other; empty where it holds none.</summary>
    public string Joined(string list, JsonElement value) => string.Join(", ", FieldValues.Texts(value).Select(code => Of(list, code)));

    /// <summary>The entry's own code for one written in other capitals; null where there is none.</summary>
    public string? Find(string list, string code) =>
        _names.ContainsKey((list, code))
            ? code
            : _names.Keys.FirstOrDefault(k => k.List == list && string.Equals(k.Code, code.Trim(), StringComparison.OrdinalIgnoreCase)).Code;

    /// <summary>The codes of the entries of whose name a word, folded, begins one.</summary>
    public string[] CodesLike(string list, string word) =>
        [.. _names.Where(n => n.Key.List == list && $" {TextRules.Fold(n.Value)}".Contains($" {word}", StringComparison.Ordinal)).Select(n => n.Key.Code)];

    private sealed record NamedPerson(string Code, string Name);
}
