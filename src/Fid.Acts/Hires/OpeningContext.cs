using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Data;
using NodaTime;

namespace Fid.Acts.Hires;

/// <summary>What hires are opened from, read once for all that are opened together.</summary>
/// <param name="Reader">The user who opens them.</param>
public sealed record OpeningContext(LocalDate Today, Reader Reader, TemplateSet Templates)
{
    public static async Task<OpeningContext> LoadAsync(Actor actor, FidDb db, CancellationToken cancellation) =>
        new(actor.Today, await Reader.OfAsync(actor, db, cancellation), await TemplateSet.LoadAsync(db, cancellation));
}
