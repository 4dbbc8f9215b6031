namespace MellowRivet.Core.Fleet;

/// <summary>Which side of the crankcase a cylinder sits on, seen from above with the propeller at the top.</summary>
public enum Bank { Left = 1, Right, Middle }

/// <summary>One cylinder's place. <paramref name="Row"/> counts from 1 at the propeller end backwards.</summary>
public sealed record CylinderPlace(int Number, Bank Bank, int Row);

/// <summary>
/// How an engine's cylinders stand, how they are numbered and in which order they fire. Numbering differs
/// between engines of one shape, so each numbering is a layout of its own.
/// </summary>
/// <param name="Key">What is stored.</param>
/// <param name="Name">What is shown.</param>
/// <param name="Cylinders">Every cylinder's place, in the order of their numbers.</param>
/// <param name="FiringOrder">Cylinder numbers as they fire.</param>
/// <param name="RightBankForward">True where the right bank stands ahead of the left by half a cylinder (the crank
/// throws need the room).</param>
/// <param name="Geared">True where a reduction gearbox drives the propeller.</param>
public sealed record EngineLayout(
    string Key, string Name, IReadOnlyList<CylinderPlace> Cylinders, IReadOnlyList<int> FiringOrder, bool RightBankForward, bool Geared)
{
    public static readonly EngineLayout FlatFour = new("flat-four", "Flat four, cylinder 1 front right",
        [new(1, Bank.Right, 1), new(2, Bank.Left, 1), new(3, Bank.Right, 2), new(4, Bank.Left, 2)],
        [1, 3, 2, 4], RightBankForward: true, Geared: false);

    public static readonly EngineLayout FlatFourRear = new("flat-four-rear", "Flat four, cylinder 1 rear right",
        [new(1, Bank.Right, 2), new(2, Bank.Left, 2), new(3, Bank.Right, 1), new(4, Bank.Left, 1)],
        [1, 3, 2, 4], RightBankForward: false, Geared: false);

    public static readonly EngineLayout FlatSix = new("flat-six", "Flat six, cylinder 1 front right",
        [new(1, Bank.Right, 1), new(2, Bank.Left, 1), new(3, Bank.Right, 2), new(4, Bank.Left, 2), new(5, Bank.Right, 3),
            new(6, Bank.Left, 3)],
        [1, 4, 5, 2, 3, 6], RightBankForward: true, Geared: false);

    public static readonly EngineLayout GearedFlatFour = new("geared-flat-four", "Geared liquid-cooled flat four",
        [new(1, Bank.Right, 1), new(2, Bank.Left, 1), new(3, Bank.Right, 2), new(4, Bank.Left, 2)],
        [1, 4, 2, 3], RightBankForward: false, Geared: true);

    public static readonly EngineLayout InlineTwoStroke = new("inline-two-stroke", "Inline two-stroke twin",
        [new(1, Bank.Middle, 1), new(2, Bank.Middle, 2)],
        [1, 2], RightBankForward: false, Geared: true);

    /// <summary>Every layout the product draws.</summary>
    public static IReadOnlyList<EngineLayout> All { get; } = [FlatFour, FlatFourRear, FlatSix, GearedFlatFour, InlineTwoStroke];

    /// <exception cref="KeyNotFoundException">No layout has this key.</exception>
    public static EngineLayout Of(string key) => All.FirstOrDefault(layout => layout.Key == key)
        ?? throw new KeyNotFoundException($"No engine layout is called '{key}'.");

    /// <summary>Rows of cylinders, front to back.</summary>
    public int Rows => Cylinders.Max(cylinder => cylinder.Row);
}
