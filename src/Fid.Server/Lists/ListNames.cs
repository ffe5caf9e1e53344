using Fid.Data;
using Fid.Server.Hires;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Lists;

/// <summary>The names of list entries by code, for showing what records and tasks store as codes.</summary>
public sealed class ListNames
{
    private readonly Dictionary<(string List, string Code), string> _names;

    private ListNames(IEnumerable<ListOption> options) => _names = options.ToDictionary(o => (o.List, o.Code), o => o.Name);

    public static async Task<ListNames> LoadAsync(FidDb db, CancellationToken cancellation) =>
        new(await ListsEndpoint.Options(db).ToListAsync(cancellation));

    public string? Job(string? code) => Of("jobs", code);

    public string? Site(string? code) => Of("sites", code);

    /// <summary>The name of the team that owns a task; null when the owner is no team.</summary>
    public string? Team(string owner) =>
        owner.StartsWith(TaskOwner.TeamPrefix, StringComparison.Ordinal) ? Of("teams", owner[TaskOwner.TeamPrefix.Length..]) : null;

    /// <summary>The entry's name; its code where the list does not know it; null for no code.</summary>
    public string? Of(string list, string? code) => code is null ? null : _names.GetValueOrDefault((list, code), code);

    public bool Has(string list, string code) => _names.ContainsKey((list, code));
}

/// <summary>An entry that can be chosen.</summary>
public sealed record ListOption(string List, string Code, string Name, bool Retired);
