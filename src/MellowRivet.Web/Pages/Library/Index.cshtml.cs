using System.Text;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Library;

/// <summary>Which bulletins of the shop are shown.</summary>
public enum BulletinFilter { All = 1, Open, CannotTell, New, Unsettled, Superseded }

/// <summary>One bulletin with how it falls on the shop.</summary>
/// <param name="Held">The bulletin.</param>
/// <param name="SupersededBy">The one that took its place; null for none.</param>
/// <param name="On">On how many aircraft it stands how.</param>
/// <param name="Unsettled">Models that it names and no list knows.</param>
/// <param name="IsNew">It came with the last that came.</param>
public sealed record ShopLine(ShopBulletin Held, ShopBulletin? SupersededBy, BulletinTally On, IReadOnlyList<UnsettledName> Unsettled,
    bool IsNew)
{
    // What comes at once is written within this.
    private static readonly TimeSpan AtOnce = TimeSpan.FromMinutes(5);

    /// <summary>The bulletins as they stand, the most urgent first.</summary>
    public static IReadOnlyList<ShopLine> Of(BulletinList list, IReadOnlyDictionary<Guid, BulletinTally> tally)
    {
        var latest = list.All.Select(held => held.ReceivedAt).DefaultIfEmpty().Max();
        return [.. list.All.Select(
            held => new ShopLine(held, list.SupersededBy(held), tally.GetValueOrDefault(held.Id, BulletinTally.Nowhere),
                list.UnsettledIn(held), latest - held.ReceivedAt <= AtOnce))
            .OrderByDescending(line => line.SupersededBy is null).ThenByDescending(line => line.On.Due)
            .ThenByDescending(line => line.On.CannotTell).ThenByDescending(line => line.Held.Bulletin.Effective)];
    }

    public bool Is(BulletinFilter filter) => filter switch
    {
        BulletinFilter.Open => SupersededBy is null && On.Due > 0,
        BulletinFilter.CannotTell => SupersededBy is null && On.CannotTell > 0,
        BulletinFilter.New => IsNew,
        BulletinFilter.Unsettled => SupersededBy is null && Unsettled.Count > 0,
        BulletinFilter.Superseded => SupersededBy is not null,
        _ => true,
    };

    /// <summary>Every word stands in its issuer, number, subject or kind.</summary>
    public bool Has(IEnumerable<string> words) => Held.Bulletin is var bulletin
        && $"{bulletin.Issuer} {bulletin.Title} {bulletin.Subject} {bulletin.Kind.InWords()}" is var names
        && words.All(word => names.Contains(word, StringComparison.OrdinalIgnoreCase));
}

/// <summary>The shop's bulletins.</summary>
/// <param name="Lines">One page of those that are asked for.</param>
/// <param name="Only">Which are asked for.</param>
/// <param name="Words">What is looked for.</param>
/// <param name="Counts">How many each filter shows.</param>
/// <param name="Aircraft">How many aircraft there are.</param>
/// <param name="Service">Who gives them out.</param>
/// <param name="Feed">When it was asked; null for never.</param>
/// <param name="Said">What an import or the service brought, in words.</param>
public sealed record ShopBulletinsView(ListPage<ShopLine> Lines, BulletinFilter Only, string? Words,
    IReadOnlyDictionary<BulletinFilter, int> Counts, int Aircraft, string Service, FeedState? Feed, string? Said) : PageView;

/// <summary>The shop's bulletins: what came, how it falls on the aircraft, the service, files.</summary>
[Needs(Right.Look)]
public sealed class ShopBulletinsModel(RivetDb db, ShopBoard board, BulletinPost post, IBulletinService service, TimeProvider clock)
    : ShopPage<ShopBulletinsView>
{
    private const int MostLines = 40;

    [FromQuery(Name = "only")]
    public BulletinFilter Only { get; set; } = BulletinFilter.All;

    [FromQuery(Name = "q")]
    public string? Words { get; set; }

    /// <summary>Which page of them, from 1.</summary>
    [FromQuery(Name = "page")]
    public int? PageTyped { get; set; }

    [FromQuery(Name = "said")]
    public string? Said { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Asks the service now.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostAskAsync(CancellationToken stop)
    {
        await post.AskAsync(stop);
        return Redirect("/bulletins?only=New");
    }

    /// <summary>Takes in a file, JSON or CSV, checked whole before any of it is.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostImportAsync(Guid post, IFormFile? file, CancellationToken stop)
    {
        var (bytes, wrong) = await Uploads.ReadAsync(file, "file", BulletinFile.MostBytes,
            file is null ? "Choose a file." : "The file is empty.", stop);
        if (wrong is not null)
            return await AgainAsync(wrong, stop);
        var isJson = bytes.AsSpan().TrimStart("\uFEFF \t\r\n"u8) is [(byte)'{' or (byte)'[', ..];
        var (read, fault) = isJson ? BulletinFile.Read(Encoding.UTF8.GetString(bytes).TrimStart('\uFEFF')) : BulletinCsv.Read(bytes);
        if (fault is not null)
            return await AgainAsync(new("file", fault), stop);
        TakenIn? taken = null;
        var written = await db.OnceAsync(post, clock, async () =>
        {
            taken = await db.TakeInAsync(read, "a file", User.PersonId(), clock.GetUtcNow(), stop);
            return null;
        }, stop);
        var said = taken is null
            ? "taken in already"
            : $"{taken.OnTheShop((await board.NowAsync(stop)).Lines, await db.TypeListAsync(stop))}"
            + $"{(taken.Known > 0 ? $"; {taken.Known} were here already and stay as they are" : "")}";
        return await AfterAsync(written, $"/bulletins?said={Uri.EscapeDataString(said)}", stop);
    }

    protected override async Task<ShopBulletinsView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var now = await board.NowAsync(stop);
        var all = ShopLine.Of(now.Bulletins, now.Tally);
        var words = (Words ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries);
        return new(ListPage.Of([.. all.Where(line => line.Is(Only) && line.Has(words))], PageTyped, MostLines), Only, Words,
            Enum.GetValues<BulletinFilter>().ToDictionary(filter => filter, filter => all.Count(line => line.Is(filter))),
            now.Aircraft.Count, service.Name, await db.FeedAsync(service.Name, stop), Said);
    }
}
