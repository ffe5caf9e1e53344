using System.Text.Json;
using CsCheck;
using Fid.Core.Templates;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Templates;

public class LayeringTests
{
    [Fact]
    public void The_later_layer_wins_and_the_trail_is_kept()
    {
        var rate = Layering.Merge([Values("basics", ("pay_rate", 16.1)), Values("deckhand", ("pay_rate", 17.4)), Values("typed", ("pay_rate", 18))]).Values["pay_rate"];
        (rate.Value.GetDouble(), rate.From).ShouldBe((18, "typed"));
        rate.Displaced.Select(d => (d.From, d.Value.GetDouble())).ShouldBe([("deckhand", 17.4), ("basics", 16.1)]);
    }

    [Fact]
    public void Tasks_merge_property_by_property_in_the_order_of_first_appearance()
    {
        var merged = Layering.Merge([Tasks("basics", T("radio", ("work", 8)), T("kit", ("work", 1))), Tasks("addOn", T("pass", ("work", 2)), T("radio", ("owner", 5)))]);
        merged.Tasks.Select(t => t.Key).ShouldBe(["radio", "kit", "pass"]);
        merged.Tasks[0].Properties.Select(p => (p.Key, p.Value.From)).ShouldBe([("work", "basics"), ("owner", "addOn")]);
    }

    [Fact]
    public void A_dropped_task_is_named_and_a_later_layer_brings_it_back()
    {
        var drop = Tasks("seasonal", new LayerTask("kit", new Dictionary<string, JsonElement>(), Drop: true));
        var basics = Tasks("basics", T("kit", ("work", 1)));
        Layering.Merge([basics, drop]).Dropped.ShouldBe([new DroppedTask("kit", "seasonal")]);
        var back = Layering.Merge([basics, drop, Tasks("site", T("kit", ("work", 3)))]);
        back.Dropped.ShouldBeEmpty();
        back.Tasks.Single().Properties["work"].Value.GetInt32().ShouldBe(3);
    }

    [Fact]
    public void Empty_fields_are_filled_from_the_lists_and_set_ones_are_left()
    {
        var filled = StartingValues.Fill(Layering.Merge([Values("skerry", ("cost_centre", 410))]), new KnownFacts("islands", "400", "900", "manager above", "head", "000007"));
        filled.Select(v => (v.Key, v.Value.Value.ToString(), v.Value.From)).ShouldBe(
            [("cost_centre", "410", "skerry"), ("holiday_calendar", "islands", StartingValues.FromSite), ("manager", "manager above", StartingValues.FromSeat), ("badge", "000007", StartingValues.NextFree)]);
    }

    [Fact]
    public void What_is_typed_always_wins_and_an_empty_layer_changes_nothing() => Gen.Int[0, 9].Array[1, 6].Sample(rates =>
    {
        var layers = rates.Select((r, i) => Values($"l{i}", ("pay_rate", r), ($"own{i}", i))).ToList();
        var typed = Values(Layer.Typed, ("pay_rate", -1));
        Layering.Merge([.. layers, typed]).Values["pay_rate"].From.ShouldBe(Layer.Typed);
        layers.Insert(rates.Length / 2, Values("empty"));
        Layering.Merge(layers).Values.Select(v => (v.Key, v.Value.Value.GetDouble(), v.Value.From))
            .ShouldBe(Layering.Merge([.. layers.Where(l => l.Id != "empty")]).Values.Select(v => (v.Key, v.Value.Value.GetDouble(), v.Value.From)));
    });

    private static Layer Values(string id, params (string, double)[] values) => new(id, Dictionary(values), []);

    private static Layer Tasks(string id, params LayerTask[] tasks) => new(id, new Dictionary<string, JsonElement>(), tasks);

    private static LayerTask T(string key, params (string, double)[] properties) => new(key, Dictionary(properties));

    private static Dictionary<string, JsonElement> Dictionary((string Name, double Value)[] pairs) =>
        pairs.ToDictionary(p => p.Name, p => JsonSerializer.SerializeToElement(p.Value));
}
