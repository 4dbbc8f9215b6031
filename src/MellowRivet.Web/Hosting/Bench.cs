using System.Diagnostics;
using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.RegularExpressions;
using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using MellowRivet.Web.Demo;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Hosting;

/// <summary>Measures the demo's pages on a server of its own, on the loopback address, with data of its own.</summary>
internal static partial class Bench
{
    private const int WarmUp = 20, Rounds = 200;

    /// <summary>What is measured, in this order; a part can be asked for alone.</summary>
    private static readonly (string Name, Func<WebApplication, HttpClient, CancellationToken, Task> Run)[] All =
        [("pages", PagesAsync), ("walk", WalkAsync), ("found", FoundAsync), ("log", LogAsync), ("fleet", FleetAsync), ("bulletins", BulletinsAsync)];

    private static readonly TimeProvider Clock = TimeProvider.System;

    public static IEnumerable<string> Parts => All.Select(part => part.Name);

    public static async Task<int> RunAsync(string[] parts, CancellationToken stop)
    {
        var folder = Path.Combine(Path.GetTempPath(), $"rivet-bench-{Guid.NewGuid():N}");
        try
        {
            var settings = new RivetSettings(new(folder)) { Port = 0, Demo = true, SignInsPerMinute = 100, UploadsPerMinute = 100_000 };
            await using var app = await RivetApp.OpenAsync(settings, stop);
            await app.StartAsync(stop);
            using var client = new HttpClient(new HttpClientHandler { CookieContainer = new CookieContainer() }) { BaseAddress = new(app.Urls.First()) };
            await EnterAsync(client, stop);

            Console.WriteLine($"{Rounds} requests each over loopback, one after the other; milliseconds until the whole answer is in.");
            Console.WriteLine($"{"page",-28}{"median",9}{"95th",9}{"kB",8}");
            foreach (var (_, run) in All.Where(part => parts.Length == 0 || parts.Contains(part.Name)))
                await run(app, client, stop);
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

    private static async Task PagesAsync(WebApplication app, HttpClient client, CancellationToken stop)
    {
        foreach (var (name, path) in await ViewsAsync(app, stop))
            await MeasureAsync(client, name, path, stop);
        await WeighAsync(client, stop);
    }

    private static async Task<IReadOnlyList<(string, string)>> ViewsAsync(WebApplication app, CancellationToken stop)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var annual = await scope.ServiceProvider.GetRequiredService<RivetDb>().Inspections.FirstAsync(row => row.Kind == InspectionKind.Annual && row.State == InspectionState.InWork, stop);
        var walk = $"/walk/{annual.Id}";
        var engine = (await scope.ServiceProvider.GetRequiredService<RivetDb>().Aircraft.AsNoTracking().WithParts().FirstAsync(row => row.Id == annual.AircraftId, stop)).Engines.First().ComponentId;
        return
        [
            ("hangar", "/"), ("engine zone", $"{walk}/engine/engine"), ("airframe zone", $"{walk}/airframe/cabin"), ("measured task", $"{walk}/airframe/right-wing"), ("look & open", $"{walk}/look"), ("panels and bags", $"{walk}/tags"), ("labels", $"{walk}/labels"), ("tools", $"{walk}/tools"), ("second person", $"{walk}/inspect"), ("a worksheet", "/shelf/worksheets/app-d"),
            ("compressions and trend", $"{walk}/compressions?cylinder=2"), ("found something", $"{walk}/find"), ("fix list, 30", $"{walk}/fix-list"),
            ("discrepancy", $"{walk}/fix-list/1"), ("close", $"{walk}/close"), ("records", $"{walk}/records"), ("shelf", "/shelf"), ("take in", "/take-in"),
            ("arrive", $"{walk}/arrive"), ("plan", $"{walk}/plan"), ("due line", $"/aircraft/{annual.AircraftId}"), ("parts", $"/aircraft/{annual.AircraftId}/parts"),
            ("times", $"/aircraft/{annual.AircraftId}/times"), ("books", $"/aircraft/{annual.AircraftId}/books"), ("who may", "/who-may?job=replace%20a%20tyre"),
            ("plug tray", $"{walk}/plugs"), ("oil sheet", $"{walk}/engine-sheet/oil/{engine}"), ("run sheet", $"{walk}/engine-sheet/run/{engine}"), ("case of a cylinder", $"{walk}/cylinder/{engine}/2"), ("trends, every series", $"/aircraft/{annual.AircraftId}/trends"),
        ];
    }

    private static async Task FleetAsync(WebApplication app, HttpClient client, CancellationToken stop)
    {
        await using (var scope = app.Services.CreateAsyncScope())
            await BigFleet.MakeAsync(scope.ServiceProvider.GetRequiredService<RivetDb>(), Clock.Today(), stop);
        Console.WriteLine($"With {BigFleet.Aircraft} aircraft × {BigFleet.ItemsEach} due items more:");
        await MeasureAsync(client, "due in the shop", "/due", stop);
        await MeasureAsync(client, "hangar", "/", stop);
    }

    // 2,000 bulletins held against every aircraft of the shop, which the part before makes many, then one aircraft's list.
    private static async Task BulletinsAsync(WebApplication app, HttpClient client, CancellationToken stop)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var (db, shelf, today) = (scope.ServiceProvider.GetRequiredService<RivetDb>(), scope.ServiceProvider.GetRequiredService<Shelf>(), Clock.Today());
        var held = await BigFleet.TakeInBulletinsAsync(db, Clock, stop);
        var times = new List<double>();
        foreach (var _ in Enumerable.Range(0, 5))
        {
            var (board, from) = (new DueBoard(new(), shelf.RulesFor), Stopwatch.GetTimestamp());
            await board.LinesAsync(db, today, stop);
            times.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }
        times.Sort();
        var list = await new BulletinShelf().ListAsync(db, today, stop);
        var lines = (await new DueBoard(new(), shelf.RulesFor).LinesAsync(db, today, stop)).Select(line => DueLine.Of(line.Aircraft, [], [], today)).ToList();
        var readings = (await db.MeterReadings.AsNoTracking().ToListAsync(stop)).ToLookup(reading => reading.AircraftId);
        List<double> alone = [];
        foreach (var _ in Enumerable.Range(0, 5))
        {
            var from = Stopwatch.GetTimestamp();
            foreach (var line in lines)
                BulletinResearch.Of(list, [], [], shelf.RulesFor(line.Aircraft.Category).Bulletins, line, [.. readings[line.Aircraft.Id]], whole: false);
            alone.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }
        alone.Sort();
        Console.WriteLine($"{held} bulletins × {lines.Count} aircraft looked up: median {alone[2]:0} ms, slowest {alone[^1]:0} ms of {alone.Count}.");
        Console.WriteLine($"The same with all of it loaded from the database: median {times[2]:0} ms, slowest {times[^1]:0} ms of {times.Count}. With them:");
        var walk = await db.Inspections.Where(row => row.Kind == InspectionKind.Annual && row.State == InspectionState.InWork).OrderBy(row => row.WorkOrder).FirstAsync(stop);
        foreach (var (name, path) in new[] { ("an aircraft's bulletins", $"/aircraft/{walk.AircraftId}/bulletins"), ("the station", $"/walk/{walk.Id}/bulletins"), ("a zone of the walk", $"/walk/{walk.Id}/airframe/cabin"), ("the shop's bulletins", "/bulletins"), ("one bulletin", $"/bulletins/{(await db.Bulletins.OrderBy(row => row.Id).FirstAsync(stop)).Id}"), ("hangar", "/"), ("due in the shop", "/due") })
            await MeasureAsync(client, name, path, stop);
    }

    // A walk of 400 tasks: its page, and the round trip of a verdict with the page that answers it.
    private static async Task WalkAsync(WebApplication app, HttpClient client, CancellationToken stop)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var inspection = await BigWalk.MakeAsync(scope.ServiceProvider.GetRequiredService<RivetDb>(), Clock.Today(), stop);
        Console.WriteLine($"With a worksheet of {inspection.Tasks.Count} tasks:");
        var zone = $"/walk/{inspection.Id}/airframe/{inspection.Tasks[0].ZoneKey}";
        await MeasureAsync(client, "zone", zone, stop);
        await MeasureAsync(client, "next open", $"/walk/{inspection.Id}", stop);
        await MeasureAsync(client, "close", $"/walk/{inspection.Id}/close", stop);
        await MeasureAsync(client, "plan", $"/walk/{inspection.Id}/plan", stop);
        var token = Token().Match(await client.GetStringAsync(zone, stop)).Groups[1].Value;
        await PostAsync(client, "a verdict, there and back", WarmUp, Rounds, round =>
        {
            var task = inspection.Tasks[(round + WarmUp) % inspection.Tasks.Count];
            var form = new FormUrlEncodedContent([new("post", $"{Guid.NewGuid()}"), new("task", $"{task.Id}"), new("version", $"{(round + WarmUp) / inspection.Tasks.Count}"), new("verdict", "Good"), new("__RequestVerificationToken", token)]);
            return ($"/walk/{inspection.Id}/airframe/{task.ZoneKey}?handler=Verdict", form);
        }, stop);
    }

    // A fix list of 200 with 400 photos, and taking something down on it: by words alone, and with a photo of 4 MB.
    private static async Task FoundAsync(WebApplication app, HttpClient client, CancellationToken stop)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var inspection = await BigWalk.MakeFixListAsync(scope.ServiceProvider.GetRequiredService<RivetDb>(), Clock, stop);
        var walk = $"/walk/{inspection.Id}";
        Console.WriteLine($"With a fix list of {inspection.Discrepancies.Count} and {inspection.Discrepancies.Sum(found => found.Photos.Count)} photos:");
        await MeasureAsync(client, "fix list", $"{walk}/fix-list", stop);
        await MeasureAsync(client, "one of them", $"{walk}/fix-list/1", stop);
        var token = Token().Match(await client.GetStringAsync($"{walk}/find", stop)).Groups[1].Value;
        var photo = DemoPictures.Heavy(4_000_000);
        foreach (var (name, rounds, file) in new[] { ("found, by words", Rounds, (byte[]?)null), ($"found, photo of {photo.Length / 1e6:0.0} MB", 20, photo) })
            await PostAsync(client, name, 2, rounds, round =>
            {
                var form = new MultipartFormDataContent { { new StringContent($"{Guid.NewGuid()}"), "post" }, { new StringContent("Measured find"), "what" }, { new StringContent("zone-1"), "zone" }, { new StringContent("Watch"), "class" }, { new StringContent(token), "__RequestVerificationToken" } };
                // One byte behind the picture's end makes it another file.
                if (file is not null)
                    form.Add(new ByteArrayContent([.. file, (byte)round]), "photos", "heavy.jpg");
                return ($"{walk}/find", form);
            }, stop);
    }

    // A log of 100,000 rows: sent, its columns said, taken in and drawn.
    private static async Task LogAsync(WebApplication app, HttpClient client, CancellationToken stop)
    {
        const int rows = 100_000;
        await using var scope = app.Services.CreateAsyncScope();
        var inspection = await scope.ServiceProvider.GetRequiredService<RivetDb>().Inspections.FirstAsync(row => row.Kind == InspectionKind.Annual && row.State == InspectionState.InWork, stop);
        var page = $"/walk/{inspection.Id}/engine-logs";
        var log = Encoding.UTF8.GetBytes("Time,RPM,EGT1,EGT2,EGT3,EGT4,CHT1,CHT2,CHT3,CHT4,Oil temp,Oil press\n" + string.Concat(Enumerable.Range(0, rows).Select(row => $"{row},{2200 + row % 90},{700 + row % 17},{705 + row % 19},{702 + row % 13},{711 + row % 11},{150 + row % 7},{162 + row % 5},{149 + row % 3},{151 + row % 9},{80 + row % 4},{61 + row % 6}\n")));
        string[] holds = ["time", "Rpm", "Egt 1", "Egt 2", "Egt 3", "Egt 4", "Cht 1", "Cht 2", "Cht 3", "Cht 4", "OilTemperature", "OilPressure"];
        var token = Token().Match(await client.GetStringAsync(page, stop)).Groups[1].Value;
        var times = new List<double>();
        for (var round = 0; round < 5; round++)
        {
            var from = Stopwatch.GetTimestamp();
            using var sent = new MultipartFormDataContent { { new ByteArrayContent([.. log, .. Encoding.UTF8.GetBytes($"{rows},{round}\n")]), "file", "long.csv" }, { new StringContent(token), "__RequestVerificationToken" } };
            using var looked = await client.PostAsync($"{page}?handler=Upload", sent, stop);
            var sha = looked.EnsureSuccessStatusCode().RequestMessage!.RequestUri!.Query.Split("file=")[1].Split('&')[0];
            using var taken = await client.PostAsync($"{page}?handler=Take", new FormUrlEncodedContent([new("post", $"{Guid.NewGuid()}"), new("file", sha), new("name", "long.csv"), new("__RequestVerificationToken", token), .. holds.Select(held => new KeyValuePair<string, string>("holds", held))]), stop);
            await taken.EnsureSuccessStatusCode().Content.ReadAsByteArrayAsync(stop);
            times.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }
        times.Sort();
        Console.WriteLine($"A log of {rows} rows and {holds.Length} columns, sent, taken in and drawn: median {times[2]:0} ms, slowest {times[^1]:0} ms of {times.Count}.");
    }

    private static async Task PostAsync(HttpClient client, string name, int warmUp, int rounds, Func<int, (string Path, HttpContent Form)> make, CancellationToken stop)
    {
        var times = new List<double>();
        for (var round = -warmUp; round < rounds; round++)
        {
            var (path, form) = make(round);
            using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = form, Headers = { { "X-Rivet", "live" } } };
            var from = Stopwatch.GetTimestamp();
            using var answer = await client.SendAsync(request, stop);
            await answer.EnsureSuccessStatusCode().Content.ReadAsByteArrayAsync(stop);
            if (round >= 0)
                times.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
        }
        times.Sort();
        Console.WriteLine($"{name,-28}{times[rounds / 2],9:0.0}{times[rounds * 95 / 100],9:0.0}");
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
