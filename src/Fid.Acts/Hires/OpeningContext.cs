using Fid.Acts.People;
using Fid.Acts.Templates;
using Fid.Data;
using NodaTime;

namespace Fid.Acts.Hires;

/// <summary>What hires are opened from, read once for all that are opened together.</summary>
/// <param name="Reader">The user who opens them.</param>
/// <param name="Distances">How far pay lies from what it is held against; null where no condition of an approval reads it.</param>
public sealed record OpeningContext(LocalDate Today, Reader Reader, TemplateSet Templates, PayDistances? Distances)
{
    public static async Task<OpeningContext> LoadAsync(Actor actor, FidDb db, CancellationToken cancellation)
    {
        var reader = await Reader.OfAsync(actor, db, cancellation);
        return new OpeningContext(
            actor.Today,
            reader,
            await TemplateSet.LoadAsync(db, cancellation),
            await PayDistances.LoadAsync(db, reader.Fields.Approvals, [], actor.Today, cancellation)
        );
    }
}
