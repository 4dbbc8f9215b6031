using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Tests.Records;

/// <summary>Who signs what on which category: 14 CFR 65.85, 65.87, 65.95, 65.104, 65.107, 91.409, 43.3 and 43.9, from memory.</summary>
public class RulePackTests
{
    private static readonly RulePack Permit =
        RulePack.Parse(File.ReadAllText(Path.Combine(Fixture.Shelf, "rule-packs", "permit-scheme.json")));

    private static RulePack Pack(Category category) => Fixture.Rules.Covers(category) ? Fixture.Rules : Permit;

    [Theory]
    [InlineData(Category.Standard, "Annual HundredHour Service25 Service50 Service100")]
    [InlineData(Category.ExperimentalAmateurBuilt, "Condition Service25 Service50 Service100")]
    [InlineData(Category.ExperimentalLightSport, "HundredHour Condition Service25 Service50 Service100")]
    [InlineData(Category.SpecialLightSport, "HundredHour Condition Service25 Service50 Service100")]
    [InlineData(Category.Permit, "Permit Service25 Service50 Service100")]
    [InlineData(Category.Other, "Permit Service25 Service50 Service100")]
    public void Each_category_has_its_kinds(Category category, string kinds) =>
        Pack(category).KindsFor(category).Select(kind => kind.ToString()).ShouldBe(kinds.Split(' '));

    [Theory]
    [InlineData(Category.Standard, InspectionKind.Annual, CertificateKind.InspectionAuthorization, true)]
    [InlineData(Category.Standard, InspectionKind.Annual, CertificateKind.Mechanic, false)]
    [InlineData(Category.Standard, InspectionKind.HundredHour, CertificateKind.Mechanic, true)]
    [InlineData(Category.Standard, InspectionKind.Service50, CertificateKind.Mechanic, true)]
    [InlineData(Category.Standard, InspectionKind.Service50, CertificateKind.RepairmanLightSportMaintenance, false)]
    [InlineData(Category.SpecialLightSport, InspectionKind.Service50, CertificateKind.RepairmanLightSportMaintenance, true)]
    [InlineData(Category.SpecialLightSport, InspectionKind.Condition, CertificateKind.RepairmanLightSportInspection, false)]
    [InlineData(Category.ExperimentalLightSport, InspectionKind.Condition, CertificateKind.RepairmanLightSportMaintenance, true)]
    [InlineData(Category.Permit, InspectionKind.Permit, CertificateKind.PermitInspector, true)]
    [InlineData(Category.Permit, InspectionKind.Permit, CertificateKind.InspectionAuthorization, false)]
    public void A_certificate_signs_what_it_covers(Category category, InspectionKind kind, CertificateKind held, bool may) =>
        Pack(category).MaySign(Fixture.Person(new Certificate(held, "1")), kind, Fixture.Aircraft(category), Fixture.Today)
            .Allowed.ShouldBe(may);

    [Theory]
    [InlineData("T-1", true)]
    [InlineData("T-2", false)]
    public void An_owners_inspection_rating_holds_for_their_own_aircraft(string serial, bool may) =>
        Fixture.Rules.MaySign(Fixture.Person(new Certificate(CertificateKind.RepairmanLightSportInspection, "1", serial)),
            InspectionKind.Condition, Fixture.Aircraft(Category.ExperimentalLightSport), Fixture.Today).Allowed.ShouldBe(may);

    [Fact]
    public void Every_kind_that_can_be_signed_has_its_words_both_ways()
    {
        foreach (var category in Enum.GetValues<Category>())
            foreach (var kind in Pack(category).KindsFor(category))
                foreach (var airworthy in new[] { true, false })
                    Pack(category)
                        .Statement(kind, category, airworthy, "aircraft", new DateOnly(2026, 11, 23)).Text.ShouldSatisfyAllConditions(
                        text => text.ShouldContain("aircraft"), text => text.ShouldNotContain("{"));
    }

    // 14 CFR 43.11(a)(4), from memory.
    [Fact]
    public void The_annual_keeps_the_wording_of_the_rule() =>
        Fixture.Rules.Statement(InspectionKind.Annual, Category.Standard, true, "aircraft", default).Text
        .ShouldBe(
            "I certify that this aircraft has been inspected in accordance with an annual inspection and was determined "
            + "to be in airworthy condition.");
}
