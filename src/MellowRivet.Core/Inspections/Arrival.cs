using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Core.Inspections;

/// <summary>Where a person stands to photograph the aircraft as it came in, walking round it clockwise from the nose.</summary>
public enum Viewpoint { Nose = 1, RightFront, RightSide, RightRear, Tail, LeftRear, LeftSide, LeftFront }

/// <summary>A picture of the walk-round.</summary>
public sealed record RoundPhoto(Viewpoint From, Photo Photo, Guid By, DateTimeOffset At);

/// <summary>Damage that was there before anything was touched, pinned on the drawing.</summary>
/// <param name="Id">Its id.</param>
/// <param name="X">Place on the drawing from above, 0 to 300 from the left wing tip to the right.</param>
/// <param name="Y">The same from nose to tail.</param>
/// <param name="What">What it is, in words.</param>
/// <param name="By">Who saw it.</param>
/// <param name="At">When.</param>
public sealed record DamagePin(Guid Id, double X, double Y, string What, Guid By, DateTimeOffset At);

/// <summary>What is on board and in the aircraft.</summary>
/// <param name="Fuel">Fuel on board, as gauged or dipped.</param>
/// <param name="Oil">Oil on the stick.</param>
/// <param name="LeftInside">What the owner left in the aircraft, or that it is empty.</param>
/// <param name="By">Who looked.</param>
/// <param name="At">When.</param>
public sealed record OnBoard(string Fuel, string Oil, string LeftInside, Guid By, DateTimeOffset At);

/// <summary>Which books and papers were brought.</summary>
/// <param name="Brought">Those of the aircraft's books that are here.</param>
/// <param name="Missing">What should be here and isn't, in words; may be empty.</param>
/// <param name="By">Who looked them through.</param>
/// <param name="At">When.</param>
public sealed record BooksBrought(IReadOnlyList<Guid> Brought, string Missing, Guid By, DateTimeOffset At);

/// <summary>How the aircraft came in.</summary>
public sealed record Arrival(IReadOnlyList<RoundPhoto> Round, IReadOnlyList<DamagePin> CameInWith, OnBoard? OnBoard, BooksBrought? Books)
{
    public static readonly Arrival Empty = new([], [], null, null);

    /// <summary>Viewpoints that have a picture.</summary>
    public int Seen => Round.Select(photo => photo.From).Distinct().Count();

    /// <summary>The first viewpoint without a picture; the nose where all have one.</summary>
    public Viewpoint NextView => Enum.GetValues<Viewpoint>().Cast<Viewpoint?>()
        .FirstOrDefault(view => Round.All(photo => photo.From != view)) ?? Viewpoint.Nose;
}

/// <summary>A complaint of the owner's, in the owner's words, and what the shop found.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Number">Its number, from 1.</param>
/// <param name="Words">The owner's words.</param>
/// <param name="By">Who wrote it down.</param>
/// <param name="At">When.</param>
/// <param name="Answer">What the shop says to it; null until it is answered.</param>
/// <param name="AnsweredBy">Who answered.</param>
/// <param name="AnsweredAt">When.</param>
public sealed record Squawk(Guid Id, int Number, string Words, Guid By, DateTimeOffset At, string? Answer = null, Guid? AnsweredBy = null,
    DateTimeOffset? AnsweredAt = null)
{
    public bool IsAnswered => Answer is not null;
}

public static class ViewpointWords
{
    public static string InWords(this Viewpoint from) => from switch
    {
        Viewpoint.Nose => "nose",
        Viewpoint.RightFront => "right, from ahead",
        Viewpoint.RightSide => "right side",
        Viewpoint.RightRear => "right, from behind",
        Viewpoint.Tail => "tail",
        Viewpoint.LeftRear => "left, from behind",
        Viewpoint.LeftSide => "left side",
        _ => "left, from ahead",
    };
}
