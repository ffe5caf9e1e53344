using System.Text.Json;
using Fid.Acts;
using Fid.Acts.FieldDrafts;
using Fid.Acts.Hires;
using Fid.Acts.Intake;
using Fid.Acts.Lists;
using Fid.Acts.ListUse;
using Fid.Acts.Merging;
using Fid.Acts.People;
using Fid.Acts.Rights;
using Fid.Acts.Setup;
using Fid.Acts.Tasks;
using Fid.Acts.Templates;
using Fid.Core.Rights;
using Fid.Data.Hires;
using Fid.Testing;
using Microsoft.EntityFrameworkCore;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>Acts are the same whoever does them: a job, somebody without rights, a part of a larger act.</summary>
public class ActTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    [Fact]
    public async Task A_job_ticks_a_task_under_the_rules_that_hold_for_everybody_and_the_trail_says_that_Fid_did()
    {
        await using var acts = new ActCaller(firm.Server);
        var (fid, task) = (await acts.AsFidAsync("gates"), await OpenTaskAsync(acts));
        var late = await acts.Get<TickTasks>().DoAsync(new TickTasksRequest([new TaskRef(task.HireId, task.Key)], fid.Today.PlusDays(1)), fid, default);
        late.Refusal!.Problems.Single().ShouldBe(new Core.Problem("/done", "in-future", "A task is done today or on a day before."));
        (await acts.Get<TickTasks>().DoAsync(new TickTasksRequest([new TaskRef(task.HireId, task.Key)]), fid, default)).Refusal.ShouldBeNull();
        var change = await acts
            .Db.Changes.AsNoTracking()
            .Where(c => c.SubjectId == task.HireId && c.Part == task.Key)
            .OrderByDescending(c => c.At)
            .FirstAsync();
        (change.Action, change.ByName, change.ById, change.Origin).ShouldBe(("task.done", "Fid", null, "gates"));
    }

    [Fact]
    public async Task A_job_that_is_done_again_under_its_key_is_done_once_and_another_request_under_it_is_refused()
    {
        await using var acts = new ActCaller(firm.Server);
        var (fid, task) = (await acts.AsFidAsync("gates") with { Key = Guid.NewGuid() }, await OpenTaskAsync(acts));
        (await acts.Get<SkipTasks>().DoAsync(new SkipTasksRequest([new TaskRef(task.HireId, task.Key)], "Not needed"), fid, default)).Refusal.ShouldBeNull();
        (
            await acts.Get<UnskipTasks>().DoAsync(new UnskipTasksRequest([new TaskRef(task.HireId, task.Key)]), fid with { Key = Guid.NewGuid() }, default)
        ).Refusal.ShouldBeNull();
        (await acts.Get<SkipTasks>().DoAsync(new SkipTasksRequest([new TaskRef(task.HireId, task.Key)], "Not needed"), fid, default)).Refusal.ShouldBeNull();
        (await acts.Db.HireTasks.AsNoTracking().SingleAsync(t => t.HireId == task.HireId && t.Key == task.Key)).SkippedWhy.ShouldBeNull();
        (await acts.Get<SkipTasks>().DoAsync(new SkipTasksRequest([new TaskRef(task.HireId, task.Key)], "Another reason"), fid, default)).Refusal.ShouldBe(
            Refusal.KeyReused
        );
    }

    [Fact]
    public async Task Who_has_no_role_may_do_nothing_and_nothing_is_changed()
    {
        await using var acts = new ActCaller(firm.Server);
        var nobody = await acts.AsAsync("orla") with
        {
            Rights = HeldRights.None,
            Employments = [],
            Tasks = TaskOwners.None,
            PersonId = null,
            AccountId = Guid.NewGuid(),
        };
        var hire = await acts.Db.Hires.AsNoTracking().FirstAsync(h => h.Closed == null);
        var task = await OpenTaskAsync(acts);
        var spec = (await acts.Db.RoleTemplates.AsNoTracking().FirstAsync()).Spec;
        var before = await acts.Db.Changes.CountAsync();
        Refusal?[] refused =
        [
            (
                await acts.Get<OpenHire>().DoAsync(new OpenHireRequest([new NewHireRequest(Guid.NewGuid(), "deckhand", nobody.Today, [])]), nobody, default)
            ).Refusal,
            (await acts.Get<TickTasks>().DoAsync(new TickTasksRequest([new TaskRef(task.HireId, task.Key)]), nobody, default)).Refusal,
            (await acts.Get<SkipTasks>().DoAsync(new SkipTasksRequest([new TaskRef(task.HireId, task.Key)], "x"), nobody, default)).Refusal,
            (await acts.Get<CloseHire>().DoAsync(new CloseHireRequest(hire.Id, HireOutcome.Withdrawn, "x"), nobody, default)).Refusal,
            (await acts.Get<MoveStart>().DoAsync(new MoveStartRequest(hire.Id, nobody.Today, null, hire.Version), nobody, default)).Refusal,
            (
                await acts.Get<SaveRecord>().DoAsync(new SaveRecordRequest(hire.EmploymentId, Values("town", "Elsewhere"), null, null, 1), nobody, default)
            ).Refusal,
            (await acts.Get<TakeBackChange>().DoAsync(new TakeBackChangeRequest(hire.EmploymentId, Guid.NewGuid(), null), nobody, default)).Refusal,
            (await acts.Get<MergePeople>().DoAsync(new MergePeopleRequest(hire.EmploymentId, hire.EmploymentId, [], null, []), nobody, default)).Refusal,
            (await acts.Get<SaveTemplateDraft>().DoAsync(new SaveTemplateDraftRequest("deckhand", spec, null), nobody, default)).Refusal,
            (await acts.Get<PublishFields>().DoAsync(new PublishFieldsRequest(null, true, 1), nobody, default)).Refusal,
            (await acts.Get<AddEntry>().DoAsync(new AddEntryRequest("sites", new EntryRequest("x", "X", [])), nobody, default)).Refusal,
            (await acts.Get<DeleteEntry>().DoAsync(new DeleteEntryRequest("sites", "skerry"), nobody, default)).Refusal,
            (await acts.Get<SaveSettings>().DoAsync(new SettingsRequest(39, 48, 30, 30, "{run:4}"), nobody, default)).Refusal,
            (await acts.Get<SetFeed>().DoAsync(new SetFeedRequest("https://feed.example"), await acts.AsAsync("orla"), default)).Refusal,
        ];
        refused.ShouldAllBe(r => r != null && (r.Kind == RefusalKind.Forbidden || r.Kind == RefusalKind.NotFound));
        (await acts.Db.Changes.CountAsync()).ShouldBe(before);
    }

    [Fact]
    public async Task An_act_that_is_part_of_a_larger_one_comes_and_goes_with_it()
    {
        await using var acts = new ActCaller(firm.Server);
        var (orla, task) = (await acts.AsAsync("orla"), await OpenTaskAsync(acts));
        await using (await ActScope.BeginAsync(acts.Db, orla, "larger", default))
            (await acts.Get<TickTasks>().DoAsync(new TickTasksRequest([new TaskRef(task.HireId, task.Key)]), orla, default)).Refusal.ShouldBeNull();
        acts.Db.ChangeTracker.Clear();
        (await acts.Db.HireTasks.AsNoTracking().SingleAsync(t => t.HireId == task.HireId && t.Key == task.Key)).Done.ShouldBeNull();
        await using (var whole = await ActScope.BeginAsync(acts.Db, orla, "larger", default))
        {
            (await acts.Get<TickTasks>().DoAsync(new TickTasksRequest([new TaskRef(task.HireId, task.Key)]), orla, default)).Refusal.ShouldBeNull();
            await whole.CommitAsync(default);
        }
        (await acts.Db.HireTasks.AsNoTracking().SingleAsync(t => t.HireId == task.HireId && t.Key == task.Key)).Done.ShouldBe(orla.Today);
    }

    [Fact]
    public async Task Of_somebody_whose_account_is_gone_nothing_goes_on()
    {
        await using var acts = new ActCaller(firm.Server);
        var gone = await Actor.OfAccountAsync(Guid.NewGuid(), "exchange", acts.Get<FirmClock>(), acts.Db, default);
        Things.Rights.Count(r => gone.May(r.Action, r.Thing)).ShouldBe(0);
    }

    private static Dictionary<string, JsonElement> Values(string field, string value) => new() { [field] = JsonSerializer.SerializeToElement(value) };

    private static Task<HireTask> OpenTaskAsync(ActCaller acts) =>
        acts
            .Db.HireTasks.AsNoTracking()
            .Where(t => t.Done == null && t.SkippedWhy == null && acts.Db.Hires.Any(h => h.Id == t.HireId && h.Closed == null))
            .OrderBy(t => t.HireId)
            .ThenBy(t => t.Position)
            .FirstAsync();
}
