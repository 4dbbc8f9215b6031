using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Core.Inspections;

// One thing found by two people, neither knowing of the other.
public sealed partial class Inspection
{
    /// <summary>Those that may say the same as an earlier one of the fix list, found by somebody else.</summary>
    public IReadOnlyDictionary<Guid, Discrepancy> PerhapsTwins => Recurrence.Twins(Discrepancies);

    /// <summary>The earlier one that one of the fix list may say the same as; null for none.</summary>
    public Discrepancy? PerhapsTwinOf(Discrepancy found) =>
        Recurrence.Twins(Discrepancies.Where(other => other.Place.MayBe(found.Place))).GetValueOrDefault(found.Id);

    /// <summary>Says that two of the fix list are one: what the one tells goes to the other, which stays.</summary>
    /// <param name="found">The one that is looked at.</param>
    /// <param name="twinId">The other; empty for none: they are two.</param>
    /// <param name="by">Who says so.</param>
    /// <param name="at">When.</param>
    public Refusal? SayTwins(Discrepancy found, Guid twinId, Guid by, DateTimeOffset at)
    {
        if (twinId == Guid.Empty)
        {
            found.IsItsOwn();
            return null;
        }
        if (Discrepancies.FirstOrDefault(other => other.Id == twinId && other != found) is not { } twin || !twin.IsOpen || !found.IsOpen)
            return new("twin", "Choose one that is still open on this fix list.");
        // What was written down for a judgement, or left open before, stays: something else hangs on it.
        var (kept, tied) = HangsOn(found) && !HangsOn(twin) ? (found, twin) : (twin, found);
        return HangsOn(tied)
            ? new("twin", "Each of them answers a judgement or an open item of its own: put both right.")
            : tied.TieTo(kept, $"{WorkOrder}-{kept.Number:00}", Terms, by, at) is { } refusal ? refusal with { Field = "twin" } : null;
    }

    private bool HangsOn(Discrepancy found) => found.Origin is not null || found.CarriedFrom is not null || found == JobLine;
}
