using System.Globalization;
using Fid.Acts.Calendars;
using Fid.Acts.Hires;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Firms;
using Fid.Data.Hires;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Faults.Tests.TimeLapse;

/// <summary>The demonstration firm with six hundred hires under way in place of its own, all with the same few tasks, that start on one day after the
/// other.</summary>
internal static class LapseFirm
{
    public const int Hires = 600;

    /// <summary>By which the tasks go, and most who do them.</summary>
    public const string Calendar = "sound";

    private const string Coordinator = "orla@halyard.example",
        Manager = "callum@halyard.example",
        Stores = "nils@halyard.example",
        Technician = "thandiwe@halyard.example",
        Safety = "eoin@halyard.example",
        Trainer = "mirela@halyard.example";

    /// <summary>What each hire's checklist is made of, in the order of the stages.</summary>
    public static readonly LapseTask[] Tasks =
    [
        new("contract", "prepare", OwnTasks.Coordinator, Coordinator, null, -14),
        new("kit", "prepare", "team:stores", Stores, "contract", -4),
        new("account", "prepare", "team:it", Technician, "contract", -2),
        new("tour", "arrive", OwnTasks.Manager, Manager, null, 1),
        new("drill", "arrive", "team:training", Trainer, "tour", 3),
        new("handbook", "arrive", "team:safety", Safety, null, 4, Required: false),
        new("review", "settle", OwnTasks.Manager, Manager, null, 12),
        new("laptop", "settle", "team:it", Technician, "review", 14),
        new("confirm", "confirm", OwnTasks.Coordinator, Coordinator, null, 65),
    ];

    /// <summary>Opens them, and has Nils' stand-in be away herself for two of his five days.</summary>
    /// <param name="today">The day on which they are entered: the first starts on the day after the next, six on each.</param>
    /// <returns>Each hire's id and first day, in their order.</returns>
    public static async Task<IReadOnlyList<(Guid Id, LocalDate Start)>> OpenAsync(FidDb db, Instant now, LocalDate today)
    {
        await db.Hires.Where(h => h.Closed == null).ExecuteUpdateAsync(h => h.SetProperty(x => x.Closed, today.PlusDays(-1)));
        var accounts = await db.Users.Where(u => u.Email != null).ToDictionaryAsync(u => u.Email!);
        db.AccountAbsences.Add(
            new AccountAbsence
            {
                AccountId = accounts[Technician].Id,
                From = today.PlusDays(8),
                To = today.PlusDays(9),
                StandInId = accounts[Safety].Id,
                At = now,
                ByName = accounts[Technician].DisplayName,
            }
        );
        var callum = accounts[Manager].PersonId;
        var manager = await db.CurrentRecords.Where(r => r.PersonId == callum).Select(r => r.EmploymentId).SingleAsync();
        var opened = new List<(Guid, LocalDate)>();
        for (var i = 0; i < Hires; i++)
        {
            var (person, number) = (new Person(), i.ToString("0000", CultureInfo.InvariantCulture));
            var employment = new Employment
            {
                PersonId = person.Id,
                Number = $"L{number}",
                Start = today.PlusDays(2 + i / 6),
            };
            var hire = new Hire
            {
                EmploymentId = employment.Id,
                TemplateCode = "deckhand",
                TemplateVersion = 1,
                Layers = ["template:deckhand@1"],
                Start = employment.Start,
                Accepted = today,
                Entered = today,
                CoordinatorId = accounts[Coordinator].Id,
                Tasks = [.. Tasks.Select((task, position) => task.ToHireTask(position))],
            };
            var record = new CurrentRecord
            {
                EmploymentId = employment.Id,
                PersonId = person.Id,
                GivenName = "Hire",
                FamilyName = number,
                ManagerId = manager,
                AsOf = employment.Start,
                Saved = now,
            };
            db.AddRange(person, employment, hire, record);
            opened.Add((hire.Id, hire.Start));
        }
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
        return opened;
    }

    /// <summary>Who is told: where they work, who their manager is, and when they are away.</summary>
    public static async Task<Dictionary<string, LapsePerson>> PeopleAsync(FidDb db)
    {
        var calendars = await CalendarSet.LoadAsync(db, default);
        var accounts = await db.Users.AsNoTracking().Where(u => u.Email!.EndsWith("@halyard.example")).ToListAsync();
        var mails = accounts.ToDictionary(a => a.Id, a => a.Email!);
        var records = await db.CurrentRecords.AsNoTracking().ToListAsync();
        var away = await db.AccountAbsences.AsNoTracking().ToListAsync();
        return accounts.ToDictionary(
            account => account.Email!,
            account =>
            {
                var record = records.Single(r => r.PersonId == account.PersonId);
                var above = records.FirstOrDefault(r => r.EmploymentId == record.ManagerId)?.PersonId;
                return new LapsePerson(
                    calendars.ByCode[record.CalendarCode!],
                    accounts.FirstOrDefault(a => a.PersonId == above && above is not null)?.Email,
                    [.. away.Where(a => a.AccountId == account.Id).Select(a => (a.From, a.To, a.StandInId is { } standIn ? mails[standIn] : null))]
                );
            }
        );
    }
}

/// <summary>A task of every hire.</summary>
/// <param name="Mail">The address of who does it.</param>
/// <param name="After">The key of the task before it.</param>
/// <param name="Due">Calendar days after the first one by which it is to be done.</param>
internal sealed record LapseTask(string Key, string Stage, string Owner, string Mail, string? After, int Due, bool Required = true)
{
    public HireTask ToHireTask(int position) =>
        new()
        {
            Key = Key,
            Position = position,
            Name = Key,
            StageKey = Stage,
            Owner = Owner,
            CalendarCode = LapseFirm.Calendar,
            Work = 1,
            After = After is null ? [] : [After],
            Lags = After is null ? [] : [0],
            Required = Required,
            DayOne = Stage == "prepare",
            DueAnchor = PlanQuestion.Start,
            DueAmount = Due,
            DueUnit = OffsetUnit.Days,
        };
}
