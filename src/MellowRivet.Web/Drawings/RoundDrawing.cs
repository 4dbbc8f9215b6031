using MellowRivet.Core.Inspections;

namespace MellowRivet.Web.Drawings;

/// <summary>Where a person stands around the drawing from above for a picture, and which way they look.</summary>
public sealed record Standpoint(Viewpoint From, double X, double Y, int Turn);

/// <summary>The eight standpoints of the walk-round, outside the aircraft, in the box of its drawing.</summary>
public static class RoundDrawing
{
    public static IReadOnlyList<Standpoint> All { get; } =
    [
        new(Viewpoint.Nose, 150, 6, 180), new(Viewpoint.RightFront, 268, 56, 225), new(Viewpoint.RightSide, 308, 140, 270),
        new(Viewpoint.RightRear, 262, 238, 315),
        new(Viewpoint.Tail, 150, 304, 0), new(Viewpoint.LeftRear, 38, 238, 45), new(Viewpoint.LeftSide, -8, 140, 90),
        new(Viewpoint.LeftFront, 32, 56, 135),
    ];
}
