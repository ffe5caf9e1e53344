using System.Text.Json;
using Fid.Acts.People;
using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Formulas;
using Fid.Core.Json;
using Fid.Core.Templates;
using Fid.Data.Templates;

namespace Fid.Acts.Templates;

/// <summary>What of a template somebody may see and change: the values of fields they may see. The others stay as they are, whoever
/// saves; and no formula of theirs reads what they may not, since whatever it sets would tell.</summary>
public static class TemplateRights
{
    /// <summary>A template with the values the reader may see.</summary>
    public static TemplateSpec Seen(this Reader reader, TemplateSpec spec)
    {
        var seen = spec.Values.Keys.All(reader.Sees) ? spec : spec with { Values = spec.Values.Where(v => reader.Sees(v.Key)).ToDictionary() };
        return seen.WithTasks(reader.Seen);
    }

    /// <summary>A task with the settings the reader may see.</summary>
    public static TemplateEntry Seen(this Reader reader, TemplateEntry task) =>
        task.Sets.Any(s => IsUnseen(reader, s)) ? task.With([.. task.Sets.Where(s => !IsUnseen(reader, s))]) : task;

    /// <summary>What the reader made of a task, with the settings they do not see as they were.</summary>
    public static TemplateEntry WithUnseen(this Reader reader, TemplateEntry made, TemplateEntry? before) =>
        before?.Sets.Where(s => IsUnseen(reader, s)).ToList() is { Count: > 0 } unseen ? made.With([.. made.Sets, .. unseen]) : made;

    /// <summary>Whether the reader may see all that a property of a task says.</summary>
    public static bool SeesProperty(this Reader reader, string property, JsonElement? value) =>
        property != TemplateEntry.SetsProperty || value is not { } sets || !TemplateEntry.SettingsOf(sets).Any(s => IsUnseen(reader, s));

    /// <summary>What the reader made of a template, with the values they do not see as they were.</summary>
    public static TemplateSpec WithUnseen(this Reader reader, TemplateSpec made, TemplateSpec? before)
    {
        var unseen = before?.Values.Where(v => !reader.Sees(v.Key)).ToList() ?? [];
        var whole = unseen.Count == 0 ? made : made with { Values = made.Values.Concat(unseen).ToDictionary() };
        return whole.WithTasks(task => reader.WithUnseen(task, before?.Entries(TemplateLists.Tasks).FirstOrDefault(t => t.Key == task.Key)));
    }

    /// <summary>What the reader may not say in a template they send: there is no such field, as far as they can tell.</summary>
    public static IReadOnlyList<Problem> Forbidden(this Reader reader, TemplateSpec sent, string path = "/spec")
    {
        var problems = new List<Problem>();
        foreach (var (field, value) in sent.Values)
        {
            var at = $"{path}/values/{JsonPointer.Escape(field)}";
            if (IsHidden(reader, field))
                problems.Add(Unknown(at));
            else if (TemplateSpec.FormulaOf(value) is { } formula && Reads(reader, formula))
                problems.Add(Unknown($"{at}/formula"));
        }
        if (sent.When is { } when && Reads(reader, when))
            problems.Add(Unknown($"{path}/when"));
        foreach (var list in new[] { TemplateLists.Tasks, TemplateLists.Stages })
        foreach (var entry in sent.Entries(list))
            problems.AddRange(reader.Forbidden(entry, $"{path}/lists/{list}/{JsonPointer.Escape(entry.Key)}"));
        return problems;
    }

    /// <summary>What the reader may not say of a task or a stage.</summary>
    public static IEnumerable<Problem> Forbidden(this Reader reader, TemplateEntry sent, string path)
    {
        if (sent.Condition is { } own && Reads(reader, own))
            yield return Unknown($"{path}/when");
        if (sent.Sets.Any(s => IsUnseen(reader, s)))
            yield return Unknown($"{path}/sets");
    }

    /// <summary>Whether publishing a template would change a value the reader may not edit.</summary>
    public static bool ChangesForbidden(this Reader reader, TemplateSpec? before, TemplateSpec after)
    {
        var keys = after.Values.Keys.Union(before?.Values.Keys ?? []).Where(k => reader.Fields.Set.Find(k) is not null && !reader.MayEdit(k));
        return keys.Any(k => !JsonValues.Same(Of(before, k), Of(after, k)))
            || reader.ChangesForbidden(before?.Entries(TemplateLists.Tasks) ?? [], after.Entries(TemplateLists.Tasks));

        static JsonElement? Of(TemplateSpec? spec, string key) => spec is not null && spec.Values.TryGetValue(key, out var value) ? value : null;
    }

    /// <summary>Whether tasks would set another value by themselves in a field the reader may not edit.</summary>
    public static bool ChangesForbidden(this Reader reader, IReadOnlyList<TemplateEntry> before, IReadOnlyList<TemplateEntry> after)
    {
        return !Set(before).SetEquals(Set(after));

        HashSet<(string, FieldSetting)> Set(IReadOnlyList<TemplateEntry> tasks) =>
            [.. tasks.SelectMany(t => t.Sets.Where(s => reader.Fields.Set.Find(s.Field) is not null && !reader.MayEdit(s.Field)).Select(s => (t.Key, s)))];
    }

    /// <summary>Whether a formula reads a field the reader may not see.</summary>
    public static bool Reads(this Reader reader, string formula) => RecordFormula.Read(formula).Formula is { } read && read.Names.Any(n => IsHidden(reader, n));

    private static bool IsUnseen(Reader reader, FieldSetting setting) => IsHidden(reader, setting.Field) || Reads(reader, setting.Formula);

    private static TemplateSpec WithTasks(this TemplateSpec spec, Func<TemplateEntry, TemplateEntry> change)
    {
        var tasks = spec.Entries(TemplateLists.Tasks);
        var changed = tasks.Select(change).ToList();
        return changed.SequenceEqual(tasks)
            ? spec
            : spec with
            {
                Lists = new Dictionary<string, IReadOnlyList<TemplateEntry>>(spec.Lists) { [TemplateLists.Tasks] = changed },
            };
    }

    // A field that is not there at all is told in its own way.
    private static bool IsHidden(Reader reader, string field) => reader.Fields.Set.Find(field) is not null && !reader.Sees(field);

    private static Problem Unknown(string path) => new(path, "unknown-field", "There is no such field.");
}
