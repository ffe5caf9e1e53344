using Fid.Acts.Fields;
using Fid.Acts.Lists;
using Fid.Acts.Templates;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.Lists;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.ListUse;

/// <summary>Who and what uses the entries of a list on a day or after it.</summary>
public sealed class ListUsage(FidDb db, LocalDate today)
{
    private readonly LiveFieldsLoader _fields = new(db);

    /// <summary>How many people, templates, hires under way and other entries use each entry, by code. An entry nobody uses is left out.</summary>
    public async Task<Dictionary<string, UsageCount>> CountAsync(ListDefinition list, EntryHolders holders, CancellationToken cancellation)
    {
        var fields = await FieldsOfAsync(list, cancellation);
        var people = fields.Length == 0 ? [] : await holders.CountAsync(db, fields, today, cancellation);
        var templates = await TemplatesAsync(list, cancellation);
        var entries = await EntriesAsync(list, cancellation);
        var hires = await ChecklistsAsync(list, cancellation);
        return people
            .Keys.Concat(templates.Select(t => t.Code))
            .Concat(entries.Select(e => e.Code))
            .Concat(hires.Keys)
            .Distinct(StringComparer.Ordinal)
            .ToDictionary(
                code => code,
                code => new UsageCount(
                    people.GetValueOrDefault(code),
                    templates.Count(t => t.Code == code),
                    hires.GetValueOrDefault(code),
                    entries.Count(e => e.Code == code)
                ),
                StringComparer.Ordinal
            );
    }

    /// <summary>Whether anything refers to an entry, or ever did: then it can be retired, and not deleted.</summary>
    public async Task<bool> IsReferencedAsync(ListDefinition list, string code, CancellationToken cancellation)
    {
        var fields = await FieldsOfAsync(list, cancellation);
        return await db
                .Database.SqlQuery<int>($"select 1 as \"Value\" from record_values where field = any({fields}) and value ? {code} limit 1")
                .AnyAsync(cancellation)
            || (await TemplatesAsync(list, cancellation)).Any(t => t.Code == code)
            || (await EntriesAsync(list, cancellation)).Any(e => e.Code == code)
            || (await ChecklistsAsync(list, cancellation, openOnly: false)).ContainsKey(code)
            || (await SharedAsync(list, cancellation)).Contains(code)
            || (list.Key == "teams" && await db.Users.AnyAsync(u => u.Teams.Contains(code), cancellation));
    }

    /// <summary>The codes of a list that anything refers to, or ever did, with the entries that do; null stands for a user that is
    /// no entry of a list.</summary>
    public async Task<Dictionary<string, List<(string List, string Code)?>>> ReferencedAsync(ListDefinition list, CancellationToken cancellation)
    {
        var referenced = new Dictionary<string, List<(string, string)?>>(StringComparer.Ordinal);
        var fields = await FieldsOfAsync(list, cancellation);
        foreach (
            var code in await db
                .Database.SqlQuery<string>(
                    $"""
                    select distinct code as "Value" from record_values
                    cross join lateral jsonb_array_elements_text(case jsonb_typeof(value) when 'array' then value else jsonb_build_array(value) end) code
                      where field = any({fields})
                    """
                )
                .ToListAsync(cancellation)
        )
            Add(code, null);
        foreach (var (code, _) in await TemplatesAsync(list, cancellation))
            Add(code, null);
        foreach (var code in (await ChecklistsAsync(list, cancellation, openOnly: false)).Keys)
            Add(code, null);
        foreach (var code in await SharedAsync(list, cancellation))
            Add(code, null);
        foreach (var (code, entry) in await EntriesAsync(list, cancellation))
            Add(code, (entry.List, entry.Code));
        return referenced;

        void Add(string code, (string, string)? by)
        {
            if (!referenced.TryGetValue(code, out var users))
                referenced[code] = users = [];
            users.Add(by);
        }
    }

    /// <summary>The templates that use entries, and what they use.</summary>
    public async Task<IReadOnlyList<(string Code, RoleTemplate Template)>> TemplatesAsync(ListDefinition list, CancellationToken cancellation)
    {
        var fields = await _fields.LiveAsync(cancellation);
        var templates = await db.RoleTemplates.ToListAsync(cancellation);
        return [.. templates.SelectMany(t => TemplateReferences.Of(t.Spec, list.Key, fields).Distinct(StringComparer.Ordinal).Select(code => (code, t)))];
    }

    /// <summary>The entries of this and other lists that use entries, and what they use.</summary>
    public async Task<IReadOnlyList<(string Code, ListEntry Entry)>> EntriesAsync(ListDefinition list, CancellationToken cancellation)
    {
        var users = ShippedLists.All.Where(l => l.Columns.Any(c => c.List == list.Key)).ToDictionary(l => l.Key, StringComparer.Ordinal);
        var keys = users.Keys.ToArray();
        var entries = await db.ListEntries.Where(e => keys.Contains(e.List)).ToListAsync(cancellation);
        return
        [
            .. entries.SelectMany(e =>
            {
                var content = e.Content();
                return users[e.List]
                    .Columns.Where(c => content.Values.ContainsKey(c.Key))
                    .SelectMany(c => EntryCheck.References(c, content.Values[c.Key]))
                    .Where(r => r.List == list.Key)
                    .Select(r => r.Code)
                    .Distinct(StringComparer.Ordinal)
                    .Select(code => (code, e));
            }),
        ];
    }

    /// <summary>The record fields that hold entries of a list.</summary>
    public async Task<string[]> FieldsOfAsync(ListDefinition list, CancellationToken cancellation) =>
        (await _fields.LiveAsync(cancellation)).FieldsOf(list.Key);

    // Checklists under way name teams and calendars of their own.
    private async Task<Dictionary<string, int>> ChecklistsAsync(ListDefinition list, CancellationToken cancellation, bool openOnly = true)
    {
        var tasks = db.Hires.Where(h => !openOnly || h.Closed == null).SelectMany(h => h.Tasks);
        var ofRuns = db.RunTasks.Where(t => !openOnly || (t.Done == null && t.SkippedWhy == null));
        if (list.Key == "calendars")
            return await tasks
                .Select(t => new { Checklist = t.HireId, t.CalendarCode })
                .Concat(ofRuns.Select(t => new { Checklist = t.ChecklistId, t.CalendarCode }))
                .Where(t => t.CalendarCode != ChecklistTask.OwnCalendar)
                .GroupBy(t => t.CalendarCode)
                .Select(g => new { g.Key, Count = g.Select(t => t.Checklist).Distinct().Count() })
                .ToDictionaryAsync(g => g.Key, g => g.Count, cancellation);
        if (list.Key != "teams")
            return [];
        // Those who do a task, and those who can help with it.
        var teams = await tasks
            .Select(t => new { Checklist = t.HireId, Who = t.Owner })
            .Concat(tasks.Where(t => t.Contact != null).Select(t => new { Checklist = t.HireId, Who = t.Contact! }))
            .Concat(ofRuns.Select(t => new { Checklist = t.ChecklistId, Who = t.Owner }))
            .Where(t => t.Who.StartsWith(HireTask.TeamPrefix))
            .GroupBy(t => t.Who)
            .Select(g => new { g.Key, Count = g.Select(t => t.Checklist).Distinct().Count() })
            .ToListAsync(cancellation);
        return teams.ToDictionary(t => HireTask.TeamOf(t.Key)!, t => t.Count, StringComparer.Ordinal);
    }

    // Shared tasks count with the templates that have them; those that none has keep an entry from being deleted all the same.
    private async Task<HashSet<string>> SharedAsync(ListDefinition list, CancellationToken cancellation) =>
        [.. (await db.SharedTasks.AsNoTracking().ToListAsync(cancellation)).SelectMany(t => TemplateReferences.OfTask(t.Properties, list.Key))];
}

/// <summary>How many use an entry.</summary>
/// <param name="People">People who have it now or will.</param>
/// <param name="Templates">Role templates and add-ons that set it.</param>
/// <param name="Hires">Checklists under way that name it.</param>
/// <param name="Entries">Entries of lists that refer to it.</param>
public sealed record UsageCount(int People, int Templates, int Hires, int Entries);
