using System.Security.Claims;
using System.Text.Json;
using Fid.Acts;
using Fid.Data;
using Fid.Data.Changes;
using Microsoft.EntityFrameworkCore;

namespace Fid.Server.Platform;

/// <summary>Puts into the trail, chained like all else in it, who signed in and who tried to, what was refused, and what left Fid.</summary>
internal static class SecurityTrail
{
    public const string SignedIn = "session.begun",
        SignedOut = "session.ended",
        WrongPassword = "session.refused",
        SlowedDown = "session.slowed",
        AllEnded = "session.allEnded",
        PasswordChanged = "password.changed",
        Refused = "access.refused",
        Exported = "data.exported",
        ViewedAs = "session.viewedAs",
        WrongFactor = "secondFactor.refused",
        IssuerRefused = "session.issuerRefused",
        DisabledAccount = "account.refused";

    /// <summary>The actions an administrator reads under security, in no order.</summary>
    public static IReadOnlyList<string> Actions { get; } =
    [
        SignedIn,
        SignedOut,
        WrongPassword,
        SlowedDown,
        AllEnded,
        PasswordChanged,
        Refused,
        Exported,
        ViewedAs,
        "field.revealed",
        "fields.published",
        "fields.widenAsked",
        "feed.address",
        "firm.created",
        DisabledAccount,
        WrongFactor,
        IssuerRefused,
        "account.issuerLinked",
        "secondFactor.added",
        "secondFactor.removed",
        "secondFactor.codesRenewed",
        "secondFactor.recovered",
        "secondFactor.cleared",
        "account.invited",
        "account.accepted",
        "account.changed",
        "account.linkMade",
        "account.passwordSet",
        "account.disabled",
        "account.enabled",
        "account.sessionsEnded",
        "calendarLink.made",
        "calendarLink.ended",
        "absence.entered",
        "absence.ended",
        "role.granted",
        "role.taken",
        "rights.published",
        "rights.widenAsked",
    ];

    /// <summary>An entry about somebody who acts.</summary>
    public static Task NoteAsync(FidDb db, Actor actor, HttpContext http, string action, string? part, CancellationToken cancellation) =>
        KeepAsync(db, actor.Author("session").Change(action, actor.Account, part), http, cancellation);

    /// <summary>An entry about somebody signed in.</summary>
    public static Task NoteAsync(
        FidDb db,
        ClaimsPrincipal user,
        FirmClock clock,
        HttpContext http,
        string action,
        string? part,
        CancellationToken cancellation
    ) => KeepAsync(db, user.Author(clock, "session").Change(action, user.Id(), part), http, cancellation);

    /// <summary>An entry about somebody who is not, or not yet.</summary>
    /// <param name="account">The account it is about; null where there is none of that name.</param>
    public static async Task NoteAsync(
        FidDb db,
        FirmClock clock,
        HttpContext http,
        string action,
        (Guid Id, string Name)? account,
        string? part,
        CancellationToken cancellation
    )
    {
        var subject = account?.Id ?? await db.Firms.Select(f => f.Id).SingleOrDefaultAsync(cancellation);
        await KeepAsync(db, new Author(account?.Id, account?.Name ?? "", clock.Now, "session").Change(action, subject, part), http, cancellation);
    }

    // With the address it came from.
    private static Task<int> KeepAsync(FidDb db, Change change, HttpContext http, CancellationToken cancellation)
    {
        db.Changes.Add(change with { Details = JsonSerializer.Serialize(new { address = http.Connection.RemoteIpAddress?.ToString() }) });
        return db.SaveChangesAsync(cancellation);
    }
}
