using System.Text.Json;
using Fid.Acts.Calendars;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Acts.Templates;
using Fid.Core.Checklists;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Demo;

/// <summary>A year of newcomers who have settled: those who work there since, with the checklists by which they came. What holds their starts up is
/// the radio, which takes longer to come than its template says.</summary>
internal sealed class DemoPast(FidDb db, RecordWriter writer, Author author, LocalDate today, Guid coordinator)
{
    private const int Most = 400,
        Batch = 50,
        Seed = 20260301;

    // Who began within these days, first and last, has settled by now.
    private const int Newest = 100,
        Oldest = 360;

    private readonly Random _random = new(Seed);

    public async Task AddAsync()
    {
        var (first, last) = (today.PlusDays(-Oldest), today.PlusDays(-Newest));
        var settled = await (
            from employment in db.Employments
            join record in db.CurrentRecords on employment.Id equals record.EmploymentId
            where employment.Start >= first && employment.Start <= last && employment.End == null && record.JobCode != null
            where !db.Hires.Any(h => h.EmploymentId == employment.Id)
            orderby employment.Number
            select new
            {
                employment.Id,
                employment.Start,
                record.JobCode,
                record.SiteCode,
                record.CalendarCode,
            }
        )
            .AsNoTracking()
            .Take(Most)
            .ToListAsync();
        var templates = await TemplateSet.LoadAsync(db, default);
        var byJob = templates
            .Opening.Where(t => t.Spec.Values.ContainsKey("job"))
            .GroupBy(t => t.Spec.Values["job"].GetString()!)
            .ToDictionary(g => g.Key, g => g.First());
        var (calendars, stages) = (await CalendarSet.LoadAsync(db, default), (await StagePlans.LoadAsync(db, default)).Of(Occasion.Arrival));
        var (opening, drafts) = (new HireOpening(db, writer), new Dictionary<(string, string?), HireDraft>());
        var count = 0;
        foreach (var person in settled)
        {
            if (!byJob.TryGetValue(person.JobCode!, out var template))
                continue;
            if (!drafts.TryGetValue((template.Code, person.SiteCode), out var draft))
            {
                var typed = new Dictionary<string, JsonElement> { ["site"] = JsonSerializer.SerializeToElement(person.SiteCode) };
                drafts[(template.Code, person.SiteCode)] = draft = (await opening.DraftAsync(templates, template, typed, null, today, default)).Answer!;
            }
            var accepted = person.Start.PlusDays(-_random.Next(18, 36));
            var hire = new Hire
            {
                EmploymentId = person.Id,
                TemplateCode = template.Code,
                TemplateVersion = template.Version,
                Layers = [.. draft.Layered.Layers.Where(l => l != Core.Templates.Layer.Typed)],
                Start = person.Start,
                Accepted = accepted,
                Entered = accepted,
                CoordinatorId = coordinator,
                Tasks = [.. draft.Tasks.Select(t => t.Copy(afresh: true))],
            };
            var settledOn = Work(hire, calendars, stages, person.CalendarCode);
            if (settledOn > today)
                continue;
            hire.Closed = LocalDate.Max(settledOn, hire.Start);
            db.AddRange(hire, author.Change("hire.opened", hire.Id), author.Change("hire.settled", hire.Id));
            db.AddRange(Passed(hire, stages));
            if (++count % Batch != 0)
                continue;
            await db.SaveChangesAsync();
            db.ChangeTracker.Clear();
        }
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
    }

    // Does one task after the other as soon as it can be begun, in the days that it took; answers when the last was done.
    private LocalDate Work(Hire hire, CalendarSet calendars, IReadOnlyList<PlanStage> stages, string? ownCalendar)
    {
        while (true)
        {
            var rows = hire.Tasks.ConvertAll(TaskRow.Of);
            var question = HirePlan.Question(today, hire.Start, hire.Accepted, calendars, stages, rows, ownCalendar);
            var past = PlanPast.Of(question, hire.Entered).Answer!;
            var open = Enumerable.Range(0, rows.Count).Where(i => rows[i].Done is null && past[i].Possible is not null).ToList();
            if (open.Count == 0)
                return hire.Tasks.Max(t => t.Done) ?? hire.Start;
            foreach (var i in open)
            {
                var task = hire.Tasks[i];
                var calendar = question.Calendars[question.Tasks[i].Calendar];
                (task.Done, task.DoneBy) = (calendar.Add(past[i].Possible!.Value, Days(task) - 1), author.Name);
            }
        }
    }

    private static IEnumerable<HireStage> Passed(Hire hire, IReadOnlyList<PlanStage> stages) =>
        stages.Select(stage => new HireStage
        {
            HireId = hire.Id,
            StageKey = stage.Id,
            Passed = hire.Tasks.Where(t => t.StageKey == stage.Id && t.Required).Max(t => t.Done) ?? hire.Start,
        });

    private int Days(HireTask task) =>
        task.Key switch
        {
            "radio-order" => 7 + _random.Next(5) + _random.Next(6),
            "medical" => 2 + _random.Next(4) + (_random.Next(7) == 0 ? 4 : 0),
            "account" => 1 + _random.Next(3) + (_random.Next(9) == 0 ? 3 : 0),
            "contract-sign" => 1 + _random.Next(3),
            _ => Math.Max(1, task.Work) + (_random.Next(8) == 0 ? 1 + _random.Next(2) : 0),
        };
}
