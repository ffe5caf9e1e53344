using Fido2NetLib;

namespace Fid.Acts.SecondFactors;

/// <summary>The place at which a passkey is used: a browser gives it to no other, which is what keeps it from whoever imitates Fid.</summary>
/// <param name="Host">The name of the host, without port.</param>
/// <param name="Origin">The origin (RFC 6454), as browsers say it.</param>
public sealed record RelyingParty(string Host, string Origin)
{
    internal Fido2 Checks() =>
        new(
            new Fido2Configuration
            {
                RPID = Host,
                RPName = "Fid",
                Origins = new HashSet<string>(StringComparer.Ordinal) { Origin },
            }
        );
}
