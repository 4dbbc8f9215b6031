using MellowRivet.Core.EngineLogs;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk.Engine.Logs;

/// <summary>Which column holds what, as it is sent: a word for each column.</summary>
public sealed class LogForm
{
    public Guid Post { get; set; }
    public string? File { get; set; }
    public string? Name { get; set; }
    public List<string> Holds { get; set; } = [];
    public bool Fahrenheit { get; set; }
    public bool Bar { get; set; }

    /// <summary>What a table's own titles say its columns hold.</summary>
    public static LogForm GuessedFrom(LogFile table)
    {
        var guess = table.Guess();
        return new() { Fahrenheit = guess.Fahrenheit, Bar = guess.Bar,
            Holds = [.. table.Titles.Select((_, column) => guess.Holds(column))] };
    }
}

/// <summary>The logs of an engine: one drawn, or one whose columns are being said.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Engine">The engine.</param>
/// <param name="Logs">Its logs, without their flights.</param>
/// <param name="Log">The log that is drawn; null for none.</param>
/// <param name="Flight">The flight of it that is drawn.</param>
/// <param name="FileSha">The file whose columns are being said; null for none.</param>
/// <param name="Name">What that file is called.</param>
/// <param name="Table">The same as a table; null where none is, or it can't be read.</param>
/// <param name="Form">What its columns hold, so far.</param>
public sealed record EngineLogsView(WalkShown Walk, Component Engine, IReadOnlyList<LogHeader> Logs, EngineLog? Log, LogFlight? Flight,
    string? FileSha, string? Name, LogFile? Table, LogForm Form) : EngineView(Walk, Engine)
{
    public string Self => $"/walk/{Id}/engine-logs/{EngineId}";
    public IReadOnlyList<FlightPanel> Panels => Flight is null ? [] : FlightPanel.Of(Flight);

    /// <summary>What a column can hold, as the form says it.</summary>
    public IEnumerable<(string Value, string Words)> Choices =>
    [
        ("", "nothing wanted"), ("time", "time"), ("Rpm", "rpm"), ("OilTemperature", "oil temperature"), ("OilPressure", "oil pressure"),
        ("FuelFlow", "fuel flow"),
        .. new[] { LogChannel.Egt, LogChannel.Cht }
            .SelectMany(channel => Engine.Layout.Cylinders.Select(place => ($"{channel} {place.Number}", channel.InWords(place.Number)))),
    ];
}

/// <summary>Engine-monitor logs: taken in with their columns said, drawn flight by flight, and passed on to the run sheet.</summary>
[EnableRateLimiting("uploads")]
public sealed class EngineLogsModel(Desk desk, RivetDb db, KeptFrames frames, WorkClock clock, LogFiles files)
    : EnginePage<EngineLogsView>(desk, db, frames, clock)
{
    [FromQuery(Name = "log")]
    public Guid? LogId { get; set; }

    [FromQuery(Name = "flight")]
    public int FlightNumber { get; set; } = 1;

    [FromQuery(Name = "file")]
    public string? FileSha { get; set; }

    [FromQuery]
    public string? Name { get; set; }

    private string Here => AddressOf("engine-logs");

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostUploadAsync(IFormFile? file, string? sample, CancellationToken stop)
    {
        if (file is null && !LogFiles.Samples.Contains(sample))
            return await AgainAsync(new("file", "Choose a file."), stop);
        var (sha, refusal) = await Uploads.ToDiskAsync("file", async () =>
        {
            await using var content = file?.OpenReadStream() ?? LogFiles.OpenSample(sample!);
            return await files.TakeInAsync(content, stop);
        });
        refusal ??= LogFile.Read(files.Read(sha)!).Refusal;
        return refusal is null
            ? Redirect($"{Here}?file={sha}&name={Uri.EscapeDataString(Path.GetFileName(file?.FileName ?? sample!))}")
            : await AgainAsync(refusal, stop);
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostTakeAsync(LogForm form, CancellationToken stop)
    {
        (FileSha, Name) = (form.File, form.Name);
        if (files.Read(form.File) is not { } bytes || LogFile.Read(bytes) is not { File: { } file })
            return await AgainAsync(new("file", "That file isn’t here any more. Send it again."), stop, form);
        var (columns, unsaid) = LogColumns.Read(form.Holds, form.Fahrenheit, form.Bar);
        var (flights, refusal) = unsaid is null ? EngineLog.Read(file, columns) : ([], unsaid);
        return refusal is not null ? await AgainAsync(refusal, stop, form)
            : await AfterAsync(OnEngineAsync(form.Post, (job, engine) =>
            {
                Db.Put(new EngineLog(form.Post, job.Aircraft.Id, engine.Id, EngineLog.NameOf(form.Name), form.File!, columns, flights, Me,
                    Clock.GetUtcNow()));
                return null;
            }, stop), $"{Here}?log={form.Post}", stop, form);
    }

    /// <summary>Puts what a flight came to on the run sheet, where nothing stands yet.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostFillAsync(Guid post, Guid log, int flight, string? when, CancellationToken stop)
    {
        (LogId, FlightNumber) = (log, flight);
        var summary = (await Db.LogAsync(log, stop))?.Flights.FirstOrDefault(one => one.Number == flight)?.Summary;
        return await AfterAsync(OnEngineAsync(post, (job, engine) => summary is null
            ? new("fill", "There is no such flight.")
            : job.Inspection.FillRun(job.Aircraft, engine, summary, when, Me, Clock.GetUtcNow()), stop),
            EngineId is null ? $"/walk/{Id}/engine" : AddressOf("engine-sheet/run"), stop);
    }

    protected override async Task<EngineLogsView?> ViewAsync(WalkShown walk, Component engine, Refused refused, CancellationToken stop)
    {
        var logs = await Db.LogsOfAsync(engine.Id, stop);
        if (FileSha is not null && files.Read(FileSha) is { } bytes)
        {
            var table = LogFile.Read(bytes).File;
            var form = refused.Form as LogForm ?? (table is null ? new() : LogForm.GuessedFrom(table));
            return new(walk, engine, logs, null, null, FileSha, Name, table, form);
        }
        var chosen = LogId is null && logs.Count > 0 ? logs[0] : logs.FirstOrDefault(row => row.Id == LogId);
        var log = chosen is null ? null : await Db.LogAsync(chosen.Id, stop);
        var flight = log?.Flights.FirstOrDefault(one => one.Number == FlightNumber) ?? log?.Flights[0];
        return new(walk, engine, logs, log, flight, FileSha, Name, null, new());
    }
}
