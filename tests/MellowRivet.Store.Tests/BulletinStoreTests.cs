using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

public sealed class BulletinStoreTests : IAsyncDisposable
{
    private static readonly DateOnly Today = TestShop.Today;

    private readonly TestShop shop = new();

    public ValueTask DisposeAsync() => shop.DisposeAsync();

    private static Bulletin Bulletin(string number, string rule = "", Compliance? compliance = null, string revision = "",
        ComponentKind? about = ComponentKind.Engine, DateOnly? published = null) =>
        new(BulletinFile.FormatName, 1, "Issuer", number, revision, BulletinKind.AirworthinessDirective, "Subject", published
            ?? Today.AddDays(-5), Today.AddDays(-5), RuleText.Read(rule).Rule!, compliance
            ?? new([new(DeadlineKind.BeforeNextFlight)], new Repeat(100)), "doc", [], about);

    private async Task<TakenIn> TakeInAsync(params Bulletin[] bulletins)
    {
        await using var db = shop.Open();
        TakenIn? taken = null;
        (await db.OnceAsync(Guid.NewGuid(), TestShop.Clock, async () =>
        {
            taken = await db.TakeInAsync(bulletins, "test", null, TestShop.Now, default);
            return null;
        }, default)).Done.ShouldBeTrue();
        return taken!;
    }

    private async Task<BulletinResearch> LookedAsync()
    {
        await using var db = shop.Open();
        return (await shop.Board(db).NowAsync(default)).Lines.Single(line => line.Aircraft.Registration == "N0TST").Research;
    }

    [Fact]
    public async Task A_bulletin_comes_back_whole_with_what_this_program_does_not_know()
    {
        await shop.BeginAsync();
        var json = BulletinFile.ToJson(
            Bulletin("AD-1", "any of:\n  engine.serial in E-1 to E-9\n  none of:\n    engine.modification.M-1 is yes"))
                .Replace("\"method\"", "\"ticket\": 7, \"method\"");
        await TakeInAsync([.. BulletinFile.Read(json).Bulletins]);
        await using var db = shop.Open();
        var kept = await db.Bulletins.SingleAsync();
        kept.Bulletin.Other!["ticket"].GetInt32().ShouldBe(7);
        kept.Bulletin.AppliesTo.InWords.ShouldBe("engine.serial in E-1 to E-9 or not engine.modification.M-1 is yes");
    }

    [Fact]
    public async Task One_that_is_here_already_stays_as_it_is()
    {
        await shop.BeginAsync();
        (await TakeInAsync(Bulletin("AD-1"))).New.Count.ShouldBe(1);
        var again = await TakeInAsync(Bulletin("AD-1") with { Subject = "Other words" }, Bulletin("AD-1", revision: "A"));
        (again.New.Single().Revision, again.Known).ShouldBe(("A", 1));
        await using var db = shop.Open();
        (await db.Bulletins.ToListAsync()).ShouldAllBe(held => held.Bulletin.Subject == "Subject");
    }

    // What the board keeps is what is on file, whether a bulletin comes, a fact is read, or somebody notes what was done.
    [Fact]
    public async Task The_board_follows_bulletins_facts_and_cases()
    {
        await shop.BeginAsync();
        (await LookedAsync()).Lines.ShouldBeEmpty();
        var held = (await TakeInAsync(Bulletin("AD-1", "engine.crankshaft.serial in TK-1 to TK-9"))).New[0];
        (await LookedAsync()).Lines.Single().State.ShouldBe(BulletinState.CannotTell);
        await using (var db = shop.Open())
        {
            var written = await shop.Desk(db).WriteFileAsync((await db.Aircraft.SingleAsync()).Id, Guid.NewGuid(), aircraft =>
            {
                var (fact, refusal) = StatedFact.Take(aircraft, aircraft.Engines.Single(), "engine.crankshaft.serial", "TK-4",
                    Guid.NewGuid(), null, TestShop.Ines, TestShop.Now, TestShop.Today);
                db.Add(fact!);
                return Task.FromResult(refusal);
            }, default);
            written.Done.ShouldBeTrue();
        }
        var line = (await LookedAsync()).Lines.Single();
        (line.State, line.Grounds(1000)).ShouldBe((BulletinState.BeforeFlight, true));
        await using (var db = shop.Open())
        {
            var one = await db.FollowUpAsync(held.Family, Guid.Empty, line.On!.ComponentId, default);
            one.Comply(held.Bulletin, new(Today, 1012.8m, "", "doc", false, false, "book", TestShop.Ines), Today).ShouldBeNull();
            await db.SaveChangesAsync();
        }
        var done = (await LookedAsync()).Lines.Single();
        (done.State, done.Due!.Status.Limb(LimbKind.Hours)!.DueAt).ShouldBe((BulletinState.Ahead, 1112.8m));
    }

    [Fact]
    public async Task Signing_notes_what_was_complied_with_and_a_binding_one_stops_a_signature()
    {
        var inspection = await shop.BeginAsync();
        var held = (await TakeInAsync(Bulletin("AD-1"))).New[0];
        async Task<Written> WriteAsync(Func<Job, Core.Refusal?> work)
        {
            await using var db = shop.Open();
            return await shop.Desk(db).WriteAsync(inspection, Guid.NewGuid(), work, default);
        }
        async Task<Written> SignAsync()
        {
            await using var db = shop.Open();
            return await shop.SignAsync(db, inspection);
        }
        void AnswerAll(Job job)
        {
            foreach (var task in job.Inspection.Tasks)
                job.Inspection.Answer(task, TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now);
        }
        (await WriteAsync(job => { AnswerAll(job); return null; })).Done.ShouldBeTrue();
        (await SignAsync()).Refusal!.Field.ShouldBe("sign", "AD-1 is due before next flight");
        var line = (await LookedAsync()).Lines.Single();
        (await WriteAsync(job =>
        {
            job.Inspection.TakeInBulletin(line).ShouldBeNull();
            AnswerAll(job);
            return job.Inspection.ComplyWith(held.Bulletin, job.Inspection.Bulletins[0].ZoneKey, "doc", false, false, "done",
                TestShop.Signer.Person, Today, TestShop.Now);
        })).Refusal.ShouldBeNull();
        (await SignAsync()).Refusal.ShouldBeNull();
        await using var after = shop.Open();
        var done = (await after.BulletinFollowUps.SingleAsync()).Done.Single();
        (done.Hours, done.Reference).ShouldBe((1012.8m, "work order 26-1"), "the engine's own hours: 12.3 when fitted");
        (await after.SignedRecords.SingleAsync(record => record.Book == Book.Engine)).Json.ShouldContain("AD-1: done");
    }

    [Fact]
    public async Task The_status_is_a_record_of_the_chain()
    {
        var inspection = await shop.BeginAsync();
        await using (var db = shop.Open())
            (await shop.Desk(db)
                .SignStatusAsync(inspection, Guid.NewGuid(), TestShop.Rules, TestShop.Signer, default)).Refusal!.Field.ShouldBe("sign",
                    "no bulletin is held");
        await TakeInAsync(Bulletin("AD-1", "engine.serial in F-1 to F-9"));
        await using (var db = shop.Open())
            (await shop.Desk(db).SignStatusAsync(inspection, Guid.NewGuid(), TestShop.Rules, TestShop.Signer, default)).Done.ShouldBeTrue();
        await using var after = shop.Open();
        (await after.SignedRecords.SingleAsync()).Json.ShouldContain("does not apply");
        (await TestShop.VerifiedAsync(after)).ShouldBe((null, 1));
    }

    [Fact]
    public async Task The_service_brings_what_came_out_since_and_says_how_it_falls_on_the_shop()
    {
        await shop.BeginAsync();
        await File.WriteAllTextAsync(Path.Combine(shop.Data.Feed, "a.json"),
            BulletinFile.ToJson([Bulletin("AD-1"), Bulletin("AD-2", "engine.crankshaft.serial in TK-1", published: Today.AddDays(-1)),
                Bulletin("AD-3", published: Today.AddDays(4))]));
        async Task<FeedState> AskAsync()
        {
            await using var db = shop.Open();
            return await new BulletinPost(db, new SimulatedBulletinService(shop.Data), shop.Board(db), TestShop.Clock).AskAsync(default);
        }
        (await AskAsync()).Said.ShouldBe("2 new: 1 aircraft", "what comes out in four days isn't out yet");
        (await AskAsync()).Said.ShouldBe("nothing new");
        await File.WriteAllTextAsync(Path.Combine(shop.Data.Feed, "late.json"),
            BulletinFile.ToJson(Bulletin("AD-4", published: Today.AddDays(-20))));
        (await AskAsync()).Said.ShouldBe("1 new: 1 aircraft", "dated back, and sent late");
        await File.WriteAllTextAsync(Path.Combine(shop.Data.Feed, "b.json"), "{ broken");
        var broken = await AskAsync();
        broken.Said.ShouldStartWith("b.json: It can’t be read");
        await using var after = shop.Open();
        (await after.Bulletins.CountAsync()).ShouldBe(3);
    }
}
