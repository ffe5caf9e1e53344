using System.Text.Json;
using Fid.Core.Templates;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Fid.Data.Hires;

/// <summary>Something besides tasks that a hire has from its template: an item to issue, a document, a certificate to hold, a second
/// job, a message.</summary>
public sealed class HireEntry
{
    public Guid HireId { get; init; }

    /// <summary>One of <see cref="TemplateLists.All"/>, never the tasks.</summary>
    public required string List { get; init; }

    /// <summary>Unique in the list. Of items, certificates and second jobs: the code in the firm's list.</summary>
    public required string Key { get; init; }

    public required int Position { get; set; }

    /// <summary>What the template says of it, by property.</summary>
    public required IReadOnlyDictionary<string, JsonElement> Properties { get; set; }

    /// <summary>The same for a hire.</summary>
    /// <param name="hire">The hire; left out for one that is yet to be put into a hire.</param>
    public HireEntry Copy(Guid hire = default) =>
        new()
        {
            HireId = hire,
            List = List,
            Key = Key,
            Position = Position,
            Properties = Properties,
        };

    /// <summary>The entries of what layers come to.</summary>
    public static IEnumerable<HireEntry> Of(Layered layered) =>
        TemplateLists
            .All.Where(l => l != TemplateLists.Tasks)
            .SelectMany(list =>
                layered
                    .Lists[list]
                    .Select(
                        (entry, i) =>
                            new HireEntry
                            {
                                List = list,
                                Key = entry.Key,
                                Position = i,
                                Properties = entry.Properties.ToDictionary(p => p.Key, p => p.Value.Value),
                            }
                    )
            );
}

internal sealed class HireEntryConfiguration : IEntityTypeConfiguration<HireEntry>
{
    public void Configure(EntityTypeBuilder<HireEntry> entry)
    {
        entry.HasKey(e => new
        {
            e.HireId,
            e.List,
            e.Key,
        });
        entry.Property(e => e.List).HasMaxLength(20);
        entry.Property(e => e.Key).HasMaxLength(100);
        entry.Property(e => e.Properties).AsJson();
    }
}
