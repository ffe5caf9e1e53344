using System.Text.Json;
using Fid.Core.Json;
using Fid.Core.Pay;

namespace Fid.Core.Compute;

/// <summary>`pay.loaded`: what an hour that somebody works costs the firm.</summary>
internal static class LoadedCostComputation
{
    private static readonly Shape Question = new("annualCosts", "weeklyHours", "hoursPerDay", "leaveDays", "holidays", "trainingHours");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        List<decimal> costs = [];
        Span<decimal> figures = stackalloc decimal[6];
        var seen = 0u;
        if (question.Object())
            while (question.Property(Question, ref seen) is var at and >= 0)
            {
                if (at == 0)
                    costs = question.Items((ref q) => q.Number());
                else
                    figures[at] = question.Number();
            }
        if (!question.IsSound || LoadedCost.Of(costs, figures[1], figures[2], figures[3], figures[4], figures[5]).Take(ref question) is not { } cost)
            return;
        writer.WriteStartObject();
        writer.WriteNumber("annualCost", cost.AnnualCost);
        writer.WriteNumber("productiveHours", cost.ProductiveHours);
        writer.WriteNumber("loadedHourly", cost.LoadedHourly);
        writer.WriteEndObject();
    }
}
