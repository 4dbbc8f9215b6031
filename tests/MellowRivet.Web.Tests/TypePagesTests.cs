using System.Net;
using AngleSharp.Dom;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Store;
using MellowRivet.Web.Pages.Shared;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

public class TypePagesTests(DemoServer server) : IClassFixture<DemoServer>
{
    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private KnownType Type(string designation) =>
        server.With(db => db.Types.AsNoTracking().AsEnumerable().Single(type => type.Designation == designation));

    private string PropellerOf(string registration) =>
        server.With(db => db.Aircraft.AsNoTracking().WithParts()
            .Single(row => row.Registration == registration).Propellers.First().Component.PartNumber);

    private static async Task<string> StateOfAsync(Visitor visitor, string page, string number) =>
        (await visitor.ReadAsync(page)).QuerySelectorAll(".bulletins a")
            .Single(row => row.TextContent.Contains(number, StringComparison.Ordinal)).Closest("details")!.Id!;

    [Fact]
    public async Task A_propeller_that_no_list_knows_is_asked_about_and_settled()
    {
        var (ines, file) = (await server.EnterAsync("ines"), server.FileOf("N0FLD"));
        (await StateOfAsync(ines, $"{file}/bulletins", "WB-61-31")).ShouldBe("CannotTell");
        var asked = (await ines.ReadAsync("/shelf/types")).QuerySelectorAll(".unsettled")
            .Single(one => one.TextContent.Contains("“WP-52”", StringComparison.Ordinal));
        asked.TextContent.ShouldContain("N0FLD propeller");
        asked.QuerySelectorAll(".type-question strong").Select(near => near.TextContent)
            .ShouldBe(["Wenbury Propellers WP-52-4F", "Wenbury Propellers WP-52-6F"]);
        var nothing = await Visitor.ParseAsync(
            await ines.PostAsync("/shelf/types?handler=Settle", Post(), ("kind", "Propeller"), ("name", "WP-52")));
        nothing.QuerySelector(".unsettled .field-problem")!.TextContent.ShouldContain("Choose what it is");
        (await ines.PostAsync("/shelf/types?handler=Settle", Post(), ("kind", "Propeller"), ("name", "WP-52"),
            ("means", $"{Type("WP-52-4F").Id}"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        PropellerOf("N0FLD").ShouldBe("WP-52-4F", "the file bears the list's own name");
        Type("WP-52-4F").Aliases.ShouldBeEmpty("a slip of the pen is no other name");
        (await StateOfAsync(ines, $"{file}/bulletins", "WB-61-31")).ShouldBe("Advisory");
    }

    [Fact]
    public async Task A_misspelt_type_is_asked_about_on_the_data_plate_and_left_open_it_can_not_be_told()
    {
        var (ines, file) = (await server.EnterAsync("ines"), server.FileOf("N04QF"));
        (string, string)[] plate = [("Form.Registration", "N04QF"), ("Form.Serial", "PD2-0318"), ("Form.Category", "Standard"),
            ("Form.Wing", "Low"), ("Form.Gear", "NoseWheel"), ("Form.Seats", "2"), ("Form.Engines", "1")];
        async Task<IDocument> SendAsync(params (string, string)[] more) =>
            await Visitor.ParseAsync(await ines.PostAsync($"{file}/data-plate", [Post(), .. plate, .. more]));
        var question = await SendAsync(("Form.Type", "Pelworth Dunlin II"));
        question.QuerySelector(".field-problem")!.TextContent.ShouldContain("Did you mean Pellworth Dunlin 2?");
        question.QuerySelector("input[name='Form.Type']")!.GetAttribute("value").ShouldBe("Pelworth Dunlin II", "what was typed stays");
        (await SendAsync(("Form.Type", "Pelworth Dunlin II"), ("Form.TypeMeans", "own")))
            .QuerySelector(".field-problem")!.TextContent.ShouldContain("Say who makes it");

        // An answer about one name says nothing of another that was typed over it.
        (await SendAsync(("Form.Type", "Brindle Motte"), ("Form.TypeMeans", $"{Type("Dunlin 2").Id}"),
            ("Form.TypeMeansAbout", "Pelworth Dunlin II")))
                .QuerySelector(".field-problem")!.TextContent.ShouldContain("“Brindle Motte” is on no type list");

        // Left open: five binding ones can't be told, and none of them says that it doesn't apply.
        await SendAsync(("Form.Type", "Pelworth Dunlin II"), ("Form.TypeMeans", "leave"));
        server.With(db => db.Aircraft.AsNoTracking().Single(row => row.Registration == "N04QF").Type).ShouldBe("Pelworth Dunlin II");
        foreach (var number in new[] { "AD 2018-02-05", "AD 2021-11-02", "AD 2020-17-03", "AD 2015-07-01", "AD 2026-20-07" })
            (await StateOfAsync(ines, $"{file}/bulletins", number)).ShouldBe("CannotTell", number);
        (await ines.ReadAsync(server.Walk("N04QF") + "/close")).Body!.TextContent.ShouldContain("aircraft: the model");

        await SendAsync(("Form.Type", "Pelworth Dunlin II"), ("Form.TypeMeans", $"{Type("Dunlin 2").Id}"));
        server.With(db => db.Aircraft.AsNoTracking().Single(row => row.Registration == "N04QF").Type).ShouldBe("Pellworth Dunlin 2");
        await SendAsync(("Form.Type", "pd-2"));
        server.With(db => db.Aircraft.AsNoTracking().Single(row => row.Registration == "N04QF").Type)
            .ShouldBe("Pellworth Dunlin 2", "another name of it is known");
    }

    [Fact]
    public async Task A_bulletin_that_names_an_unknown_model_is_flagged_when_it_comes_in()
    {
        var ines = await server.EnterAsync("ines");
        const string Csv =
            "issuer,number,kind,subject,effective,aircraft model\nFuller,FU-77,AirworthinessDirective,A "
            + "subject,2026-10-01,Pellworth Dunlin 2B\n";
        var answer = await ines.SendAsync("/bulletins?handler=Import", "file", [("list.csv", System.Text.Encoding.UTF8.GetBytes(Csv))],
            Post());
        answer.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await ines.ReadAsync(answer.Headers.Location!.OriginalString))
            .QuerySelector("[role=status]")!.TextContent.ShouldContain("no list knows Pellworth Dunlin 2B");
        (await ines.ReadAsync("/bulletins?only=Unsettled")).QuerySelectorAll("tbody tr")
            .Count(row => row.TextContent.Contains("FU-77", StringComparison.Ordinal)
                && row.TextContent.Contains("unknown model", StringComparison.Ordinal)).ShouldBe(1);
        var id = server.With(db => db.Bulletins.AsNoTracking().AsEnumerable().Single(held => held.Bulletin.Number == "FU-77").Id);
        (await ines.ReadAsync($"/bulletins/{id}")).Body!.TextContent.ShouldContain("Is it the Pellworth Dunlin 2?");
        var preview =
            await (await ines.GetAsync(
                $"/bulletins/new?handler=Preview&rule={Uri.EscapeDataString(
                    "aircraft.model is Pelworth Dunlin 2")}")).Content.ReadAsStringAsync();
        preview.ShouldContain("is on no type list");

        // It is a model of its own, and then it isn't ours.
        (await ines.PostAsync("/shelf/types?handler=Settle", Post(), ("kind", "Aircraft"), ("name", "Pellworth Dunlin 2B"),
            ("means", "own"), ("maker", "Pellworth"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        Type("Dunlin 2B").FullName.ShouldBe("Pellworth Dunlin 2B");
        (await ines.ReadAsync("/bulletins?only=Unsettled")).Body!.TextContent.ShouldNotContain("FU-77");
    }

    [Fact]
    public async Task Types_are_made_changed_and_taken_off_where_no_file_bears_them()
    {
        var (ines, tamsin) = (await server.EnterAsync("ines"), await server.EnterAsync("tamsin"));
        (await tamsin.ReadAsync("/shelf/types")).QuerySelectorAll("main form[method=post]")
            .ShouldBeEmpty("who may not keep the shelf only reads");
        async Task<string> RefusedAsync(string handler, params (string, string)[] fields) =>
            (await Visitor.ParseAsync(await ines.PostAsync($"/shelf/types{handler}", [Post(), .. fields])))
                .QuerySelector(".field-problem")!.TextContent;
        (await RefusedAsync("", ("kind", "Engine"), ("designation", "TF4-200"))).ShouldContain("who makes it");
        (await RefusedAsync("", ("kind", "Engine"), ("maker", "Tarn and Field Engines"), ("designation", "tf4 160")))
            .ShouldContain("on the list already");
        (await ines.PostAsync("/shelf/types", Post(), ("kind", "Engine"), ("maker", "Tarn and Field Engines"), ("designation", "TF4-200"),
            ("aliases", "TF 200\nbig four"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        Type("TF4-200").Aliases.ShouldBe(["TF 200", "big four"]);
        (await ines.ReadAsync("/shelf/types")).Body!.TextContent.ShouldContain("TF4-200");
        (await RefusedAsync("", ("id", $"{Type("TF4-200").Id}"), ("seen", "0"), ("kind", "Engine"), ("maker", "X"),
            ("designation", "TF4-200"))).ShouldContain("Somebody else changed it");
        (await RefusedAsync("?handler=Remove", ("id", $"{Type("TF4-160").Id}"))).ShouldContain("N04QF engine bears it");
        (await ines.PostAsync("/shelf/types?handler=Remove", Post(), ("id", $"{Type("TF4-200").Id}"))).StatusCode.ShouldBe(
            HttpStatusCode.Redirect);
        server.With(db => db.Types.AsEnumerable().Any(type => type.Designation == "TF4-200")).ShouldBeFalse();
        // What is kept of the shop goes by the list as it is now.
        (await ines.ReadAsync("/shelf/types")).Body!.TextContent.ShouldNotContain("TF4-200");
    }

    // A large shop's list comes by pages, and nothing of it is left out on the way.
    [Fact]
    public async Task A_long_list_is_read_page_by_page()
    {
        var ines = await server.EnterAsync("ines");
        await server.SaveAsync(db => db.AddRange(Enumerable.Range(0, 120)
            .Select(index => new KnownType(Guid.CreateVersion7(), TypeKind.Appliance, "Hollowmere Works", $"HW-{index:000}"))));
        var all = server.With(db => db.Types.Select(type => type.Designation).ToList()).Order(StringComparer.Ordinal).ToList();
        List<string> read = [];
        string? page = "/shelf/types";
        for (var most = 9; page is not null && most > 0; most--)
        {
            var shown = await ines.ReadAsync(page);
            var rows = shown.QuerySelectorAll(".types td strong").Select(type => type.TextContent).ToList();
            rows.Count.ShouldBeLessThanOrEqualTo(50);
            read.AddRange(rows);
            page = shown.QuerySelector(".list-pages a[rel=next]")?.GetAttribute("href");
        }
        read.Order(StringComparer.Ordinal).ShouldBe(all);

        var second = await ines.ReadAsync("/shelf/types?q=hollowmere&page=2");
        second.QuerySelector(".list-pages")!.TextContent.ShouldContain("page 2 of 3");
        second.QuerySelector(".list-pages a[rel=prev]")!.GetAttribute("href")
            .ShouldBe("/shelf/types?q=hollowmere&page=1", "what was asked for is kept");
        // One is opened beside the page of the list that it stands on.
        (await ines.ReadAsync(second.QuerySelectorAll(".types td a")[0].GetAttribute("href")!))
            .QuerySelector(".list-pages")!.TextContent.ShouldContain("page 2 of 3");
        (await ines.ReadAsync("/shelf/types?page=99")).QuerySelectorAll(".types td strong").ShouldNotBeEmpty("the last one there is");
    }

    [Theory]
    [InlineData(0, null, 1, 1, 0)]
    [InlineData(40, null, 1, 1, 40)]
    [InlineData(41, 1, 1, 2, 40)]
    [InlineData(41, 2, 2, 2, 1)]
    [InlineData(41, 3, 2, 2, 1)]
    [InlineData(41, -5, 1, 2, 40)]
    public void A_page_that_there_is_not_gives_the_nearest(int total, int? asked, int at, int pages, int shown)
    {
        var page = ListPage.Of([.. Enumerable.Range(0, total)], asked, 40);
        (page.At, page.Pages, page.Shown.Count, page.Total).ShouldBe((at, pages, shown, total));
    }
}
