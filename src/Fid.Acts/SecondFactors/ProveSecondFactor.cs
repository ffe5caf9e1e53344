using Fid.Data;
using Microsoft.EntityFrameworkCore;

namespace Fid.Acts.SecondFactors;

/// <summary>Proves by a code of the authenticator, or one for recovery, who somebody is: each code once.</summary>
public sealed class ProveSecondFactor(FidDb db, Authenticator authenticator)
{
    public async Task<ActResult> DoAsync(CodeRequest request, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request.Session, cancellation);
        if (await OwnSecondFactor.TakeAsync(db, actor, request.Session, cancellation) is not { Account.SecondFactorSince: not null } own)
            return Refusal.NotFound;
        var account = own.Account;
        var step = account.AuthenticatorKey is { } key ? authenticator.StepOf(account.Id, key, Digits(request.Code), actor.Clock.Now) : null;
        var recovery = RecoveryCodes.HashOf(request.Code);
        if (step > account.AuthenticatorStep)
            account.AuthenticatorStep = step.Value;
        else if (account.RecoveryCodes.Contains(recovery))
        {
            account.RecoveryCodes = [.. account.RecoveryCodes.Where(c => c != recovery)];
            act.Note(own.Entry(actor, "secondFactor.recovered"));
        }
        else
            return Wrong;
        own.Session.ProvedAt = actor.Clock.Now;
        await act.CommitAsync(cancellation);
        return ActResult.Done;
    }

    /// <summary>What is said of a code that is not right, or was taken before.</summary>
    public static Refusal Wrong { get; } = Refusal.Invalid("/code", "wrong-code", "This code is not right, or was used before. Wait for the next one.");

    /// <summary>The digits of a code: many write a space between them.</summary>
    internal static string Digits(string code) => string.Concat(code.Where(char.IsAsciiDigit));
}
