using System.Text.Json;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>The firm's shared tasks, and the templates that follow them.</summary>
public sealed class SharedTasks(FidDb db)
{
    /// <summary>The templates that have a shared task, by its key.</summary>
    public static ILookup<string, RoleTemplate> UsersOf(IEnumerable<RoleTemplate> templates) =>
        templates
            .SelectMany(t => EntriesOf(t.Spec).Select(e => (e.Shared, Template: t)))
            .Where(u => u.Shared is not null)
            .ToLookup(u => u.Shared!, u => u.Template);

    /// <summary>Changes a shared task, and with it every template that has it: each becomes a new version, in which what it had said
    /// otherwise for itself stays. Drafts follow too. All goes into the context.</summary>
    /// <returns>The templates that have a new version.</returns>
    public async Task<IReadOnlyList<RoleTemplate>> ChangeAsync(
        SharedTask task,
        IReadOnlyDictionary<string, JsonElement> properties,
        Author author,
        string? why,
        CancellationToken cancellation
    )
    {
        var before = task.Properties;
        task.Properties = properties;
        var templates = await db.RoleTemplates.ToListAsync(cancellation);
        var drafts = await db.TemplateDrafts.ToDictionaryAsync(d => d.Code, cancellation);
        var touched = templates.Where(t => EntriesOf(t.Spec).Any(e => e.Shared == task.Key)).ToList();
        foreach (var template in touched)
        {
            new TemplatePublishing(db).Put(template, Follow(template.Spec, task.Key, before, properties), author, "template.sharedTaskChanged", task.Key, why);
            if (drafts.TryGetValue(template.Code, out var draft) && draft.BasedOn == template.Version - 1)
                draft.BasedOn = template.Version;
        }
        foreach (var draft in drafts.Values.Where(d => EntriesOf(d.Spec).Any(e => e.Shared == task.Key)))
            draft.Spec = Follow(draft.Spec, task.Key, before, properties);
        return touched;
    }

    private static IReadOnlyList<TemplateEntry> EntriesOf(TemplateSpec spec) => spec.Entries(Core.Templates.TemplateLists.Tasks);

    private static TemplateSpec Follow(
        TemplateSpec spec,
        string key,
        IReadOnlyDictionary<string, JsonElement> before,
        IReadOnlyDictionary<string, JsonElement> now
    )
    {
        var lists = spec.Lists.ToDictionary();
        lists[Core.Templates.TemplateLists.Tasks] =
        [
            .. EntriesOf(spec).Select(e => e.Shared == key ? e with { Properties = Follow(e.Properties, before, now) } : e),
        ];
        return spec with { Lists = lists };
    }

    // What the template has as the shared task had it follows; what it says for itself stays.
    private static Dictionary<string, JsonElement> Follow(
        IReadOnlyDictionary<string, JsonElement> own,
        IReadOnlyDictionary<string, JsonElement> before,
        IReadOnlyDictionary<string, JsonElement> now
    )
    {
        var properties = own.ToDictionary();
        foreach (var name in before.Keys.Union(now.Keys, StringComparer.Ordinal))
        {
            var followed = own.TryGetValue(name, out var mine)
                ? before.TryGetValue(name, out var was) && JsonElement.DeepEquals(mine, was)
                : !before.ContainsKey(name);
            if (!followed)
                continue;
            if (now.TryGetValue(name, out var value))
                properties[name] = value;
            else
                properties.Remove(name);
        }
        return properties;
    }
}
