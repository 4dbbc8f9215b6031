namespace MellowRivet.Core.Schedule;

/// <summary>Something that was found and whose parts, or whose outside work, took long.</summary>
/// <param name="OfType">It was on an aircraft of the same type; false where it was at the same kind of inspection on another.</param>
/// <param name="ZoneKey">The zone it was found in.</param>
/// <param name="Number">Its number as people say it.</param>
/// <param name="What">What was found.</param>
/// <param name="Waited">What was waited for.</param>
/// <param name="Days">For how many days.</param>
public sealed record SlowFind(bool OfType, string ZoneKey, string Number, string What, string Waited, int Days);

/// <summary>A zone to look into first, and why.</summary>
/// <param name="ZoneKey">The zone.</param>
/// <param name="Days">The longest wait it led to; null where only common practice says so.</param>
/// <param name="Why">Why, in words.</param>
/// <param name="OfType">It was on the same type.</param>
public sealed record LongWait(string ZoneKey, int? Days, string Why, bool OfType = false);

/// <summary>Where long waits are found: looked into first, what is found there can be ordered first.</summary>
public static class LongWaits
{
    /// <summary>A wait of so many days is long: a week of the hangar. The product's own.</summary>
    public const int Long = 7;

    /// <summary>
    /// What usually leads to long waits (domain: "open the tanks, the brakes and the exhaust on day one"): common practice.
    /// </summary>
    private static readonly (string Word, string What)[] Usually =
    [
        ("tank", "tanks"), ("brake disc", "brakes"), ("brake pad", "brakes"), ("brake lines", "brakes"), ("exhaust:", "the exhaust"),
        ("differential compression", "cylinders"),
    ];

    /// <summary>The zones of an inspection to look into first: what led to long waits on this type
    /// first, then what did at this kind of inspection, and common practice after it.</summary>
    /// <param name="tasks">Its tasks: zone and words.</param>
    /// <param name="before">What was found before, and took long.</param>
    public static IReadOnlyList<LongWait> Of(IEnumerable<(string ZoneKey, string Text)> tasks, IReadOnlyList<SlowFind> before) =>
    [
        .. tasks.GroupBy(task => task.ZoneKey).Select(zone =>
        {
            var slow = before.Where(find => find.ZoneKey == zone.Key && find.Days >= Long).ToList();
            if (slow.Exists(find => find.OfType))
                slow = slow.FindAll(find => find.OfType);
            if (slow.MaxBy(find => find.Days) is { } longest)
                return new LongWait(zone.Key, longest.Days,
                    $"{(slow.Count == 1 ? "once" : $"{slow.Count} times")} on "
                    + $"{(longest.OfType ? "this type" : "this kind of inspection")}; "
                    + $"longest {longest.Waited}, {longest.Days} days ({longest.Number}, {longest.What})", longest.OfType);
            var usual = Usually.Where(one => zone.Any(task => task.Text.Contains(one.Word, StringComparison.OrdinalIgnoreCase)))
                .Select(one => one.What).Distinct().ToList();
            return new LongWait(zone.Key, null, usual.Count == 0 ? ""
                : $"{string.Join(", ", usual)}: common practice, their parts are slow");
        }).Where(zone => zone.Why.Length > 0).OrderByDescending(zone => zone.OfType).ThenByDescending(zone => zone.Days ?? 0),
    ];
}
