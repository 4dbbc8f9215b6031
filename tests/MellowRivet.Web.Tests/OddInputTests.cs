using System.Net;
using System.Text;
using System.Text.RegularExpressions;
using MellowRivet.Core.People;
using MellowRivet.Web.Access;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>Whatever is sent, the answer is a refusal that says why, or the thing itself.</summary>
public sealed class OddInputTests(DemoServer server) : IClassFixture<DemoServer>
{
    private string Walk => server.Walk("N04QF");

    private static (string, string) Post(Guid? id = null) => ("post", $"{id ?? Guid.NewGuid()}");

    [Fact]
    public async Task A_page_answers_what_it_has_a_handler_for()
    {
        var orla = await server.EnterAsync("orla");
        var pages = (await EveryAddress.OfAsync(server.Services)).Where(asked => asked.OpenTo is null && asked.Takes is not null)
            .ToLookup(asked => asked.Pattern);
        var looks = pages.Where(page => page.All(asked => asked.Method == "GET")
            && !page.Key.Contains('{', StringComparison.Ordinal)).ToList();
        looks.Count.ShouldBeGreaterThan(8);
        foreach (var page in looks)
        {
            var answer = await orla.PostAsync($"/{page.Key}");
            answer.StatusCode.ShouldBe(HttpStatusCode.MethodNotAllowed, page.Key);
            answer.Content.Headers.Allow.ShouldBe(["GET"], page.Key);
        }
        // What has a handler without a name doesn't do that instead of the one that was asked for.
        foreach (var page in pages.Where(page => page.Any(asked => asked is { Method: "POST", Handler: "" })))
        {
            var path = Regex.Replace(page.Key, @"\{(\w+)[^/]*\}", part => part.Groups[1].Value switch
            {
                "id" => (page.Key.StartsWith("walk", StringComparison.Ordinal) ? Walk : server.FileOf("N04QF")).Split('/')[^1],
                "number" => "1", "place" => "airframe", "zone" => "cabin", _ => "x",
            });
            (await orla.PostAsync($"/{path}?handler=Nowhere", Post())).StatusCode
                .ShouldBeOneOf([HttpStatusCode.MethodNotAllowed, HttpStatusCode.NotFound], page.Key);
        }
        (await orla.PostAsync("/people?handler=Nowhere", Post())).StatusCode.ShouldBe(HttpStatusCode.MethodNotAllowed);
        (await orla.PostAsync($"{Walk}/find?handler=Nowhere", Post())).StatusCode.ShouldBe(HttpStatusCode.MethodNotAllowed);
        (await orla.PostAsync($"{Walk}/arrive?handler=Nowhere", Post())).StatusCode.ShouldBe(HttpStatusCode.MethodNotAllowed);
    }

    [Theory]
    [InlineData("a[")]
    [InlineData("[")]
    [InlineData("a]b")]
    public async Task A_field_whose_name_is_broken_off_is_refused_by_it(string name)
    {
        var ines = await server.EnterAsync("ines");
        var answer = await ines.PostAsync($"{Walk}/arrive?handler=Hear", Post(), ("words", "x"), (name, "1"));
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Visitor.ParseAsync(answer)).Body!.TextContent.ShouldContain($"“{name}”");
        (await ines.GetAsync($"/due?{Uri.EscapeDataString(name)}=1")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Words_of_any_tongue_lead_on()
    {
        var ines = await server.EnterAsync("ines");
        var answer = await ines.PostAsync($"{Walk}/airframe/{Uri.EscapeDataString("Flügel机翼")}?handler=Take", Post(), ("mine", "true"));
        answer.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        answer.Headers.Location!.OriginalString.ShouldContain(Uri.EscapeDataString("机翼"));
    }

    // What is made takes its post's id: sent under another thing's, it makes nothing and says so.
    [Fact]
    public async Task An_id_that_something_has_makes_nothing()
    {
        var ines = await server.EnterAsync("ines");
        var (here, there, reading) = server.With(db => (
            db.Discrepancies.AsEnumerable().First(found => Walk.EndsWith($"{found.InspectionId}", StringComparison.Ordinal)).Id,
            db.Discrepancies.AsEnumerable().First(found => !Walk.EndsWith($"{found.InspectionId}", StringComparison.Ordinal)).Id,
            db.Readings.AsEnumerable().First(one => Walk.EndsWith($"{one.InspectionId}", StringComparison.Ordinal)).Id));
        var before = server.With(db => (db.Discrepancies.Count(), db.Readings.Count(), db.LogBooks.Count(), db.DueItems.Count()));
        foreach (var id in new[] { here, there, Guid.Empty })
        {
            var answer = await ines.PostAsync($"{Walk}/find", Post(id), ("what", "Chafed"), ("zone", "engine"), ("class", "Watch"),
                ("how", "Visual"));
            answer.StatusCode.ShouldBeOneOf(HttpStatusCode.OK, HttpStatusCode.UnprocessableEntity);
        }
        var task = server.With(db => db.Inspections.AsNoTracking().Include(row => row.Tasks).AsEnumerable()
            .Single(row => Walk.EndsWith($"{row.Id}", StringComparison.Ordinal)).Tasks.First(one => one is { Measure.Kind: "static-rpm" }));
        (await ines.PostAsync($"{Walk}/engine/{task.ZoneKey}?task={task.Id}&handler=Verdict", Post(reading), ("task", $"{task.Id}"),
            ("verdict", "Good"), ("value", "2280"), ("seen", $"{task.Changes}"))).StatusCode
                .ShouldNotBe(HttpStatusCode.InternalServerError);
        var file = server.FileOf("N04QF");
        var book = server.With(db => db.LogBooks.First().Id);
        (await ines.PostAsync($"{file}/books?handler=Book", Post(book), ("kind", "Airframe"), ("title", "Vol. 9"))).StatusCode
            .ShouldNotBe(HttpStatusCode.InternalServerError);
        server.With(db => (db.Discrepancies.Count(), db.Readings.Count(), db.LogBooks.Count(), db.DueItems.Count())).ShouldBe(before);
    }

    [Theory]
    [InlineData("steps")]
    [InlineData("kit")]
    [InlineData("tools")]
    [InlineData("documents")]
    [InlineData("deadlines")]
    public async Task A_bulletin_with_an_empty_place_in_a_list_is_refused_whole(string list)
    {
        var orla = await server.EnterAsync("orla");
        var file = await orla.GetAsync($"/bulletins/{server.With(db => db.Bulletins.First().Id)}/file.json");
        var json = System.Text.Json.Nodes.JsonNode.Parse(await file.Content.ReadAsStringAsync())!.AsObject();
        json["number"] = $"X-{list}";
        (list == "deadlines" ? json["compliance"]! : json)[list] = new System.Text.Json.Nodes.JsonArray(null, null);
        var answer = await orla.SendAsync("/bulletins?handler=Import", "file",
            [("x.json", Encoding.UTF8.GetBytes(json.ToJsonString()))], Post());
        (await Visitor.ParseAsync(answer)).Body!.TextContent.ShouldContain($"“{list}” has an empty place");
        server.With(db => db.Bulletins.AsEnumerable().Count(held => held.Bulletin.Number == $"X-{list}")).ShouldBe(0);
    }

    // Found by the fuzz: a field that is sent empty is none in a list.
    [Fact]
    public async Task A_picture_without_a_name_is_none()
    {
        var ines = await server.EnterAsync("ines");
        (await ines.GetAsync($"{Walk}/find?kept=%0D%0A&kept=")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await ines.PostAsync($"{Walk}/find", Post(), ("what", "Blistered paint at the step"), ("zone", "gear"), ("class", "Watch"),
            ("why", "for the test"), ("kept", ""))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
    }

    [Fact]
    public async Task A_mail_without_a_name_is_none()
    {
        var ines = await server.EnterAsync("ines");
        foreach (var name in new[] { "", "&name=", "&name=..%2f..%2frivet.db", "&name=x" })
            (await ines.GetAsync($"/outbox?handler=File{name}")).StatusCode.ShouldBe(HttpStatusCode.NotFound, name);
    }

    // Every table there is, by its address: with the mark that a spreadsheet reads it by, and without a cell that it would reckon.
    [Fact]
    public async Task Every_table_carries_its_mark_and_no_cell_begins_as_a_formula()
    {
        await server.SaveAsync(db => db.DueItems.First(item => item.AircraftId == db.Aircraft.First(row => row.Registration == "N04QF").Id)
            .Change("=HYPERLINK(1)", new(10, null, Core.Due.CalendarRule.EndOfMonth, 0), new(Core.Judgements.Standing.Practice, "+cmd"),
                null));
        var orla = await server.EnterAsync("orla");
        var tables = (await EveryAddress.OfAsync(server.Services)).Where(asked => asked.Method == "GET"
            && (asked.Pattern.EndsWith(".csv", StringComparison.Ordinal) || asked.Handler is "Csv" or "Log"
                || (asked.Handler == "File" && asked.Pattern.Contains("worksheets", StringComparison.Ordinal)))).ToList();
        tables.Count.ShouldBeGreaterThan(7);
        foreach (var asked in tables)
        {
            var path = "/" + Regex.Replace(asked.Pattern, @"\{(\w+)[^/]*\}", part => part.Groups[1].Value switch
            {
                "id" => (RightsTests.OfSurvey(asked.Pattern) ? server.Walk("N0FLD")
                    : asked.Pattern.StartsWith("walk", StringComparison.Ordinal) ? Walk : server.FileOf("N04QF")).Split('/')[^1],
                "sheet" => "lubrication", _ => "",
            }) + (asked.Handler.Length > 0 ? $"?handler={asked.Handler}&form=csv" : "");
            var answer = await orla.GetAsync(path);
            if (answer.Content.Headers.ContentType?.MediaType != "text/csv")
                throw new InvalidOperationException($"{asked.Name} gave {answer.Content.Headers.ContentType}");
            var bytes = await answer.Content.ReadAsByteArrayAsync();
            bytes[..3].ShouldBe(Encoding.UTF8.GetPreamble(), asked.Name);
            Encoding.UTF8.GetString(bytes).Split('\n').Where(line => Regex.IsMatch(line, @"(^|,)""?(=HYPERLINK|\+cmd)"))
                .ShouldBeEmpty(asked.Name);
        }
    }

    [Fact]
    public async Task A_forged_post_is_taken_nowhere()
    {
        var orla = await server.EnterAsync("orla");
        var before = server.With(db => db.Postings.Count());
        var forged = 0;
        foreach (var asked in (await EveryAddress.OfAsync(server.Services)).Where(asked => asked is { Method: "POST", OpenTo: null }))
        {
            var path = "/" + Regex.Replace(asked.Pattern, @"\{(\w+)[^/]*\}", part => part.Groups[1].Value switch
            {
                "id" => Walk.Split('/')[^1], "engine" or "carrier" => $"{Guid.NewGuid()}", "number" => "1", "place" => "airframe",
                "zone" => "cabin", "kind" => "oil", "sheet" => "lubrication", _ => "x",
            });
            var answer = await orla.ForgeAsync(asked.Handler.Length > 0 ? $"{path}?handler={asked.Handler}" : path);
            answer.StatusCode.ShouldBeOneOf([HttpStatusCode.BadRequest, HttpStatusCode.Forbidden, HttpStatusCode.NotFound], asked.Name);
            forged++;
        }
        forged.ShouldBeGreaterThan(140);
        server.With(db => db.Postings.Count()).ShouldBe(before);
        Rights.Of(Role.ShopAdmin).ShouldContain(Right.ManageShop);
    }
}
