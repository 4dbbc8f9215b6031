using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Signing;
using MellowRivet.Store;
using MellowRivet.Store.Files;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>Something found, as it is sent.</summary>
public sealed class FindForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();
    public string? What { get; set; }
    public string? Zone { get; set; }
    public string? Where { get; set; }

    /// <summary>Airworthiness until a person says less: the cautious way round.</summary>
    public DiscrepancyClass Class { get; set; } = DiscrepancyClass.Airworthiness;

    /// <summary>Nobody has touched the class: it is guessed from the words, also of what was written without a connection.</summary>
    public bool Guess { get; set; }
    public bool Grounded { get; set; }

    /// <summary>It is an object that doesn't belong there: it goes into the log of found objects as well.</summary>
    public bool Foreign { get; set; }
    public string? Note { get; set; }
    public string? Measured { get; set; }
    public FoundHow How { get; set; } = FoundHow.Visual;
    public Guid? Task { get; set; }

    /// <summary>The judgement that it is written down for; null for none.</summary>
    public string? Judged { get; set; }

    /// <summary>Why it is less than the judgement or the words say, and by which data.</summary>
    public string? Why { get; set; }
    public string? Reference { get; set; }

    /// <summary>The owner's complaint that it answers; null where it answers none.</summary>
    public Guid? Squawk { get; set; }
    public List<IFormFile> Photos { get; set; } = [];
    public List<IFormFile> Sounds { get; set; } = [];

    /// <summary>Pictures that were shared to the product before, by their SHA-256.</summary>
    public List<string> Kept { get; set; } = [];
}

/// <summary>The form that takes something found down: on its own page, or over any page of the walk.</summary>
public sealed record CaptureView(Job Job, IReadOnlyList<ZoneState> Zones, FindForm Form, IReadOnlyList<Refusal> Problems, string BackTo,
    bool IsDialog);

/// <summary>What came along with a form: pictures and sounds, all of them on the disk, or why not.</summary>
public sealed record Attachments(IReadOnlyList<Photo> Photos, IReadOnlyList<Sound> Sounds, IReadOnlyList<Refusal> Refusals)
{
    /// <summary>Most of a kind at a time.</summary>
    public const int Most = 12;

    public static async Task<Attachments> TakeInAsync(IReadOnlyList<IFormFile> photos, IReadOnlyList<IFormFile> sounds,
        PhotoFiles photoFiles, SoundFiles soundFiles, CancellationToken stop)
    {
        if (photos.Count > Most || sounds.Count > Most)
            return new([], [], [new("photos", $"{Math.Max(photos.Count, sounds.Count)} files; {Most} at a time is the most.")]);
        (List<Photo> taken, List<Sound> heard, List<Refusal> refusals) = ([], [], []);
        try
        {
            foreach (var file in photos)
            {
                await using var content = file.OpenReadStream();
                var answer = await photoFiles.TakeInAsync(content, file.FileName, stop);
                if (answer.Photo is { } photo)
                    taken.Add(photo);
                else
                    refusals.Add(answer.Refusal!);
            }
            foreach (var file in sounds)
            {
                await using var content = file.OpenReadStream();
                var answer = await soundFiles.TakeInAsync(content, file.FileName, stop);
                if (answer.Sound is { } sound)
                    heard.Add(sound);
                else
                    refusals.Add(answer.Refusal!);
            }
        }
        catch (IOException)
        {
            refusals.Add(new("photos", "The shop's disk didn't take it: it may be full. Nothing was saved; your words are still here."));
        }
        return new(taken, heard, refusals);
    }

    /// <summary>Adds all of it; the first refusal, or null.</summary>
    public Refusal? AddTo(Discrepancy found) =>
        Photos.Select(found.Add).Concat(Sounds.Select(found.Add)).FirstOrDefault(refusal => refusal is not null);
}
