using Fid.Core.Checklists;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Hires;
using NodaTime;

namespace Fid.Server.Hires;

/// <param name="HasChecklist">Whether there is a checklist to look at: one that came to nothing has none, and leads to the record.</param>
public sealed record HirePerson(Guid EmploymentId, bool HasChecklist);

/// <summary>A hire and its checklist.</summary>
/// <param name="Occasion">What it is run for: whose first day, first day in a new job or last day <paramref name="Start"/> is.</param>
/// <param name="Chain">Why the task that holds it up has to be finished when it has, that task first; empty where nothing holds it up.</param>
/// <param name="Filled">Fields of the record that have a value.</param>
/// <param name="Version">What to send as If-Match when the start moves.</param>
/// <param name="RemindersPaused">Whether nobody is reminded of any of its tasks for now.</param>
/// <param name="Settled">The day on which the newcomer had settled; the checklist is as it was then. Null while it is under way.</param>
public sealed record ChecklistResponse(
    Guid Id,
    Guid EmploymentId,
    Occasion Occasion,
    string Number,
    string GivenName,
    string FamilyName,
    string? Job,
    string? Kind,
    string? Site,
    string? Manager,
    string Template,
    int TemplateVersion,
    int Filled,
    int Of,
    string Version,
    LocalDate Today,
    LocalDate Start,
    LocalDate Accepted,
    LocalDate? Settled,
    bool RemindersPaused,
    StageResponse[] Stages,
    TaskResponse[] Tasks,
    bool Feasible,
    LocalDate? SoonestStart,
    ReadinessResponse Readiness,
    HoldUpResponse? HoldUp,
    ChainLinkResponse[] Chain
);

/// <summary>A task of the chain from what holds it up to the day that is given.</summary>
/// <param name="By">What sets when it has to be finished.</param>
/// <param name="NextName">The name of the task that does; null where its own date or the first day does.</param>
/// <param name="Day">The last day that this allows, before rest days are looked at.</param>
public sealed record ChainLinkResponse(
    string Key,
    string Name,
    LocalDate EarliestFinish,
    LocalDate LatestFinish,
    ChainBound By,
    string? NextName,
    LocalDate Day
);

/// <summary>A stage.</summary>
/// <param name="Opens">The first day on which one of its unfinished tasks can start.</param>
/// <param name="Passed">The day its gate passed.</param>
/// <param name="Word">What a person said of its gate, where it passed or is kept by that; null where its tasks say.</param>
public sealed record StageResponse(
    string Key,
    string Name,
    StageState State,
    LocalDate? Opens,
    int Done,
    int Of,
    string[] WaitsFor,
    LocalDate? Passed,
    StageWord? Word
);

/// <summary>What somebody said of a gate.</summary>
public sealed record StageWord(string By, string Why);

/// <summary>A task and its place in the plan.</summary>
/// <param name="BeforeKnown">Whether it was due before the hire was opened here: nobody was late with it.</param>
/// <param name="Contact">Who can help, named like an owner.</param>
/// <param name="Since">For what can be done now, the day since when it could.</param>
/// <param name="MayTick">Whether the reader may tick it off.</param>
/// <param name="Pinned">The day it is to be done on, whatever the plan says.</param>
/// <param name="TakenBy">Who took it on for their team.</param>
/// <param name="Added">Whether this hire alone has it.</param>
/// <param name="RemindersPaused">Whether nobody is reminded of it for now.</param>
/// <param name="SkippedByCondition">Whether it does not apply because a condition says so, and applies again once that holds.</param>
/// <param name="When">The condition on it, as a formula; null where there is none, or the reader may not see what it reads.</param>
/// <param name="CompletesItself">Whether the record says if it is done, and nobody ticks it off.</param>
/// <param name="Meeting">When and where one meets for it.</param>
/// <param name="Steps">Its steps, where it is a group of them.</param>
/// <param name="Automatic">What it sets by itself; null where somebody does it.</param>
/// <param name="Needs">What it is about, as far as the reader sees it.</param>
/// <param name="Change">Who ticked it, skipped it or took either back the last time.</param>
public sealed record TaskResponse(
    string Key,
    string Name,
    string Stage,
    string Owner,
    string? OwnerName,
    TaskState State,
    LocalDate? Due,
    LocalDate? EarliestStart,
    LocalDate? EarliestFinish,
    LocalDate? LatestStart,
    LocalDate? LatestFinish,
    int? Slack,
    bool CanStart,
    int Work,
    TaskLinkResponse[] After,
    bool Required,
    bool DayOne,
    LocalDate? Done,
    string? DoneBy,
    string? SkippedWhy,
    bool SkippedByCondition,
    string? When,
    string? Instructions,
    bool BeforeKnown,
    string? Contact,
    string? ContactName,
    string? ContactWhy,
    TaskFile[] Attachments,
    LocalDate? Since,
    TaskChange? Change,
    bool MayTick,
    LocalDate? Pinned,
    string? TakenBy,
    string? Note,
    bool Added,
    bool RemindersPaused,
    TaskKind Kind,
    bool CompletesItself,
    TaskNeedResponse[] Needs,
    MeetingResponse? Meeting,
    StepResponse[] Steps,
    AutomaticResponse? Automatic
);

/// <summary>A step of a task that is a group of them.</summary>
/// <param name="Step">The name by which it is known.</param>
/// <param name="Name">What it is called in the reader's language.</param>
public sealed record StepResponse(string Step, string Name, bool Done)
{
    internal static StepResponse[] Of(string[] steps, string[] german, int[] done) =>
        [.. steps.Select((s, i) => new StepResponse(s, ReaderLanguage.Choose(s, german.ElementAtOrDefault(i)), done.Contains(i)))];
}

/// <summary>When and where one meets for a task.</summary>
/// <param name="At">HH:mm in the firm's zone.</param>
/// <param name="Minutes">How long; null for as long as is usual.</param>
public sealed record MeetingResponse(string? At, int? Minutes, string? Place)
{
    /// <summary>Null for what has neither.</summary>
    internal static MeetingResponse? Of(LocalTime? at, int? minutes, string? place) =>
        at is null && place is null ? null : new(at is { } time ? TaskSpec.TimeOfDay.Format(time) : null, minutes, place);
}

/// <summary>A task that another comes after.</summary>
/// <param name="Lag">The working days that lie between the two.</param>
public sealed record TaskLinkResponse(string Key, string Name, int Lag);

/// <summary>Something done to a task.</summary>
/// <param name="Action">Such as "task.done".</param>
public sealed record TaskChange(string By, Instant At, string Action);

/// <summary>A file that goes with a task.</summary>
public sealed record TaskFile(Guid Id, string Name);

/// <summary>Something a task is about.</summary>
/// <param name="Label">The name of the field, item or certificate.</param>
/// <param name="IsMet">Whether the record has it.</param>
/// <param name="Section">The section of the record where it is.</param>
public sealed record TaskNeedResponse(string Label, bool IsMet, string Section);
