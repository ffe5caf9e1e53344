using System.Buffers;
using System.Text;
using System.Text.Json;
using Fid.Core.Compute;
using Shouldly;

namespace Fid.Core.Tests;

/// <summary>Asks a computation.</summary>
internal static class Asked
{
    /// <summary>The answer to a question that can be answered.</summary>
    public static string Answer(string name, string question)
    {
        var (answered, text) = Ask(name, question);
        answered.ShouldBeTrue(text);
        return text;
    }

    /// <summary>What is wrong with a question that cannot.</summary>
    public static Problem[] Problems(string name, string question)
    {
        var (answered, text) = Ask(name, question);
        answered.ShouldBeFalse(text);
        using var errors = JsonDocument.Parse(text);
        return
        [
            .. errors
                .RootElement.GetProperty("errors")
                .EnumerateArray()
                .Select(e => new Problem(e.GetProperty("path").GetString()!, e.GetProperty("code").GetString()!, e.GetProperty("message").GetString()!)),
        ];
    }

    /// <summary>Asserts that a question has one problem, as its path and code; that it is answered where none is expected.</summary>
    public static void ShouldTell(string name, string question, string problem)
    {
        if (problem.Length == 0)
            Answer(name, question);
        else
            Problems(name, question).Select(p => $"{p.Path} {p.Code}").ShouldBe([problem]);
    }

    /// <summary>Whether any question could be answered, and what is said to it.</summary>
    public static (bool Answered, string Text) Ask(string name, string question)
    {
        var answer = new ArrayBufferWriter<byte>();
        var answered = Computations.Answer(name, Encoding.UTF8.GetBytes(question), answer);
        return (answered, Encoding.UTF8.GetString(answer.WrittenSpan));
    }
}
