using System.Net;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using MellowRivet.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>What is asked for once after a start.</summary>
public class WarmUpTests(DemoServer server) : IClassFixture<DemoServer>
{
    [Fact]
    public async Task It_comes_through_every_page_and_leaves_the_shop_as_it_was()
    {
        // SQLite's own count of what other connections wrote, on one that stays open (sqlite.org/pragma.html#pragma_data_version).
        await using var watch = RivetDb.Of(server.Data);
        Task<long> WrittenAsync() =>
            watch.Database.SqlQueryRaw<long>("SELECT data_version AS Value FROM pragma_data_version").SingleAsync();
        var before = await WrittenAsync();
        var (asked, failed) = await server.WarmUpAsync();
        failed.ShouldBeEmpty();
        asked.ShouldBeGreaterThan(45);
        (await WrittenAsync()).ShouldBe(before, "a page that is asked for writes nothing");
        await server.SaveAsync(db => db.Add(new KnownType(Guid.CreateVersion7(), TypeKind.Appliance, "Hollowmere Works", "HW-1")));
        (await WrittenAsync()).ShouldNotBe(before, "it does count");
        // No door stands open after it.
        (await server.Stranger().GetAsync("/people")).StatusCode.ShouldBe(HttpStatusCode.Redirect);
    }

    // Before the first aircraft there are pages, too.
    [Fact]
    public async Task A_shop_without_an_inspection_has_pages_of_its_own() =>
        (await server.With(db => ShopPages.OfAsync(db, row => row.State == (InspectionState)99, default))).All()
            .ShouldAllBe(page => !page.Path.StartsWith("/walk/", StringComparison.Ordinal));
}
