using System.Net;
using AngleSharp;
using AngleSharp.Dom;
using MellowRivet.Store;
using MellowRivet.Web.Demo;
using MellowRivet.Web.Hosting;
using Microsoft.AspNetCore.Builder;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

// One shop for all of them: they take turns.
[assembly: CollectionBehavior(DisableTestParallelization = true)]
[assembly: AssemblyFixture(typeof(MellowRivet.Web.Tests.DemoServer))]

namespace MellowRivet.Web.Tests;

/// <summary>The demo's shop on a real server, on a free port of the loopback address, with data of its own.</summary>
public sealed class DemoServer : IAsyncLifetime
{
    /// <summary>The day the demo's bulletins were written for: the one day of these tests.</summary>
    public static readonly DateTimeOffset Now = new(2026, 11, 25, 10, 0, 0, TimeSpan.Zero);
    public static readonly DateOnly Today = new(2026, 11, 25);

    private readonly Dictionary<string, Visitor> entered = [];
    private WebApplication app = null!;

    public DataFolder Data { get; } = new(Path.Combine(Path.GetTempPath(), $"rivet-web-{Guid.NewGuid():N}"));
    public Uri Address => new(app.Urls.First());
    public IServiceProvider Services => app.Services;

    public async ValueTask InitializeAsync()
    {
        var settings = new RivetSettings(Data) { Port = 0, Demo = true, Clock = new SetClock(Now), SignInsPerMinute = 10_000, BenchCallsPerMinute = 100_000, OwnersCallsPerMinute = 100_000, UploadsPerMinute = 100_000 };
        app = RivetApp.Build(settings);
        await RivetApp.PrepareAsync(app, settings, default);
        await app.StartAsync();
    }

    public async ValueTask DisposeAsync()
    {
        await app.DisposeAsync();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(Data.Path, recursive: true);
    }

    /// <summary>A browser without scripts, not signed in.</summary>
    public Visitor Stranger() => new(Address);

    /// <summary>Someone of the demo, signed in by name and password once for all tests: hashing the password takes its time.</summary>
    public async Task<Visitor> EnterAsync(string name)
    {
        if (entered.TryGetValue(name, out var visitor))
            return visitor;
        entered[name] = visitor = Stranger();
        (await visitor.PostAsync("/enter", ("name", name), ("password", DemoShop.Password))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        return visitor;
    }

    public T With<T>(Func<RivetDb, T> ask)
    {
        using var scope = Services.CreateScope();
        return ask(scope.ServiceProvider.GetRequiredService<RivetDb>());
    }

    /// <summary>The path of an aircraft's file.</summary>
    public string FileOf(string registration) => With(db => $"/aircraft/{db.Aircraft.Single(aircraft => aircraft.Registration == registration).Id}");

    /// <summary>The path of the oil sheet of an aircraft's first engine.</summary>
    public string Sheet(string registration) => $"{Walk(registration)}/engine-sheet/oil/{With(db => db.Aircraft.AsNoTracking().WithParts().Single(aircraft => aircraft.Registration == registration).Engines.First().ComponentId)}";

    /// <summary>The path of the inspection that is in work on an aircraft.</summary>
    public string Walk(string registration) => With(db => "/walk/" + db.Inspections
        .Where(row => db.Aircraft.Single(aircraft => aircraft.Registration == registration).Id == row.AircraftId)
        .OrderByDescending(row => row.OpenedOn).First().Id);
}

/// <summary>Someone at a browser: keeps cookies, sends the form token, follows nothing by itself.</summary>
public sealed class Visitor(Uri address)
{
    private string? token;
    private readonly HttpClient http = new(new HttpClientHandler { AllowAutoRedirect = false, CookieContainer = new() }) { BaseAddress = address };

    public Task<HttpResponseMessage> GetAsync(string path) => http.GetAsync(new Uri(path, UriKind.Relative));

    public async Task<IDocument> ReadAsync(string path)
    {
        var answer = await GetAsync(path);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, path);
        return await ParseAsync(answer);
    }

    public static async Task<IDocument> ParseAsync(HttpResponseMessage answer)
    {
        var text = await answer.Content.ReadAsStringAsync();
        return await BrowsingContext.New().OpenAsync(request => request.Content(text));
    }

    public Task<HttpResponseMessage> PostAsync(string path, params (string Name, string Value)[] fields) => SendAsync(path, "photos", [], fields);

    public Task<HttpResponseMessage> SendAsync(string path, (string Name, byte[] Bytes)[] files, params (string Name, string Value)[] fields) => SendAsync(path, "photos", files, fields);

    public async Task<HttpResponseMessage> SendAsync(string path, string field, (string Name, byte[] Bytes)[] files, params (string Name, string Value)[] fields)
    {
        var content = new MultipartFormDataContent { { new StringContent(await TokenAsync()), "__RequestVerificationToken" } };
        foreach (var (name, value) in fields)
            content.Add(new StringContent(value), name);
        foreach (var (name, bytes) in files)
            content.Add(new ByteArrayContent(bytes), field, name);
        var answer = await http.PostAsync(new Uri(path, UriKind.Relative), content);
        if (path is "/first-run" || path.StartsWith("/enter", StringComparison.Ordinal))
            token = null;
        return answer;
    }

    /// <summary>Sends a picture as a phone's own share sheet does: without a form token, and with the browser's word that no site sent it.</summary>
    public Task<HttpResponseMessage> ShareAsync(byte[] picture, string words)
    {
        var share = new HttpRequestMessage(HttpMethod.Post, new Uri("/share", UriKind.Relative)) { Content = new MultipartFormDataContent { { new ByteArrayContent(picture), "photos", "shared.jpg" }, { new StringContent(words), "text" } } };
        share.Headers.Add("Sec-Fetch-Site", "none");
        return http.SendAsync(share);
    }

    /// <summary>Opens a stream and comes back with its head.</summary>
    public Task<HttpResponseMessage> ListenAsync(string path) => http.GetAsync(new Uri(path, UriKind.Relative), HttpCompletionOption.ResponseHeadersRead);

    public Task<HttpResponseMessage> JsonAsync(string path, string body) =>
        http.PostAsync(new Uri(path, UriKind.Relative), new StringContent(body, System.Text.Encoding.UTF8, "application/json"));

    /// <summary>Posts with the token of the page it was read from.</summary>
    public Task<HttpResponseMessage> PostWithAsync(string path, string formToken, params (string Name, string Value)[] fields)
    {
        token = formToken;
        return SendAsync(path, "photos", [], fields);
    }

    /// <summary>Posts without the token that every form carries.</summary>
    public Task<HttpResponseMessage> ForgeAsync(string path) => http.PostAsync(new Uri(path, UriKind.Relative), new FormUrlEncodedContent([]));

    // The token holds for as long as the same person is at the browser.
    private async Task<string> TokenAsync() => token ??= await FreshTokenAsync();

    private async Task<string> FreshTokenAsync()
    {
        var page = await GetAsync("/");
        var document = page.StatusCode == HttpStatusCode.OK ? await ParseAsync(page) : await ReadAsync(page.Headers.Location!.OriginalString.Replace(address.ToString(), "/"));
        return document.QuerySelector("input[name=__RequestVerificationToken]")!.GetAttribute("value")!;
    }
}
