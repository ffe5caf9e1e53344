using System.Text.Json;
using Fid.Data;
using Fid.Data.Firms;
using Fido2NetLib;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.SecondFactors;

/// <summary>Proves by a passkey who somebody is.</summary>
public sealed class ProvePasskey(FidDb db)
{
    public async Task<ActResult> DoAsync(PasskeyRequest request, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request.Session, cancellation);
        if (await OwnSecondFactor.TakeAsync(db, actor, request.Session, cancellation) is not { Session.Begun: { } begun } own)
            return Wrong;
        if (await UsedAsync(request, begun, own.Account.Id, cancellation) is not { } passkey)
            return Wrong;
        passkey.UsedAt = actor.Clock.Now;
        // The options were for once.
        (own.Session.Begun, own.Session.ProvedAt) = (null, actor.Clock.Now);
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    private async Task<Passkey?> UsedAsync(PasskeyRequest request, string begun, Guid account, CancellationToken cancellation)
    {
        try
        {
            var answer = JsonSerializer.Deserialize<AuthenticatorAssertionRawResponse>(request.Answer)!;
            var id = answer.RawId;
            if (await db.Passkeys.SingleOrDefaultAsync(p => p.Id == id && p.AccountId == account, cancellation) is not { } passkey)
                return null;
            var used = await request
                .At.Checks()
                .MakeAssertionAsync(
                    new MakeAssertionParams
                    {
                        AssertionResponse = answer,
                        OriginalOptions = AssertionOptions.FromJson(begun),
                        StoredPublicKey = passkey.PublicKey,
                        StoredSignatureCounter = (uint)passkey.Counter,
                        IsUserHandleOwnerOfCredentialIdCallback = (_, _) => Task.FromResult(true),
                    },
                    cancellation
                );
            passkey.Counter = used.SignCount;
            return passkey;
        }
        catch (Exception e) when (PasskeyFaults.IsOfTheAnswer(e))
        {
            return null;
        }
    }

    /// <summary>What is said of an answer that proves nothing.</summary>
    public static Refusal Wrong { get; } = Refusal.Invalid("/answer", "wrong-passkey", "This passkey proves nothing here. Try again, or use a code.");
}
