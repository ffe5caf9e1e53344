using System.Text.Json;
using Fid.Data;
using Fid.Data.Firms;
using Fido2NetLib;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.SecondFactors;

/// <summary>Takes a passkey that a device has made as a second factor.</summary>
public sealed class AddPasskey(FidDb db)
{
    /// <summary>How many one account can have.</summary>
    public const int Most = 20;

    /// <returns>Recovery codes, where it is the first factor; none otherwise.</returns>
    public async Task<ActResult<string[]>> DoAsync(PasskeyRequest request, Actor actor, CancellationToken cancellation)
    {
        if (RequiredText.Check("/name", request.Name, Passkey.LongestName) is { } wrong)
            return Refusal.Invalid(wrong);
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request.Session, cancellation);
        if (await OwnSecondFactor.TakeAsync(db, actor, request.Session, cancellation) is not { Session.Begun: { } begun } own)
            return Refusal.Conflict("not-begun", "Begin anew: this has run out.");
        if (await db.Passkeys.CountAsync(p => p.AccountId == own.Account.Id, cancellation) >= Most)
            return Refusal.Conflict("too-many", $"An account can have {Most} passkeys. Take one away first.");
        if (await MadeAsync(request, begun, cancellation) is not { } made)
            return ProvePasskey.Wrong;
        db.Passkeys.Add(
            new Passkey
            {
                Id = made.Id,
                AccountId = own.Account.Id,
                Name = request.Name!.Trim(),
                PublicKey = made.PublicKey,
                Counter = made.SignCount,
                MadeAt = actor.Clock.Now,
            }
        );
        var codes = own.Added(actor);
        act.Note(own.Entry(actor, "secondFactor.added"));
        await act.CommitAsync(cancellation);
        return codes;
    }

    private async Task<Fido2NetLib.Objects.RegisteredPublicKeyCredential?> MadeAsync(PasskeyRequest request, string begun, CancellationToken cancellation)
    {
        try
        {
            return await request
                .At.Checks()
                .MakeNewCredentialAsync(
                    new MakeNewCredentialParams
                    {
                        AttestationResponse = JsonSerializer.Deserialize<AuthenticatorAttestationRawResponse>(request.Answer)!,
                        OriginalOptions = CredentialCreateOptions.FromJson(begun),
                        IsCredentialIdUniqueToUserCallback = async (asked, stop) => !await db.Passkeys.AnyAsync(p => p.Id == asked.CredentialId, stop),
                    },
                    cancellation
                );
        }
        catch (Exception e) when (PasskeyFaults.IsOfTheAnswer(e))
        {
            return null;
        }
    }
}

/// <param name="Session">The session in which it is asked.</param>
/// <param name="Answer">What the device answered, as JSON.</param>
/// <param name="Name">What a new one is called; null where one is used.</param>
/// <param name="At">The place it is for.</param>
public sealed record PasskeyRequest(Guid Session, string Answer, string? Name, RelyingParty At);

/// <summary>Which faults come of what a browser sent.</summary>
internal static class PasskeyFaults
{
    public static bool IsOfTheAnswer(Exception e) =>
        e
            is Fido2VerificationException
                or JsonException
                or FormatException
                or ArgumentException
                or InvalidOperationException
                or NullReferenceException
                or System.Formats.Cbor.CborContentException;
}
