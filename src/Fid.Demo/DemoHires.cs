using System.Text.Json;
using Fid.Acts.Hires;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Texts;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Firms;
using Fid.Data.Hires;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Demo;

/// <summary>The fourteen hires under way, at all points of the way.</summary>
internal sealed class DemoHires(FidDb db, RecordWriter writer, Author author, LocalDate today, DemoPeople people, FidUser coordinator)
{
    private static readonly string[] CrewReady = ["record-complete", "contract-send", "contract-sign", "papers", "account", "badge", "kit", "medical"];
    private static readonly string[] OfficeReady = ["record-complete", "contract-send", "contract-sign", "papers", "account", "badge", "desk"];

    public async Task AddAsync()
    {
        var templates = await TemplateSet.LoadAsync(db, default);
        // The Monday on or after today: starts fall on sensible days whatever the day of the demonstration.
        var monday = today.DayOfWeek == IsoDayOfWeek.Monday ? today : today.Next(IsoDayOfWeek.Monday);

        await Open("Ines", "Varga", "deckhand", monday.PlusWeeks(1), "skerry", accepted: -21, Personal(), done: [.. CrewReady, "welcome", "radio-order"]);
        await Open(
            "Tomasz",
            "Brandt",
            "deckhand",
            monday.PlusWeeks(1),
            "skerry",
            accepted: -14,
            [.. Personal(), ("kind", "seasonal")],
            done: ["record-complete", "contract-send", "contract-sign", "medical"]
        );
        await Open(
            "Adaeze",
            "Okafor",
            "ticket-clerk",
            monday.PlusWeeks(2),
            "hallan",
            accepted: -11,
            Personal(),
            done: ["contract-send", "record-complete", "account", "badge", "uniform", "float"]
        );
        // Two seasons here already: the earlier stints stay on her side of the record.
        var jun = await Open("Jun", "Nakamura", "galley-cook", monday.PlusWeeks(3), "mv-corran", accepted: -7, Personal(), done: ["contract-send", "kit"]);
        await AddFormerStintsAsync(jun, "GA-1");
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
        await Open("Saoirse", "Lind", "payroll-clerk", monday.PlusWeeks(3), "hallan", accepted: -2, [("cost_centre", null)], done: []);
        // Started last week, entered today.
        await Open(
            "Mateo",
            "Ferreira",
            "shipwright",
            monday.PlusWeeks(-1),
            "yard",
            accepted: -7,
            Personal(),
            done: ["record-complete", "contract-send", "contract-sign", "papers", "medical", "account", "badge", "tools", "meet", "muster"]
        );
        await Open(
            "Bronagh",
            "Keel",
            "dispatcher",
            monday.PlusWeeks(-1).PlusDays(2),
            "hallan",
            accepted: -26,
            [.. Personal(), ("badge", await BadgeOf("Morita"))],
            done: [.. OfficeReady, "meet", "muster", "first-punch"]
        );
        await Open(
            "Yusuf",
            "Demirci",
            "engine-hand",
            monday.PlusWeeks(-3),
            "mv-corran",
            accepted: -50,
            Personal(),
            done: [.. CrewReady, "welcome", "sea-survival", "night-check", "meet", "muster", "engine-walk", "first-punch", "week-talk", "buddy-watch"]
        );
        (string Given, string Family)[] seasonal =
        [
            ("Maëlle", "Kerbrat"),
            ("Tuấn", "Phạm"),
            ("Sipho", "Dlamini"),
            ("Friederike", "Weiß"),
            ("Siân", "O'Driscoll-Prys"),
            ("נעם", "בן־עמי"),
        ];
        foreach (var (given, family) in seasonal)
            await Open(given, family, "deckhand", monday.PlusWeeks(6), "skerry", accepted: -1, [("kind", "seasonal")], done: ["contract-send"]);
    }

    private static (string Field, string? Value)[] Personal() =>
        [
            ("birth_date", "1998-04-12"),
            ("phone", "+353 1 555 0142"),
            ("street", "4 Slip Road"),
            ("town", "Skerry"),
            ("emergency_name", "Family at home"),
            ("emergency_phone", "+353 1 555 0143"),
        ];

    private async Task<string?> BadgeOf(string family)
    {
        var id = people.Named[family].Id;
        return await db.CurrentRecords.Where(r => r.EmploymentId == id).Select(r => r.Badge).SingleAsync();
    }

    private async Task<Hire> Open(
        string given,
        string family,
        string template,
        LocalDate start,
        string site,
        int accepted,
        (string Field, string? Value)[] more,
        string[] done
    )
    {
        var typed = new Dictionary<string, JsonElement>
        {
            ["given_name"] = Json(given),
            ["family_name"] = Json(family),
            ["site"] = Json(site),
            ["email"] = Json(DemoNames.Email(given, family, "example.org") is var mail && mail.StartsWith('.') ? "noam.ben-ami@example.org" : mail),
        };
        foreach (var (field, value) in more)
            typed[field] = Json(value);
        var templates = await TemplateSet.LoadAsync(db, default);
        var opening = new HireOpening(db, writer);
        var draft = (await opening.DraftAsync(templates, templates.Find(template)!, typed, start, today, default)).Answer!;
        // What was cleared on purpose stays empty, although the site would know a value.
        var cleared = more.Where(m => m.Value is null).Select(m => m.Field).ToHashSet();
        draft = draft with { Values = draft.Values.Where(v => !cleared.Contains(v.Key)).ToDictionary(v => v.Key, v => v.Value) };
        var hire = await opening.AddAsync(
            draft,
            new HireStart(Guid.CreateVersion7(), people.TakeNumber(), start, LocalDate.Min(start, today.PlusDays(accepted)), coordinator.Id),
            author,
            today
        );
        // Opened here on the day of acceptance, as firms do, so that what is late now is late; the one that is back-dated, today.
        if (hire.Accepted < hire.Start)
            db.Entry(hire).Property(h => h.Entered).CurrentValue = hire.Accepted;
        Tick(hire, done);
        await db.SaveChangesAsync();
        if (family == "Varga")
            people.Named[family] = db.Employments.Local.Single(e => e.Id == hire.EmploymentId);
        return hire;
    }

    // Done one after the other from acceptance to yesterday; what happens from the first day on was done since then.
    private void Tick(Hire hire, string[] done)
    {
        var days = Math.Max(1, Period.DaysBetween(hire.Accepted, today));
        for (var i = 0; i < done.Length; i++)
        {
            var task = hire.Tasks.Single(t => t.Key == done[i]);
            var day = hire.Accepted.PlusDays(days * (i + 1) / (done.Length + 1));
            if (task.StageKey != "prepare")
                day = LocalDate.Min(LocalDate.Max(day, hire.Start), today);
            (task.Done, task.DoneBy) = (day, task.Owner == "newcomer" ? "Orla Dunmore" : author.Name);
        }
    }

    private async Task AddFormerStintsAsync(Hire hire, string job)
    {
        var present = db.Employments.Local.Single(e => e.Id == hire.EmploymentId);
        foreach (var year in new[] { today.Year - 2, today.Year - 1 })
        {
            var stint = new Employment
            {
                PersonId = present.PersonId,
                Number = people.TakeNumber(),
                Start = new LocalDate(year, 4, 1),
            };
            var change = author.Change("record.imported", stint.Id);
            db.AddRange(stint, change);
            await writer.AddNewAsync(
                stint,
                [
                    new("job", Json(job), "import"),
                    new("site", Json("mv-corran"), "import"),
                    new("department", Json("galley"), "import"),
                    new("end_date", Json($"{year}-09-30"), "import"),
                ],
                change,
                new LocalDate(year, 9, 30)
            );
            var record = db.CurrentRecords.Local.Single(r => r.EmploymentId == stint.Id);
            (record.GivenName, record.FamilyName, record.Search) = ("Jun", "Nakamura", TextRules.SearchWords($"Jun Nakamura Jun {stint.Number}"));
        }
    }

    private static JsonElement Json(string? text) => JsonSerializer.SerializeToElement(text);
}
