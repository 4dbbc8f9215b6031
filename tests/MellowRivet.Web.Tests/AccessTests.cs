using System.Net;
using System.Text.RegularExpressions;
using MellowRivet.Web.Hosting;
using Microsoft.Extensions.DependencyInjection;

namespace MellowRivet.Web.Tests;

public class AccessTests(DemoServer server) : IClassFixture<DemoServer>
{
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
        foreach (var path in new[] { "/", "/shelf", "/people", "/take-in", $"{walk}/engine/engine", $"{walk}/compressions", $"{walk}/plugs",
            $"{walk}/plug-labels", server.Sheet("N04QF"), "/bench", "/bench/plug-rotation", "/bench/magneto?pointsOpenDegrees=10",
            "/bench/practice", "/bench/practice/stuck-ring", $"{walk}/engine-logs", $"{walk}/pressure-altitude", $"{file}/trends",
            $"{walk}/find", $"{walk}/fix-list", $"{walk}/fix-list/1", $"{walk}/fix-list/owner", $"{walk}/fix-list/report", $"{walk}/marks",
            "/share", $"{walk}/close", $"{walk}/arrive", $"{walk}/plan", $"{walk}/look?zone=engine", $"{walk}/bulletins",
            $"{walk}/bulletins/status", $"{file}/bulletins", "/bulletins", "/bulletins/new", $"{walk}/tags", $"{walk}/labels",
            $"{walk}/tools", $"{walk}/inspect", "/shelf/tools", "/shelf/worksheets/lubrication", "/due", "/who-may?job=tyre",
            "/aircraft/new", "/aircraft/import", file, $"{file}/parts", $"{file}/times", $"{file}/books", $"{file}/data-plate" })
        {
            var answer = await visitor.GetAsync(path);
            answer.StatusCode.ShouldBe(HttpStatusCode.OK, path);
            var policy = answer.Headers.GetValues("Content-Security-Policy").Single();
            policy.ShouldContain("default-src 'none'");
            policy.ShouldContain("script-src 'self'");
            policy.ShouldNotContain("unsafe");
            Regex.IsMatch(await answer.Content.ReadAsStringAsync(),
                """<script(?![^>]*src=)|<style|\sstyle=|\son\w+="|https?://(?!www\.w3\.org)""").ShouldBeFalse(path);
        }
    }

    [Fact]
    public async Task A_shop_without_an_account_shows_its_first_run_and_then_never_again()
    {
        var data = new Store.DataFolder(Path.Combine(Path.GetTempPath(), $"rivet-first-{Guid.NewGuid():N}"));
        var settings = new RivetSettings(data) { Port = 0 };
        await using var app = await RivetApp.OpenAsync(settings, default);
        await app.StartAsync();
        var visitor = new Visitor(new(app.Urls.First()));
        (await visitor.GetAsync("/")).Headers.Location!.OriginalString.ShouldBe("/first-run");

        (string, string)[] ada = [("Form.Name", "Ada"), ("Form.Initials", "AD"), ("Form.SignInName", "ada"),
            ("shop", "Reedmere, Tarn End")];
        var guessed = await Visitor.ParseAsync(await visitor.PostAsync("/first-run", [.. ada, ("Form.Password", "otters mend clocks"),
            ("typedCode", "AAAAA-AAAAA")]));
        guessed.QuerySelectorAll(".field-problem").ShouldHaveSingleItem().TextContent.ShouldContain("isn’t the code");
        var code = ("typedCode", app.Services.GetRequiredService<Access.FirstRunCode>().Code);
        var poor = await Visitor.ParseAsync(await visitor.PostAsync("/first-run", [.. ada, ("Form.Password", "short"), code]));
        poor.QuerySelector("input[name='Form.Name']")!.GetAttribute("value").ShouldBe("Ada", "what was typed stays");
        poor.QuerySelector("input[name=typedCode]")!.GetAttribute("value").ShouldBe(code.Item2);
        poor.QuerySelector("input[name=shop]")!.GetAttribute("value").ShouldBe("Reedmere, Tarn End");
        poor.QuerySelectorAll(".field-problem").ShouldHaveSingleItem().TextContent.ShouldContain("From 10 to 128 characters");
        var guessable = await Visitor.ParseAsync(await visitor.PostAsync("/first-run", [.. ada, ("Form.Password", "reedmere-tarn"), code]));
        guessable.QuerySelectorAll(".field-problem").ShouldHaveSingleItem().TextContent.ShouldContain("words of this place");
        var long81 = await Visitor.ParseAsync(await visitor.PostAsync("/first-run", [.. ada[..3], ("shop", new string('x', 81)), code]));
        long81.QuerySelectorAll(".field-problem").ShouldHaveSingleItem().TextContent.ShouldContain("up to 80");

        (await visitor.PostAsync("/first-run", [.. ada, ("Form.Password", "otters mend clocks"), code])).StatusCode
            .ShouldBe(HttpStatusCode.Redirect);
        (await visitor.ReadAsync("/")).Body!.TextContent.ShouldContain("No aircraft yet");
        (await new Visitor(new(app.Urls.First())).ReadAsync("/enter")).QuerySelector("h1")!.TextContent
            .ShouldBe("Enter Reedmere, Tarn End");
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
        var answer = await server.Stranger()
            .PostAsync("/enter", ("name", "ines"), ("password", Demo.DemoShop.Password), ("returnUrl", "https://example.org/"));
        answer.Headers.Location!.OriginalString.ShouldBe("/");
    }

    private Task UnlockAsync(string name) => server.With(async db =>
    {
        db.Users.Single(user => user.UserName == name).LockoutEnd = null;
        await db.SaveChangesAsync();
    });
}
