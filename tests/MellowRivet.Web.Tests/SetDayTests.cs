using System.Globalization;
using MellowRivet.Core;
using MellowRivet.Web.Hosting;

namespace MellowRivet.Web.Tests;

/// <summary>A shop that runs on another day than the machine.</summary>
public class SetDayTests(DemoServer server) : IClassFixture<DemoServer>
{
    [Theory]
    [InlineData("2028-02-29T10:00", "2028-02-29", "10:00")]
    [InlineData("2000-01-01T00:00", "2000-01-01", "00:00")]
    [InlineData("2099-12-31T23:58", "2099-12-31", "23:58")]
    public void A_moment_is_set_by_the_shops_own_clock(string words, string day, string time)
    {
        var clock = SetClock.Read(words)!;
        clock.Today().ToString("yyyy-MM-dd", CultureInfo.InvariantCulture).ShouldBe(day);
        clock.Here(clock.GetUtcNow()).ToString("HH:mm", CultureInfo.InvariantCulture).ShouldBe(time);
    }

    // A day alone is that day at the time of day it is now; a shift of the machine's own midnight in between is allowed for.
    [Fact]
    public void A_day_alone_keeps_the_time_of_day()
    {
        var before = TimeProvider.System.Here(TimeProvider.System.GetUtcNow()).TimeOfDay;
        var set = SetClock.Read("2028-02-29")!;
        var shown = set.Here(set.GetUtcNow()).TimeOfDay;
        var after = TimeProvider.System.Here(TimeProvider.System.GetUtcNow()).TimeOfDay;
        (shown >= before - TimeSpan.FromSeconds(1) && shown <= after + TimeSpan.FromSeconds(1) || after < before)
            .ShouldBeTrue($"{before} {shown} {after}");
    }

    [Theory]
    [InlineData("2027-02-29")]
    [InlineData("29.02.2028")]
    [InlineData("1999-12-31")]
    [InlineData("2100-01-01")]
    [InlineData("2028-02-29T25:00")]
    [InlineData("tomorrow")]
    [InlineData("")]
    public void What_is_no_day_sets_nothing(string words) => SetClock.Read(words).ShouldBeNull();

    [Fact]
    public async Task Each_page_says_so_and_a_stranger_reads_it_too()
    {
        var orla = await server.EnterAsync("orla");
        foreach (var path in new[] { "/", "/due", $"{server.Walk("N04QF")}/close", server.FileOf("N0TWQ"), "/bench/plug" })
            (await orla.ReadAsync(path))
                .QuerySelector(".set-day")!.TextContent.ShouldBe("The day is set to Wednesday 25 November 2026: not today.", path);
        var door = await server.Stranger().ReadAsync("/enter");
        door.QuerySelector(".set-day").ShouldNotBeNull();
        door.QuerySelector("link[media=print][href*=set-day]").ShouldNotBeNull("what is printed says it as well");
        new RivetSettings(server.Data).DayIsSet.ShouldBeFalse("a shop runs on the machine's own day unless it is told otherwise");
    }

    // A browser throws away what has ended by its own clock: someone who entered a shop of last year would stand before the door again.
    [Fact]
    public async Task Who_has_entered_stays_so_by_the_machines_clock()
    {
        var visitor = server.Stranger();
        var entered = await visitor.PostAsync("/enter?handler=As", ("name", "piet"));
        var cookie = entered.Headers.GetValues("Set-Cookie").Single(cookie => cookie.StartsWith("rivet=", StringComparison.Ordinal));
        var ends = DateTimeOffset.Parse(cookie.Split("expires=")[1].Split(';')[0], CultureInfo.InvariantCulture);
        (ends - TimeProvider.System.GetUtcNow()).ShouldBeInRange(TimeSpan.FromHours(13), TimeSpan.FromHours(15));
    }

    // A number below zero is a number; words that a spreadsheet would take for a formula aren't one.
    [Fact]
    public async Task A_table_for_a_spreadsheet_keeps_its_numbers()
    {
        var rows = (await (await (await server.EnterAsync("ines")).GetAsync("/due?handler=Csv")).Content.ReadAsStringAsync()).Split('\n');
        rows.Single(row => row.StartsWith("N0LTS,100-hour", StringComparison.Ordinal)).ShouldContain(",1500,-3.4,");
        rows.ShouldAllBe(row => !row.Contains(",'-", StringComparison.Ordinal) && !row.Contains("\"'-", StringComparison.Ordinal));
    }
}
