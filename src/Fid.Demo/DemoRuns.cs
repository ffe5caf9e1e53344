using Fid.Acts.PayRuns;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Data;
using Fid.Data.Changes;
using NodaTime;

namespace Fid.Demo;

/// <summary>The checklists of the next pay runs of the crews and the offices; with the crews the hours are in.</summary>
internal sealed class DemoRuns(FidDb db, Author author, LocalDate today)
{
    public async Task AddAsync()
    {
        var pay = await PayReading.LoadAsync(db, default);
        var templates = await TemplateSet.LoadAsync(db, default);
        foreach (var group in (string[])["crew", "office"])
        {
            var checklist = RunChecklists.Make(templates, templates.Find("pay-run")!, CheckedRun.Next(pay, pay.Groups[group], today)!, today).Answer!;
            db.RunChecklists.Add(checklist);
            db.Changes.Add(author.Change(BeginRunChecklist.Action, checklist.Id, RunName.Of(checklist)));
            if (group == "crew")
                (checklist.Tasks[0].Done, checklist.Tasks[0].DoneBy) = (today.PlusDays(-1), "Ruth Abara");
        }
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
    }
}
