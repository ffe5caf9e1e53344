using Fid.Core.Pay;
using Fid.Data.People;
using NodaTime;

namespace Fid.Acts.Revisions;

/// <summary>Whose pay is to be revised, by what rule, from when on.</summary>
/// <param name="From">The day from which the new rates hold.</param>
public sealed record RevisionQuestion(RevisedGroup Group, RevisionRule Rule, LocalDate From);
