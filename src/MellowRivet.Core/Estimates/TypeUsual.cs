using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Core.Estimates;

/// <summary>Something found on an aircraft of a type.</summary>
/// <param name="AircraftId">The aircraft.</param>
/// <param name="Place">Where: the task it was found at, else the zone.</param>
/// <param name="PlaceWords">Where, in words.</param>
/// <param name="What">What was found.</param>
/// <param name="How">How it was found.</param>
/// <param name="Hours">The aircraft's time in service then.</param>
public sealed record SisterFind(Guid AircraftId, string Place, string PlaceWords, string What, FoundHow How, decimal Hours);

/// <summary>A place where aircraft of a type had findings.</summary>
/// <param name="Words">Where.</param>
/// <param name="Aircraft">On how many aircraft.</param>
/// <param name="Of">Of how many that were inspected here.</param>
/// <param name="FirstAt">The fewest hours at which an aircraft had it.</param>
/// <param name="LastAt">The most hours at which one had it for the first time.</param>
/// <param name="Look">The look it calls for: how it was mostly found.</param>
/// <param name="Latest">What was found there last.</param>
public sealed record UsualPlace(string Words, int Aircraft, int Of, decimal FirstAt, decimal LastAt, FoundHow Look, string Latest);

/// <summary>What aircraft of a type usually have, from what this shop found on sister aircraft.</summary>
public static class TypeUsual
{
    /// <summary>Under so many aircraft nothing is said.</summary>
    public const int FewestAircraft = 3;

    // One aircraft alone makes nothing usual.
    private const int FewestHaving = 2;

    /// <summary>The places where sister aircraft had findings, on most of them first; none under three aircraft.</summary>
    /// <param name="finds">What was found on them, but for what was withdrawn and known marks.</param>
    /// <param name="inspected">Sister aircraft that were inspected here.</param>
    public static IReadOnlyList<UsualPlace> Of(IEnumerable<SisterFind> finds, int inspected) => inspected < FewestAircraft ? [] :
    [
        .. finds.GroupBy(find => find.Place).Select(place =>
            {
                var firsts = place.GroupBy(find => find.AircraftId).Select(aircraft => aircraft.Min(find => find.Hours)).ToList();
                var latest = place.MaxBy(find => find.Hours)!;
                return new UsualPlace(latest.PlaceWords, firsts.Count, inspected, firsts.Min(), firsts.Max(),
                    place.GroupBy(find => find.How).OrderByDescending(how => how.Count()).ThenBy(how => how.Key).First().Key, latest.What);
            })
            .Where(place => place.Aircraft >= FewestHaving).OrderByDescending(place => place.Aircraft).ThenBy(place => place.FirstAt),
    ];
}
