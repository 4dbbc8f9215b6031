using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineLogs;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Oil;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
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
}

/// <summary>Engine-monitor logs: taken in with their columns said, drawn flight by flight, and passed on to the run sheet.</summary>
[EnableRateLimiting("uploads")]
public sealed class EngineLogsModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock, LogFiles files)
    : EnginePage(desk, db, frames, clock)
{
    [FromQuery(Name = "log")]
    public Guid? LogId { get; set; }

    [FromQuery(Name = "flight")]
    public int FlightNumber { get; set; } = 1;

    [FromQuery(Name = "file")]
    public string? FileSha { get; set; }

    [FromQuery]
    public string? Name { get; set; }

    public IReadOnlyList<LogHeader> Logs { get; private set; } = [];
    public EngineLog? Log { get; private set; }
    public LogFlight? Flight { get; private set; }
    public IReadOnlyList<FlightPanel> Panels { get; private set; } = [];

    /// <summary>The file whose columns are being said; null where none is.</summary>
    public LogFile? Table { get; private set; }
    public LogForm Form { get; private set; } = new();
    public string Self => $"/walk/{Id}/engine-logs/{EngineId}";

    /// <summary>What a column can hold, as the form says it.</summary>
    public IEnumerable<(string Value, string Words)> Choices =>
    [
        ("", "nothing wanted"), ("time", "time"), ("Rpm", "rpm"), ("OilTemperature", "oil temperature"), ("OilPressure", "oil pressure"),
        ("FuelFlow", "fuel flow"),
        .. new[] { LogChannel.Egt, LogChannel.Cht }
            .SelectMany(channel => Engine.Layout.Cylinders.Select(place => ($"{channel} {place.Number}", channel.InWords(place.Number)))),
    ];

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostUploadAsync(IFormFile? file, string? sample, CancellationToken stop)
    {
        if (!await LoadEngineAsync(stop))
            return NotFound();
        if (file is null && !LogFiles.Samples.Contains(sample))
            return await AgainAsync(new("file", "Choose a file."), stop);
        try
        {
            await using var content = file?.OpenReadStream() ?? LogFiles.OpenSample(sample!);
            var (sha, refusal) = await files.TakeInAsync(content, stop);
            if (refusal is null && LogFile.Read(files.Read(sha)!).Refusal is { } unreadable)
                refusal = unreadable;
            return refusal is null ? Redirect($"{Self}?file={sha}&name={Uri.EscapeDataString(Path.GetFileName(file?.FileName ?? sample!))}")
                : await AgainAsync(refusal, stop);
        }
        catch (IOException)
        {
            return await AgainAsync(new("file", "The shop's disk didn't take the file: it may be full. Nothing was saved."), stop);
        }
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostTakeAsync(LogForm form, CancellationToken stop)
    {
        (FileSha, Name, Form) = (form.File, form.Name, form);
        if (files.Read(form.File) is not { } bytes || LogFile.Read(bytes) is not { File: { } file })
            return await AgainAsync(new("file", "That file isn’t here any more. Send it again."), stop);
        var (columns, unsaid) = ColumnsOf(form);
        var (flights, refusal) = unsaid is null ? EngineLog.Read(file, columns) : ([], unsaid);
        if (refusal is not null)
            return await AgainAsync(refusal, stop);
        var written = await WriteAsync(form.Post, (job, engine) =>
        {
            Db.Put(new EngineLog(form.Post, job.Aircraft.Id, engine.Id, (form.Name ?? "log").Trim() is { Length: > 0 } name
                ? name[..Math.Min(80, name.Length)]
                : "log", form.File!, columns, flights, User.PersonId(), Clock.GetUtcNow()));
            return null;
        }, stop);
        return written.Done ? Redirect($"{Self}?log={form.Post}") : await AgainAsync(written.Refusal!, stop);
    }

    /// <summary>Puts what a flight came to on the run sheet, where nothing stands yet.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostFillAsync(Guid post, Guid log, int flight, string? when, CancellationToken stop)
    {
        var summary = (await Db.LogAsync(log, stop))?.Flights.FirstOrDefault(one => one.Number == flight)?.Summary;
        var written = await WriteAsync(post, (job, engine) =>
        {
            if (summary is null || when is not ("before" or SheetValue.After))
                return new("fill", "There is no such flight.");
            var sheet = RunSheet.Of(engine);
            var work = SheetWork.Of(sheet, job.Aircraft, job.Inspection);
            foreach (var (kind, value) in new[]
                { ("static-rpm", summary.GreatestRpm), ("idle-rpm", summary.IdleRpm), ("oil-temperature", summary.OilTemperature),
                    ("oil-pressure", summary.OilPressure), ("cylinder-temperature", summary.GreatestCht) })
                if (value is { } read && work.Value(kind, when) is null)
                {
                    var of = sheet.Values.Single(one => one.Kind == kind && one.Position == when);
                    job.Inspection.Measure(Guid.CreateVersion7(), sheet, of, Math.Round(read, 1), of.Band.Unit, User.PersonId(),
                        Clock.GetUtcNow());
                }
            return null;
        }, stop);
        (LogId, FlightNumber) = (log, flight);
        return written.Done ? Redirect($"/walk/{Id}/engine-sheet/run/{EngineId}") : await AgainAsync(written.Refusal!, stop);
    }

    private static (LogColumns Columns, Refusal? Refusal) ColumnsOf(LogForm form)
    {
        var columns = new List<LogColumn>();
        var time = form.Holds.IndexOf("time");
        if (time < 0 || form.Holds.Count(held => held == "time") > 1)
            return (new(0, [], false, false), new("columns", "Say which one column is the time."));
        foreach (var (held, column) in form.Holds.Select((held, column) => (held, column)))
        {
            var words = (held ?? "").Split(' ');
            if (Enum.TryParse<LogChannel>(words[0], out var channel) && Enum.IsDefined(channel))
                columns.Add(new(channel, words.Length > 1 && int.TryParse(words[1], out var number) && number is >= 1 and <= 12
                    ? number
                    : null, column));
        }
        return (new(time, columns, form.Fahrenheit, form.Bar), null);
    }

    private async Task<IActionResult> AgainAsync(Refusal refusal, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        Refuse(refusal);
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadEngineAsync(stop))
            return false;
        Logs = await Db.LogsOfAsync(Engine.Id, stop);
        if (FileSha is not null && files.Read(FileSha) is { } bytes)
        {
            Table = LogFile.Read(bytes).File;
            if (Table is not null && Form.Holds.Count == 0)
            {
                var guess = Table.Guess();
                Form = new()
                {
                    Fahrenheit = guess.Fahrenheit,
                    Bar = guess.Bar,
                    Holds = [.. Table.Titles.Select((_, column) => column == guess.Time
                        ? "time"
                        : guess.Columns.FirstOrDefault(one => one.Column == column) is { } one ? one.Cylinder is { } number
                        ? $"{one.Channel} {number}"
                        : $"{one.Channel}" : "")],
                };
            }
            return true;
        }
        Log = (LogId is null ? (Logs.Count > 0 ? Logs[0] : null) : Logs.FirstOrDefault(row => row.Id == LogId)) is { } shown
            ? await Db.LogAsync(shown.Id, stop)
            : null;
        Flight = Log?.Flights.FirstOrDefault(flight => flight.Number == FlightNumber) ?? Log?.Flights[0];
        Panels = Flight is null ? [] : FlightPanel.Of(Flight);
        return true;
    }
}
