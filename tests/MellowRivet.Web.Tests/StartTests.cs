using System.Net;
using MellowRivet.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

public class StartTests
{
    // The board is drawn before the door opens. One bulletin that can't be read keeps no shop shut: what doesn't rest on it is served.
    [Fact]
    public async Task A_shop_whose_board_cannot_be_drawn_opens_all_the_same()
    {
        await using var server = await DemoServer.ImpatientAsync();
        server.With(db => db.Database.ExecuteSql($"UPDATE Bulletins SET Bulletin = 'torn' WHERE Id = (SELECT Id FROM Bulletins LIMIT 1)"))
            .ShouldBe(1);
        await using var again = await RivetApp.OpenAsync(new(server.Data) { Port = 0, Clock = server.Clock }, default);
        await again.StartAsync();
        var stranger = new Visitor(new(again.Urls.First()));
        (await stranger.GetAsync("/health")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await stranger.GetAsync("/enter")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }
}
