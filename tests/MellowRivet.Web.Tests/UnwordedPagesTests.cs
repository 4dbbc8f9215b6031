using System.Net;
using MellowRivet.Core.Discrepancies;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>Found in a picture, a sound or a video alone, and put in words later. On the amateur-built's walk.</summary>
public sealed class UnwordedPagesTests(DemoServer server) : IClassFixture<DemoServer>
{
    private string Walk => server.Walk("N0BRM");

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private Discrepancy? Unworded()
    {
        var id = Guid.Parse(Walk["/walk/".Length..]);
        return server.With(db => db.Discrepancies.AsNoTracking().SingleOrDefault(found => found.InspectionId == id
            && found.What == Discrepancy.Unworded));
    }

    [Fact]
    public async Task A_video_alone_stands_on_the_list_and_holds_the_signature_until_it_is_put_in_words()
    {
        var ines = await server.EnterAsync("ines");
        byte[] Clip(string name) => File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "Clips", name));
        Task<HttpResponseMessage> SendAsync(string clip) => ines.SendAsync($"{Walk}/find", "videos", [("slap.mp4", Clip(clip))], Post(),
            ("what", " "), ("zone", "gear"), ("class", "Airworthiness"));
        (await Visitor.ParseAsync(await ines.PostAsync($"{Walk}/find", Post(), ("what", ""), ("zone", "gear"), ("class", "Watch"))))
            .QuerySelector("#find-problems")!.TextContent.ShouldContain("Say what you found", Case.Sensitive, "nothing tells of it");
        (await Visitor.ParseAsync(await SendAsync("too-long.mp4"))).QuerySelector("#find-problems")!.TextContent
            .ShouldContain("30 s is the most");
        Unworded().ShouldBeNull("what was refused left nothing behind");
        (await SendAsync("two-seconds.mp4")).StatusCode.ShouldBe(HttpStatusCode.Redirect);

        var found = Unworded()!;
        var path = $"{Walk}/fix-list/{found.Number}";
        (await ines.ReadAsync($"{Walk}/close")).Body!.TextContent.ShouldContain("to be put in words; a picture, a sound or a video alone");
        var page = await ines.ReadAsync(path);
        var film = await ines.GetAsync(page.QuerySelector("video")!.GetAttribute("src")!);
        film.Content.Headers.ContentType!.MediaType.ShouldBe("video/mp4");
        (await film.Content.ReadAsByteArrayAsync()).ShouldBe(Clip("two-seconds.mp4"));

        var asked = await Visitor.ParseAsync(await ines.PostAsync($"{path}?handler=Words", Post(),
            ("what", "Fuel drips from the line at the gascolator"), ("class", "Watch")));
        asked.QuerySelector("#in-words textarea")!.TextContent.ShouldBe("Fuel drips from the line at the gascolator");
        asked.QuerySelector("#in-words .field-problem")!.TextContent.ShouldContain("say why it is only");
        (await ines.PostAsync($"{path}?handler=Words", Post(), ("what", "Fuel drips from the line at the gascolator"),
            ("class", "Airworthiness"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await ines.ReadAsync($"{Walk}/close")).Body!.TextContent.ShouldNotContain("to be put in words;");
    }
}
