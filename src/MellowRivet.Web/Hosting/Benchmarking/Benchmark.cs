using System.Diagnostics;
using System.IO.Compression;
using System.Net;
using System.Net.Sockets;
using System.Text.RegularExpressions;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using MellowRivet.Web.Demo;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Hosting.Benchmarking;

/// <summary>What one page or write came to.</summary>
/// <param name="Median">Milliseconds, as the next.</param>
/// <param name="Late">At the 95th percentile.</param>
/// <param name="First">The first request after a start; null for a write.</param>
/// <param name="Kilobytes">How large the answer is.</param>
/// <param name="Queries">What it asks of the database.</param>
internal sealed record Measured(double Median, double Late, double? First, double Kilobytes, int Queries);

/// <summary>
/// Measures every page and the common writes on the big shop and on the demo, each on a server of its own with data of its own,
/// over the loopback address: what a page costs must hardly depend on how much the shop has.
/// </summary>
internal static partial class Benchmark
{
    private const int WarmUp = 10, Rounds = 100, People = 8, VerdictsEach = 40;

    // What the issue of the product's own asks for: milliseconds at the 95th percentile, and times the demo's median.
    private const double MostLate = 25, MostRatio = 2, MostFirst = 3;

    // A server at rest takes less of a processor in a second.
    private static readonly TimeSpan Idle = TimeSpan.FromMilliseconds(50);

    private static readonly string[] All = ["pages", "first", "writes", "together", "weight", "plan", "passport"], Shops = ["big", "demo"];

    public static IEnumerable<string> Parts => [.. All, .. Shops];

    public static async Task<int> RunAsync(string[] parts, string only, string? data, CancellationToken stop)
    {
        bool Wanted(string part) => !parts.Intersect(All).Any() || parts.Contains(part);
        if (Wanted("plan"))
            PlanBench.Run();
        if (parts is ["plan"])
            return 0;
        // Two gigabytes: only where it is asked for by its name.
        if (parts.Contains("passport"))
            return await PassportBench.RunAsync(stop);
        var count = new QueryCount();
        var results = new Dictionary<(string Name, bool Big), Measured>();
        List<string> names = [];
        foreach (var big in new[] { true, false }.Where(big => !parts.Intersect(Shops).Any() || parts.Contains(big ? "big" : "demo")))
        {
            // In a folder that is named the shops are kept, to be measured again.
            var folder = data is null
                ? Path.Combine(Path.GetTempPath(), $"rivet-bench-{Guid.NewGuid():N}")
                : Path.Combine(data, big ? "big" : "demo");
            try
            {
                var settings = new RivetSettings(new(folder))
                    { Port = 0, Demo = true, Big = big, SignInsPerMinute = 100, UploadsPerMinute = 100_000 };
                var from = Stopwatch.GetTimestamp();
                TimedViews views;
                string cookie;
                await using (var app = await RivetApp.OpenAsync(settings, stop))
                {
                    Console.WriteLine(
                        $"{(big ? "The big shop" : "The demo")} stands after {Stopwatch.GetElapsedTime(from).TotalSeconds:0} s.");
                    views = await TimedViews.OfAsync(app.Services, big, stop);
                    await app.StartAsync(stop);
                    var (client, jar) = Visitor(app);
                    var token = await EnterAsync(client, "orla", views, stop);
                    cookie = jar.GetCookieHeader(client.BaseAddress!);
                    if (Wanted("pages"))
                        foreach (var (name, path) in views.Pages()
                            .Where(page => page.Name.Contains(only, StringComparison.OrdinalIgnoreCase)))
                            results[(name, big)] = await MeasureAsync(client, path, count, stop);
                    if (Wanted("writes"))
                        foreach (var write in views.Writes(token)
                            .Where(write => write.Name.Contains(only, StringComparison.OrdinalIgnoreCase)))
                            results[(write.Name, big)] = await WriteAsync(client, write, count, stop);
                    if (Wanted("together") && big)
                        await TogetherAsync(app, views, stop);
                    if (Wanted("weight") && !big)
                        await WeighAsync(client, stop);
                    client.Dispose();
                    await app.StopAsync(stop);
                    names = [.. names.Union(results.Keys.Where(key => key.Big == big).Select(key => key.Name))];
                }
                if (Wanted("first"))
                    foreach (var (name, path) in views.Pages().Where(page => page.Name.Contains(only, StringComparison.OrdinalIgnoreCase)))
                        if (results.TryGetValue((name, big), out var known))
                        {
                            results[(name, big)] = known with { First = await FirstAsync(folder, path, cookie, stop) };
                            // Each takes a start of its own: whoever waits sees how far it is.
                            Console.WriteLine(
                                $"first on {(big ? "the big shop" : "the demo")}: {name,-25}{results[(name, big)].First,8:0.0}");
                        }
            }
            finally
            {
                if (data is null)
                    Directory.Delete(folder, recursive: true);
            }
        }
        Print(names, results);
        return 0;
    }

    private static void Print(List<string> names, Dictionary<(string Name, bool Big), Measured> results)
    {
        Console.WriteLine(
            $"{Rounds} requests each, one after the other; milliseconds until the whole answer is in. “first”: the "
            + $"first request after a start.");
        Console.WriteLine($"{"",-25}{"the big shop",48}{"the demo",48}");
        Console.WriteLine(
            $"{"",-25}{"median",9}{"95th",8}{"first",9}{"kB",9}{"queries",9}{"median",13}{"95th",8}{"first",9}"
            + $"{"kB",9}{"queries",9}{"ratio",8}");
        foreach (var name in names)
        {
            var (big, small) = (results.GetValueOrDefault((name, true)), results.GetValueOrDefault((name, false)));
            if (big is null || small is null)
            {
                Console.WriteLine($"{name,-25}{Columns((big ?? small)!)}");
                continue;
            }
            var over = string.Join(' ',
                new[] { big.Late > MostLate && big.First is not null ? "late" : "", big.Median > MostRatio * small.Median && big.Median > 2
                    ? "ratio"
                    : "", big.First > MostFirst * big.Median ? "first" : "", big.Queries > small.Queries
                    ? "queries"
                    : "" }.Where(word => word.Length > 0));
            Console.WriteLine(
                $"{name,-25}{Columns(big)}    {Columns(small)}{big.Median / small.Median,8:0.0}"
                + (over.Length > 0 ? $"  over: {over}" : ""));
        }
        static string Columns(Measured of) =>
            $"{of.Median,9:0.0}{of.Late,8:0.0}{(of.First is { } first ? $"{first:0.0}" : ""),9}{of.Kilobytes,9:0.0}{of.Queries,9}";
    }

    private static (HttpClient Client, CookieContainer Jar) Visitor(WebApplication app)
    {
        var jar = new CookieContainer();
        return (new(new HttpClientHandler { CookieContainer = jar, AllowAutoRedirect = true })
            { BaseAddress = new(app.Urls.First()) }, jar);
    }

    // The token for forms, as whoever entered.
    private static async Task<string> EnterAsync(HttpClient client, string who, TimedViews views, CancellationToken stop)
    {
        var token = Token().Match(await client.GetStringAsync("/enter", stop)).Groups[1].Value;
        using var form = new FormUrlEncodedContent(
            [new("name", who), new("password", DemoShop.Password), new("__RequestVerificationToken", token)]);
        (await client.PostAsync("/enter", form, stop)).EnsureSuccessStatusCode();
        return Token().Match(await client.GetStringAsync($"/walk/{views.WorkId}/find", stop)).Groups[1].Value;
    }

    private static async Task<Measured> MeasureAsync(HttpClient client, string path, QueryCount count, CancellationToken stop)
    {
        var times = new List<double>();
        var (bytes, queries) = (0, 0);
        for (var round = -WarmUp; round < Rounds; round++)
        {
            count.Take();
            var from = Stopwatch.GetTimestamp();
            bytes = (await client.GetByteArrayAsync(path, stop)).Length;
            if (round >= 0)
                times.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
            queries = count.Take();
        }
        times.Sort();
        return new(times[Rounds / 2], times[Rounds * 95 / 100], null, bytes / 1024.0, queries);
    }

    private static async Task<Measured> WriteAsync(HttpClient client, TimedWrite write, QueryCount count, CancellationToken stop)
    {
        var times = new List<double>();
        var (bytes, queries) = (0, 0);
        for (var round = -WarmUp; round < write.Rounds; round++)
        {
            var (path, form) = write.Make(round + WarmUp);
            using var request = new HttpRequestMessage(HttpMethod.Post, path)
                { Content = form, Headers = { { "X-Rivet", "live" }, { "HX-Request", "true" } } };
            count.Take();
            var from = Stopwatch.GetTimestamp();
            using var answer = await client.SendAsync(request, stop);
            var said = await answer.Content.ReadAsStringAsync(stop);
            bytes = said.Length;
            if (!answer.IsSuccessStatusCode)
                throw new InvalidOperationException($"{write.Name}, {path}: {answer.StatusCode} {said[..Math.Min(300, said.Length)]}");
            if (round >= 0)
                times.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
            queries = count.Take();
        }
        times.Sort();
        return new(times[write.Rounds / 2], times[write.Rounds * 95 / 100], null, bytes / 1024.0, queries);
    }

    // A server that has only just started, in a process of its own.
    private static async Task<double> FirstAsync(string folder, string path, string cookie, CancellationToken stop)
    {
        var start = new ProcessStartInfo(Environment.ProcessPath!) { RedirectStandardOutput = true, RedirectStandardError = true };
        foreach (var argument in new[]
            { Path.Combine(AppContext.BaseDirectory, "MellowRivet.Web.dll"), "demo", "--data", folder, "--port", $"{FreePort()}" })
            start.ArgumentList.Add(argument);
        using var server = Process.Start(start)!;
        try
        {
            Uri? address = null;
            while (address is null && await server.StandardOutput.ReadLineAsync(stop) is { } line)
                address = Address().Match(line) is { Success: true } there ? new Uri(there.Value) : null;
            if (address is null)
                throw new InvalidDataException(await server.StandardError.ReadToEndAsync(stop));
            using var client = new HttpClient(new HttpClientHandler { UseCookies = false }) { BaseAddress = address };
            client.DefaultRequestHeaders.Add("Cookie", cookie);
            // A moment after the start: it has asked for its own pages by then, and does nothing more.
            for (var (before, now) = (TimeSpan.Zero, server.TotalProcessorTime); now - before > Idle; (before, now) = (now,
                server.TotalProcessorTime))
            {
                await Task.Delay(1000, stop);
                server.Refresh();
            }
            var from = Stopwatch.GetTimestamp();
            await client.GetByteArrayAsync(path, stop);
            return Stopwatch.GetElapsedTime(from).TotalMilliseconds;
        }
        finally
        {
            server.Kill(entireProcessTree: true);
            await server.WaitForExitAsync(CancellationToken.None);
        }
    }

    // The command line takes no port of the system's choosing, so one that is free is looked for here.
    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    // Eight people on one inspection, each with tasks of their own: how long a verdict takes, and whether every one of them stands.
    private static async Task TogetherAsync(WebApplication app, TimedViews views, CancellationToken stop)
    {
        var tasks = views.ToAnswer();
        var times = new System.Collections.Concurrent.ConcurrentBag<double>();
        var said = new System.Collections.Concurrent.ConcurrentDictionary<Guid, TaskVerdict>();
        string[] names = ["ines", "orla", "tamsin", "piet", "wim", "ines", "orla", "tamsin"];
        // All are in before the first writes: checking eight passwords would keep both processors from them.
        var visitors = await Task.WhenAll(names.Select(async name => Visitor(app).Client is var client
            ? (client, token: await EnterAsync(client, name, views, stop))
            : default));
        await Task.WhenAll(Enumerable.Range(0, People).Select(async person =>
        {
            var (client, token) = visitors[person];
            using var own = client;
            var mine = tasks.Where((_, index) => index % People == person).ToList();
            for (var round = 0; round < VerdictsEach; round++)
            {
                var (path, task) = mine[round % mine.Count];
                var verdict = round / mine.Count % 2 == 0 ? TaskVerdict.NotYet : TaskVerdict.Good;
                using var form = new FormUrlEncodedContent(
                    [new("post", $"{Guid.NewGuid()}"), new("task", $"{task}"), new("seen", $"{views.Seen(task)}"),
                        new("verdict", $"{verdict}"), new("__RequestVerificationToken", token)]);
                using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = form, Headers = { { "X-Rivet", "live" } } };
                var from = Stopwatch.GetTimestamp();
                using var answer = await client.SendAsync(request, stop);
                await answer.EnsureSuccessStatusCode().Content.ReadAsByteArrayAsync(stop);
                times.Add(Stopwatch.GetElapsedTime(from).TotalMilliseconds);
                said[task] = verdict;
            }
        }));
        await using var scope = app.Services.CreateAsyncScope();
        var kept = await scope.ServiceProvider.GetRequiredService<RivetDb>().Inspections.AsNoTracking().Where(row => row.Id == views.WorkId)
            .SelectMany(row => row.Tasks).ToDictionaryAsync(task => task.Id, task => task.Verdict, stop);
        var all = times.Order().ToList();
        Console.WriteLine(
            $"{People} people at once, {all.Count} verdicts on one inspection: median {all[all.Count / 2]:0.0} ms, 95th "
            + $"{all[all.Count * 95 / 100]:0.0} ms, lost {said.Count(one => kept[one.Key] != one.Value)}.");
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

    [GeneratedRegex("http://127\\.0\\.0\\.1:\\d+")]
    private static partial Regex Address();
}
