using MellowRivet.Core.Books;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Surveys;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Tests.Surveys;

/// <summary>The order of looking, the lists that ship, the papers, and what is typed to begin with.</summary>
public class SurveyWalkTests
{
    private static readonly string[] Lists = ["survey", "survey-metal", "survey-fabric", "survey-light-sport", "survey-two-stroke",
        "survey-twin"];

    private static IReadOnlyList<WalkLine> Walk(params string[] lists) => WalkList.Merge([.. lists.Select(Fixture.Shipped)],
        Fixture.Aircraft(), InspectionKind.Survey, [], Fixture.Today);

    [Fact]
    public void Paper_comes_first_then_what_is_dear_dearest_first_then_what_is_quick_then_the_run()
    {
        var walk = Walk("survey", "survey-metal");
        walk.Select(line => line.Zone.Station).ShouldBe(walk.Select(line => line.Zone.Station).Order());
        walk.Select(line => line.Zone.Station).Distinct().ShouldBe([Station.Paper, Station.Dear, Station.Quick, Station.Run]);
        var worth = walk.Where(line => line.Zone.Station == Station.Dear).Select(line => line.Task.Sampling!.Worth).ToList();
        worth.ShouldBe(worth.OrderDescending());
        worth[^1].ShouldBeGreaterThan(0);
        walk.Select(line => line.Order).ShouldBe(Enumerable.Range(0, walk.Count));
    }

    // Likely 9,000 at 12 of 100 are 1,080.
    [Fact]
    public void What_not_looking_is_worth_is_likely_cost_times_how_often_it_is_bad()
    {
        new Sampling("how", 10, "", "3000..9000..25000", 0.12m).Worth.ShouldBe(1_080);
        new Sampling("how", 10, "", "3000..9000..25000", 0.121m).Worth.ShouldBe(1_090, "rounded up to ten");
        new Sampling("how", 10, "").Worth.ShouldBe(0);
    }

    [Theory]
    [MemberData(nameof(Shipped))]
    public void The_lists_that_ship_say_how_everything_is_sampled_and_what_that_cannot_show(string key)
    {
        var sheet = Fixture.Shipped(key);
        sheet.IsOfSurvey.ShouldBeTrue();
        sheet.Suits!.Inspections.ShouldBe([InspectionKind.Survey]);
        sheet.Tasks.ShouldAllBe(task => task.Sampling != null && task.Sampling.How.Length > 0);
        sheet.Zones.Where(zone => zone.Station == Station.Dear).SelectMany(zone => zone.Tasks)
            .ShouldAllBe(task => task.Sampling!.Worth > 0 && task.Sampling.CannotShow.Length > 0);
    }

    public static TheoryData<string> Shipped => new(Lists);

    [Fact]
    public void Every_type_of_aircraft_has_a_list_of_its_own_beside_the_common_one()
    {
        string[] For(Aircraft aircraft) => [.. Lists.Where(key => Fixture.Shipped(key).IsOfferedFor(aircraft, InspectionKind.Survey))];
        Aircraft Of(Category category, Configuration build) => new(Guid.NewGuid(), "N0T", "T", "1", category, build);
        For(Of(Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2))).ShouldBe(["survey", "survey-metal"]);
        For(Of(Category.ExperimentalAmateurBuilt, new(Wing.Low, Gear.TailWheel, 1, 2, Fabric: true))).ShouldBe(["survey", "survey-fabric"]);
        For(Of(Category.SpecialLightSport, new(Wing.High, Gear.NoseWheel, 1, 2))).ShouldBe(["survey", "survey-light-sport"]);
        For(Of(Category.Standard, new(Wing.Low, Gear.NoseWheel, 2, 6))).ShouldBe(["survey", "survey-metal", "survey-twin"]);
        For(Fixture.Aircraft()).ShouldNotContain("survey-two-stroke");
        Lists.ShouldAllBe(key => !Fixture.Shipped(key).IsOfferedFor(Fixture.Aircraft(), InspectionKind.Annual));
    }

    [Theory]
    [InlineData("\"minutes\": 15", "\"minutes\": 900", "from 0 to 480 minutes")]
    [InlineData("\"cost\": \"1500..4000..9000\"", "\"cost\": \"9000..4000..1500\"", "rise from one to the next")]
    [InlineData("\"likelihood\": 0.25", "\"likelihood\": 25", "a share from 0 to 1")]
    [InlineData("\"station\": \"quick\"", "\"station\": \"airframe\"", "it is for a survey, or it is for inspections")]
    public void A_list_that_does_not_hold_together_is_refused(string was, string now, string why) =>
        Should.Throw<FormatException>(() => Worksheet.Parse(File.ReadAllText(Path.Combine(Fixture.Shelf, "worksheets", "survey.json"))
            .Replace(was, now))).Message.ShouldContain(why);

    [Theory]
    [InlineData("Hard landing, nose leg replaced", true)]
    [InlineData("Left wing repaired after hail", true)]
    [InlineData("Repair of the cowl by form", true)]
    [InlineData("Oil changed, compressions good", false)]
    [InlineData("Irreparable paint left as it is", false)]
    public void An_entry_tells_of_damage_by_its_words(string text, bool tells) => PaperTrail.Speaks(text,
        SurveyRules.Parse(File.ReadAllText(Path.Combine(Fixture.Shelf, "survey", "usual.json"))).DamageWords).ShouldBe(tells);

    [Fact]
    public void The_papers_tell_of_holes_damage_and_the_last_five_yearly_inspections()
    {
        var aircraft = Fixture.Aircraft();
        var book = new LogBook(Guid.NewGuid(), aircraft.Id, BookKind.Airframe, "volume 1", new(2016, 1, 1), null, false);
        BookEntry Entry(int year, string text, decimal hours) => new(Guid.NewGuid(), aircraft.Id, book.Id, new(year, 6, 1),
            new Hours(hours), text, "", null, Guid.Empty, default);
        List<BookEntry> entries = [.. Enumerable.Range(2016, 6).Select(year => Entry(year, "Annual inspection", year - 1_500)),
            Entry(2018, "Ground loop, right gear leg repaired", 600)];
        aircraft.Keep(new MajorWork(Guid.NewGuid(), MajorKind.Repair, new(2019, 2, 2), "Right spar spliced", "form of 2019"));
        var rules = SurveyRules.Parse(File.ReadAllText(Path.Combine(Fixture.Shelf, "survey", "usual.json")));
        var trail = PaperTrail.Of(aircraft, [book], entries, [], [], DueLine.Of(aircraft, [], [], Fixture.Today), rules);
        trail.Damage.Select(line => line.Words).ShouldBe(["Ground loop, right gear leg repaired", "Right spar spliced (form of 2019)"]);
        trail.Yearly.Select(line => line.On!.Value.Year).ShouldBe([2021, 2020, 2019, 2018, 2017]);
    }

    private static TypedTerms Typed(string? asking = "40000", string? inOrder = "50000", string? source = "adverts", string? limit = "") =>
        new("Test Buyer", "touring", asking, limit, "4", "cowls", inOrder, source, "");

    [Theory]
    [InlineData("0", "50000", "adverts", "", "Asking", "above 0")]
    [InlineData("", "50000", "adverts", "", "Asking", "everything is weighed against it")]
    [InlineData("-5", "50000", "adverts", "", "Asking", "above 0")]
    [InlineData("40,000", "50000", "adverts", "", "Asking", "without thousands apart")]
    [InlineData("1e99", "50000", "adverts", "", "Asking", "above 0")]
    [InlineData("40000", "0", "adverts", "", "InOrder", "then nothing is said to be fair")]
    [InlineData("40000", "50000", " ", "", "Source", "Where that figure comes from")]
    [InlineData("40000", "", "adverts", "", "InOrder", "leave its source empty, too")]
    [InlineData("40000", "50000", "adverts", "-1", "Limit", "from 0 up")]
    public void Terms_that_make_no_sense_are_refused_beside_their_field(string asking, string inOrder, string source, string limit,
        string field, string says)
    {
        var (terms, wrong) = Typed(asking, inOrder, source, limit).Read();
        terms.ShouldBeNull();
        wrong.Single(one => one.Field == field).Message.ShouldContain(says);
    }

    [Fact]
    public void A_survey_begins_without_a_price_in_order_and_says_so()
    {
        var (terms, wrong) = Typed(inOrder: "", source: "").Read();
        (terms!.InOrder, wrong.Count, terms.Limit).ShouldBe((null, 0, null));
        TypedTerms.Of(terms).Read().Terms.ShouldBe(terms, "as typed it comes back the same");
        new TypedPower("-1", "", "", "").Read(Guid.Empty).Refusal!.Message.ShouldContain("from 0 up");
        new TypedPower("", "", "5000..4000..3000", "").Read(Guid.Empty).Refusal!.Message.ShouldContain("rise from one to the next");
        new TypedPower("", "0", "", "").Read(Guid.Empty).Refusal.ShouldNotBeNull();
    }
}
