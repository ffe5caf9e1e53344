using Fid.Data;

namespace Fid.Acts.SecondFactors;

/// <summary>Makes new recovery codes: those there were open nothing any more.</summary>
public sealed class RenewRecoveryCodes(FidDb db)
{
    /// <returns>The codes, which are told this once.</returns>
    public async Task<ActResult<string[]>> DoAsync(SessionRequest request, Actor actor, CancellationToken cancellation)
    {
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request, cancellation);
        if (await OwnSecondFactor.TakeAsync(db, actor, request.Session, cancellation) is not { Account.SecondFactorSince: not null } own)
            return Refusal.NotFound;
        var codes = own.FreshCodes();
        act.Note(own.Entry(actor, "secondFactor.codesRenewed"));
        await act.CommitAsync(cancellation);
        return codes;
    }
}
