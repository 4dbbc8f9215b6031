using System.Net;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>Signed records: what is wrong in one is put right by a new one that names it.</summary>
public class RecordPagesTests(DemoServer server) : IClassFixture<DemoServer>
{
    [Fact]
    public async Task A_mistake_is_corrected_by_a_new_entry_and_both_show_it()
    {
        var engine = server.With(db => db.SignedRecords.AsNoTracking().AsEnumerable().First(record => record.Book == Book.Engine
            && db.Inspections.Any(row => row.Id == record.InspectionId && row.Kind == InspectionKind.HundredHour)));
        var (wim, walk) = (await server.EnterAsync("wim"), $"/walk/{engine.InspectionId}");
        (string, string)[] correction = [("record", $"{engine.Number}"), ("line", "1"), ("reads", "Engine run: static 5180 rpm."),
            ("password", Demo.DemoShop.Password)];
        async Task<HttpResponseMessage> SendAsync(Visitor visitor, params (string, string)[] more) =>
            await visitor.PostAsync($"{walk}/records?handler=Correct", [("post", $"{Guid.NewGuid()}"), .. correction, .. more]);

        var before = (await wim.ReadAsync($"{walk}/records")).QuerySelectorAll(".entry").Length;
        var poor = await Visitor.ParseAsync(await SendAsync(wim, ("why", "")));
        poor.QuerySelector(".field-problem")!.TextContent.ShouldContain("Say how the mistake came about");
        poor.QuerySelector($"#record-{engine.Number} textarea[name=reads]")!.TextContent.ShouldContain("static 5180 rpm");
        (await SendAsync(await server.EnterAsync("tamsin"), ("why", "x"))).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await Visitor.ParseAsync(await SendAsync(await server.EnterAsync("perpetua"), ("why", "x")))).Body!.TextContent
            .ShouldContain("takes a certificate");
        (await SendAsync(wim, ("why", "misread"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);

        var after = await wim.ReadAsync($"{walk}/records");
        var entries = after.QuerySelectorAll(".entry");
        entries.Length.ShouldBe(before + 1);
        after.QuerySelector($"#record-{engine.Number} .corrected")!.TextContent.ShouldContain("Corrected by record");
        entries[^1].TextContent.ShouldContain($"Correction of record {engine.Number}");
        server.With(db => db.SignedRecords.AsNoTracking().Single(record => record.Number == engine.Number).Json).ShouldBe(engine.Json);
    }
}
