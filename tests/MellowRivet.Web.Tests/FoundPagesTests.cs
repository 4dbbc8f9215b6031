using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;
using SkiaSharp;

namespace MellowRivet.Web.Tests;

/// <summary>
/// The pages of what was found: taken down, judged, deferred, drawn on, taken on in bulk, handed over. On the amateur-built's walk and,
/// only looking, on the trainer's.
/// </summary>
public class FoundPagesTests(DemoServer server) : IClassFixture<DemoServer>
{
    private string Walk => server.Walk("N0BRM");
    private string Trainer => server.Walk("N04QF");

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private Discrepancy Of(string walk, string what)
    {
        var id = Guid.Parse(walk["/walk/".Length..]);
        return server.With(db => db.Discrepancies.AsNoTracking().Where(found => found.InspectionId == id).AsEnumerable()
            .Single(found => found.What.StartsWith(what, StringComparison.Ordinal)));
    }

    private async Task<(string Path, Discrepancy Found)> FindAsync(string what, string @class, params (string, string)[] more)
    {
        (await (await server.EnterAsync("ines"))
            .PostAsync($"{Walk}/find",
                [Post(), ("what", what), ("zone", "gear"), ("class", @class), ("why", "for the test"),
                    .. more])).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var found = Of(Walk, what);
        return ($"{Walk}/fix-list/{found.Number}", found);
    }

    internal static byte[] Picture()
    {
        using var bitmap = new SKBitmap(960, 720);
        bitmap.Erase(SKColors.SlateGray);
        using var encoded = bitmap.Encode(SKEncodedImageFormat.Jpeg, 80);
        // One byte behind the picture's end makes it another file.
        return [.. encoded.ToArray(), .. Guid.NewGuid().ToByteArray()];
    }

    [Fact]
    public async Task The_class_is_guessed_from_the_words_and_a_person_overrules_it()
    {
        var tamsin = await server.EnterAsync("tamsin");
        var guess = await tamsin.ReadAsync($"{Walk}/find?handler=Guess&what=oil%20seep%20at%20the%20sump");
        guess.QuerySelector("[data-guess]")!.GetAttribute("data-guess").ShouldBe("Watch");
        guess.Body!.TextContent.ShouldContain("common practice");
        (await FindAsync("Oil seep at the tail wheel pivot", "Airworthiness", ("guess", "true"))).Found.Class.ShouldBe(
            DiscrepancyClass.Watch, "nobody had touched the class");
        (await FindAsync("Oil seep at the other pivot", "Recommended", ("guess", "false"))).Found.Class.ShouldBe(
            DiscrepancyClass.Recommended);
    }

    [Fact]
    public async Task A_sound_a_note_and_a_foreign_object_come_along()
    {
        var ines = await server.EnterAsync("ines");
        var answer = await ines.SendAsync($"{Walk}/find", "sounds", [("click.wav", [.. "RIFF"u8, 0, 0, 0, 0, .. "WAVEfmt "u8])],
            Post(), ("what", "Split pin rolls about in the leg"), ("zone", "gear"), ("class", "Airworthiness"),
            ("note", "heard when shaken"), ("foreign", "true"), ("how", "Sound"));
        answer.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var found = Of(Walk, "Split pin rolls");
        (found.Sounds.Single().Type, found.Notes.Single().Words, found.How).ShouldBe(("audio/wav", "heard when shaken", FoundHow.Sound));
        var sound = await ines.GetAsync($"/sounds/{found.Sounds[0].Sha256}");
        sound.Content.Headers.ContentType!.MediaType.ShouldBe("audio/wav");
        var id = Guid.Parse(Walk["/walk/".Length..]);
        server.With(db => db.Inspections.Single(row => row.Id == id).ForeignObjects)
            .ShouldContain(thing => thing.What == "Split pin rolls about in the leg");
        var words = await Visitor.ParseAsync(
            await ines.SendAsync($"{Walk}/find", "sounds", [("click.wav", "no sound"u8.ToArray())], Post(), ("what", "kept words"),
                ("zone", "gear"), ("class", "Watch")));
        words.QuerySelector("#find-problems")!.TextContent.ShouldContain("is no sound that browsers play");
        words.QuerySelector("textarea[name=what]")!.TextContent.ShouldBe("kept words");
    }

    [Fact]
    public async Task A_deferrable_item_is_walked_through_its_questions_and_gets_its_placard()
    {
        var ines = await server.EnterAsync("ines");
        var (path, _) = await FindAsync("Clock dead", "Deferrable");
        (await ines.GetAsync($"{path}/placard")).StatusCode.ShouldBe(HttpStatusCode.NotFound, "not before the test is passed");
        var early = await Visitor.ParseAsync(
            await ines.PostAsync($"{path}?handler=Correct", Post(), ("action", "Placarded"), ("kind", "Deferred")));
        early.QuerySelector("form.correction .field-problem")!.TextContent.ShouldContain("deferral test");
        foreach (var question in DeferralWalk.Questions)
            (await ines.PostAsync($"{path}?handler=Defer", Post(), ("question", question.Key), ("says", $"{question.GoesOn}"),
                ("words", "kit plans, p. 3"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var placard = (await ines.ReadAsync($"{path}/placard")).QuerySelector(".placard")!.TextContent;
        placard.ShouldContain("INOPERATIVE");
        placard.ShouldContain("Clock dead");
        (await ines.PostAsync($"{path}?handler=Correct", Post(), ("action", "Fuse pulled, placarded"),
            ("kind", "Deferred"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        Of(Walk, "Clock dead").Disposition.ShouldBe(Disposition.Done);
    }

    [Fact]
    public async Task A_correction_with_a_part_changes_the_tree_and_a_wrench_out_of_calibration_is_refused()
    {
        var ines = await server.EnterAsync("ines");
        var (path, found) = await FindAsync("Propeller delaminated at the tip", "Airworthiness");
        var propeller = server.With(db => db.Aircraft.AsNoTracking().WithParts()
            .Single(row => row.Registration == "N0BRM").Propellers.Single());
        var wrenches = server.With(db => db.Tools.AsNoTracking().Where(tool => tool.IsTorqueWrench).ToList());
        var today = DemoServer.Today;
        var (good, ended) = (wrenches.First(tool => tool.CalibratedUntil > today), wrenches.First(tool => tool.CalibratedUntil < today));
        (string, string)[] Form(Guid wrench) =>
            [Post(), ("action", "Propeller changed"), ("kind", "Replaced"), ("reference", "kit manual 61, p. 2"), ("partNumber", "PR-60"),
                ("serialOut", propeller.Component.SerialNumber), ("serialIn", "PR-60-9"), ("replaces", $"{propeller.ComponentId}"),
                ("torque", "25"), ("unit", "Nm"), ("wrench", $"{wrench}")];
        var refused = await Visitor.ParseAsync(await ines.PostAsync($"{path}?handler=Correct", Form(ended.Id)));
        refused.QuerySelector("form.correction .field-problem")!.TextContent.ShouldContain("calibration");
        refused.QuerySelector("input[name=serialIn]")!.GetAttribute("value").ShouldBe("PR-60-9", "what was typed stays");
        (await ines.PostAsync($"{path}?handler=Correct", Form(good.Id))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var fitted = server.With(db => db.Aircraft.AsNoTracking().WithParts()
            .Single(row => row.Registration == "N0BRM").Propellers.Single());
        (fitted.Component.PartNumber, fitted.Component.SerialNumber).ShouldBe(("PR-60", "PR-60-9"));
        (await ines.ReadAsync(path)).QuerySelector(".judged-good")!.TextContent.ShouldContain($"Torque 25 N·m, {good.Title}");

        (await Visitor.ParseAsync(await ines.PostAsync($"{path}?handler=Move", Post(), ("to", "Open"), ("words", ""))))
            .QuerySelector(".steps-form .field-problem")!.TextContent.ShouldContain("Say why");
        await ines.PostAsync($"{path}?handler=Move", Post(), ("to", "Open"), ("words", "track is out"));
        Of(Walk, "Propeller delaminated").Steps[^1].Words!.ShouldContain("track is out · Done before: Propeller changed");
    }

    [Fact]
    public async Task Many_are_taken_a_step_on_at_once_and_those_that_can_not_are_named()
    {
        var ines = await server.EnterAsync("ines");
        var (_, one) = await FindAsync("Bulk one", "Recommended");
        var (path, two) = await FindAsync("Bulk two", "Recommended");
        await ines.PostAsync($"{path}?handler=Correct", Post(), ("action", "done already"), ("kind", "Cleaned"));
        (string, string)[] Bulk(string to, string words) =>
            [Post(), ("numbers", $"{one.Number}"), ("numbers", $"{two.Number}"), ("to", to), ("words", words)];
        var said = (await Visitor.ParseAsync(await ines.PostAsync($"{Walk}/fix-list?handler=Bulk", Bulk("Asked", ""))))
            .QuerySelector(".bulk-said")!.TextContent;
        said.ShouldContain("1 changed.");
        said.ShouldContain("Bulk two: It is done");
        Of(Walk, "Bulk one").Disposition.ShouldBe(Disposition.Asked);
        var none = await Visitor.ParseAsync(await ines.PostAsync($"{Walk}/fix-list?handler=Bulk", Bulk("Withdrawn", "")));
        none.QuerySelector(".bulk-said")!.TextContent.ShouldContain("None was changed");
        none.QuerySelectorAll("input[name=numbers][checked]").Length.ShouldBe(2, "what was ticked stays so");
        (await Visitor.ParseAsync(await ines.PostAsync($"{Walk}/fix-list?handler=Bulk", Post(), ("to", "Asked"))))
            .QuerySelector(".bulk-said")!.TextContent.ShouldContain("Tick those");
    }

    [Fact]
    public async Task The_list_is_searched_grouped_and_compared_with_last_time()
    {
        var orla = await server.EnterAsync("orla");
        var list = await orla.ReadAsync($"{Trainer}/fix-list?by=LastTime");
        list.QuerySelectorAll(".group").Select(group => group.TextContent.Trim().Split(' ', '\n')[0]).ShouldBe(["New", "Again,", "Gone"]);
        list.QuerySelectorAll(".finds li").Select(row => row.TextContent).Count(row => row.Contains("again, was"))
            .ShouldBeGreaterThanOrEqualTo(3);
        var sought = (await orla.ReadAsync($"{Trainer}/fix-list?q=bracket%20baffle")).QuerySelectorAll(".finds li");
        sought.ShouldHaveSingleItem().TextContent.ShouldContain("Alternator bracket");
        (await orla.ReadAsync($"{Trainer}/fix-list?q=nothing-like-it")).QuerySelector(".empty")!.TextContent.ShouldContain("None of the");
        foreach (var by in Enum.GetValues<GroupBy>())
            (await orla.ReadAsync($"{Trainer}/fix-list?by={by}")).QuerySelectorAll(".finds li").Length.ShouldBe(33);
        (await orla.ReadAsync($"{Trainer}/fix-list?show=OwnerWaits")).QuerySelectorAll(".finds li")
            .ShouldHaveSingleItem().TextContent.ShouldContain("seat rail");
    }

    [Fact]
    public async Task The_place_shows_what_was_there_before_and_a_second_repair_warns()
    {
        var ines = await server.EnterAsync("ines");
        var bracket = Of(Trainer, "Alternator bracket");
        var page = await ines.ReadAsync($"{Trainer}/fix-list/{bracket.Number}");
        page.QuerySelector(".caution")!.TextContent.ShouldContain("a second repair at one place");
        page.QuerySelector(".place-side")!.TextContent.ShouldContain("stop-drilled, ear welded");
        page.QuerySelector(".help")!.TextContent.ShouldContain("Crack");
        var zone = (await ines.ReadAsync($"{Trainer}/engine/engine")).QuerySelector("#evidence")!.TextContent;
        zone.ShouldContain("Repaired here before");
        (await ines.ReadAsync($"{Trainer}/airframe/gear")).QuerySelector("#evidence")!.TextContent.ShouldContain("Known marks here");
    }

    [Fact]
    public async Task What_is_drawn_over_a_photo_is_measured_and_kept_beside_it()
    {
        var ines = await server.EnterAsync("ines");
        await ines.SendAsync($"{Walk}/find", [("crack.jpg", Picture())], Post(), ("what", "Crack to measure"), ("zone", "gear"),
            ("class", "Watch"));
        var found = Of(Walk, "Crack to measure");
        var path = $"{Walk}/fix-list/{found.Number}/photos/{found.Photos[0].Sha256}";
        const string drawing = """
            [{"kind":"scale","points":[{"x":100,"y":100},{"x":600,"y":100}],"pickPixels":1},
            {"kind":"length","points":[{"x":100,"y":300},{"x":200,"y":300}],"words":"crack","pickPixels":1}]
            """;
        (string, string)[] drawn = [("annotations", drawing), ("known", KnownLength.All[0].Title)];
        var unsaid = await Visitor.ParseAsync(await ines.PostAsync($"{path}?handler=Measure", drawn));
        unsaid.QuerySelector(".field-problem")!.TextContent.ShouldContain("Type the true distance");
        unsaid.QuerySelectorAll("#drawn > g").Length.ShouldBe(2, "what isn't measured yet is drawn all the same");
        unsaid.QuerySelectorAll(".size").Select(size => size.TextContent).ShouldBe(["? mm", "draw a scale first"]);
        unsaid.QuerySelectorAll("#drawn text").Select(label => label.TextContent.Trim()).ShouldContain("no scale yet · crack",
            "what the owner reads on the picture asks nothing of them");
        var said = await Visitor.ParseAsync(await ines.PostAsync($"{path}?handler=Measure", [.. drawn, ("knownMm", "50")]));
        said.QuerySelectorAll(".size")[1].TextContent.ShouldStartWith("10.00 ± 0.29 mm");
        said.QuerySelectorAll("#drawn text")[1].TextContent.ShouldBe("10.00 ± 0.29 mm · crack");
        said.QuerySelector(".field-problem").ShouldBeNull();
        (await ines.PostAsync(path, [Post(), ("seen", $"{found.Changes}"), .. drawn, ("knownMm", "50")])).StatusCode
            .ShouldBe(HttpStatusCode.Redirect);
        (await ines.ReadAsync($"{Walk}/fix-list/{found.Number}"))
            .QuerySelector(".annotated svg")!.GetAttribute("aria-label")!.ShouldContain("10.00 ± 0.29 mm");
        var late = await Visitor.ParseAsync(await ines.PostAsync(path, Post(), ("seen", $"{found.Changes}"), ("annotations", "[]")));
        late.QuerySelector(".field-problem[role=alert]")!.TextContent.ShouldContain("while you were drawing");
        late.QuerySelector("input[name=annotations]")!.GetAttribute("value").ShouldBe("[]", "what was drawn stays");
        foreach (var hostile in new[]
            { "null", "[null]", "{}", "[{\"kind\":\"arrow\"}]", new string('[', 5000), "[{\"kind\":7,\"points\":[]}]", "" })
            (await (await ines.PostAsync(path, Post(), ("seen", "99"), ("annotations", hostile))).Content.ReadAsStringAsync())
                .ShouldContain("field-problem");
        Of(Walk, "Crack to measure").Photos[0].Annotations!.Count.ShouldBe(2);
    }

    [Fact]
    public async Task An_earlier_photo_of_the_place_stands_beside_and_its_growth_is_said_with_its_uncertainty()
    {
        var ines = await server.EnterAsync("ines");
        var spinner = Of(Trainer, "Spinner backplate");
        var path = $"{Trainer}/fix-list/{spinner.Number}/photos/{spinner.Photos[0].Sha256}";
        var page = await ines.ReadAsync(path);
        var other = page.QuerySelector(".other-photos a")!.GetAttribute("href")!;
        page.QuerySelector(".photo-side")!.TextContent.ShouldContain("Grown by");
        var beside = await ines.ReadAsync(other);
        beside.QuerySelectorAll("[data-compare] input[name=how]").Length.ShouldBe(3);
        beside.QuerySelector("[data-over]")!.GetAttribute("href")
            .ShouldNotBe(beside.QuerySelector("[data-picture] image")!.GetAttribute("href"));
    }

    [Fact]
    public async Task A_known_mark_is_accepted_with_initials_or_tested_again()
    {
        // The tug's next inspection would carry it; here the trainer's marks are only read, and one is accepted and taken back.
        var orla = await server.EnterAsync("orla");
        var marks = await orla.ReadAsync($"{Trainer}/marks");
        marks.QuerySelectorAll(".mark-cards > li").Length.ShouldBe(2);
        marks.Body!.TextContent.ShouldContain("dye penetrant");
        (await orla.ReadAsync($"{Trainer}/close")).QuerySelectorAll("a.block").Count(block => block.TextContent.Contains("Known mark"))
            .ShouldBe(2);
        var mark = marks.QuerySelector("form[action*=Accept] input[name=mark]")!.GetAttribute("value")!;
        await orla.PostAsync($"{Trainer}/marks?handler=Accept", Post(), ("mark", mark));
        (await orla.ReadAsync($"{Trainer}/marks")).Body!.TextContent.ShouldContain("Accepted, OH");
        await orla.PostAsync($"{Trainer}/marks?handler=TakeBack", Post(), ("mark", mark));
        (await Visitor.ParseAsync(await orla.PostAsync($"{Trainer}/marks?handler=Accept", Post(), ("mark", $"{Guid.NewGuid()}"))))
            .QuerySelector(".field-problem")!.TextContent.ShouldContain("no such known mark");
    }

    [Fact]
    public async Task The_whole_list_leaves_as_json_csv_pdf_and_photos_by_place()
    {
        var orla = await server.EnterAsync("orla");
        using var json = JsonDocument.Parse(await (await orla.GetAsync($"{Trainer}/fix-list.json")).Content.ReadAsStringAsync());
        json.RootElement.GetProperty("format").GetString().ShouldBe("mellow-rivet-fix-list");
        var lines = json.RootElement.GetProperty("lines");
        lines.GetArrayLength().ShouldBe(33);
        var oil = lines.EnumerateArray()
            .Single(line => line.GetProperty("what").GetString()!.StartsWith("Oil at the pushrod tube", StringComparison.Ordinal));
        oil.GetProperty("judgement").GetProperty("inWords").GetString()!.ShouldContain("More than last time");
        oil.GetProperty("lowered")[0].GetProperty("by").GetString().ShouldBe("Orla Hob");
        lines[5].GetProperty("photos")[0].GetProperty("marks").GetArrayLength().ShouldBe(3);
        var csv = await (await orla.GetAsync($"{Trainer}/fix-list.csv")).Content.ReadAsStringAsync();
        csv.Split("\r\n", StringSplitOptions.RemoveEmptyEntries).Length.ShouldBe(34);
        using var zip = new ZipArchive(await (await orla.GetAsync($"{Trainer}/fix-list/photos.zip")).Content.ReadAsStreamAsync());
        var names = zip.Entries.Select(entry => entry.FullName).ToList();
        names.Count.ShouldBe(33);
        names.Order(StringComparer.Ordinal).Select(name => name[..2])
            .ShouldBe(names.Select(name => name[..2]).Order(StringComparer.Ordinal), "names sort by place");
        names.ShouldAllBe(name => name.EndsWith(".jpg"));
        var pdf = await (await orla.GetAsync($"{Trainer}/fix-list/report.pdf")).Content.ReadAsByteArrayAsync();
        Encoding.ASCII.GetString(pdf[..5]).ShouldBe("%PDF-");
        Encoding.Latin1.GetString(pdf).Split("/Subtype /Image").Length.ShouldBeGreaterThan(20, "with its photos");
    }

    [Fact]
    public async Task A_shared_photo_is_taken_only_from_the_phone_itself()
    {
        var answer = await (await server.EnterAsync("tamsin")).SendAsync("/share", [("wing.jpg", Picture())]);
        answer.StatusCode.ShouldBe(HttpStatusCode.Forbidden, "no browser said where it came from");
        using var http = new HttpClient { BaseAddress = server.Address };
        http.DefaultRequestHeaders.Add("Sec-Fetch-Site", "cross-site");
        (await http.PostAsync(new Uri("/share", UriKind.Relative),
            new MultipartFormDataContent
                { { new ByteArrayContent(Picture()), "photos", "a.jpg" } })).RequestMessage!.RequestUri!.AbsolutePath.ShouldBe("/enter");

        var tamsin = await server.EnterAsync("tamsin");
        var shared = await Visitor.ParseAsync(await tamsin.ShareAsync(Picture(), "Fairing seam opens"));
        var find = shared.QuerySelectorAll("a.btn-verdict").Single(link => link.TextContent.Contains("N0BRM")).GetAttribute("href")!;
        var form = await tamsin.ReadAsync(find);
        form.QuerySelector("textarea[name=what]")!.TextContent.ShouldBe("Fairing seam opens");
        var kept = form.QuerySelector("input[name=kept]")!.GetAttribute("value")!;
        await tamsin.PostAsync($"{Walk}/find", Post(), ("what", "Shared: fairing seam opens"), ("zone", "gear"), ("class", "Watch"),
            ("why", "only just"), ("kept", kept), ("kept", new string('0', 64)), ("kept", "../../rivet.db"));
        Of(Walk, "Shared: fairing").Photos.ShouldHaveSingleItem().Sha256.ShouldBe(kept);
    }

    [Fact]
    public async Task The_shops_rules_of_asking_and_money_are_set_and_checked()
    {
        var orla = await server.EnterAsync("orla");
        var wrong = await Visitor.ParseAsync(
            await orla.PostAsync("/shelf?handler=House", Post(), ("inspector", "AirworthinessItems"), ("firstLook", "true"),
                ("askFirst", "true"), ("preAuthorised", "-3"), ("labourRate", "95"), ("money", "$")));
        wrong.QuerySelector(".field-problem")!.TextContent.ShouldContain("Sums from 0 up");
        (await orla.PostAsync("/shelf?handler=House", Post(), ("inspector", "AirworthinessItems"), ("firstLook", "true"),
            ("preAuthorised", "0"), ("labourRate", "95"), ("money", "$"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        server.With(db => db.Shop.Single().Rules).ShouldBe(new(SeparateInspector.AirworthinessItems, LabourRate: 95));
    }
}
