using System.Net;
using System.Security.Cryptography;
using System.Text.Json;
using MellowRivet.Core.Discrepancies;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>What was drawn and measured on a picture where the shop couldn't be reached comes with it, and is measured anew.</summary>
public class DrawnBeforeTests(DemoServer server) : IClassFixture<DemoServer>
{
    private string Walk => server.Walk("N0BRM");

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private const string Crack = """
        [{"kind":"scale","points":[{"x":100,"y":100},{"x":600,"y":100}],"words":"","knownMm":99,"knownUncertaintyMm":0,"pickPixels":1},
        {"kind":"length","points":[{"x":100,"y":300},{"x":200,"y":300}],"words":"crack","pickPixels":1}]
        """;

    private static string Drawn(byte[] picture, string annotations, string knownMm) => JsonSerializer.Serialize(new
    {
        sha256 = Convert.ToHexStringLower(SHA256.HashData(picture)), annotations, known = KnownLength.All[0].Title, knownMm,
    });

    private Discrepancy? Found(string what) =>
        server.With(db => db.Discrepancies.AsNoTracking().FirstOrDefault(found => found.What == what));

    [Fact]
    public async Task It_stands_on_its_picture_and_measures_by_what_the_shop_knows_of_the_scale()
    {
        var ines = await server.EnterAsync("ines");
        var (other, picture) = (FoundPagesTests.Picture(), FoundPagesTests.Picture());
        await ines.SendAsync($"{Walk}/find", [("other.jpg", other), ("crack.jpg", picture)], Post(), ("what", "Crack drawn before"),
            ("zone", "gear"), ("class", "Watch"), ("drawn", Drawn(picture, Crack, "50")));
        var photos = Found("Crack drawn before")!.Photos;
        photos.Count.ShouldBe(2);
        var drawn = photos.Single(photo => photo.Annotations is not null);
        drawn.Sha256.ShouldBe(Convert.ToHexStringLower(SHA256.HashData(picture)));
        // A tenth of the scale: 100 of 500 pixels, of 50 mm.
        PhotoScale.SizesOf(drawn.Annotations!).Last()!.ShouldStartWith("10.00 ± 0.29 mm");
        drawn.Annotations![0].ShouldSatisfyAllConditions(scale => scale.KnownMm.ShouldBe(50),
            scale => scale.KnownUncertaintyMm.ShouldBe(KnownLength.All[0].UncertaintyMm, "not the device's word for it"));
    }

    [Theory]
    [InlineData("", "Type the true distance")]
    [InlineData("another", "belongs to none of these pictures")]
    [InlineData("no JSON", "belongs to none of these pictures")]
    [InlineData("nothing", "belongs to none of these pictures")]
    [InlineData("outside", "lies outside the picture")]
    public async Task What_can_t_stand_there_is_said_and_nothing_is_kept(string wrong, string said)
    {
        var ines = await server.EnterAsync("ines");
        var picture = FoundPagesTests.Picture();
        var sent = wrong switch
        {
            "another" => Drawn([1, 2, 3], Crack, "50"),
            "no JSON" => "[",
            "nothing" => "",
            "outside" => Drawn(picture, Crack.Replace("600", "60000"), "50"),
            _ => Drawn(picture, Crack, ""),
        };
        var answer = await ines.SendAsync($"{Walk}/find", [("crack.jpg", picture)], Post(), ("what", $"Crack, {wrong}"), ("zone", "gear"),
            ("class", "Watch"), ("drawn", sent));
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)).ShouldContain(said);
        Found($"Crack, {wrong}").ShouldBeNull();
    }
}
