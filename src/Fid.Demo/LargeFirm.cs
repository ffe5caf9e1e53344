using System.Text.Json;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Hires;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Demo;

/// <summary>
/// The large variants: 5,000 people with ten years of history (over a million values), or as many as are asked for without those
/// months; 600 hires of 40 tasks each.
/// </summary>
internal static class LargeFirm
{
    /// <summary>How many people "large" means; as many have their months told.</summary>
    public const int People = 5000;
    private const int Hires = 600;
    private const int TasksPerHire = 40;
    public const int Batch = 50;

    public static async Task AddHiresAsync(FidDb db, RecordWriter writer, Author author, LocalDate today, DemoPeople people, DemoNames names, Guid coordinator)
    {
        var templates = await TemplateSet.LoadAsync(db, default);
        var opening = new HireOpening(db, writer);
        var codes = templates.All.Where(t => t.Opens).Select(t => t.Code).Order(StringComparer.Ordinal).ToArray();
        string[] sites = ["hallan", "skerry", "corran", "yard", "mv-corran"];
        var drafts = new Dictionary<(string, string), HireDraft>();
        foreach (var code in codes)
        foreach (var site in sites)
            drafts[(code, site)] = (
                await opening.DraftAsync(
                    templates,
                    templates.Find(code)!,
                    new Dictionary<string, JsonElement> { ["site"] = JsonSerializer.SerializeToElement(site) },
                    null,
                    today,
                    default
                )
            ).Answer!;

        for (var i = 0; i < Hires; i++)
        {
            var (given, family) = names.Next();
            var start = today.PlusDays(names.Random.Next(-40, 80));
            var accepted = LocalDate.Min(start, today.PlusDays(-names.Random.Next(5, 40)));
            var draft = drafts[(codes[i % codes.Length], sites[names.Random.Next(sites.Length)])];
            draft = draft with { Values = With(draft, given, family, 100_000 + i), Tasks = [.. Padded(draft.Tasks)] };
            var hire = await opening.AddAsync(draft, new HireStart(Guid.CreateVersion7(), people.TakeNumber(), start, accepted, coordinator), author, today);
            db.Entry(hire).Property(h => h.Entered).CurrentValue = hire.Accepted;
            Tick(hire, names.Random, today);
            if ((i + 1) % Batch != 0)
                continue;
            await db.SaveChangesAsync();
            db.ChangeTracker.Clear();
            Console.WriteLine($"  {i + 1} of {Hires} hires");
        }
        await db.SaveChangesAsync();
    }

    /// <summary>Gives everybody two earlier pay rates, each believed until the next raise was entered.</summary>
    public static async Task AddHistoryAsync(FidDb db, LocalDate today)
    {
        // Set-based, as an import would write it: the rates of the two years before, and the present one from today on.
        var (last, first) = (today.PlusYears(-1), today.PlusYears(-2));
        await db.Database.ExecuteSqlAsync(
            $"""
            with raised as (
              select * from record_values
              where field = 'pay_rate' and lower(effective) < {first} and upper_inf(effective) and upper_inf(known)
            ), shortened as (
              update record_values v set effective = daterange({today}, null) from raised where v.id = raised.id
            )
            insert into record_values (id, owner_id, owner_kind, field, value, source, effective, known, change_id)
            select gen_random_uuid(), owner_id, owner_kind, field, to_jsonb(round(value::numeric * part, 2)), 'import', during, known, change_id
            from raised, (values (0.97, daterange({last}, {today})), (0.94, daterange({first}, {last})), (0.91, null)) as before (part, earlier),
                 lateral (select coalesce(earlier, daterange(lower(effective), {first}))) as d (during)
            """
        );
    }

    /// <summary>Gives everybody ten years of months in which watch, clock and place of work changed, as far back as they worked here.</summary>
    public static async Task AddMonthsAsync(FidDb db, LocalDate today)
    {
        var (first, month) = (today.PlusYears(-10).With(DateAdjusters.StartOfMonth), today.With(DateAdjusters.StartOfMonth));
        await db.Database.ExecuteSqlAsync(
            $"""
            with turned as (
              select * from record_values where field in ('shift_pattern', 'clock_device') and lower(effective) < {month} and upper_inf(effective)
                and upper_inf(known)
            ), shortened as (
              update record_values v set effective = daterange({month}, null) from turned where v.id = turned.id
            )
            insert into record_values (id, owner_id, owner_kind, field, value, source, effective, known, change_id)
            select gen_random_uuid(), owner_id, owner_kind, field, case when extract(month from m)::int % 2 = 0 then value else other end, 'import',
              daterange(greatest(lower(effective), m::date), (m + interval '1 month')::date), known, change_id
            from turned,
              lateral (select to_jsonb((case field when 'shift_pattern' then 'office' else 'corran-gangway' end)::text)) o (other),
              lateral generate_series(greatest({first}, date_trunc('month', lower(effective))::date)::timestamp, {month}::timestamp - interval '1 day',
                interval '1 month') m
            """
        );
    }

    private static Dictionary<string, Core.Templates.LayeredValue> With(HireDraft draft, string given, string family, int badge)
    {
        var values = new Dictionary<string, Core.Templates.LayeredValue>(draft.Values);
        foreach (
            var (field, value) in new[]
            {
                ("given_name", given),
                ("family_name", family),
                ("email", DemoNames.Email(given, family, "example.org")),
                ("badge", badge.ToString(System.Globalization.CultureInfo.InvariantCulture)),
            }
        )
            values[field] = new(JsonSerializer.SerializeToElement(value), "typed", []);
        return values;
    }

    private static IEnumerable<HireTask> Padded(IReadOnlyList<HireTask> tasks)
    {
        foreach (var task in tasks)
            yield return task.Copy(afresh: true);
        var calendar = tasks[0].CalendarCode;
        string[] teams = ["team:stores", "team:it", "team:safety", "team:training", "manager", "newcomer"];
        string[] stages = ["prepare", "prepare", "arrive", "settle"];
        for (var i = tasks.Count; i < TasksPerHire; i++)
        {
            var stage = stages[i % stages.Length];
            yield return new HireTask
            {
                Key = $"more-{i}",
                Position = i,
                Name = $"Further task {i}",
                StageKey = stage,
                Owner = teams[i % teams.Length],
                CalendarCode = calendar,
                Work = 1 + i % 3,
                After = i % 2 == 0 || i - 4 < tasks.Count ? [] : [$"more-{i - 4}"],
                Lags = i % 2 == 0 || i - 4 < tasks.Count ? [] : [0],
                DayOne = stage == "prepare" && i % 3 == 0,
                Required = i % 5 != 0,
                DueAnchor = PlanQuestion.Start,
                DueAmount = stage switch
                {
                    "prepare" => -1,
                    "arrive" => 6,
                    _ => 30,
                },
                DueUnit = OffsetUnit.Days,
            };
        }
    }

    private static void Tick(Hire hire, Random random, LocalDate today)
    {
        var days = Period.DaysBetween(hire.Accepted, hire.Start.PlusDays(42));
        var passed = Math.Max(0, Period.DaysBetween(hire.Accepted, today));
        // At least one is left: all of them are under way.
        var count = Math.Min(TasksPerHire - 1, TasksPerHire * passed / Math.Max(1, days) + random.Next(-3, 3));
        foreach (var task in hire.Tasks.Take(Math.Max(0, count)))
            (task.Done, task.DoneBy) = (LocalDate.Min(today, hire.Accepted.PlusDays(random.Next(1, Math.Max(2, passed)))), "Orla Dunmore");
    }
}
