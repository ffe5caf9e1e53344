using Fid.Data;
using Fido2NetLib;
using Fido2NetLib.Objects;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.SecondFactors;

/// <summary>Makes the options by which a device uses a passkey (WebAuthn, PublicKeyCredentialRequestOptions).</summary>
public sealed class BeginPasskeyProof(FidDb db)
{
    /// <returns>The options as JSON.</returns>
    public async Task<ActResult<string>> DoAsync(BeginPasskeyRequest request, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request.Session, cancellation);
        if (await OwnSecondFactor.TakeAsync(db, actor, request.Session, cancellation) is not { } own)
            return Refusal.NotFound;
        var there = await db.Passkeys.Where(p => p.AccountId == own.Account.Id).Select(p => p.Id).ToListAsync(cancellation);
        if (there.Count == 0)
            return Refusal.NotFound;
        var options = request
            .At.Checks()
            .GetAssertionOptions(
                new GetAssertionOptionsParams
                {
                    AllowedCredentials = [.. there.Select(id => new PublicKeyCredentialDescriptor(id))],
                    UserVerification = UserVerificationRequirement.Preferred,
                }
            )
            .ToJson();
        own.Session.Begun = options;
        await act.CommitAsync(cancellation);
        return options;
    }
}
