using System.Text;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Judgements;
using static MellowRivet.Core.Tests.Bulletins.BulletinFixture;

namespace MellowRivet.Core.Tests.Bulletins;

public class FileTests
{
    private static string Json(string more = "", string rule = """{ "fact": "aircraft.model", "is": "Corrin 6" }""", string compliance = """
        { "deadlines": [ { "when": "beforeNextFlight" } ] }
        """) => $$"""
        { "format": "mellow-rivet-bulletin", "version": 1, "issuer": "I", "number": "SB-1", "revision": "B", "kind": "alertBulletin",
        "subject": "S", "published": "2026-01-01", "effective": "2026-01-02",
          "appliesTo": {{rule}}, "compliance": {{compliance}}, "method": "M", "steps": []{{more}} }
        """;

    [Fact]
    public void Unknown_members_are_kept_and_written_again()
    {
        var read = BulletinFile.Read(Json(""", "ticket": { "no": 7 } """)).Bulletins.ShouldHaveSingleItem();
        read.Other!["ticket"].GetProperty("no").GetInt32().ShouldBe(7);
        var again = BulletinFile.Read(BulletinFile.ToJson(read)).Bulletins.Single();
        again.Other!["ticket"].GetProperty("no").GetInt32().ShouldBe(7);
        BulletinFile.ToJson(again).ShouldBe(BulletinFile.ToJson(read));
    }

    [Theory]
    [InlineData(""", "supersedes": [ { "number": "sb-1" } ]""", "supersedes itself")]
    [InlineData(""", "supersedes": [ { "number": "SB-1", "revision": "B" } ]""", "supersedes itself")]
    [InlineData(""", "labourHours": -1""", "labour is from 0")]
    [InlineData(""", "steps": [ { "text": "" } ]""", "a step has words")]
    [InlineData(""", "steps": [ { "text": "one\ntwo" } ]""", "on one line")]
    [InlineData("""
        , "steps": [ { "text": "measure", "measure": { "kind": "x", "unit": "furlong", "low": 1, "high": 2, "standing": "manual",
        "source": "s" } } ]
        """, "no unit known here")]
    public void What_does_not_hold_together_is_refused_by_name(string more, string why) =>
        BulletinFile.Read(Json(more)).Fault!.ShouldContain(why);

    [Fact]
    public void An_earlier_revision_of_its_own_may_be_named() => BulletinFile.Read(Json("""
        , "supersedes": [ { "number": "SB-1", "revision": "A" } ]
        """)).Fault.ShouldBeNull();

    [Theory]
    [InlineData("""{ "deadlines": [ { "when": "withinHours" } ] }""")]
    [InlineData("""{ "deadlines": [ { "when": "notLaterThan" } ] }""")]
    [InlineData("""{ "deadlines": [], "repeat": { } }""")]
    [InlineData("""{ "deadlines": [], "afterFinding": { "hours": 5 } }""")]
    [InlineData("""{ "deadlines": [], "ferry": { "hours": 0, "conditions": [] } }""")]
    public void A_deadline_without_its_number_is_refused(string compliance) =>
        BulletinFile.Read(Json(compliance: compliance)).Fault.ShouldNotBeNull();

    [Fact]
    public void A_rule_nested_ten_thousand_deep_is_refused_and_nothing_breaks()
    {
        var deep = string.Concat(Enumerable.Repeat("""{"not":""", 10_000)) + """{"fact":"engine.serial","in":"E-1"}"""
            + new string('}', 10_000);
        BulletinFile.Read(Json(rule: deep)).Fault!.ShouldContain("nested too deep");
        var lines = string.Join('\n', Enumerable.Range(0, 500).Select(depth => new string(' ', depth * 2) + "any of:"));
        RuleText.Read(lines).Fault!.ShouldContain("deeper");
    }

    [Theory]
    [InlineData("")]
    [InlineData("[]")]
    [InlineData("null")]
    [InlineData("[null]")]
    [InlineData("{ \"format\": 7 }")]
    [InlineData("not json")]
    public void What_is_no_file_is_refused(string json) => BulletinFile.Read(json).Fault.ShouldNotBeNull();

    [Fact]
    public void One_that_stands_twice_in_a_file_is_named() =>
        BulletinFile.Read($"[{Json()},{Json()}]").Fault!.ShouldContain("SB-1 rev B stands twice");

    [Fact]
    public void The_schema_on_file_is_the_schema_of_the_types() =>
        BulletinFile.Schema().ShouldBe(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "schemas", "bulletin-1.json")));

    [Fact]
    public void A_table_becomes_bulletins_with_their_rule_and_deadline()
    {
        var csv = "issuer;number;kind;subject;effective;about;part serials;within hours;every months;supersedes\n"
            + "I;SB-9;alert bulletin;Pump vanes;2026-03-01;pump;P-1 to P-9, P-20;12,5;6;SB-8\n";
        var read = BulletinCsv.Read(Encoding.Latin1.GetBytes(csv)).Bulletins.ShouldHaveSingleItem();
        read.AppliesTo.InWords.ShouldBe("pump.serial in P-1 to P-9, P-20");
        (read.Compliance.Deadlines.Single().Hours, read.Compliance.Repeat!.Months,
            read.Supersedes!.Single().Number).ShouldBe((12.5m, 6, "SB-8"), "a locale's comma");
    }

    [Theory]
    [InlineData("issuer,number,kind,subject,effective\nI,1,alertBulletin,S,2026-01-01", "which ones it concerns")]
    [InlineData("issuer,number,kind,subject,effective,aircraft model\nI,1,rumour,S,2026-01-01,X", "“rumour” is none of")]
    [InlineData("issuer,number,kind,subject,effective,aircraft model\nI,1,advisory,S,1 May,X", "no day as")]
    [InlineData("issuer,number,kind,subject,effective,aircraft serials\nI,1,advisory,S,2026-01-01,9 to 1", "runs backwards")]
    [InlineData("issuer,number,kind,subject,effective,part serials\nI,1,advisory,S,2026-01-01,1 to 9", "need the kind of part")]
    [InlineData("issuer,number,kind,subject,colour\nI,1,advisory,S,red", "“colour” is not known")]
    [InlineData("number,kind,subject,effective\n1,advisory,S,2026-01-01", "“issuer” is missing")]
    public void A_table_that_says_nothing_sure_is_refused_with_its_line(string csv, string why) =>
        BulletinCsv.Read(Encoding.UTF8.GetBytes(csv)).Fault!.ShouldContain(why);

    // domain.md section 10 gives both pairs as printed; the factors are NIST SP 811's. 17 N·m is 150.5 in-lb, 200 N·m 147.5 ft-lb.
    [Theory]
    [InlineData("17 N·m (150 in-lb)", Verdict.Good)]
    [InlineData("200 N·m = 147 ft-lb", Verdict.Good)]
    [InlineData("200 Nm, 148 ft-lb", Verdict.Good)]
    [InlineData("17 N·m (115 in-lb)", Verdict.Watch)]
    [InlineData("200 N·m = 174 ft-lb", Verdict.Watch)]
    [InlineData("54 N.m (40 lbf-ft)", Verdict.Good)]
    [InlineData("7,9 N·m (70 in lb)", Verdict.Good)]
    [InlineData("7.9 N·m (75 in-lb)", Verdict.Watch)]
    public void A_torque_in_two_units_agrees_with_itself_or_is_a_misprint(string printed, Verdict verdict) =>
        TorquePair.Judge(printed)!.Verdict.ShouldBe(verdict);

    [Fact]
    public void One_torque_alone_is_not_judged() => TorquePair.Judge("Torque to 17 N·m, see page 150").ShouldBeNull();

    [Fact]
    public void Steps_are_the_same_after_their_text()
    {
        var (steps, fault) = StepText.Read(
            "Torque the bolts | 17 N·m (150 in-lb) | caution mind the edge\nPlay | measure end-play thou 4 to "
            + "14\nWear | measure pad in from 0.1", "SB-1");
        fault.ShouldBeNull();
        (steps[0].Torque, steps[0].Caution, steps[1].Measure!.High,
            steps[2].Measure!.Low).ShouldBe(("17 N·m (150 in-lb)", "mind the edge", 14, 0.1));
        StepText.Read(StepText.Write(steps), "SB-1").Steps.ShouldBe(steps);
        StepText.Read("Look | somewhere", "SB-1").Fault!.ShouldContain("“somewhere” is no torque");
        StepText.Read("Look | measure x furlong up to 3", "SB-1").Fault!.ShouldContain("furlong");
    }

    [Fact]
    public void The_wording_is_filled_in() =>
        (Bulletin("SB-7") with { Revision = "C", LogWording = "{number} per {method}, {revision}, {date}, {hours}." })
            .Wording("doc 4", new(2026, 11, 23), 1100.2m)
        .ShouldBe("SB-7 rev C per doc 4, C, 2026-11-23, 1100.2 h.");
}
