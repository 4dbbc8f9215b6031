using FsCheck;
using FsCheck.Fluent;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using static MellowRivet.Core.Tests.Bulletins.BulletinFixture;

namespace MellowRivet.Core.Tests.Bulletins;

// domain.md section 16: a model that no list knows makes every bulletin about its maker or kind "can't tell", never "does not apply".
public class UnknownModelTests
{
    private static KnownType Type(TypeKind kind, string maker, string model, params string[] aliases) =>
        new(Guid.NewGuid(), kind, maker, model, aliases);

    private static readonly TypeList List = new(
    [
        Type(TypeKind.Aircraft, "Pellworth", "Dunlin 2", "PD2"), Type(TypeKind.Aircraft, "Pellworth", "Dunlin 4"),
        Type(TypeKind.Aircraft, "Ostrand", "Corrin 6"), Type(TypeKind.Aircraft, "Harrow", "Corrin 6"),
        Type(TypeKind.Engine, "Tarn and Field Engines", "TF-1"), Type(TypeKind.Propeller, "Wenbury Propellers", "WP-52-4F"),
        Type(TypeKind.Propeller, "Wenbury Propellers", "WP-52-6F"),
    ]);

    private static Aircraft Called(string type)
    {
        var aircraft = Flown();
        aircraft.Describe(aircraft.Registration, type, aircraft.SerialNumber, aircraft.Category, aircraft.Configuration);
        return aircraft;
    }

    private static RuleAnswer Answer(Aircraft aircraft, string rule, ComponentKind? about = null, TypeList? types = null) =>
        Research(aircraft, [Held(Bulletin(rule: Rule(rule), about: about, compliance: new([new(DeadlineKind.BeforeNextFlight)])))],
            types: types ?? List).Lines.ShouldHaveSingleItem().Answer.Answer;

    [Theory]
    [InlineData("Pellworth Dunlin 2", RuleAnswer.Applies)]
    [InlineData("Dunlin 2", RuleAnswer.Applies)]
    [InlineData("PD-2", RuleAnswer.Applies)]
    [InlineData("Pellworth PD2", RuleAnswer.Applies)]
    [InlineData("Pelworth Dunlin 2", RuleAnswer.CannotTell)]
    [InlineData("Pellworth Dunlin II", RuleAnswer.CannotTell)]
    [InlineData("Something else", RuleAnswer.CannotTell)]
    [InlineData("Corrin 6", RuleAnswer.CannotTell)]
    [InlineData("Pellworth Dunlin 4", RuleAnswer.DoesNotApply)]
    [InlineData("Ostrand Corrin 6", RuleAnswer.DoesNotApply)]
    public void Only_a_model_that_the_list_knows_is_told_apart(string onFile, RuleAnswer expected) =>
        Answer(Called(onFile), "aircraft.model is Pellworth Dunlin 2").ShouldBe(expected);

    [Theory]
    [InlineData("Pellworth Dunlin 2")]
    [InlineData("Dunlin 2")]
    [InlineData("DUNLIN-2; Harrow Corrin 6")]
    [InlineData("pd2")]
    public void A_bulletin_may_use_any_name_of_the_model(string named) =>
        Answer(Called("Pellworth Dunlin 2"), $"aircraft.model is {named}").ShouldBe(RuleAnswer.Applies);

    [Theory]
    [InlineData("Pelworth Dunlin 2", RuleAnswer.CannotTell)]
    [InlineData("Pellworth Dunlin 2A", RuleAnswer.CannotTell)]
    [InlineData("Ostrand Corrin 8", RuleAnswer.DoesNotApply)]
    [InlineData("Corrin 6", RuleAnswer.DoesNotApply)]
    public void A_bulletin_that_names_an_unknown_model_cannot_be_told_from_what_it_is_near(string named, RuleAnswer expected)
    {
        Answer(Called("Pellworth Dunlin 2"), $"aircraft.model is {named}").ShouldBe(expected);
        List.UnsettledIn(Bulletin(rule: Rule($"aircraft.model is {named}"))).ShouldHaveSingleItem().Name.ShouldBe(named);
    }

    [Fact]
    public void A_serial_number_says_something_within_its_model_only()
    {
        var unknown = Called("Pelworth Dunlin 2");
        Answer(unknown, "aircraft.serial in C-900 and up").ShouldBe(RuleAnswer.CannotTell);
        Answer(unknown, "aircraft.model is Pellworth Dunlin 2\naircraft.serial in C-900 and up").ShouldBe(RuleAnswer.CannotTell);
        Answer(unknown, "aircraft.model is Ostrand Corrin 6").ShouldBe(RuleAnswer.CannotTell);
        Answer(unknown, "none of:\n  aircraft.model is Ostrand Corrin 6").ShouldBe(RuleAnswer.CannotTell);
        Answer(unknown, "engine.model is TF-1\nengine.serial in E-900 and up", ComponentKind.Engine)
            .ShouldBe(RuleAnswer.DoesNotApply, "its engine is known");
        Answer(Called("Pellworth Dunlin 2"), "aircraft.serial in C-900 and up").ShouldBe(RuleAnswer.DoesNotApply);
    }

    [Fact]
    public void A_propeller_that_nobody_knows_leaves_its_own_bulletins_open_and_no_others()
    {
        var aircraft = Called("Pellworth Dunlin 2");
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Propeller, "WP-52", "52-1107"), "", new(0), null);
        Answer(aircraft, "propeller.model is WP-52-4F", ComponentKind.Propeller).ShouldBe(RuleAnswer.CannotTell);
        Answer(aircraft, "propeller.model is WP-76C", ComponentKind.Propeller).ShouldBe(RuleAnswer.CannotTell);
        Answer(aircraft, "propeller.serial in 60-1 and up", ComponentKind.Propeller).ShouldBe(RuleAnswer.CannotTell);
        Answer(aircraft, "aircraft.model is Ostrand Corrin 6").ShouldBe(RuleAnswer.DoesNotApply);
        var line = Research(aircraft, [Held(Bulletin(rule: Rule("propeller.model is WP-52-4F"), about: ComponentKind.Propeller))],
            types: List).Lines.Single();
        line.Why.ShouldContain("propeller.model WP-52 can’t be told from WP-52-4F");
        line.HoldsUp.ShouldBeTrue("a binding can't-tell stands before the signature");
        aircraft.Propellers.Single().Component.Identify("WP-52-6F", "52-1107", "", null);
        Answer(aircraft, "propeller.model is WP-52-4F", ComponentKind.Propeller).ShouldBe(RuleAnswer.DoesNotApply);
    }

    [Fact]
    public void An_empty_list_knows_nothing() =>
        Answer(Called("Pellworth Dunlin 2"), "aircraft.model is Ostrand Corrin 6", types: TypeList.Empty).ShouldBe(RuleAnswer.CannotTell);

    // Names of the small world above, spelled well or badly: whatever comes, a binding directive is never waved away
    // for a name the list doesn't know.
    [Fact]
    public void Never_does_not_apply_where_no_list_knows_the_name() => Prop.ForAll(
        Arb.From(from name in Gen.Elements("Pellworth Dunlin 2", "Dunlin 2", "Corrin 6", "Harrow Corrin 6", "Kestrelet")
                 from cut in Gen.Choose(0, name.Length - 1)
                 from letter in Gen.Elements("", "x", "2", " ")
                 from serial in Gen.Elements("C-1 to C-9", "C-70 to C-90")
                 select (Name: name[..cut] + letter + name[(cut + 1)..], Serial: serial)),
        given => List.Find(TypeKind.Aircraft, given.Name).IsKnown
            || Answer(Called(given.Name),
                $"aircraft.model is Ostrand Corrin 6; Pellworth Dunlin 4\naircraft.serial in {given.Serial}") != RuleAnswer.DoesNotApply)
        .QuickCheckThrowOnFailure();

    [Fact]
    public void A_shop_from_before_begins_with_what_bulletins_name_and_files_bear_and_asks_about_the_rest()
    {
        var bulletins = new[]
        {
            Bulletin("AD 1", Rule("aircraft.model is Pellworth Dunlin 2; Pellworth Dunlin 4")),
            Bulletin("AD 2", Rule("engine.model is TF-1"), about: ComponentKind.Engine),
            Bulletin("SB 3", Rule("engine.model is TF-1"), about: ComponentKind.Engine, kind: BulletinKind.MandatoryBulletin) with
                { Issuer = "Tarn and Field Engines" },
            Bulletin("AD 4", Rule("aircraft.model is Pellworth Dunlin 2")), Bulletin("AD 5", Rule("aircraft.model is Pellworht Dunlin 2")),
        };
        var list = new TypeList(
            TypeList.FirstOf([(TypeKind.Aircraft, "Dunlin 2"), (TypeKind.Aircraft, "Pelworth Dunlin 2"),
                (TypeKind.Aircraft, "Osmund Kestrelet"), (TypeKind.Engine, "TF 1"), (TypeKind.Appliance, "AL-20")], bulletins));
        list.All.Select(type => $"{type.Kind.InWords()} {type.FullName}").ShouldBe(
            ["aircraft Osmund Kestrelet", "aircraft Pellworth Dunlin 2", "aircraft Pellworth Dunlin 4",
                "engine Tarn and Field Engines TF-1", "appliance AL-20"]);
        list.UnsettledIn(bulletins[^1]).ShouldHaveSingleItem().Name.ShouldBe("Pellworht Dunlin 2", "an issuer mistypes, too");
        list.Find(TypeKind.Aircraft, "Dunlin 2").Type!.FullName.ShouldBe("Pellworth Dunlin 2");
        list.Find(TypeKind.Aircraft, "Pelworth Dunlin 2").Near.Select(type => type.FullName).ShouldBe(["Pellworth Dunlin 2"]);
    }

    [Theory]
    [InlineData("Pellworth", "Dunlin 2", "", "designation")]
    [InlineData("", "dunlin-2", "", "designation")]
    [InlineData("Harrow", "Dunlin 8", "PD 2", "aliases")]
    [InlineData("Harrow", "PD2", "", "designation")]
    [InlineData("Harrow", "…", "", "designation")]
    public void One_name_means_one_type(string maker, string model, string alias, string field) =>
        Type(TypeKind.Aircraft, "", "").Describe(maker, model, [alias], List)!.Field.ShouldBe(field);

    [Fact]
    public void Two_makers_may_use_one_designation_and_then_it_takes_the_maker_to_tell()
    {
        Type(TypeKind.Aircraft, "", "").Describe("Osmund", "Dunlin 2", [], List).ShouldBeNull();
        List.Find(TypeKind.Aircraft, "Corrin 6")
            .ShouldSatisfyAllConditions(found => found.IsKnown.ShouldBeFalse(), found => found.Near.Count.ShouldBe(2));
    }
}
