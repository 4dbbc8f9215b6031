using System.Net;
using System.Text;
using System.Text.RegularExpressions;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Demo;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Hosting.Fuzzing;

/// <summary>What a run came to.</summary>
/// <param name="Sent">How many requests were answered.</param>
/// <param name="ByStatus">How many with which status.</param>
/// <param name="Failed">Those that ended in a fault of ours, with what was sent.</param>
public sealed record Fuzzed(int Sent, IReadOnlyDictionary<int, int> ByStatus, IReadOnlyList<string> Failed)
{
    public override string ToString() =>
        $"{Sent} requests: {string.Join(", ", ByStatus.OrderBy(one => one.Key).Select(one => $"{one.Key} × {one.Value}"))}; "
        + $"{Failed.Count} of them faults";
}

/// <summary>
/// Sends made-up requests to every address of an invented shop, by a person who may do anything and by strangers. Whatever is sent, the
/// answer is a refusal or the thing itself: never a fault.
/// </summary>
public static partial class Fuzz
{
    /// <summary>What is asked of the command where nobody says how many.</summary>
    public const int Usual = 200_000;

    private const int MostKept = 40, UsualInsiders = 75;

    /// <summary>Makes a demo in a folder of its own, sends to it, and says what came of it; 1 where something failed.</summary>
    public static async Task<int> RunAsync(int count, int seed, CancellationToken stop)
    {
        var folder = Path.Combine(Path.GetTempPath(), $"rivet-fuzz-{Guid.NewGuid():N}");
        try
        {
            await using var app = await RivetApp.OpenAsync(Settings(folder), stop);
            await app.StartAsync(stop);
            var fuzzed = await SendAsync(app.Services, new(app.Urls.First()), count, seed, UsualInsiders, stop);
            foreach (var failed in fuzzed.Failed)
                await Console.Error.WriteLineAsync(failed);
            Console.WriteLine($"Seed {seed}. {fuzzed}.");
            await app.StopAsync(stop);
            return fuzzed.Failed.Count == 0 ? 0 : 1;
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private static RivetSettings Settings(string folder) => new(new(folder))
    {
        Port = 0, Demo = true, PictureScale = 0.05, SignInsPerMinute = int.MaxValue, BenchCallsPerMinute = int.MaxValue,
        OwnersCallsPerMinute = int.MaxValue, UploadsPerMinute = int.MaxValue, SigningsPerMinute = int.MaxValue,
        StatusesPerMinute = int.MaxValue,
    };

    /// <summary>Sends to a shop that is served.</summary>
    /// <param name="services">The shop's.</param>
    /// <param name="at">Where it is served.</param>
    /// <param name="count">How many are sent.</param>
    /// <param name="seed">Where the row of chances begins.</param>
    /// <param name="insiders">How many of a hundred are sent by somebody who is in; the others by strangers.</param>
    /// <param name="stop">Stops.</param>
    public static async Task<Fuzzed> SendAsync(IServiceProvider services, Uri at, int count, int seed, int insiders, CancellationToken stop)
    {
        var addresses = (await EveryAddress.OfAsync(services)).Where(IsAsked).ToList();
        var open = addresses.Where(address => address.OpenTo is not null).ToList();
        var made = new MadeUp(seed, await IdsAsync(services, stop));
        using var insider = Somebody(at);
        using var stranger = Somebody(at);
        await SendAsync(insider, HttpMethod.Post, "/enter", [("Name", "orla"), ("Password", DemoShop.Password)],
            await TokenAsync(insider, stop), stop);
        var (mine, theirs) = (await TokenAsync(insider, stop), await TokenAsync(stranger, stop));
        Dictionary<int, int> byStatus = [];
        List<string> failed = [];
        for (var sent = 0; sent < count; sent++)
        {
            var inside = made.Often(insiders);
            var address = made.OneOf(inside || made.Often(12) ? addresses : open);
            using var request = Request(made, address, inside ? mine : theirs);
            // What is too large is refused before it is sent, or the answer is lost with the connection.
            request.Headers.ExpectContinue = request.Content?.Headers.ContentLength > 60_000;
            var told = $"{request.Method} {request.RequestUri}";
            using var answer = await (inside ? insider : stranger).SendAsync(request, HttpCompletionOption.ResponseHeadersRead, stop);
            var status = (int)answer.StatusCode;
            byStatus[status] = byStatus.GetValueOrDefault(status) + 1;
            if (status >= 500 && answer.StatusCode != HttpStatusCode.ServiceUnavailable && failed.Count < MostKept)
                failed.Add($"{status} {told} {(request.Content is { } body and not MultipartFormDataContent
                    ? await body.ReadAsStringAsync(stop) : "a form with a file")}");
        }
        return new(count, byStatus, failed);
    }

    // Waits for the word to go on with a large body, however busy the machine is.
    private static HttpClient Somebody(Uri at) => new(new SocketsHttpHandler
    {
        AllowAutoRedirect = false, CookieContainer = new(), Expect100ContinueTimeout = TimeSpan.FromMinutes(1),
    }) { BaseAddress = at, Timeout = TimeSpan.FromMinutes(5) };

    // A stream stays open, leaving ends the run, what whoever is in must keep to go on is left alone, and a fixed text takes nothing in.
    private static bool IsAsked(Address address) => !address.Pattern.EndsWith("/events", StringComparison.Ordinal)
        && !address.Pattern.StartsWith("schemas/", StringComparison.Ordinal)
        && !address.Pattern.StartsWith("openapi/", StringComparison.Ordinal)
        && address.Pattern is not ("leave" or "{**path:file}" or "me" or "people/{id:guid}" or "enter" or "first-run")
        && !(address.OpenTo?.StartsWith("styles", StringComparison.Ordinal) ?? false);

    private static HttpRequestMessage Request(MadeUp made, Address address, string token)
    {
        var path = "/" + Placeholder().Replace(address.Pattern, part => Uri.EscapeDataString(part.Value switch
        {
            var whole when whole.Contains("number", StringComparison.Ordinal) => $"{made.Below(40)}",
            var whole when whole.StartsWith("{place", StringComparison.Ordinal) => made.OneOf(["engine", "airframe", "bulletins"]),
            "{size}" => made.OneOf(["thumb", "large", "x"]),
            "{kind}" => made.OneOf(["oil", "run", "magneto", "exhaust", "mount", "carburettor", "ü"]),
            "{zone?}" => made.OneOf(["engine", "cabin", "gear", "wing-left", "机翼", "x"]),
            "{sheet}" => made.OneOf(["app-d", "lubrication", "ü"]),
            "{id:guid}" => made.IdOf(address.Pattern.Split('/')[0] switch { "walk" => "walk", "aircraft" => "aircraft", _ => "bulletin" }),
            "{engine:guid}" or "{engine:guid?}" or "{carrier:guid}" => made.IdOf("engine"),
            "{sha}" or "{sha256}" => made.IdOf("photo"),
            _ when made.Often(60) => made.Id(),
            _ => made.OneOf(["x", "ü", "a[", "stuck-ring", "v1", "%2e%2e"]),
        }));
        var fields = made.Form(made.FieldsOf(address));
        if (address.Handler.Length > 0)
            path += $"?handler={(made.Often(97) ? address.Handler : "Nowhere")}";
        var method = made.Often(3) ? HttpMethod.Post : new HttpMethod(address.Method);
        if (method != HttpMethod.Post)
            return new(method, new Uri(QueryHelpers.AddQueryString(path,
                fields.Select(field => KeyValuePair.Create(field.Name, (string?)Short(field.Value)))), UriKind.Relative));
        var request = new HttpRequestMessage(method, new Uri(path, UriKind.Relative));
        if (address.Pattern.StartsWith("api/", StringComparison.Ordinal))
            request.Content = new StringContent(made.Json(), Encoding.UTF8, "application/json");
        else if (made.Often(20))
            request.Content = WithFile(made, fields, token);
        else
            request.Content = new FormUrlEncodedContent([new("__RequestVerificationToken", token),
                .. fields.Select(field => KeyValuePair.Create(field.Name, field.Value))]);
        if (made.Often(15))
            request.Headers.Add("HX-Request", "true");
        return request;
    }

    private static MultipartFormDataContent WithFile(MadeUp made, List<(string Name, string Value)> fields, string token)
    {
        var form = new MultipartFormDataContent { { new StringContent(token), "__RequestVerificationToken" } };
        foreach (var (name, value) in fields.Where(field => field.Name.All(letter => letter is > ' ' and < '\u007f')))
            form.Add(new StringContent(value), name);
        foreach (var field in new[] { "file", "photos", "photo", "sounds", "sound", "picture" }.Where(_ => made.Often(60)))
        {
            var (name, bytes) = made.File();
            form.Add(new ByteArrayContent(bytes), field, name.Length > 0 ? name : "x");
        }
        return form;
    }

    private static string Short(string value) => value.Length > 2_000 ? value[..2_000] : value;

    private static async Task SendAsync(HttpClient http, HttpMethod method, string path, (string Name, string Value)[] fields, string token,
        CancellationToken stop)
    {
        using var request = new HttpRequestMessage(method, new Uri(path, UriKind.Relative))
        {
            Content = new FormUrlEncodedContent([new("__RequestVerificationToken", token),
                .. fields.Select(field => KeyValuePair.Create(field.Name, field.Value))]),
        };
        using var answer = await http.SendAsync(request, stop);
        if (answer.StatusCode != HttpStatusCode.Redirect)
            throw new InvalidOperationException($"{path} answered {(int)answer.StatusCode}.");
    }

    private static async Task<string> TokenAsync(HttpClient http, CancellationToken stop) =>
        Token().Match(await http.GetStringAsync(new Uri("/enter", UriKind.Relative), stop)).Groups[1].Value;

    // What there is in the shop to ask about, by whatever it is known.
    private static async Task<ILookup<string, string>> IdsAsync(IServiceProvider services, CancellationToken stop)
    {
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<RivetDb>();
        var inspections = await db.Inspections.AsNoTracking().Where(row => row.State == Core.Inspections.InspectionState.InWork)
            .Include(row => row.Tasks).Include(row => row.Discrepancies).Include(row => row.Readings).ToListAsync(stop);
        var found = inspections.SelectMany(row => row.Discrepancies).ToList();
        (string What, IEnumerable<object> Ids)[] all =
        [
            ("walk", inspections.Select(row => (object)row.Id)),
                ("aircraft", (await db.Aircraft.Select(row => row.Id).ToListAsync(stop)).Cast<object>()),
            ("task", inspections.SelectMany(row => row.Tasks).Select(task => (object)task.Id)),
                ("found", found.Select(one => (object)one.Id)),
            ("reading", inspections.SelectMany(row => row.Readings).Select(reading => (object)reading.Id)),
            ("photo", found.SelectMany(one => one.Photos).Select(photo => photo.Sha256)),
            ("engine", (await db.Components.Where(row => row.Kind == Core.Fleet.ComponentKind.Engine)
                .Select(row => row.Id).ToListAsync(stop)).Cast<object>()),
            ("part", (await db.Components.Select(row => row.Id).ToListAsync(stop)).Cast<object>()),
            ("bulletin", (await db.Bulletins.Select(row => row.Id).ToListAsync(stop)).Cast<object>()),
            ("due", (await db.DueItems.Select(row => row.Id).ToListAsync(stop)).Cast<object>()),
            ("open", (await db.OpenItems.Select(row => row.Id).ToListAsync(stop)).Cast<object>()),
            ("tool", (await db.Tools.Select(row => row.Id).ToListAsync(stop)).Cast<object>()),
            ("book", (await db.LogBooks.Select(row => row.Id).ToListAsync(stop)).Cast<object>()),
        ];
        return all.SelectMany(kind => kind.Ids.Select(id => (kind.What, Id: $"{id}"))).ToLookup(one => one.What, one => one.Id);
    }

    [GeneratedRegex("""name="__RequestVerificationToken"[^>]*value="([^"]+)""")]
    private static partial Regex Token();

    [GeneratedRegex(@"\{[^/]*\}(?=/|$|\.)")]
    private static partial Regex Placeholder();
}
