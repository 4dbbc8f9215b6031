using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Fleet;

/// <summary>
/// The own hours of one part, over all its stays on any aircraft. A stay whose own time nobody knows goes on where the one before
/// it ended, or ends where the one after it began; where no stay is known, hours are counted on from the first aircraft's own.
/// </summary>
public sealed class PartHours
{
    private readonly List<(Installation Stay, decimal From)> stays;

    /// <param name="stays">Every stay of one part, on any aircraft, in any order.</param>
    public PartHours(IEnumerable<Installation> stays)
    {
        var inTurn = InTurn(stays);
        var known = inTurn.TakeWhile(stay => stay.OwnTimeThen is null).Count() is var unknown && unknown < inTurn.Count ? unknown : -1;
        IsKnown = known >= 0;
        var from = new decimal[inTurn.Count];
        for (var index = Math.Max(known, 0); index < inTurn.Count; index++)
            from[index] = inTurn[index].OwnTimeThen?.Value
                ?? (index == 0 ? inTurn[0].InstalledAt.Value : from[index - 1] + Flown(inTurn[index - 1]));
        for (var index = known - 1; index >= 0; index--)
            from[index] = from[index + 1] - Flown(inTurn[index]);
        this.stays = [.. inTurn.Zip(from)];
    }

    /// <summary>Some stay says what the part had run; else its hours are counted on from its first aircraft's.</summary>
    public bool IsKnown { get; }

    /// <summary>The part's hours at a time in service of an aircraft; null where it was never on that aircraft.</summary>
    /// <param name="aircraftId">The aircraft.</param>
    /// <param name="aircraftTime">Its time in service.</param>
    /// <param name="at">The instant, which tells two stays at the same hours apart.</param>
    public Hours? At(Guid aircraftId, Hours aircraftTime, DateTimeOffset at)
    {
        var here = stays.Where(one => one.Stay.AircraftId == aircraftId).ToList();
        if (here.Count == 0)
            return null;
        var within = here.Where(one => one.Stay.InstalledAt <= aircraftTime && (one.Stay.RemovedAt is not { } end || aircraftTime <= end))
            .ToList();
        var (stay, from) = within.Where(one => MayHold(one.Stay, at)).DefaultIfEmpty(within.LastOrDefault())
            .Last() is { Stay: not null } there ? there
            // Read before it was fitted or after it came off, as far as the file says: by the stay that is nearest.
            : here.MinBy(one => Math.Min(Math.Abs(one.Stay.InstalledAt.Value - aircraftTime.Value),
                Math.Abs((one.Stay.RemovedAt?.Value ?? decimal.MaxValue) - aircraftTime.Value)));
        var until = stay.RemovedAt is { } off && off < aircraftTime ? off : aircraftTime;
        return new(Math.Clamp(from + until.Value - stay.InstalledAt.Value, 0, 999_999));
    }

    // A stay has days, a reading an instant: a day either way leaves room for any time zone.
    private static bool MayHold(Installation stay, DateTimeOffset at) =>
        (stay.InstalledOn is not { } on || on.AddDays(-1).ToDateTime(TimeOnly.MinValue) <= at.UtcDateTime)
            && (stay.RemovedOn is not { } off || at.UtcDateTime < off.AddDays(2).ToDateTime(TimeOnly.MinValue));

    /// <summary>The stay that a day falls into, by the days on file; null where none says so.</summary>
    public Installation? StayOn(DateOnly day) =>
        stays.Select(one => one.Stay)
            .LastOrDefault(stay => stay.InstalledOn is { } on && on <= day && (stay.RemovedOn is not { } off || day <= off)
                && (stay.IsOn || stay.RemovedOn is not null));

    /// <summary>Stays of one part, the earliest first.</summary>
    public static IReadOnlyList<Installation> InTurn(IEnumerable<Installation> stays) =>
        [.. stays.OrderBy(stay => stay.IsOn).ThenBy(stay => stay.InstalledOn ?? DateOnly.MinValue)
            .ThenBy(stay => stay.OwnTimeThen?.Value ?? 0).ThenBy(stay => stay.InstalledAt.Value)];

    private static decimal Flown(Installation stay) => stay.RemovedAt is { } off ? Math.Max(0, off.Value - stay.InstalledAt.Value) : 0;
}
