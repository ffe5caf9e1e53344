using CsCheck;
using Fid.Core.Certificates;
using NodaTime;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Certificates;

public class CertificateStateTests
{
    private static readonly LocalDate Today = new(2027, 3, 22);

    [Fact]
    public void A_run_without_a_gap_is_one_and_a_gap_of_a_day_ends_it() =>
        Asked
            .Answer(
                "certificates.state",
                """
                {"today":"2027-03-22","warn":[90,30,7],"needed":[{"kind":"radar","essential":true},{"kind":"first-aid","essential":true}],"held":[
                  {"kind":"radar","from":"2027-04-01","to":"2028-03-31"},{"kind":"radar","from":"2026-04-01","to":"2027-03-31"},
                  {"kind":"first-aid","from":"2026-04-01","to":"2027-03-31"},{"kind":"first-aid","from":"2027-04-02","to":"2028-04-01"},
                  {"kind":"wings","from":"2027-03-23"},{"kind":"boat","from":"2019-06-01"}]}
                """
            )
            .ShouldBe(
                """
                {"certificates":[{"kind":"radar","state":"valid","until":"2028-03-31","warning":null,"next":"2028-01-01"},
                {"kind":"first-aid","state":"expiring","until":"2027-03-31","warning":30,"next":"2027-03-24"},
                {"kind":"boat","state":"valid","until":null,"warning":null,"next":null},
                {"kind":"wings","state":"missing","until":null,"warning":null,"next":"2027-03-23"}],"ready":true}
                """.ReplaceLineEndings("")
            );

    [Theory]
    // As many days left as are warned at, one more, and the last day itself.
    [InlineData("2027-04-21", "expiring", 30, "2027-04-14")]
    [InlineData("2027-04-22", "expiring", 90, "2027-03-23")]
    [InlineData("2027-06-20", "expiring", 90, "2027-05-21")]
    [InlineData("2027-06-21", "valid", null, "2027-03-23")]
    [InlineData("2027-03-22", "expiring", 7, "2027-03-23")]
    [InlineData("2027-03-21", "expired", null, null)]
    public void What_is_left_is_counted_to_the_last_day(string until, string state, int? warning, string? next) =>
        Asked
            .Answer(
                "certificates.state",
                $$"""{"today":"2027-03-22","warn":[7,90,30],"needed":[],"held":[{"kind":"x","from":"2020-01-01","to":"{{until}}"}]}"""
            )
            .ShouldBe(
                $$"""{"certificates":[{"kind":"x","state":"{{state}}","until":"{{until}}","warning":{{Json(warning)}},"next":{{Json(next)}}}],"ready":true}"""
            );

    private static string Json(object? value) => System.Text.Json.JsonSerializer.Serialize(value);

    [Theory]
    [InlineData("true", "", "false")]
    [InlineData("false", "", "true")]
    [InlineData("true", """{"kind":"x","from":"2027-03-22","to":"2027-03-22"}""", "true")]
    [InlineData("true", """{"kind":"x","from":"2027-03-23"}""", "false")]
    [InlineData("true", """{"kind":"x","from":"2027-01-01","to":"2027-03-21"}""", "false")]
    public void Nobody_is_ready_without_what_is_essential(string essential, string held, string ready) =>
        Asked
            .Answer("certificates.state", $$"""{"today":"2027-03-22","warn":[],"needed":[{"kind":"x","essential":{{essential}}}],"held":[{{held}}]}""")
            .ShouldEndWith($"\"ready\":{ready}}}");

    [Theory]
    [InlineData("[30,-1]", "[]", "[]", "/warn/1", "out-of-range")]
    [InlineData("[]", """[{"kind":"x","essential":true},{"kind":"x","essential":false}]""", "[]", "/needed/1", "duplicate-kind")]
    [InlineData("[]", "[]", """[{"kind":"x","from":"2027-01-02","to":"2027-01-01"}]""", "/held/0/to", "not-in-order")]
    [InlineData("[]", "[]", """[{"kind":"","from":"2027-01-02"}]""", "/held/0/kind", "bad-value")]
    public void What_cannot_be_asked_is_told(string warn, string needed, string held, string path, string code) =>
        Asked
            .Problems("certificates.state", $$"""{"today":"2027-03-22","warn":{{warn}},"needed":{{needed}},"held":{{held}}}""")
            .Select(p => (p.Path, p.Code))
            .ShouldContain((path, code));

    [Fact]
    public void The_last_day_there_is_ends_nothing() =>
        CertificateStates
            .Of(Today, [7], [], [new("x", Today, LocalDate.MaxIsoValue), new("x", Today.PlusDays(3), Today.PlusDays(4))])
            .Certificates.ShouldBe([new("x", CertificateState.Valid, LocalDate.MaxIsoValue, null, LocalDate.MaxIsoValue.PlusDays(-7))]);

    // Day by day, from what the words say alone.
    [Fact]
    public void State_and_next_day_are_what_looking_at_every_day_gives() =>
        Gen.Select(Gen.Select(Gen.Int[-60, 60], Gen.Int[-1, 50]).Array[0, 4], Gen.Int[0, 40].Array[0, 3])
            .Sample(
                (spans, warn) =>
                {
                    var held = spans
                        .Select(s => new HeldCertificate("x", Today.PlusDays(s.Item1), s.Item2 < 0 ? null : Today.PlusDays(s.Item1 + s.Item2)))
                        .ToList();
                    var answer = CertificateStates.Of(Today, warn, [new NeededCertificate("x", true)], held).Certificates[0];
                    var now = Look(Today);
                    (answer.State, answer.Warning).ShouldBe(now);
                    var next = Enumerable.Range(1, 200).Select(d => Today.PlusDays(d)).Where(d => Look(d) != now).Select(d => (LocalDate?)d).FirstOrDefault();
                    answer.Next.ShouldBe(next);

                    (CertificateState, int?) Look(LocalDate day)
                    {
                        if (!held.Exists(h => h.From <= day))
                            return (CertificateState.Missing, null);
                        if (!Holds(day))
                            return (CertificateState.Expired, null);
                        var left = 0;
                        while (left < 300 && Holds(day.PlusDays(left + 1)))
                            left++;
                        var reached = warn.Where(w => left < 300 && left <= w).Order().Select(w => (int?)w).FirstOrDefault();
                        return (reached is null ? CertificateState.Valid : CertificateState.Expiring, reached);
                    }

                    bool Holds(LocalDate day) => held.Exists(h => h.From <= day && (h.To is null || day <= h.To));
                }
            );
}
