using System.Net;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using MellowRivet.Web.Hosting;

namespace MellowRivet.Web.Tests;

/// <summary>What is asked for once after a start.</summary>
public class WarmUpTests(DemoServer server) : IClassFixture<DemoServer>
{
    [Fact]
    public async Task It_comes_through_every_page_and_leaves_the_shop_as_it_was()
    {
        async Task<long> ChangesAsync() => await server.With(db => ShopMarks.NowAsync(db, default)) is var marks ? marks.Fleet + marks.Work + marks.Bulletins + marks.Types + marks.People : 0;
        var before = await ChangesAsync();
        var (asked, failed) = await server.WarmUpAsync();
        failed.ShouldBeEmpty();
        asked.ShouldBeGreaterThan(45);
        (await ChangesAsync()).ShouldBe(before);
        // No door stands open after it.
        (await server.Stranger().GetAsync("/people")).StatusCode.ShouldBe(HttpStatusCode.Redirect);
    }

    // Before the first aircraft there are pages, too.
    [Fact]
    public async Task A_shop_without_an_inspection_has_pages_of_its_own() =>
        (await server.With(db => ShopPages.OfAsync(db, row => row.State == (InspectionState)99, default))).All().ShouldAllBe(page => !page.Path.StartsWith("/walk/", StringComparison.Ordinal));
}
