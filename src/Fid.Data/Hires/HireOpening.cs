using System.Text.Json;
using Fid.Core.Clock;
using Fid.Core.Templates;
using Fid.Data.Changes;
using Fid.Data.Lists;
using Fid.Data.People;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Data.Hires;

/// <summary>Opens hires: from a template and what was typed to a record and a checklist.</summary>
public sealed class HireOpening(FidDb db)
{
    // Guards the next free badge between looking for it and saving it.
    private const long BadgeLock = 0x0BAD6E;

    /// <summary>What a hire would start with. Nothing is saved.</summary>
    public async Task<HireDraft> DraftAsync(
        TemplateBook templates, RoleTemplate template, IReadOnlyDictionary<string, JsonElement> typed, CancellationToken cancellation)
    {
        var layered = templates.Resolve(template, typed);
        var site = await Entry(db.Sites, "site");
        var department = await Entry(db.Departments, "department");
        var known = new KnownFacts(site?.CalendarCode, site?.CostCentreCode, department?.HeadId?.ToString(), await NextBadgeAsync(cancellation));
        var values = StartingValues.Fill(layered, known);
        return new HireDraft(template, layered, values, Tasks(layered));

        async Task<T?> Entry<T>(DbSet<T> list, string field)
            where T : ListEntry =>
            TextOf(layered.Values, field) is { } code ? await list.AsNoTracking().FirstOrDefaultAsync(e => e.Code == code, cancellation) : null;
    }

    /// <summary>Puts a hire, its record and its checklist into the context. The person is new.</summary>
    public Hire Add(HireDraft draft, Guid id, string number, LocalDate start, LocalDate accepted, Guid coordinator, Author author, LocalDate today)
    {
        var person = new Person();
        var employment = new Employment { PersonId = person.Id, Number = number, Start = start };
        var hire = new Hire
        {
            Id = id,
            EmploymentId = employment.Id,
            TemplateCode = draft.Template.Code,
            TemplateVersion = draft.Template.Version,
            Start = start,
            Accepted = accepted,
            CoordinatorId = coordinator,
            Tasks = [.. draft.Tasks],
        };
        var change = author.Change("hire.opened", hire.Id, draft.Template.LayerId);
        db.AddRange(person, employment, change, hire);
        var startDate = new FieldValue("start_date", JsonSerializer.SerializeToElement(start.ToString("uuuu-MM-dd", null)), StartingValues.FromHire);
        new RecordWriter(db).AddNew(employment, draft.FieldValues.Where(v => v.Field != "start_date").Append(startDate), change, today);
        return hire;
    }

    /// <summary>Keeps others from taking a badge until this transaction ends.</summary>
    public Task LockBadgesAsync(CancellationToken cancellation) =>
        db.Database.ExecuteSqlAsync($"select pg_advisory_xact_lock({BadgeLock})", cancellation);

    /// <summary>The next employee number.</summary>
    public async Task<string> NextNumberAsync(CancellationToken cancellation) =>
        (await db.Database.SqlQuery<long>($"select nextval('employment_numbers') as \"Value\"").SingleAsync(cancellation))
        .ToString(System.Globalization.CultureInfo.InvariantCulture);

    private async Task<string?> NextBadgeAsync(CancellationToken cancellation)
    {
        var used = await db.RecordValues.Where(v => v.Field == "badge").Select(v => v.Value.GetString()!).Distinct().ToListAsync(cancellation);
        return Badges.NextFree(used);
    }

    private static IReadOnlyList<HireTask> Tasks(Layered layered)
    {
        var keys = layered.Tasks.Select(t => t.Key).ToHashSet();
        return [.. layered.Tasks.Select((t, i) => TaskSpec.Read(t).ToHireTask(t.Key, i, keys))];
    }

    private static string? TextOf(IReadOnlyDictionary<string, LayeredValue> values, string field) =>
        values.TryGetValue(field, out var v) && v.Value.ValueKind == JsonValueKind.String ? v.Value.GetString() : null;
}

/// <summary>What a hire would start with.</summary>
public sealed record HireDraft(
    RoleTemplate Template, Layered Layered, IReadOnlyDictionary<string, LayeredValue> Values, IReadOnlyList<HireTask> Tasks)
{
    public IEnumerable<FieldValue> FieldValues => Values
        .Where(v => v.Value.Value.ValueKind is not (JsonValueKind.Null or JsonValueKind.Undefined))
        .Select(v => new FieldValue(v.Key, v.Value.Value, v.Value.From));
}
