using System.Diagnostics;
using System.Text.Json;
using Shouldly;
using Xunit;

namespace Fid.Core.Tests.Compute;

/// <summary>`./fid compute` as others call it: a process with exit codes.</summary>
public class ComputeCommandTests
{
    private const string Question = """{"pay":33930,"min":30000,"mid":36000,"max":42000}""";
    private const string Answer = """{"compaRatio":0.943,"penetration":0.328,"position":"within"}""";

    [Fact]
    public async Task Answers_and_exits_with_0() => (await RunAsync(["compute", "pay.band"], Question)).ShouldBe((0, Answer + "\n"));

    // The tool has no culture data; this process has. What both say of a name must not hang on that.
    [Theory]
    [InlineData("Jose", "Nunez", "José", "Núñez")]
    [InlineData("Zoe", "Koenig", "Zoë", "Kœnig")]
    [InlineData("Łukasz", "Żądło", "lukasz", "zadlo")]
    [InlineData("Jose", "Nunez", "Jose\u0301", "Nu\u0301n\u0303ez")] // marks typed by themselves
    [InlineData("ＡＮＮＡ", "Ｌｅｅ", "Anna", "Lee")]
    [InlineData("Ольга", "Королёва", "ольга", "королева")]
    [InlineData("Ελένη", "Παπαδοπούλου", "ελενη", "παπαδοπουλου")]
    public async Task Accents_are_folded_with_and_without_culture_data(string given, string family, string knownGiven, string knownFamily)
    {
        var question = JsonSerializer.Serialize(
            new
            {
                person = new
                {
                    given,
                    family,
                    born = "1980-04-03",
                },
                known = new[]
                {
                    new
                    {
                        id = "a",
                        given = knownGiven,
                        family = knownFamily,
                        born = "1980-04-03",
                    },
                },
            }
        );
        var (exit, output) = await RunAsync(["compute", "people.match"], question);
        exit.ShouldBe(0);
        output.TrimEnd('\n').ShouldBe(Asked.Answer("people.match", question));
        output.ShouldContain("\"same\"");
    }

    [Theory]
    [InlineData("pay.band", """{"pay":"much"}""", "/pay")]
    [InlineData("pay.band", "", "malformed-json")]
    [InlineData("pay.magic", "{}", "unknown-computation")]
    public async Task Says_what_is_wrong_and_exits_with_2(string name, string question, string said)
    {
        var (exit, output) = await RunAsync(["compute", name], question);
        exit.ShouldBe(2);
        output.ShouldStartWith("""{"errors":[{"path":""");
        output.ShouldContain(said);
    }

    [Fact]
    public async Task Answers_lines_in_order_with_the_errors_on_the_bad_ones()
    {
        // Enough of them that several threads share the work.
        var questions = Enumerable.Range(0, 500).Select(i => i % 50 == 7 ? "oops" : Question.Replace("33930", $"{30000 + i}", StringComparison.Ordinal));
        var (exit, output) = await RunAsync(["compute", "pay.band", "--lines"], string.Join('\n', questions));
        exit.ShouldBe(0);
        var answers = output.TrimEnd('\n').Split('\n');
        answers.Length.ShouldBe(500);
        for (var i = 0; i < answers.Length; i++)
            answers[i]
                .ShouldStartWith(
                    i % 50 == 7 ? """{"errors":""" : FormattableString.Invariant($"{{\"compaRatio\":{Fid.Core.Pay.Money.Decimals((30000m + i) / 36000, 3)},")
                );
    }

    private static async Task<(int Exit, string Output)> RunAsync(string[] arguments, string input)
    {
        var fid = Environment.GetEnvironmentVariable("FID_COMMAND")
            ?? throw new InvalidOperationException("FID_COMMAND says where ./fid is. Run ./fid test core, which sets it.");
        var start = new ProcessStartInfo(fid, arguments) { RedirectStandardInput = true, RedirectStandardOutput = true };
        using var process = Process.Start(start)!;
        var output = process.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        await process.StandardInput.WriteAsync(input);
        process.StandardInput.Close();
        await process.WaitForExitAsync(TestContext.Current.CancellationToken);
        return (process.ExitCode, await output);
    }
}
