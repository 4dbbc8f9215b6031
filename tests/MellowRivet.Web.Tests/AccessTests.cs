using System.Net;
using System.Text.RegularExpressions;
using MellowRivet.Web.Hosting;

namespace MellowRivet.Web.Tests;

public class AccessTests(DemoServer server)
{
    [Theory]
    [InlineData("/")]
    [InlineData("/shelf")]
    [InlineData("/people")]
    [InlineData("/take-in")]
    [InlineData("/shelf/tools")]
    [InlineData("/shelf/worksheets/app-d")]
    [InlineData("WALK/look")]
    [InlineData("WALK/tags")]
    [InlineData("WALK/labels")]
    [InlineData("WALK/tools")]
    [InlineData("WALK/inspect")]
    [InlineData("WALK/events")]
    [InlineData("WALK/fix-list")]
    [InlineData("WALK/fix-list/1")]
    [InlineData("WALK/fix-list.json")]
    [InlineData("WALK/fix-list.csv")]
    [InlineData("WALK/fix-list/photos.zip")]
    [InlineData("WALK/fix-list/report.pdf")]
    [InlineData("WALK/marks")]
    [InlineData("WALK/plugs")]
    [InlineData("WALK/plug-labels")]
    [InlineData("SHEET")]
    [InlineData("WALK/engine-logs")]
    [InlineData("WALK/pressure-altitude")]
    [InlineData("FILE/trends")]
    [InlineData("FILE/trends.csv")]
    [InlineData("FILE/trends.json")]
    [InlineData("/bench/practice")]
    [InlineData("/bench")]
    [InlineData("/bench/plug")]
    [InlineData("/outbox")]
    [InlineData("/share")]
    [InlineData("/sounds/aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa")]
    [InlineData("WALK/close")]
    [InlineData("WALK/records")]
    [InlineData("WALK/bulletins")]
    [InlineData("WALK/bulletins/status")]
    [InlineData("FILE/bulletins")]
    [InlineData("FILE/bulletins.csv")]
    [InlineData("/bulletins")]
    [InlineData("/bulletins/new")]
    [InlineData("/bulletins.json")]
    [InlineData("/documents/aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa")]
    [InlineData("WALK/plan")]
    [InlineData("FILE")]
    [InlineData("FILE/parts")]
    [InlineData("FILE/times")]
    [InlineData("FILE/books")]
    [InlineData("FILE/file.json")]
    [InlineData("FILE/times.csv")]
    [InlineData("FILE/due.ics")]
    [InlineData("/due")]
    [InlineData("/due.ics")]
    [InlineData("/who-may")]
    [InlineData("/photos/aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa/thumb")]
    public async Task A_stranger_sees_nothing_and_is_sent_to_the_door(string path)
    {
        var answer = await server.Stranger().GetAsync(path.Replace("SHEET", server.Sheet("N04QF")).Replace("WALK", server.Walk("N04QF")).Replace("FILE", server.FileOf("N04QF")));
        answer.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        answer.Headers.Location!.OriginalString.ShouldContain("/enter");
    }

    // Handler by handler, who is let in. 403 is the shop's answer to a role without the right; anything else means the handler ran.
    [Theory]
    [InlineData("WALK/airframe/cabin?handler=Verdict", "orla ines wim tamsin piet")]
    [InlineData("WALK/airframe/cabin?handler=Limit", "orla ines wim")]
    [InlineData("WALK/airframe/cabin?handler=Undo", "orla ines wim tamsin piet")]
    [InlineData("WALK/airframe/cabin?handler=Table", "orla ines wim")]
    [InlineData("WALK/airframe/cabin?handler=Tie", "orla ines wim tamsin piet")]
    [InlineData("WALK/airframe/cabin?handler=Take", "orla ines wim tamsin piet")]
    [InlineData("WALK/look?handler=Looked", "orla ines wim tamsin piet")]
    [InlineData("WALK/look?handler=Again&zone=none", "orla ines wim tamsin piet")]
    [InlineData("WALK/look?handler=Missed", "orla ines wim tamsin piet")]
    [InlineData("WALK/look?handler=Mark", "orla ines wim tamsin piet")]
    [InlineData("WALK/tags?handler=Open", "orla ines wim tamsin piet")]
    [InlineData("WALK/tags?handler=Close", "orla ines wim tamsin piet")]
    [InlineData("WALK/tags?handler=Reopen", "orla ines wim tamsin piet")]
    [InlineData("WALK/tools?handler=Out", "orla ines wim tamsin piet")]
    [InlineData("WALK/tools?handler=In", "orla ines wim tamsin piet")]
    [InlineData("WALK/tools?handler=Object", "orla ines wim tamsin piet")]
    [InlineData("WALK/inspect", "orla ines wim")]
    [InlineData("WALK/plan?handler=TakeIn", "orla ines wim tamsin piet")]
    [InlineData("WALK/bulletins?handler=TakeIn", "orla ines wim tamsin piet")]
    [InlineData("WALK/bulletins?handler=Comply", "orla ines wim")]
    [InlineData("WALK/bulletins/status", "orla ines wim perpetua")]
    [InlineData("FILE/bulletins?handler=Read", "orla ines wim tamsin piet")]
    [InlineData("FILE/bulletins?handler=Decide", "orla ines wim")]
    [InlineData("FILE/bulletins?handler=Comply", "orla ines wim")]
    [InlineData("FILE/bulletins?handler=TakeBack", "orla ines wim")]
    [InlineData("FILE/bulletins?handler=Ferry", "orla ines wim")]
    [InlineData("/bulletins?handler=Import", "orla ines wim")]
    [InlineData("/bulletins/new", "orla ines wim")]
    [InlineData("BULLETIN?handler=Attach", "orla ines wim")]
    [InlineData("BULLETIN/edit", "orla ines wim")]
    [InlineData("/shelf?handler=House", "orla")]
    [InlineData("/shelf?handler=New", "orla ines wim")]
    [InlineData("/shelf/tools", "orla ines wim")]
    [InlineData("/shelf/worksheets/nowhere?handler=Begin", "orla ines wim")]
    [InlineData("/shelf/worksheets/nowhere?handler=Task", "orla ines wim")]
    [InlineData("/shelf/worksheets/nowhere?handler=TakeOut", "orla ines wim")]
    [InlineData("/shelf/worksheets/nowhere?handler=Move", "orla ines wim")]
    [InlineData("/shelf/worksheets/nowhere?handler=Zone", "orla ines wim")]
    [InlineData("/shelf/worksheets/nowhere?handler=Offer", "orla ines wim")]
    [InlineData("/shelf/worksheets/nowhere?handler=TakeOutZone", "orla ines wim")]
    [InlineData("/shelf/worksheets/nowhere?handler=MoveZone", "orla ines wim")]
    [InlineData("/shelf/worksheets/nowhere?handler=Import", "orla ines wim")]
    [InlineData("/shelf/worksheets/nowhere?handler=Publish", "orla ines wim")]
    [InlineData("/shelf/worksheets/nowhere?handler=Drop", "orla ines wim")]
    [InlineData("WALK/compressions?handler=Begin", "orla ines wim tamsin piet")]
    [InlineData("WALK/compressions?handler=Reading", "orla ines wim tamsin piet")]
    [InlineData("WALK/compressions?handler=JudgedBy", "orla ines wim")]
    [InlineData("WALK/plugs?handler=Step", "orla ines wim tamsin piet")]
    [InlineData("WALK/plugs?handler=Dropped", "orla ines wim tamsin piet")]
    [InlineData("WALK/plugs?handler=Move", "orla ines wim tamsin piet")]
    [InlineData("WALK/plugs?handler=Rotate&pattern=9", "orla ines wim tamsin piet")]
    [InlineData("WALK/plugs?handler=Fit", "orla ines wim tamsin piet")]
    [InlineData("WALK/plugs?handler=Set", "orla ines wim tamsin piet")]
    [InlineData("SHEET?handler=Value", "orla ines wim tamsin piet")]
    [InlineData("SHEET?handler=Look", "orla ines wim tamsin piet")]
    [InlineData("SHEET?handler=Cut", "orla ines wim tamsin piet")]
    [InlineData("SHEET?handler=Lab", "orla ines wim tamsin piet")]
    [InlineData("WALK/engine-logs?handler=Upload", "orla ines wim tamsin piet")]
    [InlineData("WALK/engine-logs?handler=Take", "orla ines wim tamsin piet")]
    [InlineData("WALK/engine-logs?handler=Fill", "orla ines wim tamsin piet")]
    [InlineData("WALK/pressure-altitude", "orla ines wim tamsin piet")]
    [InlineData("SHEET?handler=Benched", "orla ines wim tamsin piet")]
    [InlineData("WALK/fix-list?handler=Bulk", "orla ines wim")]
    [InlineData("WALK/fix-list/1?handler=Move", "orla ines wim")]
    [InlineData("WALK/fix-list/1?handler=Defer", "orla ines wim")]
    [InlineData("WALK/fix-list/1?handler=Examine", "orla ines wim")]
    [InlineData("WALK/fix-list/1?handler=Estimate", "orla ines wim")]
    [InlineData("WALK/fix-list/1?handler=Describe", "orla ines wim tamsin piet")]
    [InlineData("WALK/fix-list/1?handler=Attach", "orla ines wim tamsin piet")]
    [InlineData("WALK/fix-list/1?handler=Again", "orla ines wim tamsin piet")]
    [InlineData("WALK/fix-list/1/photos/none", "orla ines wim tamsin piet")]
    [InlineData("WALK/fix-list/1/photos/none?handler=Measure", "orla ines wim tamsin piet perpetua")]
    [InlineData("WALK/fix-list/owner", "orla ines wim")]
    [InlineData("WALK/fix-list/owner?handler=Revoke", "orla ines wim")]
    [InlineData("WALK/marks?handler=Accept", "orla ines wim")]
    [InlineData("WALK/marks?handler=TakeBack", "orla ines wim")]
    [InlineData("WALK/marks?handler=Test", "orla ines wim tamsin piet")]
    [InlineData("WALK/find", "orla ines wim tamsin piet")]
    [InlineData("WALK/fix-list/1?handler=Correct", "orla ines wim")]
    [InlineData("WALK/fix-list/1?handler=Classify", "orla ines wim")]
    [InlineData("WALK/close", "orla ines wim perpetua")]
    [InlineData("WALK/fix-list/1?handler=Watch", "orla ines wim")]
    [InlineData("WALK/arrive?handler=Hear", "orla ines wim tamsin piet")]
    [InlineData("WALK/arrive?handler=Answer", "orla ines wim tamsin piet")]
    [InlineData("WALK/arrive?handler=Photo", "orla ines wim tamsin piet")]
    [InlineData("WALK/arrive?handler=Pin", "orla ines wim tamsin piet")]
    [InlineData("WALK/arrive?handler=Unpin", "orla ines wim tamsin piet")]
    [InlineData("WALK/arrive?handler=Aboard", "orla ines wim tamsin piet")]
    [InlineData("WALK/arrive?handler=Meter", "orla ines wim tamsin piet")]
    [InlineData("WALK/plan?handler=Done", "orla ines wim")]
    [InlineData("WALK/plan?handler=Choose", "orla ines wim")]
    [InlineData("FILE?handler=Done", "orla ines wim")]
    [InlineData("FILE?handler=Keep", "orla ines wim")]
    [InlineData("FILE?handler=Retire", "orla ines wim")]
    [InlineData("FILE?handler=TakeBack", "orla ines wim")]
    [InlineData("FILE/parts?handler=Fit", "orla ines wim")]
    [InlineData("FILE/parts?handler=TakeOff", "orla ines wim")]
    [InlineData("FILE/parts?handler=Move", "orla ines wim")]
    [InlineData("FILE/parts?handler=Overhauled", "orla ines wim")]
    [InlineData("FILE/parts?handler=Plate", "orla ines wim")]
    [InlineData("FILE/times?handler=Read", "orla ines wim tamsin piet")]
    [InlineData("FILE/times?handler=Look", "orla ines wim tamsin piet")]
    [InlineData("FILE/times?handler=Take", "orla ines wim tamsin piet")]
    [InlineData("FILE/books?handler=Book", "orla ines wim tamsin piet")]
    [InlineData("FILE/books?handler=Entry", "orla ines wim tamsin piet")]
    [InlineData("FILE/books?handler=Pages", "orla ines wim tamsin piet")]
    [InlineData("FILE/books?handler=Explain", "orla ines wim tamsin piet")]
    [InlineData("FILE/data-plate", "orla ines wim")]
    [InlineData("/aircraft/new", "orla ines wim")]
    [InlineData("/aircraft/import", "orla ines wim")]
    [InlineData("/due/calendar", "orla ines wim tamsin piet perpetua")]
    [InlineData("/take-in", "orla ines wim")]
    [InlineData("/people", "orla")]
    public async Task Each_handler_lets_in_those_who_have_the_right(string path, string allowed)
    {
        foreach (var name in new[] { "orla", "ines", "wim", "tamsin", "piet", "perpetua" })
        {
            var visitor = await server.EnterAsync(name);
            var answer = await visitor.PostAsync(path.Replace("BULLETIN", server.With(db => $"/bulletins/{db.Bulletins.AsEnumerable().First(held => held.Bulletin.Number == "PD2-SL-09").Id}")).Replace("SHEET", server.Sheet("N04QF")).Replace("WALK", server.Walk("N04QF")).Replace("FILE", server.FileOf("N0FLD")));
            (answer.StatusCode != HttpStatusCode.Forbidden).ShouldBe(allowed.Split(' ').Contains(name), $"{name} at {path}: {answer.StatusCode}");
        }
    }

    [Fact]
    public async Task A_post_without_its_form_token_is_refused() =>
        (await (await server.EnterAsync("ines")).ForgeAsync($"{server.Walk("N04QF")}/find")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);

    [Fact]
    public async Task Five_wrong_passwords_rest_the_sign_in()
    {
        var visitor = server.Stranger();
        for (var guess = 0; guess < 5; guess++)
            await visitor.PostAsync("/enter", ("name", "piet"), ("password", "wrong-password"));
        var answer = await visitor.PostAsync("/enter", ("name", "piet"), ("password", Demo.DemoShop.Password));
        (await answer.Content.ReadAsStringAsync()).ShouldContain("rests for five minutes");
        server.With(db => db.Users.Single(user => user.UserName == "piet").LockoutEnd).ShouldNotBeNull();
        await UnlockAsync("piet");
    }

    [Fact]
    public async Task Every_answer_carries_a_strict_policy_and_no_page_an_inline_script_or_style()
    {
        var visitor = await server.EnterAsync("orla");
        var (walk, file) = (server.Walk("N04QF"), server.FileOf("N04QF"));
        foreach (var path in new[] { "/", "/shelf", "/people", "/take-in", $"{walk}/engine/engine", $"{walk}/compressions", $"{walk}/plugs", $"{walk}/plug-labels", server.Sheet("N04QF"), "/bench", "/bench/plug-rotation", "/bench/magneto?pointsOpenDegrees=10", "/bench/practice", "/bench/practice/stuck-ring", $"{walk}/engine-logs", $"{walk}/pressure-altitude", $"{file}/trends", $"{walk}/find", $"{walk}/fix-list", $"{walk}/fix-list/1", $"{walk}/fix-list/owner", $"{walk}/fix-list/report", $"{walk}/marks", "/share", $"{walk}/close", $"{walk}/arrive", $"{walk}/plan", $"{walk}/look?zone=engine", $"{walk}/bulletins", $"{walk}/bulletins/status", $"{file}/bulletins", "/bulletins", "/bulletins/new", $"{walk}/tags", $"{walk}/labels", $"{walk}/tools", $"{walk}/inspect", "/shelf/tools", "/shelf/worksheets/lubrication", "/due", "/who-may?job=tyre", "/aircraft/new", "/aircraft/import", file, $"{file}/parts", $"{file}/times", $"{file}/books", $"{file}/data-plate" })
        {
            var answer = await visitor.GetAsync(path);
            answer.StatusCode.ShouldBe(HttpStatusCode.OK, path);
            var policy = answer.Headers.GetValues("Content-Security-Policy").Single();
            policy.ShouldContain("default-src 'none'");
            policy.ShouldContain("script-src 'self'");
            policy.ShouldNotContain("unsafe");
            Regex.IsMatch(await answer.Content.ReadAsStringAsync(), """<script(?![^>]*src=)|<style|\sstyle=|\son\w+="|https?://(?!www\.w3\.org)""").ShouldBeFalse(path);
        }
    }

    [Fact]
    public async Task A_shop_without_an_account_shows_its_first_run_and_then_never_again()
    {
        var data = new Store.DataFolder(Path.Combine(Path.GetTempPath(), $"rivet-first-{Guid.NewGuid():N}"));
        var settings = new RivetSettings(data) { Port = 0 };
        await using var app = RivetApp.Build(settings);
        await RivetApp.PrepareAsync(app, settings, default);
        await app.StartAsync();
        var visitor = new Visitor(new(app.Urls.First()));
        (await visitor.GetAsync("/")).Headers.Location!.OriginalString.ShouldBe("/first-run");

        var poor = await Visitor.ParseAsync(await visitor.PostAsync("/first-run", ("Form.Name", "Ada"), ("Form.Initials", "AD"), ("Form.SignInName", "ada"), ("Form.Password", "short")));
        poor.QuerySelector("input[name='Form.Name']")!.GetAttribute("value").ShouldBe("Ada", "what was typed stays");
        poor.QuerySelectorAll(".field-problem").ShouldHaveSingleItem().TextContent.ShouldContain("10 characters");

        (await visitor.PostAsync("/first-run", ("Form.Name", "Ada"), ("Form.Initials", "AD"), ("Form.SignInName", "ada"), ("Form.Password", "long-enough-now"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await visitor.ReadAsync("/")).Body!.TextContent.ShouldContain("No aircraft yet");
        (await visitor.GetAsync("/first-run")).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await visitor.PostAsync("/first-run", ("Form.Name", "Eve"))).Headers.Location!.OriginalString.ShouldBe("/");
        await app.StopAsync();
        Directory.Delete(data.Path, recursive: true);
    }

    [Fact]
    public async Task Only_the_demo_lets_anyone_in_without_a_password()
    {
        (await server.Stranger().PostAsync("/enter?handler=As", ("name", "nobody"))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await server.Stranger().PostAsync("/enter?handler=As", ("name", "tamsin"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
    }

    [Fact]
    public async Task A_return_address_elsewhere_is_not_followed()
    {
        var answer = await server.Stranger().PostAsync("/enter", ("name", "ines"), ("password", Demo.DemoShop.Password), ("returnUrl", "https://example.org/"));
        answer.Headers.Location!.OriginalString.ShouldBe("/");
    }

    private Task UnlockAsync(string name) => server.With(async db =>
    {
        db.Users.Single(user => user.UserName == name).LockoutEnd = null;
        await db.SaveChangesAsync();
    });
}
