using System.Collections.Concurrent;
using System.Security.Cryptography;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Demo;
using Microsoft.EntityFrameworkCore;
using SkiaSharp;

namespace MellowRivet.Web.Hosting.Reliability;

/// <summary>What a post is about.</summary>
public enum PostKind { Word = 1, Photo, Verdict, Reading, Compression, Signature }

/// <summary>A post on its way: what it is, where it goes, and how to see in the shop that it was carried out.</summary>
/// <param name="Id">The id its form carries.</param>
/// <param name="Kind">What it is about.</param>
/// <param name="Path">Where it goes.</param>
/// <param name="Fields">Its fields but the id and the form's token.</param>
/// <param name="Photo">The picture that goes along; null for none.</param>
/// <param name="IsThere">Whether all of it is in the shop.</param>
internal sealed record Sent(Guid Id, PostKind Kind, string Path, IReadOnlyList<(string Name, string Value)> Fields, byte[]? Photo,
    Func<RivetDb, DataFolder, CancellationToken, Task<bool>> IsThere)
{
    /// <summary>What it is read at, where the next one there takes its place; null where it stays.</summary>
    public string? Place { get; init; }

    /// <summary>Somebody was told that it is kept.</summary>
    public bool Acknowledged { get; set; }
}

/// <summary>Makes posts on the demo as people make them: on an inspection in work, and preventive maintenance that a pilot signs.</summary>
internal sealed class Posts
{
    private readonly Guid work, pilots;
    private readonly IReadOnlyList<(Guid Id, string Zone)> tasks;
    private readonly Component engine;
    private readonly int cylinders;
    private readonly ConcurrentDictionary<Guid, int> seen = [];
    private readonly ConcurrentDictionary<int, Guid> tries = [];
    private int number;

    private Posts(Guid work, Guid pilots, IReadOnlyList<(Guid Id, string Zone)> tasks, Component engine, int cylinders) =>
        (this.work, this.pilots, this.tasks, this.engine, this.cylinders) = (work, pilots, tasks, engine, cylinders);

    /// <summary>Who sends a kind: a signature is the pilot's, on their own aircraft.</summary>
    public static string By(PostKind kind) => kind == PostKind.Signature ? "perpetua" : "ines";

    public static async Task<Posts> OfAsync(DataFolder data, CancellationToken stop)
    {
        await using var db = RivetDb.Of(data);
        var work = await db.Inspections.AsNoTracking().Include(row => row.Tasks).Include(row => row.CompressionTests)
            .Where(row => row.State == InspectionState.InWork && row.CompressionTests.Count > 0 && row.Survey == null)
            .OrderBy(row => row.WorkOrder).FirstAsync(stop);
        var aircraft = await db.AircraftAsync(work.AircraftId, stop);
        var pilots = await db.Aircraft.AsNoTracking().Where(row => row.Registration == "N0FLD").Select(row => row.Id).SingleAsync(stop);
        var engine = aircraft!.Engines.First(one => work.CompressionTests.Any(test => test.EngineId == one.ComponentId)).Component;
        return new(work.Id, pilots, [.. work.Tasks.Where(task => task is { Measure: null, IsCompression: false, TiedTo: null,
            Station: Core.Worksheets.Station.Airframe }).Select(task => (task.Id, task.ZoneKey)).Take(24)], engine,
            engine.Layout!.Cylinders.Count);
    }

    /// <summary>How often each task was answered until now: whoever looks anew after a start sees it.</summary>
    public async Task LookAsync(RivetDb db, CancellationToken stop)
    {
        foreach (var task in await db.Inspections.AsNoTracking().Where(row => row.Id == work).SelectMany(row => row.Tasks)
            .Select(row => new { row.Id, row.Changes }).ToListAsync(stop))
            seen[task.Id] = task.Changes;
    }

    /// <summary>The next post.</summary>
    /// <param name="kinds">What is posted in this life of the server.</param>
    /// <param name="sender">Which of the senders asks: each has tasks and places of its own.</param>
    /// <param name="senders">How many there are.</param>
    /// <param name="chance">Where the choice comes from.</param>
    public Sent Next(IReadOnlyList<PostKind> kinds, int sender, int senders, Random chance)
    {
        var kind = kinds[chance.Next(kinds.Count)];
        var (id, about) = (Guid.CreateVersion7(), $"Kept {Interlocked.Increment(ref number)} of {Guid.NewGuid():N}");
        return kind switch
        {
            PostKind.Word => Found(id, about, null),
            PostKind.Photo => Found(id, about, Picture(chance)),
            PostKind.Verdict => Verdict(id, sender, senders, chance),
            PostKind.Reading => Reading(id, sender),
            PostKind.Compression => Compression(id, sender),
            _ => Signature(id, about),
        };
    }

    private Sent Found(Guid id, string about, byte[]? photo)
    {
        var sha = photo is null ? null : Convert.ToHexStringLower(SHA256.HashData(photo));
        return new(id, photo is null ? PostKind.Word : PostKind.Photo, $"/walk/{work}/find",
            [("what", about), ("zone", tasks[0].Zone), ("class", "Watch")], photo, async (db, data, stop) =>
            await db.Discrepancies.AsNoTracking().Where(row => row.Id == id).ToListAsync(stop) is [{ } found] && found.What == about
            && (sha is null || (found.Photos is [{ } kept] && kept.Sha256 == sha && KeptFiles.Fault(data, sha) is null)));
    }

    // An answer that came to a task makes its version go up by one; each task has one sender, who waits for the answer.
    private Sent Verdict(Guid id, int sender, int senders, Random chance)
    {
        var mine = tasks.Where((_, place) => place % senders == sender).ToList();
        var (task, zone) = mine[chance.Next(mine.Count)];
        var before = seen[task];
        var good = chance.Next(2) == 0;
        return new(id, PostKind.Verdict, $"/walk/{work}/airframe/{zone}?handler=Verdict",
            [("task", $"{task}"), ("seen", $"{before}"), ("verdict", good ? "Good" : "NotYet")], null, async (db, _, stop) =>
            await db.Inspections.AsNoTracking().Where(row => row.Id == work).SelectMany(row => row.Tasks).Where(row => row.Id == task)
                .Select(row => row.Changes).SingleAsync(stop) > before);
    }

    /// <summary>A verdict was taken.</summary>
    public void Answered(Sent post)
    {
        if (post.Kind == PostKind.Verdict)
            seen.AddOrUpdate(Guid.Parse(post.Fields[0].Value), 0, (_, before) => before + 1);
    }

    // Read anew at the same place each time: what counts is the number that was read last.
    private Sent Reading(Guid id, int sender)
    {
        var places = RunSheet.Of(engine).Values.Where(one => one.Danger is null && one.Position == "before").ToList();
        var (place, value) = (places[sender % places.Count], 500 + Interlocked.Increment(ref number) % 5_000 / 10.0);
        return new(id, PostKind.Reading, $"/walk/{work}/engine-sheet/run/{engine.Id}?handler=Value",
            [("of", place.Kind), ("position", place.Position), ("reading", $"{Guid.CreateVersion7()}"), ("value", Plain(value)),
                ("unit", place.Band.Unit.Symbol)],
            null, async (db, _, stop) => await db.Readings.AsNoTracking().Where(row => row.InspectionId == work
                && row.ComponentId == engine.Id && row.Kind == place.Kind && row.Position == place.Position).Select(row => row.Value)
                .ToListAsync(stop) is [var kept] && Math.Abs(kept - value) < 1e-6) { Place = $"{place.Kind} {sender}" };
    }

    private Sent Compression(Guid id, int sender)
    {
        var reading = tries.GetOrAdd(sender, _ => Guid.CreateVersion7());
        var value = 60 + Interlocked.Increment(ref number) % 190 / 10.0;
        return new(id, PostKind.Compression, $"/walk/{work}/compressions/{engine.Id}?handler=Reading",
            [("reading", $"{reading}"), ("cylinder", $"{1 + sender % cylinders}"), ("value", Plain(value))], null,
            async (db, _, stop) => await db.Readings.AsNoTracking().Where(row => row.Id == reading).Select(row => row.Value)
                .ToListAsync(stop) is [var kept] && Math.Abs(kept - value) < 1e-6) { Place = $"compression {sender}" };
    }

    private static string Plain(double value) => value.ToString("0.0", System.Globalization.CultureInfo.InvariantCulture);

    private Sent Signature(Guid id, string about) => new(id, PostKind.Signature, $"/aircraft/{pilots}/job?handler=Preventive",
        [("zone", "airframe"), ("reference", "type manual 33-40"), ("password", DemoShop.Password), ("title", "Landing light bulb"),
            ("action", $"Landing light bulb replaced. {about}")], null, async (db, _, stop) =>
        await db.SignedRecords.AsNoTracking().CountAsync(row => row.Json.Contains(about), stop) == 1
        && await db.Inspections.AsNoTracking().Where(row => row.Id == id).Select(row => row.State).SingleOrDefaultAsync(stop)
        is InspectionState.SignedAirworthy or InspectionState.SignedUnairworthy);

    private static byte[] Picture(Random chance)
    {
        using var picture = new SKBitmap(320, 240);
        picture.Erase(new SKColor((uint)chance.NextInt64(uint.MaxValue) | 0xFF000000));
        using var encoded = picture.Encode(SKEncodedImageFormat.Jpeg, 90);
        // Some bytes behind the picture's end make it another file.
        return [.. encoded.ToArray(), .. Guid.NewGuid().ToByteArray()];
    }
}
