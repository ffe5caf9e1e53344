using System.Text.Json.Nodes;
using Fid.Acts.People;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>The demonstration firm on a server of a test class's own.</summary>
public class FirmFixture : IAsyncLifetime
{
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
        await Server.DisposeAsync();
        await Database.DisposeAsync();
        GC.SuppressFinalize(this);
    }

    public Task<Caller> As(string who) => Caller.SignedInAsync(Server.Address, who);

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
