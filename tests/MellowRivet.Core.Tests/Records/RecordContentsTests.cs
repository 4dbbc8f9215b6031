using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Tests.Records;

/// <summary>What has to stand in an entry, field by field, for every kind of inspection, service and job on every category.</summary>
public class RecordContentsTests
{
    private static readonly Signer Signer = new(Fixture.Inspector, new(CertificateKind.InspectionAuthorization, "77"));

    public static TheoryData<string, Category, InspectionKind> Kinds
    {
        get
        {
            TheoryData<string, Category, InspectionKind> all = [];
            foreach (var key in new[] { "us", "permit-scheme" })
            {
                var pack = Pack(key);
                foreach (var category in Enum.GetValues<Category>())
                    foreach (var kind in pack.KindsFor(category).Concat(pack.DoesJobs(category) ? [InspectionKind.Job] : []))
                        all.Add(key, category, kind);
            }
            return all;
        }
    }

    private static RulePack Pack(string key) =>
        RulePack.Parse(File.ReadAllText(Path.Combine(Fixture.Shelf, "rule-packs", $"{key}.json")));

    // 14 CFR 43.11(a): (1) type and extent, (2) date and total time in service, (3) signature, certificate number and kind, (4) and (5)
    // the statement, (b) the dated list. 43.9(a): (1) description or reference to data, (2) date of completion, (3) who performed it,
    // (4) signature, certificate number and kind. From memory.
    [Theory]
    [MemberData(nameof(Kinds))]
    public void Every_field_that_the_rule_names_is_there(string pack, Category category, InspectionKind kind)
    {
        var aircraft = Fixture.Aircraft(category);
        var inspection = kind != InspectionKind.Job ? Fixture.Inspection(aircraft, kind)
            : new TypedJob("Tyre", "airframe", null, null).Begin(Guid.NewGuid(), aircraft, "26-1", new(), false, Fixture.Ines,
                Fixture.Today,
                Fixture.Now).Job!;
        inspection.GoBy("Type manual, chapter 5", "revision 7", Fixture.Inspector, Signer.Certificate, Fixture.Now).ShouldBeNull();
        var zone = kind == InspectionKind.Job ? "airframe" : "gear";
        inspection.Find(Guid.NewGuid(), "Cut in the shoulder", zone, "", DiscrepancyClass.Airworthiness, false, null, Fixture.Ines,
            Fixture.Now)
            .Correct(new("Tyre changed.", CorrectionKind.Replaced, "manual 32-40"), inspection.Terms, Fixture.Ines, Fixture.Now)
            .ShouldBeNull();
        var shop = Fixture.Shop with { Pack = Pack(pack) };

        void Check(bool airworthy)
        {
            var drafts = RecordWriter.Draft(Fixture.Close(inspection, aircraft, shop: shop), Signer);
            foreach (var content in drafts.Where(draft => draft.Book != Book.DiscrepancyList).Select(draft => draft.Content))
            {
                string Said(string field) => $"{content[field]}";
                Said("extent").ShouldStartWith(kind == InspectionKind.Job ? "Maintenance of this" : char.ToUpperInvariant(kind.InFull()[0])
                    + kind.InFull()[1..] + " of this");
                Said("date").ShouldBe("2026-11-23");
                Said("timeInService").ShouldMatch(@"^\d+\.\d h$");
                (Said("signedBy"), Said("certificate")).ShouldBe(("Ines Test", "mechanic with inspection authorization, 77"));
                (Said("registration"), Said("serial").Length > 0, Said("statement").Length > 40).ShouldBe(("N0TST", true, true));
                StatementTests.Slips().IsMatch($"{Said("extent")} {Said("statement")}").ShouldBeFalse();
            }
            drafts[0].Content["work"]!.AsArray().Select(line => $"{line}").ShouldContain(line => line.Contains(
                "Cut in the shoulder. Tyre changed. Ref. manual 32-40. Done 2026-11-23 by Ines Test (mechanic with "
                + "inspection authorization, 77)"));
            drafts.Any(draft => draft.Book == Book.DiscrepancyList).ShouldBe(!airworthy);
            if (!airworthy)
                $"{drafts[0].Content["statement"]}".ShouldContain("2026-11-23");
        }

        Check(airworthy: true);
        inspection.Find(Guid.NewGuid(), "Brake line chafed", zone, "", DiscrepancyClass.Airworthiness, false, null, Fixture.Ines,
            Fixture.Now);
        Check(airworthy: false);
    }
}
