using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Hangar;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Time.Testing;

namespace MellowRivet.Store.Tests;

/// <summary>The one board: drawn by one at a time, published whole, never older than what was saved.</summary>
public sealed class ShopBoardTests : IAsyncLifetime
{
    private readonly TestShop shop = new();
    private Guid inspection;

    public async ValueTask InitializeAsync() => inspection = await shop.BeginAsync();

    public ValueTask DisposeAsync() => shop.DisposeAsync();

    private async Task<ShopStanding> NowAsync(TimeProvider? clock = null)
    {
        await using var db = shop.Open();
        return await shop.Board(db, clock).NowAsync(default);
    }

    private async Task ChangeAsync(Func<RivetDb, Task> change)
    {
        await using var db = shop.Open();
        await change(db);
        await db.SaveChangesAsync();
    }

    [Fact]
    public async Task Many_who_ask_at_once_get_the_same_one()
    {
        var all = await Task.WhenAll(Enumerable.Range(0, 24).Select(_ => Task.Run(() => NowAsync())));
        all.Distinct(ReferenceEqualityComparer.Instance).Count().ShouldBe(1, "one drew it, the others waited");
        (await NowAsync()).ShouldBeSameAs(all[0]);
    }

    [Fact]
    public async Task What_was_saved_a_moment_ago_is_on_it_and_the_rest_is_kept()
    {
        await ChangeAsync(db =>
        {
            var other = new Aircraft(Guid.NewGuid(), "N0AAA", "Test", "T-2", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2));
            other.ReadTime(TestShop.Today, new Hours(10));
            db.Add(other);
            return Task.CompletedTask;
        });
        var before = await NowAsync();
        before.Aircraft.Select(one => one.Hangar.Registration).ShouldBe(["N0AAA", "N0TST"]);
        await ChangeAsync(async db => (await db.Inspections.Include(row => row.Tasks).Include(row => row.Discrepancies)
            .SingleAsync(row => row.Id == inspection))
            .Find(Guid.NewGuid(), "spar cracked", "gear", "", DiscrepancyClass.Airworthiness, true, null, TestShop.Ines, TestShop.Now));
        var after = await NowAsync();
        after.Aircraft[0].ShouldBeSameAs(before.Aircraft[0], "nothing of it changed");
        after.Aircraft[1].Due.ShouldBeSameAs(before.Aircraft[1].Due, "what is due on it did not");
        after.Aircraft[1].Hangar.Calls.ShouldContain(call => call.At == GoTo.Found && call.Text.Contains("spar cracked"));
        (after.Aircraft[1].Hangar.IsGrounded, before.Aircraft[1].Hangar.IsGrounded).ShouldBe((true, false),
            "what was handed out stays as it was");
    }

    // Whoever works on an inspection draws what is due and no more; the hangar then draws its lines from that.
    [Fact]
    public async Task What_was_drawn_without_the_hangar_is_not_taken_for_the_whole()
    {
        var before = await NowAsync();
        await ChangeAsync(async db => (await db.Aircraft.SingleAsync())
            .Describe("N0NEW", "Test", "T-1", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2)));
        await using (var db = shop.Open())
            (await shop.Board(db).LineAsync(before.Aircraft[0].Due.Aircraft.Id, default)).Aircraft.Registration.ShouldBe("N0NEW");
        (await NowAsync()).Aircraft.Single().Hangar.Registration.ShouldBe("N0NEW");
    }

    // Pages of a walk show an engine that came off, and what was read on it; what is due goes by what is fitted.
    [Fact]
    public async Task Its_aircraft_know_what_came_off_and_nothing_of_that_is_due()
    {
        Component part = new(Guid.NewGuid(), ComponentKind.Other, "Parachute", "TP-1", "1");
        await ChangeAsync(async db =>
        {
            var aircraft = await db.Aircraft.WithParts().SingleAsync();
            db.Add(aircraft.Install(part, "cabin", aircraft.TimeInService, null));
            db.Add(new DueItem(Guid.NewGuid(), null, part.Id, "Repack", DueKind.Service, new(EveryMonths: 60),
                new(Standing.Manual, "test")));
        });
        var before = await NowAsync();
        before.Due.ShouldContain(due => due.Entry.Item.What == "Repack");
        await ChangeAsync(async db => (await db.Aircraft.WithParts().SingleAsync() is var aircraft
            ? aircraft.TakeOff(part.Id, TestShop.Today, aircraft.TimeInService, "sold")
            : null).ShouldBeNull());
        var after = await NowAsync();
        after.Aircraft.Single().Due.Aircraft.Installations.Single(stay => stay.ComponentId == part.Id).IsOn.ShouldBeFalse();
        after.Due.ShouldNotContain(due => due.Entry.Item.What == "Repack");
    }

    // A file put with a bulletin is a change of it as well.
    [Fact]
    public async Task A_file_put_with_a_bulletin_is_there_at_once()
    {
        await ChangeAsync(async db =>
            await db.TakeInAsync(
                [new Bulletin(BulletinFile.FormatName, 1, "Issuer", "AD-1", "", BulletinKind.AirworthinessDirective, "Subject",
                    TestShop.Today, TestShop.Today, RuleText.Read("").Rule!, new([new(DeadlineKind.BeforeNextFlight)]), "doc", [])], "test",
                    null, TestShop.Now, default));
        (await NowAsync()).Bulletins.All.Single().Attachments.ShouldBeEmpty();
        await ChangeAsync(async db => (await db.Bulletins.SingleAsync()).Attach(new(new string('a', 64), "scan", "application/pdf")));
        (await NowAsync()).Bulletins.All.Single().Attachments.ShouldHaveSingleItem();
    }

    // At midnight one draws today's; whoever comes meanwhile sees yesterday's, which says its day, and doesn't wait.
    [Fact]
    public async Task At_midnight_the_others_see_yesterdays_with_its_day()
    {
        var yesterday = await NowAsync();
        var (drawing, drawn) = (new TaskCompletionSource(), new TaskCompletionSource());
        var today = TestShop.Today.AddDays(1);
        var one = shop.Kept.GetAsync(there => there.Day == today, async there =>
        {
            drawing.SetResult();
            await drawn.Task;
            return there! with { Day = today };
        }, default, there => there.Day < today);
        await drawing.Task;
        (await shop.Kept.GetAsync(there => there.Day == today, _ => throw new InvalidOperationException("two draw at once"), default,
            there => there.Day < today)).ShouldBeSameAs(yesterday);
        drawn.SetResult();
        (await one).Day.ShouldBe(today);
        (await NowAsync(new FakeTimeProvider(TestShop.Now.AddDays(1)))).Day.ShouldBe(today);
    }

    [Fact]
    public async Task One_that_could_not_be_drawn_leaves_the_turn_to_the_next()
    {
        await Should.ThrowAsync<InvalidOperationException>(
            () => shop.Kept.GetAsync(_ => false, _ => throw new InvalidOperationException("the disk is gone"), default));
        (await NowAsync()).Aircraft.ShouldHaveSingleItem();
    }

    // A directive that comes in while the signature is being typed holds it up: it is looked up in the signature's own turn.
    [Fact]
    public async Task A_directive_that_came_in_a_moment_ago_is_seen_by_the_signature()
    {
        await using var db = shop.Open();
        var before = await shop.Board(db).InTurnAsync((await db.Aircraft.AsNoTracking().SingleAsync()).Id, default);
        before.Research.Lines.ShouldBeEmpty();
        await ChangeAsync(async other =>
            await other.TakeInAsync(
                [new Bulletin(BulletinFile.FormatName, 1, "Issuer", "AD-2", "", BulletinKind.AirworthinessDirective, "Subject",
                    TestShop.Today.AddDays(-1), TestShop.Today.AddDays(-1), RuleText.Read("").Rule!,
                    new([new(DeadlineKind.BeforeNextFlight)]), "doc", [])], "test", null, TestShop.Now, default));
        (await shop.Board(db).InTurnAsync(before.Aircraft.Id, default)).Research.Lines.ShouldHaveSingleItem();
    }

    // SQLite takes 32,766 parameters in a statement: a large fleet has as many parts.
    [Fact]
    public async Task A_list_of_parts_may_be_longer_than_a_statement_takes_parameters()
    {
        await using var db = shop.Open();
        (await db.SeriesOf(Enumerable.Range(0, 40_000).Select(_ => Guid.NewGuid())).CountAsync()).ShouldBe(0);
    }

    [Fact]
    public async Task A_post_is_known_again_for_as_long_as_a_device_may_keep_it_and_let_go_after()
    {
        await using var db = shop.Open();
        var (old, late) = (Guid.NewGuid(), new FakeTimeProvider(TestShop.Now + Once.Kept + TimeSpan.FromMinutes(1)));
        (await db.OnceAsync(old, TestShop.Clock, () => Task.FromResult<Core.Refusal?>(null), default)).Repeated.ShouldBeFalse();
        (await db.OnceAsync(old, TestShop.Clock, () => Task.FromResult<Core.Refusal?>(null), default)).Repeated.ShouldBeTrue();
        (await db.OnceAsync(Guid.NewGuid(), late, () => Task.FromResult<Core.Refusal?>(null), default)).Done.ShouldBeTrue();
        (await db.Postings.CountAsync(done => done.Id == old)).ShouldBe(0);
    }
}
