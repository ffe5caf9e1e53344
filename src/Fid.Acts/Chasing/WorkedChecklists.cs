using Fid.Acts.Calendars;
using Fid.Acts.Plans;
using Fid.Core.Chasing;
using Fid.Core.Planning;
using Fid.Data;
using Fid.Data.Hires;
using NodaTime;

namespace Fid.Acts.Chasing;

/// <summary>What was worked on in a time: the tasks of hires under way then or settled since, as Core is asked where they stall.</summary>
/// <param name="Hires">How many hires they are of.</param>
/// <param name="Tasks">Those that could be worked on, in the order of their hires; what was added to one hire alone is not among them.</param>
public sealed record WorkedChecklists(LocalDate From, LocalDate To, CalendarSet Calendars, int Hires, IReadOnlyList<WorkedOn> Tasks)
{
    /// <summary>Of so many the time that work takes is believed.</summary>
    public const int Least = 8;

    /// <summary>Reads it.</summary>
    /// <param name="visible">Narrows the hires to those that may be seen.</param>
    /// <param name="from">The first day, included.</param>
    /// <param name="to">The last day, included; not after today.</param>
    /// <param name="today">The firm's date.</param>
    public static async Task<WorkedChecklists> LoadAsync(
        FidDb db,
        Func<IQueryable<Hire>, IQueryable<Hire>> visible,
        LocalDate from,
        LocalDate to,
        LocalDate today,
        CancellationToken cancellation
    )
    {
        var (calendars, stages) = (await CalendarSet.LoadAsync(db, cancellation), await StagePlans.LoadAsync(db, cancellation));
        var hires = await HiresUnderWay.OfAsync(
            db,
            visible(db.Hires).Where(h => h.Outcome == null && h.Entered <= to && (h.Closed == null || h.Closed >= from)),
            cancellation
        );
        var found = new WorkedOn[hires.Count][];
        Parallel.For(0, found.Length, i => found[i] = [.. Of(hires[i], hires[i].Question(today, calendars, stages))]);
        return new WorkedChecklists(from, to, calendars, hires.Count, [.. found.SelectMany(f => f)]);
    }

    /// <summary>Where it stalls: by task and by owner.</summary>
    public Stalls Stalls() => Of(t => t.Task.Owner);

    /// <summary>The same by template instead of by owner.</summary>
    public IReadOnlyList<OwnerStall> ByTemplate() => Of(t => t.Hire.TemplateCode).Owners;

    private Stalls Of(Func<WorkedOn, string> owner) =>
        Core.Chasing.Stalls.Of(new StallsQuestion(Calendars.ByCode, From, To, Least, [.. Tasks.Select(t => t.Worked with { Owner = owner(t) })]))
            is { Answer: { } stalls }
            ? stalls
            : throw new InvalidOperationException("What was worked on cannot be looked back at.");

    private static IEnumerable<WorkedOn> Of(HireUnderWay hire, PlanQuestion question)
    {
        if (PlanPast.Of(question, hire.Head.Entered).Answer is not { } past)
            yield break;
        var plan = HirePlan.Of(question, SoonestSearch.Never);
        for (var i = 0; i < past.Count; i++)
            // Who is done before they could begin had begun all the same.
            if ((past[i].Possible ?? question.Tasks[i].Done) is { } possible && !hire.Tasks[i].Added)
                yield return new WorkedOn(
                    hire.Head,
                    hire.Tasks[i],
                    new WorkedTask(
                        hire.Tasks[i].Key,
                        hire.Tasks[i].Owner,
                        question.Tasks[i].Calendar,
                        hire.Tasks[i].Work,
                        possible,
                        // What was due before anybody here knew of the hire nobody was late with.
                        plan.Tasks[i].Due
                            is { } due
                        && due >= hire.Head.Entered
                            ? due
                            : null,
                        question.Tasks[i].Done,
                        past[i].HeldUp
                    )
                );
    }
}

/// <summary>A task of a hire that could be worked on.</summary>
public sealed record WorkedOn(HireHead Hire, TaskRow Task, WorkedTask Worked);
