using Fid.Acts.Calendars;
using Fid.Acts.Fields;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Acts.Tasks;
using Fid.Acts.Templates;
using Fid.Core;
using Fid.Core.Checklists;
using Fid.Core.Fields;
using Fid.Core.Planning;
using Fid.Core.Rights;
using Fid.Data;
using Fid.Data.Hires;
using Fid.Data.People;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Fid.Acts.Checklists;

/// <summary>
/// Does the next task of a hire that Fid does by itself: sets fields of the record to what formulas over it come to. What cannot be set as a whole
/// is not set at all, and the task says why; it is tried again when the record changes, on the next day, or when somebody asks for it.
/// </summary>
public sealed class RunTask(FidDb db, RecordWriter records, EnteredValues enteredValues)
{
    /// <summary>What jobs that do this for one hire are called.</summary>
    public const string Kind = "run";

    /// <summary>As the trail names a try in vain.</summary>
    internal const string Failed = "task.failed";

    private const string Source = "task";

    /// <returns>How many tasks were done, or tried in vain: one, or none where none is ready.</returns>
    public async Task<ActResult<int>> DoAsync(RunTaskRequest request, Actor actor, CancellationToken cancellation)
    {
        if (!actor.May(Actions.Edit, Things.Work))
            return Refusal.Forbidden;
        await using var act = await ActScope.BeginAsync(db, actor with { Key = null }, request, cancellation);
        if (await EmploymentAsync(request.Hire, cancellation) is not { } employed)
            return 0;
        await Locks.RecordAsync(db, employed, cancellation);
        await Locks.HiresAsync(db, [request.Hire], cancellation);
        var calendars = await CalendarSet.LoadAsync(db, cancellation);
        if (await ReadyAsync(request.Hire, calendars, actor.Today, cancellation) is not { } task)
            return 0;
        var (employments, projections) = await records.ReadAsync([employed], cancellation);
        var (employment, record) = (employments[employed], projections[employed]);
        var problem = await SetAsync(act, task, employment, record, calendars, actor, cancellation);
        task.Tried(problem, actor.Today, record.Saved);
        if (problem is null)
            (task.Done, task.DoneBy) = (actor.Today, actor.Name);
        if (TaskFacts.OfChange(db, task) is { } facts)
            act.Note(
                actor.Author("checklist").Change(problem is null ? TickTasks.Action : Failed, task.HireId, task.Key, problem?.Message) with
                {
                    Details = facts.Write(),
                }
            );
        await act.CommitAsync(cancellation);
        return 1;
    }

    private Task<Guid?> EmploymentAsync(Guid hire, CancellationToken cancellation) =>
        db.Hires.Where(h => h.Id == hire && h.Closed == null).Select(h => (Guid?)h.EmploymentId).SingleOrDefaultAsync(cancellation);

    private async Task<HireTask?> ReadyAsync(Guid id, CalendarSet calendars, LocalDate today, CancellationToken cancellation)
    {
        var stages = await StagePlans.LoadAsync(db, cancellation);
        if (await HiresUnderWay.LoadAsync(db, all => all.Where(h => h.Id == id), cancellation) is not [var hire])
            return null;
        var ready = AutomaticTasks.ReadyOf(hire, HirePlan.Of(hire.Question(today, calendars, stages), SoonestSearch.Never)).ToArray();
        return ready.Length == 0
            ? null
            : await AutomaticTasks
                .WorthTrying(db, today)
                .Where(t => t.HireId == id && ready.Contains(t.Key))
                .OrderBy(t => t.Position)
                .FirstOrDefaultAsync(cancellation);
    }

    // Enters the values as Fid; the first of what keeps it from that otherwise.
    private async Task<Problem?> SetAsync(
        ActScope act,
        HireTask task,
        Employment employment,
        CurrentRecord record,
        CalendarSet calendars,
        Actor actor,
        CancellationToken cancellation
    )
    {
        var fields = await new LiveFieldsLoader(db).LiveAsync(cancellation);
        var facts = (await ShownValues.OfAsync(db, employment, actor.Today, cancellation)).ToDictionary(v => v.Key, v => v.Value.Value);
        var returning = await TemplateUpdates.ReturningAsync(db, cancellation, [employment.Id]);
        var calendar = calendars.OfRecord(facts);
        if (task.Settings.Count == 0)
            return new Problem("", "nothing-to-set", "It does not say what is to be set. Change the template, or do it by hand.");
        if (task.Settings.FirstOrDefault(s => fields.Set.Find(s.Field) is not { } field || !FieldSettings.Takes(field)) is { } gone)
            return new Problem($"/{gone.Field}", "not-settable", $"There is no field {gone.Field} any more that can be set by itself.");
        var worked = FieldSettings.Compute(task.Settings, ConditionalTasks.With(facts, returning.Contains(employment.Id)), actor.Today, calendar);
        if (worked.Answer is not { } values)
            return worked.Problems[0];
        var entered = await enteredValues.CheckAsync(
            fields,
            new EnteredRecord(values.ToDictionary(), employment.PersonId, employment.Id, FieldRights.Of(fields.Set, _ => FieldAccess.Edit)),
            cancellation
        );
        if (entered.Problems.Concat(RecordRules.Misfits(entered.Values, employment.Start)).FirstOrDefault() is { } wrong)
            return wrong;
        // Of somebody who is still to come it is true from the first day.
        var from = employment.Start > actor.Today ? (LocalDate?)null : actor.Today;
        var change = actor.Author("checklist").Change(from is null ? "record.fixed" : "record.changed", employment.Id, why: task.Name);
        var edits = entered.Values.Select(v => new FieldEdit(v.Key, v.Value, Source, from)).ToList();
        var clash = await records.SaveAsync([new RecordEdit(employment, record, edits, change)], actor.Today, cancellation);
        if (clash.Count > 0)
            return clash[0].Problem;
        act.Note(change);
        return null;
    }
}

/// <param name="Hire">Where none of its tasks can be done by itself now, nothing is done.</param>
public sealed record RunTaskRequest(Guid Hire);
