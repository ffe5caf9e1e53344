using System.Security.Cryptography;
using Fid.Data;

namespace Fid.Acts.SecondFactors;

/// <summary>Takes an authenticator application as a second factor, with the first code of it; one there was before is none any more.</summary>
public sealed class AddAuthenticator(FidDb db, Authenticator authenticator)
{
    /// <returns>Recovery codes, where it is the first factor; none otherwise.</returns>
    public async Task<ActResult<string[]>> DoAsync(CodeRequest request, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request.Session, cancellation);
        if (await OwnSecondFactor.TakeAsync(db, actor, request.Session, cancellation) is not { Session.Begun: { } key } own)
            return Refusal.Conflict("not-begun", "Begin anew: this has run out.");
        if (Step(own.Account.Id, key) is not { } step)
            return ProveSecondFactor.Wrong;
        (own.Account.AuthenticatorKey, own.Account.AuthenticatorStep) = (key, step);
        var codes = own.Added(actor);
        act.Note(own.Entry(actor, "secondFactor.added"));
        await act.CommitAsync(cancellation);
        return codes;

        // What was begun may have been a passkey.
        long? Step(Guid account, string begun)
        {
            try
            {
                return authenticator.StepOf(account, begun, ProveSecondFactor.Digits(request.Code), actor.Clock.Now);
            }
            catch (CryptographicException)
            {
                return null;
            }
        }
    }
}

/// <param name="Session">The session in which it is asked.</param>
/// <param name="Code">The code as it was typed.</param>
public sealed record CodeRequest(Guid Session, string Code);
