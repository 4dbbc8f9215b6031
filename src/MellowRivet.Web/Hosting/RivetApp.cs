using System.Globalization;
using System.Text.Json.Serialization;
using System.Threading.RateLimiting;
using MellowRivet.Core;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;
using MellowRivet.Web.Demo;
using MellowRivet.Web.Handover;
using MellowRivet.Web.Hosting.Reliability;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.EntityFrameworkCore;
using Serilog;
using Serilog.Events;

namespace MellowRivet.Web.Hosting;

/// <summary>Puts the application together.</summary>
public static class RivetApp
{
    /// <summary>A form with its photos; a single photo has its own, smaller limit with a message by its field.</summary>
    private const long MostFormBytes = 200 * 1024 * 1024;

    /// <summary>What a stranger may send: a form with a few fields; a call of the open interface has a limit of its own.</summary>
    private const long MostStrangersBytes = 64 * 1024;

    /// <summary>Opens a shop: the database is brought up to date, and the demo's data is made where it is wanted and not there.</summary>
    public static async Task<WebApplication> OpenAsync(RivetSettings settings, CancellationToken stop)
    {
        // Before anything else is written there: one that was interrupted is known for what it is.
        if (settings.Demo)
            DemoFolder.Runs(settings.Data.Path, settings.Clock.Today());
        // These don't need each other, and each takes a third of a start: side by side, a start is that much shorter.
        var shelf = Task.Run(() => Shelf.Open(settings.Data, Path.Combine(AppContext.BaseDirectory, "shelf")), stop);
        var upToDate = Task.Run(() => BringUpToDateAsync(settings, shelf, stop), stop);
        var app = Build(settings, shelf);
        try
        {
            await upToDate;
            if (settings.Demo)
                await MakeDemoAsync(app, stop);
            if (settings.Ahead)
                await DrawBoardAsync(app, stop);
            if (settings is { Ahead: true, Demo: true })
                await PlanDemoAsync(app, stop);
            return app;
        }
        catch
        {
            await app.DisposeAsync();
            throw;
        }
    }

    private static async Task BringUpToDateAsync(RivetSettings settings, Task<Shelf> shelf, CancellationToken stop)
    {
        await using var db = RivetDb.Of(settings.Data);
        await ShopDatabase.BringUpToDateAsync(db, settings.Data, settings.Clock, stop);
        await new OutgoingMail(settings.Data, settings.Clock).FinishAsync(db, stop);
        await db.PutOnShelfAsync((await shelf).Worksheets, settings.Clock.GetUtcNow(), stop);
    }

    private static async Task MakeDemoAsync(WebApplication app, CancellationToken stop)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<RivetDb>();
        if (await db.People.AnyAsync(stop))
            return;
        // All of it or none: a demo that was interrupted begins again.
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        await DemoShop.MakeAsync(scope.ServiceProvider, scope.ServiceProvider.GetRequiredService<RivetSettings>().Big, stop);
        await transaction.CommitAsync(stop);
    }

    // The demo opens with its plan; a shop's own is reckoned when somebody looks at it.
    private static async Task PlanDemoAsync(WebApplication app, CancellationToken stop)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var plans = scope.ServiceProvider.GetRequiredService<PlanDesk>();
        if ((await plans.NowAsync(stop)).Kept is null)
            await plans.ReckonAsync(stop);
    }

    // The first who comes doesn't wait for what the whole shop is reckoned from.
    private static async Task DrawBoardAsync(WebApplication app, CancellationToken stop)
    {
        await using var scope = app.Services.CreateAsyncScope();
        try
        {
            await scope.ServiceProvider.GetRequiredService<ShopBoard>().NowAsync(stop);
        }
#pragma warning disable CA1031 // Whatever can't be reckoned: the pages that want it say so, and the rest of the shop is open.
        catch (Exception problem) when (!stop.IsCancellationRequested)
#pragma warning restore CA1031
        {
            app.Logger.LogWarning(problem, "What is due in the shop could not be reckoned.");
        }
    }

    private static WebApplication Build(RivetSettings settings, Task<Shelf> shelf)
    {
        var builder = WebApplication.CreateBuilder(new WebApplicationOptions
        {
            ApplicationName = typeof(RivetApp).Assembly.GetName().Name,
            ContentRootPath = AppContext.BaseDirectory,
            EnvironmentName = Environments.Production,
        });
        builder.WebHost.UseUrls($"http://127.0.0.1:{settings.Port}");
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.AddServerHeader = false;
            kestrel.Limits.MaxRequestBodySize = MostStrangersBytes;
        });
        builder.Services.AddSerilog(new LoggerConfiguration()
            .MinimumLevel.Warning().MinimumLevel.Override("Microsoft.AspNetCore.Antiforgery", LogEventLevel.Fatal)
            // The keys lie in the shop's own folder, guarded by its file rights; there is no key store to encrypt them with.
            .MinimumLevel.Override("Microsoft.AspNetCore.DataProtection", LogEventLevel.Error)
            .WriteTo.Console(formatProvider: CultureInfo.InvariantCulture, standardErrorFromLevel: LogEventLevel.Verbose).CreateLogger());

        builder.Services.AddSingleton(settings).AddSingleton(settings.Data).AddSingleton(settings.Clock).AddSingleton<PhotoFiles>()
            .AddSingleton<SoundFiles>().AddSingleton<VideoFiles>().AddSingleton<LogFiles>().AddSingleton<DocumentFiles>()
            .AddSingleton<Uploads>().AddSingleton<OutgoingMail>().AddSingleton<Health>();
        // Nothing asks for it before the shop is open, and it has been read then.
        builder.Services.AddSingleton(_ => shelf.GetAwaiter().GetResult());
        builder.Services.AddDbContext<RivetDb>(options => RivetDb.Use(options, settings.Data));
        builder.Services.AddScoped(SaidWhen.Of).AddScoped<Desk>();
        builder.Services.AddSingleton<WalkFeed>().AddSingleton<KeptStanding>().AddSingleton<Pages.Walk.KeptFrames>()
            .AddScoped<ShopBoard>().AddScoped<Seen>().AddSingleton<PlanKeeper>().AddScoped<PlanDesk>();
        builder.Services.AddSingleton<IBulletinService, SimulatedBulletinService>().AddScoped<BulletinPost>()
            .AddHostedService<BulletinRound>().AddHostedService<PlanRound>();
        builder.Services.AddSingleton<PassportErrands>().AddHostedService(services => services.GetRequiredService<PassportErrands>());
        builder.Services.AddSingleton<DailyBackup>().AddHostedService(services => services.GetRequiredService<DailyBackup>())
            .AddSingleton<Housekeeping>().AddHostedService(services => services.GetRequiredService<Housekeeping>())
            .AddSingleton<FollowDesk>();
        builder.Services.AddDataProtection().PersistKeysToFileSystem(new DirectoryInfo(settings.Data.Keys))
            .SetApplicationName("MellowRivet");
        builder.Services.AddShopSignIn();

        builder.Services.Configure<FormOptions>(form => form.MultipartBodyLengthLimit = MostFormBytes);
        builder.Services.AddAntiforgery(antiforgery => antiforgery.Cookie.Name = "rivet-form");
        builder.Services.AddRazorPages(pages =>
        {
            pages.Conventions.AddPageRoute("/Library/Edit", "/bulletins/new");
            pages.Conventions.ConfigureFilter(new WellFormed());
            pages.Conventions.ConfigureFilter(new HasHandler());
            pages.Conventions.ConfigureFilter(new NeedsFilter());
            pages.Conventions.ConfigureFilter(new ReadableFields());
            pages.Conventions.ConfigureFilter(new Busy());
            pages.Conventions.ConfigureFilter(new WrittenRedirects());
            pages.Conventions.ConfigureFilter(new ScriptAnswers());
        });
        builder.Services.ConfigureHttpJsonOptions(json =>
        {
            json.SerializerOptions.Converters.Add(
                new JsonStringEnumConverter(System.Text.Json.JsonNamingPolicy.CamelCase, allowIntegerValues: false));
            json.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
        });
        builder.Services.AddOpenApi("v1");
        builder.Services.AddProblemDetails();
        builder.Services.AddRateLimiter(limits => Limit(limits, settings));

        BehindProxy(builder.Services, settings);

        var app = builder.Build();
        if (settings.Proxy is not null)
            app.UseForwardedHeaders();
        if (settings.PublicUrl is not null)
            app.UseHostFiltering();
        app.UseWhatArrived();
        app.UseSecurityHeaders(Security.Headers(settings.PublicUrl?.Scheme == Uri.UriSchemeHttps));
        app.UseNothingKept();
        app.UseStatusCodePagesWithReExecute("/problem/{0}");
        app.UseExceptionHandler("/problem/500");
        app.UseRefusedBodies();
        if (settings.PublicUrl?.Scheme == Uri.UriSchemeHttps)
            app.UseCookiePolicy(new() { Secure = CookieSecurePolicy.Always });
        app.UseMiddleware<FirstRunGate>();
        app.UseAuthentication();
        app.UseRateLimiter();
        app.UseAuthorization();
        app.UseMiddleware<OwnersGate>();
        // Only whoever got this far sends more than a stranger may: nothing of theirs is on the disk before.
        app.Use(next => context =>
        {
            var insider = context.User.Identity?.IsAuthenticated == true
                && context.GetEndpoint()?.Metadata.GetMetadata<IAllowAnonymous>() is null;
            if (insider && context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } body)
                body.MaxRequestBodySize = MostFormBytes;
            if (insider || context.Request.ContentLength is not > MostStrangersBytes || context.Request.Path.StartsWithSegments("/api"))
                return next(context);
            context.Response.StatusCode = StatusCodes.Status413PayloadTooLarge;
            return Task.CompletedTask;
        });
        app.UseMiddleware<Exports>();
        app.UseWorkerOfAllPages();
        app.MapStaticAssets().OpenToAll("styles, scripts and faces: nothing of the shop");
        app.MapRazorPages().WithStaticAssets();
        app.MapPhotos();
        app.MapSounds();
        app.MapVideos();
        app.MapOwnersPhotos();
        app.MapSurveyPhotos();
        Health.Map(app);
        FollowDesk.Map(app);
        app.MapOpenApi().OpenToAll("the description of the open calls");
        app.MapBench();
        app.MapDue();
        app.MapFiles();
        app.MapFixListFiles();
        app.MapEstimateFiles();
        app.MapPartFiles();
        app.MapPlanFiles();
        app.MapSurveyFiles();
        app.MapWalkEvents();
        app.MapDevice();
        app.MapBulletins();
        app.MapDocuments();
        return app;
    }

    // What a web server in front says of who asks is believed of that one alone; what it is reached by stands in the settings.
    private static void BehindProxy(IServiceCollection services, RivetSettings settings)
    {
        services.Configure<ForwardedHeadersOptions>(forwarded =>
        {
            forwarded.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
            forwarded.KnownProxies.Clear();
            forwarded.KnownIPNetworks.Clear();
            if (settings.Proxy is { } proxy)
                forwarded.KnownProxies.Add(proxy);
        });
        services.AddHostFiltering(hosts => hosts.AllowedHosts = settings.PublicUrl is { } url
            ? [url.Host, "localhost", "127.0.0.1", "[::1]"]
            : ["*"]);
    }

    private static void Limit(Microsoft.AspNetCore.RateLimiting.RateLimiterOptions limits, RivetSettings settings)
    {
        // By the person where somebody is in: strangers behind the same address take nothing from them.
        static string Who(HttpContext context) => context.User.Identity?.IsAuthenticated == true
            ? $"{context.User.PersonId()}"
            : ShopSignIn.AddressOf(context);
        static RateLimitPartition<string> Window(string who, int calls) =>
            RateLimitPartition.GetFixedWindowLimiter(who, _ => new() { PermitLimit = calls, Window = TimeSpan.FromMinutes(1) });
        // Only the attempt counts, not looking at the page.
        static RateLimitPartition<string> Posts(HttpContext context, string who, int calls) =>
            HttpMethods.IsPost(context.Request.Method) ? Window(who, calls) : RateLimitPartition.GetNoLimiter("look");
        limits.RejectionStatusCode = StatusCodes.Status429TooManyRequests;
        limits.AddPolicy("owner", context => Window(ShopSignIn.AddressOf(context), settings.OwnersCallsPerMinute));
        limits.AddPolicy("bench", context => Window(ShopSignIn.AddressOf(context), settings.BenchCallsPerMinute));
        limits.AddPolicy("door", context => Posts(context, ShopSignIn.AddressOf(context), settings.SignInsPerMinute));
        limits.AddPolicy("uploads", context => Posts(context, Who(context), settings.UploadsPerMinute));
        limits.AddPolicy("signing", context => Posts(context, Who(context), settings.SigningsPerMinute));
        limits.AddPolicy("status", context => Posts(context, Who(context), settings.StatusesPerMinute));
    }
}
