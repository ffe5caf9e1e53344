using Microsoft.AspNetCore.Identity;

namespace Fid.Data.Firms;

/// <summary>Somebody who may sign in.</summary>
public sealed class FidUser : IdentityUser<Guid>
{
    public FidUser() => Id = Guid.CreateVersion7();

    public required string DisplayName { get; set; }

    /// <summary>The language of the interface: "en" or "de".</summary>
    public string Language { get; set; } = "en";

    /// <summary>The person this is, when the firm has a record of them.</summary>
    public Guid? PersonId { get; set; }

    /// <summary>Codes of the teams whose tasks this person does.</summary>
    public string[] Teams { get; set; } = [];
}
