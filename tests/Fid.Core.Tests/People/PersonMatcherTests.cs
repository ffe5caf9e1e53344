using System.Text.Json.Nodes;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.People;

public class PersonMatcherTests
{
    private const string Ines = "\"given\":\"Ines\",\"family\":\"Moreau\",\"born\":\"1998-03-04\"";

    [Theory]
    [InlineData(Ines, Ines, "same", "name,born")]
    [InlineData("\"given\":\"inés\",\"family\":\"MOREAU\",\"born\":\"1998-03-04\"", Ines, "same", "name,born")]
    [InlineData("\"given\":\"Moreau\",\"family\":\"Ines\",\"born\":\"1998-03-04\"", Ines, "same", "swappedNames,born")]
    [InlineData("\"given\":\"Moreau\",\"family\":\"Ines\",\"born\":\"1998-04-03\"", Ines, "possible", "swappedNames,swappedBirthDate")]
    [InlineData(
        "\"given\":\"Moreau\",\"family\":\"Ines\",\"born\":\"1998-04-03\",\"email\":\"a@x.example\",\"phone\":\"0871234567\"",
        Ines + ",\"email\":\"b@x.example\",\"phone\":\"0869876543\"",
        "possible",
        "swappedNames,swappedBirthDate"
    )]
    [InlineData("\"given\":\"Moraeu\",\"family\":\"Ines\",\"born\":\"1998-04-03\"", Ines, "possible", "swappedNames,swappedBirthDate")]
    [InlineData("\"given\":\"Ines\",\"family\":\"Moraeu\",\"born\":\"1998-03-04\"", Ines, "same", "similarName,born")]
    [InlineData("\"given\":\"Ines\",\"family\":\"Moreau\",\"born\":\"1998-04-03\"", Ines, "possible", "name,swappedBirthDate")]
    [InlineData("\"given\":\"Ines\",\"family\":\"Lindqvist\",\"born\":\"1998-03-04\"", Ines, "possible", "similarName,born")]
    [InlineData("\"given\":\"Ines\",\"family\":\"Lindqvist\",\"born\":\"1998-03-04\"", Ines + ",\"otherNames\":[\"Lindqvist\"]", "same", "otherName,born")]
    [InlineData(
        "\"given\":\"Ines\",\"family\":\"Lindqvist\",\"born\":\"1998-03-04\"",
        Ines + ",\"otherNames\":[{\"given\":\"Ines\",\"family\":\"Lindqvist\"}]",
        "same",
        "otherName,born"
    )]
    [InlineData(
        "\"given\":\"Bill\",\"family\":\"O'Hara\",\"phone\":\"+353 87 555 0101\"",
        "\"given\":\"William\",\"family\":\"OHara\",\"phone\":\"087 5550101\"",
        "same",
        "name,phone"
    )]
    [InlineData("\"given\":\"Jane\",\"family\":\"Doe\",\"identifier\":\"77 1234-q\"", Ines + ",\"identifier\":\"771234Q\"", "same", "identifier")]
    [InlineData("\"given\":\"Ines\",\"family\":\"Moreau\"", "\"given\":\"Ines\",\"family\":\"Moreau\"", "possible", "name")]
    [InlineData("\"given\":\"Ines\",\"family\":\"Moreau\",\"born\":\"1971-08-19\"", Ines, null, "")]
    [InlineData("\"given\":\"Otto\",\"family\":\"Zamvik\",\"born\":\"1998-03-04\"", Ines, null, "")]
    public void Somebody_is_known_again_as_a_person_would_know_them(string person, string known, string? verdict, string reasons)
    {
        var match = JsonNode.Parse(Asked.Answer("people.match", $$"""{"person":{{{person}}},"known":[{"id":"a",{{known}}}]}"""))!["matches"]!
            .AsArray()
            .SingleOrDefault();
        ((string?)match?["verdict"], match is null ? "" : string.Join(',', match["reasons"]!.AsArray().Select(r => (string)r!))).ShouldBe((verdict, reasons));
        // Whoever is who, it does not matter which of the two is looked for.
        var other = JsonNode.Parse(Asked.Answer("people.match", $$"""{"person":{{{known}}},"known":[{"id":"a",{{person}}}]}"""))!["matches"]!
            .AsArray()
            .SingleOrDefault();
        (other?["score"]?.ToJsonString()).ShouldBe(match?["score"]?.ToJsonString());
    }

    [Fact]
    public void The_likeliest_stands_first() =>
        JsonNode.Parse(
            Asked.Answer(
                "people.match",
                $$"""{"person":{{{Ines}}},"known":[{"id":"sister","given":"Iris","family":"Moreau","born":"1998-03-04"},{"id":"herself",{{Ines}}},"""
                    + $$"""{"id":"nobody","given":"Otto","family":"Zamvik"}]}"""
            )
        )!["matches"]!
            .AsArray()
            .Select(m => (string)m!["id"]!)
            .ShouldBe(["herself", "sister"]);

    [Theory]
    [InlineData("""{"person":{"given":"A","family":"B","born":"1998-02-30"},"known":[]}""", "/person/born", "bad-date")]
    [InlineData("""{"person":{"given":"A","family":"B"},"known":[{"given":"A","family":"B"}]}""", "/known/0/id", "missing-property")]
    [InlineData("""{"person":{"given":"A","family":"B"},"known":[{"id":"x","given":"A","family":"B","age":3}]}""", "/known/0/age", "unknown-property")]
    [InlineData(
        """{"person":{"given":"A","family":"B"},"known":[{"id":"x","given":"A","family":"B"},{"id":"x","given":"C","family":"D"}]}""",
        "/known",
        "duplicate-id"
    )]
    public void A_question_that_is_wrong_is_told_where(string question, string path, string code) =>
        Asked.Problems("people.match", question).Select(p => (p.Path, p.Code)).ShouldBe([(path, code)]);

    [Fact]
    public void Among_five_thousand_people_nearly_all_are_known_again_and_hardly_a_stranger_is_taken_for_one()
    {
        var (precision, recall, _) = MatchTrial.Run();
        precision.ShouldBeGreaterThanOrEqualTo(0.97);
        recall.ShouldBeGreaterThanOrEqualTo(0.95);
    }
}
