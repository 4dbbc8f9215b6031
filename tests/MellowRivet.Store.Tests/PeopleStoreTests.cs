using MellowRivet.Core.People;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

public sealed class PeopleStoreTests : IAsyncLifetime
{
    private readonly TestShop shop = new();
    private static readonly DateOnly Today = new(2026, 11, 23);

    public async ValueTask InitializeAsync() => await shop.BeginAsync();

    public ValueTask DisposeAsync() => shop.DisposeAsync();

    // Owners of a shop from before: what their pilot's certificate was bound to is theirs from the day of the change.
    [Fact]
    public async Task Owners_of_before_go_on_seeing_their_aircraft()
    {
        Guid pilot = Guid.NewGuid(), builder = Guid.NewGuid(), aircraft;
        await using (var db = shop.Open())
        {
            db.People.AddRange(new Person(pilot, "P", "PP", [Role.Owner], [new(CertificateKind.Pilot, "1", "T-1")]),
                new Person(builder, "B", "BB", [Role.Owner], [new(CertificateKind.RepairmanExperimentalBuilder, "2", "T-1")]));
            await db.SaveChangesAsync();
            aircraft = db.Aircraft.Single().Id;
            await db.OwnersFromCertificatesAsync(Today, default);
        }
        await using var after = shop.Open();
        (await after.SightOfAsync(pilot, Today, default)).Sees(aircraft).ShouldBeTrue();
        (await after.SightOfAsync(builder, Today, default)).Sees(aircraft).ShouldBeFalse("whoever built it may have sold it");
        (await after.SightOfAsync(Guid.NewGuid(), Today, default)).IsWhole.ShouldBeFalse("nobody sees nothing");
    }

    [Fact]
    public async Task A_session_ends_by_itself_and_with_its_person()
    {
        await using var db = shop.Open();
        var person = new Person(Guid.NewGuid(), "P", "PP", [Role.Mechanic], []);
        var account = new Account { Id = Guid.NewGuid(), UserName = "p", PersonId = person.Id, SecurityStamp = "stamp" };
        db.AddRange(person, account);
        await db.SaveChangesAsync();
        var session = await db.BeginSessionAsync(account.Id, TestShop.Now, default);
        (await db.StampOfAsync(session, TestShop.Now, default)).ShouldBe("stamp");
        (await db.StampOfAsync(session, TestShop.Now + Session.Longest, default)).ShouldBeNull("it ended");
        (await db.StampOfAsync(Guid.NewGuid(), TestShop.Now, default)).ShouldBeNull();
        person.Leave(TestShop.Now, [new Person(Guid.NewGuid(), "A", "AA", [Role.ShopAdmin], [])]).ShouldBeNull();
        await db.SaveChangesAsync();
        (await db.StampOfAsync(session, TestShop.Now, default)).ShouldBeNull("the door is closed");
        await db.BeginSessionAsync(account.Id, TestShop.Now + Session.Longest + TimeSpan.FromDays(1), default);
        (await db.Sessions.CountAsync()).ShouldBe(1, "what ended is swept");
    }

    // EF Core says it by words alone; the refusal hangs on them.
    [Fact]
    public async Task Another_things_id_makes_nothing_whether_it_is_at_hand_or_not()
    {
        await using var db = shop.Open();
        var there = db.Aircraft.Single();
        Core.Fleet.Aircraft Another() => new(there.Id, "N0X", "X", "X", Core.Fleet.Category.Standard, there.Configuration);
        Should.Throw<IdTakenException>(() => db.Put(Another()));
        (await db.OnceAsync(Guid.NewGuid(), TestShop.Clock, () =>
        {
            db.Put(Another());
            return Task.FromResult<Core.Refusal?>(null);
        }, default)).Refusal!.Field.ShouldBe("post");
        (await db.OnceAsync(Guid.Empty, TestShop.Clock, () => Task.FromResult<Core.Refusal?>(null), default)).Refusal!.Field
            .ShouldBe("post");
    }
}
