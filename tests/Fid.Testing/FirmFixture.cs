using System.Collections.Concurrent;
using System.Text.Json.Nodes;
using Fid.Acts.People;
using Shouldly;
using Xunit;

namespace Fid.Testing;

/// <summary>The demonstration firm on a server of a test class's own.</summary>
public class FirmFixture : IAsyncLifetime
{
    private readonly ConcurrentDictionary<string, Caller> _signedIn = [];

    public TestDatabase Database { get; private set; } = null!;

    public FidInstance Server { get; private set; } = null!;

    protected virtual string? WebRoot => null;

    public async ValueTask InitializeAsync()
    {
        Database = await TestDatabase.CloneAsync();
        Server = new FidInstance(Database.Connection, WebRoot);
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var caller in _signedIn.Values)
            caller.Dispose();
        await Server.DisposeAsync();
        await Database.DisposeAsync();
        GC.SuppressFinalize(this);
    }

    /// <summary>
    /// A browser of somebody of the demonstration, by given name. They sign in once, and again when their session has ended: a class of many
    /// tests would come near the limit of tries.
    /// </summary>
    public async Task<Caller> As(string who)
    {
        if (_signedIn.TryGetValue(who, out var known))
        {
            var caller = known.CopyOfCookies();
            using var session = await caller.SendAsync("GET", "/api/session");
            if ((await session.JsonAsync())["user"] is not null)
                return caller;
            caller.Dispose();
            known.Dispose();
        }
        _signedIn[who] = await Caller.SignedInAsync(Server.Address, who);
        return _signedIn[who].CopyOfCookies();
    }

    /// <summary>That the projection of every record follows from its values.</summary>
    public async Task EveryProjectionFollowsAsync()
    {
        await using var acts = new ActCaller(Server);
        (await ProjectionCheck.FirstWrongAsync(acts.Db, default)).ShouldBeNull();
    }

    /// <summary>A hire of the demonstration by family name.</summary>
    public static async Task<JsonNode> HireAsync(Caller caller, string family) =>
        (await caller.GetAsync("/api/arrivals"))["hires"]!.AsArray().Single(h => h!.Text("familyName") == family)!;
}
