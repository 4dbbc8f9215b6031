using System.Net;
using System.Text;
using System.Text.RegularExpressions;
using MellowRivet.Core.Books;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

public class FleetTests(DemoServer server) : IClassFixture<DemoServer>
{
    private const string Glider = "N0FLD";

    private string File => server.FileOf(Glider);

    private Aircraft Aircraft(string registration = Glider) =>
        server.With(db => db.Aircraft.AsNoTracking().WithParts().Include(row => row.MeterReadings)
            .Single(row => row.Registration == registration));

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private static async Task<string> RefusedAsync(Visitor visitor, string path, params (string, string)[] fields)
    {
        var answer = await visitor.PostAsync(path, [Post(), .. fields]);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, path);
        return string.Join(" | ", (await Visitor.ParseAsync(answer)).QuerySelectorAll(".field-problem")
            .Select(line => line.TextContent.Trim()));
    }

    private static async Task DoneAsync(Visitor visitor, string path, params (string, string)[] fields)
    {
        var answer = await visitor.PostAsync(path, [Post(), .. fields]);
        answer.StatusCode.ShouldBe(HttpStatusCode.Redirect,
            $"{path}: {(answer.StatusCode == HttpStatusCode.OK
                ? (await Visitor.ParseAsync(answer)).QuerySelector(".field-problem")?.TextContent
                : "")}");
    }

    [Fact]
    public async Task A_due_item_is_kept_done_taken_back_and_retired()
    {
        var visitor = await server.EnterAsync("ines");
        (string, string)[] fields = [("what", "Tow cable: replace"), ("kind", "Replacement"), ("everyHours", "50"), ("everyMonths", "24"),
            ("calendar", "SameDay"), ("standing", "Manual"), ("source", "p. 7")];
        (await RefusedAsync(visitor, $"{File}?handler=Keep", [.. fields[..2], ("everyHours", "abc"), .. fields[3..]]))
            .ShouldContain("Hours, as 100");
        var post = Guid.NewGuid();
        foreach (var _ in Enumerable.Range(0, 2))
            (await visitor.PostAsync($"{File}?handler=Keep", [("post", $"{post}"), .. fields])).StatusCode.ShouldBe(
                HttpStatusCode.Redirect);
        var item = server.With(db => db.DueItems.AsNoTracking().Single(row => row.What == "Tow cable: replace"));
        item.Interval.ShouldBe(new Interval(50, 24, CalendarRule.SameDay));

        (await RefusedAsync(visitor, $"{File}?handler=Done", ("item", $"{item.Id}"), ("on", "2026-01-10")))
            .ShouldContain("hours when it was done are wanted");
        await DoneAsync(visitor, $"{File}?handler=Done", ("item", $"{item.Id}"), ("on", "2026-01-10"), ("hours", "441,0"),
            ("reference", "26-1"));
        var page = await visitor.ReadAsync($"{File}?item={item.Id}");
        page.QuerySelector(".right")!.TextContent.ShouldContain("by 2028-01-10");
        page.QuerySelector(".right")!.TextContent.ShouldContain("at 491.0 h");
        await DoneAsync(visitor, $"{File}?handler=Amend&item={item.Id}", ("subject", $"{item.Id}"), ("index", "0"), ("strike", "true"),
            ("why", "noted by mistake"));
        (await visitor.ReadAsync($"{File}?item={item.Id}")).QuerySelector(".right")!.TextContent.ShouldContain("Can’t tell yet");
        (await RefusedAsync(visitor, $"{File}?handler=Retire", ("item", $"{item.Id}"), ("why", ""))).ShouldContain("Say why");
        await DoneAsync(visitor, $"{File}?handler=Retire", ("item", $"{item.Id}"), ("why", "hook taken off"));
        var after = await visitor.ReadAsync(File);
        after.QuerySelectorAll("a.due-row").ShouldAllBe(row => !row.TextContent.Contains("Tow cable"));
        after.QuerySelector(".middle details")!.TextContent.ShouldContain("hook taken off",
            customMessage: "what isn't followed any more is still on file, with why");
    }

    [Fact]
    public async Task The_due_line_leaves_as_csv_and_as_a_calendar_with_an_address()
    {
        var visitor = await server.EnterAsync("orla");
        var csv = await (await visitor.GetAsync($"{server.FileOf("N04QF")}?handler=Csv")).Content.ReadAsStringAsync();
        csv.Split('\n')[0].ShouldContain("registration,item,on,state");
        csv.ShouldContain("N04QF,100-hour inspection,aircraft,soon,hours");
        (await (await visitor.GetAsync("/due?handler=Csv")).Content.ReadAsStringAsync()).ShouldContain("N0TWQ,");

        var calendar = await visitor.GetAsync($"{server.FileOf("N04QF")}/due.ics");
        calendar.Content.Headers.ContentType!.MediaType.ShouldBe("text/calendar");
        (await calendar.Content.ReadAsStringAsync()).ShouldContain("SUMMARY:N04QF: Annual inspection");

        var made = await Visitor.ParseAsync(await visitor.PostAsync("/due/calendar"));
        var address = new Uri(made.QuerySelector("code.address")!.TextContent).AbsolutePath;
        (await (await server.Stranger().GetAsync(address)).Content.ReadAsStringAsync()).ShouldContain("N0LTS: 100-hour inspection");
        (await (await server.Stranger().GetAsync(address.Replace("shop.ics", "N04QF.ics"))).Content.ReadAsStringAsync())
            .ShouldNotContain("N0LTS");
        (await server.Stranger().GetAsync("/calendar/0123456789/shop.ics")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        await visitor.PostAsync("/due/calendar");
        (await server.Stranger().GetAsync(address)).StatusCode.ShouldBe(HttpStatusCode.NotFound, "a new address takes the old one's place");
    }

    [Fact]
    public async Task The_shop_sees_what_calls_for_a_hand_first()
    {
        var page = await (await server.EnterAsync("wim")).ReadAsync("/due");
        var rows = page.QuerySelectorAll("tbody tr").Select(row => row.TextContent).ToList();
        rows[0].ShouldContain("overdue");
        string[] order = ["overdue", "overrun, allowed", "soon", "can’t tell yet", "good"];
        rows.Select(row => Array.FindIndex(order, row.Contains)).ShouldBeInOrder();
        (await (await server.EnterAsync("wim")).ReadAsync("/due?state=Unknown")).QuerySelectorAll("tbody tr")
            .ShouldAllBe(row => row.TextContent.Contains("can’t tell yet"));
    }

    [Fact]
    public async Task A_part_is_fitted_moved_overhauled_and_taken_off()
    {
        var visitor = await server.EnterAsync("ines");
        var post = Guid.NewGuid();
        (string, string)[] battery = [("kind", "Battery"), ("partNumber", "BT-25"), ("serial", "991"), ("at", "440"), ("ownTime", "10"),
            ("on", "2026-05-01")];
        (await RefusedAsync(visitor, $"{File}/parts?handler=Fit", [.. battery[..3], ("at", "9000")]))
            .ShouldContain("nothing can have been fitted");
        await visitor.PostAsync($"{File}/parts?handler=Fit", [("post", $"{post}"), .. battery]);
        Aircraft().Fitting(post)!.TimeInService(Aircraft().TimeInService)!.Value.Value.ShouldBe(Aircraft().TimeInService.Value - 430);
        (await RefusedAsync(visitor, $"{File}/parts?handler=Fit", battery)).ShouldContain("sits there");

        await DoneAsync(visitor, $"{File}/parts?handler=Plate&part={post}", ("part", $"{post}"), ("partNumber", "bt 25"), ("serial", "992"),
            ("madeOn", "2024-02-01"), ("why", "misread"));
        (await RefusedAsync(visitor, $"{File}/parts?handler=Overhauled&part={post}", ("part", $"{post}"), ("on", "2026-06-01"),
            ("at", "9999"), ("reference", "x"))).ShouldContain("no more than it has now");
        await DoneAsync(visitor, $"{File}/parts?handler=Overhauled&part={post}", ("part", $"{post}"), ("on", "2026-06-01"), ("at", "12"),
            ("reference", "release 3"));

        var tug = Aircraft("N0LTS");
        (await RefusedAsync(visitor, $"{File}/parts?handler=Move&part={post}", ("part", $"{post}"), ("to", $"{tug.Id}"), ("why", "")))
            .ShouldContain("Say why");
        await DoneAsync(visitor, $"{File}/parts?handler=Move&part={post}", ("part", $"{post}"), ("to", $"{tug.Id}"),
            ("why", "tug's is flat"));
        Aircraft().Fitting(post).ShouldBeNull();
        var moved = Aircraft("N0LTS").Fitting(post)!;
        moved.Component.ShouldSatisfyAllConditions(part => part.SerialNumber.ShouldBe("992"),
            part => part.LastOverhaul!.Reference.ShouldBe("release 3"));
        (await visitor.ReadAsync($"{server.FileOf("N0LTS")}/parts?part={post}")).QuerySelectorAll(".stays li")
            .Select(stay => stay.QuerySelector(".reg")!.TextContent).ShouldBe([Glider, "N0LTS"]);

        await DoneAsync(visitor, $"{server.FileOf("N0LTS")}/parts?handler=TakeOff&part={post}", ("part", $"{post}"), ("at", "1503.4"),
            ("why", "back"));
        (await visitor.ReadAsync($"{File}/parts?add=true")).QuerySelector("select[name=stored]")!.TextContent.ShouldContain("992");
        await DoneAsync(visitor, $"{File}/parts?handler=Fit", ("stored", $"{post}"), ("at", $"{Aircraft().TimeInService}"),
            ("ownTime", "30"));
        Aircraft().Fitting(post)!.OwnTimeThen!.Value.Value.ShouldBe(30);
    }

    [Fact]
    public async Task A_cylinder_that_came_off_by_itself_goes_back_as_itself()
    {
        var (visitor, file) = (await server.EnterAsync("ines"), server.FileOf("N0BRM"));
        var (engine, time) = (Aircraft("N0BRM").Engines.Single().Component, $"{Aircraft("N0BRM").TimeInService}");
        var cylinder = Aircraft("N0BRM").Cylinder(engine, 3)!;
        await DoneAsync(visitor, $"{file}/parts?handler=TakeOff&part={cylinder.Id}", ("part", $"{cylinder.Id}"), ("at", time),
            ("why", "valve ground in"));
        (string, string)[] place = [("parent", $"{engine.Id}"), ("position", "3"), ("at", time)];
        (await RefusedAsync(visitor, $"{file}/parts?handler=Fit", [("kind", "Cylinder"), ("serial", cylinder.SerialNumber), .. place]))
            .ShouldContain("is the one that came off there");
        (await visitor.ReadAsync($"{file}/parts?add=true")).QuerySelector($"select[name=stored] option[value='{cylinder.Id}']")
            .ShouldNotBeNull();
        await DoneAsync(visitor, $"{file}/parts?handler=Fit", [("stored", $"{cylinder.Id}"), .. place]);
        Aircraft("N0BRM").Cylinder(engine, 3)!.Id.ShouldBe(cylinder.Id);
    }

    [Fact]
    public async Task A_file_of_times_is_looked_at_questioned_and_taken_in_whole()
    {
        var visitor = await server.EnterAsync("ines");
        var before = Aircraft().MeterReadings.Count;
        // The demo's hour meter shows 140.2 on 2026-10-11; the file's later readings run on, then a new meter begins.
        var text = "day;hour meter\n20.10.2026;141,0\n25.10.2026;142,5\n01.11.2026;3,0\n05.11.2026;4,5\n";
        async Task<AngleSharp.Dom.IDocument> LookAsync(params (string, string)[] fields) => await Visitor.ParseAsync(
            await visitor.SendAsync($"{File}/times?handler=Look", "file", fields.Length == 0
                ? [("log.csv", Encoding.UTF8.GetBytes(text))]
                : [], [Post(), .. fields]));
        var asked = await LookAsync();
        asked.QuerySelector(".times-file")!.TextContent.ShouldContain("Was the meter replaced?");
        asked.QuerySelectorAll(".times-file form").Length.ShouldBe(1, "nothing can be taken in while there is a question");
        (string, string)[] columns = [("text", Convert.ToBase64String(Encoding.UTF8.GetBytes(text))), ("name", "log.csv"), ("date", "0"),
            ("format", "dd.MM.yyyy"), ("hourMeter", "1")];
        (await RefusedAsync(visitor, $"{File}/times?handler=Take", columns)).ShouldContain("questions left");
        (await LookAsync([("date", "-1"), ("tach", "-7"), .. columns]))
            .QuerySelector(".times-file")!.TextContent.ShouldContain("Was the meter replaced?",
                customMessage: "a column that isn't there is passed over");
        (await LookAsync([.. columns, ("replacedAt", "4")])).QuerySelector(".times-file")!.TextContent.ShouldContain("Take in 4 readings");
        await DoneAsync(visitor, $"{File}/times?handler=Take", [.. columns, ("replacedAt", "4")]);

        var aircraft = Aircraft();
        aircraft.MeterReadings.Count.ShouldBe(before + 4);
        // 142.5 on the old one is 462.3 in all (it stood 319.8 above); the new one adds 4.5.
        aircraft.TimeInService.Value.ShouldBe(466.8m);
        (await (await visitor.GetAsync($"{File}/times.csv")).Content.ReadAsStringAsync())
            .ShouldContain("2026-11-05,HourMeter,4.5,466.8,log.csv");

        (await RefusedAsync(visitor, $"{File}/times?handler=Read", ("kind", "HourMeter"), ("on", "2026-11-10"), ("shown", "1.0")))
            .ShouldContain("Was the meter replaced?");
        await DoneAsync(visitor, $"{File}/times?handler=Read", ("kind", "HourMeter"), ("on", "2026-11-10"), ("shown", "5.0"));
    }

    [Fact]
    public async Task Books_are_kept_read_into_words_searched_and_their_holes_explained()
    {
        var visitor = await server.EnterAsync("ines");
        var page = await visitor.ReadAsync($"{File}/books");
        page.Body!.TextContent.ShouldContain("A hole from 2009-04-25 to 2016-09-17: 7.4 years");
        page.Body.TextContent.ShouldContain("The total falls: 318.2 h");
        await DoneAsync(visitor, $"{File}/books?handler=Explain", ("kind", "Airframe"), ("from", "2009-04-25"), ("to", "2016-09-17"),
            ("words", "in a barn at the coast"));
        (await visitor.ReadAsync($"{File}/books")).Body!.TextContent.ShouldContain("Explained: in a barn at the coast");

        var waiting = server.With(db => db.BookEntries.AsNoTracking().First(entry => entry.On == null));
        (await visitor.ReadAsync($"{File}/books?entry={waiting.Id}")).QuerySelector(".reading-desk img")
            .ShouldNotBeNull("the picture stands beside the form");
        (await RefusedAsync(visitor, $"{File}/books?handler=Entry", ("entry", $"{waiting.Id}"), ("text", "words")))
            .ShouldContain("day of the entry");
        await DoneAsync(visitor, $"{File}/books?handler=Entry", ("entry", $"{waiting.Id}"), ("on", "2026-05-02"), ("hours", "441.0"),
            ("text", "Tail wheel spring 100% new, 50_mm"));
        (await visitor.ReadAsync($"{File}/books?find=spring%20tail")).QuerySelectorAll(".history li")
            .ShouldHaveSingleItem().TextContent.ShouldContain("2026-05-02");
        (await visitor.ReadAsync($"{File}/books?find=100%25")).QuerySelectorAll(".history li").ShouldHaveSingleItem();
        (await visitor.ReadAsync($"{File}/books?find=5__mm")).QuerySelectorAll(".history li")
            .ShouldBeEmpty("what is typed is searched as it is");
        (await visitor.ReadAsync($"{server.FileOf("N04QF")}/books?find=certify%20engine"))
            .QuerySelectorAll(".history li").Length.ShouldBeGreaterThan(5, "records signed here are searched too");

        (await RefusedAsync(visitor, $"{File}/books?handler=Book", ("kind", "Manual"), ("title", ""), ("firstOn", "2020-01-02"),
            ("lastOn", "2020-01-01"))).ShouldContain("cover");
        await DoneAsync(visitor, $"{File}/books?handler=Book", ("kind", "Manual"), ("title", "Builder's manual"));
        server.With(db => db.LogBooks.AsNoTracking().Single(book => book.Title == "Builder's manual").Kind).ShouldBe(BookKind.Manual);
        var pages = await visitor.SendAsync($"{File}/books?handler=Pages", [("p.jpg", Encoding.UTF8.GetBytes("no picture"))], Post(),
            ("book", $"{waiting.BookId}"));
        (await pages.Content.ReadAsStringAsync()).ShouldContain("is not a JPEG, PNG or WebP picture");
    }

    [Fact]
    public async Task The_file_goes_out_as_json_and_is_not_taken_in_twice()
    {
        var visitor = await server.EnterAsync("ines");
        var json = await (await visitor.GetAsync($"{server.FileOf("N0TWQ")}/file.json")).Content.ReadAsStringAsync();
        var again = await visitor.SendAsync("/aircraft/import", "file", [("x.json", Encoding.UTF8.GetBytes(json))], Post());
        (await Visitor.ParseAsync(again)).QuerySelector(".field-problem")!.TextContent.ShouldContain("N0TWQ has a file here already");
        var fresh = Regex.Replace(json.Replace("N0TWQ", "N0TWC"), "[0-9a-f]{8}-[0-9a-f]{4}-7",
            match => $"{(match.Value[0] == 'f' ? 'e' : 'f')}{match.Value[1..]}");
        // As an editor saves it: with the mark of its encoding before it.
        var taken = await visitor.SendAsync("/aircraft/import", "file", [("x.json", Encoding.UTF8.GetBytes('\uFEFF' + fresh))], Post());
        taken.StatusCode.ShouldBe(HttpStatusCode.Redirect, taken.StatusCode == HttpStatusCode.OK
            ? (await Visitor.ParseAsync(taken)).QuerySelector(".field-problem")?.TextContent
            : "");
        (await visitor.ReadAsync(server.FileOf("N0TWC")))
            .QuerySelectorAll("a.due-row").Length.ShouldBe((await visitor.ReadAsync(server.FileOf("N0TWQ")))
                .QuerySelectorAll("a.due-row").Length);
        (await (await server.Stranger().GetAsync("/schemas/aircraft-1.json")).Content.ReadAsStringAsync())
            .ShouldBe(Core.Exchange.AircraftFile.Schema());
    }

    [Fact]
    public async Task A_data_plate_is_changed_and_a_registration_taken_by_another_refused()
    {
        var visitor = await server.EnterAsync("orla");
        (string, string)[] plate = [("Form.Serial", "LT-12"), ("Form.Type", "Lindqvale Tarn M"),
            ("Form.Category", "ExperimentalAmateurBuilt"), ("Form.Wing", "Low"), ("Form.Gear", "TailWheel"), ("Form.Engines", "1"),
            ("Form.Seats", "2"), ("Form.FoldingWing", "true")];
        (await RefusedAsync(visitor, $"{File}/data-plate", [.. plate, ("Form.Registration", "N04QF")]))
            .ShouldContain("has a file here already");
        (await RefusedAsync(visitor, $"{File}/data-plate", [.. plate[..6], ("Form.Registration", Glider), ("Form.Seats", "99")]))
            .ShouldContain("20 seats");
        await DoneAsync(visitor, $"{File}/data-plate", [.. plate, ("Form.Registration", Glider), ("Form.Retractable", "true")]);
        Aircraft().Configuration.Retractable.ShouldBeTrue();
    }

    [Theory]
    [InlineData("replace the nose tyre", "The owner may")]
    [InlineData("rearrange the instrument panel", "A mechanic.")]
    [InlineData("splice a spar", "inspection authorization")]
    public async Task Who_may_do_a_job_is_answered_in_words(string job, string says) =>
        (await (await server.EnterAsync("perpetua")).ReadAsync($"/who-may?job={Uri.EscapeDataString(job)}"))
            .QuerySelector("[role=status]")!.TextContent.ShouldContain(says);
}
