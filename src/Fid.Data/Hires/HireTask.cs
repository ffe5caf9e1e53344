using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Formulas;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;

namespace Fid.Data.Hires;

/// <summary>A task of a hire's checklist, as its template had it when the hire was opened.</summary>
public sealed class HireTask : ChecklistTask
{
    public Guid HireId { get; init; }

    /// <summary>Whether it is to be finished before the day that the checklist is planned around.</summary>
    public bool DayOne { get; set; }

    /// <summary>What kind of thing it asks for; some kinds complete themselves.</summary>
    public TaskKind Kind { get; set; }

    /// <summary>What it is about: the keys of fields, or the codes of items or certificates.</summary>
    public string[] About { get; set; } = [];

    /// <summary>The condition that decides whether it applies, as a formula over the record; null where it always does.</summary>
    public string? When { get; set; }

    /// <summary>Who can help, named like an owner.</summary>
    public string? Contact { get; set; }

    /// <summary>Why it is them who can help.</summary>
    public string? ContactWhy { get; set; }

    /// <summary>The same in German; null where there is none.</summary>
    public string? ContactWhyDe { get; set; }

    /// <summary>The steps of a task that is a group of them, in order; empty for others.</summary>
    public string[] Steps { get; set; } = [];

    /// <summary>The same in German, one for one; empty where there are none.</summary>
    public string[] StepsDe { get; set; } = [];

    /// <summary>Which of <see cref="Steps"/> are done, by their place from 0, in order.</summary>
    public int[] StepsDone { get; set; } = [];

    /// <summary>The fields that it sets by itself; empty for others.</summary>
    public string[] SetFields { get; set; } = [];

    /// <summary>To what it sets each of <see cref="SetFields"/>, as formulas.</summary>
    public string[] SetFormulas { get; set; } = [];

    /// <summary>What it sets by itself.</summary>
    public IReadOnlyList<FieldSetting> Settings => [.. SetFields.Zip(SetFormulas, (key, formula) => new FieldSetting(key, formula))];

    /// <summary>Why it could not be done by itself when that was tried; null where it was not, or could.</summary>
    public string? Trouble { get; set; }

    /// <summary>The code of that trouble, and the field it is about after a slash, such as "missing/pay_group".</summary>
    public string? TroubleCode { get; set; }

    /// <summary>The day on which it was tried in vain.</summary>
    public LocalDate? TriedOn { get; set; }

    /// <summary>When the record had last been saved then: with another it is worth trying again.</summary>
    public Instant? TriedWith { get; set; }

    /// <summary>When it begins on its day, in the firm's zone, for what one meets for; null where it has no time.</summary>
    public LocalTime? MeetsAt { get; set; }

    /// <summary>How long one meets; null for as long as it takes.</summary>
    public int? Minutes { get; set; }

    /// <summary>Where one meets.</summary>
    public string? Place { get; set; }

    /// <summary>The ids of files that go with it.</summary>
    public Guid[] Attachments { get; set; } = [];

    /// <summary>The day it is to be done on, whatever the plan says; null where the plan says.</summary>
    public LocalDate? Pinned { get; set; }

    /// <summary>The account of the member who took on a task of their team; null while it is for any of them.</summary>
    public Guid? TakenById { get; set; }

    /// <summary>What those who do it should know, of this newcomer alone.</summary>
    public string? Note { get; set; }

    /// <summary>Whether nobody is reminded of it for now, unless somebody asks for it.</summary>
    public bool RemindersPaused { get; set; }

    /// <summary>Whether it was added to this hire alone.</summary>
    public bool Added { get; set; }

    /// <summary>Whether it does not apply because a condition of its own or of its stage says so: <see cref="ChecklistTask.SkippedWhy"/> is <see
    /// cref="ChecklistTask.ByCondition"/> then, and it applies again as soon as both hold.</summary>
    public bool SkippedByCondition { get; set; }

    /// <summary>Says of each of its steps whether it is done, and so of the whole.</summary>
    /// <param name="done">The places of those that are, from 0.</param>
    /// <param name="by">Who says so, on which day.</param>
    public void StepTo(IEnumerable<int> done, string by, LocalDate day)
    {
        StepsDone = [.. done.Distinct().Order()];
        if (StepsDone.Length < Steps.Length)
            (Done, DoneBy) = (null, null);
        else if (Done is null)
            (Done, DoneBy) = (day, by);
    }

    /// <summary>Takes over other steps: those that are called as before stay done.</summary>
    public void TakeSteps(string[] steps, string[] german)
    {
        var done = StepsDone.Where(i => i < Steps.Length).Select(i => Steps[i]).ToHashSet(StringComparer.Ordinal);
        (Steps, StepsDe) = (steps, german);
        StepsDone = [.. Enumerable.Range(0, steps.Length).Where(i => done.Contains(steps[i]))];
    }

    /// <summary>Keeps why it could not be done by itself, or that nothing is in the way any more.</summary>
    /// <param name="with">When the record had last been saved.</param>
    public void Tried(Problem? problem, LocalDate on, Instant with) =>
        (Trouble, TroubleCode, TriedOn, TriedWith) = problem is null
            ? (null, null, null, null)
            : (problem.Message, $"{problem.Code}{problem.Path}", (LocalDate?)on, (Instant?)with);

    /// <summary>Whether somebody has done it, or said that it does not apply: nothing but a person changes that.</summary>
    public bool IsDecided => Done is not null || (SkippedWhy is not null && !SkippedByCondition);

    /// <summary>The same task of another hire, or anew of this one: a row of its own.</summary>
    /// <param name="hire">The hire; left out where the hire's own list gives it.</param>
    /// <param name="afresh">Whether it is still to be done, whatever became of this one.</param>
    public HireTask Copy(Guid hire = default, bool afresh = false) =>
        new()
        {
            HireId = hire,
            Key = Key,
            Position = Position,
            Name = Name,
            NameDe = NameDe,
            StageKey = StageKey,
            Owner = Owner,
            CalendarCode = CalendarCode,
            Work = Work,
            OpensAnchor = OpensAnchor,
            OpensAmount = OpensAmount,
            OpensUnit = OpensUnit,
            DueAnchor = DueAnchor,
            DueAmount = DueAmount,
            DueUnit = DueUnit,
            After = After,
            Lags = Lags,
            Required = Required,
            DayOne = DayOne,
            Kind = Kind,
            About = About,
            When = When,
            Instructions = Instructions,
            InstructionsDe = InstructionsDe,
            Contact = Contact,
            ContactWhy = ContactWhy,
            ContactWhyDe = ContactWhyDe,
            Steps = Steps,
            StepsDe = StepsDe,
            StepsDone = afresh ? [] : StepsDone,
            SetFields = SetFields,
            SetFormulas = SetFormulas,
            Trouble = afresh ? null : Trouble,
            TroubleCode = afresh ? null : TroubleCode,
            TriedOn = afresh ? null : TriedOn,
            TriedWith = afresh ? null : TriedWith,
            MeetsAt = MeetsAt,
            Minutes = Minutes,
            Place = Place,
            Attachments = Attachments,
            Pinned = afresh ? null : Pinned,
            TakenById = afresh ? null : TakenById,
            Note = afresh ? null : Note,
            RemindersPaused = !afresh && RemindersPaused,
            Added = Added,
            Done = afresh ? null : Done,
            DoneBy = afresh ? null : DoneBy,
            SkippedWhy = afresh ? null : SkippedWhy,
            SkippedByCondition = !afresh && SkippedByCondition,
        };
}

internal sealed class HireTaskConfiguration : IEntityTypeConfiguration<HireTask>
{
    public void Configure(EntityTypeBuilder<HireTask> task)
    {
        task.Property(t => t.Kind).HasConversion<string>().HasMaxLength(20).HasDefaultValue(TaskKind.ToDo);
        task.Property(t => t.About).HasDefaultValueSql("'{}'");
        task.Property(t => t.Steps).HasDefaultValueSql("'{}'");
        task.Property(t => t.StepsDe).HasDefaultValueSql("'{}'");
        task.Property(t => t.StepsDone).HasDefaultValueSql("'{}'");
        task.Property(t => t.SetFields).HasDefaultValueSql("'{}'");
        task.Property(t => t.SetFormulas).HasDefaultValueSql("'{}'");
        task.Ignore(t => t.Settings);
        task.Property(t => t.Trouble).HasMaxLength(HireTask.LongestReason);
        task.Property(t => t.TroubleCode).HasMaxLength(HireTask.LongestName);
        task.Property(t => t.When).HasMaxLength(RecordFormula.Longest);
        task.Property(t => t.NameDe).HasMaxLength(HireTask.LongestName);
        task.Property(t => t.ContactWhy).HasMaxLength(HireTask.LongestReason);
        task.Property(t => t.ContactWhyDe).HasMaxLength(HireTask.LongestReason);
        task.Property(t => t.SkippedWhy).HasMaxLength(HireTask.LongestReason);
        task.Property(t => t.Place).HasMaxLength(HireTask.LongestName);
        task.HasIndex(t => t.HireId, "ix_hire_tasks_meetings").HasFilter("meets_at is not null");
        task.Property(t => t.Note).HasMaxLength(HireTask.LongestNote);
        // Changes with every save: of two who change a task at once, the second is told.
        task.Property<uint>("Version").IsRowVersion();
        task.HasIndex(t => new { t.HireId, t.Key }).IsUnique();
        task.HasIndex(t => t.Attachments).HasMethod("gin").HasFilter("cardinality(attachments) > 0");
        task.HasIndex(t => t.Contact).HasOperators("text_pattern_ops").HasFilter("contact is not null");
        task.HasIndex(t => new { t.Owner, t.HireId }).HasOperators("text_pattern_ops", "uuid_ops");
    }
}
