using System.Net;
using System.Text;
using System.Text.Json;
using AngleSharp.Dom;
using MellowRivet.Core.Bulletins;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace MellowRivet.Web.Tests;

public class BulletinPagesTests(DemoServer server) : IClassFixture<DemoServer>
{
    private static string Post => Guid.NewGuid().ToString();

    private static async Task<IElement> RowAsync(Visitor visitor, string path, string number)
    {
        var page = await visitor.ReadAsync(path);
        return page.QuerySelectorAll(".bulletins a").First(link => link.QuerySelector("b")!.TextContent == number);
    }

    private static string KeyOf(IElement row) => row.GetAttribute("href")!.Split("b=")[1];

    [Fact]
    public async Task A_directive_before_next_flight_keeps_the_aircraft_on_the_ground_in_the_hangar()
    {
        var page = await (await server.EnterAsync("tamsin")).ReadAsync("/");
        page.QuerySelector(".what-now")!.TextContent.ShouldContain("N0TWQ stays on the ground. AD 2026-20-07");
        page.QuerySelectorAll("tr")
            .First(row => row.TextContent.Contains("N0TWQ")).TextContent.ShouldContain("AD 2026-20-07 before next flight");
    }

    [Fact]
    public async Task A_ferry_is_noted_by_its_conditions_and_the_hangar_says_what_is_left()
    {
        var (ines, file) = (await server.EnterAsync("ines"), server.FileOf("N0TWQ"));
        var key = KeyOf(await RowAsync(ines, $"{file}/bulletins", "AD 2026-20-07"));
        var open = await Visitor.ParseAsync(
            await ines.PostAsync($"{file}/bulletins?handler=Ferry&b={key}", ("post", Post), ("b", key),
                ("ticked", "Gear down and pinned for the flight")));
        open.QuerySelector(".field-problem")!.TextContent.ShouldContain("Not ticked: Dye check of both end caps clean");
        (await ines.PostAsync($"{file}/bulletins?handler=Ferry&b={key}", ("post", Post), ("b", key),
            ("ticked", "Gear down and pinned for the flight"), ("ticked", "Dye check of both end caps clean"),
            ("ticked", "Day, in sight of the ground"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await ines.ReadAsync("/")).QuerySelectorAll("tr")
            .First(row => row.TextContent.Contains("N0TWQ")).TextContent.ShouldContain("ferry only, 4.0 h left");
        // Flown on beyond it: it is due, not done, and by how much is said.
        await server.With(async db =>
        {
            var flown = db.BulletinFollowUps.AsEnumerable().Single(one => one.Ferry is not null);
            db.Entry(flown).Property(one => one.Ferry).CurrentValue = flown.Ferry! with { AtHours = flown.Ferry.AtHours - 6.5m };
            await db.SaveChangesAsync();
        });
        (await ines.ReadAsync("/")).QuerySelectorAll("tr")
            .First(row => row.TextContent.Contains("N0TWQ")).TextContent.ShouldContain(
                "due, not done, ferry overrun by 2.5 h, of 4 h allowed");
        (await ines.ReadAsync($"{file}/bulletins?b={key}"))
            .QuerySelector(".right")!.TextContent.ShouldContain("Due, not done: ferry overrun by 2.5 h");
        await server.With(async db =>
        {
            db.BulletinFollowUps.RemoveRange(db.BulletinFollowUps.AsEnumerable().Where(one => one.Ferry is not null));
            await db.SaveChangesAsync();
        });
    }

    [Fact]
    public async Task An_alert_before_next_flight_that_nobody_has_decided_about_stands_in_the_hangar()
    {
        var (ines, file) = (await server.EnterAsync("ines"), server.FileOf("N0FLD"));
        var key = KeyOf(await RowAsync(ines, $"{file}/bulletins", "LT-B-05"));
        async Task<string> HangarAsync() => (await ines.ReadAsync("/")).Body!.TextContent;
        (await HangarAsync()).ShouldContain("LT-B-05 before next flight: nobody has decided");
        (await HangarAsync()).ShouldContain("N0FLD: decide before it flies");
        await ines.PostAsync($"{file}/bulletins?handler=Decide&b={key}", ("post", Post), ("b", key), ("kind", "Declined"),
            ("reason", "flown with the wings pinned"));
        (await HangarAsync()).ShouldNotContain("LT-B-05");
        await ines.PostAsync($"{file}/bulletins?handler=Decide&b={key}", ("post", Post), ("b", key), ("kind", ""));
        (await HangarAsync()).ShouldContain("nobody has decided");
    }

    [Fact]
    public async Task A_binding_one_is_not_declined_and_an_advisory_one_keeps_its_reason()
    {
        var (ines, file) = (await server.EnterAsync("ines"), server.FileOf("N04QF"));
        var advice = KeyOf(await RowAsync(ines, $"{file}/bulletins", "PD2-SL-09"));
        var empty = await Visitor.ParseAsync(
            await ines.PostAsync($"{file}/bulletins?handler=Decide&b={advice}", ("post", Post), ("b", advice), ("kind", "Declined"),
                ("reason", " ")));
        empty.QuerySelector(".right .field-problem")!.TextContent.ShouldContain("Say why");
        (await ines.PostAsync($"{file}/bulletins?handler=Decide&b={advice}", ("post", Post), ("b", advice), ("kind", "Declined"),
            ("reason", "seals are new"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await RowAsync(ines, $"{file}/bulletins", "PD2-SL-09")).TextContent.ShouldContain("seals are new");
        await ines.PostAsync($"{file}/bulletins?handler=Decide&b={advice}", ("post", Post), ("b", advice), ("kind", ""));
        var binding = KeyOf(await RowAsync(ines, $"{file}/bulletins", "AD 2020-17-03"));
        (await Visitor.ParseAsync(
            await ines.PostAsync($"{file}/bulletins?handler=Decide&b={binding}", ("post", Post), ("b", binding), ("kind", "Declined"),
                ("reason", "no")))).Body!.TextContent.ShouldNotContain("Declined by");
        server.With(db => db.BulletinFollowUps.AsEnumerable().Count(one => one.Policy?.Reason == "no")).ShouldBe(0);
    }

    [Fact]
    public async Task What_the_books_tell_is_noted_and_what_was_typed_stays_where_it_is_refused()
    {
        var (ines, file) = (await server.EnterAsync("ines"), server.FileOf("N0TWQ"));
        var key = KeyOf(await RowAsync(ines, $"{file}/bulletins", "OC-32-08"));
        var refused = await Visitor.ParseAsync(
            await ines.PostAsync($"{file}/bulletins?handler=Comply&b={key}", ("post", Post), ("b", key), ("on", "2031-01-01"),
                ("hours", "5190"), ("method", "bushes"), ("reference", "book 3, p. 90")));
        refused.QuerySelector(".right .field-problem")!.TextContent.ShouldContain("still to come");
        refused.QuerySelector(".right input[name=reference]")!.GetAttribute("value").ShouldBe("book 3, p. 90");
        var today = DemoServer.Today.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);
        (await ines.PostAsync($"{file}/bulletins?handler=Comply&b={key}", ("post", Post), ("b", key), ("on", today), ("hours", "5187.3"),
            ("method", "bushes 0.001 in"), ("reference", "book 3, p. 90"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await RowAsync(ines, $"{file}/bulletins", "OC-32-08")).TextContent.ShouldContain("at 5287.3 h, 100.0 h left");
        (await ines.ReadAsync(file)).Body!.TextContent.ShouldContain("OC-32-08: Nose gear drag link");
        await ines.PostAsync($"{file}/bulletins?handler=TakeBack&b={key}", ("post", Post), ("b", key));
    }

    [Fact]
    public async Task A_plate_is_read_with_its_picture_by_whoever_stands_there()
    {
        var (tamsin, file) = (await server.EnterAsync("tamsin"), server.FileOf("N0FLD"));
        var key = KeyOf(await RowAsync(tamsin, $"{file}/bulletins", "TS2-3"));
        var nothing = await Visitor.ParseAsync(
            await tamsin.PostAsync($"{file}/bulletins?handler=Read&b={key}", ("post", Post), ("b", key),
                ("fact", "engine.crankshaft.serial"), ("value", "")));
        nothing.QuerySelector(".right .field-problem")!.TextContent.ShouldContain("Type what you read");
        var answer = await tamsin.SendAsync($"{file}/bulletins?handler=Read&b={key}", "photo", [("plate.txt", "no picture"u8.ToArray())],
            ("post", Post), ("b", key), ("fact", "engine.crankshaft.serial"), ("value", "KW-20"));
        (await Visitor.ParseAsync(answer)).QuerySelector(".right .field-problem")
            .ShouldNotBeNull("what is no picture is refused, and nothing is kept");
        (await tamsin.PostAsync($"{file}/bulletins?handler=Read&b={key}", ("post", Post), ("b", key), ("fact", "engine.crankshaft.serial"),
            ("value", "KW-20"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await RowAsync(tamsin, $"{file}/bulletins", "TS2-3")).Closest("details")!.Id.ShouldBe("Advisory");
        (await tamsin.ReadAsync($"{file}/parts")).Body!.TextContent.ShouldContain("KW-20");
    }

    [Fact]
    public async Task A_bulletin_is_typed_tried_on_the_shop_changed_and_clashes_are_named()
    {
        var ines = await server.EnterAsync("ines");
        var preview =
            await (await ines.GetAsync(
                $"/bulletins/new?handler=Preview&about=Engine&rule={Uri.EscapeDataString(
                    "engine.serial in TF4-2000 to TF4-2400")}")).Content.ReadAsStringAsync();
        preview.ShouldContain("N04QF");
        preview.ShouldContain("applies");
        (string, string)[] typed = [("issuer", "Typed Issuer"), ("number", "TI-1"), ("kind", "OptionalBulletin"), ("subject", "A subject"),
            ("effective", "2026-10-01"), ("about", "Engine"), ("rule", "engine.serial in TF4-9 to TF4-1"), ("withinHours", "50"),
            ("hoursFrom", "Effective"), ("monthsFrom", "Effective"), ("steps", "Torque it | 17 N·m (150 in-lb)")];
        var wrong = await Visitor.ParseAsync(await ines.PostAsync("/bulletins/new", [("post", Post), .. typed]));
        wrong.QuerySelector(".field-problem")!.TextContent.ShouldContain("runs backwards");
        wrong.QuerySelector("textarea[name=steps]")!.TextContent.ShouldContain("150 in-lb", Case.Sensitive, "what was typed stays");
        var kept = await ines.PostAsync("/bulletins/new",
            [("post", Post), .. typed.Select(field => field.Item1 == "rule" ? ("rule", "engine.serial in TF4-2000 to TF4-2400") : field)]);
        kept.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var show = kept.Headers.Location!.OriginalString;
        (await ines.ReadAsync(show)).QuerySelector(".on-shop")!.TextContent.ShouldContain("TF4-2217 is on the list");
        (await Visitor.ParseAsync(
            await ines.PostAsync("/bulletins/new",
                [("post", Post), .. typed.Select(field => field.Item1 == "rule" ? ("rule", "") : field)])))
                    .QuerySelector(".field-problem")!.TextContent.ShouldContain("is here already");
        (string, string)[] changed = [("post", Post), ("seen", "0"),
            .. typed.Select(field => field.Item1 switch { "rule" => ("rule", "all of:\n  aircraft.model is Pellworth Dunlin 2"),
                "subject" => ("subject", "Other words"), _ => field })];
        (await ines.PostAsync($"{show}/edit", changed)).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await Visitor.ParseAsync(await ines.PostAsync($"{show}/edit", [("post", Post), .. changed[1..]])))
            .QuerySelector(".field-problem")!.TextContent.ShouldContain("Somebody else changed it");

        var attach = await ines.SendAsync($"{show}?handler=Attach", "file", [("page.pdf", "%PDF-1.4 drawn"u8.ToArray())], ("post", Post),
            ("title", "Page 1"));
        attach.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var link = (await ines.ReadAsync(show)).QuerySelector("a[href^='/documents/']")!.GetAttribute("href")!;
        (await ines.GetAsync(link)).Content.Headers.ContentType!.MediaType.ShouldBe("application/pdf");
        (await Visitor.ParseAsync(
            await ines.SendAsync($"{show}?handler=Attach", "file", [("page.pdf", "<html>"u8.ToArray())], ("post", Post))))
                .QuerySelector(".field-problem")!.TextContent.ShouldContain("begins like none of them");
    }

    // Another program's file says more than the form shows: changing one word of it loses none of the rest.
    [Fact]
    public async Task What_the_form_does_not_show_stays_when_a_word_is_changed()
    {
        var ines = await server.EnterAsync("ines");
        const string Json = """
            { "format": "mellow-rivet-bulletin", "version": 1, "issuer": "Fuller", "number": "FU-1", "revision": "", "kind": "advisory",
            "subject": "As it came", "published": "2026-01-01", "effective": "2026-01-01",
              "appliesTo": { "any": [ { "fact": "aircraft.model", "is": ["X", "Y"] }, { "not": { "fact": "engine.serial",
              "in": "E-1 and up except E-4" } } ] }, "method": "M", "ticket": 7,
              "compliance": { "deadlines": [ { "when": "withinHours", "hours": 500, "from": "new", "note": "a" }, { "when": "withinHours",
              "hours": 10 } ], "repeat": { "hours": 50, "grade": "b" }, "ferry": { "hours": 2, "conditions": ["day"], "area": "c" } },
              "steps": [ { "text": "Look | twice", "hint": "d" }, { "text": "Measure", "measure": { "kind": "play", "unit": "thou",
              "low": null, "high": 2, "standing": "reference", "source": "table 4" } } ],
              "kit": [ { "what": "gasket; thin", "number": "", "quantity": 2, "lot": "e" } ], "documents": [ { "title": "T",
              "reference": "R; S", "pages": 6 } ], "supersedes": [ { "number": "FU-0", "revision": "A" } ] }
            """;
        (await ines.SendAsync("/bulletins?handler=Import", "file", [("f.json", Encoding.UTF8.GetBytes(Json))],
            ("post", Post))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var before = server.With(db => db.Bulletins.AsNoTracking().AsEnumerable().Single(held => held.Bulletin.Number == "FU-1"));
        var page = await ines.ReadAsync($"/bulletins/{before.Id}/edit");
        page.QuerySelector("form.bulletin-form")!.TextContent.ShouldContain("Kept besides: within 10 h of the effective date");
        List<(string, string)> fields = [];
        foreach (var field in page.QuerySelectorAll("form[action$='/edit'] [name]:not([name=__RequestVerificationToken])"))
            switch (field)
            {
                case AngleSharp.Html.Dom.IHtmlInputElement { Type: "checkbox", IsChecked: false }:
                    break;
                case AngleSharp.Html.Dom.IHtmlInputElement input:
                    fields.Add((input.Name!, input.Name == "subject" ? "Other words" : input.Value));
                    break;
                case AngleSharp.Html.Dom.IHtmlTextAreaElement area:
                    fields.Add((area.Name!, area.Value));
                    break;
                case AngleSharp.Html.Dom.IHtmlSelectElement select:
                    fields.Add((select.Name!, select.Value!));
                    break;
            }
        (await ines.PostAsync($"/bulletins/{before.Id}/edit", [.. fields])).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var after = server.With(db => db.Bulletins.AsNoTracking().Single(held => held.Id == before.Id));
        JsonNodeOf(after).ShouldBe(JsonNodeOf(before).Replace("As it came", "Other words"));

        static string JsonNodeOf(ShopBulletin held) =>
            System.Text.Json.Nodes.JsonNode.Parse(BulletinFile.ToJson(held.Bulletin))!.ToJsonString();
    }

    [Fact]
    public async Task A_file_is_taken_in_whole_or_not_at_all()
    {
        var ines = await server.EnterAsync("ines");
        async Task<HttpResponseMessage> SendAsync(string text) =>
            await ines.SendAsync("/bulletins?handler=Import", "file", [("b.csv", Encoding.UTF8.GetBytes(text))], ("post", Post));
        const string Head = "issuer,number,kind,subject,effective,aircraft model\n";
        (await Visitor.ParseAsync(
            await SendAsync(Head
                + "Table,T-1,advisory,One,2026-01-01,Pellworth Dunlin 2\nTable,T-2,advisory,Two,nonsense,Pellworth Dunlin 2")))
                .QuerySelector(".field-problem")!.TextContent.ShouldContain("Line 3");
        server.With(db => db.Bulletins.Count(held => held.Family.StartsWith("TABLE"))).ShouldBe(0);
        var taken = await SendAsync(Head + "Table,T-1,advisory,One,2026-01-01,Pellworth Dunlin 2");
        Uri.UnescapeDataString(taken.Headers.Location!.OriginalString).ShouldContain("1 new: 1 aircraft");
        Uri.UnescapeDataString(
            (await SendAsync(Head + "Table,T-1,advisory,Other words,2026-01-01,Pellworth Dunlin 2")).Headers.Location!.OriginalString)
                .ShouldContain("1 were here already");
    }

    [Fact]
    public async Task The_status_sheet_strikes_what_is_superseded_and_asks_for_the_password()
    {
        var (orla, walk) = (await server.EnterAsync("orla"), server.Walk("N04QF"));
        var page = await orla.ReadAsync($"{walk}/bulletins/status");
        page.QuerySelectorAll("tr.struck").Select(row => row.QuerySelector("b")!.TextContent).ShouldContain("WB-61-14 rev B");
        page.QuerySelector("table")!.TextContent.ShouldContain("Part B, borescope, revision original");
        (await Visitor.ParseAsync(await orla.PostAsync($"{walk}/bulletins/status", ("post", Post), ("password", "wrong"))))
            .QuerySelector(".field-problem")!.TextContent.ShouldContain("not your password");
        (await Visitor.ParseAsync(await (await server.EnterAsync("wim"))
            .PostAsync($"{walk}/bulletins/status", ("post", Post), ("password", Demo.DemoShop.Password))))
            .QuerySelector(".field-problem")!.TextContent.ShouldContain("takes a certificate");
        var csv = await (await orla.GetAsync($"{server.FileOf("N04QF")}/bulletins.csv")).Content.ReadAsStringAsync();
        csv.ShouldContain("AD 2018-02-05");
    }

    // api.md: the bulletin file's own rule, facts by name; unknown is null.
    [Fact]
    public async Task The_open_interface_answers_with_three_values_and_names_what_is_missing()
    {
        async Task<JsonElement> AskAsync(string body, HttpStatusCode status = HttpStatusCode.OK)
        {
            var answer = await server.Stranger().JsonAsync("/api/v1/bulletins/applicability", body);
            answer.StatusCode.ShouldBe(status, body[..Math.Min(80, body.Length)]);
            return JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement;
        }
        const string Rule = """
            { "all": [ { "fact": "aircraft.model", "is": "Corrin 6" }, { "fact": "engine.crankshaft.serial",
            "in": "E-10021 to E-10488, and E-10502; B-series all" } ] }
            """;
        var open = await AskAsync($$"""
            { "rule": {{Rule}}, "facts": { "aircraft.model": "Corrin 6", "engine.crankshaft.serial": null } }
            """);
        (open.GetProperty("answer").GetString(), open.GetProperty("missing")[0]
            .GetString()).ShouldBe(("cannotTell", "engine.crankshaft.serial"));
        (await AskAsync($$"""
            { "rule": {{Rule}}, "facts": { "aircraft": { "model": "corrin 6" }, "engine": { "crankshaft": { "serial": "B-3" } } } }
            """)).GetProperty("answer").GetString().ShouldBe("applies");
        (await AskAsync($$"""{ "rule": {{Rule}}, "facts": { "aircraft.model": "Corrin 4" } }""")).GetProperty("answer").GetString()
            .ShouldBe("doesNotApply");
        (await AskAsync("""{ "rule": { "fact": "engine.serial", "in": "9 to 1" } }""", HttpStatusCode.BadRequest)).GetProperty("errors")
            .GetProperty("rule")[0].GetString()!.ShouldContain("runs backwards");
        await AskAsync("""{ "facts": {} }""", HttpStatusCode.BadRequest);
        await AskAsync("""{ "rule": """ + string.Concat(Enumerable.Repeat("""{"not":""", 10_000)) + "{}" + new string('}', 10_001),
            HttpStatusCode.BadRequest);
        await AskAsync("""{ "rule": {"fact":"engine.serial","in":"E-1"}, "facts": { "engine.serial": ["E-1"] } }""",
            HttpStatusCode.BadRequest);
        var pair = await server.Stranger().JsonAsync("/api/v1/bench/torque-pair", """{ "printed": "17 N·m (115 in-lb)" }""");
        JsonDocument.Parse(await pair.Content.ReadAsStringAsync()).RootElement.GetProperty("judgement").GetProperty("verdict").GetString()
            .ShouldBe("watch");
        (await server.Stranger()
            .JsonAsync("/api/v1/bench/torque-pair", """{ "printed": "17" }""")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task The_simulated_service_gives_out_what_came_since_a_day()
    {
        var since = DemoServer.Today.AddDays(-7);
        var feed = await (await server.Stranger().GetAsync($"/api/v1/bulletins/feed?since={since:yyyy-MM-dd}")).Content.ReadAsStringAsync();
        BulletinFile.Read(feed).Bulletins.Count.ShouldBe(3);
        (await server.Stranger().GetAsync("/schemas/bulletin-1.json")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task The_demo_shows_every_case()
    {
        await using var scope = server.Services.CreateAsyncScope();
        var board = scope.ServiceProvider.GetRequiredService<ShopBoard>();
        var states = (await board.NowAsync(default)).Lines.SelectMany(line => line.Research.Lines).Select(line => line.State).ToHashSet();
        states.ShouldNotContain(BulletinState.DoesNotApply, "the board keeps only what concerns an aircraft");
        var id = server.With(db => db.Aircraft.First(row => row.Registration == "N04QF").Id);
        states.UnionWith((await board.ResearchAsync(id, default)).Lines.Select(line => line.State));
        Enum.GetValues<BulletinState>().Where(state => !states.Contains(state)).ShouldBeEmpty();
        server.With(db => db.Bulletins.AsNoTracking().AsEnumerable().Select(held => held.Bulletin.Kind).Distinct().Count()).ShouldBe(6);
    }
}
