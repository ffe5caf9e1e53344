using System.Security.Cryptography;
using System.Text.Json;
using Fid.Core.Pay;
using Fid.Data.People;
using NodaTime;

namespace Fid.Acts.Revisions;

/// <summary>What a rule would make of the rates of a group from a day on.</summary>
/// <param name="People">Those it is about, by name, in the order of <see cref="Pay"/>.</param>
/// <param name="Pay">What becomes of their pay.</param>
/// <param name="LeftOut">Those of the group whose pay stays as it is: by number, and why.</param>
public sealed record RevisionPreview(IReadOnlyList<RevisedPerson> People, PayRevision Pay, IReadOnlyList<LeftOutPerson> LeftOut)
{
    /// <summary>What is equal while it comes to the same: by it somebody says what they saw.</summary>
    public string Version { get; } =
        Convert.ToHexStringLower(
            SHA256.HashData(
                JsonSerializer.SerializeToUtf8Bytes(
                    Pay.People.Select(p => new
                    {
                        p.Id,
                        p.Before,
                        p.After,
                    })
                )
            )
        )[..24];

    /// <summary>Those who are paid more afterwards, with what they are paid.</summary>
    public IEnumerable<(RevisedPerson Person, RevisedPay Pay)> Raised => People.Zip(Pay.People).Where(p => p.Second.After > p.Second.Before);
}

/// <summary>Somebody whose pay a rule revises.</summary>
/// <param name="Job">The code of the job they have on the day.</param>
/// <param name="EnteredAhead">The day from which another rate is entered already, which stays; null for none.</param>
public sealed record RevisedPerson(Employment Employment, CurrentRecord Record, string? Job, PayPeriod Per, LocalDate? EnteredAhead);

/// <summary>Somebody of the group whose pay a rule leaves as it is.</summary>
public sealed record LeftOutPerson(Employment Employment, CurrentRecord Record, LeftOutReason Why);

/// <summary>Why somebody's pay is not revised.</summary>
public enum LeftOutReason
{
    /// <summary>There is no rate, or what it is for is not known.</summary>
    NoRate,

    /// <summary>Others have to agree to it: it is asked for on the record.</summary>
    NeedsApproval,

    /// <summary>The user may not change their pay.</summary>
    NotYours,
}
