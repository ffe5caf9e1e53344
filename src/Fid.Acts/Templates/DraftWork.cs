using System.Text.Json;
using Fid.Core.Rights;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>Puts the time that a task really takes into drafts of the templates that say otherwise.</summary>
public sealed class DraftWork(FidDb db, SaveTemplateDraft save)
{
    private const string Work = "work";

    /// <returns>The codes of the templates whose drafts say it now.</returns>
    public async Task<ActResult<IReadOnlyList<string>>> DoAsync(DraftWorkRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Template))
            return Refusal.Forbidden;
        if (request.Work is < 0 or > TaskFindings.MostWork)
            return Refusal.Invalid("/work", "out-of-range", $"Enter a whole number of working days from 0 to {TaskFindings.MostWork}.");
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        await Locks.TemplatesAsync(db, cancellation);
        var live = SayingOf(await db.RoleTemplates.AsNoTracking().Where(t => !t.Retired).OrderBy(t => t.Code).ToListAsync(cancellation), request.Task);
        if (live.Count == 0)
            return Refusal.NotFound;
        var codes = live.ConvertAll(t => t.Code);
        var drafts = await db.TemplateDrafts.AsNoTracking().Where(d => codes.Contains(d.Code)).ToDictionaryAsync(d => d.Code, cancellation);
        foreach (var template in act.IsDoneAlready ? [] : live)
        {
            // What somebody drafts already goes on from there.
            var draft = drafts.GetValueOrDefault(template.Code);
            var spec = WithWork(draft?.Spec ?? template.Spec, request.Task, request.Work);
            if ((await save.DoAsync(new SaveTemplateDraftRequest(template.Code, spec, draft?.RowVersion), actor, cancellation)).Refusal is { } refused)
                return refused;
        }
        await act.CommitAsync(cancellation);
        return codes;
    }

    /// <summary>Of some templates those that say how long a task takes; where none does, those that bring it.</summary>
    public static List<RoleTemplate> SayingOf(IReadOnlyCollection<RoleTemplate> templates, string task)
    {
        var saying = templates.Where(t => Entry(t.Spec, task)?.Properties.ContainsKey(Work) == true).ToList();
        return saying.Count > 0 ? saying : [.. templates.Where(t => Entry(t.Spec, task)?.Properties.ContainsKey("name") == true)];
    }

    private static TemplateEntry? Entry(TemplateSpec spec, string task) => spec.Entries(TemplateLists.Tasks).FirstOrDefault(e => e.Key == task && !e.Drop);

    private static TemplateSpec WithWork(TemplateSpec spec, string task, int work)
    {
        var lists = spec.Lists.ToDictionary();
        lists[TemplateLists.Tasks] =
        [
            .. spec.Entries(TemplateLists.Tasks)
                .Select(e =>
                    e.Key == task && !e.Drop
                        ? e with
                        {
                            Properties = new Dictionary<string, JsonElement>(e.Properties) { [Work] = JsonSerializer.SerializeToElement(work) },
                        }
                        : e
                ),
        ];
        return spec with { Lists = lists };
    }
}

/// <param name="Task">The key of the task.</param>
/// <param name="Work">The working days it takes.</param>
public sealed record DraftWorkRequest(string Task, int Work);
