using System.Collections.Concurrent;
using System.Net;
using AngleSharp;
using AngleSharp.Dom;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Shops;
using MellowRivet.Store;
using MellowRivet.Web.Pages.Walk;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace MellowRivet.Web.Tests;

/// <summary>The demo's shop on a real server, on a free port of the loopback address: each class of tests has a copy of its own.</summary>
public sealed class DemoServer : IAsyncLifetime
{
    /// <summary>The one day of these tests.</summary>
    public static readonly DateTimeOffset Now = MadeShop.Now;
    public static readonly DateOnly Today = new(2026, 11, 25);

    private readonly ConcurrentDictionary<string, Task<Visitor>> entered = [];
    private LentShop shop = null!;

    public DataFolder Data => shop.Data;
    public Uri Address => new(shop.Address);
    public IServiceProvider Services => shop.Services;
    public TimeProvider Clock => Services.GetRequiredService<TimeProvider>();

    public async ValueTask InitializeAsync() => shop = await LentShop.OpenAsync();

    public async ValueTask DisposeAsync()
    {
        await LeftAsItWasAsync();
        // Whatever the tests did in the shop, they did as people do: everything that was signed holds.
        await using (var db = RivetDb.Of(Data))
            (await ShopDatabase.VerifyAsync(db, Data, default)).Faults.ShouldBeEmpty();
        await shop.DisposeAsync();
    }

    // The board's aircraft, and the inspection that was kept with its frame, stand on every page of a walk, and nothing that any test
    // asked for may have changed them.
    private async Task LeftAsItWasAsync()
    {
        await using var scope = Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<RivetDb>();
        string Stored(object row) =>
            string.Join('\n', db.Entry(row).CurrentValues is var values
                ? values.Properties.Select(
                    property =>
                        $"{property.Name}: "
                        + $"{(values[property] is { } value
                            ? property.GetTypeMapping().Converter?.ConvertToProvider(value) ?? value
                            : null)}")
                : []);
        IEnumerable<string> Whole(Aircraft aircraft) =>
            aircraft.Installations.OrderBy(stay => stay.Id).SelectMany(stay => new object[] { stay, stay.Component }).Prepend(aircraft)
                .Select(Stored);
        foreach (var held in Services.GetRequiredService<KeptStanding>().Latest?.Aircraft ?? [])
            if (await db.Aircraft.AsNoTracking().WithParts()
                .SingleOrDefaultAsync(row => row.Id == held.Due.Aircraft.Id && row.Changes == held.Changes) is { } stored)
                Whole(held.Due.Aircraft).ShouldBe(Whole(stored), held.Due.Aircraft.Registration);
        IEnumerable<string> All(Inspection inspection) =>
            new object[] { inspection }.Concat(inspection.Tasks.OrderBy(row => row.Id))
                .Concat(inspection.Discrepancies.OrderBy(row => row.Id)).Concat(inspection.Readings.OrderBy(row => row.Id))
                .Concat(inspection.CompressionTests.OrderBy(row => row.Id))
                .Select(Stored);
        foreach (var held in Services.GetRequiredService<KeptFrames>().Latest.Select(frame => frame.Whole.Inspection))
            if (await scope.ServiceProvider.GetRequiredService<Desk>().JobAsync(held.Id, default) is { Inspection: var stored }
                && stored.Changes == held.Changes)
                All(held).ShouldBe(All(stored), held.WorkOrder);
    }

    /// <summary>A shop that is made anew, as of another moment, with pictures of a thumb's size.</summary>
    public static async Task<DemoServer> MadeOnAsync(TimeProvider clock) =>
        new()
            { shop = await LentShop.ServeAsync(new(Path.Combine(Path.GetTempPath(), $"rivet-day-{Guid.NewGuid():N}")), clock,
                pictureScale: 0.05) };

    /// <summary>A copy in which a write waits a second for its turn, and no longer.</summary>
    public static async Task<DemoServer> ImpatientAsync() => new() { shop = await LentShop.OpenAsync(lockSeconds: 1) };

    public Task<(int Asked, IReadOnlyList<string> Failed)> WarmUpAsync() => shop.WarmUpAsync();

    /// <summary>A browser without scripts, not signed in.</summary>
    public Visitor Stranger() => new(Address);

    /// <summary>Someone of the demo, entered by the demo's own door once for all tests of a class.</summary>
    public Task<Visitor> EnterAsync(string name) => entered.GetOrAdd(name, async one =>
    {
        var visitor = Stranger();
        (await visitor.PostAsync("/enter?handler=As", ("name", one))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        return visitor;
    });

    public T With<T>(Func<RivetDb, T> ask)
    {
        using var scope = Services.CreateScope();
        return ask(scope.ServiceProvider.GetRequiredService<RivetDb>());
    }

    /// <summary>Changes what is stored, past every page.</summary>
    public async Task SaveAsync(Action<RivetDb> change)
    {
        await using var scope = Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<RivetDb>();
        change(db);
        await db.SaveChangesAsync();
    }

    /// <summary>The path of an aircraft's file.</summary>
    public string FileOf(string registration) =>
        With(db => $"/aircraft/{db.Aircraft.Single(aircraft => aircraft.Registration == registration).Id}");

    /// <summary>The path of the oil sheet of an aircraft's first engine.</summary>
    public string Sheet(string registration) =>
        $"{Walk(registration)}/engine-sheet/oil/"
        + $"{With(db => db.Aircraft.AsNoTracking().WithParts()
            .Single(aircraft => aircraft.Registration == registration).Engines.First().ComponentId)}";

    /// <summary>The path of the inspection that was begun last on an aircraft.</summary>
    public string Walk(string registration) => With(db => "/walk/" + db.Inspections
        .Where(row => db.Aircraft.Single(aircraft => aircraft.Registration == registration).Id == row.AircraftId)
        .OrderByDescending(row => row.OpenedOn).First().Id);
}

/// <summary>Someone at a browser: keeps cookies, sends the form token, follows nothing by itself.</summary>
public sealed class Visitor(Uri address)
{
    private string? token;
    private readonly HttpClient http = new(new HttpClientHandler { AllowAutoRedirect = false, CookieContainer = new() })
        { BaseAddress = address };

    public Task<HttpResponseMessage> GetAsync(string path) => http.GetAsync(new Uri(path, UriKind.Relative));

    public async Task<IDocument> ReadAsync(string path)
    {
        var answer = await GetAsync(path);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, path);
        return await ParseAsync(answer);
    }

    /// <summary>Reads the entries of an inspection before they are signed: which ones they are.</summary>
    public async Task<string> ReadEntriesAsync(string walk) =>
        (await ReadAsync($"{walk}/close")).QuerySelector("input[name=read]")!.GetAttribute("value")!;

    public static async Task<IDocument> ParseAsync(HttpResponseMessage answer)
    {
        var text = await answer.Content.ReadAsStringAsync();
        return await BrowsingContext.New().OpenAsync(request => request.Content(text));
    }

    public Task<HttpResponseMessage> PostAsync(string path, params (string Name, string Value)[] fields) =>
        SendAsync(path, "photos", [], fields);

    public Task<HttpResponseMessage> SendAsync(string path, (string Name, byte[] Bytes)[] files,
        params (string Name, string Value)[] fields) => SendAsync(path, "photos", files, fields);

    public async Task<HttpResponseMessage> SendAsync(string path, string field, (string Name, byte[] Bytes)[] files,
        params (string Name, string Value)[] fields)
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

    /// <summary>
    /// Sends a picture as a phone's own share sheet does: without a form token, and with the browser's word that no site sent it.
    /// </summary>
    public Task<HttpResponseMessage> ShareAsync(byte[] picture, string words)
    {
        var share = new HttpRequestMessage(HttpMethod.Post, new Uri("/share", UriKind.Relative))
            { Content = new MultipartFormDataContent
                { { new ByteArrayContent(picture), "photos", "shared.jpg" }, { new StringContent(words), "text" } } };
        share.Headers.Add("Sec-Fetch-Site", "none");
        return http.SendAsync(share);
    }

    /// <summary>Opens a stream and comes back with its head.</summary>
    public Task<HttpResponseMessage> ListenAsync(string path) =>
        http.GetAsync(new Uri(path, UriKind.Relative), HttpCompletionOption.ResponseHeadersRead);

    public Task<HttpResponseMessage> JsonAsync(string path, string body) =>
        http.PostAsync(new Uri(path, UriKind.Relative), new StringContent(body, System.Text.Encoding.UTF8, "application/json"));

    /// <summary>Posts as a field of a page does that is sent by itself: what comes back is what changed on it.</summary>
    public Task<HttpResponseMessage> PressAsync(string path, params (string Name, string Value)[] fields) =>
        ByScriptAsync(path, fields, ("HX-Request", "true"));

    /// <summary>Posts as a device's outbox does.</summary>
    public Task<HttpResponseMessage> TellAsync(string path, params (string Name, string Value)[] fields) =>
        ByScriptAsync(path, fields, ("X-Rivet", "outbox"));

    /// <summary>Posts as an outbox does that was out of the shop's reach for so long.</summary>
    /// <param name="path">Where to.</param>
    /// <param name="ago">How long ago it was said, s, as the device reckons.</param>
    /// <param name="drawn">When the page was drawn that it was said on, ms since 1970.</param>
    /// <param name="fields">What was said.</param>
    public Task<HttpResponseMessage> BringAsync(string path, double ago, long drawn, params (string Name, string Value)[] fields) =>
        ByScriptAsync(path, fields, ("X-Rivet", "outbox"), ("HX-Request", "true"), ("X-Rivet-Age", $"{ago}"),
            ("X-Rivet-Drawn", $"{drawn}"));

    private async Task<HttpResponseMessage> ByScriptAsync(string path, (string Name, string Value)[] fields,
        params (string Name, string Says)[] headers)
    {
        var request = new HttpRequestMessage(HttpMethod.Post, new Uri(path, UriKind.Relative))
        {
            Content = new FormUrlEncodedContent([new("__RequestVerificationToken", await TokenAsync()),
                .. fields.Select(field => KeyValuePair.Create(field.Name, field.Value))]),
        };
        foreach (var (name, says) in headers)
            request.Headers.Add(name, says);
        return await http.SendAsync(request);
    }

    /// <summary>Posts with the token of the page it was read from.</summary>
    public Task<HttpResponseMessage> PostWithAsync(string path, string formToken, params (string Name, string Value)[] fields)
    {
        token = formToken;
        return SendAsync(path, "photos", [], fields);
    }

    /// <summary>Posts without the token that every form carries.</summary>
    public Task<HttpResponseMessage> ForgeAsync(string path) =>
        http.PostAsync(new Uri(path, UriKind.Relative), new FormUrlEncodedContent([]));

    // The token holds for as long as the same person is at the browser.
    private async Task<string> TokenAsync() => token ??= await FreshTokenAsync();

    private async Task<string> FreshTokenAsync()
    {
        var page = await GetAsync("/");
        var document = page.StatusCode == HttpStatusCode.OK
            ? await ParseAsync(page)
            : await ReadAsync(page.Headers.Location!.OriginalString.Replace(address.ToString(), "/"));
        return document.QuerySelector("input[name=__RequestVerificationToken]")!.GetAttribute("value")!;
    }
}
