using System.Collections.Concurrent;
using MellowRivet.Shops;

// Lends shops to the browser tests: each test asks for one of its own, and has it closed when it is done. One process serves all of
// them, so that a shop opens in a fraction of a second.
//   make                   makes the shop that copies are taken of, and says where it is
//   PORT                   serves:
//     GET    /made           where the shop is that copies are taken of
//     POST   /shops          opens a copy: its address, and where each aircraft's walk and file are;
//                            ?idle=N04QF: one where that aircraft isn't in work
//     GET    /shops/{port}/inspections/{id}   all that the shop has of one, table by table and column by column, and how often it was
//                            written to: to hold what came from a device against what was done at the desk
//     DELETE /shops/{port}   closes it and throws it away
if (args is ["make"])
{
    Console.WriteLine(await MadeShop.FolderAsync());
    return;
}
ConcurrentDictionary<int, LentShop> lent = [];
var builder = WebApplication.CreateSlimBuilder();
builder.WebHost.UseUrls($"http://127.0.0.1:{args[0]}");
builder.Logging.SetMinimumLevel(LogLevel.Warning);
var app = builder.Build();
app.MapGet("/made", MadeShop.FolderAsync);
app.MapPost("/shops", async (string? idle) =>
{
    var shop = await LentShop.OpenAsync(idle: idle);
    lent[shop.Port] = shop;
    return Results.Ok(new { shop.Port, shop.Address, shop.Walks, shop.Files });
});
app.MapGet("/shops/{number:int}/inspections/{id:guid}", async (int number, Guid id) =>
    lent.TryGetValue(number, out var shop) ? Results.Ok(await Everything.OfAsync(shop.Data, id)) : Results.NotFound());
app.MapDelete("/shops/{number:int}", async (int number) =>
{
    if (!lent.TryRemove(number, out var shop))
        return Results.NotFound();
    await shop.DisposeAsync();
    return Results.NoContent();
});
await MadeShop.FolderAsync();
await app.RunAsync();
foreach (var shop in lent.Values)
    await shop.DisposeAsync();
