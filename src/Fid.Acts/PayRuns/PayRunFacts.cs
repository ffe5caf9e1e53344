using Fid.Acts.People;
using Fid.Core.Lists;
using Fid.Data.Changes;
using Fid.Data.PayRuns;
using NodaTime;

namespace Fid.Acts.PayRuns;

/// <summary>What lines of a run are worked out from besides the records.</summary>
/// <param name="KnownSince">By employment of a newcomer, since when all that pay is worked out from is known; left out where something is missing.</param>
/// <param name="Templates">The rates that templates give to newcomers under way.</param>
/// <param name="Waiting">The employments of which a change of pay waits for somebody to agree.</param>
/// <param name="Checks">By employment, what was found right of it in the periods of the runs.</param>
/// <param name="RateChanges">The changes by which rates were typed.</param>
internal sealed record PayRunFacts(
    JobBands Bands,
    IReadOnlyDictionary<string, EntryContent> Patterns,
    IReadOnlyDictionary<Guid, Instant> KnownSince,
    TemplateRates Templates,
    IReadOnlySet<Guid> Waiting,
    ILookup<Guid, PayCheck> Checks,
    IReadOnlyDictionary<Guid, Change> RateChanges
);
