using System.Buffers;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Fid.Core.Compute;
using Shouldly;

namespace Fid.Server.Tests;

/// <summary>Pay as ./fid compute works it out, of the components that the demonstration's list has; the supplement is the crew's, who are paid by the
/// fortnight.</summary>
internal static class ComputedPay
{
    /// <summary>A whole period, down to net.</summary>
    /// <param name="every">How long it is.</param>
    /// <param name="amount">What it pays at the base.</param>
    public static JsonNode Preview(string every, decimal amount)
    {
        var question = JsonSerializer.Serialize(
            new
            {
                every,
                components = new object[]
                {
                    new
                    {
                        code = "BASE",
                        kind = "earning",
                        amount,
                    },
                    new
                    {
                        code = "ISLE",
                        kind = "earning",
                        percent = every == "fortnight" ? 4 : 0,
                        of = new[] { "BASE" },
                    },
                    new
                    {
                        code = "PENS",
                        kind = "deduction",
                        percent = 5,
                        of = new[] { "BASE", "ISLE" },
                        floor = 240,
                        cap = 1600,
                    },
                    new
                    {
                        code = "LEVY",
                        kind = "deduction",
                        of = new[] { "BASE", "ISLE", "PENS" },
                        basis = "annual",
                        brackets = new object[] { new { percent = 0, upTo = 12000 }, new { percent = 18, upTo = 30000 }, new { percent = 32 } },
                    },
                },
            }
        );
        return Answer("pay.preview", question);
    }

    /// <summary>The answer to a question as JSON.</summary>
    public static JsonNode Answer(string computation, string question)
    {
        var answer = new ArrayBufferWriter<byte>();
        Computations.Answer(computation, Encoding.UTF8.GetBytes(question), answer).ShouldBeTrue();
        return JsonNode.Parse(answer.WrittenSpan)!;
    }
}
