using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Carburettors;

/// <summary>Judges how far two carburettors are apart on the gauges.</summary>
public static class CarburettorBalance
{
    /// <summary>What the manual's limit is filed under.</summary>
    public const string Kind = "carburettor-balance";

    /// <param name="difference">Vacuum difference, inHg, zero or more.</param>
    /// <param name="aircraft">The aircraft, for its manual's limit: there is no usual one.</param>
    public static Judgement Judge(double difference, Aircraft aircraft)
    {
        var (table, unit) = TableOf(aircraft);
        return table.Of(Unit.InchOfMercury.To(unit, difference));
    }

    /// <summary>What the vacuums of one engine's carburettors are judged by together, at least two of them.</summary>
    /// <param name="aircraft">The aircraft, for its manual's limit.</param>
    /// <param name="names">What the table calls each of them.</param>
    public static (JudgementTable Table, Unit Unit) Together(Aircraft aircraft, IReadOnlyList<string> names)
    {
        var (table, unit) = TableOf(aircraft);
        return (table with
        {
            Makes =
            [
                new("most", Making.Most, names), new("least", Making.Least, names),
                new(JudgementTable.Value, Making.Less, ["most", "least"]), .. table.Makes,
            ],
        }, unit);
    }

    /// <summary>What a difference is judged by, with the unit of the limit.</summary>
    public static (JudgementTable Table, Unit Unit) TableOf(Aircraft aircraft)
    {
        if (aircraft.LimitOf(Kind) is not { } own)
            return (JudgementTable.Always(new(Verdict.Unknown, "Apart by {value:0.##} inHg, and no limit is on file",
                new(Standing.Practice, "the manual has the limit"), null,
                "Read the limit in the manual and put it on file; as near as the gauges show is what hands aim for.")), Unit.InchOfMercury);
        var band = new ToleranceBand(Unit.Find(own.UnitSymbol)!, own.Low, own.High, new(Standing.Manual, own.Reference));
        return (band.Table(), band.Unit);
    }
}
