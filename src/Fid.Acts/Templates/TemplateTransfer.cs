using System.Text.Json;
using Fid.Acts.Fields;
using Fid.Acts.Lists;
using Fid.Core;
using Fid.Core.Lists;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Templates;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.Templates;

/// <summary>A template with all it needs, to take it from one firm's Fid to another's.</summary>
/// <param name="Fid">Always "templates": by this the file is known.</param>
/// <param name="Templates">The template last, before it those it builds on.</param>
/// <param name="SharedTasks">The shared tasks they follow, by key.</param>
/// <param name="Entries">The entries of lists they refer to, and those these refer to.</param>
public sealed record TemplateExport(
    string Fid,
    ExportedTemplate[] Templates,
    Dictionary<string, Dictionary<string, JsonElement>> SharedTasks,
    ExportedEntry[] Entries
)
{
    /// <summary>What <see cref="Fid"/> is.</summary>
    public const string Kind = "templates";
}

/// <summary>A template of a parcel.</summary>
public sealed record ExportedTemplate(string Code, TemplateSpec Spec);

/// <summary>An entry of a list.</summary>
/// <param name="Cells">Cells by column, "code" and "name" among them, as files of Fid's own have them.</param>
public sealed record ExportedEntry(string List, string Code, string Name, Dictionary<string, string> Cells);

/// <summary>Packs templates, and unpacks them as drafts.</summary>
public sealed class TemplateTransfer(FidDb db)
{
    /// <summary>The action of the entry in the trail; its part is the codes of the drafts.</summary>
    internal const string Imported = "template.imported";

    /// <summary>A template with those it builds on, the shared tasks they follow, and the list entries they refer to.</summary>
    public async Task<TemplateExport> PackAsync(TemplateSet book, RoleTemplate template, CancellationToken cancellation)
    {
        var chain = book.Chain(template);
        var fields = await new LiveFieldsLoader(db).LiveAsync(cancellation);
        var all = (await db.ListEntries.AsNoTracking().ToListAsync(cancellation)).ToDictionary(e => (e.List, e.Code));
        var wanted = new Dictionary<(string List, string Code), ExportedEntry>();
        var open = new Queue<(string, string)>(
            ShippedLists.All.SelectMany(l => chain.SelectMany(t => TemplateReferences.Of(t.Spec, l.Key, fields)).Select(code => (l.Key, code)))
        );
        while (open.TryDequeue(out var next))
        {
            if (wanted.ContainsKey(next) || !all.TryGetValue(next, out var entry))
                continue;
            var (content, list) = (entry.Content(), ShippedLists.Get(entry.List));
            var cells = new Dictionary<string, string>
            {
                [EntryReader.Code] = content.Code,
                [EntryReader.Name] = content.Name,
                [EntryReader.NameDe] = content.NameDe ?? "",
            };
            foreach (var (key, value) in content.Values)
            {
                var column = list.Find(key)!;
                cells[key] = ColumnValue.ToText(column, value);
                foreach (var reference in EntryCheck.References(column, value))
                    open.Enqueue(reference);
            }
            wanted[next] = new ExportedEntry(entry.List, content.Code, content.Name, cells);
        }
        var shared = chain.SelectMany(t => t.Spec.Entries(Core.Templates.TemplateLists.Tasks)).Select(e => e.Shared).OfType<string>().Distinct().ToArray();
        var tasks = await db
            .SharedTasks.AsNoTracking()
            .Where(t => shared.Contains(t.Key))
            .ToDictionaryAsync(t => t.Key, t => t.Properties.ToDictionary(), cancellation);
        return new TemplateExport(TemplateExport.Kind, [.. chain.Select(t => new ExportedTemplate(t.Code, t.Spec))], tasks, [.. wanted.Values]);
    }

    /// <summary>The entries a parcel refers to directly or through others that the firm's lists do not have.</summary>
    public async Task<IReadOnlyList<ExportedEntry>> MissingAsync(TemplateExport parcel, CancellationToken cancellation)
    {
        var there = (await db.ListEntries.Select(e => new { e.List, e.Code }).ToListAsync(cancellation))
            .Select(e => (e.List, e.Code.ToLowerInvariant()))
            .ToHashSet();
        return [.. parcel.Entries.Where(e => ShippedLists.Find(e.List) is not null && !there.Contains((e.List, e.Code.ToLowerInvariant())))];
    }

    /// <summary>Unpacks a parcel: missing entries are created or replaced by others, and the templates become drafts, under other
    /// codes where theirs are taken. Everything is saved in the caller's transaction.</summary>
    /// <param name="instead">For a missing entry the code of one of the firm's that stands for it; those not named are created.</param>
    /// <returns>The codes of the drafts; or what is wrong with entries that were to be created, by "/entries/list/code/column".</returns>
    public async Task<Result<string[]>> UnpackAsync(
        TemplateExport parcel,
        IReadOnlyDictionary<(string List, string Code), string> instead,
        Author author,
        CancellationToken cancellation
    )
    {
        var problems = new List<Problem>();
        var missing = (await MissingAsync(parcel, cancellation)).Where(e => !instead.ContainsKey((e.List, e.Code))).ToList();
        foreach (var list in ByDependency(missing.Select(m => m.List).Distinct()))
        {
            var known = (await db.ListEntries.Select(e => new { e.List, e.Code }).ToListAsync(cancellation)).Select(e => (e.List, e.Code)).ToHashSet();
            var own = missing.Where(m => m.List == list.Key).ToList();
            foreach (var one in own)
                known.Add((one.List, one.Code));
            var rows = own.Select(e => (IReadOnlyDictionary<string, string>)e.Cells.ToDictionary(c => c.Key, c => Cell(list, c.Key, c.Value, instead, known)))
                .ToList();
            problems.AddRange(
                (await new ListLoader(db).AddAsync(list, rows, author, cancellation)).Select(p => new Problem(
                    $"/entries/{list.Key}/{own[p.Row].Code}/{p.Problem.Column}",
                    p.Problem.Code,
                    p.Problem.Message
                ))
            );
        }
        if (problems.Count > 0)
            return Result<string[]>.Failed(problems);

        var fields = await new LiveFieldsLoader(db).LiveAsync(cancellation);
        var taken = (await db.RoleTemplates.Select(t => t.Code).ToListAsync(cancellation))
            .Concat(await db.TemplateDrafts.Select(d => d.Code).ToListAsync(cancellation))
            .ToHashSet();
        var sharedThere = await db.SharedTasks.Select(t => t.Key).ToListAsync(cancellation);
        foreach (var (key, properties) in parcel.SharedTasks.Where(s => !sharedThere.Contains(s.Key)))
            db.SharedTasks.Add(new SharedTask { Key = key, Properties = properties });
        var codes = new Dictionary<string, string>();
        foreach (var template in parcel.Templates)
        {
            var code = Free(template.Code, taken);
            codes[template.Code] = code;
            var spec = template.Spec;
            foreach (var ((list, from), to) in instead)
                spec = TemplateReferences.Replace(spec, list, from, to, fields);
            if (spec.BuildsOn is { } on)
                spec = spec with { BuildsOn = codes.GetValueOrDefault(on, on) };
            if (code != template.Code)
                spec = spec with { Name = Numbered(spec.Name), NameDe = spec.NameDe is { } german ? Numbered(german) : null };

            string Numbered(string name) => $"{name} ({code[(template.Code.Length + 1)..]})";
            db.TemplateDrafts.Add(
                new TemplateDraft
                {
                    Code = code,
                    Spec = spec,
                    BasedOn = 0,
                    At = author.At,
                    ByName = author.Name,
                }
            );
        }
        db.Changes.Add(author.Change(Imported, await db.Firms.Select(f => f.Id).SingleAsync(cancellation), string.Join(' ', codes.Values)));
        await db.SaveChangesAsync(cancellation);
        return (string[])[.. codes.Values];
    }

    // What refers to an entry that is to be found nowhere is left empty: it can be filled in afterwards.
    private static string Cell(
        ListDefinition list,
        string column,
        string text,
        IReadOnlyDictionary<(string, string), string> instead,
        HashSet<(string List, string Code)> known
    )
    {
        if (list.Find(column)?.List is not { } refers || text.Length == 0)
            return text;
        var code = instead.GetValueOrDefault((refers, text), text);
        return known.Contains((refers, code)) ? code : "";
    }

    private static List<ListDefinition> ByDependency(IEnumerable<string> lists)
    {
        var (left, done) = (lists.Select(ShippedLists.Get).ToList(), new List<ListDefinition>());
        while (left.Count > 0)
        {
            var next = left.Find(l => l.Columns.All(c => c.List is null || c.List == l.Key || left.TrueForAll(o => o.Key != c.List))) ?? left[0];
            left.Remove(next);
            done.Add(next);
        }
        return done;
    }

    private static string Free(string code, HashSet<string> taken)
    {
        var free = code;
        for (var i = 2; !taken.Add(free); i++)
            free = $"{code}-{i}";
        return free;
    }
}
