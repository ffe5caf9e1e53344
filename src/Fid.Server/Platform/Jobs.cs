using Fid.Acts;
using Fid.Acts.Accounts;
using Fid.Acts.Chasing;
using Fid.Acts.Checklists;
using Fid.Acts.Exchange;
using Fid.Acts.FieldDrafts;
using Fid.Acts.Invitations;
using Fid.Acts.Mail;
using Fid.Acts.PayRuns;
using Fid.Acts.People;
using Fid.Acts.Work;
using NodaTime;

namespace Fid.Server.Platform;

/// <summary>What Fid does by itself, and the servers' part in it.</summary>
internal static class Jobs
{
    public const string Day = "day",
        Leavers = "leavers",
        Clearing = "clearing",
        Checklists = "checklists",
        Reminders = "reminders",
        Meetings = "meetings",
        PayRuns = "payRuns";

    public static void AddFidJobs(this IServiceCollection services, bool run)
    {
        services.AddSingleton<JobQueue>();
        services.AddJob(Day, Duration.FromSeconds(30), JobLane.Short, async (of, _, fid, cancellation) =>
            JobKind.Handled(await of.GetRequiredService<TurnDay>().DoAsync(new TurnDayRequest(), fid, cancellation))
        );
        services.AddJob(Leavers, Duration.FromMinutes(10), JobLane.Short, async (of, _, fid, cancellation) =>
            JobKind.Handled(await of.GetRequiredService<EndAccountsOfLeavers>().DoAsync(new EndAccountsOfLeaversRequest(), fid, cancellation))
        );
        services.AddJob(Clearing, Duration.FromHours(1), JobLane.Short, async (of, _, fid, cancellation) =>
            JobKind.Handled(await of.GetRequiredService<ClearUp>().DoAsync(new ClearUpRequest(), fid, cancellation))
        );
        services.AddJob(Checklists, Duration.FromSeconds(30), JobLane.Short, async (of, _, fid, cancellation) =>
            JobKind.Handled(await of.GetRequiredService<AdvanceChecklistsDaily>().DoAsync(new AdvanceChecklistsDailyRequest(), fid, cancellation))
        );
        services.AddJob(PayRuns, Duration.FromMinutes(10), JobLane.Short, async (of, _, fid, cancellation) =>
            JobKind.Handled(await of.GetRequiredService<BeginNextRunChecklists>().DoAsync(new BeginNextRunChecklistsRequest(), fid, cancellation))
        );
        services.AddJob(
            AdvanceChecklists.Kind,
            null,
            JobLane.Short,
            async (of, hire, fid, cancellation) =>
                JobKind.Handled(await of.GetRequiredService<AdvanceChecklists>().DoAsync(new AdvanceChecklistsRequest([Guid.Parse(hire!)]), fid, cancellation)),
            keepsIdle: false
        );
        services.AddJob(
            RunTask.Kind,
            null,
            JobLane.Short,
            async (of, hire, fid, cancellation) =>
                JobKind.Handled(await of.GetRequiredService<RunTask>().DoAsync(new RunTaskRequest(Guid.Parse(hire!)), fid, cancellation)),
            keepsIdle: false
        );
        services.AddJob(ReplanChecklists.Kind, null, JobLane.Short, async (of, _, fid, cancellation) =>
            JobKind.Handled(await of.GetRequiredService<ReplanChecklists>().DoAsync(new ReplanChecklistsRequest(), fid, cancellation))
        );
        services.AddJob(CarryIntoRows.Kind, null, JobLane.Short, async (of, _, fid, cancellation) =>
            JobKind.Handled(await of.GetRequiredService<CarryIntoRows>().DoAsync(new CarryIntoRowsRequest(), fid, cancellation))
        );
        services.AddJob(RunImport.Kind, null, JobLane.Sheets, async (of, import, fid, cancellation) =>
            JobKind.Handled(await of.GetRequiredService<RunImport>().DoAsync(new RunImportRequest(Guid.Parse(import!)), fid, cancellation))
        );
        if (!run)
            return;
        services.AddSingleton<JobAlarm>().AddHostedService(provider => provider.GetRequiredService<JobAlarm>());
        foreach (var lane in Enum.GetValues<JobLane>())
            services.AddSingleton<IHostedService>(provider => ActivatorUtilities.CreateInstance<JobRunner>(provider, lane));
    }

    /// <summary>Adds what only a server does that knows of a mail server: another leaves the messages to it.</summary>
    public static void AddMailJobs(this IServiceCollection services)
    {
        services.AddJob(Reminders, Duration.FromMinutes(1), JobLane.Short, async (of, _, fid, cancellation) =>
            JobKind.Handled(await of.GetRequiredService<RemindOwners>().DoAsync(new RemindOwnersRequest(), fid, cancellation))
        );
        services.AddJob(Meetings, Duration.FromMinutes(10), JobLane.Short, async (of, _, fid, cancellation) =>
            JobKind.Handled(await of.GetRequiredService<SendInvitations>().DoAsync(new SendInvitationsRequest(null), fid, cancellation))
        );
        services.AddJob(
            SendInvitations.Kind,
            null,
            JobLane.Short,
            async (of, hire, fid, cancellation) =>
                JobKind.Handled(await of.GetRequiredService<SendInvitations>().DoAsync(new SendInvitationsRequest([Guid.Parse(hire!)]), fid, cancellation)),
            keepsIdle: false
        );
        services.AddJob(
            SendMail.Kind,
            null,
            JobLane.Mail,
            async (of, message, fid, cancellation) =>
                JobKind.Handled(await of.GetRequiredService<SendMail>().DoAsync(new SendMailRequest(Guid.Parse(message!)), fid, cancellation)),
            SendMail.MostTries
        );
    }

    /// <summary>Adds a kind of job.</summary>
    /// <param name="every">The time between two of its runs; null for what is done once.</param>
    /// <param name="tries">How often it is tried, where it is done once.</param>
    /// <param name="keepsIdle">Whether runs that found nothing to do are kept, where it is done once.</param>
    public static IServiceCollection AddJob(
        this IServiceCollection services,
        string name,
        Duration? every,
        JobLane lane,
        Func<IServiceProvider, string?, Actor, CancellationToken, Task<int>> work,
        int tries = JobKind.MostTries,
        bool keepsIdle = true
    ) => services.AddSingleton(new JobKind(name, every, lane, work) { Tries = tries, KeepsIdle = keepsIdle });
}
