using System.Text.Json;
using Fid.Acts.People;
using Fid.Core.Fields;
using Fid.Core.Templates;
using Fid.Data;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;

namespace Fid.Demo;

/// <summary>What is new of people's pay: a raise, an allowance and a second job among the crews, one entered ahead for after probation, and one
/// above its band.</summary>
internal sealed class DemoPay(FidDb db, DemoRecords records, LocalDate today)
{
    private const string EngineHand = "EN-2";
    private const string TicketClerk = "TC-1";

    public async Task AddAsync()
    {
        // The first day of a week, and of a fortnight of the crews or its second week.
        var monday = today.Next(IsoDayOfWeek.Monday);
        var hands = await LongServingAsync();
        await SaveAsync(hands[0], new() { ["pay_rate"] = 18.6m }, monday, "second season on the engines");
        await SaveAsync(
            hands[1],
            Row(1, ("kind", "allowance"), ("amount", 46m), ("note", "standing by at night"), ("from", Iso(monday))),
            null,
            "stands by at night from now on"
        );
        // Evenings at the ticket hall, at its own rate and on its own cost centre.
        await SaveAsync(
            hands[0],
            Row(1, ("kind", "secondJob"), ("amount", 15.2m), ("hours", 6m), ("job", TicketClerk), ("cost_centre", "510"), ("from", Iso(monday))),
            null,
            "helps out at the ticket hall two evenings a week"
        );
        var demirci = await NewcomerAsync("Demirci");
        await SaveAsync(demirci, new() { ["bank_account"] = DemoPeople.Account(1_420_007) }, null, null);
        await SaveAsync(demirci, new() { ["pay_rate"] = 18.5m }, monday.PlusWeeks(24), "after probation, as agreed");
        var keel = await NewcomerAsync("Keel");
        await SaveAsync(keel, new() { ["bank_account"] = DemoPeople.Account(1_420_008) }, null, null);
        await SaveAsync(keel, new() { ["pay_rate"] = 43_500m }, null, "agreed at the interview: eleven years at another harbour");
    }

    private async Task<Guid[]> LongServingAsync() =>
        await db
            .CurrentRecords.Where(r => r.JobCode == EngineHand && !db.Hires.Any(h => h.EmploymentId == r.EmploymentId))
            .Join(db.Employments.Where(e => e.End == null), r => r.EmploymentId, e => e.Id, (_, e) => e)
            .Where(e => e.Start < today.PlusYears(-1))
            .OrderByDescending(e => e.Number)
            .Select(e => e.Id)
            .Take(2)
            .ToArrayAsync();

    private async Task<Guid> NewcomerAsync(string family) =>
        await db
            .Hires.Where(h => h.Closed == null)
            .Join(db.CurrentRecords.Where(r => r.FamilyName == family), h => h.EmploymentId, r => r.EmploymentId, (_, r) => r.EmploymentId)
            .SingleAsync();

    private static string Iso(LocalDate day) => LocalDatePattern.Iso.Format(day);

    // A row of what is paid beside base pay; its number tells rows of one record apart.
    private static Dictionary<string, object> Row(int number, params (string Column, object Value)[] cells) =>
        cells.ToDictionary(c => FieldAddress.Cell("pay_elements", c.Column, Guid.Empty.ToString("D")[..^1] + number).ToString(), c => c.Value);

    private Task SaveAsync(Guid employment, Dictionary<string, object> values, LocalDate? from, string? why) =>
        records.SaveAsync(
            employment,
            from is null ? "record.fixed" : "record.changed",
            [.. values.Select(v => new FieldEdit(v.Key, JsonSerializer.SerializeToElement(v.Value), Layer.Typed, from))],
            why
        );
}
