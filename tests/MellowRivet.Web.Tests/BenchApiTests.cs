using System.Net;
using System.Text.Json.Nodes;

namespace MellowRivet.Web.Tests;

public class BenchApiTests(DemoServer server)
{
    private async Task<(HttpStatusCode Status, JsonObject Body)> CallAsync(string path, string body)
    {
        var answer = await server.Stranger().JsonAsync(path, body);
        return (answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsObject());
    }

    // Leak areas by hand: domain.md section 4, see LeakAreaTests.
    [Fact]
    public async Task A_compression_is_judged_in_the_documented_shape()
    {
        var (status, body) = await CallAsync("/api/v1/bench/compression",
            """{ "limitSet": "sixtyOfEighty", "secondTry": true, "readings": [ { "cylinder": 1, "psi": 78 }, { "cylinder": 2, "psi": 15, "leak": "exhaustValve" } ] }""");
        status.ShouldBe(HttpStatusCode.OK);
        body["spreadPsi"]!.GetValue<double>().ShouldBe(63);
        var dead = body["cylinders"]![1]!;
        dead["leakArea"]!.GetValue<double>().ShouldBe(3.19, 0.006);
        dead["judgement"]!.AsObject().Select(member => member.Key).ShouldBe(["verdict", "rule", "standing", "source", "margin", "next"]);
        (dead["judgement"]!["verdict"]!.ToString(), dead["judgement"]!["standing"]!.ToString()).ShouldBe(("reject", "law"));
        dead["judgement"]!["margin"]!.GetValue<double>().ShouldBe(-45);
        body["overall"]!["verdict"]!.ToString().ShouldBe("reject");
    }

    [Theory]
    [InlineData("""{ "limitSet": "sixtyOfEighty", "readings": [ { "cylinder": 1, "psi": 81 } ] }""", "readings[0].psi")]
    [InlineData("""{ "limitSet": "sixtyOfEighty", "readings": [ { "cylinder": 1, "psi": -1 } ] }""", "readings[0].psi")]
    [InlineData("""{ "limitSet": "sixtyOfEighty", "readings": [ { "cylinder": 1, "psi": NaN } ] }""", "readings[0].psi")]
    [InlineData("""{ "limitSet": "sixtyOfEighty", "readings": [ { "cylinder": 1, "psi": "NaN" } ] }""", "readings[0].psi")]
    [InlineData("""{ "limitSet": "sixtyOfEighty", "readings": [ { "cylinder": 1 } ] }""", "readings[0].psi")]
    [InlineData("""{ "limitSet": "sixtyOfEighty", "readings": [ { "cylinder": 1, "psi": 1e999 } ] }""", "readings[0].psi")]
    [InlineData("""{ "limitSet": "sixtyOfEighty", "readings": [ { "cylinder": 1, "psi": 76 }, { "cylinder": 1, "psi": 75 } ] }""", "readings[1].cylinder")]
    [InlineData("""{ "limitSet": "sixtyOfEighty", "readings": [] }""", "readings")]
    [InlineData("""{ "limitSet": "byEye", "readings": [ { "cylinder": 1, "psi": 76 } ] }""", "limitSet")]
    [InlineData("""{ "readings": [ { "cylinder": 1, "psi": 76 } ] }""", "limitSet")]
    [InlineData("""{ "limitSet": "sixtyOfEighty", "supplyPsi": 0, "readings": [ { "cylinder": 1, "psi": 0 } ] }""", "supplyPsi")]
    [InlineData("""{ "limitSet": "sixtyOfEighty", "ambientPsi": 900, "readings": [ { "cylinder": 1, "psi": 76 } ] }""", "ambientPsi")]
    [InlineData("""{ "limitSet": "sixtyOfEighty", "readings": [ null ] }""", "readings[0].cylinder")]
    [InlineData("not json", "body")]
    [InlineData("null", "body")]
    public async Task A_bad_call_names_the_bad_field(string body, string field)
    {
        var answer = await server.Stranger().JsonAsync("/api/v1/bench/compression", body);
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["errors"]!.AsObject().Select(member => member.Key).ShouldContain(field);
    }

    [Fact]
    public async Task A_body_over_its_limit_is_too_large()
    {
        var answer = await server.Stranger().JsonAsync("/api/v1/bench/compression", $$"""{ "limitSet": "{{new string('x', 300 * 1024)}}" }""");
        answer.StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
    }

    [Fact]
    public async Task A_trend_says_what_it_knows_and_null_for_what_it_does_not()
    {
        var (_, few) = await CallAsync("/api/v1/trend", """{ "points": [ { "hours": 1, "value": 76 }, { "hours": 2, "value": 75 } ], "limit": 60 }""");
        few.Select(member => member.Key).ShouldBe(["n", "slopePer100Hours", "intercept", "noise", "next", "lastIsUnusual", "crossing", "why"]);
        (few["slopePer100Hours"], few["next"], few["crossing"]).ShouldBe((null, null, null));
        few["n"]!.GetValue<int>().ShouldBe(2);

        var (_, enough) = await CallAsync("/api/v1/trend",
            """{ "points": [ { "hours": 0, "value": 78 }, { "hours": 100, "value": 77 }, { "hours": 200, "value": 76 }, { "hours": 300, "value": 75 } ], "limit": 60, "direction": "falling" }""");
        enough["slopePer100Hours"]!.GetValue<double>().ShouldBe(-1, 1e-9);
        enough["crossing"]!["hours"]!.GetValue<double>().ShouldBe(1800, 1e-6);
        enough["next"]!["expected"]!.GetValue<double>().ShouldBe(74, 1e-9);
    }

    [Fact]
    public async Task The_shop_says_that_it_is_up_and_what_it_can_be_asked()
    {
        var visitor = server.Stranger();
        (await (await visitor.GetAsync("/health")).Content.ReadAsStringAsync()).ShouldBe("""{"status":"ok"}""");
        var paths = JsonNode.Parse(await (await visitor.GetAsync("/openapi/v1.json")).Content.ReadAsStringAsync())!["paths"]!.AsObject().Select(path => path.Key);
        paths.ShouldContain("/api/v1/bench/compression");
        paths.ShouldContain("/api/v1/trend");
    }
}
