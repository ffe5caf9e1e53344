using System.Buffers;
using System.Text;
using System.Text.Json;

namespace Fid.Core.Compute;

/// <summary>The one door to every computation: a question as JSON in, an answer as JSON out, problems by path.</summary>
public static class Door
{
    private static readonly Dictionary<string, Computation> Computations = new(StringComparer.Ordinal)
    {
        ["calendar"] = CalendarDoor.Answer,
        ["plan"] = PlanDoor.Answer,
        ["pay.rate"] = PayDoor.AnswerRate,
        ["pay.band"] = PayDoor.AnswerBand,
        ["clock.badges"] = BadgesDoor.Answer,
    };

    private static readonly JsonDocumentOptions Strict = new() { AllowTrailingCommas = false, CommentHandling = JsonCommentHandling.Disallow };

    /// <summary>Reads a question and writes its answer; with problems in the list nothing may have been written.</summary>
    internal delegate void Computation(Node question, Utf8JsonWriter answer);

    /// <summary>The computations there are.</summary>
    public static IReadOnlyCollection<string> Names => Computations.Keys;

    /// <summary>Answers one question.</summary>
    /// <param name="name">One of <see cref="Names"/>.</param>
    /// <param name="question">The question as UTF-8 JSON.</param>
    /// <param name="answer">Receives the answer, or an object with the property "errors", as UTF-8 JSON.</param>
    /// <returns>Whether the question could be answered.</returns>
    public static bool Answer(string name, ReadOnlyMemory<byte> question, IBufferWriter<byte> answer)
    {
        if (!Computations.TryGetValue(name, out var computation))
            return Refuse(answer, [new Problem("", "unknown-computation", $"There is nothing called {name} to compute. Known: {string.Join(", ", Names)}.")]);
        var problems = new List<Problem>();
        try
        {
            using var document = JsonDocument.Parse(question, Strict);
            // Written aside first: a question found wrong half-way must leave no half answer behind.
            var draft = new ArrayBufferWriter<byte>(4096);
            using var writer = new Utf8JsonWriter(draft, new JsonWriterOptions { SkipValidation = true });
            computation(new Node(document.RootElement, Way.Root, problems), writer);
            if (problems.Count > 0) return Refuse(answer, problems);
            writer.Flush();
            answer.Write(draft.WrittenSpan);
            return true;
        }
        catch (Exception e) when (e is JsonException or InvalidOperationException { InnerException: DecoderFallbackException })
        {
            return Refuse(answer, [new Problem("", "malformed-json", $"This is not JSON: {FirstSentence(e.Message)}")]);
        }
    }

    private static bool Refuse(IBufferWriter<byte> answer, IReadOnlyList<Problem> problems)
    {
        using var writer = new Utf8JsonWriter(answer);
        writer.WriteStartObject();
        writer.WriteStartArray("errors");
        foreach (var problem in problems)
        {
            writer.WriteStartObject();
            writer.WriteString("path", problem.Path);
            writer.WriteString("code", problem.Code);
            writer.WriteString("message", problem.Message);
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteEndObject();
        return false;
    }

    private static string FirstSentence(string message) => message.Split(". ")[0].TrimEnd('.') + ".";
}
