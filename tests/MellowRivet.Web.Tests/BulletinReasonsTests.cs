using System.Net;

namespace MellowRivet.Web.Tests;

/// <summary>A bulletin's reasons on its own page: each is said once, however many parts and aircraft share it.</summary>
public sealed class BulletinReasonsTests(DemoServer server) : IClassFixture<DemoServer>
{
    [Fact]
    public async Task What_is_true_of_eight_plugs_is_said_once_and_so_is_why_it_does_not_concern_the_others()
    {
        var ines = await server.EnterAsync("ines");
        var kept = await ines.PostAsync("/bulletins/new", ("post", $"{Guid.NewGuid()}"), ("issuer", "Typed Issuer"), ("number", "TI-8"),
            ("kind", "OptionalBulletin"), ("subject", "Plugs of one batch"), ("effective", "2026-10-01"), ("about", "Plug"),
            ("rule", "aircraft.model is Pellworth Dunlin 2"), ("withinHours", "50"), ("hoursFrom", "Effective"),
            ("monthsFrom", "Effective"), ("steps", "Look at the porcelain"));
        kept.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var page = await ines.ReadAsync(kept.Headers.Location!.OriginalString);
        var lines = page.QuerySelectorAll(".on-shop > li").Select(line => line.TextContent).ToList();
        lines.Count.ShouldBe(8);
        lines.Count(line => line.Contains("Adopt it as own policy")).ShouldBe(1);
        var others = page.QuerySelectorAll(".tried li .soft").Select(line => line.TextContent.Trim()).ToList();
        others.ShouldNotBeEmpty();
        others.ShouldBeUnique();
    }
}
