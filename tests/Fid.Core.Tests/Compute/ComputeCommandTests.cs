using System.Diagnostics;
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
            answers[i].ShouldStartWith(i % 50 == 7 ? """{"errors":""" : FormattableString.Invariant($"{{\"compaRatio\":{Fid.Core.Pay.Money.Decimals((30000m + i) / 36000, 3)},"));
    }

    private static async Task<(int Exit, string Output)> RunAsync(string[] arguments, string input)
    {
        var fid = Environment.GetEnvironmentVariable("FID_COMMAND") ?? throw new InvalidOperationException("FID_COMMAND says where ./fid is. Run ./fid test core, which sets it.");
        var start = new ProcessStartInfo(fid, arguments) { RedirectStandardInput = true, RedirectStandardOutput = true };
        using var process = Process.Start(start)!;
        var output = process.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        await process.StandardInput.WriteAsync(input);
        process.StandardInput.Close();
        await process.WaitForExitAsync(TestContext.Current.CancellationToken);
        return (process.ExitCode, await output);
    }
}
