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

    // Limits: domain.md section 5, common practice.
    [Theory]
    [InlineData(2999, 0.016, "magneto", "good", "good", "good")]
    [InlineData(3000, 0.021, "magneto", "watch", "good", "watch")]
    [InlineData(5001, 0.0211, "magneto", "reject", "watch", "reject")]
    [InlineData(1000, 0.0159, "magneto", "good", "reject", "reject")]
    [InlineData(1000, 0.035, "highEnergy", "good", "good", "good")]
    public async Task A_plug_is_judged(double ohms, double gap, string ignition, string resistance, string gapSaid, string overall)
    {
        var (status, body) = await CallAsync("plug", new JsonObject { ["ohms"] = ohms, ["gapInches"] = gap, ["ignition"] = ignition }.ToJsonString());
        status.ShouldBe(HttpStatusCode.OK);
        body.AsObject().Select(member => member.Key).ShouldBe(["resistance", "gap", "condition", "overall"]);
        (Verdict(body["resistance"]), Verdict(body["gap"]), Verdict(body["overall"])).ShouldBe((resistance, gapSaid, overall));
        body["gap"]!["standing"]!.ToString().ShouldBe("practice");
    }

    [Fact]
    public async Task A_dropped_plug_and_limits_of_the_shops_own()
    {
        Verdict((await CallAsync("plug", """{ "ohms": 900, "gapInches": 0.018, "ignition": "magneto", "dropped": true }""")).Body["condition"]).ShouldBe("reject");
        var own = (await CallAsync("plug", """{ "ohms": 900, "gapInches": 0.018, "ignition": "magneto", "limits": { "ohmsReject": 800, "ohmsWatch": 500, "gapMaxInches": 0.017 } }""")).Body;
        (Verdict(own["resistance"]), Verdict(own["gap"]), own["gap"]!["standing"]!.ToString()).ShouldBe(("reject", "watch", "manual"));
    }

    // domain.md section 5: 1T to the bottom of the next to fire.
    [Fact]
    public async Task A_rotation_lists_every_plugs_way()
    {
        var body = (await CallAsync("plug-rotation", """{ "cylinders": 4, "firingOrder": [1,3,2,4], "pattern": "nextInFiringOrder" }""")).Body;
        body["moves"]!.AsArray().Count.ShouldBe(8);
        body["moves"]!.AsArray().Single(move => move!["from"]!.ToString() == "1T")!["to"]!.ToString().ShouldBe("3B");
        body["warnings"]!.AsArray().ShouldBeEmpty();
        var mixed = (await CallAsync("plug-rotation", """{ "cylinders": 4, "firingOrder": [1,3,2,4], "pattern": "swapPairs", "topIgnition": "highEnergy", "bottomIgnition": "magneto" }""")).Body;
        mixed["moves"]!.AsArray().ShouldAllBe(move => move!["from"]!.ToString()[1] == move["to"]!.ToString()[1]);
        mixed["warnings"]!.AsArray().ShouldNotBeEmpty();
    }

    // domain.md section 6, ends included.
    [Fact]
    public async Task A_magnetos_values_are_judged_each_under_its_own_name()
    {
        var body = (await CallAsync("magneto", """{ "primaryOhms": 0.6, "capacitorMicrofarads": 0.29, "pointsOpenDegrees": null, "retardDegrees": 28 }""")).Body;
        body.AsObject().ToDictionary(one => one.Key, one => Verdict(one.Value)).ShouldBe(new() { ["primaryOhms"] = "good", ["capacitorMicrofarads"] = "reject", ["retardDegrees"] = "good" });
    }

    // domain.md section 7: 3.4 + 4.2 is over, 5.5 is fine; together 6.8 contradicts 3.5 + 3.5.
    [Fact]
    public async Task Floats_are_judged_by_pair_and_weighed_again_where_the_scale_contradicts_itself()
    {
        var body = (await CallAsync("floats", """{ "pairs": [ { "grams": [3.4, 4.2] }, { "grams": [2.7, 2.8] }, { "grams": [3.5, 3.5], "togetherGrams": 6.8 } ] }""")).Body;
        body["pairs"]!.AsArray().Select(pair => Verdict(pair!["judgement"])).ShouldBe(["reject", "good", "retest"]);
        body["pairs"]![0]!["totalGrams"]!.GetValue<double>().ShouldBe(7.6, 1e-9);
    }

    [Theory]
    [InlineData("plug", """{ "gapInches": 0.018, "ignition": "magneto" }""", "ohms")]
    [InlineData("plug", """{ "ohms": -1, "gapInches": 0.018, "ignition": "magneto" }""", "ohms")]
    [InlineData("plug", """{ "ohms": 1000, "gapInches": 0.018 }""", "ignition")]
    [InlineData("plug", """{ "ohms": 1000, "gapInches": 0.018, "ignition": "magneto", "limits": { "gapMinInches": 0.03 } }""", "limits.gapMinInches")]
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
    [InlineData("/bench/plug?ignition=Magneto&ohms=5001&gapInches=0.0211", "plug", """{ "ohms": 5001, "gapInches": 0.0211, "ignition": "magneto" }""", "resistance")]
    [InlineData("/bench/magneto?capacitorMicrofarads=0,29", "magneto", """{ "capacitorMicrofarads": 0.29 }""", "capacitorMicrofarads")]
    [InlineData("/bench/compression?limitSet=SixtyOfEighty&secondTry=true&psi1=58", "compression", """{ "limitSet": "sixtyOfEighty", "secondTry": true, "readings": [ { "cylinder": 1, "psi": 58 } ] }""", "overall")]
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
    [InlineData("/bench/compression?psi1=76&psi3=81", "Cylinder 3: A number from 0 to 80")]
    [InlineData("/bench/floats?first2=3.5", "Pair 2, the other: A number")]
    [InlineData("/bench/cable?table=cold+28&celsius=5&pounds=30&tolerancePounds=3", "a row is the temperature")]
    public async Task The_bench_answers_on_paper(string page, string words) =>
        (await (await server.EnterAsync("tamsin")).ReadAsync(page)).QuerySelector("#answer")!.TextContent.ShouldContain(words);
}
