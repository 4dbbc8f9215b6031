using System.Net;
using System.Text.Json.Nodes;

namespace MellowRivet.Web.Tests;

/// <summary>The engine's bench: the open calls, and the pages that answer the same.</summary>
public class EngineBenchTests(DemoServer server) : IClassFixture<DemoServer>
{
    private async Task<(HttpStatusCode Status, JsonNode Body)> CallAsync(string call, string body)
    {
        var answer = await server.Stranger().JsonAsync($"/api/v1/bench/{call}", body);
        return (answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
    }

    private static string Verdict(JsonNode? judgement) => judgement!["verdict"]!.ToString();

    // domain.md section 8, common practice: about 2 psi, never above 5; bubbles, and the same pressure before and after.
    [Theory]
    [InlineData("""{ "psi": 2, "bubbles": false }""", "good")]
    [InlineData("""{ "psi": 2, "bubbles": true, "before": { "psi": 2, "bubbles": true } }""", "reject")]
    [InlineData("""{ "psi": 2, "bubbles": false, "before": { "psi": 2, "bubbles": true } }""", "good")]
    [InlineData("""{ "psi": 2, "bubbles": false, "before": { "psi": 4, "bubbles": true } }""", "retest")]
    [InlineData("""{ "psi": 0.4, "bubbles": false }""", "unknown")]
    public async Task An_exhaust_under_pressure_is_judged(string body, string verdict)
    {
        var (status, answer) = await CallAsync("exhaust-pressure", body);
        (status, Verdict(answer)).ShouldBe((HttpStatusCode.OK, verdict));
        answer.AsObject().Select(member => member.Key).ShouldBe(["verdict", "rule", "standing", "source", "margin", "next"]);
    }

    [Theory]
    [InlineData("""{ "psi": 5.1, "bubbles": false }""", "psi", "Dangerous")]
    [InlineData("""{ "psi": 2, "bubbles": false, "before": { "psi": 30, "bubbles": true } }""", "before.psi", "Dangerous")]
    [InlineData("""{ "psi": -1, "bubbles": false }""", "psi", "from 0 to 5")]
    [InlineData("""{ "psi": 2 }""", "bubbles", "whether it bubbled")]
    public async Task A_dangerous_pressure_is_refused_by_name(string body, string field, string said)
    {
        var (status, answer) = await CallAsync("exhaust-pressure", body);
        status.ShouldBe(HttpStatusCode.BadRequest);
        answer["errors"]![field]![0]!.ToString().ShouldContain(said);
    }

    // api.md: the class from the words, and with a judgement from that and not from them.
    [Fact]
    public async Task A_finding_is_guessed_by_its_words_or_by_what_was_measured()
    {
        var (status, nick) = await CallAsync("finding", """{ "words": "Nick in the propeller leading edge, 3 mm" }""");
        status.ShouldBe(HttpStatusCode.OK);
        nick.AsObject().Select(member => member.Key)
            .ShouldBe(["class", "floor", "mayBeDeferred", "ground", "why", "means", "next", "standing", "source"]);
        (nick["class"]!.ToString(), nick["floor"], nick["mayBeDeferred"]!.GetValue<bool>()).ShouldBe(("airworthiness", null, false));
        var lamp = (await CallAsync("finding", """{ "words": "Map light does not work", "zone": "cabin" }""")).Body;
        (lamp["class"]!.ToString(), lamp["mayBeDeferred"]!.GetValue<bool>(),
            lamp["standing"]!.ToString()).ShouldBe(("deferrable", true, "law"));
        (await CallAsync("finding", """{ "words": "Fuel drips from the selector when turned" }""")).Body["ground"]!.GetValue<bool>()
            .ShouldBeTrue();

        const string Measured = """
            { "words": "carpet torn", "measured": { "verdict": "reject", "rule": "Below 60/80", "standing": "law", "source": "AC 43.13-1B",
            "margin": -45, "next": "It comes off." } }
            """;
        var dead = (await CallAsync("finding", Measured)).Body;
        (dead["class"]!.ToString(), dead["floor"]!.ToString(), dead["why"]!.ToString(), dead["standing"]!.ToString(),
            dead["next"]![0]!.ToString()).ShouldBe(("airworthiness", "airworthiness", "Below 60/80", "law", "It comes off."));
        (await CallAsync("finding", Measured.Replace("reject", "watch"))).Body["class"]!.ToString().ShouldBe("watch");
    }

    [Theory]
    [InlineData("""{ "words": " " }""", "words")]
    [InlineData("""{ "zone": "cabin" }""", "words")]
    [InlineData("""{ "words": "x", "measured": { "rule": "r" } }""", "measured.verdict")]
    [InlineData("""{ "words": "x", "measured": { "verdict": "good" } }""", "measured.standing")]
    [InlineData("""{ "words": "x", "measured": { "verdict": "fine", "standing": "law" } }""", "measured.verdict")]
    public async Task A_poor_finding_is_refused_by_the_names_of_its_fields(string body, string field)
    {
        var (status, answer) = await CallAsync("finding", body);
        (status, answer["errors"]!.AsObject().ContainsKey(field)).ShouldBe((HttpStatusCode.BadRequest, true), answer.ToJsonString());
    }

    // domain.md section 4: more than one path at once happens, and all that are heard are recorded.
    [Fact]
    public async Task A_compression_takes_one_leak_or_a_list_of_them()
    {
        async Task<string> SaidAsync(string leak) => (await CallAsync("compression", $$"""
            { "limitSet": "sixtyOfEighty", "secondTry": true, "readings": [ { "cylinder": 2, "psi": 15, "leak": {{leak}} } ] }
            """)).Body["cylinders"]![0]!["judgement"]!["next"]!.ToString();
        (await SaidAsync("""["rings", "exhaustValve", "intakeValve"]"""))
            .ShouldContain("exhaust valve; air filter: intake valve; oil filler or breather: rings");
        (await SaidAsync("\"rings\"")).ShouldContain("rings");
        (await SaidAsync("\"none\"")).ShouldContain("Listen at exhaust");
        (await CallAsync("compression", """
            { "limitSet": "sixtyOfEighty", "readings": [ { "cylinder": 2, "psi": 15, "leak": ["sideways"] } ] }
            """)).Status.ShouldBe(HttpStatusCode.BadRequest);
        (await CallAsync("compression", """
            { "limitSet": "sixtyOfEighty", "hot": false, "readings": [ { "cylinder": 2, "psi": 77 } ] }
            """)).Body["overall"]!["rule"]!.ToString().ShouldEndWith("cold");
    }

    // Limits: domain.md section 5, common practice.
    [Theory]
    [InlineData(2999, 0.016, "magneto", "good", "good", "good")]
    [InlineData(3000, 0.021, "magneto", "watch", "good", "watch")]
    [InlineData(5001, 0.0211, "magneto", "reject", "watch", "reject")]
    [InlineData(1000, 0.0159, "magneto", "good", "reject", "reject")]
    [InlineData(1000, 0.035, "highEnergy", "good", "good", "good")]
    public async Task A_plug_is_judged(double ohms, double gap, string ignition, string resistance, string gapSaid, string overall)
    {
        var (status, body) = await CallAsync("plug",
            new JsonObject { ["ohms"] = ohms, ["gapInches"] = gap, ["ignition"] = ignition }.ToJsonString());
        status.ShouldBe(HttpStatusCode.OK);
        body.AsObject().Select(member => member.Key).ShouldBe(["resistance", "gap", "condition", "overall"]);
        (Verdict(body["resistance"]), Verdict(body["gap"]), Verdict(body["overall"])).ShouldBe((resistance, gapSaid, overall));
        body["gap"]!["standing"]!.ToString().ShouldBe("practice");
    }

    [Fact]
    public async Task A_dropped_plug_and_limits_of_the_shops_own()
    {
        Verdict(
            (await CallAsync("plug", """{ "ohms": 900, "gapInches": 0.018, "ignition": "magneto", "dropped": true }""")).Body["condition"])
                .ShouldBe("reject");
        var own = (await CallAsync("plug", """
            { "ohms": 900, "gapInches": 0.018, "ignition": "magneto", "limits": { "ohmsReject": 800, "ohmsWatch": 500,
            "gapMaxInches": 0.017 } }
            """)).Body;
        (Verdict(own["resistance"]), Verdict(own["gap"]), own["gap"]!["standing"]!.ToString()).ShouldBe(("reject", "watch", "manual"));
    }

    // domain.md section 5: 1T to the bottom of the next to fire.
    [Fact]
    public async Task A_rotation_lists_every_plugs_way()
    {
        var body = (await CallAsync("plug-rotation", """
            { "cylinders": 4, "firingOrder": [1,3,2,4], "pattern": "nextInFiringOrder" }
            """)).Body;
        body["moves"]!.AsArray().Count.ShouldBe(8);
        body["moves"]!.AsArray().Single(move => move!["from"]!.ToString() == "1T")!["to"]!.ToString().ShouldBe("3B");
        body["warnings"]!.AsArray().ShouldBeEmpty();
        var mixed = (await CallAsync("plug-rotation", """
            { "cylinders": 4, "firingOrder": [1,3,2,4], "pattern": "swapPairs", "topIgnition": "highEnergy", "bottomIgnition": "magneto" }
            """)).Body;
        mixed["moves"]!.AsArray().ShouldAllBe(move => move!["from"]!.ToString()[1] == move["to"]!.ToString()[1]);
        mixed["warnings"]!.AsArray().ShouldNotBeEmpty();
    }

    // domain.md section 6, ends included.
    [Fact]
    public async Task A_magnetos_values_are_judged_each_under_its_own_name()
    {
        var body = (await CallAsync("magneto", """
            { "primaryOhms": 0.6, "capacitorMicrofarads": 0.29, "pointsOpenDegrees": null, "retardDegrees": 28 }
            """)).Body;
        body.AsObject().ToDictionary(one => one.Key, one => Verdict(one.Value))
            .ShouldBe(new() { ["primaryOhms"] = "good", ["capacitorMicrofarads"] = "reject", ["retardDegrees"] = "good" });
    }

    // domain.md section 7: 3.4 + 4.2 is over, 5.5 is fine; together 6.8 contradicts 3.5 + 3.5.
    [Fact]
    public async Task Floats_are_judged_by_pair_and_weighed_again_where_the_scale_contradicts_itself()
    {
        var body = (await CallAsync("floats", """
            { "pairs": [ { "grams": [3.4, 4.2] }, { "grams": [2.7, 2.8] }, { "grams": [3.5, 3.5], "togetherGrams": 6.8 } ] }
            """)).Body;
        body["pairs"]!.AsArray().Select(pair => Verdict(pair!["judgement"])).ShouldBe(["reject", "good", "retest"]);
        body["pairs"]![0]!["totalGrams"]!.GetValue<double>().ShouldBe(7.6, 1e-9);
    }

    [Theory]
    [InlineData("plug", """{ "gapInches": 0.018, "ignition": "magneto" }""", "ohms")]
    [InlineData("plug", """{ "ohms": -1, "gapInches": 0.018, "ignition": "magneto" }""", "ohms")]
    [InlineData("plug", """{ "ohms": 1000, "gapInches": 0.018 }""", "ignition")]
    [InlineData("plug", """{ "ohms": 1000, "gapInches": 0.018, "ignition": "magneto", "limits": { "gapMinInches": 0.03 } }""",
        "limits.gapMinInches")]
    [InlineData("plug-rotation", """{ "cylinders": 6, "firingOrder": [1,4,5,2,3,6], "pattern": "swapPairs" }""", "pattern")]
    [InlineData("plug-rotation", """{ "cylinders": 3, "firingOrder": [1,2,3], "pattern": "nextInFiringOrder" }""", "cylinders")]
    [InlineData("plug-rotation", """{ "cylinders": 4, "firingOrder": [1,3,2], "pattern": "nextInFiringOrder" }""", "firingOrder")]
    [InlineData("plug-rotation", """{ "cylinders": 4, "firingOrder": [1,3,2,4] }""", "pattern")]
    [InlineData("magneto", """{ "primaryOhms": -0.1 }""", "primaryOhms")]
    [InlineData("floats", """{ "pairs": [] }""", "pairs")]
    [InlineData("floats", """{ "pairs": [ { "grams": [3.5] } ] }""", "pairs[0].grams")]
    [InlineData("floats", """{ "pairs": [ { "grams": [3.5, 0] } ] }""", "pairs[0].grams[1]")]
    public async Task A_bad_call_names_the_bad_field(string call, string body, string field)
    {
        var (status, answer) = await CallAsync(call, body);
        status.ShouldBe(HttpStatusCode.BadRequest);
        answer["errors"]!.AsObject().ShouldContain(error => error.Key == field);
    }

    // The page and the call are one judgement: the same words come back.
    [Theory]
    [InlineData("/bench/plug?ignition=Magneto&ohms=5001&gapInches=0.0211", "plug", """
        { "ohms": 5001, "gapInches": 0.0211, "ignition": "magneto" }
        """, "resistance")]
    [InlineData("/bench/magneto?capacitorMicrofarads=0,29", "magneto", """{ "capacitorMicrofarads": 0.29 }""", "capacitorMicrofarads")]
    [InlineData("/bench/compression?limitSet=SixtyOfEighty&secondTry=true&psi1=58", "compression", """
        { "limitSet": "sixtyOfEighty", "secondTry": true, "readings": [ { "cylinder": 1, "psi": 58 } ] }
        """, "overall")]
    public async Task A_page_says_what_the_call_says(string page, string call, string body, string member)
    {
        var said = (await CallAsync(call, body)).Body[member]!["rule"]!.ToString();
        (await (await server.EnterAsync("tamsin")).ReadAsync(page)).QuerySelector("#answer")!.TextContent.ShouldContain(said);
    }

    // 1 N·m is 8.850746 in-lb (NIST SP 811, from memory): 17 are 150.4627.
    [Theory]
    [InlineData("/bench/floats?first1=3.5&second1=3.5&together1=6.8", "Weigh all three again")]
    [InlineData("/bench/torque?printed=17+N%C2%B7m+(115+in-lb)", "Probably a misprint")]
    [InlineData("/bench/torque?wanted=135&unit=InLb&wrenchLengthInches=10&extensionInches=1.5", "117.4 in-lb")]
    [InlineData("/bench/cable?table=-10+28%0A15+38&tolerancePounds=3&celsius=5&pounds=30", "34 lb")]
    [InlineData("/bench/convert?value=17&unit=N%C2%B7m", "150.4627 in-lb")]
    [InlineData("/bench/plug-rotation?layout=flat-six&pattern=SwapPairs", "a rotation of fours")]
    [InlineData("/bench/plug?ohms=lots", "Resistance: “lots” is no number")]
    [InlineData("/bench/compression?psi1=76&psi3=81", "Cylinder 3: 81 is above the supply of 80 psi")]
    [InlineData("/bench/floats?first2=3.5", "Pair 2, the other: A number")]
    [InlineData("/bench/cable?table=cold+28&celsius=5&pounds=30&tolerancePounds=3", "a row is the temperature")]
    public async Task The_bench_answers_on_paper(string page, string words) =>
        (await (await server.EnterAsync("tamsin")).ReadAsync(page)).QuerySelector("#answer")!.TextContent.ShouldContain(words);
}
