using System.Net;
using AngleSharp.Dom;
using Microsoft.Data.Sqlite;

namespace MellowRivet.Web.Tests;

public class BusyTests
{
    // Another program holds the shop's write lock: what was typed stays in its field, a script is told to try again, and then it works.
    [Fact]
    public async Task A_turn_that_does_not_come_is_said_on_the_page_with_what_was_typed()
    {
        await using var server = await DemoServer.ImpatientAsync();
        var ines = await server.EnterAsync("ines");
        var walk = server.Walk("N04QF");
        (string, string)[] form = [("post", $"{Guid.NewGuid()}"), ("words", "Heater smells in the climb")];
        await using (var other = new SqliteConnection(server.Data.ConnectionString))
        {
            await other.OpenAsync();
            await using var held = other.BeginTransaction(deferred: false);
            var answer = await ines.PostAsync($"{walk}/arrive?handler=Hear", form);
            answer.StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable);
            var page = await Visitor.ParseAsync(answer);
            page.QuerySelector("main [role=alert]")!.TextContent.ShouldContain("what you typed is still here");
            page.QuerySelector("textarea[name=words]")!.TextContent.ShouldBe("Heater smells in the climb");
            (await ines.ReadAsync($"{walk}/arrive")).Title.ShouldNotBeNull("whoever only looks isn't held up");
            SqliteConnection.ClearPool(other);
        }
        (await ines.PostAsync($"{walk}/arrive?handler=Hear", form)).StatusCode.ShouldBe(HttpStatusCode.Redirect);
    }
}
