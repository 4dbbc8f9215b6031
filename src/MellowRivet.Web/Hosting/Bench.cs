using System.Diagnostics;
using System.IO.Compression;
using System.Net;
using System.Text.RegularExpressions;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using MellowRivet.Web.Demo;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Hosting;

/// <summary>Measures the demo's pages on a server of its own, on the loopback address, with data of its own.</summary>
internal static partial class Bench
{
    private const int WarmUp = 20, Rounds = 200;

    public static async Task<int> RunAsync(CancellationToken stop)
    {
        var folder = Path.Combine(Path.GetTempPath(), $"rivet-bench-{Guid.NewGuid():N}");
        try
        {
            var settings = new RivetSettings(new(folder)) { Port = 0, Demo = true, SignInsPerMinute = 100 };
            await using var app = RivetApp.Build(settings);
            await RivetApp.PrepareAsync(app, settings, stop);
            await app.StartAsync(stop);
            using var client = new HttpClient(new HttpClientHandler { CookieContainer = new CookieContainer() }) { BaseAddress = new(app.Urls.First()) };
            await EnterAsync(client, stop);

            Console.WriteLine($"{Rounds} requests each over loopback, one after the other; milliseconds until the whole answer is in.");
            Console.WriteLine($"{"page",-28}{"median",9}{"95th",9}{"kB",8}");
            foreach (var (name, path) in await PagesAsync(app, stop))
                await MeasureAsync(client, name, path, stop);
            await WeighAsync(client, stop);
            await WalkAsync(app, client, stop);
            await FleetAsync(app, stop);
            Console.WriteLine($"With {BigFleet.Aircraft} aircraft × {BigFleet.ItemsEach} due items more:");
            await MeasureAsync(client, "due in the shop", "/due", stop);
            await MeasureAsync(client, "hangar", "/", stop);
            await app.StopAsync(stop);
            return 0;
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private static async Task EnterAsync(HttpClient client, CancellationToken stop)
    {
        var token = Token().Match(await client.GetStringAsync("/enter", stop)).Groups[1].Value;
        using var form = new FormUrlEncodedContent([new("name", "ines"), new("password", DemoShop.Password), new("__RequestVerificationToken", token)]);
        (await client.PostAsync("/enter", form, stop)).EnsureSuccessStatusCode();
    }

    private static async Task<IReadOnlyList<(string, string)>> PagesAsync(WebApplication app, CancellationToken stop)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var annual = await scope.ServiceProvider.GetRequiredService<RivetDb>().Inspections.FirstAsync(row => row.Kind == InspectionKind.Annual && row.State == InspectionState.InWork, stop);
        var walk = $"/walk/{annual.Id}";
        return
        [
            ("hangar", "/"), ("engine zone", $"{walk}/engine/engine"), ("airframe zone", $"{walk}/airframe/cabin"), ("measured task", $"{walk}/airframe/right-wing"), ("look & open", $"{walk}/look"), ("panels and bags", $"{walk}/tags"), ("labels", $"{walk}/labels"), ("tools", $"{walk}/tools"), ("second person", $"{walk}/inspect"), ("a worksheet", "/shelf/worksheets/app-d"),
            ("compressions and trend", $"{walk}/compressions?cylinder=2"), ("found something", $"{walk}/find"), ("fix list, 30", $"{walk}/fix-list"),
            ("discrepancy", $"{walk}/fix-list/1"), ("close", $"{walk}/close"), ("records", $"{walk}/records"), ("shelf", "/shelf"), ("take in", "/take-in"),
            ("arrive", $"{walk}/arrive"), ("plan", $"{walk}/plan"), ("due line", $"/aircraft/{annual.AircraftId}"), ("parts", $"/aircraft/{annual.AircraftId}/parts"),
            ("times", $"/aircraft/{annual.AircraftId}/times"), ("books", $"/aircraft/{annual.AircraftId}/books"), ("who may", "/who-may?job=replace%20a%20tyre"),
        ];
    }

    private static async Task FleetAsync(WebApplication app, CancellationToken stop)
    {
        await using var scope = app.Services.CreateAsyncScope();
        await BigFleet.MakeAsync(scope.ServiceProvider.GetRequiredService<RivetDb>(), DateOnly.FromDateTime(DateTime.Today), stop);
    }

    // A walk of 400 tasks: its page, and the round trip of a verdict with the page that answers it.
    private static async Task WalkAsync(WebApplication app, HttpClient client, CancellationToken stop)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var inspection = await BigWalk.MakeAsync(scope.ServiceProvider.GetRequiredService<RivetDb>(), DateOnly.FromDateTime(DateTime.Today), stop);
        Console.WriteLine($"With a worksheet of {inspection.Tasks.Count} tasks:");
        var zone = $"/walk/{inspection.Id}/airframe/{inspection.Tasks[0].ZoneKey}";
        await MeasureAsync(client, "zone", zone, stop);
        await MeasureAsync(client, "next open", $"/walk/{inspection.Id}", stop);
        await MeasureAsync(client, "close", $"/walk/{inspection.Id}/close", stop);
        await MeasureAsync(client, "plan", $"/walk/{inspection.Id}/plan", stop);
        var token = Token().Match(await client.GetStringAsync(zone, stop)).Groups[1].Value;
        var times = new List<double>();
        for (var round = -WarmUp; round < Rounds; round++)
        {
            var task = inspection.Tasks[(round + WarmUp) % inspection.Tasks.Count];
            using var form = new FormUrlEncodedContent([new("post", $"{Guid.NewGuid()}"), new("task", $"{task.Id}"), new("version", $"{(round + WarmUp) / inspection.Tasks.Count}"), new("verdict", "Good"), new("__RequestVerificationToken", token)]);
            using var request = new HttpRequestMessage(HttpMethod.Post, $"/walk/{inspection.Id}/airframe/{task.ZoneKey}?handler=Verdict") { Content = form, Headers = { { "X-Rivet", "live" } } };
            var from = Stopwatch.GetTimestamp();
            using var answer = await client.SendAsync(request, stop);
            await answer.EnsureSuccessStatusCode().Content.ReadAsByteArrayAsync(stop);
            if (round >= 0)
                times.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }
        times.Sort();
        Console.WriteLine($"{"a verdict, there and back",-28}{times[Rounds / 2],9:0.0}{times[Rounds * 95 / 100],9:0.0}");
    }

    private static async Task MeasureAsync(HttpClient client, string name, string path, CancellationToken stop)
    {
        var times = new List<double>();
        var bytes = 0;
        for (var round = -WarmUp; round < Rounds; round++)
        {
            var from = Stopwatch.GetTimestamp();
            bytes = (await client.GetByteArrayAsync(path, stop)).Length;
            if (round >= 0)
                times.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }
        times.Sort();
        Console.WriteLine($"{name,-28}{times[Rounds / 2],9:0.0}{times[Rounds * 95 / 100],9:0.0}{bytes / 1024.0,8:0.0}");
    }

    private static async Task WeighAsync(HttpClient client, CancellationToken stop)
    {
        var page = await client.GetStringAsync("/", stop);
        long total = 0;
        foreach (var file in Asset().Matches(page).Select(match => match.Groups[1].Value).Distinct())
        {
            using var buffer = new MemoryStream();
            await using (var gzip = new GZipStream(buffer, CompressionLevel.Optimal, leaveOpen: true))
                await gzip.WriteAsync(await client.GetByteArrayAsync(file, stop), stop);
            total += buffer.Length;
        }
        Console.WriteLine($"Scripts and styles of a first view, gzip: {total / 1024.0:0.0} kB");
    }

    [GeneratedRegex("name=\"__RequestVerificationToken\" type=\"hidden\" value=\"([^\"]+)\"")]
    private static partial Regex Token();

    [GeneratedRegex("(?:src|href)=\"(/[^\"]+\\.(?:css|js))\"")]
    private static partial Regex Asset();
}
