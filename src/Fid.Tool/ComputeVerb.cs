using System.Buffers;
using Fid.Core.Compute;

namespace Fid.Tool;

/// <summary>`fid compute`: questions from standard input, answers to standard output.</summary>
internal static class ComputeVerb
{
    private const int Wrong = 2;

    public static int One(string name)
    {
        using var input = Console.OpenStandardInput();
        using var question = new MemoryStream();
        input.CopyTo(question);
        var answer = new ArrayBufferWriter<byte>();
        var answered = Door.Answer(name, question.GetBuffer().AsMemory(0, (int)question.Length), answer);
        using var output = Console.OpenStandardOutput();
        output.Write(answer.WrittenSpan);
        output.WriteByte((byte)'\n');
        return answered ? 0 : Wrong;
    }

    /// <summary>One question a line. A bad line is answered by its errors, and the run goes on and ends well.</summary>
    public static int Lines(string name)
    {
        using var input = Console.OpenStandardInput();
        using var output = new BufferedStream(Console.OpenStandardOutput(), 1 << 16);
        var answer = new ArrayBufferWriter<byte>(1 << 16);
        var buffer = new byte[1 << 16];
        int start = 0, end = 0;
        while (true)
        {
            var length = buffer.AsSpan(start, end - start).IndexOf((byte)'\n');
            if (length >= 0)
            {
                Reply(buffer.AsMemory(start, length));
                start += length + 1;
                continue;
            }
            if (start > 0)
            {
                buffer.AsSpan(start, end - start).CopyTo(buffer);
                (start, end) = (0, end - start);
            }
            if (end == buffer.Length) Array.Resize(ref buffer, buffer.Length * 2);
            var read = input.Read(buffer, end, buffer.Length - end);
            if (read == 0) break;
            end += read;
        }
        if (end > 0) Reply(buffer.AsMemory(0, end));
        return 0;

        void Reply(ReadOnlyMemory<byte> question)
        {
            answer.ResetWrittenCount();
            Door.Answer(name, question, answer);
            output.Write(answer.WrittenSpan);
            output.WriteByte((byte)'\n');
        }
    }

    public static int Usage()
    {
        Console.Error.WriteLine($"""
            usage: fid compute NAME [--lines] < question.json
            NAME is one of: {string.Join(", ", Door.Names)}
            --lines: one question a line, one answer a line, in order
            """);
        return Wrong;
    }
}
