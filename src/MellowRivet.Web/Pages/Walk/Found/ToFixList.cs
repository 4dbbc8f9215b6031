using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>The way from a bad judgement to the fix list, or to what stands there for it.</summary>
/// <param name="On">The page, with the discrepancies of its inspection.</param>
/// <param name="Key">The judgement's key.</param>
public sealed record ToFixList(WalkView On, string Key)
{
    /// <summary>What is written down for it; null while nothing is.</summary>
    public Discrepancy? Written => On.Job.Inspection.Discrepancies
        .LastOrDefault(found => found.Origin?.Key == Key && found.Disposition != Disposition.Withdrawn);
}
