using Fid.Core.Planning;
using NodaTime;

namespace Fid.Data.Hires;

/// <summary>A task of a checklist, whatever the checklist is for: what it asks for, by when, of whom, and what became of it.</summary>
public abstract class ChecklistTask
{
    /// <summary>Stands for the holiday calendar of the newcomer's own record, or of the pay group, whichever that is when the plan is made.</summary>
    public const string OwnCalendar = "own";

    /// <summary>The most characters of a reason.</summary>
    public const int LongestReason = 500;

    /// <summary>The most characters of a note.</summary>
    public const int LongestNote = 2_000;

    /// <summary>The most characters of a name.</summary>
    public const int LongestName = 200;

    /// <summary>The reason of a task that does not apply because a condition says so.</summary>
    public const string ByCondition = "condition";

    /// <summary>Before a team's code in an owner.</summary>
    public const string TeamPrefix = "team:";

    /// <summary>Before the id of a person's employment in an owner.</summary>
    public const string PersonPrefix = "person:";

    /// <summary>The code of the team that an owner names; null for other owners.</summary>
    public static string? TeamOf(string owner) => owner.StartsWith(TeamPrefix, StringComparison.Ordinal) ? owner[TeamPrefix.Length..] : null;

    /// <summary>The employment of the person whom an owner names; null for other owners.</summary>
    public static Guid? PersonOf(string owner) =>
        owner.StartsWith(PersonPrefix, StringComparison.Ordinal) && Guid.TryParse(owner.AsSpan(PersonPrefix.Length), out var person) ? person : null;

    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>Unique in the checklist.</summary>
    public required string Key { get; init; }

    /// <summary>Its place among the tasks of the checklist; they are listed by it within a stage.</summary>
    public required int Position { get; set; }

    public required string Name { get; set; }

    /// <summary>The German name; null where there is none.</summary>
    public string? NameDe { get; set; }

    public required string StageKey { get; set; }

    /// <summary>Who does it: "newcomer", "manager", "buddy", "coordinator", "team:" and a team's code, or "person:" and the id of an
    /// employment. Of a pay run a team or a person.</summary>
    public required string Owner { get; set; }

    /// <summary>The code of the calendar its owner works on, or <see cref="OwnCalendar"/>.</summary>
    public required string CalendarCode { get; set; }

    public required int Work { get; set; }

    public string? OpensAnchor { get; set; }

    public int OpensAmount { get; set; }

    public OffsetUnit OpensUnit { get; set; }

    public string? DueAnchor { get; set; }

    public int DueAmount { get; set; }

    public OffsetUnit DueUnit { get; set; }

    /// <summary>Keys of the tasks it comes after.</summary>
    public string[] After { get; set; } = [];

    /// <summary>The lag after each of <see cref="After"/>, in working days.</summary>
    public int[] Lags { get; set; } = [];

    public bool Required { get; set; } = true;

    /// <summary>How it is done, in Markdown.</summary>
    public string? Instructions { get; set; }

    /// <summary>The same in German; null where there is none.</summary>
    public string? InstructionsDe { get; set; }

    public LocalDate? Done { get; set; }

    public string? DoneBy { get; set; }

    /// <summary>Why it does not apply; null when it does.</summary>
    public string? SkippedWhy { get; set; }
}
