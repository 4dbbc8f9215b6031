using System.Net;
using System.Text.Json;
using MellowRivet.Store;
using MellowRivet.Store.Backups;
using MellowRivet.Store.Following;
using MellowRivet.Web.Hosting.Reliability;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>A second machine, the daily backup, and what whoever manages the shop is told of both.</summary>
[Collection(typeof(Alone))]
public sealed class KeepingTests(DemoServer server) : IClassFixture<DemoServer>, IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("rivet-keeping-").FullName;

    private string At(string name) => Path.Combine(folder, name);

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }

    private async Task<JsonDocument> HealthAsync() =>
        JsonDocument.Parse(await (await server.Stranger().GetAsync("/health")).Content.ReadAsStringAsync());

    private static Task<(int Code, string Out, string Error)> RunAsync(params string[] args) => CommandLineTests.RunAsync(args);

    [Fact]
    public async Task A_second_machine_follows_by_its_key_and_takes_over()
    {
        var (shop, key, copy) = ($"{server.Address}", At("follower.key"), At("copy"));
        (await RunAsync("follow", shop, "--data", copy, "--once")).ShouldSatisfyAllConditions(run => run.Code.ShouldBe(2),
            run => run.Error.ShouldContain("--for-follower"));
        await File.WriteAllTextAsync(At("wrong.key"), new string('0', 64));
        (await RunAsync("follow", shop, "--key", At("wrong.key"), "--data", At("none"), "--once")).ShouldSatisfyAllConditions(
            run => run.Code.ShouldBe(1), run => run.Error.ShouldContain("doesn't know this key"));
        (await RunAsync("key", "--for-follower", key, "--data", server.Data.Path)).Code.ShouldBe(0);
        (await RunAsync("follow", shop, "--key", key, "--data", copy, "--once")).ShouldSatisfyAllConditions(run => run.Code.ShouldBe(0),
            run => run.Out.ShouldContain("blocks of the database"));

        // Somebody works on; the next round has it, and little else.
        var ines = await server.EnterAsync("ines");
        (await ines.SendAsync($"{server.Walk("N04QF")}/find", [("a.jpg", FoundPagesTests.Picture())], ("post", $"{Guid.NewGuid()}"),
            ("what", "Kept on both"), ("zone", "gear"), ("class", "Watch"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await RunAsync("follow", shop, "--key", key, "--data", copy, "--once")).Out.ShouldContain(" 2 files came");
        // It said at its second round that it had the first one.
        (await (await server.EnterAsync("orla")).ReadAsync("/keeping")).Body!.TextContent
            .ShouldContain("Its copy has all that was kept until");
        using (var health = await HealthAsync())
        {
            health.RootElement.GetProperty("copyAsOf").GetDateTimeOffset().ShouldBeLessThan(CopyState.In(copy)!.AsOf!.Value);
            health.RootElement.GetProperty("copyIsBehind").GetBoolean().ShouldBeFalse();
        }

        // It is no shop while it follows, and nothing else is followed into.
        (await RunAsync("serve", "--data", copy)).ShouldSatisfyAllConditions(run => run.Code.ShouldBe(2),
            run => run.Error.ShouldContain("--take-over"), run => run.Error.ShouldContain("two chains"));
        (await RunAsync("follow", shop, "--key", key, "--data", server.Data.Path, "--once")).Code.ShouldBe(2);
        (await RunAsync("backup", At("of-a-copy.zip"), "--data", copy)).ShouldSatisfyAllConditions(run => run.Code.ShouldBe(2),
            run => run.Error.ShouldContain("is a copy of"));
        server.With(db => db.Log.Single(line => line.About.Contains("to the second machine that follows it")).Name)
            .ShouldBe("the second machine");
        var (code, said, _) = await TakeOverAsync(copy);
        code.ShouldBeNull();
        said.ShouldContain("This is the shop now");
        said.ShouldContain("every one as it was signed");
        await using var db = RivetDb.Of(new(copy));
        (await db.Discrepancies.AsNoTracking().CountAsync(found => found.What == "Kept on both")).ShouldBe(1);
        (await RunAsync("follow", shop, "--key", key, "--data", copy, "--once")).ShouldSatisfyAllConditions(run => run.Code.ShouldBe(2),
            run => run.Error.ShouldContain("follows nothing"));
    }

    // What serve --take-over does before it serves.
    private static async Task<(int? Code, string Out, string Error)> TakeOverAsync(string copy)
    {
        var before = Console.Out;
        using var output = new StringWriter();
        try
        {
            Console.SetOut(output);
            return (await FollowCommands.TakeOverAsync(copy, default), $"{output}", "");
        }
        finally
        {
            Console.SetOut(before);
        }
    }

    [Fact]
    public async Task A_folder_on_this_machine_is_followed_too()
    {
        (await RunAsync("follow", server.Data.Path, "--data", At("copy"), "--once")).Code.ShouldBe(0);
        CopyState.In(At("copy"))!.AsOf.ShouldNotBeNull();
        (await RunAsync("follow", server.Data.Path, "--data", server.Data.Path, "--once")).Code.ShouldBe(2);
    }

    [Theory]
    [InlineData("/follow/database")]
    [InlineData("/follow/files")]
    [InlineData("/follow/blocks?image=x&from=0&count=1")]
    [InlineData("/follow/file?path=keys/shop-key.pem")]
    public async Task Nothing_is_given_out_without_the_key(string path)
    {
        FollowerKey.Make(server.Data, At($"{Guid.NewGuid():N}.key"));
        (await server.Stranger().GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await (await server.EnterAsync("orla")).GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Theory]
    [InlineData("keys/../../etc/passwd")]
    [InlineData("/etc/passwd")]
    [InlineData("rivet.db")]
    [InlineData("backups/last-backup.json")]
    public async Task The_key_opens_the_shops_files_and_no_other(string path)
    {
        var file = At("follower.key");
        FollowerKey.Make(server.Data, file);
        using var http = new HttpClient { BaseAddress = server.Address };
        http.DefaultRequestHeaders.Authorization = new("Bearer", (await File.ReadAllTextAsync(file)).Trim());
        (await http.GetAsync(new Uri($"/follow/file?path={Uri.EscapeDataString(path)}", UriKind.Relative))).StatusCode
            .ShouldBe(HttpStatusCode.NotFound);
        (await http.GetAsync(new Uri("/follow/file?path=keys/shop-key.pem", UriKind.Relative))).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task The_shops_admin_sees_the_last_backup_and_so_does_health()
    {
        var zip = At("shop.zip");
        (await RunAsync("backup", zip, "--data", server.Data.Path)).Code.ShouldBe(0);
        var page = await (await server.EnterAsync("orla")).ReadAsync("/keeping");
        page.Body!.TextContent.ShouldContain(zip);
        page.Body!.TextContent.ShouldContain("None is made by itself");
        (await (await server.EnterAsync("ines")).GetAsync("/keeping")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        using var health = await HealthAsync();
        health.RootElement.GetProperty("status").GetString().ShouldBe("ok");
        health.RootElement.GetProperty("lastBackup").GetDateTimeOffset().ShouldBe(LastBackup.Of(server.Data)!.At);
        health.RootElement.GetProperty("backupIsLate").GetBoolean().ShouldBeFalse();
    }

    [Fact]
    public async Task What_the_shops_disk_spoilt_is_said_to_its_admin()
    {
        var photo = ShopFiles.Of(server.Data).First(file => file.Path.EndsWith(".original", StringComparison.Ordinal)).Path;
        var place = Path.Combine(server.Data.Path, photo);
        var was = await File.ReadAllBytesAsync(place);
        (await RunAsync("backup", At("whole.zip"), "--data", server.Data.Path)).Code.ShouldBe(0);
        await File.WriteAllBytesAsync(place, was[..^1]);
        (await RunAsync("backup", At("after.zip"), "--data", server.Data.Path)).ShouldSatisfyAllConditions(run => run.Code.ShouldBe(1),
            run => run.Error.ShouldContain($"{photo}, which {At("whole.zip")} has as it was"));
        (await (await server.EnterAsync("orla")).ReadAsync("/keeping")).QuerySelector(".keeping [role=alert]")!.TextContent
            .ShouldContain($"{photo}: as it was in {At("whole.zip")}");
        using (var health = await HealthAsync())
            health.RootElement.GetProperty("filesLost").GetInt32().ShouldBe(1);
        await File.WriteAllBytesAsync(place, was);
        (await RunAsync("backup", At("again.zip"), "--data", server.Data.Path)).Code.ShouldBe(0);
    }

    // Seconds: a large shop gives a third of its time to its copy at most, and the copy is still within a minute.
    [Theory]
    [InlineData(0.2, 15, 14.8)]
    [InlineData(8, 15, 16)]
    [InlineData(20, 15, 20)]
    [InlineData(90, 15, 0)]
    [InlineData(1, 120, 119)]
    public void Rounds_of_a_large_shop_are_further_apart(double took, int every, double pause) =>
        FollowCommands.Pause(TimeSpan.FromSeconds(took), every).ShouldBe(TimeSpan.FromSeconds(pause));

    // By the day here, after two in the morning; a machine that is off at night backs up once it is on.
    [Theory]
    [InlineData(null, "2026-11-30 01:00", null, true)]
    [InlineData("2026-11-29 02:00", "2026-11-30 01:59", null, false)]
    [InlineData("2026-11-29 02:00", "2026-11-30 02:00", null, true)]
    [InlineData("2026-11-30 02:00", "2026-11-30 23:59", null, false)]
    [InlineData("2026-11-28 09:00", "2026-11-30 00:10", null, true)]
    [InlineData("2026-11-29 02:00", "2026-11-30 09:00", 59, false)]
    [InlineData("2026-11-29 02:00", "2026-11-30 09:00", 60, true)]
    public void A_backup_is_due_once_a_day(string? last, string here, int? failed, bool due) => DailyBackup.IsDue(
        last is null ? null : DateTime.Parse(last, null), DateTime.Parse(here, null),
        failed is { } minutes ? TimeSpan.FromMinutes(minutes) : null).ShouldBe(due);

    // A shop's photos without its database: whoever came first would be its admin.
    [Fact]
    public async Task Half_a_shop_is_not_opened_as_a_new_one()
    {
        DataFolder half = new(At("half"));
        Directory.CreateDirectory(Path.Combine(half.Photos, "ab"));
        await File.WriteAllTextAsync(Path.Combine(half.Photos, "ab", "x.original"), "");
        (await RunAsync("serve", "--data", half.Path)).ShouldSatisfyAllConditions(run => run.Code.ShouldBe(2),
            run => run.Error.ShouldContain("./rivet restore"));
        File.Exists(half.Database).ShouldBeFalse();
    }
}
