using MellowRivet.Core.Fleet;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Web.Drawings;

/// <summary>A hole on the drawn engine.</summary>
public sealed record DrawnHole(PlugHole Hole, double X, double Y);

/// <summary>A cylinder on the drawn engine.</summary>
public sealed record DrawnCylinder(int Number, double X, double Y, double Width, double Height);

/// <summary>One plug's way as an arrow.</summary>
public sealed record DrawnWay(PlugMove Move, string Path);

/// <summary>
/// An engine from above with its plug holes, the bottom row drawn outboard and hatched, and each plug's way as an arrow that
/// bends out so that two ways between the same cylinders don't lie on each other.
/// </summary>
public sealed class RotationDrawing
{
    public const int Left = 66, Width = 388, RowHeight = 118, Top = 34;
    private const double Middle = 260, CylinderWidth = 150, Inner = 40, Outer = 112, Radius = 15;

    private readonly Dictionary<PlugHole, DrawnHole> places;

    public RotationDrawing(EngineLayout layout, IReadOnlyList<PlugMove> moves)
    {
        var inline = layout.Cylinders.All(place => place.Bank == Bank.Middle);
        Height = Top + layout.Rows * RowHeight + 16;
        var cylinders = new List<DrawnCylinder>();
        var holes = new List<DrawnHole>();
        foreach (var place in layout.Cylinders)
        {
            var shift = layout.RightBankForward ? place.Bank == Bank.Left ? 14 : -10 : 0;
            var middle = Top + (place.Row - 0.5) * RowHeight + shift;
            var side = place.Bank == Bank.Left ? -1 : 1;
            var inboard = inline ? Middle - CylinderWidth / 2 : Middle + side * 34;
            cylinders.Add(new(place.Number, side < 0 ? inboard - CylinderWidth : inboard, middle - 38, CylinderWidth, 76));
            foreach (var (row, along) in new[] { (PlugRow.Top, Inner), (PlugRow.Bottom, Outer) })
                holes.Add(new(new(place.Number, row), inboard + side * along, middle));
        }
        (Cylinders, Holes) = (cylinders, holes);
        places = holes.ToDictionary(hole => hole.Hole);
        Ways = [.. moves.Where(move => move.From != move.To).Select(move => new DrawnWay(move, Way(places[move.From], places[move.To])))];
    }

    public double Height { get; }
    public IReadOnlyList<DrawnCylinder> Cylinders { get; }
    public IReadOnlyList<DrawnHole> Holes { get; }
    public IReadOnlyList<DrawnWay> Ways { get; }

    /// <summary>Where a spot of a sheet stands on the drawing.</summary>
    public (double X, double Y) At(Core.EngineStation.Spot spot) => (Middle + spot.Across * 178, Top + spot.Along * (Height - Top - 16));

    private static string Way(DrawnHole from, DrawnHole to)
    {
        var (dx, dy) = (to.X - from.X, to.Y - from.Y);
        var length = Math.Sqrt(dx * dx + dy * dy);
        var bend = Math.Min(46, length * 0.2);
        var (mx, my) = ((from.X + to.X) / 2 - dy / length * bend, (from.Y + to.Y) / 2 + dx / length * bend);
        var (sx, sy) = Towards(from, mx, my);
        var (ex, ey) = Towards(to, mx, my);
        return FormattableString.Invariant($"M{sx:0.#} {sy:0.#} Q{mx:0.#} {my:0.#} {ex:0.#} {ey:0.#}");
    }

    // Where a way leaves a hole's rim.
    private static (double X, double Y) Towards(DrawnHole hole, double x, double y)
    {
        var length = Math.Max(1, Math.Sqrt(Math.Pow(x - hole.X, 2) + Math.Pow(y - hole.Y, 2)));
        return (hole.X + (x - hole.X) / length * (Radius + 3), hole.Y + (y - hole.Y) / length * (Radius + 3));
    }
}
