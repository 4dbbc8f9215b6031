using System.Collections.Concurrent;
using MellowRivet.Shops;

// Lends shops to the browser tests: each test asks for one of its own, and has it closed when it is done. One process serves all of
// them, so that a shop opens in a fraction of a second.
//   POST   /shops          opens a copy of the made shop: its address, and where each aircraft's walk and file are
//   DELETE /shops/{port}   closes it and throws it away
var (made, port) = (args[0], args[1]);
ConcurrentDictionary<int, LentShop> lent = [];

var builder = WebApplication.CreateSlimBuilder();
builder.WebHost.UseUrls($"http://127.0.0.1:{port}");
builder.Logging.ClearProviders();
var app = builder.Build();
app.MapGet("/health", () => Results.Ok());
app.MapPost("/shops", async () =>
{
    var shop = await LentShop.OpenAsync(made);
    lent[shop.Port] = shop;
    return Results.Ok(new { shop.Port, shop.Address, shop.Walks, shop.Files });
});
app.MapDelete("/shops/{number:int}", async (int number) =>
{
    if (!lent.TryRemove(number, out var shop))
        return Results.NotFound();
    await shop.DisposeAsync();
    return Results.NoContent();
});
app.Lifetime.ApplicationStopping.Register(() => Task.WhenAll(lent.Values.Select(shop => shop.DisposeAsync().AsTask())).Wait());
app.Run();
