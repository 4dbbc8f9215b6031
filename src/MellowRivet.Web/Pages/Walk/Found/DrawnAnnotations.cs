using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Web.Drawings;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>Something to draw with, as it stands on the page.</summary>
/// <param name="Kind">What it draws.</param>
/// <param name="Key">Its key.</param>
/// <param name="What">What it is for.</param>
/// <param name="How">How it is drawn.</param>
public sealed record DrawingTool(AnnotationKind Kind, string Key, string What, string How)
{
    public static IReadOnlyList<DrawingTool> All { get; } =
    [
        new(AnnotationKind.Arrow, "a", "Arrow", "Drag from the words to what you mean."),
        new(AnnotationKind.Ring, "o", "Ring", "Drag from the middle outward."),
        new(AnnotationKind.Words, "w", "Words", "Touch where the words go, then type them in the list."),
        new(AnnotationKind.Scale, "s", "Scale: two points of known distance",
            "Drag along something of known size, then say how long it is."),
        new(AnnotationKind.Length, "l", "Length: a crack or a gap", "Touch along the crack, point after point; then Finish."),
        new(AnnotationKind.Patch, "t", "Patch: corrosion, a stain", "Touch round the edge, point after point; then Finish."),
    ];
}

/// <summary>What is drawn over a picture, with what it measures.</summary>
/// <param name="Photo">The picture, with its annotations.</param>
/// <param name="MayDraw">Whether its points can be taken hold of.</param>
/// <param name="TypedMm">The scale's true distance as it was typed; null for what is kept.</param>
/// <param name="Problem">What is wrong with it; null for nothing.</param>
public sealed record DrawnAnnotations(Photo Photo, bool MayDraw = false, string? TypedMm = null, string? Problem = null)
{
    public IReadOnlyList<Annotation> Annotations => Photo.Annotations ?? [];

    public Annotation? Scale => Annotations.FirstOrDefault(annotation => annotation.Kind == AnnotationKind.Scale);

    /// <summary>What lies along the scale.</summary>
    public KnownLength Known => KnownLength.All.FirstOrDefault(known => known.Title == Scale?.Words) ?? KnownLength.All[0];

    /// <summary>The scale's true distance in its field: the thing's own, else as it was typed.</summary>
    public string KnownMm => Known.Mm is null && !string.IsNullOrEmpty(TypedMm) ? TypedMm : $"{Scale?.KnownMm:0.###}";

    /// <summary>A width in pixels of the original, as a part of the height of a label's letters.</summary>
    public string Line(double part) => (AnnotationDrawing.Size(Photo) * part).ToString("0.#");
}

/// <summary>What was drawn on a picture before the picture was sent.</summary>
/// <param name="Sha256">The picture.</param>
/// <param name="Annotations">As for a picture that is here.</param>
/// <param name="Known">As for a picture that is here.</param>
/// <param name="KnownMm">As for a picture that is here.</param>
public sealed record DrawnBefore(string? Sha256, string? Annotations, string? Known, string? KnownMm)
{
    /// <summary>Pictures with what was drawn on them; or why it can't stand there.</summary>
    /// <param name="photos">The pictures, as they were taken in.</param>
    /// <param name="sent">What was drawn on some of them, as it was sent.</param>
    public static (IReadOnlyList<Photo> Photos, Refusal? Refusal) On(IReadOnlyList<Photo> photos, IEnumerable<string?> sent)
    {
        List<Photo> drawn = [.. photos];
        foreach (var text in sent)
        {
            if (Read(text) is not { Sha256: { } sha } one || drawn.FindIndex(photo => photo.Sha256 == sha) is not (>= 0 and var at))
                return (photos, new("photos", "What was drawn belongs to none of these pictures. Draw it again once they are here."));
            var (annotations, refusal) = new DrawnForm(one.Annotations, one.Known, one.KnownMm).Read(drawn[at]);
            if ((refusal ?? Annotation.Check(annotations, drawn[at])) is { } wrong)
                return (photos, wrong with { Field = "photos" });
            drawn[at] = drawn[at] with { Annotations = annotations.Count == 0 ? null : annotations };
        }
        return (drawn, null);
    }

    // An empty field is sent as none.
    private static DrawnBefore? Read(string? text)
    {
        try
        {
            return text is { Length: <= DrawnForm.LongestText }
                ? JsonSerializer.Deserialize<DrawnBefore>(text, JsonSerializerOptions.Web)
                : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }
}

/// <summary>What was drawn, as it is sent.</summary>
/// <param name="Annotations">The annotations as JSON: kinds, points and words.</param>
/// <param name="Known">What lies along the scale, by its title.</param>
/// <param name="KnownMm">The scale's true distance as it was typed, mm.</param>
public sealed record DrawnForm(string? Annotations, string? Known, string? KnownMm)
{
    internal const int LongestText = 400_000;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
        MaxDepth = 8,
    };

    public static DrawnForm Of(Photo photo) => new(JsonSerializer.Serialize(photo.Annotations ?? [], Json), null, null);

    /// <summary>The annotations, with the scale as long as the fields say; or why they can't be drawn over a picture.</summary>
    public (IReadOnlyList<Annotation> Annotations, Refusal? Refusal) Read(Photo photo)
    {
        Refusal unreadable = new("annotations", "What was drawn can't be read.");
        if (Annotations is null || Annotations.Length > LongestText)
            return ([], unreadable);
        try
        {
            if (JsonSerializer.Deserialize<List<Annotation?>>(Annotations, Json) is not { } read || read.Contains(null))
                return ([], unreadable);
            var known = KnownLength.All.FirstOrDefault(one => one.Title == Known) ?? KnownLength.All[0];
            List<Annotation> annotations =
                [.. read.Select(annotation => annotation!.Kind == AnnotationKind.Scale ? known.Along(annotation, KnownMm) : annotation)];
            return Annotation.CheckDrawn(annotations, photo) is { } refusal ? ([], refusal) : (annotations, null);
        }
        catch (JsonException)
        {
            return ([], unreadable);
        }
    }
}
