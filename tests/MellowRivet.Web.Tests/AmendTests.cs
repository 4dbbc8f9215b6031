using System.Net;
using MellowRivet.Core.Amendments;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Records;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>What stood in a file wrong: struck with who, when and why, replaced, and what rests on it reckoned anew.</summary>
public sealed class AmendTests(DemoServer server) : IClassFixture<DemoServer>
{
    private static (string, string) Post => ("post", $"{Guid.NewGuid()}");

    private Aircraft Of(string registration) => server.With(db => db.Aircraft.AsNoTracking().WithParts().Include(row => row.MeterReadings)
        .Single(row => row.Registration == registration));

    private IReadOnlyList<Amendment> Amended(string registration) =>
        server.With(db => db.AmendmentsOfAsync(Of(registration).Id, default).GetAwaiter().GetResult());

    [Fact]
    public async Task A_mistyped_meter_is_put_right_with_all_that_rested_on_it()
    {
        var ines = await server.EnterAsync("ines");
        var (before, file) = (Of("N04QF"), server.FileOf("N04QF"));
        var wrong = before.MeterReadings.Where(reading => reading.Kind == before.TimeBasis).MaxBy(reading => (reading.On, reading.Total))!;
        var inspection = server.With(db => db.Inspections.AsNoTracking().Single(row => row.AircraftId == before.Id
            && row.State == InspectionState.InWork));
        inspection.TimeInService.ShouldBe(before.TimeInService);
        var shown = wrong.Shown - 0.4m;

        Task<HttpResponseMessage> AmendAsync(params (string, string)[] more) => ines.PostAsync($"{file}/times?handler=Amend",
            [Post, ("subject", $"{wrong.Id}"), ("on", $"{wrong.On:yyyy-MM-dd}"), .. more]);
        var refused = await Visitor.ParseAsync(await AmendAsync(("value", $"{shown}"), ("why", "")));
        refused.QuerySelector(".amend[open] .field-problem")!.TextContent.ShouldContain("Say what was wrong");
        refused.QuerySelector(".amend[open] input[name=value]")!.GetAttribute("value").ShouldBe($"{shown}", "what was typed stays");
        (await Visitor.ParseAsync(await AmendAsync(("value", "4,318"), ("why", "x")))).QuerySelector(".amend[open] .field-problem")!
            .TextContent.ShouldContain("4318 or 4.318?");
        (await Visitor.ParseAsync(await AmendAsync(("value", "12"), ("why", "x")))).QuerySelector(".amend[open] .field-problem")!
            .TextContent.ShouldContain("runs backwards");
        Of("N04QF").TimeInService.ShouldBe(before.TimeInService, "what was refused changes nothing");

        (await AmendAsync(("value", $"{shown}"), ("why", "Tenths misread"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var now = new Hours(before.TimeInService.Value - 0.4m);
        Of("N04QF").TimeInService.ShouldBe(now);
        server.With(db => db.Inspections.AsNoTracking().Single(row => row.Id == inspection.Id)).TimeInService.ShouldBe(now);
        server.With(db => db.Readings.AsNoTracking().Where(row => row.InspectionId == inspection.Id).Select(row => row.TimeInService)
            .Distinct().ToList()).ShouldBe([now]);
        var page = (await ines.ReadAsync($"{file}/times")).QuerySelector(".amended")!;
        page.QuerySelector("del")!.TextContent.ShouldContain($"{wrong.Shown:0.0} h");
        page.TextContent.ShouldContain("Tenths misread");
        page.TextContent.ShouldContain("Ines Calloway");
        page.TextContent.ShouldContain("1 inspection in work");
    }

    [Fact]
    public async Task The_only_reading_of_a_meter_is_not_struck_alone()
    {
        var (ines, file) = (await server.EnterAsync("ines"), server.FileOf("N0FLD"));
        await ines.PostAsync($"{file}/times?handler=Read", Post, ("kind", nameof(MeterKind.Cycles)), ("on", "2026-05-01"),
            ("shown", "812"));
        var lonely = Of("N0FLD").MeterReadings.Single(reading => reading.Kind == MeterKind.Cycles);
        (await Visitor.ParseAsync(await ines.PostAsync($"{file}/times?handler=Amend", Post, ("subject", $"{lonely.Id}"), ("strike", "true"),
            ("why", "no such meter")))).Body!.TextContent.ShouldContain("put the figure right instead");
        Amended("N0FLD").ShouldBeEmpty();
    }

    [Fact]
    public async Task A_value_that_was_signed_is_put_right_and_its_record_stays_and_says_so()
    {
        var ines = await server.EnterAsync("ines");
        var aircraft = Of("N04QF");
        var signed = server.With(db => db.Readings.AsNoTracking().AsEnumerable().Where(row => row.AircraftId == aircraft.Id
            && row.Kind == Reading.CompressionKind && db.SignedRecords.Any(record => record.InspectionId == row.InspectionId))
            .MaxBy(row => row.At)!);
        var (page, records) = ($"/aircraft/{aircraft.Id}/value/{signed.Id}", $"/walk/{signed.InspectionId}/records");
        var text = (await ines.ReadAsync(records)).QuerySelector(".entry .statement")!.TextContent;

        (await Visitor.ParseAsync(await ines.PostAsync(page, Post, ("value", "96"), ("why", "x")))).QuerySelector(".field-problem")!
            .TextContent.ShouldContain("above the supply");
        (await (await server.EnterAsync("tamsin")).PostAsync(page, Post, ("value", "70"), ("why", "x"))).StatusCode
            .ShouldBe(HttpStatusCode.Forbidden);
        (await ines.PostAsync(page, Post, ("value", "70.5"), ("why", "Read off the supply gauge"))).StatusCode
            .ShouldBe(HttpStatusCode.Redirect);
        server.With(db => db.Readings.AsNoTracking().Single(row => row.Id == signed.Id)).Value.ShouldBe(70.5);

        var after = await ines.ReadAsync(records);
        after.QuerySelector(".put-right-since")!.TextContent.ShouldContain("Read off the supply gauge");
        after.QuerySelector(".entry .statement")!.TextContent.ShouldBe(text, "what was signed stays as it was signed");
        var verified = server.With(db => Store.ShopDatabase.VerifyAsync(db, server.Data, default).Result);
        (verified.Fault, verified.Notes.Single(note => note.Contains("in the open"))).ShouldBe(
            (null, "readings put right in the open since they were signed: 2"));
    }

    [Fact]
    public async Task A_signed_value_that_is_bad_as_put_right_is_open_on_the_aircraft_and_on_the_list_in_work()
    {
        var (orla, aircraft) = (await server.EnterAsync("orla"), Of("N0BRM"));
        var signed = server.With(db => db.Readings.AsNoTracking().AsEnumerable().Where(row => row.AircraftId == aircraft.Id
            && row.Kind == Reading.CompressionKind && db.SignedRecords.Any(record => record.InspectionId == row.InspectionId))
            .MaxBy(row => row.At)!);
        var page = $"/aircraft/{aircraft.Id}/value/{signed.Id}";
        int Open() => server.With(db => db.OpenItemsAsync(aircraft.Id, default).GetAwaiter().GetResult()).Count;
        var before = Open();
        await orla.PostAsync(page, Post, ("value", $"{signed.Value - 0.5}"), ("why", "Needle between two marks"));
        Open().ShouldBe(before, "good before, and good after");

        await orla.PostAsync(page, Post, ("value", "15"), ("why", "Figure of the other cylinder"));
        var shown = await orla.ReadAsync(page);
        shown.QuerySelector(".middle a[href*='#item-']")!.TextContent.ShouldEndWith("-R1");
        shown.QuerySelector(".amended")!.TextContent.ShouldContain("bad as it stands, open as");
        var item = server.With(db => db.OpenItemsAsync(aircraft.Id, default).GetAwaiter().GetResult())
            .Single(one => one.DiscrepancyId == signed.Id);
        item.Because.ShouldBe(OpenBecause.Airworthiness);
        item.What.ShouldContain("15/80");
        item.FirstNumber.ShouldEndWith("-R1");
        (await orla.ReadAsync($"{server.FileOf("N0BRM")}/open-items")).GetElementById($"item-{item.FirstNumber}").ShouldNotBeNull();
        var listed = server.With(db => db.Discrepancies.AsNoTracking().Single(found => found.CarriedFrom == item.Id));
        (listed.Class, listed.WaitsForALook, listed.Origin!.Key).ShouldBe((DiscrepancyClass.Airworthiness, true, item.Origin!.Key),
            "it stands on the list that is in work as well");

        await orla.PostAsync(page, Post, ("value", "76"), ("why", "It was the right cylinder after all"));
        Open().ShouldBe(before, "good again, it ends");
        server.With(db => db.Discrepancies.AsNoTracking().Single(found => found.Id == listed.Id)).Disposition
            .ShouldBe(Disposition.Withdrawn);
    }

    [Fact]
    public async Task A_value_of_an_inspection_in_work_is_read_again_on_its_sheet()
    {
        var (ines, aircraft) = (await server.EnterAsync("ines"), Of("N04QF"));
        var value = server.With(db => db.Readings.AsNoTracking().First(row => db.Inspections.Any(one => one.Id == row.InspectionId
            && one.AircraftId == aircraft.Id && one.State == InspectionState.InWork)));
        (await Visitor.ParseAsync(await ines.PostAsync($"/aircraft/{aircraft.Id}/value/{value.Id}", Post, ("value", "1"), ("why", "x"))))
            .Body!.TextContent.ShouldContain("read it again on its own sheet");
    }

    [Fact]
    public async Task A_time_that_something_was_done_is_put_right_or_struck()
    {
        var (ines, file) = (await server.EnterAsync("ines"), server.FileOf("N04QF"));
        var item = server.With(db => db.DueOn(Of("N04QF").Id).AsNoTracking().AsEnumerable().First(row => row.Last is
            { On: not null, Hours: not null, CountedOn: null }));
        var (index, last) = (item.Done.Count - 1, item.Last!);
        Task<HttpResponseMessage> AmendAsync(params (string, string)[] more) => ines.PostAsync($"{file}?handler=Amend&item={item.Id}",
            [Post, ("subject", $"{item.Id}"), ("index", $"{index}"), .. more]);

        (await Visitor.ParseAsync(await AmendAsync(("on", "2031-01-01"), ("value", $"{last.Hours}"), ("why", "x"))))
            .QuerySelector(".amend[open] .field-problem")!.TextContent.ShouldContain("still to come");
        (await AmendAsync(("on", $"{last.On:yyyy-MM-dd}"), ("value", $"{last.Hours + 0.1m}"), ("reference", "26-9"), ("why", "misread")))
            .StatusCode.ShouldBe(HttpStatusCode.Redirect);
        server.With(db => db.DueItems.AsNoTracking().Single(row => row.Id == item.Id)).Last!.Hours.ShouldBe(last.Hours + 0.1m);
        (await AmendAsync(("strike", "true"), ("why", "was never done"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        server.With(db => db.DueItems.AsNoTracking().Single(row => row.Id == item.Id)).Done.Count.ShouldBe(item.Done.Count - 1);
        (await ines.ReadAsync($"{file}?item={item.Id}")).QuerySelectorAll(".amended li").Length.ShouldBe(2);
    }

    [Fact]
    public async Task A_serial_is_put_right_with_why_and_filled_in_without()
    {
        var (ines, file) = (await server.EnterAsync("ines"), server.FileOf("N0LTS"));
        var engine = Of("N0LTS").Engines.First().Component;
        Task<HttpResponseMessage> PlateAsync(params (string, string)[] more) => ines.PostAsync(
            $"{file}/parts?handler=Plate&part={engine.Id}", [Post, ("part", $"{engine.Id}"), ("partNumber", engine.PartNumber), .. more]);
        (await Visitor.ParseAsync(await PlateAsync(("serial", "LQ4-5503")))).QuerySelector(".field-problem")!.TextContent
            .ShouldContain("Say what was wrong");
        (await PlateAsync(("serial", "LQ4-5503"), ("why", "figures turned round"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        Of("N0LTS").Engines.First().Component.SerialNumber.ShouldBe("LQ4-5503");
        var amended = Amended("N0LTS").ShouldHaveSingleItem();
        (amended.Was, amended.Of).ShouldSatisfyAllConditions(it => it.Was.ShouldContain("LQ4-5530"),
            it => it.Of.ShouldBe(AmendmentOf.Plate));
        (await PlateAsync(("serial", "LQ4-5503"), ("madeOn", "2019-05-01"))).StatusCode
            .ShouldBe(HttpStatusCode.Redirect, "nobody had said");
        Amended("N0LTS").Count.ShouldBe(1);
    }

    [Fact]
    public async Task Taking_in_shows_the_last_reading_and_asks_about_a_jump()
    {
        var (ines, aircraft) = (await server.EnterAsync("ines"), Of("N0FLD"));
        (await ines.ReadAsync($"/take-in?aircraft={aircraft.Id}")).QuerySelector("#last-read")!.TextContent
            .ShouldContain($"on {aircraft.ReadOn:yyyy-MM-dd}");
        var shown = aircraft.TimeInService.Value - aircraft.MeterOf(aircraft.TimeBasis)!.Offset;
        async Task<AngleSharp.Dom.IDocument> TakeAsync(decimal hours) => await Visitor.ParseAsync(await ines.PostAsync("/take-in",
            ("Form.Post", $"{Guid.NewGuid()}"), ("Form.Aircraft", $"{aircraft.Id}"), ("Form.Kind", nameof(InspectionKind.Condition)),
            ("Form.WorkOrder", "26-900"), ("Form.Worksheets", "app-d"), ("Form.Hours", $"{hours}")));
        (await TakeAsync(shown - 5)).Body!.TextContent.ShouldContain("runs backwards");
        (await TakeAsync(shown + 90_000)).Body!.TextContent.ShouldContain("more than those days hold");
    }

    [Fact]
    public async Task Every_reading_of_a_trend_leads_to_the_page_where_it_is_put_right()
    {
        var (ines, file) = (await server.EnterAsync("ines"), server.FileOf("N04QF"));
        var links = (await ines.ReadAsync($"{file}/trends?show=all")).QuerySelectorAll(".readings a")
            .Select(one => one.GetAttribute("href")!).ToList();
        links.Count.ShouldBeGreaterThan(50);
        foreach (var link in links.Where((_, index) => index % 40 == 0))
            (await ines.ReadAsync(link)).QuerySelector("[aria-label='The value']").ShouldNotBeNull();
    }

    [Fact]
    public async Task A_long_history_is_paged_and_an_old_line_is_put_right_on_its_page()
    {
        var (ines, file, aircraft) = (await server.EnterAsync("ines"), server.FileOf("N0FLD"), Of("N0FLD"));
        var first = new DateOnly(1990, 1, 1);
        for (var day = 0; day < 70; day++)
            (await ines.PostAsync($"{file}/times?handler=Read", Post, ("kind", "Cycles"), ("on", $"{first.AddDays(day):yyyy-MM-dd}"),
                ("shown", $"{day + 1}"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        await ines.PostAsync($"{file}/books?handler=Book", Post, ("kind", "Airframe"), ("title", "Of long ago"));
        await server.SaveAsync(db =>
        {
            var book = db.LogBooks.First(row => row.AircraftId == aircraft.Id && row.Title == "Of long ago");
            for (var day = 0; day < 70; day++)
                db.BookEntries.Add(new(Guid.CreateVersion7(), aircraft.Id, book.Id, first.AddDays(day), null, $"Line {day} of long ago", "",
                    null, db.People.OrderBy(row => row.Id).First().Id, server.Clock.GetUtcNow()));
        });

        (await ines.ReadAsync($"{file}/times")).Body!.TextContent.ShouldNotContain("1990-01-01");
        var last = (await ines.ReadAsync($"{file}/times?page=999")).QuerySelectorAll(".list-pages span").Single().TextContent.Split(' ')[1];
        var form = (await ines.ReadAsync($"{file}/times?page={last}")).QuerySelectorAll("table.parts tbody tr")
            .Single(row => row.TextContent.Contains("1990-01-01")).QuerySelector("form")!;
        (await Visitor.ParseAsync(await ines.PostAsync(form.GetAttribute("action")!, Post,
            ("subject", form.QuerySelector("[name=subject]")!.GetAttribute("value")!), ("on", "1990-01-01"), ("value", "2"), ("why", ""))))
            .QuerySelector(".amend[open] .field-problem")!.TextContent.ShouldContain("Say what was wrong");

        (await ines.ReadAsync($"{file}/books?find=long+ago")).QuerySelectorAll("ol.history li").Length.ShouldBe(60);
        var older = await ines.ReadAsync($"{file}/books?find=long+ago&page=2");
        older.QuerySelectorAll("ol.history li").Select(line => line.TextContent).ShouldContain(text => text.Contains("Line 0 of long ago"));
        older.QuerySelector(".list-pages a[rel=prev]")!.GetAttribute("href")!.ShouldContain("find=long");
    }
}
