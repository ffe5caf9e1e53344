using System.Text;
using System.Text.Json.Nodes;
using Fid.Core.Fields;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Fields;

public class ConfigurationDifferenceTests
{
    [Fact]
    public void The_order_in_which_names_are_kept_makes_no_difference()
    {
        var kept = (JsonObject)Backwards(JsonNode.Parse(FieldConfiguration.Shipped.Write())!);
        var read = FieldConfiguration.Read(Encoding.UTF8.GetBytes(kept.ToJsonString())).Answer!;
        ConfigurationDifference.Of(FieldConfiguration.Shipped, read).ShouldBeEmpty();
        read.Write().ShouldBe(FieldConfiguration.Shipped.Write());
    }

    [Fact]
    public void What_is_added_changed_moved_and_gone_is_told_apart()
    {
        var from = Read("""{"key":"a","type":"text","label":{"en":"A"}}""", """{"key":"b","type":"text"}""", """{"key":"c","type":"text"}""");
        var to = Read("""{"key":"c","type":"text"}""", """{"key":"a","type":"text","label":{"en":"An A"},"unique":true}""", """{"key":"d","type":"date"}""");
        ConfigurationDifference
            .Of(from, to)
            .Select(d => (d.Field, d.Kind, string.Join(' ', d.Parts.Select(p => $"{p.Part}:{p.Before}>{p.After}"))))
            .ShouldBe([
                ("a", DifferenceKind.Changed, """label:{"en":"A"}>{"en":"An A"} unique:>true"""),
                ("d", DifferenceKind.Added, ""),
                ("b", DifferenceKind.Removed, ""),
                (null, DifferenceKind.Moved, ""),
            ]);
    }

    [Theory]
    [InlineData(
        """{"key":"a","type":"text","label":{"en":"B"},"section":"s","access":{"manager":"view"},"unique":true,"pattern":"x+","onChange":["""
            + """{"set":"b","formula":"1"}]}""",
        false
    )]
    [InlineData("""{"key":"a","type":"number"}""", true)]
    [InlineData("""{"key":"a","type":"text","of":"person"}""", true)]
    [InlineData("""{"key":"a","type":"text","required":"always"}""", true)]
    [InlineData("""{"key":"a","type":"text","requiredWhen":"b = 1"}""", true)]
    [InlineData("""{"key":"a","type":"text","showWhen":"b = 1"}""", true)]
    [InlineData("""{"key":"a","type":"text","sensitive":true}""", true)]
    [InlineData("""{"key":"a","type":"text"},{"key":"c","type":"text"}""", true)]
    public void Records_are_counted_anew_only_for_what_can_change_their_count(string after, bool counts)
    {
        var from = Read("""{"key":"a","type":"text"}""", """{"key":"b","type":"number"}""");
        ConfigurationDifference.Of(from, Read(after, """{"key":"b","type":"number"}""")).Any(d => d.CanChangeCompleteness).ShouldBe(counts);
    }

    private static FieldConfiguration Read(params string[] fields) =>
        FieldConfiguration.Read(Encoding.UTF8.GetBytes($$"""{"sections":[],"fields":[{{string.Join(',', fields)}}]}""")).Answer!;

    private static JsonNode Backwards(JsonNode node) =>
        node switch
        {
            JsonObject o => new JsonObject(o.Reverse().Select(p => KeyValuePair.Create(p.Key, p.Value is null ? null : Backwards(p.Value)))),
            JsonArray a => new JsonArray([.. a.Select(n => n is null ? null : Backwards(n))]),
            _ => node.DeepClone(),
        };
}
