using System.Collections.Concurrent;
using System.Threading.Channels;
using MellowRivet.Core.Passports;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Store.Passports;
using MellowRivet.Web.Handover;

namespace MellowRivet.Web.Hosting;

/// <summary>How far an errand is.</summary>
public enum ErrandState { Waits = 1, Runs, Done, Failed }

/// <summary>A passport that is made, checked or taken in beside the requests.</summary>
/// <param name="Id">The post's id; for one that is made, the aircraft's.</param>
/// <param name="File">Where it lies.</param>
/// <param name="By">Who asked for it.</param>
public sealed record PassportErrand(Guid Id, string File, Actor By) : IProgress<PassportProgress>
{
    private PassportProgress? progress;

    public ErrandState State { get; internal set; } = ErrandState.Waits;

    /// <summary>How far it is; null before it begins.</summary>
    public PassportProgress? Progress => Volatile.Read(ref progress);

    /// <summary>What went wrong, in words for whoever asked; null for nothing.</summary>
    public string? Fault { get; internal set; }

    /// <summary>What it says of itself, once it is made or read.</summary>
    public PassportManifest? Manifest { get; internal set; }

    /// <summary>What a person should know of its records, once it is read.</summary>
    public IReadOnlyList<string> Notes { get; internal set; } = [];

    /// <summary>One that came: the aircraft is in the shop.</summary>
    public bool IsTakenIn { get; internal set; }

    public bool IsUnderWay => State is ErrandState.Waits or ErrandState.Runs;

    public void Report(PassportProgress value) => Volatile.Write(ref progress, value);
}

/// <summary>
/// Makes, checks and takes in passports one after the other, since each may be gigabytes: pages ask how far it is. What it wrote on the
/// way is gone with the next start.
/// </summary>
public sealed class PassportErrands(DataFolder data, TimeProvider clock, ILogger<PassportErrands> log)
    : BackgroundService
{
    private readonly ConcurrentDictionary<Guid, PassportErrand> errands = [];
    private readonly Channel<(PassportErrand Errand, Func<RivetDb, PassportErrand, CancellationToken, Task> Do)> waiting =
        Channel.CreateUnbounded<(PassportErrand, Func<RivetDb, PassportErrand, CancellationToken, Task>)>();

    /// <summary>An errand; null where there is none, or it was swept away.</summary>
    public PassportErrand? Of(Guid id) => errands.GetValueOrDefault(id);

    /// <summary>Makes an aircraft's passport; one that is being made already is waited for.</summary>
    public void Make(Guid aircraftId, Actor by)
    {
        if (Of(aircraftId) is { IsUnderWay: true })
            return;
        Begin(new(aircraftId, Path.Combine(data.Passports, $"{aircraftId:N}.zip"), by), async (db, errand, stop) =>
        {
            File.Delete(errand.File);
            errand.Manifest = await PassportFiles.WriteAsync(db, data, clock, aircraftId, errand.File,
                errand, stop);
        });
    }

    /// <summary>Keeps a passport that somebody sent, and checks it.</summary>
    public async Task CheckAsync(Guid post, Stream content, Actor by, CancellationToken stop)
    {
        if (Of(post) is not null)
            return;
        var file = Path.Combine(data.Passports, $"{post:N}.zip");
        await using (var to = File.Create(file))
            await content.CopyToAsync(to, stop);
        Begin(new(post, file, by), async (_, errand, ending) =>
        {
            await using var read = await PassportReader.ReadAsync(errand.File, data.Passports, clock, errand, ending);
            await using var rows = read.OpenRows();
            var bulletins = await rows.CountBulletinsAsync(ending);
            (errand.Manifest, errand.Notes) = (read.Manifest, bulletins == 0 ? read.Found.Notes
                : [.. read.Found.Notes, $"bulletins that go into this shop’s library, where it hasn’t got them: {bulletins}"]);
        });
    }

    /// <summary>Takes one in that was checked: it is checked again, since whoever has the folder may have changed it meanwhile.</summary>
    public void TakeIn(Guid post, Actor by)
    {
        if (Of(post) is not { IsUnderWay: false, IsTakenIn: false, Manifest: not null } checkedOne)
            return;
        Begin(new(post, checkedOne.File, by) { Manifest = checkedOne.Manifest, Notes = checkedOne.Notes }, async (db, errand, stop) =>
        {
            await using var read = await PassportReader.ReadAsync(errand.File, data.Passports, clock, errand, stop);
            var written = await new PassportTaking(db, data, clock).TakeInAsync(read, errand.File, post, by.Id ?? Guid.Empty, errand, stop);
            if (written.Refusal is { } refusal)
                throw new BadPassportException(refusal.Message.Replace(" Nothing was taken in.", "").TrimEnd('.'));
            errand.IsTakenIn = true;
            File.Delete(errand.File);
        });
    }

    private void Begin(PassportErrand errand, Func<RivetDb, PassportErrand, CancellationToken, Task> work)
    {
        errands[errand.Id] = errand;
        waiting.Writer.TryWrite((errand, work));
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        Sweep();
        await foreach (var (errand, work) in waiting.Reader.ReadAllAsync(stoppingToken))
            await RunAsync(errand, work, stoppingToken);
    }

    private async Task RunAsync(PassportErrand errand, Func<RivetDb, PassportErrand, CancellationToken, Task> work,
        CancellationToken stop)
    {
        errand.State = ErrandState.Runs;
        try
        {
            await using var db = RivetDb.Of(data, new(() => errand.By, clock));
            await work(db, errand, stop);
            errand.State = ErrandState.Done;
        }
        catch (OperationCanceledException) when (stop.IsCancellationRequested)
        {
            throw;
        }
#pragma warning disable CA1031 // Whatever went wrong: whoever asked is told on the page, and the next errand goes on.
        catch (Exception problem)
#pragma warning restore CA1031
        {
            errand.Fault = problem switch
            {
                BadPassportException or NoPassportException => problem.Message,
                _ when Disk.IsFull(problem) =>
                    "There is no room on the disk. Nothing was changed, and nothing was lost: make room, and try again.",
                IOException => "The disk can’t be read or written. Nothing was changed; whoever looks after this machine finds the reason "
                    + "in its log.",
                _ => "It couldn’t be done. Nothing was changed; whoever looks after this machine finds the reason in its log.",
            };
            if (problem is not (BadPassportException or NoPassportException))
                log.LogWarning(problem, "An errand with a passport failed.");
            File.Delete(errand.File);
            errand.State = ErrandState.Failed;
        }
    }

    // What a start before this one left on the way.
    private void Sweep()
    {
        foreach (var left in Directory.EnumerateFileSystemEntries(data.Passports).ToList())
            if (Directory.Exists(left))
                Directory.Delete(left, recursive: true);
            else
                File.Delete(left);
    }
}
