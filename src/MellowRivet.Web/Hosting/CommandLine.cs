using System.CommandLine;
using System.CommandLine.Parsing;
using System.Net;
using System.Net.Sockets;
using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Store.Backups;
using MellowRivet.Store.Files;
using MellowRivet.Store.Passports;
using MellowRivet.Web.Access;
using MellowRivet.Web.Demo;
using MellowRivet.Web.Hosting.Benchmarking;
using MellowRivet.Web.Hosting.Fuzzing;
using MellowRivet.Web.Hosting.Reliability;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Hosting;

/// <summary>What `./rivet` can do. Exit code 0 on success, 1 on a finding, 2 on wrong use; errors on one line of standard error.</summary>
public static class CommandLine
{
    public static async Task<int> RunAsync(string[] args)
    {
        var data = new Option<string?>("--data") { Description = "The folder with the shop's data", HelpName = "DIR", Recursive = true };
        var port = new Option<int>("--port") { Description = "The port to serve on, at 127.0.0.1", DefaultValueFactory = _ => 5080 };
        port.Validators.Add(result => Within(result, 1, 65535));
        var today = new Option<SetClock?>("--today")
        {
            Description = "The day the shop is made as of and runs on, as 2028-02-29; a time of it may follow, as T10:00",
            HelpName = "DATE",
            CustomParser = result =>
            {
                if (SetClock.Read(result.Tokens[0].Value) is { } set)
                    return set;
                result.AddError("--today takes a day from 2000-01-01 to 2099-12-31, as 2028-02-29.");
                return null;
            },
        };
        var publicUrl = new Option<Uri?>("--public-url")
        {
            Description = "Where people reach it through a web server with TLS, as https://rivet.example",
            HelpName = "URL",
            CustomParser = result =>
            {
                if (Uri.TryCreate(result.Tokens[0].Value, UriKind.Absolute, out var url) && url.PathAndQuery == "/"
                    && (url.Scheme == Uri.UriSchemeHttps || url.Scheme == Uri.UriSchemeHttp) && url.UserInfo.Length == 0)
                    return url;
                result.AddError("--public-url takes an address without a path, as https://rivet.example.");
                return null;
            },
        };
        var proxy = new Option<IPAddress?>("--proxy")
        {
            Description = "The address of that web server, as 127.0.0.1: what it says of who asks is believed",
            HelpName = "ADDRESS",
            CustomParser = result =>
            {
                if (IPAddress.TryParse(result.Tokens[0].Value, out var address))
                    return address;
                result.AddError("--proxy takes an address, as 127.0.0.1.");
                return null;
            },
        };
        var fresh = new Option<bool>("--fresh") { Description = "Make the demo data anew" };
        var backupFile = new Argument<string>("FILE") { Description = "The backup" };

        var bare = new Option<bool>("--bare") { Description = "Do nothing ahead of whoever comes first", Hidden = true };
        var demo = new Command("demo", "Serve the invented shop of the demo") { port, fresh, today, publicUrl, proxy, bare };
        demo.SetAction((parsed, stop) =>
            DemoAsync(Invented(parsed.GetValue(data), parsed.GetValue(today)), parsed.GetValue(port), parsed.GetValue(fresh),
                parsed.GetValue(today), settings => Behind(parsed)(settings) with { Ahead = !parsed.GetValue(bare) }, stop));
        var headFile = new Option<string?>("--head-file")
            { Description = "A file outside the shop's folder that gets the head of the chain at each signature", HelpName = "FILE" };
        var backupTo = new Option<string?>("--backup-to")
            { Description = "A folder, best on another disk, that gets a backup every day", HelpName = "DIR" };
        var backupsKept = new Option<int>("--backups-kept")
            { Description = "How many of them are kept", HelpName = "N", DefaultValueFactory = _ => RivetSettings.UsualBackupsKept };
        backupsKept.Validators.Add(result => Within(result, 1, 10_000));
        var takeOver = new Option<bool>("--take-over") { Description = "Make a copy that follows a shop the shop itself" };
        var serve = new Command("serve", "Serve a shop; the first page makes the first account")
            { port, publicUrl, proxy, headFile, backupTo, backupsKept, takeOver };
        serve.SetAction(async (parsed, stop) =>
        {
            var folder = Folder(parsed.GetValue(data), "shop");
            // Asked first: a copy that can't be served stays one.
            if (parsed.GetValue(takeOver) && WhyNotOn(parsed.GetValue(port)) is { } taken)
                return Fail($"{taken}, or name another port with --port.", 1);
            if (parsed.GetValue(takeOver) && await FollowCommands.TakeOverAsync(folder, stop) is { } not)
                return not;
            if (WhyNoShop(folder) is { } why)
                return Fail(why, 2);
            return await ServeAsync(Behind(parsed)(new(new(folder) { HeadFile = parsed.GetValue(headFile) }) { Port = parsed.GetValue(port),
                BackupTo = parsed.GetValue(backupTo), BackupsKept = parsed.GetValue(backupsKept) }), stop);
        });
        Func<RivetSettings, RivetSettings> Behind(ParseResult parsed) => settings => settings with
            { PublicUrl = parsed.GetValue(publicUrl), Proxy = parsed.GetValue(proxy) };
        var archive = new Argument<string?>("ARCHIVE")
            { Description = "An aircraft’s passport, checked without any shop", Arity = ArgumentArity.ZeroOrOne };
        var expect = new Option<string?>("--expect")
            { Description = "A head somebody kept: as it is printed, or a file of them", HelpName = "HEAD" };
        var verify = new Command("verify", "Hold everything that was signed against what is there") { archive, expect };
        verify.SetAction((parsed, stop) => parsed.GetValue(archive) is { } passport
            ? PassportCommands.VerifyAsync(passport, parsed.GetValue(expect), stop)
            : RecordCommands.VerifyAsync(Folder(parsed.GetValue(data), "shop"), parsed.GetValue(expect), stop));
        var change = new Option<bool>("--change") { Description = "Begin another one, handed over by the one in force" };
        var lost = new Option<bool>("--lost") { Description = "Begin another one where the one in force is lost for good" };
        var forFollower = new Option<string?>("--for-follower")
            { Description = "Make a key for a second machine that follows the shop, in a file to bring there", HelpName = "FILE" };
        var key = new Command("key", "Say the fingerprint of the shop's key, or begin another one") { change, lost, forFollower };
        key.SetAction((parsed, stop) => parsed.GetValue(forFollower) is { } followers
            ? RecordCommands.KeyForFollowerAsync(Folder(parsed.GetValue(data), "shop"), followers, stop)
            : RecordCommands.KeyAsync(Folder(parsed.GetValue(data), "shop"), parsed.GetValue(change), parsed.GetValue(lost), stop));
        var backup = new Command("backup", "Write the whole shop to FILE while people work in it") { backupFile };
        backup.SetAction((parsed, stop) => BackupCommands.BackupAsync(Folder(parsed.GetValue(data), "shop"), parsed.GetValue(backupFile)!,
            stop));
        var restore = new Command("restore", "Make a shop of a backup, in a folder where there is nothing") { backupFile };
        restore.SetAction((parsed, stop) => BackupCommands.RestoreAsync(parsed.GetValue(backupFile)!, parsed.GetValue(data), stop));
        var followed = new Argument<string>("SHOP") { Description = "The shop's address, as https://rivet.example, or its folder" };
        var keyFile = new Option<string?>("--key") { Description = "The file with the key that the shop made for it", HelpName = "FILE" };
        var every = new Option<int>("--every")
            { Description = "Seconds between two looks", HelpName = "N", DefaultValueFactory = _ => FollowCommands.Usual };
        every.Validators.Add(result => Within(result, 1, 3_600));
        var once = new Option<bool>("--once") { Description = "Look once, and end" };
        var follow = new Command("follow", "Keep a warm copy of a shop elsewhere, at --data") { followed, keyFile, every, once };
        follow.SetAction((parsed, stop) => FollowCommands.FollowAsync(new(parsed.GetValue(followed)!, parsed.GetValue(data),
            parsed.GetValue(keyFile), parsed.GetValue(every), parsed.GetValue(once)), stop));
        var shop = new Option<string>("--shop")
            { Description = "Which invented shop: demo, or big to measure on", HelpName = "NAME", DefaultValueFactory = _ => "demo" };
        shop.AcceptOnlyFromAmong("demo", "big");
        var seed = new Command("seed", "Make an invented shop without serving it") { shop, today };
        seed.SetAction((parsed, stop) =>
            SeedAsync(Invented(parsed.GetValue(data), parsed.GetValue(today), parsed.GetValue(shop)!), parsed.GetValue(shop) == "big",
                parsed.GetValue(today), stop));
        var parts = new Argument<string[]>("PART")
            { Description = "What to measure: everything, or some of it", Arity = ArgumentArity.ZeroOrMore };
        parts.AcceptOnlyFromAmong([.. Benchmark.Parts]);
        var only = new Option<string?>("--only") { Description = "Measure only what is called so, or has it in its name" };
        var benchmark = new Command("bench", "Measure server times over demo data") { parts, only };
        benchmark.SetAction((parsed, stop) => Benchmark.RunAsync(parsed.GetValue(parts) ?? [], parsed.GetValue(only)
            ?? "", parsed.GetValue(data), stop));

        var requests = new Option<int>("--requests")
            { Description = "How many are sent", HelpName = "N", DefaultValueFactory = _ => Fuzz.Usual };
        var fuzzSeed = new Option<int>("--seed")
            { Description = "Where the row of chances begins", HelpName = "N", DefaultValueFactory = _ => 1 };
        var fuzz = new Command("fuzz", "Send made-up requests to every address of an invented shop") { requests, fuzzSeed };
        fuzz.SetAction((parsed, stop) => Fuzz.RunAsync(Math.Max(1, parsed.GetValue(requests)), parsed.GetValue(fuzzSeed), stop));

        var kills = new Option<int>("--kills")
            { Description = "How often the server is killed", HelpName = "N", DefaultValueFactory = _ => KillTest.Usual };
        var killTest = new Command("kill-test", "Kill a demo's server again and again while people post, and look what is there")
            { kills, fuzzSeed };
        killTest.SetAction((parsed, stop) => KillTest.RunAsync(Math.Max(1, parsed.GetValue(kills)), parsed.GetValue(fuzzSeed), stop));

        var registration = new Argument<string>("AIRCRAFT") { Description = "Its registration" };
        var passportFile = new Argument<string>("FILE") { Description = "Where the passport goes: a file that isn't there yet" };
        var passportOf = new Command("archive", "Write an aircraft's passport: everything of it, in one signed file")
            { registration, passportFile };
        passportOf.SetAction((parsed, stop) => PassportCommands.ArchiveAsync(Folder(parsed.GetValue(data), "shop"),
            parsed.GetValue(registration)!, parsed.GetValue(passportFile)!, stop));
        var exportFile = new Argument<string>("FILE") { Description = "Where the JSON goes" };
        var importFile = new Argument<string>("FILE") { Description = "An aircraft's passport, or the JSON of its file" };
        var export = new Command("export", "Save an aircraft's file as JSON") { registration, exportFile };
        export.SetAction((parsed, stop) =>
            PassportCommands.ExportAsync(Folder(parsed.GetValue(data), "shop"), parsed.GetValue(registration)!,
                parsed.GetValue(exportFile)!, stop));
        var import = new Command("import", "Take in an aircraft's file") { importFile };
        import.SetAction((parsed, stop) =>
            PassportCommands.ImportAsync(Folder(parsed.GetValue(data), "shop"), parsed.GetValue(importFile)!, stop));

        var root = new RootCommand("Mellow Rivet: the inspection, beside the aircraft")
            { demo, serve, verify, key, backup, restore, follow, passportOf, export, import, seed, benchmark, fuzz, killTest };
        root.Options.Add(data);
        root.SetAction(_ => root.Parse("--help").Invoke());
        if (args is ["help"])
            args = ["--help"];

        var parsed = root.Parse(args);
        if (parsed.Errors.Count > 0)
            return Fail($"{parsed.Errors[0].Message} See ./rivet help.", 2);
        try
        {
            return await parsed.InvokeAsync(new() { EnableDefaultExceptionHandler = false });
        }
        catch (Exception problem) when (problem is IOException or InvalidDataException or UnauthorizedAccessException or FormatException
            or Microsoft.Data.Sqlite.SqliteException or BadPassportException or NoPassportException)
        {
            return Fail(Disk.IsFull(problem) ? "There is no room on the disk. Nothing was lost of what was there; make room, and try again."
                : problem.Message, 1);
        }
    }

    // Data stands beside the program's folder, in .rivet/, unless --data names another place.
    private static string Folder(string? given, string name) => given ?? Path.Combine(AppContext.BaseDirectory, "..", name);

    // A shop made as of a set day has a folder of its own, and so is made as of that day whatever ran before.
    private static string Invented(string? given, SetClock? today, string shop = "demo") =>
        Folder(given, today is null ? shop : $"{shop}-{today.Today():yyyy-MM-dd}");

    private static async Task<int> DemoAsync(string folder, int port, bool fresh, SetClock? today,
        Func<RivetSettings, RivetSettings> behind, CancellationToken stop)
    {
        if (DemoFolder.RealShop(folder) is { } real)
            return Fail(real, 2);
        if (fresh && Directory.Exists(folder))
            Directory.Delete(folder, recursive: true);
        return await ServeAsync(behind(new(new(folder)) { Port = port, Demo = true, Clock = today ?? TimeProvider.System }), stop);
    }

    private static async Task<int> SeedAsync(string folder, bool big, SetClock? today, CancellationToken stop)
    {
        if (Directory.Exists(folder) && Directory.EnumerateFileSystemEntries(folder).Any())
            return Fail($"{folder} isn't empty: it stays as it is.", 2);
        RivetSettings settings = new(new(folder)) { Port = 0, Demo = true, Big = big, Clock = today ?? TimeProvider.System };
        await using var app = await RivetApp.OpenAsync(settings, stop);
        Console.WriteLine($"Made at {folder}.");
        return 0;
    }

    private static async Task<int> ServeAsync(RivetSettings settings, CancellationToken stop)
    {
        if (DemoFolder.LaterThan(settings.Data.Path, settings.Clock.Today()) is { } later)
            return Fail(later, 2);
        // Asked first: nothing of the shop is touched by a start that can't be.
        if (WhyNotOn(settings.Port) is { } reason)
            return Fail($"{reason}, or name another port with --port.", 1);
        await using var app = await RivetApp.OpenAsync(settings, stop);
        await app.StartAsync(stop);
        Console.WriteLine($"Mellow Rivet is at {app.Urls.First()}{(settings.PublicUrl is { } url ? $", for everybody at {url}" : "")}");
        if (settings is { PublicUrl: not null, Proxy: null })
            Console.WriteLine("No --proxy is named: limits by address take everybody for one, and the log names the web server.");
        await SayFirstRunAsync(app, settings, stop);
        if (settings.DayIsSet)
            Console.WriteLine($"The shop's day is set to {settings.Clock.Today():yyyy-MM-dd}.");
        if (settings.Demo)
            foreach (var line in DemoShop.WhoCanEnter())
                Console.WriteLine(line);
        Task warm = settings.Ahead ? Task.Run(() => WarmUp.RunAsync(app, app.Lifetime.ApplicationStopping), stop) : Task.CompletedTask;
        await app.WaitForShutdownAsync(stop);
        await warm.ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        return 0;
    }

    // Printed where only whoever starts it reads it.
    private static async Task SayFirstRunAsync(WebApplication app, RivetSettings settings, CancellationToken stop)
    {
        await using var db = RivetDb.Of(settings.Data);
        if (!await db.HasAccountAsync(stop))
            Console.WriteLine($"Nobody works here yet. The first account, at /first-run, takes the code "
                + $"{app.Services.GetRequiredService<FirstRunCode>().Code}");
    }

    private static string? WhyNotOn(int port)
    {
        using var listener = new TcpListener(IPAddress.Loopback, port);
        try
        {
            listener.Start();
            return null;
        }
        catch (SocketException problem)
        {
            return problem.SocketErrorCode == SocketError.AddressAlreadyInUse
                ? $"Something listens on port {port} already, perhaps Mellow Rivet itself: look at http://127.0.0.1:{port}"
                : $"Port {port} can't be listened on ({problem.Message}): ask who looks after this machine";
        }
    }

    // What is no number at all is refused by the parser itself.
    private static void Within(OptionResult result, int least, int most)
    {
        if (result.Tokens is [var token] && int.TryParse(token.Value, out var number) && (number < least || number > most))
            result.AddError($"{result.Option.Name} takes a number from {least} to {most}.");
    }

    // A shop's photos without its database are no new shop: its first visitor would be its admin.
    private static string? WhyNoShop(string folder) => FollowCommands.IsCopy(folder)
        ?? (!File.Exists(Path.Combine(folder, ShopFiles.Database)) && ShopFiles.HasAny(folder)
            ? $"{folder} has files of a shop and no database: half of one, perhaps. ./rivet restore FILE --data NEW makes a shop of a "
            + "backup; for a shop that is new, name an empty folder."
            : null);

    /// <summary>That there is no shop; null where there is one.</summary>
    internal static int? NoShop(string folder) =>
        FollowCommands.IsCopy(folder) is { } copy ? Fail(copy, 2)
        : File.Exists(Path.Combine(folder, ShopFiles.Database)) ? null
        : Fail($"There is no shop at {folder}.", 2);

    internal static readonly Acting AtTheCommandLine = new(() => new(null, "the command line", Environment.UserName), TimeProvider.System);

    // A copy leaves, whether the log takes its line or not: a full disk keeps nobody from their data.
    internal static async Task TellAsync(string folder, string about, CancellationToken stop, Deed deed = Deed.Exported)
    {
        try
        {
            await using var db = RivetDb.Of(new(folder), AtTheCommandLine);
            db.Tell(deed, about);
            await db.SaveChangesAsync(stop);
        }
        catch (Exception problem) when (problem is DbUpdateException or Microsoft.Data.Sqlite.SqliteException)
        {
            await Console.Error.WriteLineAsync($"rivet: the log doesn't tell of it ({problem.Message}).");
        }
    }

    internal static int Fail(string message, int code)
    {
        Console.Error.WriteLine($"rivet: {message.ReplaceLineEndings(" ")}");
        return code;
    }
}
