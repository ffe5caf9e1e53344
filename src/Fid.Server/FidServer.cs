using System.Globalization;
using System.IO.Compression;
using System.Reflection;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using Fid.Acts;
using Fid.Acts.Accounts;
using Fid.Acts.Setup;
using Fid.Data;
using Fid.Data.Firms;
using Fid.Data.People;
using Fid.Server.Admin;
using Fid.Server.Arrivals;
using Fid.Server.Exchange;
using Fid.Server.Fields;
using Fid.Server.Hires;
using Fid.Server.Intake;
using Fid.Server.Lists;
using Fid.Server.PayRuns;
using Fid.Server.People;
using Fid.Server.Platform;
using Fid.Server.Requests;
using Fid.Server.Revisions;
using Fid.Server.Tasks;
using Fid.Server.Templates;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.ResponseCompression;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection.Extensions;
using Microsoft.Extensions.FileProviders;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using NodaTime.Text;

namespace Fid.Server;

/// <summary>Puts the server together.</summary>
public static class FidServer
{
    // The folders of web/src/routes.
    private static readonly string[] Places =
    [
        "/",
        "/arrivals/{**rest}",
        "/hires/{**rest}",
        "/people/{**rest}",
        "/templates/{**rest}",
        "/fields/{**rest}",
        "/lists/{**rest}",
        "/exchange/{**rest}",
        "/tasks/{**rest}",
        "/waiting/{**rest}",
        "/admin/{**rest}",
        "/account/{**rest}",
        "/sign-in",
        "/invitation",
        "/first-run",
        "/setup",
    ];

    public static bool IsMakingDocument => Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

    public static void AddFid(this IServiceCollection services, IConfiguration configuration)
    {
        // What is written for people is put into their language and form by the browser.
        CultureInfo.DefaultThreadCurrentCulture = CultureInfo.InvariantCulture;
        var connection = configuration.GetConnectionString("Fid") ?? "Host=127.0.0.1;Database=none";
        var fixedToday = configuration["Fid:Today"] is { Length: > 0 } text ? LocalDatePattern.Iso.Parse(text).Value : (LocalDate?)null;
        services.AddSingleton(_ => FidDatabase.Source(connection, impatient: true));
        services.AddDbContext<FidDb>((provider, options) => options.UseFid(provider.GetRequiredService<Npgsql.NpgsqlDataSource>()));
        services.TryAddSingleton<IClock>(SystemClock.Instance);
        services.AddSingleton(provider => new FirmClock(provider.GetRequiredService<IClock>(), fixedToday));
        services.AddFidActs();
        services.AddSingleton<FileScanner>();
        services.AddSingleton<PdfWriter>();
        services.AddScoped<OfferReading>();
        if (!IsMakingDocument)
            services.AddHostedService<KnownPeopleWarmUp>();
        services.AddSingleton(configuration.GetSection("Fid:Feed").Get<FeedPatience>() ?? FeedPatience.Usual);
        services
            .AddHttpClient<FeedClient>(http => http.MaxResponseContentBufferSize = 5_000_000)
            .ConfigurePrimaryHttpMessageHandler(() => new SocketsHttpHandler { AllowAutoRedirect = false });
        services.AddScoped<FeedPull>();
        services.AddFeedJobs();
        services.AddFidJobs(run: !IsMakingDocument);
        services.AddSingleton<RefusalTrail>();
        services.AddSingleton<LiveChanges>();
        if (!IsMakingDocument)
            services.AddHostedService(provider => provider.GetRequiredService<LiveChanges>());

        // The OpenAPI document is made without a database.
        if (IsMakingDocument)
            services.AddDataProtection();
        else
            services.AddKeyRing(configuration["Fid:KeyRing"]);
        AddSignIn(services);
        services.AddOpenIdSignIn(configuration);
        services.AddMail(configuration);
        services.AddFidRateLimits(configuration);
        services.AddFidAccess();
        services.AddRequestActor();
        services.AddFidAntiforgery();
        services.AddProblemDetails();
        services.AddExceptionHandler<ProblemHandler>();
        services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
        services.ConfigureHttpJsonOptions(options => Configure(options.SerializerOptions));
        services.AddOpenApi("v1", FidOpenApi.Configure);
        services.AddResponseCompression(options =>
        {
            options.EnableForHttps = true;
            options.MimeTypes = ["application/json", "application/problem+json", "text/html", "text/css", "text/javascript", "image/svg+xml"];
        });
        services.Configure<BrotliCompressionProviderOptions>(options => options.Level = CompressionLevel.Fastest);
    }

    /// <summary>JSON as the interface speaks it: strict in what it takes, so that a typing mistake never passes silently.</summary>
    public static void Configure(JsonSerializerOptions json)
    {
        json.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
        json.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        json.NumberHandling = JsonNumberHandling.Strict;
        json.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
        json.RespectNullableAnnotations = true;
        json.RespectRequiredConstructorParameters = true;
    }

    public static void UseFid(this WebApplication app)
    {
        var page = app.Environment.WebRootFileProvider.GetFileInfo("index.html");
        app.UseFidProxies();
        app.UseExceptionHandler();
        app.UseStatusCodePages(pages => Problems.OfStatus(pages.HttpContext.Response.StatusCode).ExecuteAsync(pages.HttpContext));
        app.UseResponseCompression();
        app.UseFidSecurityHeaders();
        app.UseStaticFiles(
            new StaticFileOptions
            {
                OnPrepareResponse = file =>
                    file.Context.Response.Headers.CacheControl = file.Context.Request.Path.StartsWithSegments("/_app/immutable")
                        ? "public, max-age=31536000, immutable"
                        : "no-cache",
            }
        );
        // Texts come in the reader's language; numbers and dates stay as JSON has them.
        app.UseRequestLocalization(
            new RequestLocalizationOptions
            {
                DefaultRequestCulture = new(CultureInfo.InvariantCulture, CultureInfo.GetCultureInfo("en")),
                SupportedCultures = [CultureInfo.InvariantCulture],
                SupportedUICultures = [CultureInfo.GetCultureInfo("en"), CultureInfo.GetCultureInfo("de")],
                RequestCultureProviders = [new Microsoft.AspNetCore.Localization.AcceptLanguageHeaderRequestCultureProvider()],
            }
        );
        app.UseKindOfEmptyBodies();
        app.UseRouting();
        app.UseAuthentication();
        app.UseSecondFactor();
        app.UseRateLimiter();
        app.UseViewAs();
        app.UseRequestActor();
        app.UseAuthorization();
        app.UseFidAntiforgery();
        app.UseSoundRequests();

        app.MapOpenApi("/api/openapi.json").RequireAuthorization(Access.Anybody);
        app.MapHealth();
        app.MapSession();
        app.MapOpenIdSignIn();
        app.MapSecondFactor();
        app.MapViewAs();
        app.MapRoles();
        app.MapTrail();
        app.MapAccounts();
        app.MapInvitations();
        app.MapJobs();
        app.MapMailTexts();
        app.MapLive();
        app.MapFirstRun();
        app.MapArrivals();
        app.MapArrivalsReport();
        app.MapArrivalsCalendar();
        app.MapHires();
        app.MapStages();
        app.MapStalls();
        app.MapIntake();
        app.MapMerging();
        app.MapRecords();
        app.MapHistory();
        app.MapRequests();
        app.MapReveal();
        app.MapFiles();
        app.MapPeople();
        app.MapColleagues();
        app.MapPeopleSheet();
        app.MapOffers();
        app.MapRevisions();
        app.MapRevisionSheet();
        app.MapPayCheck();
        app.MapPayCheckSheet();
        app.MapRunChecklists();
        app.MapRowsSheet();
        app.MapMyTasks();
        app.MapTaskActs();
        app.MapTaskFacts();
        app.MapAbsences();
        app.MapReminders();
        app.MapTemplates();
        app.MapLists();
        app.MapImports();
        app.MapFields();
        app.MapUnmatched();
        // The pages the application has. Anything else is not found; a browser gets the page that says so.
        if (page.Exists)
            foreach (var place in Places)
                app.MapFallbackToFile(place, "index.html").RequireAuthorization(Access.Anybody);
        app.MapFallback("{**path}", (HttpRequest request) => NotFoundAsync(request, page)).RequireAuthorization(Access.Anybody);
    }

    private static async Task<IResult> NotFoundAsync(HttpRequest request, IFileInfo page)
    {
        if (!page.Exists || !request.GetTypedHeaders().Accept.Any(a => a.MediaType == "text/html"))
            return Problems.NotFound();
        using var reader = new StreamReader(page.CreateReadStream());
        return TypedResults.Content(await reader.ReadToEndAsync(request.HttpContext.RequestAborted), "text/html", Encoding.UTF8, StatusCodes.Status404NotFound);
    }

    /// <summary>Makes the roles, and for a database without a firm the first-run token. Throws where the database is not of this
    /// version: its owner migrates it, since the application's role may not.</summary>
    public static async Task PrepareDatabaseAsync(IServiceProvider services)
    {
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<FidDb>();
        if ((await db.Database.GetPendingMigrationsAsync()).Any())
            throw new InvalidOperationException(
                "The database is older than this Fid, or empty. Run “Fid.Server migrate” with the connection of the database's owner; ./fid start does."
            );
        await scope.ServiceProvider.GetRequiredService<SensitiveValues>().PrepareAsync(db);
        if (await SetUpFirm.PrepareAsync(db, scope.ServiceProvider.GetRequiredService<FirmClock>()) is { } token)
            Console.WriteLine($"There is no firm here yet. The first visit creates it with this one-time token: {token}");
    }

    private static void AddSignIn(IServiceCollection services)
    {
        services.AddAuthentication(IdentityConstants.ApplicationScheme).AddIdentityCookies();
        services
            .AddIdentityCore<FidUser>(options =>
            {
                options.User.RequireUniqueEmail = true;
                options.Password.RequiredLength = PasswordRules.Fewest;
                options.Password.RequireDigit =
                    options.Password.RequireUppercase =
                    options.Password.RequireNonAlphanumeric =
                    options.Password.RequireLowercase =
                        false;
            })
            .AddPasswordValidator<CommonPasswords>()
            .AddEntityFrameworkStores<FidDb>()
            .AddSignInManager();
        services.AddHttpContextAccessor();
        services.AddSingleton<SessionStore>();
        services
            .AddOptions<Microsoft.AspNetCore.Authentication.Cookies.CookieAuthenticationOptions>(IdentityConstants.ApplicationScheme)
            .Configure<SessionStore>((cookie, store) => cookie.SessionStore = store);
        services.ConfigureApplicationCookie(cookie =>
        {
            cookie.Cookie.Name = "fid-session";
            cookie.Cookie.SameSite = SameSiteMode.Strict;
            // However much it is used: the session in the database ends then, too.
            cookie.ExpireTimeSpan = SessionStore.Lifetime.ToTimeSpan();
            cookie.SlidingExpiration = false;
            cookie.Events.OnValidatePrincipal = _ => Task.CompletedTask;
            // An application in the browser wants to be told, not sent to a page.
            cookie.Events.OnRedirectToLogin = context =>
                Problems.Make(StatusCodes.Status401Unauthorized, "sign-in-needed", "Sign in first.").ExecuteAsync(context.HttpContext);
            cookie.Events.OnRedirectToAccessDenied = async context =>
            {
                await context.HttpContext.RequestServices.GetRequiredService<RefusalTrail>().NoteAsync(context.HttpContext);
                await Problems.Forbidden().ExecuteAsync(context.HttpContext);
            };
        });
    }
}
