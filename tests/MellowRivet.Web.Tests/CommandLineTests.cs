using MellowRivet.Core.Records;
using MellowRivet.Store;
using MellowRivet.Store.Backups;
using MellowRivet.Web.Demo;
using MellowRivet.Web.Hosting;
using Microsoft.Data.Sqlite;

namespace MellowRivet.Web.Tests;

/// <summary>They take the process's output for their own: nothing else writes meanwhile.</summary>
[CollectionDefinition(DisableParallelization = true)]
public sealed class Alone;

[Collection(typeof(Alone))]
public sealed class CommandLineTests(DemoServer server) : IClassFixture<DemoServer>, IDisposable
{
    private readonly string copy = Path.Combine(Path.GetTempPath(), $"rivet-cli-{Guid.NewGuid():N}");

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        if (Directory.Exists(copy))
            Directory.Delete(copy, recursive: true);
    }

    internal static async Task<(int Code, string Out, string Error)> RunAsync(params string[] args)
    {
        var (oldOut, oldError) = (Console.Out, Console.Error);
        using var output = new StringWriter();
        using var error = new StringWriter();
        try
        {
            Console.SetOut(output);
            Console.SetError(error);
            return (await CommandLine.RunAsync(args), output.ToString().Trim(), error.ToString().Trim());
        }
        finally
        {
            Console.SetOut(oldOut);
            Console.SetError(oldError);
        }
    }

    [Fact]
    public async Task A_backup_is_restored_verified_and_an_altered_shop_names_the_broken_record()
    {
        Directory.CreateDirectory(copy);
        var (zip, shop) = (Path.Combine(copy, "shop.zip"), Path.Combine(copy, "shop"));
        (await RunAsync("backup", zip, "--data", server.Data.Path)).ShouldSatisfyAllConditions(run => run.Code.ShouldBe(0),
            run => run.Out.ShouldContain("50 signed records"));
        LastBackup.Of(server.Data)!.File.ShouldBe(zip);
        (await RunAsync("backup", zip, "--data", server.Data.Path)).ShouldSatisfyAllConditions(run => run.Code.ShouldBe(2),
            run => run.Error.ShouldContain("is there already"));
        (await RunAsync("restore", zip, "--data", shop)).ShouldSatisfyAllConditions(run => run.Code.ShouldBe(0),
            run => run.Out.ShouldContain("50 signed records, every one as it was signed"),
            run => run.Out.ShouldContain("Head of the chain: 50-"));
        (await RunAsync("restore", zip, "--data", shop)).ShouldSatisfyAllConditions(run => run.Code.ShouldBe(2),
            run => run.Error.ShouldContain("is in use"));
        var whole = await RunAsync("verify", "--data", shop);
        whole.Code.ShouldBe(0);
        whole.Out.ShouldContain("every one as it was signed");

        var file = Path.Combine(shop, "rivet.db");
        await using (var connection = new SqliteConnection($"Data Source={file};Pooling=False"))
        {
            await connection.OpenAsync();
            var alter = connection.CreateCommand();
            alter.CommandText =
                "DROP TRIGGER signed_records_never_change; UPDATE SignedRecords SET Json = replace(Json, 'Orla Hob', "
                + "'Orla Hub') WHERE Number = 5;";
            (await alter.ExecuteNonQueryAsync()).ShouldBe(1);
        }
        var broken = await RunAsync("verify", "--data", shop);
        broken.Code.ShouldBe(1);
        broken.Error.ShouldContain("record 5 was altered");
        broken.Error.ShouldNotContain("\n");
    }

    [Fact]
    public async Task A_port_that_is_taken_is_said_and_nothing_is_touched()
    {
        var refused = await RunAsync("demo", "--data", copy, "--port", $"{server.Address.Port}");
        refused.Code.ShouldBe(1);
        refused.Error.ShouldContain("listens on port");
        refused.Error.ShouldNotContain("\n");
        File.Exists(Path.Combine(copy, "rivet.db")).ShouldBeFalse();
    }

    [Fact]
    public async Task An_aircraft_is_exported_and_not_imported_where_it_is()
    {
        Directory.CreateDirectory(copy);
        ShopDatabase.Backup(server.Data, Path.Combine(copy, "rivet.db"));
        var file = Path.Combine(copy, "twin.json");
        (await RunAsync("export", "N0TWQ", file, "--data", copy)).Out.ShouldContain("saved to");
        (await RunAsync("export", "N0NONE", file, "--data", copy))
            .ShouldSatisfyAllConditions(run => run.Code.ShouldBe(1), run => run.Error.ShouldContain("no aircraft N0NONE"));
        (await RunAsync("import", file, "--data", copy))
            .ShouldSatisfyAllConditions(run => run.Code.ShouldBe(1), run => run.Error.ShouldContain("has a file here already"));
        (await RunAsync("import", Path.Combine(copy, "nothing.json"), "--data", copy)).Code.ShouldBe(2);
        await File.WriteAllTextAsync(file, "{}");
        (await RunAsync("import", file, "--data", copy)).Code.ShouldBe(1);
    }

    [Fact]
    public async Task A_passport_is_written_once_verified_without_a_shop_and_taken_in_by_another()
    {
        Directory.CreateDirectory(copy);
        var file = Path.Combine(copy, "twin.zip");
        (await RunAsync("archive", "N0TWQ", file, "--data", server.Data.Path))
            .ShouldSatisfyAllConditions(run => run.Code.ShouldBe(0), run => run.Out.ShouldContain("8 signed records"));
        (await RunAsync("archive", "N0TWQ", file, "--data", server.Data.Path))
            .ShouldSatisfyAllConditions(run => run.Code.ShouldBe(2), run => run.Error.ShouldContain("is there already"));
        (await RunAsync("archive", "N0NONE", Path.Combine(copy, "none.zip"), "--data", server.Data.Path)).Code.ShouldBe(1);
        (await RunAsync("verify", file))
            .ShouldSatisfyAllConditions(run => run.Code.ShouldBe(0), run => run.Out.ShouldContain("every one as it was signed"));
        var head = server.With(db => db.SignedRecords.OrderBy(record => record.Id).Last());
        (await RunAsync("verify", file, "--expect", $"{head.Number}-{head.Hash[..16]}")).Code.ShouldBe(0);
        (await RunAsync("verify", file, "--expect", $"{head.Number}-{new string('0', 16)}"))
            .ShouldSatisfyAllConditions(run => run.Code.ShouldBe(1), run => run.Error.ShouldContain("written anew"));

        var other = Path.Combine(copy, "other");
        await using (var db = RivetDb.Of(new(other)))
            await ShopDatabase.BringUpToDateAsync(db, new(other), server.Clock, default);
        (await RunAsync("import", file, "--data", other))
            .ShouldSatisfyAllConditions(run => run.Code.ShouldBe(0), run => run.Out.ShouldContain("8 records signed elsewhere"));
        (await RunAsync("verify", "--data", other))
            .ShouldSatisfyAllConditions(run => run.Code.ShouldBe(0),
                run => run.Out.ShouldContain("8 more were signed elsewhere, and hold"));
        (await RunAsync("import", file, "--data", other)).Code.ShouldBe(1);
        await File.WriteAllBytesAsync(file, (await File.ReadAllBytesAsync(file))[..^40]);
        (await RunAsync("verify", file)).ShouldSatisfyAllConditions(run => run.Code.ShouldBe(1),
            run => run.Error.ShouldContain("cut short"), run => run.Error.ShouldNotContain("\n"));
    }

    [Fact]
    public async Task A_chain_is_held_against_the_heads_that_somebody_kept()
    {
        var data = server.Data.Path;
        var head = server.With(db => db.SignedRecords.OrderBy(record => record.Id).Last());
        Directory.CreateDirectory(copy);
        var file = Path.Combine(copy, "heads.txt");
        await File.WriteAllTextAsync(file, $"{head.SignedAt.UtcDateTime:O} {head.Number}-{head.Hash}\n");
        (await RunAsync("verify", "--data", data, "--expect", file)).ShouldSatisfyAllConditions(run => run.Code.ShouldBe(0),
            run => run.Out.ShouldContain("goes through the head"),
            run => run.Out.ShouldContain($"{new ChainHead(head.Number, head.Hash)}"));
        (await RunAsync("verify", "--data", data, "--expect", $"{head.Number + 1}-{head.Hash}"))
            .ShouldSatisfyAllConditions(run => run.Code.ShouldBe(1), run => run.Error.ShouldContain("the chain was cut"));
        await File.AppendAllTextAsync(file, "something else\n");
        (await RunAsync("verify", "--data", data, "--expect", file)).Code.ShouldBe(2);
        (await RunAsync("verify", "--data", data, "--expect", "the last one")).Code.ShouldBe(2);

        var key = await RunAsync("key", "--data", data);
        key.Code.ShouldBe(0);
        key.Out.ShouldContain(ShopKey.ToCompare(server.With(db => db.ShopKeys.Single().Fingerprint)));
        (await RunAsync("key", "--change", "--lost", "--data", data)).Code.ShouldBe(2);
        (await RunAsync("key", "--lost", "--data", data)).Code.ShouldBe(1);
    }

    [Theory]
    [InlineData("archive", "N0TWQ")]
    [InlineData("archive", "N0TWQ", "x.zip", "--data", "/nowhere/at/all")]
    [InlineData("verify", "/nowhere/at/all.zip")]
    [InlineData("key", "--data", "/nowhere/at/all")]
    [InlineData("fly")]
    [InlineData("backup")]
    [InlineData("backup", "x.zip", "--data", "/nowhere/at/all")]
    [InlineData("restore", "/nowhere/at/all.zip")]
    [InlineData("restore", "/nowhere/at/all.zip", "--data", "/nowhere/at/all")]
    [InlineData("follow", "http://rivet.example", "--data", "/nowhere/at/all")]
    [InlineData("follow", "https://rivet.example", "--data", "/nowhere/at/all")]
    [InlineData("follow", "/nowhere/at/all", "--data", "/nowhere/at/all")]
    [InlineData("follow", "https://rivet.example")]
    [InlineData("serve", "--take-over", "--data", "/nowhere/at/all")]
    [InlineData("serve", "--backups-kept", "0")]
    [InlineData("serve", "--port", "seventy")]
    [InlineData("serve", "--port", "70000")]
    [InlineData("verify", "--data", "/nowhere/at/all")]
    [InlineData("demo", "--today", "2027-02-29")]
    [InlineData("seed", "--today", "tomorrow")]
    [InlineData("serve", "--today", "2027-02-28")]
    public async Task Wrong_use_is_told_in_one_line_and_exits_with_two(params string[] args)
    {
        var (code, _, error) = await RunAsync(args);
        code.ShouldBe(2);
        error.ShouldStartWith("rivet: ");
        error.ShouldNotContain("\n");
    }

    [Theory]
    [InlineData("demo")]
    [InlineData("demo", "--fresh")]
    [InlineData("demo", "--today", "2028-02-29")]
    public async Task A_folder_that_is_not_a_demos_is_neither_deleted_nor_opened_as_one(params string[] args)
    {
        Directory.CreateDirectory(copy);
        await File.WriteAllTextAsync(Path.Combine(copy, "precious.txt"), "mine");
        (await RunAsync([.. args, "--data", copy]))
            .ShouldSatisfyAllConditions(run => run.Code.ShouldBe(2), run => run.Error.ShouldContain("is not a demo's folder"));
        Directory.EnumerateFileSystemEntries(copy).ShouldBe([Path.Combine(copy, "precious.txt")]);
    }

    // Records of a day to come would look like any other on the day itself, and nothing on the page would say so.
    [Theory]
    [InlineData("demo", "--today", "2028-02-28")]
    [InlineData("serve")]
    public async Task An_invented_shop_that_has_been_in_the_future_does_not_run_before_it(params string[] args)
    {
        DemoFolder.Runs(copy, args.Length > 1 ? new(2028, 2, 29) : new(2099, 12, 31));
        DemoFolder.Runs(copy, new(2028, 2, 27));
        var (code, output, error) = await RunAsync([.. args, "--data", copy]);
        code.ShouldBe(2);
        output.ShouldBeEmpty();
        error.ShouldMatch(@"^rivet: \S+ holds an invented shop of 20(28-02-29|99-12-31): .* would lie in the future\.");
        DemoFolder.LaterThan(copy, new(2099, 12, 31)).ShouldBeNull();
    }
}
