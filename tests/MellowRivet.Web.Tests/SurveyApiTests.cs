using System.Net;
using System.Text.Json.Nodes;

namespace MellowRivet.Web.Tests;

/// <summary>The open call: a fair price from what was found.</summary>
public class SurveyApiTests(DemoServer server) : IClassFixture<DemoServer>
{
    private const string Engine = """, "engine": { "hoursSinceOverhaul": 1500, "interval": 2000, "overhaulCost": 30000 }""";

    private async Task<(HttpStatusCode Status, JsonObject Body)> CallAsync(string body)
    {
        var answer = await server.Stranger().JsonAsync("/api/v1/survey", body);
        return (answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsObject());
    }

    // By hand: 22,500 used up (the check value of the trade's page); 50,000 − 7,500 − 2,000 − 1,500 − 500 = 38,500, 1,500 under asking.
    [Fact]
    public async Task A_fair_price_with_its_verdict_and_three_reasons()
    {
        var (status, body) = await CallAsync($$"""
            { "asking": 40000, "inOrder": { "price": 50000 }, "reserve": 500, "limit": 5000,
              "findings": [ { "id": "tank", "cost": { "low": 900, "likely": 2000, "high": 3200 }, "airworthiness": true },
                            { "id": "belt", "cost": 700, "sellerPays": true } ],
              "dueWithinYear": [ { "what": "hoses", "cost": 1500 } ]{{Engine}} }
            """);
        status.ShouldBe(HttpStatusCode.OK);
        decimal Fair(string which) => body["fair"]![which]!.GetValue<decimal>();
        (Fair("low"), Fair("likely"), Fair("high")).ShouldBe((37_300, 38_500, 39_600));
        ($"{body["verdict"]}", body["by"]!.GetValue<decimal>(), body["engineUsedUp"]!.GetValue<decimal>())
            .ShouldBe(("negotiate", 1_500, 22_500));
        body["because"]!.AsArray().Count.ShouldBe(3);
        body["wouldChange"]!.AsArray().Select(one => $"{one!["if"]}: {one["verdict"]}")
            .ShouldContain("If the seller pays tank, found: fair");
    }

    [Theory]
    [InlineData("""{ "asking": 40000, "inOrder": { "price": 41000 }, "findings": [] }""", "fair")]
    [InlineData("""{ "asking": 40000, "inOrder": { "price": 38000 }, "findings": [] }""", "negotiate")]
    [InlineData("""{ "asking": 40000, "inOrder": { "price": 23999 }, "findings": [] }""", "walkAway")]
    [InlineData("""{ "asking": 40000, "inOrder": { "price": 90000 }, "limit": 5000, "findings": [ { "id": "x", "cost": 5001 } ] }""",
        "walkAway")]
    [InlineData("""{ "asking": 40000, "inOrder": { "price": 90000 }, "findings": [ { "id": "x", "cost": 0, "stops": true } ] }""",
        "walkAway")]
    public async Task The_verdict_goes_by_the_thresholds(string body, string verdict) =>
        $"{(await CallAsync(body)).Body["verdict"]}".ShouldBe(verdict);

    // What the price supposes: at the same hours nothing comes off.
    [Fact]
    public async Task The_price_may_say_which_engine_hours_it_supposes() => (await CallAsync($$"""
        { "asking": 40000, "inOrder": { "price": 50000, "engineHours": 1500 }, "findings": []{{Engine}} }
        """)).Body["fair"]!["likely"]!.GetValue<decimal>().ShouldBe(50_000);

    [Theory]
    [InlineData("""{ "asking": 0, "inOrder": { "price": 1 }, "findings": [] }""", "asking", "above 0")]
    [InlineData("""{ "asking": 40000, "findings": [] }""", "inOrder", "Without it no price can be said to be fair")]
    [InlineData("""{ "asking": 40000, "inOrder": { }, "findings": [] }""", "inOrder.price", "above 0")]
    [InlineData("""{ "asking": 40000, "inOrder": { "price": 50000 } }""", "findings", "may be empty")]
    [InlineData("""~"findings": [ { "id": "x", "cost": { "low": 3, "likely": 2, "high": 1 } } ] }""",
        "findings[0].cost", "rise from one to the next")]
    [InlineData("""~"findings": [ { "id": "x" } ] }""", "findings[0].cost", "A cost")]
    [InlineData("""~"findings": [ { "id": "x", "cost": 1 }, { "id": "x", "cost": 2 } ] }""",
        "findings", "stands there twice")]
    [InlineData("""~"findings": [], "engine": { "hoursSinceOverhaul": -1, "interval": 0, "overhaulCost": 5 } }""",
        "engine.interval", "from 1")]
    [InlineData("""{ "asking": 40000, "inOrder": { "price": 50000, "engineHours": 9 }, "findings": [] }""", "inOrder.engineHours",
        "engine")]
    [InlineData("""~"findings": [], "limit": -1 }""", "limit", "from 0")]
    public async Task A_bad_body_is_refused_by_the_name_of_its_field(string body, string field, string says)
    {
        var (status, answer) = await CallAsync(body.Replace("~", """{ "asking": 40000, "inOrder": { "price": 50000 }, """));
        status.ShouldBe(HttpStatusCode.BadRequest);
        answer["errors"]![field]!.ToJsonString().ShouldContain(says);
    }
}
