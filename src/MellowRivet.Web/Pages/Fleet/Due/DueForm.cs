using MellowRivet.Core;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Web.Pages.Fleet.Due;

/// <summary>A due item as it is sent.</summary>
public sealed class DueForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();
    public Guid? Item { get; set; }
    public string? What { get; set; }
    public DueKind Kind { get; set; } = DueKind.Service;
    public Guid? On { get; set; }
    public string? EveryHours { get; set; }
    public string? EveryMonths { get; set; }
    public CalendarRule Calendar { get; set; }
    public string? GraceHours { get; set; }
    public string? FirstAtHours { get; set; }
    public string? EveryLandings { get; set; }
    public string? EveryCycles { get; set; }
    public DateOnly? NotAfter { get; set; }
    public Standing Standing { get; set; } = Standing.Manual;
    public string? Source { get; set; }
    public string? LabourHours { get; set; }

    public static DueForm Of(DueItem item) => new()
    {
        Item = item.Id,
        What = item.What,
        Kind = item.Kind,
        On = item.ComponentId,
        EveryHours = $"{item.Interval.EveryHours:0.##}",
        EveryMonths = $"{item.Interval.EveryMonths}",
        Calendar = item.Interval.Calendar,
        GraceHours = item.Interval.GraceHours > 0 ? $"{item.Interval.GraceHours:0.##}" : "",
        FirstAtHours = $"{item.Interval.FirstAtHours:0.##}",
        EveryLandings = $"{item.Interval.EveryLandings}",
        EveryCycles = $"{item.Interval.EveryCycles}",
        NotAfter = item.Interval.NotAfter,
        Standing = item.Source.Standing,
        Source = item.Source.Text,
        LabourHours = $"{item.LabourHours:0.##}",
    };

    /// <summary>A new item as the checked form says: on the aircraft, or on the part.</summary>
    public DueItem Make(Aircraft aircraft, Interval interval) =>
        new(Post, On is null ? aircraft.Id : null, On, What!.Trim(), Kind, interval, ToSource());

    /// <summary>Where the checked form says the interval comes from.</summary>
    public RuleSource ToSource() => new(Standing, Source!.Trim());

    /// <summary>The interval, or the first thing that is wrong with the form.</summary>
    public Refusal? Read(out Interval interval, out decimal? labour)
    {
        List<Refusal> wrong = [];
        decimal? Number(string field, string? typed, string message)
        {
            if (string.IsNullOrWhiteSpace(typed))
                return null;
            var value = TypedNumber.ParseHours(typed)?.Value;
            if (value is null)
                wrong.Add(new(field, message));
            return value;
        }
        int? Whole(string field, string? typed)
        {
            if (string.IsNullOrWhiteSpace(typed))
                return null;
            if (int.TryParse(typed.Trim(), out var value))
                return value;
            wrong.Add(new(field, "A whole number."));
            return null;
        }
        interval = new(Number("everyHours", EveryHours, "Hours, as 100 or 12.5."), Whole("everyMonths", EveryMonths), Calendar,
            Number("graceHours", GraceHours, "Hours, as 10.")
                ?? 0, Whole("everyLandings", EveryLandings), Whole("everyCycles", EveryCycles), NotAfter,
            Number("firstAtHours", FirstAtHours, "Hours, as 12000."));
        labour = Number("labourHours", LabourHours, "Hours, as 1.5.");
        if (!Enum.IsDefined(Kind) || !Enum.IsDefined(Standing) || !Enum.IsDefined(Calendar))
            wrong.Add(new("what", "Choose one of those offered."));
        return wrong.Concat(DueItem.Check(What, interval, Source)).FirstOrDefault();
    }
}

/// <summary>That something was done, as it is sent.</summary>
public sealed class DoneForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();
    public Guid Item { get; set; }
    public DateOnly? On { get; set; }
    public string? Hours { get; set; }
    public string? WasDue { get; set; }
    public string? Landings { get; set; }
    public string? Cycles { get; set; }
    public string? Reference { get; set; }

    /// <summary>What was done, or the first thing that is wrong with the form.</summary>
    public Refusal? Read(out LastDone done)
    {
        Refusal? wrong = null;
        decimal? Number(string field, string? typed)
        {
            if (string.IsNullOrWhiteSpace(typed))
                return null;
            var value = TypedNumber.ParseHours(typed)?.Value;
            if (value is null)
                wrong ??= new(field, "A number, as 4318.6; leave it empty where it isn’t known.");
            return value;
        }
        done = new(On, Number("hours", Hours), Number("wasDue", WasDue), Number("landings", Landings), Number("cycles", Cycles),
            Reference?.Trim() ?? "");
        if (done.Reference.Length > 80)
            wrong ??= new("reference", "Up to 80 characters.");
        return wrong;
    }
}
