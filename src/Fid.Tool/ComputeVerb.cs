using System.Buffers;
using Fid.Core.Compute;

namespace Fid.Tool;

/// <summary>`fid compute`: questions from standard input, answers to standard output.</summary>
internal static class ComputeVerb
{
    private const int Wrong = 2;
    private const int LinesWorthAThread = 8;

    public static int One(string name)
    {
        using var input = Console.OpenStandardInput();
        using var question = new MemoryStream();
        input.CopyTo(question);
        var answer = new ArrayBufferWriter<byte>();
        var answered = Computations.Answer(name, question.GetBuffer().AsSpan(0, (int)question.Length), answer);
        using var output = Console.OpenStandardOutput();
        output.Write(answer.WrittenSpan);
        output.WriteByte((byte)'\n');
        return answered ? 0 : Wrong;
    }

    /// <summary>
    /// One question a line. A bad line is answered by its errors, and the run goes on and ends well. What has been read is
    /// answered, on all cores, and handed on before more is waited for: the user who asks one question at a time gets each answer.
    /// </summary>
    public static int Lines(string name)
    {
        using var input = Console.OpenStandardInput();
        using var output = Console.OpenStandardOutput();
        var buffer = new byte[1 << 20];
        var lines = new List<(int Start, int Length)>();
        var answers = new List<ArrayBufferWriter<byte>>();
        int start = 0,
            end = 0;
        for (var read = 1; read > 0; )
        {
            if (end == buffer.Length)
                Array.Resize(ref buffer, buffer.Length * 2);
            read = input.Read(buffer, end, Math.Min(buffer.Length - end, 1 << 18));
            end += read;
            for (int length; (length = buffer.AsSpan(start, end - start).IndexOf((byte)'\n')) >= 0; start += length + 1)
                lines.Add((start, length));
            if (read == 0 && end > start)
                lines.Add((start, end - start)); // the last line may lack its end
            AnswerAll(name, buffer, lines, answers, output);
            lines.Clear();
            if (start == 0)
                continue;
            buffer.AsSpan(start, end - start).CopyTo(buffer);
            (start, end) = (0, end - start);
        }
        return 0;
    }

    private static void AnswerAll(string name, byte[] buffer, List<(int Start, int Length)> lines, List<ArrayBufferWriter<byte>> answers, Stream output)
    {
        while (answers.Count < lines.Count)
            answers.Add(new ArrayBufferWriter<byte>(1 << 13));
        var next = -1;
        // Plain threads: a pool and its loops take longer to get going than a thousand plans.
        var helpers = new Thread[Math.Clamp(lines.Count / LinesWorthAThread, 0, Environment.ProcessorCount - 1)];
        for (var i = 0; i < helpers.Length; i++)
            (helpers[i] = new Thread(Work)).Start();
        Work();
        foreach (var helper in helpers)
            helper.Join();
        for (var i = 0; i < lines.Count; i++)
            output.Write(answers[i].WrittenSpan);
        output.Flush();

        void Work()
        {
            for (int i; (i = Interlocked.Increment(ref next)) < lines.Count; )
            {
                answers[i].ResetWrittenCount();
                Computations.Answer(name, buffer.AsSpan(lines[i].Start, lines[i].Length), answers[i]);
                answers[i].Write("\n"u8);
            }
        }
    }

    public static int Usage()
    {
        Console.Error.WriteLine(
            $"""
            usage: fid compute NAME [--lines] < question.json
            NAME is one of: {string.Join(", ", Computations.Names)}
            --lines: one question a line, one answer a line, in order
            """
        );
        return Wrong;
    }
}
