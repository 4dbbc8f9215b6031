using System.Net;
using System.Text.Json.Nodes;

namespace MellowRivet.Web.Tests;

public class BenchApiTests(DemoServer server) : IClassFixture<DemoServer>
{
    private async Task<(HttpStatusCode Status, JsonObject Body)> CallAsync(string path, string body)
    {
        var answer = await server.Stranger().JsonAsync(path, body);
        return (answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsObject());
    }

    // AC 43.13-1B figure 7-2, from memory: 135 in-lb, 10 in wrench, 1.5 in extension: 117.4; 1 ft-lb = 12 in-lb; N·m by NIST SP 811.
    [Fact]
    public async Task A_wrench_is_set_lower_with_an_extension()
    {
        var (status, body) = await CallAsync("/api/v1/bench/torque", """
            { "wanted": 135, "unit": "inLb", "wrenchLengthInches": 10, "extensionInches": 1.5 }
            """);
        status.ShouldBe(HttpStatusCode.OK);
        body.Select(member => member.Key).ShouldBe(["setting", "unit", "inLb", "ftLb", "newtonMetres"]);
        body["setting"]!.GetValue<double>().ShouldBe(117.4, 0.05);
        body["ftLb"]!.GetValue<double>().ShouldBe(body["inLb"]!.GetValue<double>() / 12, 1e-9);
        (await CallAsync("/api/v1/bench/torque",
            """{ "wanted": 17, "unit": "Nm", "wrenchLengthInches": 10 }""")).Body["inLb"]!.GetValue<double>().ShouldBe(150.5, 0.1);
    }

    [Fact]
    public async Task A_cable_is_judged_at_its_temperature_and_wear_has_its_hours()
    {
        // By hand: at 5 °C between 28 lb at -10 and 38 lb at 15: 34 lb.
        var cable = (await CallAsync("/api/v1/bench/cable-tension", """
            { "pounds": 30, "celsius": 5, "tolerancePounds": 3, "table": [ { "celsius": -10, "pounds": 28 }, { "celsius": 15,
            "pounds": 38 } ] }
            """)).Body;
        cable["targetPounds"]!.GetValue<double>().ShouldBe(34, 1e-9);
        cable["judgement"]!["verdict"]!.ToString().ShouldBe("reject");
        var wear = (await CallAsync("/api/v1/bench/wear", """
            { "minimum": 0.1, "points": [ { "hours": 1000, "value": 0.3 }, { "hours": 1300, "value": 0.24 } ] }
            """)).Body;
        wear["hoursLeft"]!.GetValue<double>().ShouldBe(700, 1e-6);
        wear["earliestHoursLeft"].ShouldBeNull();
    }

    [Theory]
    [InlineData("torque", """{ "wanted": -1, "unit": "inLb", "wrenchLengthInches": 10 }""", "wanted")]
    [InlineData("torque", """{ "wanted": 10, "wrenchLengthInches": 10 }""", "unit")]
    [InlineData("torque", """{ "wanted": 10, "unit": "inLb", "wrenchLengthInches": 0 }""", "wrenchLengthInches")]
    [InlineData("cable-tension", """
        { "pounds": 30, "celsius": 50, "tolerancePounds": 3, "table": [ { "celsius": -10, "pounds": 28 }, { "celsius": 15,
        "pounds": 38 } ] }
        """, "celsius")]
    [InlineData("cable-tension", """
        { "pounds": 30, "celsius": 5, "tolerancePounds": 3, "table": [ { "celsius": 15, "pounds": 28 } ] }
        """, "table")]
    [InlineData("wear", """{ "minimum": 0.1, "points": [] }""", "points")]
    [InlineData("wear", """{ "points": [ { "hours": 1, "value": 1 } ] }""", "minimum")]
    public async Task A_bad_bench_call_names_the_bad_field(string call, string body, string field)
    {
        var (status, answer) = await CallAsync($"/api/v1/bench/{call}", body);
        status.ShouldBe(HttpStatusCode.BadRequest);
        answer["errors"]!.AsObject().ShouldContain(error => error.Key == field);
    }

    // Leak areas by hand: domain.md section 4, see LeakAreaTests.
    [Fact]
    public async Task A_compression_is_judged_in_the_documented_shape()
    {
        var (status, body) = await CallAsync("/api/v1/bench/compression",
                """
                { "limitSet": "sixtyOfEighty", "secondTry": true, "readings": [ { "cylinder": 1, "psi": 78 }, { "cylinder": 2, "psi": 15,
                "leak": "exhaustValve" } ] }
                """);
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
    [InlineData("""{ "limitSet": "sixtyOfEighty", "readings": [ { "cylinder": 1, "psi": 76 }, { "cylinder": 1, "psi": 75 } ] }""",
        "readings[1].cylinder")]
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
        var answer = await server.Stranger().JsonAsync("/api/v1/bench/compression", $$"""
            { "limitSet": "{{new string('x', 300 * 1024)}}" }
            """);
        answer.StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
    }

    [Fact]
    public async Task A_trend_says_what_it_knows_and_null_for_what_it_does_not()
    {
        var (_, few) = await CallAsync("/api/v1/trend", """
            { "points": [ { "hours": 1, "value": 76 }, { "hours": 2, "value": 75 } ], "limit": 60 }
            """);
        few.Select(member => member.Key)
            .ShouldBe(["n", "slopePer100Hours", "intercept", "noise", "next", "lastIsUnusual", "crossing", "why"]);
        (few["slopePer100Hours"], few["next"], few["crossing"]).ShouldBe((null, null, null));
        few["n"]!.GetValue<int>().ShouldBe(2);

        var (_, enough) = await CallAsync("/api/v1/trend",
                """
                { "points": [ { "hours": 0, "value": 78 }, { "hours": 100, "value": 77 }, { "hours": 200, "value": 76 }, { "hours": 300,
                "value": 75 } ], "limit": 60, "direction": "falling" }
                """);
        enough["slopePer100Hours"]!.GetValue<double>().ShouldBe(-1, 1e-9);
        enough["crossing"]!["hours"]!.GetValue<double>().ShouldBe(1800, 1e-6);
        enough["next"]!["expected"]!.GetValue<double>().ShouldBe(74, 1e-9);
    }

    [Fact]
    public async Task The_shop_says_that_it_is_up_and_what_it_can_be_asked()
    {
        var visitor = server.Stranger();
        (await (await visitor.GetAsync("/health")).Content.ReadAsStringAsync())
            .ShouldBe("""{"status":"ok","lastBackup":null,"backupIsLate":false,"filesLost":0,"copyAsOf":null,"copyIsBehind":false}""");
        var paths = JsonNode.Parse(await (await visitor.GetAsync("/openapi/v1.json")).Content.ReadAsStringAsync())!["paths"]!.AsObject()
            .Select(path => path.Key);
        paths.ShouldContain("/api/v1/bench/compression");
        paths.ShouldContain("/api/v1/trend");
    }
}
