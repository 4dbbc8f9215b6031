using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Tests.Bulletins;

/// <summary>A bulletin to vary, and one aircraft to hold it against.</summary>
internal static class BulletinFixture
{
    public static readonly DateOnly Today = new(2026, 11, 23);

    /// <summary>Every model that these tests have on file; those of a test's own come with it.</summary>
    public static readonly TypeList Types = new(
    [
        .. new[] { "Corrin 6", "Corrin 4" }
            .Select(model => new KnownType(Guid.NewGuid(), TypeKind.Aircraft, "Ostrand", model)),
            new(Guid.NewGuid(), TypeKind.Aircraft, "", "T"), new(Guid.NewGuid(), TypeKind.Aircraft, "", "Test type"),
        new(Guid.NewGuid(), TypeKind.Engine, "Tarn and Field Engines", "TF-1"), new(Guid.NewGuid(), TypeKind.Appliance, "Hallow", "TC-9"),
    ]);

    public static Bulletin Bulletin(string number = "SB-1", Rule? rule = null, Compliance? compliance = null, ComponentKind? about = null,
        BulletinKind kind = BulletinKind.AirworthinessDirective, DateOnly? effective = null) =>
        new(BulletinFile.FormatName, 1, "Issuer", number, "", kind, "Subject", effective ?? new(2026, 11, 1), effective
            ?? new(2026, 11, 1), rule ?? new All([]), compliance ?? new([]), "document 1", [], about);

    public static ShopBulletin Held(Bulletin bulletin) => new(Guid.NewGuid(), bulletin, "test", null, Fixture.Now);

    public static Rule Rule(string text) => RuleText.Read(text).Rule ?? throw new InvalidOperationException(RuleText.Read(text).Fault);

    /// <summary>The lines of some bulletins on an aircraft.</summary>
    public static BulletinResearch Research(Aircraft aircraft, IEnumerable<ShopBulletin> held,
        IReadOnlyCollection<BulletinFollowUp>? followUps = null, IReadOnlyCollection<StatedFact>? stated = null,
        IReadOnlyCollection<DueItem>? due = null, DateOnly? today = null, TypeList? types = null)
    {
        var line = DueLine.Of(aircraft, due ?? [], aircraft.MeterReadings, today ?? Today);
        return BulletinResearch.Of(new(held, types ?? Types, today ?? Today), followUps ?? [], stated
            ?? [], Fixture.Rules.Bulletins, line, aircraft.MeterReadings);
    }

    public static BulletinLine Line(Aircraft aircraft, Bulletin bulletin, IReadOnlyCollection<BulletinFollowUp>? followUps = null,
        IReadOnlyCollection<StatedFact>? stated = null, IReadOnlyCollection<DueItem>? due = null, DateOnly? today = null) =>
        Research(aircraft, [Held(bulletin)], followUps, stated, due, today).Lines.ShouldHaveSingleItem();

    /// <summary>An aircraft that flew 100 h between 2026-10-01 and 2026-11-20.</summary>
    public static Aircraft Flown(Category category = Category.Standard)
    {
        var aircraft = new Aircraft(Guid.NewGuid(), "N0TST", "Corrin 6", "C-77", category, new(Wing.Low, Gear.NoseWheel, 1, 2));
        var engine = new Component(Guid.NewGuid(), ComponentKind.Engine, "TF-1", "E-5")
            { LayoutKey = EngineLayout.FlatFour.Key, Ignition = new(IgnitionKind.Magneto, IgnitionKind.Magneto) };
        aircraft.InstallEngine(engine, "", new(0), new(200), new(2020, 1, 1));
        aircraft.ReadTime(new(2026, 10, 1), new(1000));
        aircraft.ReadTime(new(2026, 10, 31), new(1060));
        aircraft.ReadTime(new(2026, 11, 20), new(1100));
        return aircraft;
    }

    public static DueItem Annual(Aircraft aircraft, DateOnly last)
    {
        var item = new DueItem(Guid.NewGuid(), aircraft.Id, null, "Annual", DueKind.Inspection, new(EveryMonths: 12),
            new(Standing.Law, "14 CFR 91.409(a), from memory"));
        item.SetDone(new(last), Today).ShouldBeNull();
        return item;
    }

    public static BulletinFollowUp FollowUp(Bulletin bulletin, Aircraft aircraft, Guid? part = null) =>
        new(Guid.NewGuid(), bulletin.Family, part is null ? aircraft.Id : null, part);

    public static Complied Done(DateOnly on, decimal? hours, string revision = "", bool finding = false, bool terminating = false) =>
        new(on, hours, revision, "document 1", finding, terminating, "book, p. 1", Guid.NewGuid());
}
