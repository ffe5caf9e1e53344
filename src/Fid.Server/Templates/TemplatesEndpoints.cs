using System.Text.Json;
using Fid.Data;
using Fid.Data.Templates;
using Fid.Server.Lists;
using Fid.Server.People;
using Fid.Server.Platform;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Templates;

/// <summary>Role templates, to choose from and to look into.</summary>
internal static class TemplatesEndpoints
{
    public static void MapTemplates(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/templates", List).WhoMay(Access.ReadsRecords);
        app.MapGet("/api/templates/{code}", Show).WhoMay(Access.ReadsRecords).ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Ok<TemplateRow[]>> List(FidDb db, CancellationToken cancellation)
    {
        var templates = await TemplateBook.LoadAsync(db, cancellation);
        var opened = await db.Hires.GroupBy(h => h.TemplateCode)
            .Select(g => new { g.Key, All = g.Count(), UnderWay = g.Count(h => h.Closed == null) }).ToDictionaryAsync(g => g.Key, cancellation);
        return TypedResults.Ok(templates.All.OrderBy(t => t.IsAddOn).ThenBy(t => t.Name, StringComparer.Ordinal).Select(t => new TemplateRow(
            t.Code, t.Name, t.Version, t.IsAddOn, t.Opens, t.BuildsOnCode is { } on ? templates.Find(on)?.Name : null, t.WhenField, t.WhenValue,
            opened.GetValueOrDefault(t.Code)?.All ?? 0, opened.GetValueOrDefault(t.Code)?.UnderWay ?? 0)).ToArray());
    }

    private static async Task<Results<Ok<TemplateResponse>, ProblemHttpResult>> Show(string code, FidDb db, FirmClock clock, CancellationToken cancellation)
    {
        var templates = await TemplateBook.LoadAsync(db, cancellation);
        if (templates.All.FirstOrDefault(t => t.Code == code) is not { } template) return Problems.NotFound();
        var names = await ListNames.LoadAsync(db, cancellation);
        var resolved = templates.Resolve(template, await clock.TodayAsync(db, cancellation));
        if (resolved.Answer is not { } layered) return Problems.Conflict(resolved.Problems[0].Code, resolved.Problems[0].Message);
        var display = await RecordReader.DisplayAsync(db, await new Fid.Data.Fields.FieldBook(db).LiveAsync(cancellation), layered.Values.Select(v => (v.Key, v.Value.Value)), names, cancellation);
        return TypedResults.Ok(new TemplateResponse(
            template.Code, template.Name, template.Version,
            [.. layered.Values.Select(v => new Fid.Server.Hires.PreviewValue(v.Key, v.Value.Value, display.GetValueOrDefault(v.Key), ValueSource.Of(v.Value.From, templates)))],
            [.. layered.Tasks.Select(t => new TemplateTaskRow(
                t.Key, Text(t, "name") ?? t.Key, Text(t, "stage"), Text(t, "owner"), names.Team(Text(t, "owner") ?? ""),
                t.Properties.TryGetValue("work", out var work) && work.Value.TryGetInt32(out var days) ? days : 1,
                ValueSource.Of(t.Properties.Values.First().From, templates)))]));
    }

    private static string? Text(Core.Templates.LayeredEntry task, string property) =>
        task.Properties.TryGetValue(property, out var value) && value.Value.ValueKind == JsonValueKind.String ? value.Value.GetString() : null;
}

public sealed record TemplateRow(
    string Code, string Name, int Version, bool IsAddOn, bool Opens, string? BuildsOn, string? WhenField, string? WhenValue, int Opened, int UnderWay);

/// <summary>What a template sets, with what it builds on.</summary>
public sealed record TemplateResponse(string Code, string Name, int Version, Fid.Server.Hires.PreviewValue[] Values, TemplateTaskRow[] Tasks);


public sealed record TemplateTaskRow(string Key, string Name, string? Stage, string? Owner, string? OwnerName, int Work, ValueSource Source);
