using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.Lists;
using Fid.Acts.People;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Exchange;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Exchange;

/// <summary>The records that lines of a sheet are of, by employee number, and what their cells refer to.</summary>
internal sealed class SheetRecords
{
    private readonly FidDb _db;
    private readonly LocalDate _today;
    private readonly LocalDate? _holdsFrom;
    private readonly EntryIndex _index;
    private readonly Dictionary<string, Employment> _byNumber;
    private readonly Dictionary<string, string> _numberOf;
    private readonly HashSet<Guid>? _readable;
    private readonly HashSet<Guid> _mentioned = [];
    private IReadOnlyDictionary<Guid, ActiveRecord> _held = new Dictionary<Guid, ActiveRecord>();

    private readonly LiveApprovals _approvals;

    private SheetRecords(FidDb db, LiveApprovals approvals, ImportRun run, LocalDate today, List<Employment> employments, Guid[]? readable, EntryIndex index)
    {
        (_db, _approvals, _today, _holdsFrom, _index) = (db, approvals, today, run.HoldsFrom, index);
        _readable = readable?.ToHashSet();
        _byNumber = employments.ToDictionary(e => e.Number, StringComparer.OrdinalIgnoreCase);
        Employments = readable is null ? employments : employments.FindAll(e => _readable!.Contains(e.Id));
        _numberOf = employments.ToDictionary(e => e.Id.ToString(), e => e.Number, StringComparer.OrdinalIgnoreCase);
    }

    public IReadOnlyList<Employment> Employments { get; }

    public static async Task<SheetRecords> LoadAsync(
        FidDb db,
        Reader reader,
        ListDefinition definition,
        ImportRun run,
        LocalDate today,
        CancellationToken cancellation
    ) =>
        new(
            db,
            reader.Fields.Approvals,
            run,
            today,
            await db.Employments.AsNoTracking().ToListAsync(cancellation),
            await reader.ReadableAsync(db, cancellation),
            await EntryIndex.LoadAsync(db, definition, cancellation)
        );

    /// <summary>Whose number it is, of those whose records may be opened; null for nobody's.</summary>
    public Employment? Find(string number) =>
        _byNumber.GetValueOrDefault(number) is { } employment && _readable?.Contains(employment.Id) != false ? employment : null;

    /// <summary>The stored form of what a cell refers to, as <see cref="FieldCell.Read"/> asks for it.</summary>
    public string? Refer(string list, string text) => list == EntryCheck.People ? _byNumber.GetValueOrDefault(text)?.Id.ToString() : _index.Find(list, text);

    /// <summary>Has the record of a number read with the others that lines are of.</summary>
    public void Announce(string number)
    {
        if (Find(number) is { } employment)
            _mentioned.Add(employment.Id);
    }

    public async Task LoadAnnouncedAsync(CancellationToken cancellation)
    {
        _held = (await ActiveRecords.LoadAsync(_db, _today, cancellation, _holdsFrom, former: true, only: [.. _mentioned])).Records;
        Distances = await PayDistances.LoadAsync(_db, _approvals, _mentioned, _today, cancellation);
    }

    /// <summary>How far pay lies from what it is held against, of those whose records were announced; null where no condition of an approval reads
    /// it.</summary>
    public PayDistances? Distances { get; private set; }

    /// <summary>What the record of an employment that was announced holds, by address.</summary>
    public IReadOnlyDictionary<string, JsonElement> Held(Employment employment) => _held[employment.Id].Values;

    /// <summary>What a line would change in a record, as it is kept until it is put in: what was there, and how it reads before and after.</summary>
    /// <param name="entered">What the line says, by address; null empties a value.</param>
    public string Before(Employment employment, Dictionary<string, JsonElement?> entered)
    {
        var held = Held(employment);
        var values = entered.Keys.ToDictionary(k => k, k => held.TryGetValue(k, out var was) ? was : (JsonElement?)null);
        return JsonSerializer.Serialize(
            new
            {
                values,
                was = Texts(values),
                becomes = Texts(entered),
            }
        );

        Dictionary<string, string> Texts(Dictionary<string, JsonElement?> all) =>
            all.ToDictionary(v => v.Key, v => v.Value is { } value ? FieldCell.Write(value, _numberOf.GetValueOrDefault) : "");
    }
}
