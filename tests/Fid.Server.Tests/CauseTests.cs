using System.Text.Json.Nodes;
using Fid.Testing;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>What is to be mended first is told from what only follows from it, in sheets and in the grid of many hires.</summary>
public class CauseTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task A_row_that_refers_to_one_that_is_not_right_names_it_and_stays_in_sight_when_that_is_mended()
    {
        using var orla = await firm.As("orla");
        var run = await orla.ImportAsync(
            "departments",
            "Code,Name,Part of,Cost centre\nlofts,Lofts,office,\nlooms,Looms,weavers,\nweavers,Weavers,office,no-such\nsheds,Sheds,looms,\n"
        );
        run.Counts().ShouldBe([1, 0, 0, 3, 0]);
        var wrong = await orla.RowsAsync(run, "wrong");
        wrong.Select(r => (r["number"]!.GetValue<int>(), Follows(r))).ShouldBe([(2, "row 3"), (3, ""), (4, "row 2")]);

        run = await orla.OnAsync(
            run,
            "PUT",
            "cells",
            new
            {
                row = 3,
                column = 3,
                text = "",
                allLike = false,
            }
        );
        run.Counts()[3].ShouldBe(0);
        (await orla.RowsAsync(run, "wrong")).ShouldBeEmpty();
        (await orla.RowsAsync(run, "wrong&also=3&also=99")).Select(r => r["number"]!.GetValue<int>()).ShouldBe([3]);
        using var many = await orla.SendAsync(
            "GET",
            $"/api/imports/{run.Text("id")}/rows?{string.Join('&', Enumerable.Range(1, 201).Select(i => $"also={i}"))}"
        );
        (await many.ErrorsAsync()).ShouldBe([("/also", "too-long")]);
    }

    [Fact]
    public async Task What_a_template_cannot_give_because_a_cell_is_not_right_follows_from_that_cell()
    {
        using var orla = await firm.As("orla");
        var spec = (await orla.GetAsync("/api/templates/deckhand"))["live"]!.DeepClone();
        (spec["name"], spec["nameDe"], spec["values"]!["site"]) = ("Told by the room", null, new JsonObject { ["formula"] = "room" });
        await orla.PublishAsync("by-room", (await orla.DraftAsync("by-room", spec, null)).Text("version"));

        var room = new string('x', 201);
        var run = await orla.ImportAsync(
            "people",
            "Role template,Start date,Given name,Family "
                + $"name,E-mail,Room\nby-room,2027-05-03,Nan,Causeway,nan@example.org,{room}\nby-room,2027-05-03,Nan,Causeway,nan@example.org,\n"
        );
        var rows = await orla.RowsAsync(run, "wrong");
        rows[0]["problems"]!
            .AsArray()
            .Select(p => $"{p!.Text("column")} {p!["follows"]?["column"]}")
            .ShouldBe(["room ", "site room"], customMessage: rows[0].ToJsonString());
        rows[1]["problems"]!.AsArray().Select(p => $"{p!.Text("column")} {p!["follows"]?["column"]}").ShouldContain("site ");

        var hire = Records.NewHire("Nan", "Causeway");
        hire["template"] = "by-room";
        hire["typed"] = new JsonObject
        {
            ["given_name"] = "Nan",
            ["family_name"] = "Causeway",
            ["email"] = "nan@example.org",
            ["room"] = room,
        };
        using var refused = await orla.SendAsync("POST", "/api/hires", hire.ToJsonString());
        (await refused.JsonAsync())["errors"]!
            .AsArray()
            .Select(e => $"{e!.Text("pointer")} {e!["follows"]}")
            .ShouldBe(["/typed/room ", "/typed/site /typed/room"]);
    }

    private static string Follows(JsonNode row) => row["problems"]![0]!["follows"] is { } cause ? $"row {cause["row"]}" : "";
}
