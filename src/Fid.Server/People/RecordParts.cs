using System.Data.Common;
using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.People;
using Fid.Data.Requests;
using Fid.Data.Templates;
using Fid.Server.Lists;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using NodaTime;
using Npgsql;
using NpgsqlTypes;

namespace Fid.Server.People;

/// <summary>All that showing a record needs besides the record itself, read in two round trips: a record is opened all day long, and
/// a dozen round trips would take longer than everything else about it.</summary>
internal sealed class RecordParts
{
    private readonly Dictionary<string, (string Name, string? Number)> _named = [];
    private string[] _open = [];

    private RecordParts() { }

    /// <summary>The values that hold on the day the record is shown for, by address.</summary>
    public Dictionary<string, RecordValue> Values { get; } = new(StringComparer.Ordinal);

    /// <summary>The values that will hold later, the first to come first.</summary>
    public List<RecordValue> Coming { get; } = [];

    /// <summary>The changes the values came with.</summary>
    public Dictionary<Guid, Change> Changes { get; } = [];

    /// <summary>The names of the list entries that values name.</summary>
    public ListNames Names { get; private set; } = null!;

    /// <summary>What the templates are called; not what they hold.</summary>
    public TemplateSet Templates { get; private set; } = null!;

    /// <summary>The hire under way, if any.</summary>
    public HireLink? Hire { get; private set; }

    /// <summary>The last hire by which the newcomer has settled; null while one is under way.</summary>
    public HireLink? Settled { get; private set; }

    /// <summary>The checklists of changes of job and of leavings, those under way first.</summary>
    public List<ChecklistLink> Later { get; } = [];

    /// <summary>The stage the hire is in; the last one for nobody who is being hired.</summary>
    public string? Stage { get; private set; }

    public List<StintLink> OtherStints { get; } = [];

    /// <summary>What is asked for and waits, the first first.</summary>
    public List<WaitingParts> Waiting { get; } = [];

    /// <summary>What is shown of a person or a file that a value names by its id; null where there is none such.</summary>
    /// <param name="seesNames">Whether people's names may be seen; where not, they are called by their numbers.</param>
    public string? Named(JsonElement value, bool seesNames) =>
        value.ValueKind == JsonValueKind.String && _named.TryGetValue(value.GetString()!, out var named)
            ? seesNames
                ? named.Name
                : named.Number ?? named.Name
            : null;

    /// <summary>Who it is about.</summary>
    public Employment Employment { get; private set; } = null!;

    /// <summary>The projection, as far as showing the record needs it.</summary>
    public CurrentRecord Record { get; private set; } = null!;

    public LiveFields Fields { get; private set; } = null!;

    /// <summary>The day the record is shown for.</summary>
    public LocalDate AsOf { get; private set; }

    /// <summary>The parts of an employment's record; null where there is none.</summary>
    public static async Task<RecordParts?> LoadAsync(FidDb db, Guid id, LocalDate today, CancellationToken cancellation)
    {
        var parts = new RecordParts();
        await db.Database.OpenConnectionAsync(cancellation);
        try
        {
            await using (var first = Batch(db))
            {
                Add(
                    first,
                    """
                    select e.person_id, e.number, e.start, e."end", r.given_name, r.family_name, r.job_code, r.kind, r.site_code, r.manager_id, r.xmin,
                      r.department_code, r.groups
                    from employments e join records_now r on r.employment_id = e.id where e.id = $1
                    """,
                    id
                );
                Add(first, LiveFieldsLoader.NowSql);
                Add(
                    first,
                    """
                    select v.id, v.owner_id, v.field, v.value::text, v.source, v.effective, v.change_id, v.owner_kind, v.row_id from employments e
                      join record_values v on v.owner_id = any(array[e.id, e.person_id])
                    where e.id = $1 and upper_inf(v.known) and (upper_inf(v.effective) or upper(v.effective) > greatest($2, e.start))
                      order by lower(v.effective)
                    """,
                    id,
                    today
                );
                Add(first, "select code, spec->>'name', version, coalesce((spec->>'addOn')::boolean, false), spec->>'nameDe' from role_templates");
                Add(
                    first,
                    """
                    select h.id, count(*) filter (where t.day_one and t.required and t.done is not null)::int, count(*) filter (where t.day_one
                      and t.required and t.skipped_why is null)::int,
                      array_agg(distinct t.stage_key) filter (where t.required and t.done is null and t.skipped_why is null), h.closed,
                      h.occasion, h.start
                    from hires h left join hire_tasks t on t.hire_id = h.id where h.employment_id = $1 and h.outcome is null group by h.id
                      order by h.closed desc nulls first
                    """,
                    id
                );
                Add(
                    first,
                    """
                    select o.id, o.number, o.start, o."end", r.job_code from employments e join employments o on o.person_id = e.person_id
                      and o.id <> e.id join records_now r on r.employment_id = o.id
                    where e.id = $1 order by o.start desc
                    """,
                    id
                );
                Add(
                    first,
                    """
                    select id, asked_by_name, asked_at, "from", changes::text from record_requests where employment_id = $1 and state = 'Waiting'
                      order by asked_at
                    """,
                    id
                );
                LiveNow now;
                await using (var reader = await first.ExecuteReaderAsync(cancellation))
                {
                    if (!await reader.ReadAsync(cancellation))
                        return null;
                    now = await parts.ReadRecordAsync(reader, id, today, cancellation);
                }
                parts.Fields = await new LiveFieldsLoader(db).LiveAsync(now, cancellation);
            }
            var fields = parts.Fields;
            parts.Stage = fields.StageOf(parts._open);
            await using var second = Batch(db);
            Add(
                second,
                "select id, at, by_id, by_name, origin, action, why, subject_id from changes where id = any($1)",
                parts.Values.Values.Select(v => v.ChangeId).Distinct().ToArray()
            );
            var shown = parts.All.Select(v => (v.Address, v.Value)).Concat(parts.Waiting.SelectMany(w => w.Values)).ToList();
            var entries = shown
                .SelectMany(v => fields.ListOf(v.Item1) is { } list ? FieldValues.Texts(v.Item2).Select(code => (list, code)) : [])
                .Concat(parts.OtherStints.Where(s => s.Job is not null).Select(s => (list: "jobs", code: s.Job!)))
                .Distinct()
                .ToList();
            Add(
                second,
                "select e.list, e.code, e.name, e.name_de from unnest($1, $2) w(list, code) join list_entries e on e.list = w.list and e.code = w.code",
                entries.Select(e => e.list).ToArray(),
                entries.Select(e => e.code).ToArray()
            );
            var ids = shown
                .Where(v => fields.Set.Find(v.Item1)?.Type is FieldType.Person or FieldType.File)
                .Select(v => Guid.TryParse(v.Item2.ToString(), out var id) ? id : Guid.Empty)
                .ToArray();
            Add(
                second,
                """
                select r.employment_id, trim(r.given_name || ' ' || r.family_name), e.number from records_now r
                  join employments e on e.id = r.employment_id where r.employment_id = any($1)
                union all select id, name, null from stored_files where id = any($1)
                """,
                ids
            );
            await using var named = await second.ExecuteReaderAsync(cancellation);
            await parts.ReadNamesAsync(named, cancellation);
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
        return parts;
    }

    /// <summary>The values that hold, and those that will.</summary>
    public IEnumerable<RecordValue> All => Values.Values.Concat(Coming);

    private async Task<LiveNow> ReadRecordAsync(NpgsqlDataReader reader, Guid id, LocalDate today, CancellationToken cancellation)
    {
        Employment = new Employment
        {
            Id = id,
            PersonId = reader.GetGuid(0),
            Number = reader.GetString(1),
            Start = reader.GetFieldValue<LocalDate>(2),
            End = Value<LocalDate>(reader, 3),
        };
        Record = new CurrentRecord
        {
            EmploymentId = id,
            PersonId = Employment.PersonId,
            GivenName = reader.GetString(4),
            FamilyName = reader.GetString(5),
            JobCode = Text(reader, 6),
            Kind = Text(reader, 7),
            SiteCode = Text(reader, 8),
            ManagerId = Value<Guid>(reader, 9),
            Version = reader.GetFieldValue<uint>(10),
            DepartmentCode = Text(reader, 11),
            Groups = reader.GetFieldValue<string[]>(12),
        };
        AsOf = RecordProjection.AsOf(Employment, today);
        await reader.NextResultAsync(cancellation);
        await reader.ReadAsync(cancellation);
        var now = new LiveNow(Value<int>(reader, 0), Text(reader, 1), reader.GetFieldValue<string[]>(2), Text(reader, 3));
        await reader.NextResultAsync(cancellation);
        while (await reader.ReadAsync(cancellation))
        {
            var value = new RecordValue
            {
                Id = reader.GetGuid(0),
                OwnerId = reader.GetGuid(1),
                Of = Enum.Parse<FieldOwner>(reader.GetString(7)),
                Field = reader.GetString(2),
                RowId = Value<Guid>(reader, 8),
                Value = JsonElement.Parse(reader.GetString(3)),
                Source = reader.GetString(4),
                Effective = reader.GetFieldValue<NpgsqlRange<LocalDate>>(5),
                Known = default,
                ChangeId = reader.GetGuid(6),
            };
            if (value.Effective.LowerBound > AsOf)
                Coming.Add(value);
            else
                Values[value.Address] = value;
        }
        await reader.NextResultAsync(cancellation);
        var templates = new List<RoleTemplate>();
        while (await reader.ReadAsync(cancellation))
            templates.Add(
                new RoleTemplate
                {
                    Code = reader.GetString(0),
                    Version = reader.GetInt32(2),
                    Spec = new TemplateSpec(
                        reader.GetString(1),
                        reader.GetBoolean(3),
                        null,
                        null,
                        0,
                        false,
                        new Dictionary<string, JsonElement>(),
                        new Dictionary<string, IReadOnlyList<TemplateEntry>>(),
                        Text(reader, 4)
                    ),
                }
            );
        Templates = TemplateSet.Of(templates);
        await reader.NextResultAsync(cancellation);
        while (await reader.ReadAsync(cancellation))
        {
            var isUnderWay = await reader.IsDBNullAsync(4, cancellation);
            if (Enum.Parse<Occasion>(reader.GetString(5)) is not Occasion.Arrival and var occasion)
            {
                Later.Add(
                    new ChecklistLink(
                        reader.GetGuid(0),
                        occasion,
                        reader.GetFieldValue<LocalDate>(6),
                        reader.GetInt32(1),
                        reader.GetInt32(2),
                        isUnderWay ? null : reader.GetFieldValue<LocalDate>(4)
                    )
                );
                continue;
            }
            if (Hire is not null || Settled is not null)
                continue;
            var hire = new HireLink(reader.GetGuid(0), reader.GetInt32(1), reader.GetInt32(2));
            if (isUnderWay)
                Hire = hire;
            else
                Settled = hire;
            if (Hire is not null && !await reader.IsDBNullAsync(3, cancellation))
                _open = reader.GetFieldValue<string[]>(3);
        }
        await reader.NextResultAsync(cancellation);
        while (await reader.ReadAsync(cancellation))
            OtherStints.Add(
                new StintLink(reader.GetGuid(0), reader.GetString(1), reader.GetFieldValue<LocalDate>(2), Value<LocalDate>(reader, 3), Text(reader, 4))
            );
        await reader.NextResultAsync(cancellation);
        while (await reader.ReadAsync(cancellation))
            Waiting.Add(
                new WaitingParts(
                    reader.GetGuid(0),
                    reader.GetString(1),
                    reader.GetFieldValue<Instant>(2),
                    Value<LocalDate>(reader, 3),
                    JsonSerializer.Deserialize<RequestedValue[]>(reader.GetString(4), RecordRequest.Json)!
                )
            );
        return now;
    }

    private async Task ReadNamesAsync(NpgsqlDataReader reader, CancellationToken cancellation)
    {
        while (await reader.ReadAsync(cancellation))
            Changes.Add(
                reader.GetGuid(0),
                new Change
                {
                    Id = reader.GetGuid(0),
                    At = reader.GetFieldValue<Instant>(1),
                    ById = Value<Guid>(reader, 2),
                    ByName = reader.GetString(3),
                    Origin = reader.GetString(4),
                    Action = reader.GetString(5),
                    Why = Text(reader, 6),
                    SubjectId = reader.GetGuid(7),
                }
            );
        await reader.NextResultAsync(cancellation);
        var names = new List<(string, string, string, string?)>();
        while (await reader.ReadAsync(cancellation))
            names.Add((reader.GetString(0), reader.GetString(1), reader.GetString(2), Text(reader, 3)));
        Names = ListNames.Of(names);
        await reader.NextResultAsync(cancellation);
        while (await reader.ReadAsync(cancellation))
            _named[reader.GetGuid(0).ToString()] = (reader.GetString(1), Text(reader, 2));
    }

    private static NpgsqlBatch Batch(FidDb db) =>
        new((NpgsqlConnection)db.Database.GetDbConnection(), (NpgsqlTransaction?)db.Database.CurrentTransaction?.GetDbTransaction());

    private static string? Text(DbDataReader reader, int at) => reader.IsDBNull(at) ? null : reader.GetString(at);

    private static T? Value<T>(DbDataReader reader, int at)
        where T : struct => reader.IsDBNull(at) ? null : reader.GetFieldValue<T>(at);

    private static void Add(NpgsqlBatch batch, string sql, params object[] values)
    {
        var command = new NpgsqlBatchCommand(sql);
        foreach (var value in values)
            command.Parameters.Add(new NpgsqlParameter { Value = value });
        batch.BatchCommands.Add(command);
    }
}

/// <summary>What somebody asks for, as a record shows it.</summary>
internal sealed record WaitingParts(Guid Id, string By, Instant At, LocalDate? From, IReadOnlyList<RequestedValue> Changes)
{
    /// <summary>The values asked for that are there, by address.</summary>
    public IEnumerable<(string Address, JsonElement Value)> Values => Changes.Where(c => c.New is not null).Select(c => (c.Field, c.New!.Value));
}
