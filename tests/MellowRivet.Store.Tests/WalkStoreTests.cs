using MellowRivet.Core.Inspections;
using MellowRivet.Core.Tools;
using MellowRivet.Core.Worksheets;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

public sealed class WalkStoreTests : IAsyncDisposable
{
    private readonly TestShop shop = new();

    public ValueTask DisposeAsync() => shop.DisposeAsync();

    private static Worksheet Sheet(int version, string title = "Two tasks") => Worksheet.Parse($$"""
        { "key": "two", "title": "{{title}}", "version": {{version}}, "basis": "test", "zones": [
          { "key": "gear", "title": "Gear", "station": "airframe", "book": "airframe", "tasks": [
            { "key": "tyres", "text": "Tyres", "reference": "(e)(8)", "at": ["25 h", "annual"], "needs": ["powerOn"] } ] } ] }
        """);

    [Fact]
    public async Task What_was_opened_looked_at_and_counted_is_there_again()
    {
        var id = await shop.BeginAsync();
        var (by, at) = (TestShop.Ines, new DateTimeOffset(2026, 11, 23, 9, 0, 0, TimeSpan.Zero));
        var tool = new Tool(Guid.NewGuid());
        tool.Describe("Wrench", "T-1", true, new(2027, 1, 1), 10, new(20, 100, MellowRivet.Core.Measures.Unit.FootPound));
        await using (var db = shop.Open())
        {
            db.Tools.Add(tool);
            var inspection = await db.Inspections.Include(row => row.Tasks).SingleAsync(row => row.Id == id);
            inspection.Open("gear", TagKind.Panel, "Cover", "8 screws", by, at);
            inspection.TakeOut(tool, by, at);
            inspection.FindObject(Guid.NewGuid(), "gear", "Washer", null, by, at);
            inspection.Work(new(SeparateInspector.Always, FirstLook: false));
            await db.SaveChangesAsync();
        }
        await using var again = shop.Open();
        var kept = await again.Inspections.AsNoTracking().SingleAsync(row => row.Id == id);
        kept.Tags.ShouldBe([new(1, "gear", TagKind.Panel, "Cover", "8 screws", new(by, at))]);
        kept.ToolsOut.ShouldBe([new(tool.Id, "Wrench T-1", new(by, at))]);
        kept.ForeignObjects.ShouldHaveSingleItem().What.ShouldBe("Washer");
        kept.House.ShouldBe(new(SeparateInspector.Always, FirstLook: false));
        kept.Worksheets.ShouldBe([new("two", "Two tasks", 1, 0)]);
        (await again.Tools.AsNoTracking().SingleAsync()).MayTorque(new(2026, 11, 23)).ShouldBeNull();
    }

    [Fact]
    public async Task An_edition_is_kept_as_it_was_written()
    {
        await shop.BeginAsync();
        await using (var db = shop.Open())
            await db.PutOnShelfAsync([Sheet(1)], TestShop.Now, default);
        await using var again = shop.Open();
        var edition = (await again.CurrentWorksheetsAsync(default)).ShouldHaveSingleItem();
        edition.Worksheet.ToJson().ShouldBe(Sheet(1).ToJson());
        edition.Worksheet.Columns.Select(column => column.ToString()).ShouldBe(["25 h", "annual"]);
    }

    [Fact]
    public async Task A_newer_one_of_the_product_follows_only_where_the_shop_wrote_none_of_its_own()
    {
        await shop.BeginAsync();
        await PutAsync(Sheet(1));
        await PutAsync(Sheet(1, "the same version never changes"));
        await PutAsync(Sheet(2, "Second"));
        (await CurrentAsync()).ShouldBe((2, "Second"));
        await using (var db = shop.Open())
        {
            db.Editions.Add(new(Guid.NewGuid(), Sheet(3, "Our own"), false, TestShop.Ines, TestShop.Now, "ours"));
            await db.SaveChangesAsync();
        }
        await PutAsync(Sheet(4, "Fourth of the product"));
        (await CurrentAsync()).ShouldBe((3, "Our own"));

        async Task PutAsync(Worksheet sheet)
        {
            await using var db = shop.Open();
            await db.PutOnShelfAsync([sheet], TestShop.Now, default);
        }

        async Task<(int, string)> CurrentAsync()
        {
            await using var db = shop.Open();
            var edition = (await db.CurrentWorksheetsAsync(default)).Single();
            return (edition.Version, edition.Worksheet.Title);
        }
    }

    [Fact]
    public async Task What_was_done_when_is_told_by_signed_inspections_alone()
    {
        var id = await shop.BeginAsync();
        await using var db = shop.Open();
        var inspection = await db.Inspections.Include(row => row.Tasks).Include(row => row.Discrepancies).SingleAsync(row => row.Id == id);
        var (tyres, brakes) = (inspection.Tasks.Single(task => task.Key == "tyres"), inspection.Tasks.Single(task => task.Key == "brakes"));
        inspection.Answer(tyres, TaskVerdict.Good, null, null, TestShop.Ines, new(2026, 11, 23, 9, 0, 0, TimeSpan.Zero));
        inspection.Answer(brakes, TaskVerdict.NotApplicable, "none", null, TestShop.Ines, TestShop.Now);
        await db.SaveChangesAsync();
        (await db.TasksDoneAsync(inspection.AircraftId, TestShop.Clock, default)).ShouldBeEmpty("it is still in work");
        inspection.Sign();
        await db.SaveChangesAsync();
        (await db.TasksDoneAsync(inspection.AircraftId, TestShop.Clock, default))
            .ShouldBe([new("two", "tyres", null, 1000.5m, new(2026, 11, 23))]);
    }

    [Fact]
    public async Task A_place_is_remembered_once_for_each_person()
    {
        await shop.BeginAsync();
        var (person, inspection, first, second) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        await using var db = shop.Open();
        db.RememberPlace(person, inspection, first, TestShop.Now);
        db.RememberPlace(person, inspection, second, TestShop.Now);
        (await db.PlaceOfAsync(person, inspection, default)).ShouldBe(second);
        (await db.PlaceOfAsync(Guid.NewGuid(), inspection, default)).ShouldBeNull();
        (await db.Whereabouts.CountAsync()).ShouldBe(1);
    }

    [Fact]
    public async Task Whoever_listens_is_told_who_comes_who_writes_and_who_goes()
    {
        var feed = new WalkFeed();
        var (walk, post) = (Guid.NewGuid(), Guid.NewGuid());
        using var stop = new CancellationTokenSource();
        await using var ines = feed.ListenAsync(walk, new(Guid.NewGuid(), "IC", "gear"), stop.Token).GetAsyncEnumerator(default);
        (await ines.MoveNextAsync()).ShouldBeTrue();
        ines.Current.Who.Select(present => present.Initials).ShouldBe(["IC"]);

        using var leaves = new CancellationTokenSource();
        var piet = feed.ListenAsync(walk, new(Guid.NewGuid(), "PO", "tail"), leaves.Token).GetAsyncEnumerator(default);
        await piet.MoveNextAsync();
        await ines.MoveNextAsync();
        ines.Current.Who.Select(present => $"{present.Initials} {present.ZoneKey}").ShouldBe(["IC gear", "PO tail"]);

        feed.Written(Guid.NewGuid(), Guid.NewGuid());
        feed.Written(walk, post);
        await ines.MoveNextAsync();
        ines.Current.Post.ShouldBe(post, "another walk's news stays there");

        await leaves.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(async () => { while (await piet.MoveNextAsync()) { } });
        await ines.MoveNextAsync();
        ines.Current.Who.Select(present => present.Initials).ShouldBe(["IC"]);
    }
}
