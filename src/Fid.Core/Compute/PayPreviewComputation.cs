using System.Text.Json;
using Fid.Core.Json;
using Fid.Core.Pay;

namespace Fid.Core.Compute;

/// <summary>`pay.preview`: what a pay period comes to, line by line.</summary>
internal static class PayPreviewComputation
{
    private static readonly Shape Question = new("every", "components");
    private static readonly Shape Component = new("code", "kind", "amount?", "percent?", "of?", "floor?", "cap?", "brackets?", "basis?", "formula?");
    private static readonly Shape Bracket = new("upTo?", "percent");

    private static readonly Choices Kinds = new("earning", "deduction", "employerCost");
    private static readonly Choices Bases = new("annual", "period");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        var every = PayPeriod.Month;
        List<PayComponent> components = [];
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
            {
                if (at == 0)
                    every = (PayPeriod)question.Choice(PayComputation.Periods);
                else
                    components = question.Items(ReadComponent);
            }
        if (!question.IsSound || PayPreview.Of(every, components).Take(ref question) is not { } preview)
            return;
        writer.WriteStartObject();
        writer.WriteStartArray("lines");
        foreach (var line in preview.Lines)
        {
            writer.WriteStartObject();
            writer.WriteString("code", line.Code);
            writer.WriteNumber("amount", line.Amount);
            writer.WriteString("working", line.Working);
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteNumber("gross", preview.Gross);
        writer.WriteNumber("deductions", preview.Deductions);
        writer.WriteNumber("net", preview.Net);
        writer.WriteNumber("employerCost", preview.EmployerCost);
        writer.WriteEndObject();
    }

    private static PayComponent ReadComponent(ref QuestionReader question)
    {
        var component = new PayComponent("", ComponentKind.Earning);
        var seen = 0u;
        if (question.Object())
            while (question.Property(Component, ref seen) is var at and >= 0)
                component = at switch
                {
                    0 => component with { Code = question.Id() },
                    1 => component with { Kind = (ComponentKind)question.Choice(Kinds) },
                    2 => component with { Amount = question.Number() },
                    3 => component with { Percent = question.Number() },
                    4 => component with { Of = question.Items((ref q) => q.Id()) },
                    5 => component with { Floor = question.Number() },
                    6 => component with { Cap = question.Number() },
                    7 => component with { Brackets = question.Items(ReadBracket) },
                    8 => component with { Basis = (BracketBasis)question.Choice(Bases) },
                    _ => component with { Formula = question.Text() },
                };
        return component;
    }

    private static PayBracket ReadBracket(ref QuestionReader question)
    {
        decimal? upTo = null;
        decimal percent = 0;
        var seen = 0u;
        if (question.Object())
            while (question.Property(Bracket, ref seen) is var at and >= 0)
            {
                if (at == 0)
                    upTo = question.Number();
                else
                    percent = question.Number();
            }
        return new PayBracket(percent, upTo);
    }
}
