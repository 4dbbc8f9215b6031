using System.Text.Json.Serialization;

namespace MellowRivet.Core.Discrepancies;

/// <summary>A picture. The original is kept by its SHA-256 and never changed; what is drawn on it stands beside it as vectors.</summary>
/// <param name="Sha256">Lower-case hex of the original file's SHA-256, which is also its name on disk.</param>
/// <param name="Width">Width in pixels, upright.</param>
/// <param name="Height">Height in pixels, upright.</param>
/// <param name="TakenAt">When the camera says it was taken, in the camera's own clock; null where it doesn't say.</param>
/// <param name="AddedAt">When it reached the shop.</param>
/// <param name="Annotations">Arrows, rings, words and measures drawn over it; null for none.</param>
public sealed record Photo(string Sha256, int Width, int Height, DateTime? TakenAt, DateTimeOffset AddedAt,
    [property: JsonPropertyName("marks")] IReadOnlyList<Annotation>? Annotations = null)
{
    /// <summary>Pictures that the camera took no further apart than this are one burst; the product's own choice.</summary>
    public static readonly TimeSpan BurstGap = TimeSpan.FromSeconds(2);

    /// <summary>The same pictures, those of one burst together, in the order they were added.</summary>
    public static IReadOnlyList<IReadOnlyList<Photo>> Bursts(IEnumerable<Photo> photos)
    {
        List<List<Photo>> bursts = [];
        foreach (var photo in photos)
            if (bursts.LastOrDefault() is { } burst && photo.TakenAt is { } taken && burst[^1].TakenAt is { } before
                && (taken - before).Duration() <= BurstGap)
                burst.Add(photo);
            else
                bursts.Add([photo]);
        return bursts;
    }

    /// <summary>What is measured on it, in the order it was drawn; empty without a scale.</summary>
    public IReadOnlyList<Measured> Measured => PhotoScale.Of(Annotations ?? []) is { } scale
        ? [.. Annotations!.Where(annotation => annotation.Kind is AnnotationKind.Length or AnnotationKind.Patch).Select(scale.Measure)]
        : [];
}

/// <summary>Something heard, kept as the device recorded it: a pulley that clicks, a gyro that rumbles.</summary>
/// <param name="Sha256">Lower-case hex of the file's SHA-256, which is also its name on disk.</param>
/// <param name="Type">Its media type, as its first bytes say.</param>
/// <param name="AddedAt">When it reached the shop.</param>
public sealed record Sound(string Sha256, string Type, DateTimeOffset AddedAt);

/// <summary>Something that moves, kept as the device recorded it: a cable that slaps, a pulley that clicks.</summary>
/// <param name="Sha256">Lower-case hex of the file's SHA-256, which is also its name on disk.</param>
/// <param name="Type">Its media type, as its content says.</param>
/// <param name="Seconds">How long it runs, s, as its content says.</param>
/// <param name="AddedAt">When it reached the shop.</param>
public sealed record Video(string Sha256, string Type, double Seconds, DateTimeOffset AddedAt)
{
    /// <summary>The longest that is taken, s: long enough for a control from stop to stop and back.</summary>
    public const double LongestSeconds = 30;
}

/// <summary>A short note, or a question and its answer.</summary>
/// <param name="Id">Its id.</param>
/// <param name="By">Who wrote it; null for the owner, through the owner's page.</param>
/// <param name="At">When.</param>
/// <param name="Words">The words.</param>
public sealed record Note(Guid Id, Guid? By, DateTimeOffset At, string Words);
