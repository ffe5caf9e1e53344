using System.Reflection;
using Fid.Acts.Exchange;
using Fid.Acts.Hires;
using Fid.Acts.Invitations;
using Fid.Acts.Lists;
using Fid.Acts.ListUse;
using Fid.Acts.Merging;
using Fid.Acts.Outbox;
using Fid.Acts.People;
using Fid.Acts.Plans;
using Fid.Acts.Requests;
using Fid.Acts.SecondFactors;
using Fid.Acts.Work;
using Fid.Data.People;
using Microsoft.Extensions.DependencyInjection;

namespace Fid.Acts;

/// <summary>All acts, and what they share.</summary>
public static class ActServices
{
    /// <summary>The classes that are acts: those with a method DoAsync.</summary>
    public static IEnumerable<Type> Acts =>
        typeof(ActServices)
            .Assembly.GetTypes()
            .Where(t => t is { IsClass: true, IsPublic: true } && t.GetMethod("DoAsync", BindingFlags.Instance | BindingFlags.Public) is not null);

    public static IServiceCollection AddFidActs(this IServiceCollection services)
    {
        foreach (var act in Acts)
            services.AddScoped(act);
        services.AddScoped<HireOpening>().AddScoped<HirePreparation>().AddScoped<HireOrigins>().AddScoped<HireClosing>().AddScoped<OccasionRecord>();
        services.AddScoped<RecordWriter>().AddScoped<RecordApprovals>().AddScoped<EnteredValues>().AddScoped<UniqueValues>().AddScoped<PersonMerging>();
        services.AddScoped<ListWriter>().AddScoped<ListMover>();
        services.AddScoped<ImportTargets>().AddScoped<ImportCheck>().AddScoped<GiveUpImport>();
        services.AddScoped<RequestedChanges>().AddScoped<RequestRoute>();
        services.AddScoped<JobProgress>();
        services.AddScoped<MailExample>();
        services.AddScoped<HireNotices>().AddScoped<OutboxDelivery>();
        // Kept for all: what is known of the firm, brought up to date as it changes.
        services.AddSingleton<SensitiveValues>().AddSingleton<PeopleIndex>().AddSingleton<EntryHolders>().AddSingleton<OpenTaskCache>();
        services.AddSingleton<Authenticator>();
        services.AddSingleton<SheetSeals>().AddSingleton<ImportFiles>();
        return services;
    }
}
