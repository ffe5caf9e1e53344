using System.Buffers;
using System.Text;
using Fid.Core.Compute;
using Shouldly;

namespace Fid.Core.Tests;

/// <summary>Asks the door.</summary>
internal static class Asked
{
    /// <summary>The answer to a question that can be answered.</summary>
    public static string Answer(string name, string question)
    {
        var answer = new ArrayBufferWriter<byte>();
        var answered = Door.Answer(name, Encoding.UTF8.GetBytes(question), answer);
        var text = Encoding.UTF8.GetString(answer.WrittenSpan);
        answered.ShouldBeTrue(text);
        return text;
    }
}
