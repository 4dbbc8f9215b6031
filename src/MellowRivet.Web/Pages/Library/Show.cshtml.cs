using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Library;

/// <summary>One aircraft that a bulletin was looked up for.</summary>
public sealed record OnAircraft(DueLine Line, BulletinLine One, IReadOnlyList<SerialDrawing> Serials);

/// <summary>The title of a document as it is sent.</summary>
public sealed record AttachForm(string? Title);

/// <summary>One bulletin.</summary>
/// <param name="Held">The bulletin.</param>
/// <param name="SupersededBy">The one that took its place; null for none.</param>
/// <param name="Taken">Who took it in, from where and when.</param>
/// <param name="Unsettled">Models that it names and no list knows.</param>
/// <param name="On">One page of the aircraft it was looked up for.</param>
/// <param name="NotOn">Aircraft that it doesn't concern, with the reason.</param>
/// <param name="NotOnEither">How many more it doesn't concern.</param>
public sealed record BulletinView(ShopBulletin Held, ShopBulletin? SupersededBy, string Taken, IReadOnlyList<UnsettledName> Unsettled,
    ListPage<OnAircraft> On, IReadOnlyList<(Aircraft Aircraft, string Why)> NotOn, int NotOnEither) : PageView
{
    public Guid Id => Held.Id;
    public string? Title => Typed<AttachForm>()?.Title;
}

/// <summary>One bulletin: what it says, and how it falls on every aircraft of the shop.</summary>
[EnableRateLimiting("uploads")]
[OwnersSee(Through.Sight)]
[Needs(Right.Look)]
public sealed class ShowModel(RivetDb db, ShopBoard board, Seen seen, DocumentFiles documents, TimeProvider clock)
    : ShopPage<BulletinView>
{
    private const int MostReasons = 12, MostLines = 30, LongestTitle = 100;

    [FromRoute]
    public Guid Id { get; set; }

    /// <summary>Which page of them, from 1.</summary>
    [FromQuery(Name = "page")]
    public int? PageTyped { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Puts a document with it.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostAttachAsync(Guid post, IFormFile? file, string? title, CancellationToken stop)
    {
        var typed = new AttachForm(title);
        if (file is null or { Length: 0 })
            return await AgainAsync(new("file", "Choose a file."), stop, typed);
        if (title?.Trim().Length > LongestTitle)
            return await AgainAsync(new("file", $"A title of up to {LongestTitle} characters."), stop, typed);
        var (attachment, wrong) = await Uploads.ToDiskAsync("file", async () =>
        {
            await using var content = file.OpenReadStream();
            return await documents.TakeInAsync(content,
                string.IsNullOrWhiteSpace(title) ? Path.GetFileNameWithoutExtension(file.FileName) : title.Trim(), stop);
        });
        return attachment is null
            ? await AgainAsync(wrong!, stop, typed)
            : await AfterAsync(db.OnceAsync(post, clock, async () =>
            {
                if (await db.BulletinToChangeAsync(Id, stop) is not { } held)
                    return new("file", "There is no such bulletin.");
                held.Attach(attachment);
                return null;
            }, stop), $"/bulletins/{Id}", stop, typed);
    }

    protected override async Task<BulletinView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        if (await db.BulletinAsync(Id, stop) is not { } held)
            return null;
        var now = await board.NowAsync(stop);
        var list = now.Bulletins;
        var sight = await seen.OfAsync(User, stop);
        var lines = now.LinesFor(sight).ToList();
        var concerned = lines.Where(line => line.Research.Lines.Any(one => one.Held.Id == Id)).ToList();
        // Reasons for the first of the fleet; a large shop has them on each aircraft's own list.
        var others = lines.Except(concerned).Take(MostReasons).ToList();
        var on = ListPage.Of(
            [.. concerned.SelectMany(line => line.Research.Lines.Where(one => one.Held.Id == Id).Select(one => (Line: line, One: one)))
                .OrderByDescending(pair => pair.One.State).ThenBy(pair => pair.Line.Aircraft.Registration, StringComparer.Ordinal)],
            PageTyped, MostLines);
        var stated = await db.StatedOnAsync(
            [.. on.Shown.Select(pair => pair.Line).Concat(others).Select(line => line.Aircraft).Distinct()], stop);
        return new(held, list.All.FirstOrDefault(other => other.Id == Id) is { } kept ? list.SupersededBy(kept) : null,
            $"{(held.By is not { } by ? "The service" : sight.IsWhole ? now.People.GetValueOrDefault(by)?.Name : "The shop")}, "
                + $"{held.From}, {clock.Here(held.ReceivedAt):yyyy-MM-dd}",
            [.. list.Types.UnsettledIn(held.Bulletin)],
            on.Select(pair => new OnAircraft(pair.Line, pair.One,
                [.. SerialDrawing.Of(held.Bulletin.AppliesTo, new AircraftFacts(pair.Line.Aircraft, stated, list.Types, pair.One.On))])),
            [.. others.Select(line => (line.Aircraft, WhyNot(held.Bulletin, line.Aircraft, stated, list.Types)))],
            lines.Count - concerned.Count - others.Count);
    }

    private static string WhyNot(Bulletin bulletin, Aircraft aircraft, IReadOnlyList<StatedFact> stated, TypeList types)
    {
        var part = bulletin.About is { } about ? aircraft.Fitted(about).FirstOrDefault() : null;
        return string.Join("; ", new AircraftFacts(aircraft, stated, types, part).Put(bulletin.AppliesTo).Because);
    }
}
