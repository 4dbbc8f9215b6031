using System.Text.Json.Nodes;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Tests.Records;

public class SigningTests
{
    // 14 CFR 65.85, 65.87, 65.95, 65.104, 65.107, from memory.
    [Theory]
    [InlineData(CertificateKind.InspectionAuthorization, null, InspectionKind.Annual, Category.Standard, true)]
    [InlineData(CertificateKind.Mechanic, null, InspectionKind.Annual, Category.Standard, false)]
    [InlineData(CertificateKind.Mechanic, null, InspectionKind.HundredHour, Category.Standard, true)]
    [InlineData(CertificateKind.RepairmanLightSportMaintenance, null, InspectionKind.HundredHour, Category.Standard, false)]
    [InlineData(CertificateKind.Mechanic, null, InspectionKind.Condition, Category.ExperimentalAmateurBuilt, true)]
    [InlineData(CertificateKind.RepairmanExperimentalBuilder, "T-1", InspectionKind.Condition, Category.ExperimentalAmateurBuilt, true)]
    [InlineData(CertificateKind.RepairmanExperimentalBuilder, "T-2", InspectionKind.Condition, Category.ExperimentalAmateurBuilt, false)]
    [InlineData(CertificateKind.RepairmanExperimentalBuilder, null, InspectionKind.Condition, Category.ExperimentalAmateurBuilt, false)]
    [InlineData(CertificateKind.RepairmanLightSportMaintenance, null, InspectionKind.HundredHour, Category.SpecialLightSport, true)]
    [InlineData(CertificateKind.RepairmanLightSportInspection, null, InspectionKind.HundredHour, Category.SpecialLightSport, false)]
    public void Who_may_sign_what(CertificateKind kind, string? serial, InspectionKind inspection, Category category, bool may)
    {
        var answer = Fixture.Rules.MaySign(Fixture.Person(new Certificate(kind, "1", serial)), inspection, Fixture.Aircraft(category),
            Fixture.Today);
        answer.Allowed.ShouldBe(may);
        answer.Source.ShouldNotBeNull();
    }

    [Fact]
    public void Someone_without_a_certificate_is_told_what_it_takes() =>
        Fixture.Rules.MaySign(Fixture.Person(), InspectionKind.Annual, Fixture.Aircraft(), Fixture.Today).Reason.ShouldBe(
            "To sign this aircraft's annual takes a certificate as mechanic with inspection authorization. Test Person holds none.");

    // 14 CFR 65.92, from memory: an inspection authorization ends on 31 March of each odd year.
    [Theory]
    [InlineData("2027-03-30", true)]
    [InlineData("2027-03-31", true)]
    [InlineData("2027-04-01", false)]
    public void A_certificate_signs_to_its_last_day(string on, bool may)
    {
        var person = Fixture.Person(new Certificate(CertificateKind.InspectionAuthorization, "1", null, new(2027, 3, 31)));
        var answer = Fixture.Rules.MaySign(person, InspectionKind.Annual, Fixture.Aircraft(), DateOnly.Parse(on));
        answer.Allowed.ShouldBe(may);
        if (!may)
            answer.Reason.ShouldContain("which ended on 2027-03-31");
    }

    [Fact]
    public void Nobody_signs_what_the_pack_has_no_rule_for() =>
        Fixture.Rules.MaySign(Fixture.Person(new Certificate(CertificateKind.InspectionAuthorization, "1")), InspectionKind.Annual,
            Fixture.Aircraft(Category.SpecialLightSport), Fixture.Today).Allowed.ShouldBeFalse();

    // 14 CFR 43.11(a)(4), from memory.
    [Fact]
    public void With_nothing_open_the_airworthy_statement_goes_into_three_books()
    {
        var drafts = Draft(out _);
        drafts.Select(draft => draft.Book).ShouldBe([Book.Airframe, Book.Engine, Book.Propeller]);
        drafts[0].Content["statement"]!.ToString().ShouldBe(
            "I certify that this aircraft has been inspected in accordance with an annual inspection and was determined "
            + "to be in airworthy condition.");
        drafts.Select(draft => draft.Content["timeInService"]!.ToString())
            .ShouldBe(["1000.5 h", "1120.5 h", "100.5 h"], "each book has its own item's time");
        drafts[0].Content["certificate"]!.ToString().ShouldBe("mechanic with inspection authorization, 77");
        drafts[0].Content["date"]!.ToString().ShouldBe("2026-11-23");
    }

    // 14 CFR 43.11(a)(5) and (b), from memory.
    [Fact]
    public void An_open_airworthiness_item_chooses_the_unairworthy_statement_and_a_dated_list()
    {
        var drafts = Draft(out var inspection,
            inspection => inspection.Find(Guid.NewGuid(), "cord showing", "gear", "left", DiscrepancyClass.Airworthiness, false, null,
                Fixture.Ines, Fixture.Now));
        drafts.Select(draft => draft.Book).ShouldBe([Book.Airframe, Book.Engine, Book.Propeller, Book.DiscrepancyList]);
        drafts[0].Content["statement"]!.ToString()
            .ShouldEndWith(
                "a list of discrepancies and unairworthy items dated 2026-11-23 has been provided for the aircraft owner or operator.");
        drafts[3].Content["work"]!.AsArray().ShouldHaveSingleItem()!.ToString().ShouldBe("26-1-01 Gear, left: cord showing");
        inspection.Sign();
        inspection.State.ShouldBe(InspectionState.SignedUnairworthy);
        inspection.Closed().ShouldNotBeNull();
    }

    [Fact]
    public void A_corrected_item_no_longer_chooses_and_is_entered_in_the_book_of_its_zone()
    {
        var drafts = Draft(out var inspection, inspection =>
        {
            inspection.Find(Guid.NewGuid(), "hose chafed", "engine", "", DiscrepancyClass.Airworthiness, false, null, Fixture.Ines,
                Fixture.Now).Correct(new("replaced"), inspection.Terms, Fixture.Ines, Fixture.Now);
            inspection.Find(Guid.NewGuid(), "tyre cut", "gear", "", DiscrepancyClass.Airworthiness, false, null, Fixture.Ines, Fixture.Now)
                .Correct(new("changed"), inspection.Terms, Fixture.Ines, Fixture.Now);
        });
        drafts.Single(draft => draft.Book == Book.Engine).Content["work"]!.AsArray().Select(line => $"{line}").ShouldContain(
            "26-1-01 Engine: hose chafed. Replaced. Done 2026-11-23 by Ines Test (mechanic with inspection authorization, 77).");
        drafts.Single(draft => draft.Book == Book.Airframe).Content["work"]!.AsArray().ShouldHaveSingleItem()!.ToString().ShouldBe(
            "26-1-02 Gear: tyre cut. Changed. Done 2026-11-23 by Ines Test (mechanic with inspection authorization, 77).");
        inspection.Sign();
        inspection.State.ShouldBe(InspectionState.SignedAirworthy);
    }

    // The wording of the operating limitations, from memory (domain.md section 11).
    [Fact]
    public void An_amateur_built_is_found_in_a_condition_for_safe_operation() =>
        Fixture.Rules.Statement(InspectionKind.Condition, Category.ExperimentalAmateurBuilt, airworthy: true, "aircraft",
            new DateOnly(2026, 11, 23)).Text.ShouldBe(
            "I certify that this aircraft has been inspected on 2026-11-23 in accordance with the scope and detail of part 43, appendix "
            + "D, and was found to be in a condition for safe operation.");

    [Fact]
    public void The_entry_carries_the_shops_own_day() =>
        Draft(out _, on: new(2026, 11, 24))[0].Content["date"]!.ToString().ShouldBe("2026-11-24");

    [Fact]
    public void One_content_has_one_text()
    {
        CanonicalJson.Of(new JsonObject { ["b"] = "ü\"", ["a"] = new JsonArray { true, null } }).ShouldBe("""
            {"a":[true,null],"b":"ü\""}
            """);
        Should.Throw<ArgumentException>(() => CanonicalJson.Of(new JsonObject { ["a"] = 1.0 })).Message.ShouldContain("numbers as text");
    }

    [Fact]
    public void A_chain_of_untouched_records_holds() => RecordChain.Faults(Chain(4), 4, []).FirstOrDefault().ShouldBeNull();

    // SHA-256 (FIPS 180-4) over 64 zeros, a line feed and the text, as docs/decisions says.
    [Fact]
    public void The_hash_is_the_published_construction()
    {
        var record = Chain(1)[0];
        Convert.ToHexStringLower(
            System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(new string('0', 64) + "\n" + record.Json)))
                .ShouldBe(record.Hash);
    }

    [Fact]
    public void A_record_cut_off_the_end_or_out_of_the_middle_is_missed()
    {
        var chain = Chain(4);
        RecordChain.Faults(chain[..3], 4, []).FirstOrDefault().ShouldBe("record 4 is missing");
        RecordChain.Faults([chain[0], chain[1], chain[3]], 4, []).FirstOrDefault().ShouldBe("record 3 is missing");
        RecordChain.Faults([], 1, []).FirstOrDefault().ShouldBe("record 1 is missing");
    }

    [Fact]
    public void Two_records_that_change_places_are_noticed()
    {
        var chain = Chain(3);
        RecordChain.Faults([chain[0], chain[2], chain[1]], 3, []).FirstOrDefault().ShouldNotBeNull();
    }

    // A text that is no object, and rows that say what no text says: told, where verifying once ended in a fault of its own.
    [Theory]
    [InlineData("null")]
    [InlineData("[]")]
    [InlineData("\"good\"")]
    [InlineData("{")]
    [InlineData("")]
    public void A_text_that_is_no_object_is_told(string text)
    {
        var chain = Chain(2);
        typeof(SignedRecord).GetProperty(nameof(SignedRecord.Json))!.SetValue(chain[0], text);
        RecordChain.Faults(chain, 2, []).First().ShouldBe("record 1 was altered: its text doesn't give its hash");
        typeof(SignedRecord).GetProperty(nameof(SignedRecord.Hash))!.SetValue(chain[0], Convert.ToHexStringLower(
            System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(SignedRecord.Genesis + "\n" + text))));
        RecordChain.Faults(chain, 2, []).First().ShouldBe("record 1 was altered: its row says other than its text");
        (chain[0].EvidenceHash, chain[0].Corrects).ShouldBe((null, null));
    }

    private static List<SignedRecord> Chain(int length)
    {
        var chain = new List<SignedRecord>();
        for (var i = 0; i < length; i++)
            chain.Add(SignedRecord.After(chain.LastOrDefault(), Guid.NewGuid(), Guid.NewGuid(), Book.Airframe,
                new JsonObject { ["statement"] = $"number {i}" }, Fixture.Now));
        return chain;
    }

    private static IReadOnlyList<Draft> Draft(out Inspection inspection, Action<Inspection>? found = null, DateOnly? on = null)
    {
        var aircraft = Fixture.Aircraft(school: CompressionSchool.SixtyOfEighty);
        inspection = Fixture.Inspection(aircraft);
        Fixture.Finish(inspection, aircraft);
        found?.Invoke(inspection);
        var certificate = new Certificate(CertificateKind.InspectionAuthorization, "77");
        return RecordWriter.Draft(Fixture.Close(inspection, aircraft, on), new(Fixture.Person(certificate), certificate));
    }
}
