using System.Net;
using System.Text.Json;

namespace MellowRivet.Web.Tests;

public class DueApiTests(DemoServer server) : IClassFixture<DemoServer>
{
    private async Task<JsonElement> AskAsync(string body)
    {
        var answer = await server.Stranger().JsonAsync("/api/v1/due", body);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        return JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement.GetProperty("items")[0];
    }

    // The worked cases of domain.md section 3; rules 14 CFR 91.409 from memory.
    [Theory]
    [InlineData("""{ "id": "a", "everyMonths": 12, "lastDoneDate": "2026-03-14" }""", "dueDate", "2027-03-31")]
    [InlineData("""{ "id": "a", "everyMonths": 12, "calendarRule": "sameDay", "lastDoneDate": "2026-03-14" }""", "dueDate", "2027-03-14")]
    [InlineData("""{ "id": "a", "everyMonths": 1, "calendarRule": "sameDay", "lastDoneDate": "2026-01-31" }""", "dueDate", "2026-02-28")]
    [InlineData("""
        { "id": "h", "everyHours": 100, "graceHours": 10, "lastDoneDate": "2026-06-01", "lastDoneHours": 1206.5, "lastDueHours": 1200 }
        """, "dueHours", "1300")]
    [InlineData("""
        { "id": "h", "everyHours": 100, "graceHours": 10, "lastDoneDate": "2026-06-01", "lastDoneHours": 1195, "lastDueHours": 1200 }
        """, "dueHours", "1295")]
    [InlineData("""
        { "id": "h", "everyHours": 100, "graceHours": 10, "lastDoneDate": "2026-06-01", "lastDoneHours": 1212, "lastDueHours": 1200 }
        """, "dueHours", "1300")]
    public async Task It_reckons_by_the_rules(string item, string field, string expected) =>
        (await AskAsync($$"""{ "today": "2026-11-23", "hoursNow": 1250, "items": [{{item}}] }""")).GetProperty(field).ToString()
            .ShouldBe(expected);

    // Half an hour a day by its own tach: 50 h are a hundred days; the calendar limb comes later, or sooner.
    [Theory]
    [InlineData(12, "2027-03-03", "hours", "ok")]
    [InlineData(5, "2026-11-30", "calendar", "soon")]
    public async Task Whichever_comes_first_governs(int months, string forecast, string governing, string state)
    {
        var item = await AskAsync($$"""
            { "today": "2026-11-23", "tach": [ { "date": "2026-05-27", "hours": 1160 }, { "date": "2026-08-25", "hours": 1205 },
            { "date": "2026-11-23", "hours": 1250 } ],
              "items": [ { "id": "x", "everyHours": 100, "everyMonths": {{months}}, "lastDoneDate": "2026-06-10",
              "lastDoneHours": 1200 } ] }
            """);
        item.GetProperty("forecastDate").GetString().ShouldBe(forecast);
        item.GetProperty("governing").GetString().ShouldBe(governing);
        item.GetProperty("state").GetString().ShouldBe(state);
        item.GetProperty("remainingHours").GetDecimal().ShouldBe(50);
    }

    [Theory]
    [InlineData("""{ "id": "x", "everyHours": 100, "lastDoneDate": "2026-06-10" }""")]
    [InlineData("""{ "id": "x", "everyMonths": 12, "lastDoneHours": 1200, "lastDoneDate": null }""")]
    public async Task A_missing_history_is_unknown(string item)
    {
        var answer = await AskAsync($$"""{ "today": "2026-11-23", "hoursNow": 1250, "items": [{{item}}] }""");
        answer.GetProperty("state").GetString().ShouldBe("unknown");
        answer.GetProperty("dueDate").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task One_reading_gives_no_forecast_and_says_so()
    {
        var item = await AskAsync("""
            { "today": "2026-11-23", "tach": [ { "date": "2026-11-01", "hours": 1250 } ], "items": [ { "id": "x", "everyHours": 100,
            "lastDoneDate": "2026-06-10", "lastDoneHours": 1200 } ] }
            """);
        item.GetProperty("forecastDate").ValueKind.ShouldBe(JsonValueKind.Null);
        item.GetProperty("why").GetString()!.ShouldContain("two readings");
    }

    [Theory]
    [InlineData("""{ "items": [ { "id": "x", "everyMonths": 12, "lastDoneDate": "2026-01-01" } ] }""", "today")]
    [InlineData("""{ "today": "9999-12-31", "items": [ { "id": "x", "everyMonths": 12, "lastDoneDate": "9999-12-30" } ] }""", "today")]
    [InlineData("""{ "today": "2026-11-23", "items": [] }""", "items")]
    [InlineData("""{ "today": "2026-11-23", "items": [ { "id": "x", "lastDoneDate": "2026-01-01" } ] }""", "items[0].everyHours")]
    [InlineData("""{ "today": "2026-11-23", "items": [ { "everyMonths": 12, "lastDoneDate": "2026-01-01" } ] }""", "items[0].id")]
    [InlineData("""{ "today": "2026-11-23", "items": [ { "id": "x", "everyMonths": 0, "lastDoneDate": "2026-01-01" } ] }""",
        "items[0].everyMonths")]
    [InlineData("""{ "today": "2026-11-23", "items": [ { "id": "x", "everyHours": -5, "lastDoneDate": "2026-01-01" } ] }""",
        "items[0].everyHours")]
    [InlineData("""{ "today": "2026-11-23", "items": [ { "id": "x", "everyMonths": 12, "lastDoneDate": "2026-11-24" } ] }""",
        "items[0].lastDoneDate")]
    [InlineData("""{ "today": "2026-11-23", "items": [ { "id": "x", "everyMonths": 12, "lastDoneDate": "2026-02-30" } ] }""",
        "items[0].lastDoneDate")]
    [InlineData("""
        { "today": "2026-11-23", "tach": [ { "date": "2026-01-01", "hours": 100 }, { "date": "2026-02-01", "hours": 90 } ],
        "items": [ { "id": "x", "everyMonths": 12, "lastDoneDate": "2026-01-01" } ] }
        """, "tach")]
    [InlineData("""
        { "today": "2026-11-23", "tach": [ { "date": "2027-01-01", "hours": 100 } ], "items": [ { "id": "x", "everyMonths": 12,
        "lastDoneDate": "2026-01-01" } ] }
        """, "tach")]
    [InlineData("""
        { "today": "2026-11-23", "hoursNow": -1, "items": [ { "id": "x", "everyMonths": 12, "lastDoneDate": "2026-01-01" } ] }
        """, "hoursNow")]
    [InlineData("""
        { "today": "2026-11-23", "items": [ { "id": "x", "everyMonths": 12, "calendarRule": "lunar", "lastDoneDate": "2026-01-01" } ] }
        """, "items[0].calendarRule")]
    public async Task A_bad_request_names_the_field(string body, string field)
    {
        var answer = await server.Stranger().JsonAsync("/api/v1/due", body);
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement.GetProperty("errors").EnumerateObject()
            .Select(error => error.Name).ShouldContain(field);
    }
}
