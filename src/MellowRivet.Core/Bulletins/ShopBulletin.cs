using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.Bulletins;

/// <summary>A page or file that somebody put with a bulletin.</summary>
/// <param name="Sha256">The file's name.</param>
/// <param name="Title">What it is.</param>
/// <param name="Type">Its media type, by its own first bytes.</param>
public sealed record Attachment(string Sha256, string Title, string Type);

/// <summary>A bulletin as the shop holds it.</summary>
public sealed class ShopBulletin
{
    private List<Attachment> attachments = [];

    private ShopBulletin() { }

    /// <param name="id">Its id here.</param>
    /// <param name="bulletin">The bulletin.</param>
    /// <param name="from">Where it came from: the service, a file, typed here.</param>
    /// <param name="by">Who took it in; null for the service.</param>
    /// <param name="at">When.</param>
    public ShopBulletin(Guid id, Bulletin bulletin, string from, Guid? by, DateTimeOffset at)
    {
        Id = id;
        ReceivedAt = at;
        (From, By) = (from, by);
        Take(bulletin);
    }

    public Guid Id { get; private set; }
    public string Family { get; private set; } = "";
    public string Revision { get; private set; } = "";
    public Bulletin Bulletin { get; private set; } = null!;
    public string From { get; private set; } = "";
    public Guid? By { get; private set; }
    public DateTimeOffset ReceivedAt { get; private set; }

    /// <summary>Counts changes, so that two people can't overwrite each other unseen.</summary>
    public int Changes { get; private set; }
    public IReadOnlyList<Attachment> Attachments => attachments;

    /// <summary>Puts other words in it: its number and revision stay.</summary>
    public Refusal? Change(Bulletin to, int seen)
    {
        if (seen != Changes)
            return new("subject", "Somebody else changed it while you had it open. Theirs is kept; yours is still here.");
        if (to.Family != Family || to.Revision != Revision)
            return new("number", "Issuer, number and revision stay as they are: another revision is a bulletin of its own.");
        Take(to);
        Changes++;
        return null;
    }

    public void Attach(Attachment attachment)
    {
        attachments = [.. attachments.Where(other => other.Sha256 != attachment.Sha256), attachment];
        Changes++;
    }

    private void Take(Bulletin bulletin) => (Bulletin, Family, Revision) = (bulletin, bulletin.Family, bulletin.Revision);
}

/// <summary>All bulletins a shop holds, and which of them another has taken the place of. Reckoned once, then only read.</summary>
public sealed class BulletinList
{
    private readonly Dictionary<Guid, ShopBulletin> supersededBy = [];
    private readonly Lazy<Dictionary<Guid, IReadOnlyList<UnsettledName>>> unsettled;

    /// <param name="bulletins">The bulletins.</param>
    /// <param name="types">The types the shop knows, by which their models are told.</param>
    /// <param name="today">A bulletin takes another's place from the day it holds.</param>
    public BulletinList(IEnumerable<ShopBulletin> bulletins, TypeList types, DateOnly today)
    {
        Types = types;
        All = [.. bulletins.OrderByDescending(held => held.Bulletin.Effective).ThenBy(held => held.Bulletin.Number, StringComparer.Ordinal)
            .ThenByDescending(held => held.Revision, StringComparer.Ordinal)];
        Today = today;
        var all = All;
        unsettled = new(() => all.Select(held => (held.Id, Names: (IReadOnlyList<UnsettledName>)[.. types.UnsettledIn(held.Bulletin)]))
            .Where(one => one.Names.Count > 0).ToDictionary(one => one.Id, one => one.Names));
        var families = All.ToLookup(held => held.Family);
        foreach (var held in All.Where(held => held.Bulletin.Effective <= today).Order(Later))
        {
            foreach (var earlier in families[held.Family].Where(other => Later.Compare(other, held) < 0))
                supersededBy[earlier.Id] = held;
            foreach (var named in held.Bulletin.Supersedes ?? [])
                foreach (var other in families[$"{named.Issuer ?? held.Bulletin.Issuer}\n{named.Number}".ToUpperInvariant()])
                    // Two that name each other: the later one stands.
                    if (Later.Compare(other, held) < 0
                        && (named.Revision is null || string.Equals(named.Revision, other.Revision, StringComparison.OrdinalIgnoreCase)))
                        supersededBy[other.Id] = held;
        }
    }

    public IReadOnlyList<ShopBulletin> All { get; }
    public TypeList Types { get; }
    public DateOnly Today { get; }

    /// <summary>Models that a bulletin names and no list knows.</summary>
    public IReadOnlyList<UnsettledName> UnsettledIn(ShopBulletin held) => unsettled.Value.GetValueOrDefault(held.Id, []);

    /// <summary>What took a bulletin's place; null while it stands.</summary>
    public ShopBulletin? SupersededBy(ShopBulletin held) => supersededBy.GetValueOrDefault(held.Id);

    /// <summary>The families whose compliance counts for a bulletin: its own, and where it says so those it took the place of.</summary>
    public static IEnumerable<string> Lineage(ShopBulletin held) =>
        held.Bulletin.Compliance.EarlierCounts && held.Bulletin.Supersedes is { Count: > 0 } named
        ? named.Select(other => $"{other.Issuer ?? held.Bulletin.Issuer}\n{other.Number}".ToUpperInvariant()).Prepend(held.Family)
        : [held.Family];

    private static readonly Comparer<ShopBulletin> Later = Comparer<ShopBulletin>.Create((one, other) =>
        (one.Bulletin.Effective, one.Bulletin.Published).CompareTo((other.Bulletin.Effective, other.Bulletin.Published))
            is var days and not 0 ? days
        : Revisions(one.Revision, other.Revision) is var revisions and not 0 ? revisions
        : string.CompareOrdinal(one.Family, other.Family));

    private static int Revisions(string one, string other) => (SerialNumber.Read(one), SerialNumber.Read(other)) switch
    {
        (null, null) => 0,
        (null, _) => -1,
        (_, null) => 1,
        ({ } first, { } second) => first.CompareTo(second),
    };
}
