using System.Net;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Devices;
using MellowRivet.Store;
using MellowRivet.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>A missing or unknown answer approves nothing: a field that can't be read is refused by name, and nothing is changed.</summary>
public class ReadableFieldsTests(DemoServer server) : IClassFixture<DemoServer>
{
    private string Walk => server.Walk("N0BRM");

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    // A field that wasn't sent, or can't be read, arrives as zero: were that a meaning, it would be taken for an answer.
    [Fact]
    public void No_enum_of_the_product_means_anything_at_zero() =>
        new[] { typeof(Inspection).Assembly, typeof(RivetDb).Assembly, typeof(RivetApp).Assembly, typeof(CylinderSetUp).Assembly }
            .SelectMany(assembly => assembly.GetTypes()).Where(type => type.IsEnum && Enum.IsDefined(type, 0)).Select(type => type.FullName)
            .ShouldBeEmpty();

    [Fact]
    public async Task An_owners_answer_that_is_missing_or_unknown_approves_nothing()
    {
        var ines = await server.EnterAsync("ines");
        await ines.PostAsync($"{Walk}/find", Post(), ("what", "Tyre for the owner"), ("zone", "gear"), ("class", "Airworthiness"));
        var made = await Visitor.ParseAsync(
            await ines.PostAsync($"{Walk}/fix-list/owner", Post(), ("to", "owner@example.org"), ("days", "14"), ("askAll", "true")));
        var path = new Uri(made.QuerySelector(".link-once")!.GetAttribute("href")!).AbsolutePath;
        Discrepancy Found() =>
            server.With(db => db.Discrepancies.AsNoTracking().AsEnumerable().Single(found => found.What == "Tyre for the owner"));
        var owner = server.Stranger();
        var token = (await owner.ReadAsync(path)).QuerySelector("input[name=__RequestVerificationToken]")!.GetAttribute("value")!;
        foreach (var answer in new (string, string)[][] { [], [("answer", "")], [("answer", "Perhaps")], [("answer", "0")],
            [("answer", "99")] })
        {
            var said = await owner.PostWithAsync(path, token, [Post(), ("number", $"{Found().Number}"), .. answer]);
            said.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await Visitor.ParseAsync(said)).Body!.TextContent.ShouldContain(
                "“answer” can’t be read, or wasn’t sent. Nothing was changed.");
            Found().Disposition.ShouldBe(Disposition.Asked);
        }
        (await owner.PostWithAsync(path, token, Post(), ("number", "many"), ("answer", "Approve"))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity);
        Found().Disposition.ShouldBe(Disposition.Asked);
    }

    [Theory]
    [InlineData("fix-list/1?handler=Move", "to", "Nowhere")]
    [InlineData("fix-list/1?handler=Defer", "says", "Perhaps")]
    [InlineData("fix-list/1?handler=Classify", "class", "Harmless")]
    [InlineData("fix-list/1?handler=Examine", "method", "Guess")]
    [InlineData("fix-list/1?handler=Correct", "kind", "Somehow")]
    [InlineData("look?handler=Looked", "look", "Third")]
    [InlineData("tags?handler=Open", "kind", "Thing")]
    [InlineData("plugs?handler=Step", "step", "Sniff")]
    [InlineData("find", "class", "Fine")]
    public async Task A_choice_that_is_none_is_refused_by_the_name_of_its_field(string at, string field, string value)
    {
        var ines = await server.EnterAsync("ines");
        if (at.StartsWith("fix-list/1", StringComparison.Ordinal))
            await ines.PostAsync($"{Walk}/find", Post(), ("what", "Something first"), ("zone", "gear"), ("class", "Airworthiness"));
        string Kept() =>
            server.With(db => string.Join(";", db.Inspections.AsNoTracking().OrderBy(row => row.Id).Select(row => row.Changes)));
        var before = Kept();
        foreach (var sent in new[] { value, "0", "77" })
        {
            var answer = await ines.PostAsync($"{Walk}/{at}", Post(), ("what", "x"), ("zone", "gear"), ("seen", "0"), ("words", "x"),
                (field, sent));
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, sent);
            (await Visitor.ParseAsync(answer)).Body!.TextContent.ShouldContain($"“{field}”");
        }
        Kept().ShouldBe(before);
    }

    // Two forms without an id of their own would share one: the second would be taken for the first, sent again.
    [Fact]
    public async Task A_form_without_its_own_id_is_refused()
    {
        var ines = await server.EnterAsync("ines");
        foreach (var post in new (string, string)[][] { [], [("post", "")], [("post", "not an id")], [("post", $"{Guid.Empty}")] })
        {
            var answer = await ines.PostAsync($"{Walk}/arrive?handler=Hear", [.. post, ("words", "rattles")]);
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await Visitor.ParseAsync(answer)).Body!.TextContent.ShouldContain("“post”");
        }
    }
}
