using MellowRivet.Core.Due;

namespace MellowRivet.Web.Drawings;

/// <summary>A tick above the axis: when in words, and the hours expected by then.</summary>
public sealed record AxisTick(double X, string Date, string? Hours);

/// <summary>A limb on its strip: where it falls due, what it counts by, and how far that may move.</summary>
public sealed record LimbTick(double X, string Letter, bool Governs, double? From, double? To, string Title);

/// <summary>
/// The one axis under a due line: what is overdue at the left, the next thirteen months at one scale, the years after that
/// drawn together. Hours stand on it where the aircraft's own use puts them.
/// </summary>
public sealed class DueAxis(DueLine line)
{
    public const int Width = 440, Today = 44, Knee = 326, End = 432;
    private const int DaysToKnee = 396, DaysToEnd = 4_400;

    public IReadOnlyList<AxisTick> Ticks =>
        [.. new (int Months, string Words)[]
            { (0, "today"), (3, "3 mo"), (6, "6 mo"), (9, "9 mo"), (12, "1 year"), (24, "2"), (60, "5"), (120, "10 y") }
        .Select(tick => new AxisTick(X(line.Now.Today.AddMonths(tick.Months)), tick.Words,
            HoursBy(line.Now.Today.AddMonths(tick.Months), tick.Months)))];

    /// <summary>Where a day stands. A day long past or far to come stands at the edge.</summary>
    public double X(DateOnly day)
    {
        double days = day.DayNumber - line.Now.Today.DayNumber;
        var x = days switch
        {
            < 0 => Today - 36 * Math.Min(1, Math.Sqrt(-days / 365)),
            <= DaysToKnee => Today + (Knee - Today) * days / DaysToKnee,
            _ => Knee + (End - Knee) * Math.Min(1, Math.Log(days / DaysToKnee) / Math.Log((double)DaysToEnd / DaysToKnee)),
        };
        return Math.Round(x, 1);
    }

    /// <summary>The limbs of an item that can be placed.</summary>
    public IEnumerable<LimbTick> TicksOf(DueEntry entry) => entry.Status.Limbs.Where(limb => limb.Forecast is not null)
        .Select(limb => new LimbTick(
        X(limb.Forecast!.Value), limb.Kind switch { LimbKind.Hours => "h", LimbKind.Landings => "ldg", LimbKind.Cycles => "cyc", _ => "d" },
        limb == entry.Status.Governing, limb.Earliest is { } from ? X(from) : null, limb.Latest is { } to
            ? X(to)
            : null, $"by {limb.Kind.InWords()}: {DueSaid.Of(limb)}"));

    private string? HoursBy(DateOnly day, int months) =>
        months <= 24 && line.Now.Hours is { Total: { } total, Use: { PerDay: > 0 } use, On: { } on }
        ? $"{(double)total + use.PerDay * Math.Max(0, day.DayNumber - on.DayNumber):0} h"
        : null;
}

/// <summary>Due items in words.</summary>
public static class DueSaid
{
    /// <summary>Where an item is seen to: on the aircraft's due line, or with its bulletins.</summary>
    public static string Href(this DueEntry entry, Guid aircraftId, string more = "") =>
        entry.Bulletin is { } line
            ? $"/aircraft/{aircraftId}/bulletins?b={line.Key}"
            : $"/aircraft/{aircraftId}?item={entry.Item.Id}{more}";

    public static string Of(LimbStatus limb) => limb.Kind switch
    {
        LimbKind.Calendar => limb.DueOn is { } day ? $"by {day:yyyy-MM-dd}, {Days(limb.Remaining)}" : "no date known",
        LimbKind.Hours => limb.DueAt is { } hours
            ? $"at {hours:0.0} h{(limb.Remaining is { } left ? $", {Left(left, "0.0", "h")}" : "")}"
            : "hours not known",
        _ => limb.DueAt is { } count
            ? $"at {count:0} {limb.Kind.InWords()}{(limb.Remaining is { } more ? $", {Left(more, "0", limb.Kind.InWords())}" : "")}"
            : $"{limb.Kind.InWords()} not known",
    };

    /// <summary>"about 2027-03-02 (2027-01-20 to 2027-06-11)", or why there is no forecast.</summary>
    public static string Forecast(DueStatus status) => status.Governing is { Forecast: { } day } limb
        ? limb.Kind == LimbKind.Calendar ? $"{day:yyyy-MM-dd}" : limb.Earliest is { } from
        ? $"about {day:yyyy-MM-dd} ({from:yyyy-MM-dd} to {limb.Latest?.ToString("yyyy-MM-dd") ?? "never, at the slowest"})"
        : $"about {day:yyyy-MM-dd}"
        : "no forecast";

    private static string Days(decimal? remaining) => remaining switch
    {
        null => "",
        < 0 => $"{Spans.OfDays(-remaining.Value)} ago",
        0 => "today",
        1 => "tomorrow",
        _ => $"in {Spans.OfDays(remaining.Value)}",
    };

    private static string Left(decimal remaining, string format, string unit) =>
        remaining < 0 ? $"{(-remaining).ToString(format)} {unit} over" : $"{remaining.ToString(format)} {unit} left";
}
