using MellowRivet.Core.Inspections;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Tests.Worksheets;

public class TaskPickTests
{
    private static readonly DateOnly Today = new(2026, 11, 23);

    private static TaskPick Pick(string columns, InspectionKind kind, decimal now, decimal? doneAt = null, string? doneOn = null,
        decimal? own = null) => TaskPick.Of(
        [.. columns.Split(", ", StringSplitOptions.RemoveEmptyEntries).Select(column => TaskInterval.Parse(column)!.Value)],
        doneAt is null
            ? null
            : new("s", "t", null, doneAt.Value, DateOnly.Parse(doneOn ?? "2026-06-01", System.Globalization.CultureInfo.InvariantCulture)),
            new(kind, Today, now, own));

    // The cases worked by hand from the rule: its own kind always; else within a tenth of the interval, at most
    // 10 h or 30 days; unknown is due.
    [Theory]
    [InlineData("", InspectionKind.Annual, 1000, null, null, null, true, "a task without columns belongs to every inspection")]
    [InlineData("100 h", InspectionKind.HundredHour, 1100, 1090.0, null, null, true,
        "the column of the inspection's own kind counts whatever was done")]
    [InlineData("annual", InspectionKind.Condition, 1100, 1099.0, "2026-11-01", null, true,
        "a condition inspection stands for the annual column")]
    [InlineData("50 h", InspectionKind.HundredHour, 1100, 1095.0, null, null, false, "done 5 h ago at the 50-hour service")]
    [InlineData("50 h", InspectionKind.HundredHour, 1100, 1055.0, null, null, true, "45 h ago: within a tenth of 50")]
    [InlineData("50 h", InspectionKind.HundredHour, 1100, 1055.1, null, null, false, "44.9 h ago: not yet")]
    [InlineData("200 h", InspectionKind.HundredHour, 1100, 910.0, null, null, true, "190 h ago: within ten hours")]
    [InlineData("200 h", InspectionKind.HundredHour, 1100, 910.1, null, null, false, "189.9 h ago: not yet")]
    [InlineData("500 h", InspectionKind.HundredHour, 1100, 609.0, null, null, true, "491 h ago: ten hours is the most a tenth may be")]
    [InlineData("500 h", InspectionKind.HundredHour, 1100, 611.0, null, null, false, "489 h ago, though within a tenth")]
    [InlineData("200 h", InspectionKind.HundredHour, 1100, 850.0, null, null, true, "overdue")]
    [InlineData("200 h", InspectionKind.HundredHour, 1100, null, null, null, true, "no record is never done")]
    [InlineData("200 h", InspectionKind.HundredHour, 1100, null, null, 150.0, false, "younger than its interval: counts from new")]
    [InlineData("200 h", InspectionKind.HundredHour, 1100, null, null, 190.0, true, "190 h since new")]
    [InlineData("200 h", InspectionKind.HundredHour, 1100, null, null, 260.0, true, "older than its interval and no record")]
    [InlineData("2 years", InspectionKind.HundredHour, 1100, 900.0, "2024-12-23", null, true, "30 days before two years are up")]
    [InlineData("2 years", InspectionKind.HundredHour, 1100, 900.0, "2024-12-24", null, false, "31 days before")]
    [InlineData("2 years", InspectionKind.HundredHour, 1100, 900.0, "2024-11-22", null, true, "a day over")]
    [InlineData("6 months", InspectionKind.Service50, 1100, 900.0, "2026-06-10", null, true,
        "18 days before half a year: a tenth of six months is taken as 18 days")]
    [InlineData("6 months", InspectionKind.Service50, 1100, 900.0, "2026-06-12", null, false, "19 days before")]
    [InlineData("5 years", InspectionKind.Annual, 1100, null, null, 20.0, true, "years since nobody knows when")]
    [InlineData("first 25 h", InspectionKind.Service25, 1022.5, null, null, 22.5, true, "within a tenth of the first 25")]
    [InlineData("first 25 h", InspectionKind.Service25, 1022.4, null, null, 22.4, false, "not yet")]
    [InlineData("first 25 h", InspectionKind.HundredHour, 1040, null, null, 40.0, true, "late, and no record")]
    [InlineData("first 25 h", InspectionKind.HundredHour, 1060, null, null, 60.0, false, "the time for it is past")]
    [InlineData("first 25 h", InspectionKind.HundredHour, 1040, 1025.0, null, 40.0, false, "done once is done")]
    [InlineData("first 25 h", InspectionKind.HundredHour, 1040, 950.0, null, 26.0, true,
        "done before the overhaul: since then it is new again")]
    [InlineData("first 25 h", InspectionKind.HundredHour, 1040, null, null, null, true, "nobody knows how old")]
    [InlineData("50 h, annual", InspectionKind.Annual, 1100, 1095.0, "2026-11-20", null, true, "any column is enough")]
    public void Which_tasks_are_due(string columns, InspectionKind kind, double now, double? doneAt, string? doneOn, double? own, bool due,
        string because) =>
        Pick(columns, kind, (decimal)now, (decimal?)doneAt, doneOn, (decimal?)own).IsDue.ShouldBe(due, because);

    [Fact]
    public void What_falls_due_before_the_next_of_its_kind_is_said()
    {
        Pick("200 h", InspectionKind.HundredHour, 1100, 950).ShouldBe(new(false, true, "200 h: 150 h since it was last done, 50 h to go"));
        Pick("500 h", InspectionKind.HundredHour, 1100, 900).BeforeNext.ShouldBeFalse("300 h to go");
        Pick("2 years", InspectionKind.Annual, 1100, 900,
            "2025-06-01").BeforeNext.ShouldBeTrue("due 2027-06-01, before the annual of 2027-11");
        Pick("2 years", InspectionKind.HundredHour, 1100, 900,
            "2025-06-01").BeforeNext.ShouldBeFalse("hours don't tell when the next 100-hour is");
    }

    [Theory]
    [InlineData("25 h", "25 h")]
    [InlineData(" First 25 H ", "first 25 h")]
    [InlineData("12 months", "annual")]
    [InlineData("24 months", "2 years")]
    [InlineData("1 year", "annual")]
    [InlineData("12.5 h", "12.5 h")]
    public void A_column_is_read_as_hands_write_it(string typed, string column) =>
        TaskInterval.Parse(typed).ShouldNotBeNull().ToString().ShouldBe(column);

    [Theory]
    [InlineData("")]
    [InlineData("0 h")]
    [InlineData("-5 h")]
    [InlineData("often")]
    [InlineData("first annual")]
    [InlineData("1e3 h")]
    [InlineData("999 years")]
    public void Nonsense_is_no_column(string typed) => TaskInterval.Parse(typed).ShouldBeNull();
}
