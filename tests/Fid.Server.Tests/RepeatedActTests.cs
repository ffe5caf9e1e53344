using System.Text.Json;
using Fid.Acts;
using Fid.Acts.Hires;
using Fid.Acts.Intake;
using Fid.Acts.Lists;
using Fid.Acts.ListUse;
using Fid.Acts.Merging;
using Fid.Acts.People;
using Fid.Acts.Setup;
using Fid.Acts.Templates;
using Fid.Data.Hires;
using Fid.Testing;
using Microsoft.EntityFrameworkCore;
using Shouldly;
using Xunit;

namespace Fid.Server.Tests;

/// <summary>An act that is sent again under its key is done once, whatever it is, and is not refused for having been done.</summary>
public class RepeatedActTests(FirmFixture firm) : IClassFixture<FirmFixture>
{
    private delegate Task<Refusal?> Act(ActCaller acts, Actor actor);

    [Fact]
    public async Task Whatever_is_sent_twice_under_one_key_is_done_once()
    {
        var (hire, employment, change) = await KnownAsync();
        var (spec, parcel) = await TemplateAsync();
        var settings = await SettingsAsync();
        uint? seen = null,
            drafted = null;
        var done = new Dictionary<string, Act>
        {
            ["settings"] = async (a, who) => (await a.Get<SaveSettings>().DoAsync(settings, who, default)).Refusal,
            ["feed"] = async (a, who) => (await a.Get<SetFeed>().DoAsync(new SetFeedRequest(null), who, default)).Refusal,
            ["entry added"] = async (a, who) =>
                (await a.Get<AddEntry>().DoAsync(new AddEntryRequest("teams", new EntryRequest("again", "Again", [])), who, default)).Refusal,
            ["entry saved"] = async (a, who) =>
                (
                    await a.Get<SaveEntry>()
                        .DoAsync(
                            new SaveEntryRequest("teams", "again", new EntryRequest("again", "Once", []), seen ??= await EntryVersionAsync(a)),
                            who,
                            default
                        )
                ).Refusal,
            ["entry retired"] = async (a, who) =>
                (await a.Get<RetireEntry>().DoAsync(new RetireEntryRequest("teams", "again", null, null, null), who, default)).Refusal,
            ["entry restored"] = async (a, who) => (await a.Get<RestoreEntry>().DoAsync(new RestoreEntryRequest("teams", "again"), who, default)).Refusal,
            ["entry deleted"] = async (a, who) => (await a.Get<DeleteEntry>().DoAsync(new DeleteEntryRequest("teams", "again"), who, default)).Refusal,
            ["template retired"] = async (a, who) =>
                (await a.Get<RetireTemplate>().DoAsync(new RetireTemplateRequest("payroll-clerk", true), who, default)).Refusal,
            ["draft of a template"] = async (a, who) =>
                (await a.Get<SaveTemplateDraft>().DoAsync(new SaveTemplateDraftRequest("payroll-clerk", spec, null), who, default)).Refusal,
            ["draft thrown away"] = async (a, who) =>
                (
                    await a.Get<DiscardTemplateDraft>()
                        .DoAsync(new DiscardTemplateDraftRequest("payroll-clerk", drafted ??= await DraftVersionAsync(a)), who, default)
                ).Refusal,
            ["templates from a file"] = async (a, who) =>
                (await a.Get<ImportTemplates>().DoAsync(new ImportTemplatesRequest(parcel, []), who, default)).Refusal,
            ["change explained"] = async (a, who) =>
                (await a.Get<ExplainChange>().DoAsync(new ExplainChangeRequest(employment, change, "Because"), who, default)).Refusal,
            ["hire closed"] = async (a, who) =>
                (await a.Get<CloseHire>().DoAsync(new CloseHireRequest(hire, HireOutcome.Withdrawn, "Stepped back"), who, default)).Refusal,
            ["hire reopened"] = async (a, who) => (await a.Get<ReopenHire>().DoAsync(new ReopenHireRequest(hire), who, default)).Refusal,
        };
        foreach (var (what, act) in done)
        {
            var key = Guid.NewGuid();
            (await DoAsync(act, key)).ShouldBeNull(what);
            var before = await firm.Database.AskAsync(Everything);
            (await DoAsync(act, key)).ShouldBeNull($"{what}, again");
            (await firm.Database.AskAsync(Everything)).ShouldBe(before, what);
        }
    }

    [Fact]
    public async Task People_who_were_made_one_twice_under_a_key_are_parted_once()
    {
        Guid kept,
            other;
        await using (var acts = new ActCaller(firm.Server))
        {
            var two = await acts
                .Db.CurrentRecords.Where(r => r.FamilyName == "Brandt" || r.FamilyName == "Lind")
                .OrderBy(r => r.FamilyName)
                .Select(r => r.EmploymentId)
                .ToListAsync();
            (kept, other) = (two[0], two[1]);
        }
        var (key, merge) = (Guid.NewGuid(), Guid.Empty);
        for (var i = 0; i < 2; i++)
        {
            (
                await DoAsync(
                    async (a, who) =>
                    {
                        var result = await a.Get<MergePeople>().DoAsync(new MergePeopleRequest(kept, other, [], null, []), who, default);
                        if (i == 1)
                            result.Answer.ShouldBe(merge);
                        merge = result.Answer;
                        return result.Refusal;
                    },
                    key
                )
            ).ShouldBeNull();
        }
        var parting = Guid.NewGuid();
        for (var i = 0; i < 2; i++)
            (await DoAsync(async (a, who) => (await a.Get<PartPeople>().DoAsync(new PartPeopleRequest(merge), who, default)).Refusal, parting)).ShouldBeNull();
        (
            await DoAsync(async (a, who) => (await a.Get<PartPeople>().DoAsync(new PartPeopleRequest(merge), who, default)).Refusal, Guid.NewGuid())
        )!.Code.ShouldBe("undone-already");
    }

    [Fact]
    public void Every_act_with_a_transaction_asks_whether_it_is_done_already() =>
        Directory
            .EnumerateFiles(Path.Combine(Repository.Root, "src/Fid.Acts"), "*.cs", SearchOption.AllDirectories)
            // Hires are found by their ids; imports go from state to state.
            .Where(f => Path.GetFileName(f) is not ("OpenHire.cs" or "CommitImport.cs" or "UndoImport.cs"))
            .Where(f =>
                File.ReadAllText(f) is var text
                && text.Contains("ActScope.BeginAsync(db, actor, ", StringComparison.Ordinal)
                && !text.Contains(nameof(ActScope.IsDoneAlready), StringComparison.Ordinal)
            )
            .Select(Path.GetFileName)
            .ShouldBeEmpty();

    // Each time by another instance of the act, as another request is.
    private async Task<Refusal?> DoAsync(Act act, Guid key)
    {
        await using var acts = new ActCaller(firm.Server);
        return await act(acts, await acts.AsAsync("piet") with { Key = key });
    }

    private static Task<uint> EntryVersionAsync(ActCaller acts) =>
        acts.Db.ListEntries.Where(e => e.List == "teams" && e.Code == "again").Select(e => e.Version).SingleAsync();

    private static Task<uint> DraftVersionAsync(ActCaller acts) =>
        acts.Db.TemplateDrafts.Where(d => d.Code == "payroll-clerk").Select(d => d.RowVersion).SingleAsync();

    private async Task<SettingsRequest> SettingsAsync()
    {
        await using var acts = new ActCaller(firm.Server);
        return SettingsRequest.Of(await acts.Db.Firms.AsNoTracking().SingleAsync()) with { BridgeDays = 29 };
    }

    private async Task<(Guid Hire, Guid Employment, Guid Change)> KnownAsync()
    {
        await using var acts = new ActCaller(firm.Server);
        var hire = await acts.Db.Hires.AsNoTracking().Where(h => h.Closed == null && h.Start > TestDatabase.Today).OrderBy(h => h.Id).FirstAsync();
        await acts.Get<SaveRecord>()
            .DoAsync(
                new SaveRecordRequest(
                    hire.EmploymentId,
                    new() { ["town"] = JsonSerializer.SerializeToElement("Nearby") },
                    null,
                    null,
                    (await acts.Db.CurrentRecords.AsNoTracking().SingleAsync(r => r.EmploymentId == hire.EmploymentId)).Version
                ),
                await acts.AsAsync("orla"),
                default
            );
        return (
            hire.Id,
            hire.EmploymentId,
            await acts.Db.Changes.Where(c => c.SubjectId == hire.EmploymentId).OrderByDescending(c => c.At).Select(c => c.Id).FirstAsync()
        );
    }

    private async Task<(Data.Templates.TemplateSpec Spec, TemplateExport Parcel)> TemplateAsync()
    {
        await using var acts = new ActCaller(firm.Server);
        var book = await TemplateSet.LoadAsync(acts.Db, default);
        var template = book.Find("payroll-clerk")!;
        return (template.Spec, await new TemplateTransfer(acts.Db).PackAsync(book, template, default));
    }

    private const string Everything =
        "select (select count(*) from changes) || ' ' || (select count(*) from template_drafts) || ' ' || (select count(*) from list_entries) "
        + "|| ' ' || (select count(*) from outbox)";
}
