namespace MellowRivet.Web.Tests.Days;

/// <summary>The moments at which calendars go wrong, and zones in which the shop's day isn't Greenwich's.</summary>
public static class NastyDays
{
    /// <summary>Two in the morning on the second Sunday of March and the first of November: 15 U.S.C. 260a, from memory.</summary>
    private static readonly TimeZoneInfo Central = Zone("test-central", -6, Change(3, 2, 2), Change(11, 1, 2));

    /// <summary>Two in the morning on the last Sundays of March, and three of October: Directive 2000/84/EC, from memory.</summary>
    private static readonly TimeZoneInfo Mainland = Zone("test-mainland", 1, Change(3, 5, 2), Change(10, 5, 3));

    private static readonly TimeZoneInfo FarWest = Zone("test-far-west", -11), FarEast = Zone("test-far-east", 14),
        HalfHour = TimeZoneInfo.CreateCustomTimeZone("test-half", new(5, 30, 0), "half", "half");

    /// <summary>
    /// What the shop's calendar and clock show, and where. Lengths of months are reckoned in Core, and tested there day by day.
    /// </summary>
    public static readonly (string Shown, TimeZoneInfo Zone)[] All =
    [
        ("2028-02-29T23:59:30", FarWest),
        ("2027-03-01T00:00:10", HalfHour),
        ("2026-12-31T23:59:50", FarEast),
        ("2027-03-14T03:30:00", Central), // Half an hour after the clocks went forward: half past two wasn't.
        ("2027-03-28T00:00:10", Mainland),
        ("2027-11-07T01:30:00", Central), // The first of two half past ones.
    ];

    private static TimeZoneInfo Zone(string id, int hours, params TimeZoneInfo.TransitionTime[] changes) =>
        TimeZoneInfo.CreateCustomTimeZone(id, TimeSpan.FromHours(hours), id, id, id,
        changes.Length == 0 ? []
            : [TimeZoneInfo.AdjustmentRule.CreateAdjustmentRule(DateTime.MinValue.Date, DateTime.MaxValue.Date, TimeSpan.FromHours(1),
                changes[0], changes[1])]);

    // The week of 5 is the last one.
    private static TimeZoneInfo.TransitionTime Change(int month, int week, int hour) =>
        TimeZoneInfo.TransitionTime.CreateFloatingDateRule(new(1, 1, 1, hour, 0, 0), month, week, DayOfWeek.Sunday);
}
