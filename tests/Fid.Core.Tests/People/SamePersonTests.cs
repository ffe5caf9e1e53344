using CsCheck;
using Fid.Core.People;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.People;

/// <summary>Looking only for the same person finds those that looking for everybody alike takes to be the same.</summary>
public class SamePersonTests
{
    private static readonly Gen<PersonFacts> Person = Gen.Select(
            One("Ines", "Inès", "Agnes", "Tomasz", "Thomas"),
            One("Varga", "Vargas", "Brandt"),
            One<LocalDate?>(null, new LocalDate(1998, 4, 12), new LocalDate(1998, 12, 4), new LocalDate(1990, 1, 1)),
            One(null, "ines@example.org", "INES@example.org ", "other@example.org"),
            One(null, "+353 1 555 0142", "01 555 0142", "12"),
            One(null, "AB 12", "ab-12", "CD34")
        )
        .Select(p => new PersonFacts(p.Item1!, p.Item2!, p.Item3, p.Item4, p.Item5, p.Item6));

    private static Gen<T> One<T>(params T[] all) => Gen.Int[0, all.Length - 1].Select(i => all[i]);

    [Fact]
    public void They_are_the_same_in_the_same_order() =>
        Gen.Select(Person, Person.List[0, 12])
            .Sample(
                (wanted, known) =>
                {
                    var matcher = new PersonMatcher(known.Select((k, i) => ($"{i}", k)));
                    matcher.FindSame(wanted).Select(m => (m.Id, m.Score)).ShouldBe(matcher.Find(wanted).Where(m => m.IsSame).Select(m => (m.Id, m.Score)));
                },
                iter: 3000
            );

    [Fact]
    public void By_the_name_alone_nobody_is_the_same()
    {
        var known = new PersonMatcher([("1", new PersonFacts("Ines", "Varga")), ("2", new PersonFacts("Ines", "Varga", new LocalDate(1998, 4, 12)))]);
        known.FindSame(new PersonFacts("Ines", "Varga")).ShouldBeEmpty();
        known.FindSame(new PersonFacts("Ines", "Varga", new LocalDate(1998, 4, 12))).Select(m => m.Id).ShouldBe(["2"]);
    }
}
