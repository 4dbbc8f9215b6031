using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

/// <summary>What was found, as it is kept and found again at the next inspection.</summary>
public sealed class FixListStoreTests : IAsyncDisposable
{
    private static readonly DateTimeOffset At = new(2026, 11, 22, 9, 0, 0, TimeSpan.Zero);
    private readonly TestShop shop = new();

    public ValueTask DisposeAsync() => shop.DisposeAsync();

    // Two discrepancies on an inspection that is signed: a crack that was repaired, and a known mark.
    private async Task<(Guid Crack, Guid Mark)> SignedAsync()
    {
        var id = await shop.BeginAsync();
        await using var db = shop.Open();
        var inspection = await db.Inspections.Include(row => row.Tasks).Include(row => row.Discrepancies).SingleAsync(row => row.Id == id);
        var crack = inspection.Find(Guid.NewGuid(), "Crack at the axle", "gear", "left", DiscrepancyClass.Airworthiness, true,
            inspection.Tasks.Single(task => task.Key == "tyres"), TestShop.Ines, At, new(104.5, 140));
        crack.Add(new Photo(new string('a', 64), 4000, 3000, new DateTime(2026, 11, 22, 9, 0, 0), At));
        crack.Draw(crack.Photos[0].Sha256,
            [new(AnnotationKind.Scale, [new(10, 10), new(510, 10)], "rule", 50, 0.1, 1.5),
                new(AnnotationKind.Length, [new(10, 90), new(110, 90)])],
            crack.Changes).ShouldBeNull();
        crack.Add(new Sound(new string('b', 64), "audio/wav", At));
        crack.Add(Guid.NewGuid(), "sounds dull", TestShop.Ines, At);
        crack.Expect(Estimate.Of(2.5m, 120, new(2026, 12, 1)), inspection.Terms, TestShop.Ines, At);
        crack.Move(Disposition.Asked, null, inspection.Terms, TestShop.Ines, At);
        crack.Move(Disposition.Approved, "go on", inspection.Terms, null, At);
        crack.Correct(new("Welded", CorrectionKind.Repaired, "sheet 4", [new("AX-1", "", "A-7")],
            new(17, "N·m", new(Guid.NewGuid(), "Wrench", new(2027, 1, 1), 10, null, 17))), inspection.Terms, TestShop.Ines, At)
                .ShouldBeNull();
        var mark = inspection.Find(Guid.NewGuid(), "Line in the paint", "gear", "right", DiscrepancyClass.Watch, false, null,
            TestShop.Ines, At);
        mark.Examine(new(FoundHow.DyePenetrant, "no indication", TestShop.Ines, new(2026, 11, 22), new(2028, 1, 1)), new(2026, 11, 22),
            new(DiscrepancyClass.KnownMark, false, TestShop.Ines, At), new([], [], Meaning.None)).ShouldBeNull();
        inspection.Sign();
        await db.SaveChangesAsync();
        return (crack.Id, mark.Id);
    }

    [Fact]
    public async Task Everything_of_a_discrepancy_is_there_again()
    {
        var (crack, _) = await SignedAsync();
        await using var db = shop.Open();
        var kept = await db.Discrepancies.AsNoTracking().SingleAsync(row => row.Id == crack);
        kept.Place.ShouldBe(new("gear", "left", "two/tyres", null, new(104.5, 140)));
        kept.Steps.Select(step => (step.To, step.By, step.Words))
            .ShouldBe([(Disposition.Asked, TestShop.Ines, null), (Disposition.Approved, null, "at $120 · go on"),
                (Disposition.Done, TestShop.Ines, null)]);
        kept.Correction!.InWords.ShouldBe("Welded Ref. sheet 4. P/n AX-1, s/n A-7 on. Torque 17 N·m, Wrench, calibrated until 2027-01-01.");
        kept.Photos.Single().Measured.Single().Value.ShouldBe(10, 1e-9);
        (kept.Sounds.Single().Type, kept.Notes.Single().Words).ShouldBe(("audio/wav", "sounds dull"));
        (kept.Estimate!.Hours, kept.Estimate.PartsCost, kept.Estimate.PartsBy)
            .ShouldBe((Spread.Of(2.5m), Spread.Of(120), new DateOnly(2026, 12, 1)));
        (kept.Agreed!.Price, kept.Agreed.How, kept.Agreed.At).ShouldBe((Spread.Of(120), AgreedHow.Owner, At));
    }

    [Fact]
    public async Task The_next_inspection_finds_the_place_and_carries_the_mark_until_one_takes_its_place()
    {
        var (crack, mark) = await SignedAsync();
        var next = await shop.BeginOtherAsync();
        await using var db = shop.Open();
        var inspection = await db.Inspections.Include(row => row.Tasks).Include(row => row.Discrepancies)
            .SingleAsync(row => row.Id == next);
        var history = PlaceHistory.Of(new("gear", "left side", null, null, null),
            await db.EarlierFindsAsync(inspection, new("gear", "", null, null, null), default));
        history.Same.Select(find => (find.Found.Id, find.Number)).ShouldBe([(crack, "26-1-01")]);
        history.RepairWarning.ShouldNotBeNull();
        (await db.EarlierFindsAsync(inspection, new("cabin", "", null, null, null), default)).ShouldBeEmpty();
        (await db.EarlierFindsAsync(inspection, null, default)).Count.ShouldBe(2);

        var carried = (await db.KnownMarksAsync(inspection.AircraftId, default)).ShouldHaveSingleItem();
        (carried.DiscrepancyId, carried.Number, carried.Examination!.Method).ShouldBe((mark, "26-1-02", FoundHow.DyePenetrant));
        var typo = inspection.Find(Guid.NewGuid(), "Typed at the wrong place", "gear", "left", DiscrepancyClass.Airworthiness, false, null,
            TestShop.Ines, At);
        typo.IsAgain(mark);
        typo.Move(Disposition.Withdrawn, "another line", inspection.Terms, TestShop.Ines, At).ShouldBeNull();
        await db.SaveChangesAsync();
        (await db.KnownMarksAsync(inspection.AircraftId, default))
            .ShouldHaveSingleItem().DiscrepancyId.ShouldBe(mark, "what was withdrawn takes nobody's place");
        inspection.Find(Guid.NewGuid(), "Line in the paint, tested again", "gear", "right", DiscrepancyClass.KnownMark, false, null,
            TestShop.Ines, At).IsAgain(mark);
        inspection.Sign();
        await db.SaveChangesAsync();
        (await db.KnownMarksAsync(inspection.AircraftId, default)).ShouldHaveSingleItem().What.ShouldBe("Line in the paint, tested again");
    }

    [Fact]
    public async Task A_token_opens_its_own_link_while_it_holds()
    {
        var id = await shop.BeginAsync();
        var (link, token, _) = OwnerLink.Make(Guid.NewGuid(), id, "owner@example.org", 3, TestShop.Ines, TestShop.Now);
        await using var db = shop.Open();
        db.OwnerLinks.Add(link!);
        await db.SaveChangesAsync();
        (await db.OwnerLinkAsync(token, TestShop.Clock, default))!.InspectionId.ShouldBe(id);
        foreach (var other in new[] { link!.TokenHash, token[1..] + "0", token + "0", "" })
            (await db.OwnerLinkAsync(other, TestShop.Clock, default)).ShouldBeNull();
        link.Revoke(TestShop.Now);
        await db.SaveChangesAsync();
        (await db.OwnerLinkAsync(token, TestShop.Clock, default)).ShouldBeNull();
    }

    [Fact]
    public async Task A_mail_lies_in_the_outbox_as_a_file_that_mail_programs_open()
    {
        var outbox = new OutgoingMail(shop.Data, TestShop.Clock);
        using (var waiting = outbox.For(Guid.NewGuid()))
        {
            (await waiting.WriteAsync("owner@example.org", "What was found: größer", "Line one\nhttps://shop.example/owner/abc", default))
                .ShouldBeNull();
            outbox.List().ShouldBeEmpty("what it tells of isn't kept yet");
            waiting.Send();
        }
        var mail = outbox.List().ShouldHaveSingleItem();
        (mail.To, mail.Subject).ShouldBe(("owner@example.org", "What was found: größer"));
        mail.Body.ShouldContain("https://shop.example/owner/abc");
        File.ReadAllText(outbox.Find(mail.Name)!).ShouldContain("MIME-Version: 1.0");
        (OutgoingMail.Takes("a@b.c"), OutgoingMail.Takes("a@b.c,d@e.f"), OutgoingMail.Takes("A <a@b.c>"),
            OutgoingMail.Takes("")).ShouldBe((true, false, false, false));
        outbox.Find("../rivet").ShouldBeNull();
        outbox.Find("").ShouldBeNull();
    }

    // As it lies after a kill between the mail's file and its place in the outbox: the one whose link is kept goes out, the other never
    // was.
    [Fact]
    public async Task A_mail_that_a_kill_left_on_its_way_is_sent_where_its_link_is_kept()
    {
        var id = await shop.BeginAsync();
        await using var db = shop.Open();
        var (link, _, _) = OwnerLink.Make(Guid.NewGuid(), id, "owner@example.org", 3, TestShop.Ines, TestShop.Now);
        db.OwnerLinks.Add(link!);
        await db.SaveChangesAsync();
        var outbox = new OutgoingMail(shop.Data, TestShop.Clock);
        foreach (var about in new[] { link!.Id, Guid.NewGuid() })
            await outbox.For(about).WriteAsync("owner@example.org", $"About {about}", "…", default);
        using (var let = outbox.For(Guid.NewGuid()))
            await let.WriteAsync("owner@example.org", "Let go", "…", default);
        Directory.EnumerateFiles(shop.Data.Outbox).Count().ShouldBe(2);
        await outbox.FinishAsync(db, default);
        outbox.List().ShouldHaveSingleItem().Subject.ShouldBe($"About {link.Id}");
        Directory.EnumerateFiles(shop.Data.Outbox).Count().ShouldBe(1);
    }
}
