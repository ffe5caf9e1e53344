using System.Text.Json;
using Fid.Acts.Calendars;
using Fid.Acts.Fields;
using Fid.Core.Templates;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.Templates;
using NodaTime;

namespace Fid.Acts.Templates;

/// <summary>Looks a template through as a whole.</summary>
public static class TemplateFindings
{
    /// <summary>What is wrong with a template, for itself and as a checklist with what lies below it.</summary>
    public static async Task<IReadOnlyList<TemplateFinding>> OfAsync(
        FidDb db,
        LiveFields fields,
        TemplateSet book,
        RoleTemplate template,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var review = await TemplateReview.LoadAsync(db, fields, book, cancellation);
        var findings = review.Of(template).ToList();
        if (findings.Exists(f => f.Blocks))
            return findings;
        var none = new Dictionary<string, JsonElement>();
        var stages = (await StagePlans.LoadAsync(db, cancellation)).Of(template.Spec.Occasion);
        var calendars = (await CalendarSet.LoadAsync(db, cancellation)).ByCode;
        if (template.IsAddOn)
        {
            // What it lacks is found with a template that it would come on top of: each that hires are opened from.
            foreach (var opening in book.OpeningFor(template.Spec.Occasion))
                if (book.OnTop(opening, template, today).Answer is { } laid)
                    findings.AddRange(Own(TaskFindings.OfChecklist(laid, stages, calendars, today)));
            return [.. findings.Distinct()];
        }
        var alone = book.Alone(template, today);
        findings.AddRange(alone.Problems.Select(p => new TemplateFinding("values", LastOf(p.Path), null, p.Code, p.Message)));
        if (alone.Answer is { } layered && template.Spec.Opens)
            findings.AddRange(TaskFindings.OfChecklist(layered, stages, calendars, today));
        return findings;

        IEnumerable<TemplateFinding> Own(IEnumerable<TemplateFinding> all) =>
            all.Where(f => f.Key is { } key && template.Spec.Entries(TemplateLists.Tasks).Any(e => e.Key == key));

        static string? LastOf(string path) =>
            path.Split('/') is { Length: > 2 } parts && parts[^2] is "values" ? parts[^1]
            : path.Split('/') is [.., var field, "formula"] ? field
            : null;
    }
}
