using System.Net;
using System.Net.Http.Headers;
using Microsoft.AspNetCore.WebUtilities;
using MellowRivet.Store.Backups;
using MellowRivet.Store.Following;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Hosting.Reliability;

/// <summary>A shop on another machine, asked by its address.</summary>
internal sealed class FollowedAddress : IFollowed
{
    private readonly HttpClient http;

    public FollowedAddress(Uri address, string key)
    {
        http = new(new SocketsHttpHandler { AllowAutoRedirect = false, ConnectTimeout = TimeSpan.FromSeconds(10) })
            { BaseAddress = address, Timeout = TimeSpan.FromMinutes(5) };
        http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", key);
    }

    /// <summary>Why nobody follows at an address; null where they may: the whole shop goes over the wire.</summary>
    public static string? WhyNot(Uri address) =>
        address.Scheme == Uri.UriSchemeHttps || (address.Scheme == Uri.UriSchemeHttp && address.IsLoopback) ? null
        : "Everything of the shop goes that way, its keys too: name an address with https.";

    public async Task<DatabaseImage> DatabaseAsync(string? held, CancellationToken stop) =>
        await ReadAsync<DatabaseImage>("database", stop, ("held", held ?? ""));

    public async Task<IReadOnlyList<ShopFile>> FilesAsync(CancellationToken stop) => await ReadAsync<List<ShopFile>>("files", stop);

    public async Task<byte[]?> BlocksAsync(string sha256, int from, int count, CancellationToken stop)
    {
        using var answer = await AskAsync("blocks", stop, ("image", sha256), ("from", $"{from}"), ("count", $"{count}"));
        return answer.IsSuccessStatusCode ? await answer.Content.ReadAsByteArrayAsync(stop) : null;
    }

    public async Task<Stream?> OpenAsync(string path, CancellationToken stop)
    {
        var answer = await AskAsync("file", stop, ("path", path));
        if (answer.IsSuccessStatusCode)
            return await answer.Content.ReadAsStreamAsync(stop);
        answer.Dispose();
        return null;
    }

    private async Task<T> ReadAsync<T>(string what, CancellationToken stop, params (string Name, string Value)[] given)
    {
        using var answer = await AskAsync(what, stop, given);
        return answer.IsSuccessStatusCode
            ? (await answer.Content.ReadFromJsonAsync<T>(stop))!
            : throw new IOException(answer.StatusCode == HttpStatusCode.NotFound
                ? "the shop doesn't know this key: make one there with ./rivet key --for-follower FILE, and bring FILE here"
                : $"the shop answers {(int)answer.StatusCode}");
    }

    private async Task<HttpResponseMessage> AskAsync(string what, CancellationToken stop, params (string Name, string Value)[] given)
    {
        try
        {
            return await http.GetAsync(new Uri(QueryHelpers.AddQueryString($"{FollowDesk.Path}/{what}",
                given.Select(one => KeyValuePair.Create(one.Name, (string?)one.Value))), UriKind.Relative),
                HttpCompletionOption.ResponseHeadersRead, stop);
        }
        catch (Exception problem) when (problem is HttpRequestException or TaskCanceledException && !stop.IsCancellationRequested)
        {
            throw new IOException($"it doesn't answer ({problem.Message.TrimEnd('.')})", problem);
        }
    }

    public void Dispose() => http.Dispose();
}
