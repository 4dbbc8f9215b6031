using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Due;

/// <summary>When something that is watched is looked at again: by a day, within hours, or whichever comes first.</summary>
/// <param name="Interval">The interval, once.</param>
public sealed record Watch(Interval Interval)
{
    private const int LongestWhat = 100, LastYear = 2199;

    /// <summary>The watch as it is typed, or what is wrong with it.</summary>
    public static (Watch? Watch, Refusal? Refusal) Read(DateOnly? by, string? hours, DateOnly today)
    {
        var within = TypedNumber.ParseHours(hours);
        return (by is null && within is null) || by <= today || by is { Year: > LastYear } || within is { Value: 0 }
            || (within is null && !string.IsNullOrWhiteSpace(hours))
            ? (null, new("watch", "A day to come, hours from now, or both: whichever comes first."))
            : (new(new Interval(EveryHours: within?.Value, NotAfter: by)), null);
    }

    /// <summary>A due item for a discrepancy that nobody watches yet.</summary>
    public DueItem Of(Discrepancy found, Guid aircraftId, string workOrder) =>
        new(Guid.CreateVersion7(), aircraftId, null, "", DueKind.Watch, Interval, SourceOf(found, workOrder)) { DiscrepancyId = found.Id };

    /// <summary>Watches from now on: the item says what is looked at, and counts from here.</summary>
    /// <param name="item">The due item.</param>
    /// <param name="found">The discrepancy.</param>
    /// <param name="workOrder">The work order it was found at.</param>
    /// <param name="timeInService">The aircraft's time in service now.</param>
    /// <param name="today">The day.</param>
    public Refusal? Begin(DueItem item, Discrepancy found, string workOrder, Hours timeInService, DateOnly today)
    {
        var what = found.What.Length > LongestWhat ? found.What[..LongestWhat] + "…" : found.What;
        item.Change($"Look again: {what}", Interval, SourceOf(found, workOrder), item.LabourHours);
        return item.SetDone(new(today, timeInService.Value, null, null, null, workOrder), today);
    }

    private static RuleSource SourceOf(Discrepancy found, string workOrder) =>
        new(Standing.Practice, $"watched since {workOrder}-{found.Number:00}");
}
