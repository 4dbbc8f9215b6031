using System.Net;
using System.Text.Json.Nodes;

namespace MellowRivet.Web.Tests;

public class ScheduleApiTests(DemoServer server) : IClassFixture<DemoServer>
{
    private async Task<(HttpStatusCode Status, JsonObject Body)> CallAsync(string body)
    {
        var answer = await server.Stranger().JsonAsync("/api/v1/schedule", body);
        return (answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsObject());
    }

    // By hand: an inspector works 8 h a day from 08:00. 2027-03-01 is a Monday; twelve weeks from it is Monday, May 24.
    [Fact]
    public async Task A_part_found_a_week_later_makes_the_aircraft_a_week_later_and_is_to_be_ordered_today()
    {
        async Task<JsonObject> OrderedAsync(string more) => (await CallAsync($$"""
            { "start": "2027-03-01", "people": [ { "id": "orla", "skills": ["inspector", "mechanic"], "hoursPerDay": 8 } ],
              "jobs": [ { "id": "look", "aircraft": "N0X", "skill": "inspector", "hours": 10 },
                        { "id": "fit", "aircraft": "N0X", "skill": "mechanic", "hours": 4, "after": ["look"], "leadDays": 84{{more}} } ],
              "wanted": { "N0X": "2027-05-20" }, "seed": 7 }
            """)).Body;
        var today = await OrderedAsync("");
        today["orderToday"]!.AsArray().Select(id => $"{id}").ShouldBe(["fit"]);
        var aircraft = today["aircraft"]![0]!;
        (aircraft["readyLikely"]!.ToString(), aircraft["readyNineInTen"]!.ToString(), aircraft["lateBy"]!.GetValue<int>())
            .ShouldBe(("2027-05-24", "2027-05-24", 4));
        aircraft["decidedBy"]!.AsArray().Select(id => $"{id}").ShouldBe(["fit"]);
        today["jobs"]!.AsArray().Select(job => $"{job!["id"]} {job["person"]} {job["start"]} {job["end"]}").ShouldBe(
        [
            "look orla 2027-03-01T08:00:00 2027-03-02T10:00:00", "fit orla 2027-05-24T08:00:00 2027-05-24T12:00:00",
        ]);
        (today["runs"]!.GetValue<int>(), today["seed"]!.GetValue<int>()).ShouldBe((1000, 7));
        var later = await OrderedAsync(", \"orderedOn\": \"2027-03-08\"");
        later["aircraft"]![0]!["readyLikely"]!.ToString().ShouldBe("2027-05-31");
        later["orderToday"]!.AsArray().ShouldBeEmpty();
    }

    [Theory]
    [InlineData("\"hours\": -1", "jobs[0].hours.low")]
    [InlineData("\"hours\": { \"low\": 3, \"likely\": 2, \"high\": 5 }", "jobs[0].hours")]
    [InlineData("\"hours\": 1, \"after\": [\"b\"]", "jobs[0].after")]
    [InlineData("\"hours\": 1, \"after\": [\"nowhere\"]", "jobs[0].after")]
    [InlineData("\"hours\": 1, \"leadDays\": 1.5", "jobs[0].leadDays")]
    [InlineData("\"hours\": 1, \"orderedOn\": \"2027-03-01\"", "jobs[0].leadDays")]
    [InlineData("\"hours\": 1, \"cureHours\": -1", "jobs[0].cureHours")]
    [InlineData("\"skill\": \"mechanic\"", "jobs[0].hours")]
    [InlineData("\"hours\": 1, \"nonsense\": 1", "jobs[0].nonsense")]
    public async Task What_a_job_cannot_be_is_named_with_its_field(string first, string field)
    {
        var (status, body) = await CallAsync($$"""
            { "start": "2027-03-01", "people": [ { "id": "a", "skills": ["mechanic"] } ],
              "jobs": [ { "id": "a", "aircraft": "N0X", {{first}} }, { "id": "b", "aircraft": "N0X", "hours": 1, "after": ["a"] } ] }
            """);
        status.ShouldBe(HttpStatusCode.BadRequest);
        body["errors"]!.AsObject().ShouldContainKey(field);
        if (first.Contains("[\"b\"]", StringComparison.Ordinal))
            body["errors"]![field]![0]!.ToString().ShouldContain("a → b → a");
    }

    [Fact]
    public async Task What_nobody_can_do_is_told_and_the_rest_is_planned()
    {
        var (status, body) = await CallAsync("""
            { "start": "2027-03-01", "people": [ { "id": "a", "skills": ["mechanic"] }, { "id": "never", "skills": ["painter"],
                "days": [] } ],
              "places": { "stand": 1 }, "jobs": [ { "id": "paint", "aircraft": "N0X", "skill": "painter", "hours": 2 },
              { "id": "one", "aircraft": "N0X", "skill": "mechanic", "hours": [1] , "place": "stand" } ] }
            """.Replace("[1] ", "{ \"low\": 1, \"likely\": 2, \"high\": 4 }"));
        status.ShouldBe(HttpStatusCode.OK);
        body["jobs"]!.AsArray().ShouldHaveSingleItem()!["id"]!.ToString().ShouldBe("one");
        body["problems"]!.AsArray().Select(problem => $"{problem!["about"]}").Order().ShouldBe(["never", "paint"]);
        body["aircraft"]![0]!["leftOut"]!.GetValue<int>().ShouldBe(1);
        (await CallAsync("""{ "start": "2027-03-01", "people": [], "jobs": [] }""")).Body["errors"]!.AsObject().Select(one => one.Key)
            .ShouldBe(["people", "jobs"], ignoreOrder: true);
        (await CallAsync("""
            { "start": "2027-03-01", "people": [ { "id": "a", "skills": ["m"], "days": ["someday"], "hoursPerDay": 40 } ],
              "jobs": [ { "id": "j", "aircraft": "N0X", "hours": 1 } ], "places": { "stand": 0 }, "wanted": { "N0Y": "2027-04-01" } }
            """)).Body["errors"]!.AsObject().Select(one => one.Key).Order().ShouldBe(
            ["people[0].days", "people[0].hoursPerDay", "places.stand", "wanted.N0Y"]);
    }
}
