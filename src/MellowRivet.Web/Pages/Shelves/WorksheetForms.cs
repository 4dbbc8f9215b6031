using System.Globalization;
using MellowRivet.Core;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
namespace MellowRivet.Web.Pages.Shelves;

/// <summary>A task of a worksheet as it is sent.</summary>
public sealed class TaskForm
{
    public string? Key { get; set; }
    public string? Zone { get; set; }
    public string? Text { get; set; }
    public string? Reference { get; set; }
    public TaskKind Kind { get; set; } = TaskKind.Inspect;
    public string? With { get; set; }
    public string? At { get; set; }
    public List<Need> Needs { get; set; } = [];
    public bool SecondPerson { get; set; }
    public string? Caution { get; set; }
    public AppliesTo AppliesTo { get; set; } = AppliesTo.Every;
    public string? Same { get; set; }

    /// <summary>Paragraphs of the scope, separated by commas.</summary>
    public string? Covers { get; set; }
    public Asked? Asks { get; set; }
    public bool Compression { get; set; }
    public string? Measure { get; set; }
    public string? Unit { get; set; }
    public string? Low { get; set; }
    public string? High { get; set; }
    public Standing Standing { get; set; } = Standing.Manual;
    public string? Source { get; set; }
    public MeasureMethod Method { get; set; } = MeasureMethod.Plain;

    /// <summary>How a survey samples it; empty at an inspection.</summary>
    public string? Sample { get; set; }
    public string? Minutes { get; set; }
    public string? CannotShow { get; set; }
    public string? Cost { get; set; }
    public string? Likelihood { get; set; }
    public PaperTopic? Paper { get; set; }

    public static TaskForm Of(string zone, WorksheetTask task) => new()
    {
        Key = task.Key,
        Zone = zone,
        Text = task.Text,
        Reference = task.Reference,
        Kind = task.Kind,
        With = task.With,
        At = string.Join(", ", task.At ?? []),
        Needs = [.. task.Needs ?? []],
        SecondPerson = task.SecondPerson,
        Caution = task.Caution,
        AppliesTo = task.AppliesTo,
        Same = task.Same,
        Covers = string.Join(", ", task.Covers ?? []),
        Asks = task.Asks,
        Compression = task.Compression,
        Measure = task.Measure?.Kind,
        Unit = task.Measure?.Unit,
        Low = task.Measure?.Low?.ToString("0.####", CultureInfo.InvariantCulture),
        High = task.Measure?.High?.ToString("0.####", CultureInfo.InvariantCulture),
        Standing = task.Measure?.Standing ?? Standing.Manual,
        Source = task.Measure?.Source,
        Method = task.Measure?.Method ?? MeasureMethod.Plain,
        Sample = task.Sampling?.How,
        Minutes = task.Sampling?.Minutes.ToString(CultureInfo.InvariantCulture),
        CannotShow = task.Sampling?.CannotShow,
        Cost = task.Sampling?.Cost,
        Likelihood = task.Sampling?.Likelihood.ToString("0.###", CultureInfo.InvariantCulture),
        Paper = task.Sampling?.Paper,
    };

    // What can't be read is out of range, which says what it takes.
    private Sampling? Sampled => string.IsNullOrWhiteSpace(Sample) ? null
        : new(Sample.Trim(), (int)Math.Clamp(TypedNumber.Parse(Minutes) ?? (string.IsNullOrWhiteSpace(Minutes) ? 0 : -1), -1,
            Sampling.LongestLook + 1), CannotShow?.Trim() ?? "", Cost?.Trim() ?? "",
            (decimal)Math.Clamp(TypedNumber.Parse(Likelihood) ?? (string.IsNullOrWhiteSpace(Likelihood) ? 0 : -1), -1, 2), Paper);

    /// <summary>The task, or what can't be read of it.</summary>
    public (WorksheetTask? Task, Refusal? Refusal) Read(Worksheet sheet)
    {
        List<TaskInterval> at = [];
        foreach (var part in (At ?? "").Split([',', ';'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            if (TaskInterval.Parse(part) is not { } interval)
                return (null, new("at",
                    $"“{part}” is no interval. Write 25 h, annual, 2 years, 6 months or first 25 h, with commas between."));
            at.Add(interval);
        }
        WorksheetMeasure? measure = null;
        if (!string.IsNullOrWhiteSpace(Measure))
        {
            if (Core.Measures.Unit.Find(Unit) is not { } of)
                return (null, new("limits", $"“{Unit}” is no unit."));
            var (low, high) = (MeasureText.Value(Low, of), MeasureText.Value(High, of));
            if ((low is null && !string.IsNullOrWhiteSpace(Low)) || (high is null && !string.IsNullOrWhiteSpace(High)))
                return (null, new("limits", "Limits are numbers; leave one empty where there is none."));
            var source = string.IsNullOrWhiteSpace(Source) ? low is null && high is null
                ? "the aircraft's manual; no limit on file yet"
                : "" : Source.Trim();
            if (source.Length == 0)
                return (null, new("limits", "Say where the limits come from."));
            measure = new(Worksheet.KeyFor(Measure), Unit ?? "", low, high, Standing, source, Method);
        }
        var key = string.IsNullOrWhiteSpace(Key) ? FreeKey(sheet) : Key.Trim();
        return (new(key, Text?.Trim() ?? "", Reference?.Trim()
            ?? "", Words(Caution), measure, Compression, AppliesTo, Kind, Words(With), at.Count > 0 ? at : null, Needs.Count > 0
            ? Needs
            : null, SecondPerson, Words(Same),
            Words(Covers)?.Split([',', ';'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries), Asks,
            Sampled), null);
    }

    // From its first words, with a number where that is taken.
    private string FreeKey(Worksheet sheet)
    {
        var stem = Worksheet.KeyFor(string.Join(' ', (Text ?? "task").Split(' ').Take(4)));
        stem = stem.Length is 0 ? "task" : stem.Length > 36 ? stem[..36] : stem;
        var taken = sheet.Tasks.Select(task => task.Key).ToHashSet();
        return Enumerable.Range(1, int.MaxValue).Select(number => number == 1 ? stem : $"{stem}-{number}")
            .First(key => !taken.Contains(key));
    }

    private static string? Words(string? text) => string.IsNullOrWhiteSpace(text) ? null : text.Trim();
}

/// <summary>A zone of a worksheet as it is sent.</summary>
public sealed class ZoneForm
{
    public string? Key { get; set; }
    public string? Title { get; set; }
    public Station Station { get; set; } = Station.Airframe;
    public Book Book { get; set; }
    public string? Hours { get; set; }
    public bool Looks { get; set; }
    public bool PerEngine { get; set; }

    public static ZoneForm Of(WorksheetZone zone) => new()
    {
        Key = zone.Key,
        Title = zone.Title,
        Station = zone.Station,
        Book = zone.Book,
        Hours = zone.Hours?.ToString("0.##", CultureInfo.InvariantCulture),
        Looks = zone.Looks,
        PerEngine = zone.PerEngine,
    };

    /// <summary>A worksheet with the zone in it; or what can't be read of it.</summary>
    public (Worksheet? Worksheet, Refusal? Refusal) PutIn(Worksheet sheet)
    {
        var hours = MeasureText.Value(Hours, Core.Measures.Unit.Hour);
        if (hours is null && !string.IsNullOrWhiteSpace(Hours))
            return (null, new("zone", "Hours are a number, or nothing."));
        var key = string.IsNullOrWhiteSpace(Key) ? Worksheet.KeyFor(Title ?? "") : Key;
        if (string.IsNullOrWhiteSpace(Key) && sheet.Zones.Any(zone => zone.Key == key))
            return (null, new("zone", $"There is a zone “{key}” already."));
        var first = new WorksheetTask($"{key}-first"[..Math.Min(40, key.Length + 6)], "The first task: write over it",
            "where it is asked for");
        return sheet.Put(new WorksheetZone(key, Title?.Trim() ?? "", Station, Book, [first], (decimal?)hours, Looks, PerEngine));
    }
}

/// <summary>A worksheet's name and what it is ticked for, as it is sent.</summary>
public sealed class OfferForm
{
    public string? Title { get; set; }
    public string? Basis { get; set; }
    public bool Ticked { get; set; }
    public List<Core.Fleet.Category> Categories { get; set; } = [];
    public List<AppliesTo> Builds { get; set; } = [];
    public List<Core.Inspections.InspectionKind> Inspections { get; set; } = [];

    public static OfferForm Of(Worksheet sheet) => new()
    {
        Title = sheet.Title,
        Basis = sheet.Basis,
        Ticked = sheet.Suits is not null,
        Categories = [.. sheet.Suits?.Categories ?? []],
        Builds = [.. sheet.Suits?.Builds ?? []],
        Inspections = [.. sheet.Suits?.Inspections ?? []],
    };

    /// <summary>A worksheet called and ticked so; or why it can't be.</summary>
    public (Worksheet? Worksheet, Refusal? Refusal) PutOn(Worksheet sheet)
    {
        var offered = sheet with
        {
            Title = Title?.Trim() ?? "",
            Basis = Basis?.Trim() ?? "",
            Suits = Ticked ? new([.. Categories], [.. Builds], [.. Inspections]) : null,
        };
        return offered.Fault() is { } fault ? (null, new("offer", fault)) : (offered, null);
    }
}
