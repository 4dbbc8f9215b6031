using FsCheck;
using FsCheck.Fluent;
using Interval = MellowRivet.Core.Due.Interval;
using MellowRivet.Core.Due;
using NodaTime;

namespace MellowRivet.Core.Tests.Due;

public class IntervalTests
{
    // domain: 14 CFR 91.409(a), 91.411, 91.413, from memory: done 2026-03-14, 12 calendar months, good through
    // 2027-03-31; the other way the same day.
    [Theory]
    [InlineData("2026-03-14", 12, CalendarRule.EndOfMonth, "2027-03-31")]
    [InlineData("2026-03-14", 12, CalendarRule.SameDay, "2027-03-14")]
    [InlineData("2026-03-31", 24, CalendarRule.EndOfMonth, "2028-03-31")]
    [InlineData("2026-01-31", 1, CalendarRule.SameDay, "2026-02-28")]
    [InlineData("2028-01-31", 1, CalendarRule.SameDay, "2028-02-29")]
    [InlineData("2024-02-29", 12, CalendarRule.SameDay, "2025-02-28")]
    [InlineData("2024-02-29", 48, CalendarRule.SameDay, "2028-02-29")]
    [InlineData("2023-02-28", 12, CalendarRule.EndOfMonth, "2024-02-29")]
    [InlineData("2026-12-01", 1, CalendarRule.EndOfMonth, "2027-01-31")]
    public void Calendar_months_are_counted_by_the_rule(string done, int months, CalendarRule rule, string due) =>
        Interval.DueDate(Day(done), months, rule).ShouldBe(Day(due));

    // The date library's own calendar, over every day of sixteen years and intervals up to fifty.
    [Fact]
    public void Both_rules_agree_with_a_date_library() => Prop.ForAll(Gen.Choose(0, 16 * 365).ToArbitrary(), Gen.Choose(1, 600)
        .ToArbitrary(), (day, months) =>
    {
        var done = new DateOnly(2019, 3, 1).AddDays(day);
        var theirs = LocalDate.FromDateOnly(done).PlusMonths(months);
        return Interval.DueDate(done, months, CalendarRule.SameDay) == theirs.ToDateOnly()
            && Interval.DueDate(done, months, CalendarRule.EndOfMonth) == theirs.With(DateAdjusters.EndOfMonth).ToDateOnly();
    }).QuickCheckThrowOnFailure();

    [Fact]
    public void Nothing_is_due_before_it_was_done() => Prop.ForAll(Gen.Choose(0, 9_000).ToArbitrary(), Gen.Choose(1, 600)
        .ToArbitrary(), (day, months) =>
    {
        var done = new DateOnly(2010, 1, 1).AddDays(day);
        return Interval.DueDate(done, months, CalendarRule.SameDay) > done
            && Interval.DueDate(done, months, CalendarRule.EndOfMonth) >= Interval.DueDate(done, months, CalendarRule.SameDay);
    }).QuickCheckThrowOnFailure();

    // domain, 14 CFR 91.409(b), from memory: due at 1200.0 and done at 1206.5 is next due at 1300.0; early at 1195.0 at 1295.0.
    // Overflown by more than the ten allowed, it still counts from 1200.0.
    [Theory]
    [InlineData(1206.5, 1200.0, 1300.0)]
    [InlineData(1195.0, 1200.0, 1295.0)]
    [InlineData(1200.0, 1200.0, 1300.0)]
    [InlineData(1210.0, 1200.0, 1300.0)]
    [InlineData(1212.0, 1200.0, 1300.0)]
    public void What_was_overflown_comes_off_the_next_hundred_hours(double done, double wasDue, double next) =>
        Interval.DueHours((decimal)done, 100, (decimal)wasDue).ShouldBe((decimal)next);

    [Theory]
    [InlineData(0.0, null, 0.0, "everyHours")]
    [InlineData(null, 0, 0.0, "everyMonths")]
    [InlineData(null, 601, 0.0, "everyMonths")]
    [InlineData(100.0, null, 100.0, "graceHours")]
    [InlineData(null, 12, 10.0, "graceHours")]
    public void An_interval_that_makes_no_sense_is_refused(double? hours, int? months, double grace, string field) =>
        new Interval((decimal?)hours, months, GraceHours: (decimal)grace).Check().ShouldContain(wrong => wrong.Field == field);

    [Fact]
    public void An_interval_reads_as_people_say_it()
    {
        new Interval(100, GraceHours: 10).InWords().ShouldBe("every 100 h (up to 10 h over, off the next)");
        new Interval(50, 12, CalendarRule.SameDay).InWords().ShouldBe("every 50 h or 1 year to the day");
        new Interval(NotAfter: new DateOnly(2027, 5, 1)).InWords().ShouldBe("not after 2027-05-01");
        new Interval().InWords().ShouldBe("no interval on file");
    }

    // "First at 12,000 h, then every 1,000": done at 5000 it is still first due at 12,000; done at 12,050 the next is at 13,050.
    [Theory]
    [InlineData(null, 12_000)]
    [InlineData(5_000, 12_000)]
    [InlineData(11_900, 12_900)]
    [InlineData(12_050, 13_050)]
    public void What_begins_late_is_first_due_then(int? done, int due)
    {
        var interval = new Interval(EveryHours: 1_000, FirstAtHours: 12_000);
        interval.NextHours(done, null).ShouldBe(due);
        var status = DueStatus.Of(interval, done is { } hours ? new(Hours: hours) : null,
            new(new(2026, 11, 23), new(4_000, new(2026, 11, 23), null)));
        status.Limb(LimbKind.Hours)!.DueAt.ShouldBe(due);
        status.State.ShouldBe(DueState.Ok);
        interval.InWords().ShouldBe("every 1000 h from 12000 h on");
    }

    [Fact]
    public void A_first_time_goes_with_an_interval_in_hours() =>
        new Interval(EveryMonths: 12, FirstAtHours: 100).Check().ShouldHaveSingleItem().Field.ShouldBe("firstAtHours");

    [Theory]
    [InlineData(1, "1 day")]
    [InlineData(731, "731 days")]
    [InlineData(732, "2 years")]
    [InlineData(2_400, "6.6 years")]
    public void Past_two_years_a_span_is_told_in_years(int days, string words) => Spans.OfDays(days).ShouldBe(words);

    [Theory]
    [InlineData(24, "24 months")]
    [InlineData(84, "7 years")]
    public void Months_too(int months, string words) => Spans.OfMonths(months).ShouldBe(words);

    private static DateOnly Day(string text) => DateOnly.ParseExact(text, "yyyy-MM-dd");
}
