using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Discrepancies;

/// <summary>What is drawn over a picture.</summary>
public enum AnnotationKind { Arrow = 1, Ring, Words, Scale, Length, Patch }

/// <summary>A place on a picture, in pixels of the upright original from its top left corner.</summary>
public readonly record struct Spot(double X, double Y)
{
    public double To(Spot other) => Math.Sqrt(((other.X - X) * (other.X - X)) + ((other.Y - Y) * (other.Y - Y)));
}

/// <summary>One thing drawn over a picture.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Points">Its points: an arrow from tail to tip, a ring from its middle to its edge, words at one point, a scale and a length
/// between their ends, a patch round its edge.</param>
/// <param name="Words">The words of it; for a scale, what lies there.</param>
/// <param name="KnownMm">For a scale: the true distance between its ends, mm.</param>
/// <param name="KnownUncertaintyMm">For a scale: the standard uncertainty of that distance, mm.</param>
/// <param name="PickPixels">Standard uncertainty of picking one point, in pixels of the original: it depends on how large the
/// picture stood on the screen.</param>
public sealed record Annotation(AnnotationKind Kind, IReadOnlyList<Spot> Points, string Words = "", double? KnownMm = null,
    double? KnownUncertaintyMm = null, double PickPixels = 2)
{
    public const int MostAnnotations = 60, MostPoints = 200, LongestWords = 80;

    /// <summary>What a drawing is finished with: so many points at least, and no more than so many.</summary>
    public static (int Least, int Most) PointsOf(AnnotationKind kind) => kind switch
    {
        AnnotationKind.Words => (1, 1),
        AnnotationKind.Length => (2, MostPoints),
        AnnotationKind.Patch => (3, MostPoints),
        _ => (2, 2),
    };

    /// <summary>Why annotations can't even be drawn over a picture; null where they can.</summary>
    public static Refusal? CheckDrawn(IReadOnlyList<Annotation> annotations, Photo photo)
    {
        if (annotations.Count > MostAnnotations)
            return new("annotations", $"{annotations.Count} annotations on one picture; {MostAnnotations} is the most.");
        foreach (var annotation in annotations)
        {
            var (least, most) = PointsOf(annotation.Kind);
            if (!Enum.IsDefined(annotation.Kind) || annotation.Points is null || annotation.Points.Count < least
                || annotation.Points.Count > most)
                return new("annotations",
                    $"A {annotation.Kind.InWords()} has {(least == most ? $"{least}" : $"{least} to {most}")} points.");
            if (annotation.Points.Any(point => !(point.X >= 0 && point.X <= photo.Width && point.Y >= 0 && point.Y <= photo.Height)))
                return new("annotations", "A point lies outside the picture.");
            if (annotation.Words is null || annotation.Words.Length > LongestWords)
                return new("annotations", $"Words on a picture: 1 to {LongestWords} characters.");
        }
        return null;
    }

    /// <summary>What is wrong with annotations that were drawn over a picture; null where they can be kept.</summary>
    public static Refusal? Check(IReadOnlyList<Annotation> annotations, Photo photo)
    {
        if (CheckDrawn(annotations, photo) is { } undrawn)
            return undrawn;
        if (annotations.Count(annotation => annotation.Kind == AnnotationKind.Scale) > 1)
            return new("annotations", "One picture has one scale. Take the old one away first.");
        foreach (var annotation in annotations)
        {
            if (annotation.Kind == AnnotationKind.Words && string.IsNullOrWhiteSpace(annotation.Words))
                return new("annotations", $"Words on a picture: 1 to {LongestWords} characters.");
            if (!(annotation.PickPixels is > 0 and <= 500))
                return new("annotations", "How exactly a point was picked lies above 0 and up to 500 pixels.");
            if (annotation.Kind == AnnotationKind.Scale && !annotation.IsKnown)
                return new("known", "Type the true distance between the two ends, above 0 and up to 5,000 mm, and how well it is known.");
            if (annotation.Kind is AnnotationKind.Scale or AnnotationKind.Length && annotation.HasNoLength)
                return new("annotations", $"The ends of the {annotation.Kind.InWords()} lie on one another.");
        }
        return null;
    }

    /// <summary>Whether the true distance of a scale is said, and better known than it is long.</summary>
    internal bool IsKnown =>
        KnownMm is > 0 and <= 5_000 && KnownUncertaintyMm is >= 0 and var off && off < KnownMm && PickPixels is > 0 and <= 500;

    internal bool HasNoLength => Points.Zip(Points.Skip(1)).All(pair => pair.First.To(pair.Second) < 1);
}

/// <summary>A thing of known size to lay beside what is measured.</summary>
/// <param name="Title">What it is.</param>
/// <param name="Mm">Its size, mm; null where it is typed.</param>
/// <param name="UncertaintyMm">Standard uncertainty of it, mm.</param>
/// <param name="Source">Where the size comes from.</param>
public sealed record KnownLength(string Title, double? Mm, double UncertaintyMm, string Source)
{
    /// <summary>What people have in the pocket or under the hand.</summary>
    public static IReadOnlyList<KnownLength> All { get; } =
    [
        new("steel rule, between two of its lines", null, 0.1, "as read; a tenth of a millimetre either way"),
        new("rivet pitch", null, 0.5, "as the drawing says; half a millimetre either way"),
        new("something else of known size", null, 0.5, "as measured; half a millimetre either way"),
        new("US cent, across", 19.05, 0.05, "31 U.S.C. 5112(a)(6), from memory: 0.750 in"),
        new("US quarter dollar, across", 24.26, 0.05, "31 U.S.C. 5112(a)(3), from memory: 0.955 in"),
        new("1 euro, across", 23.25, 0.05, "Regulation (EU) No 729/2014, from memory"),
    ];

    /// <summary>A scale drawn along it.</summary>
    /// <param name="scale">The scale as it was drawn.</param>
    /// <param name="typedMm">The true distance as it was typed, mm; a thing of known size has its own.</param>
    public Annotation Along(Annotation scale, string? typedMm) => scale with
    {
        Words = Title,
        KnownMm = Mm ?? MeasureText.Value(typedMm, Unit.Millimetre),
        KnownUncertaintyMm = UncertaintyMm,
    };
}

public static class AnnotationWords
{
    public static string InWords(this AnnotationKind kind) => kind.ToString().ToLowerInvariant();
}
