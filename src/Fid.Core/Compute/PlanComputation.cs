using System.Text.Json;
using Fid.Core.Calendars;
using Fid.Core.Json;
using Fid.Core.Planning;
using NodaTime;

namespace Fid.Core.Compute;

/// <summary>`plan`: a checklist's plan.</summary>
internal static class PlanComputation
{
    private const int MostDays = 100_000; // in an offset, a lag or a task: far beyond any checklist, near enough to stay in range

    private static readonly Shape Question = new("today", "anchors", "calendars", "stages", "tasks");
    private static readonly Shape Stage = new("id", "opens?", "waitsFor?");
    private static readonly Shape Task = new("id", "stage", "calendar", "work?", "opens?", "due?", "after?", "required?", "dayOne?", "done?", "skipped?");
    private static readonly Shape Offset = new("anchor", "offset", "unit");
    private static readonly Shape Link = new("id", "lag?");

    private static readonly Choices Units = new("working", "days", "weeks", "months");
    private static readonly Choices TaskStates = new("skipped", "done", "late", "atRisk", "ready", "waiting");
    private static readonly Choices StageStates = new("passed", "open", "closed");

    public static void Answer(ref QuestionReader question, Utf8JsonWriter writer)
    {
        var read = Read(ref question);
        if (question.IsSound && Planner.Plan(read).Take(ref question) is { } plan)
            Write(plan, writer);
    }

    private static PlanQuestion Read(ref QuestionReader q)
    {
        LocalDate today = default;
        Dictionary<string, LocalDate> anchors = [];
        Dictionary<string, WorkCalendar> calendars = [];
        List<PlanStage> stages = [];
        List<PlanTask> tasks = [];
        var seen = 0u;
        if (q.Object())
            while (q.Property(Question, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        today = q.Date();
                        break;
                    case 1:
                        anchors = q.Named((ref q) => q.Date());
                        break;
                    case 2:
                        calendars = q.Named((ref q) => q.Calendar());
                        break;
                    case 3:
                        stages = q.Items(ReadStage);
                        break;
                    default:
                        tasks = q.Items(ReadTask);
                        break;
                }
            }
        return new PlanQuestion(today, anchors, calendars, stages, tasks);
    }

    private static PlanStage ReadStage(ref QuestionReader q)
    {
        var id = "";
        PlanOffset? opens = null;
        IReadOnlyList<string> waitsFor = [];
        var seen = 0u;
        if (q.Object())
            while (q.Property(Stage, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        id = q.Id();
                        break;
                    case 1:
                        opens = ReadOffset(ref q);
                        break;
                    default:
                        waitsFor = q.Items((ref q) => q.Id());
                        break;
                }
            }
        return new PlanStage(id, opens, waitsFor);
    }

    private static PlanTask ReadTask(ref QuestionReader q)
    {
        string id = "",
            stage = "",
            calendar = "";
        var work = 1;
        PlanOffset? opens = null,
            due = null;
        IReadOnlyList<PlanLink> after = [];
        bool required = true,
            dayOne = false,
            skipped = false;
        LocalDate? done = null;
        var seen = 0u;
        if (q.Object())
            while (q.Property(Task, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        id = q.Id();
                        break;
                    case 1:
                        stage = q.Id();
                        break;
                    case 2:
                        calendar = q.Id();
                        break;
                    case 3:
                        work = q.Whole(0, MostDays);
                        break;
                    case 4:
                        opens = ReadOffset(ref q);
                        break;
                    case 5:
                        due = ReadOffset(ref q);
                        break;
                    case 6:
                        after = q.Items(ReadLink);
                        break;
                    case 7:
                        required = q.YesNo();
                        break;
                    case 8:
                        dayOne = q.YesNo();
                        break;
                    case 9:
                        done = q.Date();
                        break;
                    default:
                        skipped = q.YesNo();
                        break;
                }
            }
        return new PlanTask(id, stage, calendar, work, opens, due, after, required, dayOne, done, skipped);
    }

    private static PlanOffset ReadOffset(ref QuestionReader q)
    {
        var anchor = "";
        var amount = 0;
        OffsetUnit unit = default;
        var seen = 0u;
        if (q.Object())
            while (q.Property(Offset, ref seen) is var at and >= 0)
            {
                switch (at)
                {
                    case 0:
                        anchor = q.Id();
                        break;
                    case 1:
                        amount = q.Whole(-MostDays, MostDays);
                        break;
                    default:
                        unit = (OffsetUnit)q.Choice(Units);
                        break;
                }
            }
        return new PlanOffset(anchor, amount, unit);
    }

    private static PlanLink ReadLink(ref QuestionReader q)
    {
        if (q.IsText)
            return new PlanLink(q.Id(), 0);
        var id = "";
        var lag = 0;
        var seen = 0u;
        if (q.Object())
            while (q.Property(Link, ref seen) is var at and >= 0)
            {
                if (at == 0)
                    id = q.Id();
                else
                    lag = q.Whole(-MostDays, MostDays);
            }
        return new PlanLink(id, lag);
    }

    private static void Write(Plan plan, Utf8JsonWriter writer)
    {
        writer.WriteStartObject();
        writer.WriteStartArray("tasks");
        foreach (var task in plan.Tasks)
            WriteTask(task, writer);
        writer.WriteEndArray();
        writer.WriteStartArray("stages");
        foreach (var stage in plan.Stages)
        {
            writer.WriteStartObject();
            writer.WriteString("id", stage.Id);
            writer.WriteString("state", StageStates.Word((int)stage.State));
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteBoolean("feasible", plan.Feasible);
        writer.Date(Name.SoonestStart, plan.SoonestStart);
        writer.WriteStartObject("readiness");
        writer.WriteNumber("done", plan.Readiness.Done);
        writer.WriteNumber("of", plan.Readiness.Of);
        writer.WriteNumber("percent", plan.Readiness.Percent);
        writer.WriteEndObject();
        writer.WriteString("holdUp", plan.HoldUp);
        writer.WriteEndObject();
    }

    private static void WriteTask(PlannedTask task, Utf8JsonWriter writer)
    {
        writer.WriteStartObject();
        writer.WriteString(Name.Id, task.Id);
        writer.Date(Name.Due, task.Due);
        writer.WriteString(Name.State, TaskStates.Word((int)task.State));
        if (task.Unfinished)
        {
            writer.Date(Name.EarliestStart, task.EarliestStart);
            writer.Date(Name.EarliestFinish, task.EarliestFinish);
            writer.Date(Name.LatestStart, task.LatestStart);
            writer.Date(Name.LatestFinish, task.LatestFinish);
            if (task.Slack is { } slack)
                writer.WriteNumber(Name.Slack, slack);
            else
                writer.WriteNull(Name.Slack);
            writer.WriteBoolean(Name.Critical, task.Critical);
        }
        writer.WriteEndObject();
    }

    /// <summary>Property names, encoded once: they are written for every task.</summary>
    private static class Name
    {
        public static readonly JsonEncodedText Id = JsonEncodedText.Encode("id"),
            Due = JsonEncodedText.Encode("due"),
            State = JsonEncodedText.Encode("state"),
            EarliestStart = JsonEncodedText.Encode("earliestStart"),
            EarliestFinish = JsonEncodedText.Encode("earliestFinish"),
            LatestStart = JsonEncodedText.Encode("latestStart"),
            LatestFinish = JsonEncodedText.Encode("latestFinish"),
            Slack = JsonEncodedText.Encode("slack"),
            Critical = JsonEncodedText.Encode("critical"),
            SoonestStart = JsonEncodedText.Encode("soonestStart");
    }
}
