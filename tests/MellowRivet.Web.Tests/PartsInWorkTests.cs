using System.Net;
using AngleSharp.Dom;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace MellowRivet.Web.Tests;

/// <summary>
/// What an aircraft's file goes through while an inspection of it is in work: an engine off and another on, another
/// category, a part from elsewhere.
/// </summary>
public class PartsInWorkTests(DemoServer server) : IClassFixture<DemoServer>
{
    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private Aircraft Of(string registration) =>
        server.With(db => db.Aircraft.AsNoTracking().WithParts().Single(row => row.Registration == registration));

    private Inspection Work(string registration) =>
        server.With(db => db.Inspections.AsNoTracking().Include(row => row.Tasks).Include(row => row.Discrepancies)
        .Single(row => row.AircraftId == Of(registration).Id && row.State == InspectionState.InWork));

    private IEnumerable<string> PagesOf(Inspection work, Guid engine) =>
    [
        .. new[]
        {
            "", "/arrive", "/bulletins", "/bulletins/status", "/close", "/compressions", $"/compressions/{engine}",
            $"/compressions/{engine}?hours=aircraft", $"/cylinder/{engine}/2", $"/engine-logs/{engine}", "/fix-list", "/find", "/look",
            "/marks", "/labels",
            "/plan", "/plugs", $"/plugs/{engine}", $"/plug-labels/{engine}", $"/pressure-altitude/{engine}", "/fix-list/report", "/tags",
            "/tools", "/engine", "/airframe", "/records",
        },
        .. Enum.GetValues<SheetKind>().Select(kind => $"/engine-sheet/{kind.ToString().ToLowerInvariant()}/{engine}"),
        .. work.Tasks.Select(task => task.ZoneKey).Distinct().Select(zone => $"/engine/{zone}"),
        .. work.Discrepancies.Select(found => $"/fix-list/{found.Number}"),
    ];

    [Fact]
    public async Task An_engine_off_leaves_no_page_broken_and_another_one_is_looked_at_from_the_beginning()
    {
        var ines = await server.EnterAsync("ines");
        var (aircraft, work) = (Of("N0BRM"), Work("N0BRM"));
        var (file, walk, engine) = (server.FileOf("N0BRM"), $"/walk/{work.Id}", aircraft.Engines.Single().ComponentId);
        await server.SaveAsync(db => db.Inspections.Include(row => row.Tasks)
            .Single(row => row.Id == work.Id).Tasks.First(task => task.ComponentId == engine)
            .Set(TaskVerdict.NotApplicable, "not here", null, Guid.NewGuid(), server.Clock.GetUtcNow()).ShouldBeNull());
        (await ines.PostAsync($"{file}/parts?handler=TakeOff", Post(), ("part", $"{engine}"), ("at", $"{aircraft.TimeInService}"),
            ("why", "shock load"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        foreach (var page in PagesOf(work, engine))
            (await ines.GetAsync(walk + page)).StatusCode.ShouldBeOneOf(
                [HttpStatusCode.OK, HttpStatusCode.Redirect, HttpStatusCode.NotFound], page);
        (await ines.GetAsync($"{walk}/plugs/{engine}")).Headers.Location!.OriginalString.ShouldBe($"{walk}/engine",
            "its pages lead to the station, which says so");
        (await ines.ReadAsync($"{walk}/engine")).Body!.TextContent.ShouldContain("No engine is on this aircraft now");
        (await ines.ReadAsync($"{walk}/close")).Body!.TextContent.ShouldContain(
            "came off during this inspection, and nothing is in its place");

        var fresh = Guid.NewGuid();
        (await ines.PostAsync($"{file}/parts?handler=Fit", ("post", $"{fresh}"), ("kind", "Engine"), ("serial", "NEW-1"),
            ("layout", aircraft.Engines.Single().Component.LayoutKey!), ("at", $"{aircraft.TimeInService}"), ("ownTime", "0"),
            ("on", $"{DemoServer.Today:yyyy-MM-dd}"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var now = Work("N0BRM").Tasks.Where(task => work.Tasks.Single(was => was.Id == task.Id).ComponentId == engine).ToList();
        now.ShouldAllBe(task => task.ComponentId == fresh && task.Verdict == TaskVerdict.NotYet);
        foreach (var page in PagesOf(work, fresh))
            (await ines.GetAsync(walk + page)).StatusCode.ShouldBeOneOf(
                [HttpStatusCode.OK, HttpStatusCode.Redirect, HttpStatusCode.NotFound], page);
        (await ines.GetAsync($"{walk}/compressions/{fresh}")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Another_category_is_refused_in_words_where_nobody_could_sign_and_goes_on_where_somebody_can()
    {
        var ines = await server.EnterAsync("ines");
        var (aircraft, work) = (Of("N04QF"), Work("N04QF"));
        var (goesOn, refused) = (0, 0);
        foreach (var category in Enum.GetValues<Category>())
        {
            var answer = await ines.PostAsync($"{server.FileOf("N04QF")}/data-plate", Post(), ("Form.Registration", "N04QF"),
                ("Form.Serial", aircraft.SerialNumber), ("Form.Type", aircraft.Type), ("Form.Category", $"{category}"),
                ("Form.Wing", "Low"), ("Form.Gear", "NoseWheel"), ("Form.Seats", "2"), ("Form.Engines", "1"));
            if (answer.StatusCode == HttpStatusCode.Redirect)
                goesOn++;
            else
            {
                refused++;
                (await Visitor.ParseAsync(answer))
                    .QuerySelector(".field-problem")!.TextContent.ShouldContain($"{work.WorkOrder}, annual inspection, is in work");
            }
            (await ines.GetAsync($"/walk/{work.Id}/close")).StatusCode.ShouldBe(HttpStatusCode.OK, $"{category}");
        }
        (goesOn, goesOn + refused).ShouldBe((1, Enum.GetValues<Category>().Length), "an annual is on standard aircraft alone");

        // A shop's own rules may lose the words: the page says so, and nothing is signed.
        var wordless = Enum.GetValues<Category>()
            .First(category => !server.Services.GetRequiredService<Shelf>().RulesFor(category).HasStatement(work.Kind, category));
        await server.SaveAsync(db => db.Aircraft.Single(row => row.Registration == "N04QF")
            .Describe("N04QF", aircraft.Type, aircraft.SerialNumber, wordless, aircraft.Configuration));
        (await ines.ReadAsync($"/walk/{work.Id}/close")).Body!.TextContent.ShouldContain("has no words to sign annual inspection with");
        await server.SaveAsync(db => db.Aircraft.Single(row => row.Registration == "N04QF")
            .Describe("N04QF", aircraft.Type, aircraft.SerialNumber, aircraft.Category, aircraft.Configuration));
    }

    // Moved to N0TWQ's hangar neighbour and read there: the trend stands on the engine's own hours on either page, and
    // the stay is put right by hand.
    [Fact]
    public async Task A_part_from_another_aircraft_brings_its_trend_and_a_wrong_stay_is_put_right_on_its_page()
    {
        var ines = await server.EnterAsync("ines");
        var (from, to) = (Of("N0FLD"), Of("N0LTS"));
        var engine = from.Engines.Single();
        await server.SaveAsync(db => db.AddRange(Enumerable.Range(0, 4)
            .Select(time => new Reading(Guid.NewGuid(), from.Id, engine.ComponentId, "oil-pressure", "", 60 - time, Unit.Psi, new(),
                new Hours(from.TimeInService.Value - 40 + time * 10), server.Clock.GetUtcNow().AddDays(-40 + time), Guid.NewGuid()))));
        await ines.PostAsync($"{server.FileOf("N0LTS")}/parts?handler=TakeOff", Post(), ("part", $"{to.Engines.Single().ComponentId}"),
            ("at", $"{to.TimeInService}"), ("why", "overhaul"));
        (await ines.PostAsync($"{server.FileOf("N0FLD")}/parts?handler=Move", Post(), ("part", $"{engine.ComponentId}"), ("to", $"{to.Id}"),
            ("why", "lent"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var page = $"{server.FileOf("N0LTS")}/trends?show=all";
        (await ines.ReadAsync(page))
            .QuerySelector("#group-oil-pressure")!.QuerySelectorAll("circle").Length.ShouldBe(4, "read on another aircraft");
        (await ines.ReadAsync($"{page}&hours=aircraft")).QuerySelector("#group-oil-pressure").ShouldBeNull("nothing was read on this one");

        var parts = $"{server.FileOf("N0LTS")}/parts?part={engine.ComponentId}";
        (await ines.ReadAsync(parts))
            .QuerySelectorAll("form[action*='handler=Stay']").Length.ShouldBe(1, "its stay elsewhere is put right there");
        var stay = Of("N0LTS").Fitting(engine.ComponentId)!;
        var refused = await Visitor.ParseAsync(
            await ines.PostAsync($"{server.FileOf("N0LTS")}/parts?handler=Stay", Post(), ("part", $"{engine.ComponentId}"),
                ("stay", $"{stay.Id}"), ("at", "999999"), ("ownTime", "5"),
                ("why", "x")));
        refused.QuerySelector(".stays .field-problem")!.TextContent.ShouldContain("not beyond the aircraft’s");
        refused.QuerySelector(".stays input[name=at]")!.GetAttribute("value").ShouldBe("999999", "what was typed stays");
        (await ines.PostAsync($"{server.FileOf("N0LTS")}/parts?handler=Stay", Post(), ("part", $"{engine.ComponentId}"),
            ("stay", $"{stay.Id}"), ("at", $"{stay.InstalledAt}"), ("ownTime", "2000"),
            ("why", "by its papers"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var put = Of("N0LTS");
        put.Fitting(engine.ComponentId)!.OwnTimeThen.ShouldBe(new Hours(2000));
        put.SittingOn(engine.ComponentId)
            .ShouldAllBe(sits => sits.Component.Kind != ComponentKind.Cylinder
                || sits.OwnTimeThen == new Hours(2000), "its cylinders went along");
    }
}
