using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using MellowRivet.Core.Surveys;
using MellowRivet.Core.Trends;
using MellowRivet.Core.Worksheets;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

/// <summary>What becomes of a survey: bought, its findings are the aircraft's; not bought, it is a survey and no more.</summary>
public class SurveyStoreTests : IAsyncLifetime
{
    private static readonly Worksheet List = Worksheet.Parse("""
        { "key": "look", "title": "A look", "version": 1, "basis": "test", "zones": [
          { "key": "gear", "title": "Gear", "station": "dear", "book": "airframe", "looks": false, "tasks": [
            { "key": "legs", "text": "Legs", "reference": "test", "sampling": { "how": "rock them", "minutes": 10, "cannotShow": "inside",
              "cost": "600..2000..6000", "likelihood": 0.25 } } ] } ] }
        """);

    private readonly TestShop shop = new();
    private readonly Person seller = new(Guid.NewGuid(), "Test Seller", "TS", [Role.Owner], []);
    private Guid first, surveyed, survey;

    public async ValueTask InitializeAsync()
    {
        first = await shop.BeginAsync();
        await using var db = shop.Open();
        var aircraft = new Aircraft(Guid.NewGuid(), "N0SUR", "Test", "T-2", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2));
        aircraft.ReadTime(TestShop.Today.AddDays(-1), new Hours(812.4m));
        aircraft.ForSurvey();
        (surveyed, survey) = (aircraft.Id, Guid.NewGuid());
        seller.Own(new(surveyed, TestShop.Today.AddYears(-3), null)).ShouldBeNull();
        db.AddRange(aircraft, seller, new Inspection(survey, aircraft, "26-7", [List], new Survey(
            new("Test Buyer", "touring", 40_000, 5_000, null, "", new(50_000, "adverts")), SurveyRules.Usual), TestShop.Today,
            new(LabourRate: 100)));
        await db.SaveChangesAsync();
        (await shop.Desk(db).WriteAsync(survey, Guid.NewGuid(), job =>
        {
            var found = job.Inspection.Find(Guid.NewGuid(), "Left leg cracked", "gear", "left, upper", DiscrepancyClass.Airworthiness,
                false, job.Inspection.Tasks[0], TestShop.Ines, TestShop.Now, new Pin(10, 20));
            found.Add(new Photo(new string('a', 64), 10, 10, null, TestShop.Now));
            job.Inspection.Mark(new(found.Number, false, true, false)).ShouldBeNull();
            return found.Expect(Estimate.Of(3, 1_200), job.Inspection.Terms, TestShop.Ines, TestShop.Now);
        }, default)).Refusal.ShouldBeNull();
    }

    public ValueTask DisposeAsync() => shop.DisposeAsync();

    private async Task EndAsync()
    {
        await using var db = shop.Open();
        (await shop.Desk(db).SurveyAsync(survey, Guid.NewGuid(), job =>
            Task.FromResult(job.Inspection.EndSurvey(job.Aircraft, "rain", TestShop.Ines, TestShop.Now)), default)).Refusal.ShouldBeNull();
    }

    private async Task<ShopStanding> HangarAsync()
    {
        await using var db = shop.Open();
        return await shop.Board(db).NowAsync(default);
    }

    [Fact]
    public async Task An_aircraft_that_is_only_surveyed_is_not_in_the_hangar_nor_among_those_one_takes_in()
    {
        await using var db = shop.Open();
        (await HangarAsync()).Followed.Select(one => one.Due.Aircraft.Registration).ShouldBe(["N0TST"]);
        (await HangarAsync())[surveyed].ShouldNotBeNull("its own pages show what is due on it");
        (await HangarAsync()).Due.ShouldAllBe(due => due.Line.Aircraft.Id != surveyed);
        (await db.FleetAsync(default)).Select(row => row.Registration).ShouldBe(["N0TST"]);
        (await db.EveryAircraftAsync(default)).Select(row => row.Registration).ShouldBe(["N0SUR", "N0TST"]);
    }

    [Fact]
    public async Task Bought_what_was_found_is_open_on_the_aircraft_with_its_picture_place_and_price_and_the_seller_sees_it_no_more()
    {
        await EndAsync();
        await using (var db = shop.Open())
            (await shop.Desk(db).BoughtAsync(survey, Guid.NewGuid(), TestShop.Ines, default)).Refusal.ShouldBeNull();
        await using var after = shop.Open();
        var item = (await after.OpenItemsAsync(surveyed, default)).ShouldHaveSingleItem();
        (item.FirstNumber, item.What, item.Where, item.ZoneTitle, item.Because, item.Photos.Count, item.Pin).ShouldBe(("26-7-01",
            "Left leg cracked", "left, upper", "Gear", OpenBecause.Airworthiness, 1, new Pin(10, 20)));
        item.Estimate!.Price(new(100, 100, 100))!.Value.Likely.ShouldBe(1_500);
        (await HangarAsync()).Followed.Select(one => one.Due.Aircraft.Registration).ShouldBe(["N0SUR", "N0TST"], ignoreOrder: true);
        (await after.People.AsNoTracking().SingleAsync()).OwnsOn(surveyed, TestShop.Today).ShouldBeFalse();
        (await after.SignedRecords.CountAsync()).ShouldBe(0, "nothing of a survey is signed");
        // Said once, it stays said.
        await using var again = shop.Open();
        (await shop.Desk(again).NotBoughtAsync(survey, Guid.NewGuid(), TestShop.Ines, default)).Refusal!.Message
            .ShouldContain("said already");
    }

    [Fact]
    public async Task Not_bought_it_stays_a_survey_and_nothing_of_it_is_the_aircrafts()
    {
        await using (var early = shop.Open())
            (await shop.Desk(early).BoughtAsync(survey, Guid.NewGuid(), TestShop.Ines, default)).Refusal!.Message
                .ShouldContain("End the looking first");
        await EndAsync();
        await using (var db = shop.Open())
            (await shop.Desk(db).NotBoughtAsync(survey, Guid.NewGuid(), TestShop.Ines, default)).Refusal.ShouldBeNull();
        await using var after = shop.Open();
        (await after.OpenItemsAsync(surveyed, default)).ShouldBeEmpty();
        (await HangarAsync()).Followed.Select(one => one.Due.Aircraft.Registration).ShouldBe(["N0TST"]);
        (await after.SurveysAsync(default)).ShouldHaveSingleItem().Survey.Outcome!.IsBought.ShouldBeFalse();
    }

    // The picture leads to the aircraft by the survey and by the part it was taken of; the reading by the part as well.
    [Fact]
    public async Task What_a_buyer_had_measured_and_photographed_is_none_of_the_owners_until_it_is_bought()
    {
        await using (var db = shop.Open())
            (await shop.Desk(db).WriteAsync(survey, Guid.NewGuid(), job =>
            {
                job.Inspection.Record(new(Guid.NewGuid(), surveyed, null, "oil-pressure", "", 70, Unit.Psi, new(), new Hours(812.4m),
                    TestShop.Now, TestShop.Ines));
                return null;
            }, default)).Refusal.ShouldBeNull();
        await using var after = shop.Open();
        var aircraft = await after.Aircraft.AsNoTracking().WithParts().SingleAsync(row => row.Id == surveyed);
        (await after.SeriesOfAsync(aircraft, HoursAxis.Aircraft, surveyed: true, default)).ShouldHaveSingleItem();
        (await after.SeriesOfAsync(aircraft, HoursAxis.Aircraft, surveyed: false, default)).ShouldBeEmpty();
        (await after.IsOnAsync(new string('a', 64), [surveyed], default)).ShouldBeFalse();
        await EndAsync();
        await using (var db = shop.Open())
            (await shop.Desk(db).BoughtAsync(survey, Guid.NewGuid(), TestShop.Ines, default)).Refusal.ShouldBeNull();
        (await after.IsOnAsync(new string('a', 64), [surveyed], default)).ShouldBeTrue("it is an open item of the aircraft's");
    }

    // What a survey answered good is no task done: the next inspection asks for it all the same. Nor is it the last inspection, or work.
    [Fact]
    public async Task A_survey_counts_as_no_inspection()
    {
        await using (var db = shop.Open())
            (await shop.Desk(db).WriteAsync(survey, Guid.NewGuid(), job => job.Inspection.Answer(job.Inspection.Tasks[0],
                TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now), default)).Refusal.ShouldBeNull();
        await EndAsync();
        await using var after = shop.Open();
        (await after.TasksDoneAsync(surveyed, TestShop.Clock, default)).ShouldBeEmpty();
        var next = new Inspection(Guid.NewGuid(), await after.Aircraft.WithParts().SingleAsync(row => row.Id == surveyed),
            InspectionKind.Annual, "26-9", [TestShop.Sheet], TestShop.Today.AddDays(1));
        (await after.LastSignedAsync(next, default)).ShouldBeNull();
        (await HangarAsync()).Aircraft.Single(one => one.Due.Aircraft.Id == surveyed).Hangar.Work.ShouldBeNull();
        (await shop.Desk(after).SignAsync(survey, Guid.NewGuid(), TestShop.Weighed, TestShop.Signer, null, default)).Refusal
            .ShouldNotBeNull();
        (await shop.Desk(after).SignStatusAsync(survey, Guid.NewGuid(), TestShop.Rules, TestShop.Signer, default)).Refusal
            .ShouldNotBeNull();
        var job = (await shop.Desk(after).JobAsync(survey, default))!;
        Desk.Seal(after, new(job.Inspection, job.Aircraft, TestShop.Weighed, await shop.Board(after).InTurnAsync(surveyed, default),
            TestShop.Today, TestShop.Clock), TestShop.Signer, TestShop.Now)!.Message.ShouldContain("Nothing of it is signed");
        (await after.SignedRecords.CountAsync()).ShouldBe(0);
    }

    [Fact]
    public async Task An_ended_survey_takes_no_findings_and_still_takes_what_is_said_of_its_money()
    {
        await EndAsync();
        await using var db = shop.Open();
        (await shop.Desk(db).WriteAsync(survey, Guid.NewGuid(), _ => null, default)).Refusal!.Message.ShouldContain("has ended");
        await using var other = shop.Open();
        (await shop.Desk(other).SurveyAsync(survey, Guid.NewGuid(), job =>
            Task.FromResult(job.Inspection.Mark(new(1, true, false, false))), default)).Refusal.ShouldBeNull();
        (await shop.Desk(other).SurveyStandAsync(survey, default))!.Value.Stand.Money.SellersPart.Likely.ShouldBe(1_500);
        (await shop.Desk(other).SurveyAsync(first, Guid.NewGuid(), _ => Task.FromResult<Refusal?>(null), default)).Refusal!.Message
            .ShouldContain("no such survey");
    }

    [Fact]
    public async Task A_link_to_a_report_opens_no_owners_page_and_the_other_way_round()
    {
        await using var db = shop.Open();
        var (owners, token, _) = OwnerLink.Make(Guid.NewGuid(), first, "a@b.example", 5, TestShop.Ines, TestShop.Now);
        var (buyers, other, _) = OwnerLink.Make(Guid.NewGuid(), survey, "a@b.example", 5, TestShop.Ines, TestShop.Now, LinkFor.Buyer);
        db.AddRange(owners!, buyers!);
        await db.SaveChangesAsync();
        (await db.OwnerLinkAsync(token, TestShop.Clock, default)).ShouldNotBeNull();
        (await db.OwnerLinkAsync(token, TestShop.Clock, default, survey: true)).ShouldBeNull();
        (await db.OwnerLinkAsync(other, TestShop.Clock, default, survey: true)).ShouldNotBeNull();
        (await db.OwnerLinkAsync(other, TestShop.Clock, default)).ShouldBeNull();
    }
}
