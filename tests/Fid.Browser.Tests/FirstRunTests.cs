using System.Security.Cryptography;
using System.Text;
using Fid.Server.Tests;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>An empty Fid: its first visit, and its first place, with nothing in it yet.</summary>
public class FirstRunTests
{
    [Fact]
    public async Task The_first_visit_creates_the_firm_and_shows_what_comes_here()
    {
        await using var database = await TestDatabase.EmptyAsync();
        await using var server = new FidInstance(database.Connection, Repository.WebBuild);
        await database.AskAsync($"insert into setup_tokens (id, hash, created_at) values (gen_random_uuid(), '{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes("known")))}', now())");
        using var visitor = new Browser(server.Address);
        visitor.Open("/");
        visitor.Heading("Set up your firm");
        visitor.Button("Create the firm").Click();
        visitor.SeeText("entries are not right:");
        visitor.IsAccessible("first run with errors");
        foreach (var (label, text) in new[] { ("Token", "known"), ("Name of the firm", "Small Firm"), ("Your name", "Ada Quilty"), ("Your e-mail", "ada@example.org"), ("A password", "a long enough one"), ("Time zone", "Europe/Dublin") })
            visitor.Write(label, text);
        visitor.Button("Create the firm").Click();
        visitor.Heading("Nobody is arriving.");
        visitor.SeeText("Open the first hire");
        visitor.IsAccessible("empty Arrivals");
        visitor.Open("/tasks");
        visitor.SeeText("Your list is empty");
        visitor.IsAccessible("empty My tasks");
        visitor.Resize(390, 844);
        visitor.IsAccessible("empty My tasks, telephone");
    }
}
