using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Discrepancies;

// What tells of it: words, pictures, sounds, videos, notes.
public sealed partial class Discrepancy
{
    /// <summary>What stands for the words until somebody says them.</summary>
    public const string Unworded = "To be put in words";

    /// <summary>Most pictures, sounds, videos and notes at one discrepancy, each.</summary>
    public const int MostAttached = 60;

    private List<Photo> photos = [];
    private List<Sound> sounds = [];
    private List<Video> videos = [];
    private List<Note> notes = [];

    /// <summary>A picture, a sound or a video alone tells of it: nothing is signed before somebody puts it in words.</summary>
    public bool IsUnworded => What == Unworded;

    private bool HasEvidence => photos.Count + sounds.Count + videos.Count > 0;

    public IReadOnlyList<Photo> Photos => photos;
    public IReadOnlyList<Sound> Sounds => sounds;
    public IReadOnlyList<Video> Videos => videos;
    public IReadOnlyList<Note> Notes => notes;

    /// <summary>Adds a picture; the same picture a second time changes nothing.</summary>
    /// <returns>Why it can't be added, or null.</returns>
    public Refusal? Add(Photo photo)
    {
        if (photos.Any(other => other.Sha256 == photo.Sha256))
            return null;
        if (photos.Count >= MostAttached)
            return new("photos", $"{MostAttached} pictures at one discrepancy are the most.");
        photos = [.. photos, photo];
        return null;
    }

    /// <summary>Adds a sound; the same sound a second time changes nothing.</summary>
    public Refusal? Add(Sound sound)
    {
        if (sounds.Any(other => other.Sha256 == sound.Sha256))
            return null;
        if (sounds.Count >= MostAttached)
            return new("sounds", $"{MostAttached} sounds at one discrepancy are the most.");
        sounds = [.. sounds, sound];
        return null;
    }

    /// <summary>Adds a video; the same video a second time changes nothing.</summary>
    public Refusal? Add(Video video)
    {
        if (videos.Any(other => other.Sha256 == video.Sha256))
            return null;
        if (videos.Count >= MostAttached)
            return new("videos", $"{MostAttached} videos at one discrepancy are the most.");
        videos = [.. videos, video];
        return null;
    }

    /// <summary>What is wrong with it where words are still missing and nothing else tells of it; null for nothing.</summary>
    public Refusal? CheckTold() => IsUnworded && !HasEvidence
        ? new("what", "Say what you found, in a few words, or let a picture, a sound or a video say it.")
        : null;

    /// <summary>Puts in words what a picture, a sound or a video alone told of until now, and classes it by them.</summary>
    /// <param name="what">The words.</param>
    /// <param name="to">The class, and by what right.</param>
    /// <param name="rules">What a class may be set to.</param>
    /// <param name="task">The task it was found at; null in passing.</param>
    public Refusal? PutInWords(string? what, Classing to, ClassRules rules, InspectionTask? task)
    {
        if (!IsUnworded)
            return new("what", "It is put in words already: they stand above.");
        if (Check(what?.Trim() == Unworded ? "" : what, null).FirstOrDefault() is { } wrong)
            return wrong;
        // Whoever found it classes it as if it were just found; anybody else says why it is less. What is settled, and what somebody
        // grounded for what was seen, stays as it is.
        if (!IsOpen || Grounded)
            to = to with { Class = Class, Grounded = Grounded };
        var (less, refusal) = rules.Decide(what!, task, Origin, IsOpen && to.By == FoundBy ? null : Class, to);
        if (refusal is not null)
            return refusal;
        What = what!.Trim();
        Keep(less);
        (Class, Grounded) = (to.Class, to.Grounded && to.Class == DiscrepancyClass.Airworthiness);
        Changes++;
        return null;
    }

    /// <summary>Adds a note, or the owner's question.</summary>
    public Refusal? Add(Guid id, string? words, Guid? by, DateTimeOffset at)
    {
        if (string.IsNullOrWhiteSpace(words) || words.Trim().Length > LongestWords)
            return new("note", $"A note has 1 to {LongestWords} characters.");
        if (notes.Count >= MostAttached)
            return new("note", $"{MostAttached} notes at one discrepancy are the most.");
        notes = [.. notes, new(id, by, at, words.Trim())];
        return null;
    }

    /// <summary>Draws over a picture: what was drawn before is replaced, the picture itself never.</summary>
    /// <param name="sha256">The picture.</param>
    /// <param name="annotations">All that stands on it from now on.</param>
    /// <param name="drawnOn">What stood on it when the drawing began; somebody else's annotations aren't overwritten unseen.</param>
    public Refusal? Draw(string sha256, IReadOnlyList<Annotation> annotations, int drawnOn)
    {
        if (photos.FirstOrDefault(other => other.Sha256 == sha256) is not { } photo)
            return new("annotations", "There is no such picture at this discrepancy.");
        if (drawnOn != Changes)
            return new("annotations",
                "Somebody changed this discrepancy while you were drawing. Yours is still here: load the page anew in another "
                + "tab, look, and draw it again.");
        if (Annotation.Check(annotations, photo) is { } refusal)
            return refusal;
        photos = [.. photos.Select(other => other == photo
            ? photo with { Annotations = annotations.Count == 0 ? null : [.. annotations] }
            : other)];
        Changes++;
        return null;
    }
}
