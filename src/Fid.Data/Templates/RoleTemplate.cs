using Fid.Core.Formulas;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Fid.Data.Templates;

/// <summary>What a role starts with, or an add-on that applies to some hires besides.</summary>
public sealed class RoleTemplate
{
    internal const int LongestCode = 40;
    internal const int LongestName = 200;

    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>Hires refer to it by this, which never changes once given.</summary>
    public required string Code { get; init; }

    public required string Name { get; set; }

    /// <summary>Kept for the hires it opened, offered to nobody.</summary>
    public bool Retired { get; set; }

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

    /// <summary>For an add-on: the condition as a formula.</summary>
    internal RecordFormula? Condition => WhenField is null || WhenValue is null ? null : RecordFormula.Read($"{WhenField} == '{WhenValue.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("'", "\\'", StringComparison.Ordinal)}'").Formula;

    public bool IsAddOn => WhenField is not null;

    /// <summary>The name its layer has in a trail.</summary>
    public string LayerId => $"{(IsAddOn ? "addOn" : "template")}:{Code}@{Version}";
}

internal sealed class RoleTemplateConfiguration : IEntityTypeConfiguration<RoleTemplate>
{
    public void Configure(EntityTypeBuilder<RoleTemplate> template)
    {
        template.Property(t => t.Code).HasMaxLength(RoleTemplate.LongestCode);
        template.Property(t => t.Name).HasMaxLength(RoleTemplate.LongestName);
        template.HasIndex(t => t.Code).IsUnique();
        template.Property(t => t.Content).HasColumnType("jsonb").HasConversion(
            content => System.Text.Json.JsonSerializer.Serialize(content, TemplateContent.Json),
            text => System.Text.Json.JsonSerializer.Deserialize<TemplateContent>(text, TemplateContent.Json)!);
    }
}
