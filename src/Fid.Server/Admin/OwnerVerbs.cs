using System.Globalization;
using Fid.Acts.People;
using Fid.Data;
using Fid.Data.Changes;
using Npgsql;

namespace Fid.Server.Admin;

/// <summary>What whoever runs Fid does from the command line instead of serving it.</summary>
internal static class OwnerVerbs
{
    /// <summary>usage: migrate | audit verify [POSITION:HASH]. Answers the exit code; null where the server is to be started.</summary>
    public static async Task<int?> RunAsync(string[] args, string? connection)
    {
        if (args is not (["migrate", ..] or ["audit", ..]))
            return null;
        if (connection is null)
            return Fail("ConnectionStrings__Fid says where the database is.");
        await using var source = FidDatabase.Source(connection);
        await using var db = FidDatabase.Open(source);
        switch (args)
        {
            case ["migrate"]:
                await FidDatabase.MigrateAsync(db);
                return 0;
            case ["audit", "verify"]:
                return await VerifyAsync(db, source, null);
            case ["audit", "verify", var noted]:
                return Noted(noted) is { } link
                    ? await VerifyAsync(db, source, link)
                    : Fail($"“{noted}” is not a link that was noted down, such as 1042:9f86…, with 64 digits.");
            default:
                return Fail("usage: migrate | audit verify [POSITION:HASH]");
        }
    }

    private static async Task<int> VerifyAsync(FidDb db, NpgsqlDataSource source, (long, byte[])? noted)
    {
        await using var connection = await source.OpenConnectionAsync();
        var chain = await AuditChain.VerifyAsync(connection, noted, default);
        if (chain.Broken is not null)
            return Fail($"The chain is broken. {chain.Broken}");
        if (await ProjectionCheck.FirstWrongAsync(db, default) is { } wrong)
            return Fail($"The chain is whole, but a record does not follow from it. {wrong}");
        Console.WriteLine(FormattableString.Invariant($"The chain of {chain.Position} entries is whole, and every record follows from it."));
        if (chain.Position > 0)
            Console.WriteLine(
                FormattableString.Invariant(
                    $"Note down its end, to prove later that nothing was cut off: {chain.Position}:{Convert.ToHexStringLower(chain.Hash)}"
                )
            );
        return 0;
    }

    private static (long, byte[])? Noted(string text) =>
        text.Split(':') is [var position, { Length: 64 } hash]
        && long.TryParse(position, NumberStyles.None, CultureInfo.InvariantCulture, out var at)
        && at > 0
        && hash.All(char.IsAsciiHexDigit)
            ? (at, Convert.FromHexString(hash))
            : null;

    private static int Fail(string message)
    {
        Console.Error.WriteLine(message);
        return 1;
    }
}
