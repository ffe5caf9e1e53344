using System.Text.Json.Nodes;
using Fid.Testing;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>A draft that could not be thrown away is still there, and whoever tried is told.</summary>
public class DiscardTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Theory]
    [InlineData("/fields", "*/api/fields/draft")]
    [InlineData("/templates/galley-cook", "*/api/templates/galley-cook/draft")]
    public async Task What_did_not_arrive_is_told_and_the_draft_stays(string page, string call)
    {
        using (var caller = await firm.As("orla"))
        {
            if (page == "/fields")
            {
                var configuration = (await caller.GetAsync("/api/fields"))["configuration"]!.AsObject();
                configuration["fields"]![0]!["label"]!["en"] = "Begun";
                (
                    await caller.SendAsync("PUT", "/api/fields/draft", new JsonObject { ["configuration"] = configuration.DeepClone() }.ToJsonString())
                ).EnsureSuccessStatusCode();
            }
            else
                await caller.DraftAsync("galley-cook", (await caller.GetAsync("/api/templates/galley-cook"))["live"]!, null);
        }
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        See(orla, page);
        orla.CutOff(call);
        orla.Script("window.confirm = () => true");
        orla.Button("Discard the draft").Click();
        orla.SeeText("There is no connection to the server.");
        orla.Button("Discard the draft");
        // And so it is for whoever comes later.
        See(orla, page);
    }

    // Of a template it stands among what is done seldom.
    private static void See(Browser orla, string page)
    {
        orla.Open(page);
        orla.SeeText("Publish");
        if (page != "/fields")
            orla.Script("document.querySelectorAll('details').forEach((d) => (d.open = true))");
        orla.Button("Discard the draft");
    }
}
