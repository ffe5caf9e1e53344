using System.Text.Json;
using Fid.Acts.Calendars;
using Fid.Acts.Fields;
using Fid.Acts.Lists;
using Fid.Acts.Templates;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Firms;
using Fid.Data.Hires;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Setup;

/// <summary>What a firm can begin its lists with: plain entries that fit most, each to be taken, changed or left.</summary>
public static class StarterSets
{
    /// <summary>The starter rows of a list, cells by column key; none for lists that only the firm can know.</summary>
    /// <param name="country">The country whose holidays calendars begin with; null for none.</param>
    /// <param name="today">Holidays that no rule gives are written from its year on.</param>
    public static IReadOnlyList<IReadOnlyDictionary<string, string>> For(ListDefinition list, Firm firm, string? country, LocalDate today)
    {
        using var stream = typeof(StarterSets).Assembly.GetManifestResourceStream($"starter/{list.Key}.csv");
        if (stream is null)
            return [];
        using var reader = new StreamReader(stream);
        using var filled = new StringReader(
            reader.ReadToEnd().Replace("{zone}", firm.TimeZone, StringComparison.Ordinal).Replace("{currency}", firm.Currency, StringComparison.Ordinal)
        );
        var holidays =
            list.Key != "calendars" || country is null ? "" : string.Join("; ", CountryHolidays.Of(country, today.Year).Select(h => $"{h.When} {h.Name}"));
        return [.. ListLoader.Rows(filled).Select(row => row.ToDictionary(c => c.Key, c => c.Value == "{holidays}" ? holidays : c.Value))];
    }

    /// <summary>Starter role templates, made anew at each call.</summary>
    public static IReadOnlyList<RoleTemplate> Templates()
    {
        using var stream = typeof(StarterSets).Assembly.GetManifestResourceStream("starter/templates.json")!;
        return TemplateFile.Read(stream);
    }

    /// <summary>What of a starter template fits the lists as the firm filled them: values whose entries it did not take are left
    /// out, and the tasks of teams it does not have are the coordinator's.</summary>
    public static async Task<TemplateSpec> FittingAsync(FidDb db, TemplateSpec spec, CancellationToken cancellation)
    {
        var fields = await new LiveFieldsLoader(db).LiveAsync(cancellation);
        var there = (await db.ListEntries.Where(e => !e.Retired).Select(e => new { e.List, e.Code }).ToListAsync(cancellation))
            .Select(e => (e.List, e.Code))
            .ToHashSet();
        return spec with
        {
            Values = spec
                .Values.Where(v => fields.ListOf(v.Key) is not { } list || there.Contains((list, v.Value.GetString()!)))
                .ToDictionary(v => v.Key, v => v.Value),
            Lists = spec.Lists.ToDictionary(
                l => l.Key,
                l =>
                    (IReadOnlyList<TemplateEntry>)
                        [
                            .. l.Value.Select(t =>
                                t with
                                {
                                    Properties = t.Properties.ToDictionary(
                                        p => p.Key,
                                        p => IsMissingTeam(p.Key, p.Value) ? JsonSerializer.SerializeToElement("coordinator") : p.Value
                                    ),
                                }
                            ),
                        ]
            ),
        };

        bool IsMissingTeam(string property, JsonElement value) =>
            property == "owner" && HireTask.TeamOf(value.GetString()!) is { } team && !there.Contains(("teams", team));
    }
}
