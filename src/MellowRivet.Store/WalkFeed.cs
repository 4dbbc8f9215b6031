using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Threading.Channels;

namespace MellowRivet.Store;

/// <summary>Somebody who has a page of a walk open.</summary>
/// <param name="PersonId">Who.</param>
/// <param name="Initials">Their initials.</param>
/// <param name="ZoneKey">The zone they are in; null at a page that is no zone's.</param>
public sealed record Present(Guid PersonId, string Initials, string? ZoneKey);

/// <summary>What those who listen are told: that somebody wrote, or who is where now.</summary>
/// <param name="Post">The post that wrote; null where somebody came or went.</param>
/// <param name="Who">Who is where.</param>
public sealed record WalkNews(Guid? Post, IReadOnlyList<Present> Who);

/// <summary>
/// Tells everybody who has a page of an inspection open what others do on it, as it happens. It lives in memory: a server that
/// starts anew has nobody listening, and whoever connects again asks for the page as it is.
/// </summary>
public sealed class WalkFeed
{
    private readonly ConcurrentDictionary<Guid, ConcurrentDictionary<Guid, (Present Who, Channel<WalkNews> News)>> walks = new();

    /// <summary>Who has a page of this inspection open, each person in each zone once.</summary>
    public IReadOnlyList<Present> Who(Guid inspectionId) => walks.TryGetValue(inspectionId, out var listeners)
        ? [.. listeners.Values.Select(listener => listener.Who).Distinct().OrderBy(present => present.Initials, StringComparer.Ordinal)]
        : [];

    /// <summary>Says that a post was carried out.</summary>
    public void Written(Guid inspectionId, Guid post) => Tell(inspectionId, post);

    /// <summary>Listens until stopped; whoever listens is present.</summary>
    public async IAsyncEnumerable<WalkNews> ListenAsync(Guid inspectionId, Present who, [EnumeratorCancellation] CancellationToken stop)
    {
        var listeners = walks.GetOrAdd(inspectionId, _ => new());
        var id = Guid.NewGuid();
        // One that is slow loses the oldest: the newest makes it ask for the page as it is.
        var news = Channel.CreateBounded<WalkNews>(new BoundedChannelOptions(64) { FullMode = BoundedChannelFullMode.DropOldest });
        listeners[id] = (who, news);
        try
        {
            Tell(inspectionId, null);
            await foreach (var item in news.Reader.ReadAllAsync(stop))
                yield return item;
        }
        finally
        {
            listeners.TryRemove(id, out _);
            Tell(inspectionId, null);
        }
    }

    /// <summary>Lets nobody of this name listen on: the door was closed to them.</summary>
    public void End(Guid personId)
    {
        foreach (var (who, news) in walks.Values.SelectMany(listeners => listeners.Values).Where(one => one.Who.PersonId == personId))
            news.Writer.TryComplete();
    }

    private void Tell(Guid inspectionId, Guid? post)
    {
        if (!walks.TryGetValue(inspectionId, out var listeners))
            return;
        var news = new WalkNews(post, Who(inspectionId));
        foreach (var (_, channel) in listeners.Values)
            channel.Writer.TryWrite(news);
    }
}
