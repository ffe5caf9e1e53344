using System.Buffers;
using System.Text.Encodings.Web;
using System.Text.Json;
using Fid.Core.Json;

namespace Fid.Core.Compute;

/// <summary>Every computation by its name: a question as JSON in, an answer as JSON out, problems by path.</summary>
public static class Computations
{
    private static readonly Dictionary<string, Computation> ByName = new(StringComparer.Ordinal)
    {
        ["calendar"] = CalendarComputation.Answer,
        ["plan"] = PlanComputation.Answer,
        ["pay.rate"] = PayComputation.AnswerRate,
        ["pay.band"] = PayComputation.AnswerBand,
        ["pay.periods"] = PayPeriodsComputation.Answer,
        ["pay.first"] = FirstPayComputation.Answer,
        ["pay.loaded"] = LoadedCostComputation.Answer,
        ["pay.preview"] = PayPreviewComputation.Answer,
        ["clock.roster"] = RosterComputation.Answer,
        ["clock.badges"] = BadgesComputation.Answer,
        ["fields.check"] = FieldsCheckComputation.Answer,
        ["fields.evaluate"] = FieldsEvaluateComputation.Answer,
        ["people.match"] = PeopleMatchComputation.Answer,
        ["people.org"] = PeopleOrgComputation.Answer,
        ["certificates.state"] = CertificatesComputation.Answer,
        ["service"] = ServiceComputation.Answer,
        ["leave"] = ServiceComputation.AnswerLeave,
        ["templates.resolve"] = TemplatesComputation.AnswerResolve,
        ["approvals.needed"] = ApprovalsComputation.Answer,
        ["rights.explain"] = RightsComputation.Answer,
        ["chase"] = ChaseComputation.Answer,
        ["stalls"] = StallsComputation.Answer,
        ["templates.merge"] = TemplatesComputation.AnswerMerge,
    };

    /// <summary>Reads a question whole and writes its answer; with problems noted nothing need have been written.</summary>
    internal delegate void Computation(ref QuestionReader question, Utf8JsonWriter answer);

    /// <summary>The computations there are.</summary>
    public static IReadOnlyCollection<string> Names => ByName.Keys;

    /// <summary>Answers one question.</summary>
    /// <param name="name">One of <see cref="Names"/>.</param>
    /// <param name="question">The question as UTF-8 JSON.</param>
    /// <param name="answer">Receives the answer, or an object with the property "errors", as UTF-8 JSON. It must be empty.</param>
    /// <returns>Whether the question could be answered.</returns>
    public static bool Answer(string name, ReadOnlySpan<byte> question, ArrayBufferWriter<byte> answer)
    {
        if (!ByName.TryGetValue(name, out var computation))
            return Refuse(answer, [new Problem("", "unknown-computation", $"There is nothing called {name} to compute. Known: {string.Join(", ", Names)}.")]);
        var problems = new List<Problem>();
        try
        {
            using var writer = new Utf8JsonWriter(
                answer,
                new JsonWriterOptions { SkipValidation = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping }
            );
            var reader = new QuestionReader(question, problems);
            computation(ref reader, writer);
            reader.End();
            if (problems.Count == 0)
            {
                writer.Flush();
                return true;
            }
            writer.Reset(Stream.Null); // what was written before the mistake was found is no part of the answer
        }
        catch (Exception e) when (e is JsonException or InvalidOperationException { Source: "System.Text.Json" or "System.Text.Json.Rethrowable" })
        {
            problems = [new Problem("", "malformed-json", $"This is not JSON: {e.Message.Split(". ")[0].TrimEnd('.')}.")];
        }
        answer.ResetWrittenCount();
        return Refuse(answer, problems);
    }

    private static bool Refuse(ArrayBufferWriter<byte> answer, List<Problem> problems)
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
}
