using System.Net;
using System.Text;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>Worksheets made, changed and published in the app.</summary>
public class ShelfPagesTests(DemoServer server) : IClassFixture<DemoServer>
{
    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private static async Task<string> ProblemOf(HttpResponseMessage answer) =>
        (await Visitor.ParseAsync(answer)).QuerySelector(".field-problem")!.TextContent;

    [Fact]
    public async Task A_worksheet_is_begun_written_published_and_changed_edition_by_edition()
    {
        var orla = await server.EnterAsync("orla");
        (await ProblemOf(await orla.PostAsync("/shelf?handler=New", Post(), ("title", " !! ")))).ShouldContain("Give it a title");
        (await orla.PostAsync("/shelf?handler=New", Post(), ("title", "Ski change"))).Headers.Location!.OriginalString.ShouldBe(
            "/shelf/worksheets/ski-change");
        var sheet = "/shelf/worksheets/ski-change";
        (await orla.ReadAsync("/take-in")).QuerySelector("input[value=ski-change]").ShouldBeNull("a draft is offered to nobody");

        (string, string)[] task = [("zone", "general"), ("text", "Skis: bungees, check cables, pivots"), ("reference", "ski manual p. 2"),
            ("kind", "Inspect"), ("appliesTo", "Every"), ("standing", "Manual"), ("method", "Plain")];
        (await ProblemOf(await orla.PostAsync($"{sheet}?handler=Task", [Post(), .. task, ("at", "50 h, sometimes")])))
            .ShouldContain("“sometimes” is no interval");
        var poor = await Visitor.ParseAsync(
            await orla.PostAsync($"{sheet}?handler=Task",
                [Post(), .. task, ("measure", "ski-cable"), ("unit", "lb"), ("low", "40"), ("high", "20"), ("source", "p. 3")]));
        poor.QuerySelector(".field-problem")!.TextContent.ShouldContain("lower limit is above");
        poor.QuerySelector("input[name=text]")!.GetAttribute("value").ShouldStartWith("Skis:", Case.Sensitive, "what was typed stays");
        (await orla.PostAsync($"{sheet}?handler=Task",
            [Post(), .. task, ("at", "50 h, annual"), ("needs", "PanelsOpen")])).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        await orla.PostAsync($"{sheet}?handler=TakeOut", Post(), ("task", "first-task"));
        await orla.PostAsync($"{sheet}?handler=Zone", Post(), ("title", "Skis"), ("station", "Airframe"), ("book", "Airframe"),
            ("looks", "true"));
        await orla.PostAsync($"{sheet}?handler=MoveZone", Post(), ("zone", "skis"), ("down", "false"));
        (await ProblemOf(await orla.PostAsync($"{sheet}?handler=Offer", Post(), ("title", " "), ("basis", "our own"))))
            .ShouldContain("a title of up to 100");
        await orla.PostAsync($"{sheet}?handler=Offer", Post(), ("title", "Ski change, winter"), ("basis", "ski manual"), ("ticked", "true"),
            ("builds", "TailWheel"), ("inspections", "Condition"));
        (await ProblemOf(await orla.PostAsync($"{sheet}?handler=Publish", Post(), ("note", "")))).ShouldContain("what is new");
        await orla.PostAsync($"{sheet}?handler=Publish", Post(), ("note", "For the winter"));

        var page = await orla.ReadAsync(sheet);
        page.QuerySelectorAll(".columns-table").Select(table => table.Id).ShouldBe(["zone-skis", "zone-general"]);
        page.QuerySelector("#task-skis-bungees-check-cables")!.QuerySelectorAll("td.col svg").Length.ShouldBe(2, "at 50 h and annually");
        bool Ticked(AngleSharp.Dom.IDocument offers) => offers.QuerySelector("input[value=ski-change]")!.HasAttribute("checked");
        string TakeIn(string registration, string kind) =>
            $"/take-in?aircraft={server.FileOf(registration)["/aircraft/".Length..]}&kind={kind}";
        Ticked(await orla.ReadAsync(TakeIn("N0BRM", "Condition"))).ShouldBeTrue();
        Ticked(await orla.ReadAsync(TakeIn("N0BRM", "Service50"))).ShouldBeFalse();
        Ticked(await orla.ReadAsync(TakeIn("N0LTS", "Condition"))).ShouldBeFalse("it has a nose wheel");

        await orla.PostAsync($"{sheet}?handler=Begin", Post());
        await orla.PostAsync($"{sheet}?handler=Task", [Post(), .. task, ("key", "skis-bungees-check-cables"), ("at", "25 h, annual")]);
        var draft = await orla.ReadAsync(sheet);
        draft.QuerySelector(".changes")!.TextContent.ShouldContain("at: 50 h, annual → 25 h, annual");
        draft.QuerySelector("h1")!.TextContent.ShouldContain("draft of version 2");
        await orla.PostAsync($"{sheet}?handler=Drop", Post());
        (await orla.ReadAsync(sheet)).QuerySelector("h1")!.TextContent.ShouldContain("version 1");
        (await ProblemOf(await orla.PostAsync($"{sheet}?handler=TakeOut", Post(), ("task", "x")))).ShouldContain("Begin a draft first");
    }

    [Fact]
    public async Task What_is_downloaded_can_be_read_in_again_and_a_broken_file_changes_nothing()
    {
        var ines = await server.EnterAsync("ines");
        var sheet = "/shelf/worksheets/two-stroke";
        var csv = await (await ines.GetAsync($"{sheet}?handler=File&form=csv")).Content.ReadAsByteArrayAsync();
        var json = await (await ines.GetAsync($"{sheet}?handler=File&form=json")).Content.ReadAsStringAsync();

        var broken = Encoding.UTF8.GetBytes(Encoding.UTF8.GetString(csv).Replace("first 10 h", "now and then"));
        var refused = await ProblemOf(await ines.SendAsync($"{sheet}?handler=Import", "file", [("sheet.csv", broken)], Post()));
        refused.ShouldContain("Line ");
        refused.ShouldContain("Nothing was taken in");
        (await ProblemOf(await ines.SendAsync($"{sheet}?handler=Import", "file",
            [("sheet.json", Encoding.UTF8.GetBytes(json.Replace("\"zones\"", "\"places\"")))], Post()))).ShouldContain("can't be read");
        server.With(db => db.Editions.Count(edition => edition.Key == "two-stroke")).ShouldBe(1);

        var changed = Encoding.UTF8.GetBytes(Encoding.UTF8.GetString(csv)
            .Replace("Starter rope or motor: fraying", "Starter rope: fraying"));
        (await ines.SendAsync($"{sheet}?handler=Import", "file", [("sheet.csv", changed)], Post())).StatusCode.ShouldBe(
            HttpStatusCode.Redirect);
        (await ines.ReadAsync(sheet)).QuerySelectorAll(".changes")[0].TextContent.Trim().ShouldContain("Starter rope: fraying");
        await ines.PostAsync($"{sheet}?handler=Drop", Post());
        (await ProblemOf(await ines.SendAsync("/shelf?handler=New", "file", [("copy.json", Encoding.UTF8.GetBytes(json))], Post())))
            .ShouldContain("There is a worksheet “two-stroke” already");
    }

    [Fact]
    public async Task An_inspection_keeps_its_edition_and_says_what_changed_since()
    {
        var orla = await server.EnterAsync("orla");
        var sheet = "/shelf/worksheets/lubrication";
        var walk = server.Walk("N04QF");
        (await orla.ReadAsync($"{walk}/plan")).Body!.TextContent.ShouldNotContain("is on the shelf since");
        await orla.PostAsync($"{sheet}?handler=Begin", Post());
        await orla.PostAsync($"{sheet}?handler=TakeOut", Post(), ("task", "lu-cowl"));
        await orla.PostAsync($"{sheet}?handler=Publish", Post(), ("note", "Cowl fasteners no more"));
        var plan = (await orla.ReadAsync($"{walk}/plan")).Body!.TextContent;
        plan.ShouldContain("Version 3 is on the shelf since");
        plan.ShouldContain("Cowl hinges and fasteners");
        var id = Guid.Parse(walk["/walk/".Length..]);
        server.With(db => db.Inspections.AsNoTracking().Include(row => row.Tasks)
            .Single(row => row.Id == id)).Tasks.ShouldContain(task => task.Key == "lu-cowl", "the edition it began with");
    }

    [Fact]
    public async Task Taking_in_offers_what_suits_and_says_what_is_due()
    {
        var id = server.FileOf("N0FLD")["/aircraft/".Length..];
        var page = await (await server.EnterAsync("orla")).ReadAsync($"/take-in?aircraft={id}&kind=Condition");
        bool Ticked(string key) => page.QuerySelector($"input[value={key}]")!.HasAttribute("checked");
        (Ticked("app-d"), Ticked("two-stroke"), Ticked("geared-four"), Ticked("twin"),
            Ticked("lubrication")).ShouldBe((true, true, false, false, true));
        page.QuerySelector("input[value=two-stroke]")!.ParentElement!.TextContent.ShouldContain("tasks");
    }

    [Fact]
    public async Task A_task_that_is_not_due_is_taken_in_from_the_plan()
    {
        var orla = await server.EnterAsync("orla");
        var done = new TaskDone("light-sport", "ls-bearings", null, 950, DemoServer.Today.AddMonths(-2));
        await server.SaveAsync(db =>
        {
            var aircraft = new Aircraft(Guid.NewGuid(), "N0PIK", "Picked", "P-1", Category.SpecialLightSport,
                new(Wing.High, Gear.NoseWheel, 1, 2));
            aircraft.ReadTime(DemoServer.Today, new Hours(1000));
            var sheet = db.Editions.AsNoTracking().First(edition => edition.Key == "light-sport").Worksheet;
            db.AddRange(aircraft, new Inspection(Guid.NewGuid(), aircraft, InspectionKind.HundredHour, "26-930", [sheet], DemoServer.Today,
                [done]));
        });
        Inspection Now() =>
            server.With(db => db.Inspections.AsNoTracking().Include(row => row.Tasks).Single(row => row.WorkOrder == "26-930"));
        var walk = $"/walk/{Now().Id}";
        var bearings = Now().NotDue.Single(task => task.Task.Key == "ls-bearings");
        bearings.Why.ShouldBe("200 h: 50 h since it was last done, 150 h to go");
        (await orla.ReadAsync($"{walk}/plan")).QuerySelector(".not-due")!.TextContent.ShouldContain("Wheel bearings");
        await orla.PostAsync($"{walk}/plan?handler=TakeIn", Post(), ("order", $"{bearings.Order}"));
        Now().Tasks.ShouldContain(task => task.Key == "ls-bearings");
        (await ProblemOf(await orla.PostAsync($"{walk}/plan?handler=TakeIn", Post(), ("order", $"{bearings.Order}"))))
            .ShouldContain("on the walk already");
    }

    [Fact]
    public async Task A_tool_is_kept_with_its_calibration_and_nonsense_is_refused()
    {
        var ines = await server.EnterAsync("ines");
        (await ProblemOf(await ines.PostAsync("/shelf/tools", Post(), ("name", "Torque screwdriver"), ("torqueWrench", "true"))))
            .ShouldContain("day its calibration ends");
        (await ProblemOf(await ines.PostAsync("/shelf/tools", Post(), ("name", "Torque screwdriver"), ("torqueWrench", "true"),
            ("calibrated", "soon")))).ShouldContain("A day as");
        (await ProblemOf(await ines.PostAsync("/shelf/tools", Post(), ("name", "")))).ShouldContain("A name");
        (await ProblemOf(await ines.PostAsync("/shelf/tools", Post(), ("name", "Torque screwdriver"), ("torqueWrench", "true"),
            ("calibrated", "2027-05-01")))).ShouldContain("has a range, as on its scale");
        await ines.PostAsync("/shelf/tools", Post(), ("name", "Torque screwdriver"), ("number", "T-20"), ("torqueWrench", "true"),
            ("calibrated", "2027-05-01"), ("least", "5"), ("most", "50"), ("unit", "in-lb"));
        var tool = server.With(db => db.Tools.AsNoTracking().Single(tool => tool.Number == "T-20"));
        await ines.PostAsync("/shelf/tools", Post(), ("id", $"{tool.Id}"), ("name", "Torque screwdriver"), ("number", "T-20"),
            ("torqueWrench", "true"), ("calibrated", "2027-05-01"), ("least", "5"), ("most", "50"), ("unit", "in-lb"), ("retired", "true"));
        (await ines.ReadAsync($"{server.Walk("N04QF")}/tools")).Body!.TextContent.ShouldNotContain("T-20");
    }

    [Fact]
    public async Task The_shops_rules_hold_at_once_for_what_is_in_work()
    {
        var orla = await server.EnterAsync("orla");
        var id = Guid.Parse(server.Walk("N04QF")["/walk/".Length..]);
        Inspection Now() => server.With(db => db.Inspections.AsNoTracking().Single(row => row.Id == id));
        await orla.PostAsync("/shelf?handler=House", Post(), ("inspector", "Always"), ("firstLook", "false"));
        Now().House.ShouldBe(new(SeparateInspector.Always, false));
        await orla.PostAsync("/shelf?handler=House", Post(), ("inspector", "AirworthinessItems"), ("firstLook", "true"));
        Now().House.ShouldBe(new(SeparateInspector.AirworthinessItems));
    }

    // What a guess rests on gets better with a release: a file nobody touched follows, one that the shop changed stays the shop's.
    [Fact]
    public void A_rule_file_as_it_came_with_an_earlier_release_gives_way_and_the_shops_own_stays()
    {
        var shipped = Directory.CreateTempSubdirectory("rivet-shipped-").FullName;
        var data = new DataFolder(Path.Combine(shipped, "data"));
        foreach (var file in Directory.EnumerateFiles(Path.Combine(AppContext.BaseDirectory, "shelf"), "*", SearchOption.AllDirectories))
        {
            var to = Path.Combine(shipped, "shelf", Path.GetRelativePath(Path.Combine(AppContext.BaseDirectory, "shelf"), file));
            Directory.CreateDirectory(Path.GetDirectoryName(to)!);
            File.Copy(file, to);
        }
        var (findings, deferral) = (Path.Combine(data.Shelf, "findings", "usual.json"), Path.Combine(data.Shelf, "deferral", "never.json"));
        Directory.CreateDirectory(Path.GetDirectoryName(findings)!);
        Directory.CreateDirectory(Path.GetDirectoryName(deferral)!);
        File.WriteAllText(findings, "[]");
        File.WriteAllText(deferral, "[ ]");
        File.AppendAllText(Path.Combine(shipped, "shelf", "earlier.txt"),
            $"{Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData("[]"u8))} findings/usual.json\n");
        var shelf = Shelf.Open(data, Path.Combine(shipped, "shelf"));
        shelf.UsualFindings.Count.ShouldBeGreaterThan(30);
        shelf.NeverDeferred.ShouldBeEmpty();
        Directory.Delete(shipped, recursive: true);
    }
}
