using Fid.Acts.Lists;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Lists;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Changes;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Setup;

/// <summary>Takes rows of a starter set into a list, or its templates, as they are or as they were edited.</summary>
public sealed class TakeStarterSet(FidDb db)
{
    /// <summary>Stands for role templates, which have a starter set too.</summary>
    public const string Templates = "templates";

    private const int MostRows = 500;

    public async Task<ActResult> DoAsync(TakeStarterSetRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.List))
            return Refusal.Forbidden;
        if (request.Rows.Count > MostRows)
            return Refusal.Invalid("/rows", "out-of-range", $"Take at most {MostRows} rows at once.");
        var definition = ShippedLists.Find(request.List);
        if (definition is null && request.List != Templates)
            return Refusal.NotFound;
        await using var act = await ActScope.BeginAsync(db, actor, request, cancellation);
        if (act.Refusal is { } refusal)
            return refusal;
        if (act.IsDoneAlready)
            return ActResult.Done;
        var author = actor.Author("setup");
        var problems = definition is null
            ? await AddTemplatesAsync(request.Rows, author, cancellation)
            : (await new ListLoader(db).AddAsync(definition, request.Rows, author, cancellation))
                .Select(p => new Problem($"/rows/{p.Row}/{p.Problem.Column}", p.Problem.Code, p.Problem.Message))
                .ToList();
        if (problems.Count > 0)
            return Refusal.Invalid(problems);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    private async Task<List<Problem>> AddTemplatesAsync(IReadOnlyList<IReadOnlyDictionary<string, string>> rows, Author author, CancellationToken cancellation)
    {
        await Locks.TemplatesAsync(db, cancellation);
        var (problems, named) = (new List<Problem>(), rows.Select((r, i) => (Row: r, At: i)).ToLookup(r => r.Row.GetValueOrDefault("code")));
        var there = await db.RoleTemplates.Select(t => t.Code).ToListAsync(cancellation);
        foreach (var template in StarterSets.Templates().Where(t => !there.Contains(t.Code) && named.Contains(t.Code)))
        {
            var (row, at) = named[template.Code].First();
            var (name, german) = (row.GetValueOrDefault(EntryReader.Name, template.Spec.Name).Trim(), row.GetValueOrDefault(EntryReader.NameDe, "").Trim());
            foreach (var (column, said) in new[] { (EntryReader.Name, name), (EntryReader.NameDe, german) })
                if (EntryCheck.Name(said, required: column == EntryReader.Name) is { IsWrong: true } wrong)
                    problems.Add(new Problem($"/rows/{at}/{column}", wrong.Code!, wrong.Message!));
            template.Spec = await StarterSets.FittingAsync(db, template.Spec with { Name = name, NameDe = german.Length > 0 ? german : null }, cancellation);
            new TemplatePublishing(db).Add(template, author);
        }
        return problems;
    }
}

/// <param name="List">The list's key, or "templates".</param>
/// <param name="Rows">The rows, by column key; cells as in a sheet.</param>
public sealed record TakeStarterSetRequest(string List, IReadOnlyList<IReadOnlyDictionary<string, string>> Rows);
