using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Demo;

/// <summary>
/// About forty invented bulletins: most are here and seen to, a few wait to be asked for, one keeps the twin on the ground, and one asks
/// for a serial number that nobody has read yet.
/// </summary>
internal static class DemoBulletins
{
    public static async Task MakeAsync(DemoHistory demo, DataFolder data, CancellationToken stop)
    {
        var (read, fault) = BulletinFile.Read(
            await File.ReadAllTextAsync(Path.Combine(AppContext.BaseDirectory, "Demo", "bulletins.json"), stop));
        if (fault is not null)
            throw new InvalidOperationException(fault);
        var all = read.Select(bulletin => Moved(bulletin, demo)).ToList();
        await File.WriteAllTextAsync(Path.Combine(data.Feed, "bulletins.json"), BulletinFile.ToJson(all), stop);
        var asked = demo.Today.AddDays(-7);
        await demo.Db.TakeInAsync([.. all.Where(bulletin => bulletin.Published <= asked)], "simulated service", null,
            demo.Now.AddDays(-7), stop);
        demo.Db.Feeds.Add(new() { Source = "simulated service", Since = asked, AskedAt = demo.Now.AddDays(-7), Said = "nothing new" });

        // Kept here: the tracker would look for changes each time it is asked.
        var (here, followUps) = (demo.Db.Bulletins.Local.ToList(), new List<BulletinFollowUp>());
        var fleet = await demo.Db.Aircraft.AsNoTracking().WithParts().ToListAsync(stop);
        var (trainer, twin, sport, built) = (One("N04QF"), One("N0TWQ"), One("N0LTS"), One("N0BRM"));
        var engine = trainer.Engines.First().Component;
        var plate = await demo.PictureAsync(Subject.Fitting, 88, stop);
        demo.Db.StatedFacts.AddRange(
            new StatedFact(Guid.CreateVersion7(), null, engine.Id, "certified", YesNo.Yes, plate, demo.Person("ines").Id,
                demo.Now.AddDays(-290)),
            new StatedFact(Guid.CreateVersion7(), trainer.Id, null, "made", "1998-04-17", null, demo.Person("ines").Id,
                demo.Now.AddDays(-290)));

        Adopt(trainer, null, "PD2-53-02", "Three of the school’s sisters had corrosion there", 880);
        Done(trainer, null, "PD2-53-02", -240, 4160.2m, "Part B, borescope", "airframe book 4, p. 31", finding: true);
        Decline(trainer, null, "PD2-25-04", "No stop has ever slipped; looked at every annual", 600);
        Done(trainer, trainer.Fitted(ComponentKind.LocatorTransmitter)
            .First(), "AD 2021-11-02", -1700, null, "Hallow LT-25-7", "airframe book 3, p. 88");
        Done(trainer, null, "AD 2018-02-05", -3100, null, "Selector FS-9 fitted", "airframe book 3, p. 12", terminating: true);
        Done(trainer, trainer.Fitted(ComponentKind.Pump).First(), "AD 2020-17-03", -200, 220, "Hallow SP-37-2", "engine book, p. 40");
        Adopt(trainer, engine.Id, "TF4-72-19", "The filter tells in time: looked at with every oil change", 280);
        Done(trainer, trainer.Engines.First(), "TF4-72-19", -270, 4120, "TF4-72-19 rev A, filter clean", "engine book, p. 44",
            revision: "A");
        foreach (var (stay, then) in twin.Engines.Zip([5101.9m, 5102.7m]))
            Done(twin, stay, "AD 2024-03-02", -390, then, "SF6-72-12 rev D, paragraph 3", $"{stay.Position} engine book, p. 61");
        Adopt(twin, null, "OC-32-08", "The drag link has no spare on the shelf within a month", 1200);
        Done(twin, null, "OC-32-08", -390, 5102.7m, "Ostrand OC-32-08, bushes 0.002 in", "airframe book 3, p. 70");
        Done(sport, null, "BM-SD-07", -230, 1265, "Brindle BM-SD-07, step 4", "airframe book, p. 18");
        Done(sport, null, "BM-SD-09", -40, 1468, "Brindle BM-SD-09, page 2", "airframe book, p. 24");
        Done(sport, sport.Fitted(ComponentKind.Carburettor)
            .First(), "LQ4-SD-03", -300, 1201, "LQ4-SD-03, needle replaced", "engine book, p. 20");
        Adopt(built, null, "OK-03", "Drawn by the man who drew the spring", 1000);
        Done(built, null, "OK-03", -900, 448, "Third leaf replaced", "airframe book, p. 9");
        Adopt(built, null, "OK-05", "The list begins with OK-10; ours was glued with the same batch", 200);
        await demo.Db.SaveChangesAsync(stop);

        Aircraft One(string registration) => fleet.Single(aircraft => aircraft.Registration == registration);
        ShopBulletin Of(string number) =>
            here.Where(held => held.Bulletin.Number == number).OrderByDescending(held => held.Bulletin.Effective).First();
        BulletinFollowUp FollowUp(Aircraft aircraft, Guid? part, string number) =>
            followUps.Find(one => one.Family == Of(number).Family && one.ComponentId == part
                && one.AircraftId == (part is null ? aircraft.Id : null))
            ?? Opened(new(Guid.CreateVersion7(), Of(number).Family, part is null ? aircraft.Id : null, part));
        BulletinFollowUp Opened(BulletinFollowUp one)
        {
            followUps.Add(one);
            return demo.Db.BulletinFollowUps.Add(one).Entity;
        }

        void Decide(Aircraft aircraft, Guid? part, string number, PolicyKind kind, string reason, int daysAgo)
        {
            var held = Of(number);
            BulletinLine line = new(held, null, "", new(RuleAnswer.Applies, [], []),
                BindingRule.For(held.Bulletin.Kind, aircraft.Category, demo.Shelf.RulesFor(aircraft.Category).Bulletins), null, null, null,
                BulletinState.Advisory, "", null);
            Check(number, FollowUp(aircraft, part, number).Decide(line, kind, reason, demo.Person("orla").Id, demo.Now.AddDays(-daysAgo)));
        }
        void Adopt(Aircraft aircraft, Guid? part, string number, string reason, int daysAgo) =>
            Decide(aircraft, part, number, PolicyKind.Adopted, reason, daysAgo);
        void Decline(Aircraft aircraft, Guid? part, string number, string reason, int daysAgo) =>
            Decide(aircraft, part, number, PolicyKind.Declined, reason, daysAgo);
        void Done(Aircraft aircraft, Installation? part, string number, int days, decimal? hours, string method, string reference,
            bool finding = false, bool terminating = false, string revision = "") =>
            Check(number, FollowUp(aircraft, part?.ComponentId, number)
                .Comply(Of(number).Bulletin,
                    new(demo.Today.AddDays(days), hours, revision, method, finding, terminating, reference, demo.Person("ines").Id),
                    demo.Today));
    }

    private static void Check(string number, Core.Refusal? refusal)
    {
        if (refusal is not null)
            throw new InvalidOperationException($"{number}: {refusal.Message}");
    }

    private static Bulletin Moved(Bulletin bulletin, DemoHistory demo) => bulletin with
    {
        Published = demo.Moved(bulletin.Published),
        Effective = demo.Moved(bulletin.Effective),
        Compliance = bulletin.Compliance with
            { Deadlines =
                [.. bulletin.Compliance.Deadlines.Select(limb => limb with { Date = limb.Date is { } day ? demo.Moved(day) : null })] },
    };
}
