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
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Library;

/// <summary>One aircraft that a bulletin was looked up for.</summary>
public sealed record OnAircraft(DueLine Line, BulletinLine One, IReadOnlyList<SerialLine> Serials);

/// <summary>One bulletin: what it says, and how it falls on every aircraft of the shop.</summary>
[EnableRateLimiting("uploads")]
[Needs(Right.Look)]
public sealed class ShowModel(RivetDb db, ShopBoard board, DocumentFiles documents, TimeProvider clock) : PageModel
{
    private const int MostReasons = 12, MostLines = 30;

    [FromRoute]
    public Guid Id { get; set; }

    public ShopBulletin Held { get; private set; } = null!;
    public ShopBulletin? SupersededBy { get; private set; }
    public ListPage<OnAircraft> On { get; private set; } = new([], 1, 1, 0);

    /// <summary>Which page of them, from 1.</summary>
    [FromQuery(Name = "page")]
    public int? PageTyped { get; set; }

    public string Taken { get; private set; } = "";

    /// <summary>Models that it names and no list knows.</summary>
    public IReadOnlyList<UnsettledName> Unsettled { get; private set; } = [];

    /// <summary>Aircraft that it doesn't concern, with the reason.</summary>
    public IReadOnlyList<(Aircraft Aircraft, string Why)> NotOn { get; private set; } = [];

    /// <summary>How many more it doesn't concern.</summary>
    public int NotOnEither { get; private set; }

    public string? Problem(string field) => ModelState[field]?.Errors.FirstOrDefault()?.ErrorMessage;

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    /// <summary>Puts a document with it.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostAttachAsync(Guid post, IFormFile? file, string? title, CancellationToken stop)
    {
        Attachment? attachment = null;
        Refusal? wrong = file is null or { Length: 0 } ? new("file", "Choose a file.") : title?.Trim().Length > 100
            ? new("file", "A title of up to 100 characters.")
            : null;
        if (wrong is null)
            try
            {
                await using var content = file!.OpenReadStream();
                (attachment, wrong) = await documents.TakeInAsync(content, string.IsNullOrWhiteSpace(title)
                    ? Path.GetFileNameWithoutExtension(file.FileName)
                    : title.Trim(), stop);
            }
            catch (IOException)
            {
                wrong = new("file", "The disk is full or gone: nothing was kept.");
            }
        var written = wrong is not null ? new Written(wrong) : await db.OnceAsync(post, clock, async () =>
        {
            if (await db.BulletinToChangeAsync(Id, stop) is not { } held)
                return new("file", "There is no such bulletin.");
            held.Attach(attachment!);
            return null;
        }, stop);
        if (written.Done)
            return Redirect($"/bulletins/{Id}");
        if (!await ShowAsync(stop))
            return NotFound();
        ModelState.AddModelError(written.Refusal!.Field, written.Refusal.Message);
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (await db.BulletinAsync(Id, stop) is not { } held)
            return false;
        Held = held;
        var now = await board.NowAsync(stop);
        SupersededBy = now.Bulletins is var list && list.All.FirstOrDefault(other => other.Id == Id) is { } kept
            ? list.SupersededBy(kept)
            : null;
        Unsettled = [.. list.Types.UnsettledIn(held.Bulletin)];
        var lines = now.Lines.ToList();
        var concerned = lines.Where(line => line.Research.Lines.Any(one => one.Held.Id == Id)).ToList();
        // Reasons for the first of the fleet; a large shop has them on each aircraft's own list.
        var others = lines.Except(concerned).Take(MostReasons).ToList();
        NotOnEither = lines.Count - concerned.Count - others.Count;
        var on =
            ListPage.Of(
                [.. concerned.SelectMany(line => line.Research.Lines.Where(one => one.Held.Id == Id).Select(one => (Line: line, One: one)))
            .OrderByDescending(pair => pair.One.State)
            .ThenBy(pair => pair.Line.Aircraft.Registration, StringComparer.Ordinal)], PageTyped, MostLines);
        var stated = await db.StatedOnAsync(
            [.. on.Shown.Select(pair => pair.Line).Concat(others).Select(line => line.Aircraft).Distinct()], stop);
        On = on.Select(pair => new OnAircraft(pair.Line, pair.One,
            [.. SerialLine.Of(held.Bulletin.AppliesTo, new AircraftFacts(pair.Line.Aircraft, stated, list.Types, pair.One.On))]));
        NotOn =
            [.. others.Select(line =>
                (line.Aircraft, string.Join("; ",
                    new AircraftFacts(line.Aircraft, stated, list.Types, line.Aircraft.Fitted(held.Bulletin.About ?? ComponentKind.Engine)
                        .FirstOrDefault(_ => held.Bulletin.About is not null)).Put(held.Bulletin.AppliesTo).Because)))];
        Taken =
            $"{(held.By is { } by ? now.People.GetValueOrDefault(by)?.Name : "The service")}, {held.From}, "
            + $"{clock.Here(held.ReceivedAt):yyyy-MM-dd}";
        return true;
    }
}
