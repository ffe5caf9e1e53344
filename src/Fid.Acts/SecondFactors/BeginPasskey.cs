using System.Text;
using Fid.Data;
using Fido2NetLib;
using Fido2NetLib.Objects;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.SecondFactors;

/// <summary>Makes the options by which a device makes a passkey (WebAuthn, PublicKeyCredentialCreationOptions).</summary>
public sealed class BeginPasskey(FidDb db)
{
    /// <returns>The options as JSON.</returns>
    public async Task<ActResult<string>> DoAsync(BeginPasskeyRequest request, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request.Session, cancellation);
        if (await OwnSecondFactor.TakeAsync(db, actor, request.Session, cancellation) is not { } own)
            return Refusal.NotFound;
        var there = await db.Passkeys.Where(p => p.AccountId == own.Account.Id).Select(p => p.Id).ToListAsync(cancellation);
        var options = request
            .At.Checks()
            .RequestNewCredential(
                new RequestNewCredentialParams
                {
                    User = new Fido2User
                    {
                        Id = Encoding.UTF8.GetBytes(own.Account.Id.ToString("N")),
                        Name = own.Account.Email ?? own.Account.DisplayName,
                        DisplayName = own.Account.DisplayName,
                    },
                    ExcludeCredentials = [.. there.Select(id => new PublicKeyCredentialDescriptor(id))],
                    AuthenticatorSelection = new AuthenticatorSelection
                    {
                        // Asked for after the password, a key needs no room on the device.
                        ResidentKey = ResidentKeyRequirement.Discouraged,
                        UserVerification = UserVerificationRequirement.Preferred,
                    },
                    AttestationPreference = AttestationConveyancePreference.None,
                }
            )
            .ToJson();
        own.Session.Begun = options;
        await act.CommitAsync(cancellation);
        return options;
    }
}

/// <param name="Session">The session in which it is asked.</param>
/// <param name="At">The place it is for.</param>
public sealed record BeginPasskeyRequest(Guid Session, RelyingParty At);
