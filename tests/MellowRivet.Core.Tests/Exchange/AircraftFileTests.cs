using MellowRivet.Core.Books;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using Microsoft.Extensions.Time.Testing;

namespace MellowRivet.Core.Tests.Exchange;

public class AircraftFileTests
{
    private static readonly DateOnly Today = new(2026, 11, 23);

    private static AircraftFile File()
    {
        var aircraft = Fixture.Aircraft();
        var engine = aircraft.Engines.Single().Component;
        engine.WasOverhauled(new(new DateOnly(2020, 2, 29), null, "release 7"));
        aircraft.TakeOff(aircraft.Cylinder(engine, 2)!.Id, new DateOnly(2026, 1, 1), new Hours(900), "weak");
        aircraft.Fit(new(Guid.NewGuid(), ComponentKind.Cylinder, "C-1", "C-77"), "2", null, new Hours(900), null, engine.Id);
        aircraft.ReadMeter(MeterKind.Tach, new DateOnly(2026, 11, 22), 1.5m, "PO", new(1002m, 0)).ShouldBeNull();
        aircraft.SetLimit(new("oil-pressure", "psi", 55, null, "79-00"));
        aircraft.SetCableTable(new(["aileron-cable-left"], [new(-10, 28), new(15, 38.5)], 2.5, "27-10 p. 5"));
        aircraft.Explain(new(BookKind.Airframe, new DateOnly(2009, 1, 1), new DateOnly(2016, 1, 1), "in a barn", Fixture.Ines));
        var item = new DueItem(Guid.NewGuid(), null, engine.Id, "Overhaul", DueKind.Overhaul, new(2000, 144, CalendarRule.SameDay),
            new(Standing.Manual, "p. 1"));
        item.SetDone(new(new DateOnly(2020, 3, 1), 10.5m, null, null, null, "release 7"), new DateOnly(2026, 11, 23)).ShouldBeNull();
        var book = new LogBook(Guid.NewGuid(), aircraft.Id, BookKind.Airframe, "Volume “1”", new DateOnly(1998, 1, 1), null, false);
        BookEntry[] entries =
        [
            new(Guid.NewGuid(), aircraft.Id, book.Id, new DateOnly(1999, 1, 1), new Hours(61.4m), "Fork bush <replaced> & greased", "3",
                null, Fixture.Ines, Fixture.Now),
            new(Guid.NewGuid(), aircraft.Id, book.Id, null, null, "", "", null, Fixture.Ines, Fixture.Now),
        ];
        BulletinFollowUp[] followUps = [new(Guid.NewGuid(), "ISSUER\nAD-1", null, engine.Id),
            new(Guid.NewGuid(), "ISSUER\nSB-2", aircraft.Id, null)];
        followUps[0]
            .Comply(Bulletins.BulletinFixture.Bulletin("AD-1"),
                new(new DateOnly(2026, 3, 1), 980.5m, "B", "doc 1", true, false, "book, p. 3", Fixture.Ines), Today).ShouldBeNull();
        followUps[1]
            .Decide(Bulletins.BulletinFixture.Line(aircraft,
                Bulletins.BulletinFixture.Bulletin("SB-2", kind: BulletinKind.OptionalBulletin)), PolicyKind.Declined, "no need",
                Fixture.Ines, Fixture.Now).ShouldBeNull();
        return AircraftFile.Of(aircraft, [item], [book], entries, followUps,
            [new(Guid.NewGuid(), null, engine.Id, "certified", "yes", null, Fixture.Ines, Fixture.Now)], Fixture.Clock);
    }

    [Fact]
    public void What_goes_out_comes_back_equal()
    {
        var json = File().ToJson();
        var (read, refusal) = AircraftFile.Read(json, Today);
        refusal.ShouldBeNull();
        var made = read!.Make(Guid.NewGuid(), Fixture.Clock);
        var (aircraft, entries) = (made.Aircraft, made.Entries);
        AircraftFile.Of(aircraft, made.Due, made.Books, entries, made.FollowUps, made.Facts, Fixture.Clock).ToJson().ShouldBe(json);
        made.FollowUps.Single(one => one.ComponentId is not null).Done.Single().Method.ShouldBe("doc 1");
        aircraft.TimeInService.ShouldBe(new Hours(1003.5m));
        aircraft.Cylinder(aircraft.Engines.Single().Component, 2)!.SerialNumber.ShouldBe("C-77");
        entries.ShouldHaveSingleItem("a page that waits for words stays with its picture");
    }

    [Theory]
    [InlineData("\"celsius\": 15", "\"celsius\": -10", "rise in temperature")]
    [InlineData("\"pounds\": 38.5", "\"pounds\": -1", "rise in temperature")]
    [InlineData("\"tolerancePounds\": 2.5", "\"tolerancePounds\": 0", "either side")]
    [InlineData("\"reference\": \"27-10 p. 5\"", "\"reference\": \"\"", "reference")]
    public void A_table_of_tension_that_no_page_could_judge_by_refuses_the_file(string sound, string broken, string says)
    {
        var json = File().ToJson();
        json.ShouldContain(sound);
        AircraftFile.Read(json.Replace(sound, broken), Today).Refusal!.Message.ShouldContain(says);
    }

    // A day that leaves one shop arrives at another as the same day, wherever either stands.
    [Theory]
    [InlineData(-11, 14)]
    [InlineData(14, -11)]
    [InlineData(0, 5)]
    public void Days_stay_what_they_were_in_another_zone(int from, int to)
    {
        var (here, there) = (At(from), At(to));
        var aircraft = Fixture.Aircraft();
        StatedFact fact = new(Guid.NewGuid(), aircraft.Id, null, "made", "1998-04-17", null, Fixture.Ines, Fixture.Now);
        var sent = AircraftFile.Of(aircraft, [], [], [], [], [fact], here);
        var made = AircraftFile.Read(sent.ToJson(), Today.AddDays(1)).File!.Make(Fixture.Ines, there);
        AircraftFile.Of(made.Aircraft, [], [], [], [], made.Facts, there).Facts!.Single().ReadOn.ShouldBe(here.DayOf(Fixture.Now));

        static FakeTimeProvider At(int hours)
        {
            var clock = new FakeTimeProvider(Fixture.Now);
            clock.SetLocalTimeZone(TimeZoneInfo.CreateCustomTimeZone($"test{hours}", TimeSpan.FromHours(hours), "test", "test"));
            return clock;
        }
    }

    [Fact]
    public void A_file_from_before_tables_of_tension_is_taken_in()
    {
        var json = System.Text.Json.Nodes.JsonNode.Parse(File().ToJson())!.AsObject();
        json.Remove("cableTables").ShouldBeTrue();
        AircraftFile.Read(json.ToJsonString(), Today).File!.Make(Guid.NewGuid(), Fixture.Clock).Aircraft.CableTables.ShouldBeEmpty();
    }

    [Fact]
    public void The_shipped_schema_is_that_of_the_types() =>
        System.IO.File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "schemas", "aircraft-1.json")).ShouldBe(AircraftFile.Schema());

    [Theory]
    [InlineData("not json", "can’t be read")]
    [InlineData("{}", "can’t be read")]
    [InlineData("\"version\": 1", "\"version\": 2", "version 2")]
    [InlineData("\"format\": \"mellow-rivet-aircraft\"", "\"format\": \"x\"", "no mellow-rivet-aircraft file")]
    [InlineData("\"version\": 1", "\"version\": 1, \"extra\": 1", "can’t be read")]
    [InlineData("\"shown\": 1000.5", "\"shown\": 1e9", "out of range")]
    [InlineData("\"shown\": 1000.5", "\"shown\": 1004", "runs backwards")]
    [InlineData("\"seats\": 2", "\"seats\": 0", "seats")]
    [InlineData("\"layout\": \"flat-four\"", "\"layout\": \"round-nine\"", "a layout that this program draws")]
    [InlineData("\"removedAt\": 900", "\"removedAt\": -1", "out of range")]
    [InlineData("\"everyMonths\": 144", "\"everyMonths\": 0", "due item")]
    [InlineData("\"registration\": \"N0TST\"", "\"registration\": \"\"", "data plate")]
    public void A_file_that_does_not_hold_together_is_refused_whole(string one, string two, string? says = null)
    {
        var json = says is null ? one : File().ToJson();
        if (says is not null)
            json.ShouldContain(one);
        AircraftFile.Read(says is null ? json : json.Replace(one, two), Today).Refusal!.Message.ShouldContain(says ?? two);
    }

    // What would break a page of the whole shop, not only of this aircraft.
    public static TheoryData<string, Func<AircraftFile, AircraftFile>> Unsound => new()
    {
        { "empty place", file => file with { Parts = [.. file.Parts, null!] } },
        { "empty place", file => file with { Due = [file.Due[0] with { Done = [null!] }] } },
        { "still to come", file => file with { Readings = [.. file.Readings, file.Readings[^1] with { On = DateOnly.MaxValue }] } },
        { "still to come",
            file => file with { Books = [file.Books[0] with { Entries = [file.Books[0].Entries[0] with { On = new(2026, 11, 24) }] }] } },
        { "before 1900", file => file with { Due = [file.Due[0] with { Done = [file.Due[0].Done[0] with { On = new(1066, 10, 14) }] }] } },
        { "another’s id", file => file with { Due = [file.Due[0], file.Due[0]] } },
        { "offset", file => file with { Meters = [.. file.Meters.Select(meter => meter with { Offset = decimal.MaxValue })] } },
        { "unit", file => file with { Limits = [file.Limits[0] with { UnitSymbol = "furlong" }] } },
        { "out of range",
            file => file with { Due = [file.Due[0] with { Done = [file.Due[0].Done[0] with { Hours = decimal.MaxValue }] }] } },
        { "fitted twice",
            file => file with { Parts = [.. file.Parts.Select(part => part with { Stays = [.. part.Stays, .. part.Stays] })] } },
        { "sits on itself",
            file => file with
            {
                Parts = [.. file.Parts.Select(part => part with { Stays = [.. part.Stays.Select(stay => stay with { On = part.Id })] })],
            } },
        { "1950 to 2199", file => file with { Due = [file.Due[0] with { Interval = new(NotAfter: DateOnly.MaxValue) }] } },
    };

    [Theory]
    [MemberData(nameof(Unsound))]
    public void A_file_that_would_break_what_rests_on_it_is_refused(string says, Func<AircraftFile, AircraftFile> spoil) =>
        AircraftFile.Read(spoil(File()).ToJson(), Today).Refusal!.Message.ShouldContain(says);

    [Fact]
    public void A_file_nested_without_end_is_refused() =>
        AircraftFile.Read(string.Concat(Enumerable.Repeat("{\"format\":", 10_000)), Today).Refusal.ShouldNotBeNull();
}
