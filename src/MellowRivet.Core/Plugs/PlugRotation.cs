using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.Plugs;

/// <summary>The schools of rotating plugs.</summary>
public enum RotationPattern { NextInFiringOrder = 1, SwapPairs }

/// <summary>One plug's way.</summary>
public sealed record PlugMove(PlugHole From, PlugHole To);

/// <summary>Where every plug goes, and what to mind.</summary>
public sealed record RotationPlan(IReadOnlyList<PlugMove> Moves, IReadOnlyList<string> Warnings);

/// <summary>
/// Rotating plugs between holes, so that each changes row (bottom plugs foul) and polarity (positive and negative firings wear
/// different electrodes; polarity alternates along the firing order). Common practice.
/// </summary>
public static class PlugRotation
{
    /// <summary>What a mixed ignition's placard says, for the cowling and beside the tray.</summary>
    public const string Placard = "Mixed ignition: magneto plugs and electronic plugs look alike and are not. Plugs stay in their row.";

    /// <summary>Plans a rotation.</summary>
    /// <param name="firingOrder">Every cylinder's number once, as they fire.</param>
    /// <param name="pattern">Which school.</param>
    /// <param name="ignition">What fires each row; null where nobody has said, taken as the same for both.</param>
    /// <returns>The plan, or why this engine can't take the pattern.</returns>
    public static (RotationPlan? Plan, Refusal? Refusal) Plan(IReadOnlyList<int> firingOrder, RotationPattern pattern,
        Ignition? ignition = null)
    {
        if (!firingOrder.Order().SequenceEqual(Enumerable.Range(1, firingOrder.Count)))
            return (null, new("firingOrder", "Each cylinder once, from 1 on."));
        if (firingOrder.Count % 2 != 0 || firingOrder.Count < 2)
            return (null, new("cylinders",
                "Polarity alternates along the firing order, so plugs rotate on an engine with an even number of cylinders."));
        if (pattern == RotationPattern.SwapPairs && firingOrder.Count != 4)
            return (null, new("pattern", "Swapping pairs is a rotation of fours: 1 with 4, 2 with 3. Use the next in firing order."));
        var mixed = ignition is { IsMixed: true };
        var partners = pattern == RotationPattern.SwapPairs ? Pairs : Next(firingOrder);
        if (partners.Any(pair => PolarityOf(firingOrder, pair.Key) == PolarityOf(firingOrder, pair.Value)))
            return (null, new("pattern",
                $"With firing order {string.Join("-",
                    firingOrder)} this swap leaves plugs on their polarity. Use the next in firing order."));
        var moves =
            from cylinder in firingOrder.Order()
            from row in new[] { PlugRow.Top, PlugRow.Bottom }
            let to = new PlugHole(partners[cylinder], row)
            select new PlugMove(new(cylinder, row), mixed ? to : to.Across);
        return (new([.. moves], mixed ? [Placard, "Each plug changes polarity only; fouling stays with the bottom row."] : []), null);
    }

    /// <summary>True for one polarity, false for the other: it alternates along the firing order.</summary>
    public static bool PolarityOf(IReadOnlyList<int> firingOrder, int cylinder) =>
        firingOrder.TakeWhile(number => number != cylinder).Count() % 2 == 0;

    private static readonly Dictionary<int, int> Pairs = new() { [1] = 4, [4] = 1, [2] = 3, [3] = 2 };

    private static Dictionary<int, int> Next(IReadOnlyList<int> firingOrder) =>
        firingOrder.Zip(firingOrder.Skip(1).Append(firingOrder[0])).ToDictionary(pair => pair.First, pair => pair.Second);
}
