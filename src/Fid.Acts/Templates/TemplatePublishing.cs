using System.Security.Cryptography;
using System.Text.Json;
using Fid.Data;
using Fid.Data.Changes;
using Fid.Data.Templates;

namespace Fid.Acts.Templates;

/// <summary>The one way by which versions of templates come about.</summary>
public sealed class TemplatePublishing(FidDb db)
{
    /// <summary>Puts a new template into the context, with the version it begins with.</summary>
    public void Add(RoleTemplate template, Author author, string? why = null)
    {
        db.RoleTemplates.Add(template);
        Keep(template, author, "template.added", template.LayerId, why);
    }

    /// <summary>Makes a spec the next live version of a template.</summary>
    /// <param name="action">What happened, as the trail calls it.</param>
    /// <param name="part">More about it; null for the layer the template now is.</param>
    public void Put(RoleTemplate template, TemplateSpec spec, Author author, string action, string? part, string? why)
    {
        template.Spec = spec;
        template.Version++;
        Keep(template, author, action, part ?? template.LayerId, why);
    }

    private void Keep(RoleTemplate template, Author author, string action, string part, string? why)
    {
        db.TemplateVersions.Add(
            new TemplateVersion
            {
                Code = template.Code,
                Version = template.Version,
                Spec = template.Spec,
                At = author.At,
                ByName = author.Name,
                Why = why,
            }
        );
        // So that the chain of changes vouches for what the template says too.
        var hash = Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(template.Spec, TemplateSpec.Json)));
        db.Changes.Add(author.Change(action, template.Id, part, why) with { Details = JsonSerializer.Serialize(new { sha256 = hash }) });
    }
}
