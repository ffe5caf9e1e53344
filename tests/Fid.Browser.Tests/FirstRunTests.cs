using System.Security.Cryptography;
using System.Text;
using Fid.Testing;
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
        await database.AskAsync(
            "insert into setup_tokens (id, hash, created_at) values (gen_random_uuid(), "
                + $"'{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes("known")))}', now())"
        );
        using var visitor = new Browser(server.Address);
        visitor.Open("/");
        visitor.Heading("Set up your firm");
        visitor.Button("Create the firm").Click();
        visitor.SeeText("entries are not right:");
        visitor.IsAccessible("first run with errors");
        foreach (
            var (label, text) in new[]
            {
                ("Token", "known"),
                ("Name of the firm", "Small Firm"),
                ("Your name", "Ada Quilty"),
                ("Your e-mail", "ada@example.org"),
                ("A password", "a long enough one"),
                ("Time zone", "Europe/Dublin"),
            }
        )
            visitor.Write(label, text);
        visitor.Button("Create the firm").Click();
        // From nothing to the first hire without leaving the application.
        visitor.Heading("Set up the firm");
        visitor.SeeText("7 lists are still missing before the first hire can be opened.");
        visitor.IsAccessible("setting up");
        visitor.Open("/arrivals");
        visitor.Heading("Nobody is arriving.");
        visitor.IsAccessible("empty Arrivals");
        visitor.Link("Set up the firm first").Click();
        visitor.Heading("Set up the firm");
        visitor.PressIn("Sites", "Look and edit");
        visitor.Fill("Name, 1", OpenQA.Selenium.Keys.Delete);
        visitor.Button("Take these").Click();
        visitor.SeeText("Fill this in.");
        visitor.Fill("Name, 1", "Harbour");
        visitor.SeeText("There is no entry “weekdays”.");
        foreach (
            var list in new[]
            {
                "Holiday calendars",
                "Departments",
                "Pay groups",
                "Jobs",
                "Shift patterns",
                "Device groups",
                "Clock devices",
                "Kinds of employment",
                "Teams",
            }
        )
            TakeAll(visitor, list);
        visitor.Button("Take these").Click();
        visitor.SeeIn("Sites", "1 entry");
        TakeAll(visitor, "Role templates");
        visitor.SeeText("Everything is there to open the first hire.");
        // The first colleague is invited where the firm is set up.
        visitor.SeeText("So far you are the only one.");
        visitor.Button("Invite somebody").Click();
        visitor.Write("Name", "Ben Colleague");
        visitor.Write("E-mail, to sign in with", "ben@example.org");
        visitor.Checkbox("Coordinator").Click();
        visitor.PressLast("Invite");
        visitor.SeeText("Give Ben Colleague this link");
        visitor.Button("Done").Click();
        visitor.SeeText("2 people can sign in or are invited.");
        visitor.Link("Open the first hire").Click();
        foreach (var (label, text) in new[] { ("Given name", "Ida"), ("Family name", "Moen"), ("E-mail", "ida@example.org"), ("Start", "+20wd") })
            visitor.Write(label, text);
        visitor.Pick("Role template", "staff", "Member of staff");
        visitor.Pick("Site", "harb", "Harbour");
        visitor.SeeText("Everything can be ready by");
        visitor.Button("Open the hire").Click();
        visitor.Heading("Ida Moen");

        visitor.Open("/tasks");
        visitor.SeeText("Send the contract");
        visitor.Resize(390, 844);
        visitor.Open("/setup");
        visitor.SeeText("Everything is there");
        visitor.IsAccessible("set up, telephone");
    }

    private static void TakeAll(Browser visitor, string list)
    {
        visitor.PressIn(list, "Take all as they are");
        visitor.SeeIn(list, "✓");
    }
}
