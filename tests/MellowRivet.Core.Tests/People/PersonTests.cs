using MellowRivet.Core.People;

namespace MellowRivet.Core.Tests.People;

public class PersonTests
{
    private static readonly Guid One = Guid.NewGuid(), Other = Guid.NewGuid();
    private static readonly DateOnly Today = Fixture.Today;

    private static Person With(params Role[] roles) => new(Guid.NewGuid(), "Ada Finch", "AF", roles, []);

    [Fact]
    public void An_owner_sees_what_is_theirs_on_the_day_and_whoever_works_here_everything()
    {
        var owner = With(Role.Owner);
        Sight.Of(owner, Today).Sees(One).ShouldBeFalse();
        owner.Own(new(One, Today, null)).ShouldBeNull();
        owner.Own(new(Other, Today.AddDays(-9), Today.AddDays(-1))).ShouldBeNull();
        Sight.Of(owner, Today).Sees(One).ShouldBeTrue();
        Sight.Of(owner, Today).Sees(Other).ShouldBeFalse("sold yesterday");
        Sight.Of(owner, Today.AddDays(-1)).Sees(Other).ShouldBeTrue();
        foreach (var role in Enum.GetValues<Role>().Where(role => role != Role.Owner))
            Sight.Of(With(role, Role.Owner), Today).IsWhole.ShouldBeTrue($"{role}");
        owner.Leave(Fixture.Now, [owner]).ShouldBeNull();
        Sight.Of(owner, Today).Sees(One).ShouldBeFalse("the door is closed to them");
    }

    [Fact]
    public void What_is_theirs_twice_on_a_day_is_said_once_and_an_end_is_put_right()
    {
        var owner = With(Role.Owner);
        owner.Own(new(One, Today, Today.AddDays(-1)))!.Field.ShouldBe("until");
        owner.Own(new(One, Today.AddDays(-10), null)).ShouldBeNull();
        owner.Own(new(One, Today, null))!.Field.ShouldBe("from");
        owner.Own(new(One, Today.AddDays(-10), Today.AddDays(-1))).ShouldBeNull("the same span with its end");
        owner.Own(new(One, Today, null)).ShouldBeNull();
        owner.Owns.Count.ShouldBe(2);
    }

    [Fact]
    public void Somebody_goes_on_managing_the_shop()
    {
        var (admin, inspector) = (With(Role.ShopAdmin), new Person(Guid.NewGuid(), "Bo Tarn", "BT", [Role.Inspector], []));
        Person[] all = [admin, inspector];
        admin.Leave(Fixture.Now, all)!.Field.ShouldBe("left");
        admin.Take([Role.Mechanic], all)!.Field.ShouldBe("roles");
        admin.May(Right.ManageShop).ShouldBeTrue();
        inspector.Take([Role.Inspector, Role.ShopAdmin], all).ShouldBeNull();
        admin.Leave(Fixture.Now, all).ShouldBeNull();
        admin.May(Right.ManageShop).ShouldBeFalse("whoever left may nothing");
        inspector.Leave(Fixture.Now, all)!.Field.ShouldBe("left", "who left manages nothing");
    }

    [Fact]
    public void Whoever_leaves_has_no_calendar_address_and_comes_back_without_it()
    {
        var person = With(Role.Mechanic);
        person.HandOutCalendarKey("key");
        person.Leave(Fixture.Now, [person]);
        person.CalendarKeyHash.ShouldBeNull();
        person.ComeBack();
        (person.IsHere, person.May(Right.Sign)).ShouldBe((true, true));
    }

    [Theory]
    [InlineData("", "AF", "name")]
    [InlineData("Ada", "A", "initials")]
    [InlineData("Ada", "A F", "initials")]
    [InlineData("Ada", "bt", "initials")]
    public void A_name_is_told_from_the_others(string name, string initials, string field) =>
        With(Role.Mechanic).Describe(name, initials, [new Person(Guid.NewGuid(), "Bo Tarn", "BT", [], [])])!.Field.ShouldBe(field);

    [Fact]
    public void A_renewed_certificate_takes_the_place_of_the_one_that_ends()
    {
        var person = With(Role.Mechanic);
        person.Hold(new(CertificateKind.PermitInspector, "P 1", null, Today)).ShouldBeNull();
        person.Hold(new(CertificateKind.PermitInspector, "P 2", null, Today.AddYears(1))).ShouldBeNull();
        person.Certificates.ShouldHaveSingleItem().Number.ShouldBe("P 2");
        person.Hold(new(CertificateKind.RepairmanExperimentalBuilder, "B 1"))!.Field.ShouldBe("onlySerial");
        person.Hold(new(CertificateKind.Mechanic, new string('9', 41)))!.Field.ShouldBe("number");
    }

    [Theory]
    [InlineData(61, false)]
    [InlineData(60, true)]
    [InlineData(-1, true)]
    public void A_certificate_that_ends_soon_is_reminded_of(int days, bool reminded) =>
        new Certificate(CertificateKind.Mechanic, "1", null, Today.AddDays(days)).WantsReminder(Today).ShouldBe(reminded);

    // NIST SP 800-63B 5.1.1.2, from memory: no common ones, no repetitions or rows, no words of the service or the user.
    [Theory]
    [InlineData("aaaaaaaaaa", "over and over")]
    [InlineData("abababababab", "over and over")]
    [InlineData("1234567890", "list")]
    [InlineData("abcdefghijkl", "row")]
    [InlineData("dragon123456", "list")]
    [InlineData("Dragon!!!!!!", "list")]
    [InlineData("finch-ada-1", "words of this place")]
    [InlineData("MellowRivet2026", "words of this place")]
    [InlineData("short", "From 10 to 128")]
    [InlineData(null, "From 10 to 128")]
    [InlineData("otters mend clocks", null)]
    [InlineData("kx7 lantern", null)]
    public void A_password_that_is_tried_first_is_none(string? password, string? why)
    {
        var said = PasswordRule.Check(password, new HashSet<string> { "dragon", "1234567890" }, ["Ada Finch", "Mellow Rivet"]);
        if (why is null)
            said.ShouldBeNull();
        else
            said.ShouldNotBeNull().ShouldContain(why);
    }

    [Fact]
    public void A_line_of_the_log_stays_short()
    {
        var line = new LogLine(Fixture.Now, new(null, new string('n', 5_000), "x"), Deed.Signed, new string('a', 5_000));
        (line.Name.Length, line.About.Length).ShouldBe((LogLine.Longest, LogLine.Longest));
    }
}
