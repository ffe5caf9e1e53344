using Fid.Data.Lists;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Fid.Data.Templates;

/// <summary>What a role starts with, or an add-on that applies to some hires besides.</summary>
public sealed class RoleTemplate : ListEntry
{
    public required int Version { get; set; }

    /// <summary>The template it builds on; null for none, and for add-ons.</summary>
    public string? BuildsOnCode { get; set; }

    /// <summary>For an add-on: the field it looks at. Null for a template.</summary>
    public string? WhenField { get; set; }

    /// <summary>For an add-on: the value of that field for which it applies.</summary>
    public string? WhenValue { get; set; }

    /// <summary>Add-ons apply in this order.</summary>
    public int Order { get; set; }

    /// <summary>Whether hires can be opened from it; others are only built on.</summary>
    public bool Opens { get; set; }

    public required TemplateContent Content { get; set; }

    public bool IsAddOn => WhenField is not null;

    /// <summary>The name its layer has in a trail.</summary>
    public string LayerId => $"{(IsAddOn ? "addOn" : "template")}:{Code}@{Version}";
}

internal sealed class RoleTemplateConfiguration : ListEntryConfiguration<RoleTemplate>
{
    public override void Configure(EntityTypeBuilder<RoleTemplate> template)
    {
        base.Configure(template);
        template.Property(t => t.Content).HasColumnType("jsonb").HasConversion(
            content => System.Text.Json.JsonSerializer.Serialize(content, TemplateContent.Json),
            text => System.Text.Json.JsonSerializer.Deserialize<TemplateContent>(text, TemplateContent.Json)!);
    }
}
