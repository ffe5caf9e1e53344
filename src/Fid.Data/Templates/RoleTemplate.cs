using Fid.Core.Checklists;
using Fid.Core.Texts;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Templates;

/// <summary>What a role starts with, or an add-on that applies to some hires besides: as its live version says.</summary>
public sealed class RoleTemplate
{
    internal const int LongestCode = 40;

    /// <summary>The longest name, in characters.</summary>
    public const int LongestName = 200;

    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>Hires refer to it by this, which never changes once given.</summary>
    public required string Code { get; init; }

    /// <summary>Kept for the hires it opened, offered to nobody; a retired add-on applies to nobody.</summary>
    public bool Retired { get; set; }

    /// <summary>The live version, from 1.</summary>
    public required int Version { get; set; }

    public required TemplateSpec Spec { get; set; }

    /// <summary>What it is called in the reader's language.</summary>
    public string Name => ReaderLanguage.Choose(Spec.Name, Spec.NameDe);

    /// <summary>Whether it is called so in either language; capitals, accents and spaces count for nothing.</summary>
    public bool HasName(string name) => Is(Spec.Name, name) || Is(Spec.NameDe, name);

    /// <summary>Whether this names it: by its code, or by its name in either language.</summary>
    public bool IsMeantBy(string said) => Is(Code, said) || HasName(said);

    public bool IsAddOn => Spec.AddOn;

    /// <summary>Whether newcomers can be hired from it.</summary>
    public bool Opens => OpensFor(Occasion.Arrival);

    /// <summary>Whether checklists of an occasion can be opened from it.</summary>
    public bool OpensFor(Occasion occasion) => Spec is { Opens: true, AddOn: false } && Spec.Occasion == occasion && !Retired;

    private static bool Is(string? own, string said) => own is not null && TextRules.AreAlike(own, said);

    /// <summary>The name its layer has in a trail.</summary>
    public string LayerId => LayerName(Code, IsAddOn, Version);

    /// <summary>The name that the layer of a version has in a trail.</summary>
    public static string LayerName(string code, bool isAddOn, int version) => $"{(isAddOn ? "addOn" : "template")}:{code}@{version}";

    /// <summary>The code and the version that the name of a layer holds; null for other layers.</summary>
    public static (string Code, int Version)? ReadLayer(string layer)
    {
        var colon = layer.IndexOf(':', StringComparison.Ordinal);
        var at = layer.LastIndexOf('@');
        return colon > 0 && at > colon && int.TryParse(layer.AsSpan(at + 1), out var version) ? (layer[(colon + 1)..at], version) : null;
    }
}

/// <summary>A version of a template as it was published. The hires opened from it are compared with it when a later one comes.</summary>
public sealed class TemplateVersion
{
    public required string Code { get; init; }

    public required int Version { get; init; }

    public required TemplateSpec Spec { get; init; }

    public required Instant At { get; init; }

    public required string ByName { get; init; }

    public string? Why { get; init; }
}

/// <summary>The draft of a template's next version. There is one for each, shared: the user who saves it second is told of the first.</summary>
public sealed class TemplateDraft
{
    public required string Code { get; init; }

    public required TemplateSpec Spec { get; set; }

    /// <summary>The version it was begun from; 0 for a template that is new.</summary>
    public required int BasedOn { get; set; }

    public required Instant At { get; set; }

    public required string ByName { get; set; }

    /// <summary>Changes with every save.</summary>
    public uint RowVersion { get; init; }
}

internal sealed class RoleTemplateConfiguration : IEntityTypeConfiguration<RoleTemplate>
{
    public void Configure(EntityTypeBuilder<RoleTemplate> template)
    {
        template.Property(t => t.Code).HasMaxLength(RoleTemplate.LongestCode);
        template.HasIndex(t => t.Code).IsUnique();
        template.Property(t => t.Spec).AsJson(TemplateSpec.Json);
    }
}

internal sealed class TemplateVersionConfiguration : IEntityTypeConfiguration<TemplateVersion>
{
    public void Configure(EntityTypeBuilder<TemplateVersion> version)
    {
        version.HasKey(v => new { v.Code, v.Version });
        version.Property(v => v.Code).HasMaxLength(RoleTemplate.LongestCode);
        version.Property(v => v.Why).HasMaxLength(500);
        version.Property(v => v.Spec).AsJson(TemplateSpec.Json);
    }
}

internal sealed class TemplateDraftConfiguration : IEntityTypeConfiguration<TemplateDraft>
{
    public void Configure(EntityTypeBuilder<TemplateDraft> draft)
    {
        draft.HasKey(d => d.Code);
        draft.Property(d => d.Code).HasMaxLength(RoleTemplate.LongestCode);
        draft.Property(d => d.Spec).AsJson(TemplateSpec.Json);
        draft.Property(d => d.RowVersion).IsRowVersion();
    }
}
