using CsCheck;
using Fid.Core.People;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.People;

public class OrganisationTests
{
    [Theory]
    [InlineData(
        """{"people":[{"id":"c","manager":"b","dotted":["a"]},{"id":"b","manager":"a"},{"id":"a"},{"id":"d","manager":null}]}""",
        """{"loops":[],"depth":{"c":2,"b":1,"a":0,"d":0},"direct":{"c":0,"b":1,"a":1,"d":0},"all":{"c":0,"b":1,"a":2,"d":0},"tops":["a","d"]}"""
    )]
    [InlineData(
        """{"people":[{"id":"x","manager":"y"},{"id":"under","manager":"x"},{"id":"y","manager":"z"},{"id":"z","manager":"x"},{"id":"own","manager":"own"}]}""",
        """{"loops":[["x","y","z"],["own"]],"depth":{},"direct":{"x":2,"under":0,"y":1,"z":1,"own":1},"all":{"x":3,"under":0,"y":3,"z":3,"own":0},"tops":[]}"""
    )]
    public void Tells_who_stands_where_and_who_goes_round(string question, string answer) => Asked.Answer("people.org", question).ShouldBe(answer);

    [Theory]
    [InlineData("""{"people":[{"id":"a","manager":"b"}]}""", "/people/0/manager", "unknown-person")]
    [InlineData("""{"people":[{"id":"a","dotted":["a","b"]}]}""", "/people/0/dotted/1", "unknown-person")]
    [InlineData("""{"people":[{"id":"a"},{"id":"a"}]}""", "/people/1/id", "duplicate-id")]
    public void Somebody_who_is_not_there_is_named(string question, string path, string code) =>
        Asked.Problems("people.org", question).Select(p => (p.Path, p.Code)).ShouldBe([(path, code)]);

    [Fact]
    public void Counts_agree_with_walking_up_from_everybody() =>
        Gen.Int[-1, 11]
            .Array[1, 12]
            .Sample(managers =>
            {
                var people = managers.Select((m, i) => new OrganisationMember($"{i}", m < 0 || m >= managers.Length ? null : $"{m}", [])).ToList();
                var organisation = Organisation.Of(people).Answer!;
                var above = people.Select(p => Above(people, p)).ToList();
                foreach (var person in people)
                {
                    var chain = above[int.Parse(person.Id, System.Globalization.CultureInfo.InvariantCulture)];
                    if (organisation.Depth.TryGetValue(person.Id, out var depth))
                        depth.ShouldBe(chain.Count);
                    else
                        chain.Any(c => organisation.Loops.Any(l => l.Contains(c))).ShouldBeTrue();
                    organisation.All[person.Id].ShouldBe(people.Count(p => p != person && Above(people, p).Contains(person.Id)));
                    organisation.Loops.Any(l => l.Contains(person.Id)).ShouldBe(chain.Contains(person.Id));
                }
            });

    private static HashSet<string> Above(List<OrganisationMember> people, OrganisationMember person)
    {
        var above = new HashSet<string>();
        for (
            var at = person;
            at.Manager is { } manager && above.Add(manager);
            at = people[int.Parse(manager, System.Globalization.CultureInfo.InvariantCulture)]
        ) { }
        return above;
    }
}
