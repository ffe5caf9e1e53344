using System.Text.Json;
using Fid.Core.Planning;

namespace Fid.Core.Compute;

/// <summary>`plan`: a checklist's plan.</summary>
internal static class PlanDoor
{
    private const int MostDays = 100_000; // in an offset, a lag or a task: far beyond any checklist, near enough to stay in range

    private static readonly Shape Question = new("today", "anchors", "calendars", "stages", "tasks");
    private static readonly Shape Stage = new("id", "opens?", "waitsFor?");
    private static readonly Shape Task = new(
        "id", "stage", "calendar", "work?", "opens?", "due?", "after?", "required?", "dayOne?", "done?", "skipped?");
    private static readonly Shape Offset = new("anchor", "offset", "unit");
    private static readonly Shape Link = new("id", "lag?");

    private static readonly Choices<OffsetUnit> Units = new(
        ("working", OffsetUnit.Working), ("days", OffsetUnit.Days), ("weeks", OffsetUnit.Weeks), ("months", OffsetUnit.Months));

    private static readonly Choices<TaskState> TaskStates = new(
        ("skipped", TaskState.Skipped), ("done", TaskState.Done), ("late", TaskState.Late), ("atRisk", TaskState.AtRisk),
        ("ready", TaskState.Ready), ("waiting", TaskState.Waiting));

    private static readonly Choices<StageState> StageStates = new(
        ("passed", StageState.Passed), ("open", StageState.Open), ("closed", StageState.Closed));

    public static void Answer(Node node, Utf8JsonWriter writer)
    {
        var question = Read(node);
        if (node.Problems.Count == 0 && Planner.Plan(question).Take(node) is { } plan) Write(plan, writer);
    }

    private static PlanQuestion Read(Node node)
    {
        var o = node.Object(Question);
        return new PlanQuestion(
            o.Date("today"),
            Names(o["anchors"], n => n.Date()),
            Names(o["calendars"], n => n.Calendar()),
            o.Items("stages", ReadStage),
            o.Items("tasks", ReadTask));
    }

    private static Dictionary<string, T> Names<T>(Node node, Func<Node, T> read) =>
        node.IsThere ? node.Named().ToDictionary(p => p.Name, p => read(p.Value), StringComparer.Ordinal) : [];

    private static PlanStage ReadStage(Node node)
    {
        var o = node.Object(Stage);
        return new PlanStage(o.Id("id"), o.Optional("opens", ReadOffset), o.Items("waitsFor", n => n.Id()));
    }

    private static PlanTask ReadTask(Node node)
    {
        var o = node.Object(Task);
        return new PlanTask(
            o.Id("id"),
            o.Id("stage"),
            o.Id("calendar"),
            o.Whole("work", 0, MostDays, otherwise: 1),
            o.Optional("opens", ReadOffset),
            o.Optional("due", ReadOffset),
            o.Items("after", ReadLink),
            o.YesNo("required", otherwise: true),
            o.YesNo("dayOne", otherwise: false),
            o.DateOrNull("done"),
            o.YesNo("skipped", otherwise: false));
    }

    private static PlanOffset ReadOffset(Node node)
    {
        var o = node.Object(Offset);
        return new PlanOffset(o.Id("anchor"), o.Whole("offset", -MostDays, MostDays), o.Choice("unit", Units));
    }

    private static PlanLink ReadLink(Node node)
    {
        if (node.Json.ValueKind == JsonValueKind.String) return new PlanLink(node.Id(), 0);
        var o = node.Object(Link);
        return new PlanLink(o.Id("id"), o.Whole("lag", -MostDays, MostDays));
    }

    private static void Write(Plan plan, Utf8JsonWriter writer)
    {
        writer.WriteStartObject();
        writer.WriteStartArray("tasks");
        foreach (var task in plan.Tasks) WriteTask(task, writer);
        writer.WriteEndArray();
        writer.WriteStartArray("stages");
        foreach (var stage in plan.Stages)
        {
            writer.WriteStartObject();
            writer.WriteString("id", stage.Id);
            writer.WriteString("state", StageStates.Word(stage.State));
            writer.WriteEndObject();
        }
        writer.WriteEndArray();
        writer.WriteBoolean("feasible", plan.Feasible);
        writer.Date("soonestStart", plan.SoonestStart);
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
        writer.WriteString("id", task.Id);
        writer.Date("due", task.Due);
        writer.WriteString("state", TaskStates.Word(task.State));
        if (task.Unfinished)
        {
            writer.Date("earliestStart", task.EarliestStart);
            writer.Date("earliestFinish", task.EarliestFinish);
            writer.Date("latestStart", task.LatestStart);
            writer.Date("latestFinish", task.LatestFinish);
            if (task.Slack is { } slack) writer.WriteNumber("slack", slack);
            else writer.WriteNull("slack");
            writer.WriteBoolean("critical", task.Critical);
        }
        writer.WriteEndObject();
    }
}
