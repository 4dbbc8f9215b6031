using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text.RegularExpressions;

namespace MellowRivet.Web.Hosting.Reliability;

/// <summary>The demo, served by a process of its own that is there to be killed, on the same port each time.</summary>
internal sealed partial class KilledServer(string data) : IDisposable
{
    private readonly int port = FreePort();
    private Process? process;

    public Uri Address => new($"http://127.0.0.1:{port}");

    /// <summary>Starts it; it is asked for when it answers.</summary>
    public void Start()
    {
        process = Process.Start(new ProcessStartInfo(Environment.ProcessPath!,
            [typeof(KilledServer).Assembly.Location, "demo", "--bare", "--data", data, "--port", $"{port}"])
            { RedirectStandardOutput = true, RedirectStandardError = true })!;
        // Nobody reads it, and a full pipe would hold it up.
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
    }

    /// <summary>Waits until it answers.</summary>
    /// <exception cref="InvalidDataException">It ended, or doesn't within two minutes.</exception>
    public async Task UpAsync(CancellationToken stop)
    {
        using var http = new HttpClient { BaseAddress = Address };
        for (var from = Stopwatch.GetTimestamp(); Stopwatch.GetElapsedTime(from) < TimeSpan.FromMinutes(2); await Task.Delay(20, stop))
        {
            if (process is null or { HasExited: true })
                throw new InvalidDataException($"The server didn't start on {data}.");
            try
            {
                if ((await http.GetAsync(new Uri("/health", UriKind.Relative), stop)).StatusCode == HttpStatusCode.OK)
                    return;
            }
            catch (HttpRequestException)
            {
                // Not yet.
            }
        }
        throw new InvalidDataException($"The server on {data} doesn't answer.");
    }

    /// <summary>SIGKILL: it has no moment to put anything in order.</summary>
    public void Kill()
    {
        if (process is null)
            return;
        process.Kill();
        process.WaitForExit();
        process.Dispose();
        process = null;
    }

    public void Dispose() => Kill();

    /// <summary>Somebody who entered by the demo's door, and the token of their forms.</summary>
    public async Task<(HttpClient Http, string Token)> EnterAsync(string name, CancellationToken stop)
    {
        var http = new HttpClient(new SocketsHttpHandler { AllowAutoRedirect = false, CookieContainer = new() })
            { BaseAddress = Address, Timeout = TimeSpan.FromMinutes(2) };
        var door = new Uri("/enter", UriKind.Relative);
        using var form = new FormUrlEncodedContent([new("name", name), new(TokenField, await TokenAsync(http, door, stop))]);
        using var entered = await http.PostAsync(new Uri("/enter?handler=As", UriKind.Relative), form, stop);
        return entered.StatusCode == HttpStatusCode.Redirect
            ? (http, await TokenAsync(http, new("/me", UriKind.Relative), stop))
            : throw new InvalidDataException($"{name} can't enter: {(int)entered.StatusCode}.");
    }

    public const string TokenField = "__RequestVerificationToken";

    private static async Task<string> TokenAsync(HttpClient http, Uri page, CancellationToken stop) =>
        Token().Match(await http.GetStringAsync(page, stop)).Groups[1].Value;

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    [GeneratedRegex("""name="__RequestVerificationToken"[^>]*value="([^"]+)""")]
    private static partial Regex Token();
}
