using System.Text.Json;
using Fid.Core.Certificates;
using Fid.Core.Json;
using NodaTime;

namespace Fid.Core.Compute;

/// <summary>`certificates.state`: how somebody stands with the certificates they need and hold.</summary>
internal static class CertificatesComputation
{
    private static readonly Shape Question = new("today", "warn", "needed", "held");
    private static readonly Shape Needed = new("kind", "essential");
    private static readonly Shape Held = new("kind", "from", "to?");
    private static readonly Choices States = new("missing", "expired", "expiring", "valid");
    private const int MostDays = 36_525;

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        LocalDate today = default;
        List<int> warn = [];
        List<NeededCertificate> needed = [];
        List<HeldCertificate> held = [];
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        today = question.Date();
                        break;
                    case 1:
                        warn = question.Items((ref q) => q.Whole(0, MostDays));
                        break;
                    case 2:
                        needed = question.Items(ReadNeeded);
                        break;
                    default:
                        held = question.Items(ReadHeld);
                        break;
                }
            }
        foreach (var (kind, i) in needed.Select((n, i) => (n.Kind, i)))
            if (needed.FindIndex(n => n.Kind == kind) < i)
                question.Report([new Problem($"/needed/{i}", "duplicate-kind", $"{kind} is needed twice. Name it once.")]);
        if (!question.IsSound)
            return;
        var answer = CertificateStates.Of(today, warn, needed, held);
        writer.WriteStartObject();
        writer.WriteStartArray("certificates");
        foreach (var one in answer.Certificates)
        {
            writer.WriteStartObject();
            writer.WriteString("kind", one.Kind);
            writer.WriteString("state", States.Word((int)one.State));
            writer.Date(Until, one.Until);
            if (one.Warning is { } warning)
                writer.WriteNumber("warning", warning);
            else
                writer.WriteNull("warning");
            writer.Date(Next, one.Next);
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteBoolean("ready", answer.Ready);
        writer.WriteEndObject();
    }

    private static readonly JsonEncodedText Until = JsonEncodedText.Encode("until"),
        Next = JsonEncodedText.Encode("next");

    private static NeededCertificate ReadNeeded(ref QuestionReader question)
    {
        var needed = new NeededCertificate("", false);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Needed, ref seen) is var at and >= 0)
                needed = at == 0 ? needed with { Kind = question.Id() } : needed with { Essential = question.YesNo() };
        return needed;
    }

    private static HeldCertificate ReadHeld(ref QuestionReader question)
    {
        var held = new HeldCertificate("", default, null);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Held, ref seen) is var at and >= 0)
                held = at switch
                {
                    0 => held with { Kind = question.Id() },
                    1 => held with { From = question.Date() },
                    _ => held with { To = question.Date() },
                };
        if (question.IsSound && held.To < held.From)
            question.Report("not-in-order", "A certificate does not end before it begins.", "to");
        return held;
    }
}
