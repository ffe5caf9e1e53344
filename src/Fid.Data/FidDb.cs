using Fid.Data.Changes;
using Fid.Data.Exchange;
using Fid.Data.Fields;
using Fid.Data.Firms;
using Fid.Data.Hires;
using Fid.Data.Intake;
using Fid.Data.Lists;
using Fid.Data.Mail;
using Fid.Data.PayRuns;
using Fid.Data.People;
using Fid.Data.Requests;
using Fid.Data.Rights;
using Fid.Data.Templates;
using Fid.Data.Work;
using Microsoft.AspNetCore.DataProtection.EntityFrameworkCore;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;

namespace Fid.Data;

/// <summary>All that one firm's Fid knows.</summary>
public sealed class FidDb(DbContextOptions<FidDb> options) : IdentityUserContext<FidUser, Guid>(options), IDataProtectionKeyContext
{
    public DbSet<Firm> Firms => Set<Firm>();

    public DbSet<NumberCounter> NumberCounters => Set<NumberCounter>();

    public DbSet<RoleGrant> RoleGrants => Set<RoleGrant>();

    public DbSet<RightsVersion> RightsVersions => Set<RightsVersion>();

    public DbSet<RightsDraft> RightsDrafts => Set<RightsDraft>();

    public DbSet<SetupToken> SetupTokens => Set<SetupToken>();

    public DbSet<CalendarLink> CalendarLinks => Set<CalendarLink>();

    public DbSet<AccountLink> AccountLinks => Set<AccountLink>();

    public DbSet<UserSession> UserSessions => Set<UserSession>();

    public DbSet<Passkey> Passkeys => Set<Passkey>();

    public DbSet<AccountAbsence> AccountAbsences => Set<AccountAbsence>();

    public DbSet<MailMessage> MailMessages => Set<MailMessage>();

    public DbSet<TaskInvitation> TaskInvitations => Set<TaskInvitation>();

    public DbSet<OwnMailText> OwnMailTexts => Set<OwnMailText>();

    public DbSet<TaskReminder> TaskReminders => Set<TaskReminder>();

    public DbSet<SignInTry> SignInTries => Set<SignInTry>();

    public DbSet<DoneAct> DoneActs => Set<DoneAct>();

    public DbSet<Change> Changes => Set<Change>();

    public DbSet<Seal> Seals => Set<Seal>();

    public DbSet<ListEntry> ListEntries => Set<ListEntry>();

    public DbSet<ImportRun> ImportRuns => Set<ImportRun>();

    public DbSet<ImportMemory> ImportMemories => Set<ImportMemory>();

    public DbSet<FieldVersion> FieldVersions => Set<FieldVersion>();

    public DbSet<FieldDraft> FieldDrafts => Set<FieldDraft>();

    public DbSet<Person> People => Set<Person>();

    public DbSet<Employment> Employments => Set<Employment>();

    public DbSet<RecordValue> RecordValues => Set<RecordValue>();

    /// <summary>
    /// Values of new records, saved with the rest. They are not tracked before that: they are never changed in the act that makes them,
    /// and <see cref="BulkSave.SaveManyAsync"/> copies thousands in less time than it takes to track them.
    /// </summary>
    public List<RecordValue> FirstValues { get; } = [];

    public DbSet<CurrentRecord> CurrentRecords => Set<CurrentRecord>();

    public DbSet<PayCheck> PayChecks => Set<PayCheck>();

    public DbSet<RunChecklist> RunChecklists => Set<RunChecklist>();

    public DbSet<RunTask> RunTasks => Set<RunTask>();

    public DbSet<PayRevisionRun> PayRevisionRuns => Set<PayRevisionRun>();

    public DbSet<PersonMerge> PersonMerges => Set<PersonMerge>();

    public DbSet<RecordRequest> RecordRequests => Set<RecordRequest>();

    public DbSet<StoredFile> StoredFiles => Set<StoredFile>();

    public DbSet<RoleTemplate> RoleTemplates => Set<RoleTemplate>();

    public DbSet<TemplateVersion> TemplateVersions => Set<TemplateVersion>();

    public DbSet<TemplateDraft> TemplateDrafts => Set<TemplateDraft>();

    public DbSet<TemplateUpdateRun> TemplateUpdateRuns => Set<TemplateUpdateRun>();

    public DbSet<SharedTask> SharedTasks => Set<SharedTask>();

    public DbSet<IntakeCandidate> IntakeCandidates => Set<IntakeCandidate>();

    public DbSet<FeedRun> FeedRuns => Set<FeedRun>();

    public DbSet<OutboxMessage> Outbox => Set<OutboxMessage>();

    public DbSet<ReceivedMessage> Received => Set<ReceivedMessage>();

    public DbSet<Job> Jobs => Set<Job>();

    public DbSet<JobRun> JobRuns => Set<JobRun>();

    public DbSet<Stage> Stages => Set<Stage>();

    public DbSet<Hire> Hires => Set<Hire>();

    public DbSet<HireEntry> HireEntries => Set<HireEntry>();

    public DbSet<HirePeople> HirePeople => Set<HirePeople>();

    public DbSet<HireStage> HireStages => Set<HireStage>();

    public DbSet<TeamTurn> TeamTurns => Set<TeamTurn>();

    public DbSet<HireTask> HireTasks => Set<HireTask>();

    public DbSet<DataProtectionKey> DataProtectionKeys => Set<DataProtectionKey>();

    public override int SaveChanges(bool acceptAllChangesOnSuccess)
    {
        AddRange(TakeFirstValues());
        return base.SaveChanges(acceptAllChangesOnSuccess);
    }

    public override Task<int> SaveChangesAsync(bool acceptAllChangesOnSuccess, CancellationToken cancellationToken = default)
    {
        AddRange(TakeFirstValues());
        return base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
    }

    internal RecordValue[] TakeFirstValues()
    {
        RecordValue[] taken = [.. FirstValues];
        FirstValues.Clear();
        return taken;
    }

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.HasPostgresExtension("btree_gist");
        builder.HasPostgresExtension("pg_trgm");
        builder.ApplyConfigurationsFromAssembly(typeof(FidDb).Assembly);
        foreach (var (table, entity) in IdentityTables)
            builder.Entity(entity).ToTable(table);
    }

    private static readonly (string Table, Type Entity)[] IdentityTables =
    [
        ("users", typeof(FidUser)),
        ("user_claims", typeof(IdentityUserClaim<Guid>)),
        ("user_logins", typeof(IdentityUserLogin<Guid>)),
        ("user_tokens", typeof(IdentityUserToken<Guid>)),
    ];
}
