using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Store.Backups;
using MellowRivet.Store.Files;
using MellowRivet.Store.Following;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

/// <summary>A copy that follows is the shop as it was at one moment, whenever the shop goes.</summary>
public sealed class FollowerTests : IAsyncDisposable
{
    private readonly TestShop shop = new();
    private readonly string folder = Path.Combine(Path.GetTempPath(), $"rivet-follows-{Guid.NewGuid():N}");
    private readonly FollowedFolder followed;
    private readonly DataFolder copy;

    public FollowerTests()
    {
        copy = new(folder);
        followed = new(shop.Data, Path.Combine(folder, "following"), TestShop.Clock);
    }

    public async ValueTask DisposeAsync()
    {
        followed.Dispose();
        await shop.DisposeAsync();
        Directory.Delete(folder, recursive: true);
    }

    private async Task<string> FindAsync(Guid id, string what)
    {
        var photo = (await new PhotoFiles(shop.Data, TestShop.Clock).TakeInAsync(
            new MemoryStream([.. TestPictures.Jpeg(), .. Guid.NewGuid().ToByteArray()]), "a.jpg", default)).Photo!;
        await using var db = shop.Open();
        (await shop.Desk(db).WriteAsync(id, Guid.NewGuid(), job => job.Inspection.Find(Guid.NewGuid(), what, "gear", "",
            DiscrepancyClass.Watch, false, null, TestShop.Ines, TestShop.Now).Add(photo), default)).Refusal.ShouldBeNull();
        return photo.Sha256;
    }

    private async Task<IReadOnlyList<string>> CopiedAsync()
    {
        // Looked at as another program would: the copy itself is opened by nothing that could change it.
        var look = Directory.CreateTempSubdirectory("rivet-look-").FullName;
        try
        {
            File.Copy(copy.Database, Path.Combine(look, "rivet.db"));
            await using var db = RivetDb.Of(new(look));
            return await db.Discrepancies.AsNoTracking().OrderBy(found => found.Number).Select(found => found.What).ToListAsync();
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            Directory.Delete(look, recursive: true);
        }
    }

    [Fact]
    public async Task Each_round_takes_what_is_new_and_no_more()
    {
        var id = await shop.BeginAsync();
        var follower = new Follower(followed, copy);
        (await follower.RoundAsync(default)).Blocks.ShouldBeGreaterThan(0);
        (await follower.RoundAsync(default)).ShouldSatisfyAllConditions(round => round.Bytes.ShouldBe(0), round => round.Files.ShouldBe(0));

        var sha = await FindAsync(id, "First");
        var whole = (await followed.DatabaseAsync(null, default)).Blocks.Count;
        var second = await follower.RoundAsync(default);
        second.Blocks.ShouldBeInRange(1, whole - 1, "not the whole database");
        second.Files.ShouldBe(2, "the picture and its small copy");
        KeptFiles.Fault(copy, sha).ShouldBeNull();
        (await CopiedAsync()).ShouldBe(["First"]);

        // Another process goes on where this one was; what may go there goes here.
        await FindAsync(id, "Second");
        await File.WriteAllTextAsync(Path.Combine(shop.Data.Outbox, "a.eml"), "mail");
        var another = new Follower(followed, copy);
        await another.RoundAsync(default);
        File.Exists(Path.Combine(copy.Outbox, "a.eml")).ShouldBeTrue();
        File.Delete(Path.Combine(shop.Data.Outbox, "a.eml"));
        await FindAsync(id, "Third");
        await another.RoundAsync(default);
        File.Exists(Path.Combine(copy.Outbox, "a.eml")).ShouldBeFalse();
        (await CopiedAsync()).ShouldBe(["First", "Second", "Third"]);
    }

    // Killed between the two names of the database: neither round is lost.
    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task A_round_that_was_cut_short_leaves_a_shop(bool between)
    {
        var id = await shop.BeginAsync();
        await FindAsync(id, "First");
        await new Follower(followed, copy).RoundAsync(default);
        var before = Path.Combine(folder, "rivet.db.before");
        if (between)
            File.Move(copy.Database, before);
        else
            File.Copy(copy.Database, before);
        await File.WriteAllTextAsync(Path.Combine(folder, "rivet.db.spare"), "half of one");
        await FindAsync(id, "Second");
        await new Follower(followed, copy).RoundAsync(default);
        (await CopiedAsync()).ShouldBe(["First", "Second"]);
        File.Exists(before).ShouldBeFalse();
    }

    [Fact]
    public async Task What_came_wrong_does_not_take_the_copys_place()
    {
        var id = await shop.BeginAsync();
        await FindAsync(id, "First");
        await new Follower(followed, copy).RoundAsync(default);
        await FindAsync(id, "Second");
        using Spoiling spoiling = new(followed);
        await Should.ThrowAsync<InvalidDataException>(() => new Follower(spoiling, copy).RoundAsync(default));
        (await CopiedAsync()).ShouldBe(["First"]);
        spoiling.Spoils = false;
        await new Follower(spoiling, copy).RoundAsync(default);
        (await CopiedAsync()).ShouldBe(["First", "Second"]);
    }

    // The machine broke and came back as it was in the morning: what it lost since is in the copy alone.
    [Fact]
    public async Task A_shop_that_was_set_back_is_not_followed_back()
    {
        var id = await shop.BeginAsync();
        await FindAsync(id, "In the morning");
        var morning = Path.Combine(folder, "morning.db");
        ShopDatabase.Backup(shop.Data, morning);
        var follower = new Follower(followed, copy);
        await FindAsync(id, "At noon");
        await follower.RoundAsync(default);
        void Becomes(string database)
        {
            SqliteConnection.ClearAllPools();
            foreach (var log in new[] { "-wal", "-shm" })
                File.Delete(shop.Data.Database + log);
            File.Copy(database, shop.Data.Database + ".next");
            File.Move(shop.Data.Database + ".next", shop.Data.Database, overwrite: true);
        }
        var noon = Path.Combine(folder, "noon.db");
        ShopDatabase.Backup(shop.Data, noon);
        Becomes(morning);
        await FindAsync(id, "Afterwards");
        foreach (var one in new[] { follower, new Follower(followed, copy) })
            (await Should.ThrowAsync<InvalidDataException>(() => one.RoundAsync(default))).Message.ShouldContain("set back");
        (await CopiedAsync()).ShouldBe(["In the morning", "At noon"]);

        // Put right, it is followed on.
        Becomes(noon);
        await FindAsync(id, "Later");
        await follower.RoundAsync(default);
        (await CopiedAsync()).ShouldBe(["In the morning", "At noon", "Later"]);
    }

    [Fact]
    public async Task A_shop_that_is_another_one_or_gone_leaves_the_copy_and_its_files_as_they_were()
    {
        var id = await shop.BeginAsync();
        await FindAsync(id, "First");
        await File.WriteAllTextAsync(Path.Combine(shop.Data.Shelf, "own.json"), "the shop's own");
        await new Follower(followed, copy).RoundAsync(default);
        await using TestShop another = new();
        await another.BeginAsync();
        await File.WriteAllTextAsync(Path.Combine(another.Data.Shelf, "own.json"), "another's");
        using FollowedFolder wrong = new(another.Data, Path.Combine(folder, "another"), TestShop.Clock);
        await Should.ThrowAsync<InvalidDataException>(() => new Follower(wrong, copy).RoundAsync(default));
        (await File.ReadAllTextAsync(Path.Combine(copy.Shelf, "own.json"))).ShouldBe("the shop's own");

        SqliteConnection.ClearAllPools();
        File.Move(shop.Data.Database, shop.Data.Database + ".gone");
        (await Should.ThrowAsync<IOException>(() => new Follower(followed, copy).RoundAsync(default))).Message
            .ShouldContain("there is no shop");
        File.Move(shop.Data.Database + ".gone", shop.Data.Database);
        (await CopiedAsync()).ShouldBe(["First"]);
    }

    [Fact]
    public async Task A_picture_that_the_shops_disk_spoilt_keeps_nobody_from_a_copy()
    {
        var id = await shop.BeginAsync();
        var photos = new PhotoFiles(shop.Data, TestShop.Clock);
        var (first, second) = (await FindAsync(id, "First"), await FindAsync(id, "Second"));
        await new Follower(followed, copy).RoundAsync(default);
        var third = await FindAsync(id, "Third");
        var was = await File.ReadAllBytesAsync(photos.OriginalPath(third));
        foreach (var spoilt in new[] { first, third })
            await File.AppendAllTextAsync(photos.OriginalPath(spoilt), "x");
        File.Delete(photos.OriginalPath(second));
        var round = await new Follower(followed, copy).RoundAsync(default);
        round.Damaged.ShouldBe(new[] { first, third }.Select(sha => $"photos/{sha[..2]}/{sha}.original"), ignoreOrder: true);
        (await CopiedAsync()).ShouldBe(["First", "Second", "Third"]);
        KeptFiles.Fault(copy, first).ShouldBeNull("the copy has it as it was");
        KeptFiles.Fault(copy, second).ShouldBeNull();
        KeptFiles.Fault(copy, third)!.ShouldContain("is gone");

        await File.WriteAllBytesAsync(photos.OriginalPath(third), was);
        (await new Follower(followed, copy).RoundAsync(default)).Damaged.Count.ShouldBe(1);
        KeptFiles.Fault(copy, third).ShouldBeNull();
    }

    [Fact]
    public async Task The_shop_knows_how_far_its_copy_is()
    {
        await shop.BeginAsync();
        var follower = new Follower(followed, copy);
        await follower.RoundAsync(default);
        followed.CopyAsOf.ShouldBeNull("it asked, and hasn't said yet that it has it");
        await follower.RoundAsync(default);
        followed.CopyAsOf.ShouldBe(TestShop.Now);
        await followed.DatabaseAsync("something else", default);
        followed.CopyAsOf.ShouldBe(TestShop.Now);

        // A file that doesn't come while the database is the same, as onto a full disk: that copy says nothing of itself.
        using Spoiling line = new(followed) { Spoils = false };
        Follower another = new(line, copy);
        await another.RoundAsync(default);
        line.NoFiles = true;
        await Should.ThrowAsync<IOException>(() => another.RoundAsync(default));
        line.NoFiles = false;
        await another.RoundAsync(default);
        await another.RoundAsync(default);
        line.Told.Select(held => held is not null).ShouldBe([true, true, false, true]);
    }

    [Fact]
    public async Task A_copy_is_no_shop_until_it_takes_over_and_then_signs_on()
    {
        var id = await shop.BeginAsync();
        await FindAsync(id, "First");
        using (var mine = CopyState.Lock(folder))
        {
            new CopyState("the shop", null).Keep(folder);
            var round = await new Follower(followed, copy).RoundAsync(default);
            new CopyState("the shop", round.AsOf).Keep(folder);
            Should.Throw<IOException>(() => CopyState.TakeOver(folder)).Message.ShouldContain("follows into");
        }
        CopyState.In(folder)!.AsOf.ShouldBe(TestShop.Now);
        CopyState.TakeOver(folder);
        CopyState.In(folder).ShouldBeNull();
        await using var db = RivetDb.Of(copy);
        await ShopDatabase.BringUpToDateAsync(db, copy, TestShop.Clock, default);
        var desk = new Desk(db, TestShop.Clock, new WalkFeed(), shop.Board(db));
        (await desk.WriteAsync(id, Guid.NewGuid(), job =>
        {
            foreach (var task in job.Inspection.Tasks)
                task.Set(TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now);
            return null;
        }, default)).Refusal.ShouldBeNull();
        (await desk.SignAsync(id, Guid.NewGuid(), TestShop.Weighed, TestShop.Signer,
            await shop.ReadAsync(db, id), default)).Refusal.ShouldBeNull();
        (await ShopDatabase.VerifyAsync(db, copy, default)).Faults.ShouldBeEmpty();
    }

    [Fact]
    public void A_key_opens_the_shop_that_made_it_and_the_one_before_does_no_more()
    {
        var (first, second) = (Path.Combine(folder, "first.key"), Path.Combine(folder, "second.key"));
        FollowerKey.Opens(shop.Data, "").ShouldBeFalse();
        FollowerKey.Make(shop.Data, first);
        string Of(string file) => File.ReadAllText(file).Trim();
        FollowerKey.Opens(shop.Data, Of(first)).ShouldBeTrue();
        Should.Throw<IOException>(() => FollowerKey.Make(shop.Data, first));
        FollowerKey.Make(shop.Data, second);
        (FollowerKey.Opens(shop.Data, Of(first)), FollowerKey.Opens(shop.Data, Of(second))).ShouldBe((false, true));
        Directory.EnumerateFiles(shop.Data.Path, "*", SearchOption.AllDirectories).Where(file => !file.Contains("rivet.db"))
            .Select(File.ReadAllText).Where(text => text.Contains(Of(second))).ShouldBeEmpty("the shop keeps its hash alone");
    }

    [Fact]
    public void Only_runs_that_differ_are_asked_for()
    {
        DatabaseImage image = new(default, 0, "", ["a", "b", "c", "d", "e"]);
        image.Differing(["a", "x", "y", "d"], 64).ShouldBe([(1, 2), (4, 1)]);
        image.Differing([], 2).ShouldBe([(0, 2), (2, 2), (4, 1)]);
        image.Differing(image.Blocks, 64).ShouldBeEmpty();
    }

    /// <summary>A line that changes what goes over it.</summary>
    private sealed class Spoiling(IFollowed shop) : IFollowed
    {
        public bool Spoils { get; set; } = true;

        public bool NoFiles { get; set; }

        /// <summary>What the copy said that it had, each time it asked.</summary>
        public List<string?> Told { get; } = [];

        public Task<DatabaseImage> DatabaseAsync(string? held, CancellationToken stop)
        {
            Told.Add(held);
            return shop.DatabaseAsync(held, stop);
        }

        public async Task<byte[]?> BlocksAsync(string sha256, int from, int count, CancellationToken stop)
        {
            var blocks = await shop.BlocksAsync(sha256, from, count, stop);
            if (Spoils)
                blocks![^1] ^= 1;
            return blocks;
        }

        public Task<IReadOnlyList<ShopFile>> FilesAsync(CancellationToken stop) =>
            NoFiles ? throw new IOException() : shop.FilesAsync(stop);

        public Task<Stream?> OpenAsync(string path, CancellationToken stop) => shop.OpenAsync(path, stop);

        public void Dispose() { }
    }
}
