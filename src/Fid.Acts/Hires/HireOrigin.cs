using System.Text.Json;
using Fid.Data.Hires;

namespace Fid.Acts.Hires;

/// <summary>What of a hire is known before anybody types: from the person's earlier stints, or from a colleague it is to be like.</summary>
/// <param name="Person">The person it is a new stint of; null for a new person.</param>
/// <param name="Given">Values that come before the templates' and after what is typed, by field, each with its source.</param>
/// <param name="Tasks">A checklist in the template's place; null for the template's.</param>
/// <param name="Entries">Items in the template's place; null for the template's.</param>
/// <param name="EntriesFrom">The source of those items.</param>
public sealed record HireOrigin(
    Guid? Person,
    IReadOnlyDictionary<string, (JsonElement Value, string Source)> Given,
    IReadOnlyList<HireTask>? Tasks = null,
    IReadOnlyList<HireEntry>? Entries = null,
    string? EntriesFrom = null
)
{
    /// <summary>The source of a fact of the person that the firm knew already.</summary>
    public const string FromPerson = "person";

    /// <summary>The source of something taken over from the person's earlier stint.</summary>
    public const string Reused = "reused";

    /// <summary>The source of what the recruiting feed said.</summary>
    public const string FromRecruiting = "recruiting";

    /// <summary>Before a colleague's employee number, the source of what was copied from them.</summary>
    public const string LikePrefix = "like:";

    /// <summary>Somebody of whom nothing is known.</summary>
    public static HireOrigin New { get; } = new(null, new Dictionary<string, (JsonElement, string)>());
}
