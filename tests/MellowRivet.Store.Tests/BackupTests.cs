using System.IO.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Store.Backups;
using MellowRivet.Store.Files;
using MellowRivet.Store.Proof;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

/// <summary>A shop that was backed up is there again, whole; and nothing that is there is ever written over.</summary>
public sealed class BackupTests : IAsyncDisposable
{
    private readonly TestShop shop = new();
    private readonly string folder = Directory.CreateTempSubdirectory("rivet-backups-").FullName;

    private string File(string name) => Path.Combine(folder, name);

    public async ValueTask DisposeAsync()
    {
        await shop.DisposeAsync();
        Directory.Delete(folder, recursive: true);
    }

    // A signed inspection with a photo, a mail, a shelf file and a key of an earlier time.
    private async Task<string> FilledAsync()
    {
        var id = await shop.BeginAsync();
        var photos = new PhotoFiles(shop.Data, TestShop.Clock);
        var photo = (await photos.TakeInAsync(new MemoryStream(TestPictures.Jpeg()), "a.jpg", default)).Photo!;
        await using var db = shop.Open();
        (await shop.Desk(db).WriteAsync(id, Guid.NewGuid(), job =>
        {
            var found = job.Inspection.Find(Guid.NewGuid(), "Crack at the lug", "gear", "", DiscrepancyClass.Airworthiness,
                false, null, TestShop.Ines, TestShop.Now);
            foreach (var task in job.Inspection.Tasks)
                task.Set(TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now);
            return found.Add(photo);
        }, default)).Refusal.ShouldBeNull();
        (await shop.SignAsync(db, id)).Refusal.ShouldBeNull();
        using var mail = new OutgoingMail(shop.Data, TestShop.Clock).For(Guid.NewGuid());
        await mail.WriteAsync("owner@example.org", "Found", "…", default);
        mail.Send();
        Directory.CreateDirectory(Path.Combine(shop.Data.Shelf, "rule-packs"));
        await System.IO.File.WriteAllTextAsync(Path.Combine(shop.Data.Shelf, "rule-packs", "own.json"), "{}");
        await System.IO.File.WriteAllTextAsync(Path.Combine(shop.Data.Photos, "9.incoming"), "on its way");
        return photo.Sha256;
    }

    [Fact]
    public async Task A_restored_shop_is_the_one_that_was_backed_up()
    {
        var photo = await FilledAsync();
        var manifest = await ShopBackup.WriteAsync(shop.Data, File("shop.zip"), TestShop.Clock, default);
        manifest.Holds.ShouldBe(new(1, 1, 1, 0, 3, 0));
        manifest.Head.ShouldStartWith("3-");
        var restored = await Restoring.RestoreAsync(File("shop.zip"), File("again"), TestShop.Clock, default);
        restored.ShouldSatisfyAllConditions(there => there.Found.Faults.ShouldBeEmpty(), there => there.HasKey.ShouldBeTrue(),
            there => there.Holds.ShouldBe(manifest.Holds), there => $"{there.Found.Head}".ShouldBe(manifest.Head));

        DataFolder again = new(File("again"));
        static IEnumerable<(string, long)> Files(DataFolder data) => ShopFiles.Of(data).Select(file => (file.Path, file.Bytes));
        Files(again).ShouldBe(Files(shop.Data));
        foreach (var file in ShopFiles.Of(again))
            System.IO.File.ReadAllBytes(Path.Combine(again.Path, file.Path))
                .ShouldBe(System.IO.File.ReadAllBytes(Path.Combine(shop.Data.Path, file.Path)), file.Path);
        KeptFiles.Fault(again, photo).ShouldBeNull();
        await using var db = RivetDb.Of(again);
        // And it goes on: the next signature is the next of the same chain.
        (await db.HeadAsync(default)).Number.ShouldBe(3);
        (await db.KeyAsync(TestShop.Now, default)).ShouldNotBeNull().Dispose();
        Directory.EnumerateFileSystemEntries(folder).Select(Path.GetFileName).Order().ShouldBe(["again", "shop.zip"]);
    }

    [Fact]
    public async Task Nothing_that_is_there_is_written_over()
    {
        await FilledAsync();
        await System.IO.File.WriteAllTextAsync(File("other.db"), "another shop's");
        (await Should.ThrowAsync<IOException>(() => ShopBackup.WriteAsync(shop.Data, File("other.db"), TestShop.Clock, default)))
            .Message.ShouldContain("is there already");
        (await System.IO.File.ReadAllTextAsync(File("other.db"))).ShouldBe("another shop's");
        await Should.ThrowAsync<IOException>(() => ShopBackup.WriteAsync(shop.Data, shop.Data.Database, TestShop.Clock, default));
        (await Should.ThrowAsync<IOException>(() => ShopBackup.WriteAsync(shop.Data, Path.Combine(shop.Data.Photos, "shop.zip"),
            TestShop.Clock, default))).Message.ShouldContain("in the shop's own folder");

        await ShopBackup.WriteAsync(shop.Data, File("shop.zip"), TestShop.Clock, default);
        Directory.CreateDirectory(File("used"));
        await System.IO.File.WriteAllTextAsync(File("used/precious.txt"), "mine");
        (await Should.ThrowAsync<IOException>(() => Restoring.RestoreAsync(File("shop.zip"), File("used"), TestShop.Clock, default)))
            .Message.ShouldContain("is in use");
        Directory.EnumerateFileSystemEntries(File("used")).Count().ShouldBe(1);
    }

    // People go on writing: what was kept before the backup began is in it, and what is in it is whole.
    [Fact]
    public async Task A_backup_while_people_work_is_one_moment()
    {
        var id = await shop.BeginAsync();
        var (kept, ended) = (0, false);
        var writing = Task.Run(async () =>
        {
            for (; !Volatile.Read(ref ended); Interlocked.Increment(ref kept))
            {
                await using var db = shop.Open();
                (await shop.Desk(db).WriteAsync(id, Guid.NewGuid(), job =>
                {
                    job.Inspection.Find(Guid.NewGuid(), $"Found {kept}", "gear", "", DiscrepancyClass.Watch, false, null,
                        TestShop.Ines, TestShop.Now);
                    return null;
                }, default)).Refusal.ShouldBeNull();
            }
        });
        for (var copy = 0; copy < 3; copy++)
        {
            while (Volatile.Read(ref kept) < 3 * (copy + 1))
                await Task.Delay(10);
            var before = Volatile.Read(ref kept);
            var manifest = await ShopBackup.WriteAsync(shop.Data, File($"{copy}.zip"), TestShop.Clock, default);
            var after = Volatile.Read(ref kept);
            manifest.Holds!.Discrepancies.ShouldBeInRange(before, after + 1);
            (await Restoring.RestoreAsync(File($"{copy}.zip"), File($"{copy}"), TestShop.Clock, default)).Holds.ShouldBe(manifest.Holds);
        }
        Volatile.Write(ref ended, true);
        await writing;
    }

    [Theory]
    [InlineData("cut", "cut short")]
    [InlineData("changed", "damaged")]
    [InlineData("gone", "doesn't hold what it says")]
    [InlineData("added", "doesn't hold what it says")]
    [InlineData("outside", "no path that a shop has")]
    [InlineData("later", "later release")]
    [InlineData("none", "no backup of a shop")]
    public async Task A_backup_that_is_not_whole_makes_no_shop(string how, string why)
    {
        await FilledAsync();
        var file = File("shop.zip");
        await ShopBackup.WriteAsync(shop.Data, file, TestShop.Clock, default);
        Spoil(file, how);
        (await Should.ThrowAsync<InvalidDataException>(() => Restoring.RestoreAsync(file, File("again"), TestShop.Clock, default)))
            .Message.ShouldContain(why);
        Directory.EnumerateFileSystemEntries(folder).ShouldBe([file], "nothing is left of it");
    }

    private static void Spoil(string file, string how)
    {
        if (how == "cut")
        {
            using var cut = new FileStream(file, FileMode.Open);
            cut.SetLength(cut.Length - 40);
            return;
        }
        using var zip = ZipFile.Open(file, ZipArchiveMode.Update);
        var photo = zip.Entries.First(entry => entry.FullName.EndsWith(".original", StringComparison.Ordinal));
        switch (how)
        {
            case "changed":
                using (var content = photo.Open())
                    content.WriteByte(0);
                break;
            case "gone":
                photo.Delete();
                break;
            case "added":
                zip.CreateEntry("photos/more");
                break;
            case "none":
                zip.GetEntry(BackupManifest.Name)!.Delete();
                break;
            default:
                Rewrite(zip, text => how == "later" ? text.Replace("\"version\": 1", "\"version\": 2")
                    : text.Replace(photo.FullName, "photos/../../out"));
                break;
        }
    }

    private static void Rewrite(ZipArchive zip, Func<string, string> change)
    {
        var entry = zip.GetEntry(BackupManifest.Name)!;
        string text;
        using (var reader = new StreamReader(entry.Open()))
            text = change(reader.ReadToEnd());
        entry.Delete();
        using var writer = new StreamWriter(zip.CreateEntry(BackupManifest.Name).Open());
        writer.Write(text);
    }

    [Theory]
    [InlineData("photos/ab/abc.original", true)]
    [InlineData("keys/shop-key.pem", true)]
    [InlineData("rivet.db", true)]
    [InlineData("photos/../rivet.db", false)]
    [InlineData("/etc/passwd", false)]
    [InlineData("keys/..", false)]
    [InlineData("photos\\x", false)]
    [InlineData("backups/other.zip", false)]
    [InlineData("follows.json", false)]
    public void Only_paths_of_a_shop_are_written(string path, bool is_one) => ShopFiles.IsPath(path).ShouldBe(is_one);

    [Fact]
    public async Task The_daily_folder_keeps_the_last_ones_and_leaves_what_is_not_the_shops()
    {
        await FilledAsync();
        await using var db = shop.Open();
        var daily = await BackupFolder.OfAsync(folder, db, default);
        foreach (var day in new[] { 3, 1, 2 })
            await System.IO.File.WriteAllTextAsync(daily.Next(new(2026, 11, day, 2, 0, 5)), "");
        string[] others = ["rivet-0000abcd-20261101-020005.zip", "shop.zip", Path.GetFileName(daily.Next(default)).Replace("0001", "x")];
        foreach (var other in others)
            await System.IO.File.WriteAllTextAsync(File(other), "");
        daily.KeepOnly(2, []);
        daily.All().Select(one => one.At.Day).ShouldBe([3, 2]);
        others.ShouldAllBe(other => System.IO.File.Exists(File(other)));
    }

    // A disk that spoils a picture spoils it in every backup from then on.
    [Fact]
    public async Task What_the_disk_lost_is_told_and_the_backup_that_has_it_stays()
    {
        var original = new PhotoFiles(shop.Data, TestShop.Clock).OriginalPath(await FilledAsync());
        var path = Path.GetRelativePath(shop.Data.Path, original);
        var unnamed = await new PhotoFiles(shop.Data, TestShop.Clock).TakeInAsync(new MemoryStream([.. TestPictures.Jpeg(), 1]), "b.jpg",
            default);
        await using var db = shop.Open();
        var daily = await BackupFolder.OfAsync(folder, db, default);
        async Task<IReadOnlyList<LostFile>> BackUpAsync(int day)
        {
            var file = daily.Next(new(2026, 11, day, 2, 0, 5));
            var manifest = await ShopBackup.WriteAsync(shop.Data, file, TestShop.Clock, default);
            var last = await LastBackup.KeepAsync(shop.Data, db, manifest, file, daily.All().Select(one => one.File), default);
            daily.KeepOnly(1, last.Lost!);
            return LastBackup.Of(shop.Data)!.Lost!;
        }
        (await BackUpAsync(1)).ShouldBeEmpty();
        var first = daily.All()[0].File;
        var was = await System.IO.File.ReadAllBytesAsync(original);
        // Nobody names it: swept away, it is not lost.
        System.IO.File.Delete(new PhotoFiles(shop.Data, TestShop.Clock).OriginalPath(unnamed.Photo!.Sha256));
        await System.IO.File.WriteAllBytesAsync(original, [.. was, 0]);
        (await BackUpAsync(2)).ShouldBe([new(path, first)]);
        System.IO.File.Delete(original);
        (await BackUpAsync(3)).ShouldBe([new(path, first)]);
        daily.All().Select(one => one.At.Day).ShouldBe([3, 1], "the one that has it stays");
        using (var zip = ZipFile.OpenRead(first))
            zip.GetEntry(path)!.ExtractToFile(original);
        (await BackUpAsync(4)).ShouldBeEmpty();
        daily.All().Select(one => one.At.Day).ShouldBe([4]);
    }

    [Fact]
    public async Task The_folder_and_what_is_in_it_is_the_shops_alone()
    {
        await FilledAsync();
        await ShopBackup.WriteAsync(shop.Data, File("shop.zip"), TestShop.Clock, default);
        UnixFileMode Mode(string path) => System.IO.File.GetUnixFileMode(path);
        void IsOwn(string root)
        {
            foreach (var inner in new DirectoryInfo(root).EnumerateFileSystemInfos("*", SearchOption.AllDirectories))
                (inner.UnixFileMode & (UnixFileMode)0b000_111_111).ShouldBe(UnixFileMode.None, inner.FullName);
            Mode(root).ShouldBe((UnixFileMode)0b111_000_000);
        }
        IsOwn(shop.Data.Path);
        Mode(File("shop.zip")).ShouldBe((UnixFileMode)0b110_000_000);

        // As a folder that came from another machine may be.
        System.IO.File.SetUnixFileMode(shop.Data.Path, (UnixFileMode)0b111_101_101);
        System.IO.File.SetUnixFileMode(shop.Data.Database, (UnixFileMode)0b110_110_100);
        System.IO.File.SetUnixFileMode(shop.Data.Photos, (UnixFileMode)0b111_111_111);
        Disk.TakeFromOthers(shop.Data.Path);
        IsOwn(shop.Data.Path);
    }

    [Fact]
    public async Task What_nobody_names_is_swept_once_it_is_old_and_what_a_row_names_stays()
    {
        var named = await FilledAsync();
        var photos = new PhotoFiles(shop.Data, TestShop.Clock);
        async Task<string> TakeAsync(int tail) => (await photos.TakeInAsync(new MemoryStream([.. TestPictures.Jpeg(), (byte)tail]), "x.jpg",
            default)).Photo!.Sha256;
        var (old, fresh) = (await TakeAsync(1), await TakeAsync(2));
        photos.PathOf(old, PhotoSize.Large).ShouldNotBeNull();
        var now = TestShop.Now;
        foreach (var file in new DirectoryInfo(shop.Data.Photos).EnumerateFiles("*", SearchOption.AllDirectories))
            file.LastWriteTimeUtc = (now - Sweeping.Kept).UtcDateTime.AddMinutes(
                file.Name.StartsWith(fresh, StringComparison.Ordinal) ? 1 : -1);
        await using var db = shop.Open();
        (await Sweeping.SweepAsync(db, shop.Data, now, default)).Files.ShouldBe(4, "original, thumb, large, and the one on its way");
        foreach (var (sha, stays) in new[] { (named, true), (fresh, true), (old, false) })
            System.IO.File.Exists(photos.OriginalPath(sha)).ShouldBe(stays);
        Directory.EnumerateFiles(shop.Data.Photos, "*.incoming").ShouldBeEmpty();
        (await Sweeping.SweepAsync(db, shop.Data, now, default)).ShouldBe(new Swept(0, 0));
    }

    // As on a full disk, or by a kill between the file and its row: the key that is in force is the one before.
    [Fact]
    public async Task A_key_that_never_came_into_force_keeps_nobody_from_signing()
    {
        await FilledAsync();
        await using var db = shop.Open();
        var file = ShopKeys.FileOf(db);
        System.IO.File.Move(file, Path.Combine(shop.Data.Keys, "shop-key-1.pem"));
        (await db.HasKeyAsync(TestShop.Now, default)).ShouldBeTrue();
        using var another = Core.Records.ShopKey.Make();
        await System.IO.File.WriteAllTextAsync(file, another.ToPem());
        (await db.HasKeyAsync(TestShop.Now, default)).ShouldBeTrue();
        System.IO.File.Delete(Path.Combine(shop.Data.Keys, "shop-key-1.pem"));
        (await db.HasKeyAsync(TestShop.Now, default)).ShouldBeFalse();
    }
}
