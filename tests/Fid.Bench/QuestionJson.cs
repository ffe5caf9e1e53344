using System.Text.Json;
using Fid.Core.Planning;
using NodaTime;

namespace Fid.Bench;

/// <summary>A plan question as `./fid compute plan` takes it.</summary>
internal static class QuestionJson
{
    public static string Write(PlanQuestion question) =>
        JsonSerializer.Serialize(
            new
            {
                today = Iso(question.Today),
                anchors = question.Anchors.ToDictionary(a => a.Key, a => Iso(a.Value)),
                calendars = new
                {
                    office = new { rest = "0000011", holidays = new[] { "2027-03-17", "2027-05-03" } },
                    dock = new { rest = "0000000", holidays = Array.Empty<string>() },
                },
                stages = question.Stages.Select(s => new
                {
                    id = s.Id,
                    opens = Offset(s.Opens),
                    waitsFor = s.WaitsFor,
                }),
                tasks = question.Tasks.Select(t => new
                {
                    id = t.Id,
                    stage = t.Stage,
                    calendar = t.Calendar,
                    work = t.Work,
                    due = Offset(t.Due),
                    after = t.After.Select(l => new { id = l.Id, lag = l.Lag }),
                    required = t.Required,
                    dayOne = t.DayOne,
                    done = t.Done is { } done ? Iso(done) : null,
                }),
            }
        );

    private static object? Offset(PlanOffset? offset) =>
        offset is null
            ? null
            : new
            {
                anchor = offset.Anchor,
                offset = offset.Amount,
                unit = JsonNamingPolicy.CamelCase.ConvertName(offset.Unit.ToString()),
            };

    private static string Iso(LocalDate date) => date.ToString("uuuu-MM-dd", System.Globalization.CultureInfo.InvariantCulture);
}
