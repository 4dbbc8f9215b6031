using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Fleet;

public sealed partial class Aircraft
{
    /// <summary>The meter of a kind that is fitted now.</summary>
    public Meter? MeterOf(MeterKind kind) => meters.LastOrDefault(meter => meter.Kind == kind);

    /// <summary>The same as it is typed at the door: what is wrong stands beside the meter.</summary>
    public Refusal? ReadMeter(MeterKind kind, DateOnly on, string? shown, string source) =>
        TypedNumber.ParseHours(shown) is not { } value || !Enum.IsDefined(kind)
            ? new("meter", "What the meter shows, as a figure.")
            : ReadMeter(kind, on, value.Value, source) is { } wrong ? wrong with { Field = "meter" } : null;

    /// <summary>Notes what a meter showed. All readings must be loaded.</summary>
    /// <param name="kind">Which meter.</param>
    /// <param name="on">The day.</param>
    /// <param name="shown">What it showed: hours, or a whole count.</param>
    /// <param name="source">Who read it, or the file it came from.</param>
    /// <param name="replaced">How the meter before gave way to one that shows this; null for the meter on file.</param>
    /// <param name="total">For the first reading of a kind: the total then, where the meter shows another.</param>
    /// <returns>Why it can't be so, or null. The same reading a second time changes nothing.</returns>
    public Refusal? ReadMeter(MeterKind kind, DateOnly on, decimal shown, string source, MeterReplacement? replaced = null,
        decimal? total = null)
    {
        if (shown is < 0 or >= 1_000_000)
            return new("shown", "What a meter shows is zero or more, and below a million.");
        if (!kind.CountsHours() && shown != decimal.Truncate(shown))
            return new("shown", $"{char.ToUpperInvariant(kind.InWords()[0]) + kind.InWords()[1..]} come in whole numbers.");
        var ofKind = MeterReadings.Where(reading => reading.Kind == kind).ToList();
        if (replaced is null && ofKind.Any(reading => reading.On == on && reading.Shown == shown))
            return null;

        var meter = MeterFor(kind, on, shown, replaced, total);
        var now = shown + meter.Offset;
        if (replaced is { } change && MeterOf(kind) is { } old && ofKind.Count > 0)
        {
            var last = ofKind.MaxBy(reading => reading.Total)!;
            if (change.LastShown + old.Offset < last.Total)
                return new("lastShown", $"The old one showed {last.Shown:0.0##} on {last.On:yyyy-MM-dd} already.");
            if (change.FirstShown < 0 || change.FirstShown > shown)
                return new("firstShown", $"When it was fitted the new one can't have shown more than the {shown:0.0##} it shows now.");
        }
        var before = ofKind.Where(reading => reading.On <= on).MaxBy(reading => (reading.Total, reading.On));
        var after = ofKind.Where(reading => reading.On > on).MinBy(reading => reading.Total);
        if (before is not null && now < before.Total)
            return new(MeterFault.Backwards,
                $"The {kind.InWords()} showed {before.Shown:0.0##} on {before.On:yyyy-MM-dd} and can't show {shown:0.0##} after that: "
                + $"it runs backwards. Was the meter replaced?");
        if (after is not null && now > after.Total)
            return new(MeterFault.Backwards,
                $"The {kind.InWords()} showed {after.Shown:0.0##} on {after.On:yyyy-MM-dd}, after this day: {shown:0.0##} before it "
                + $"runs backwards. Check the day and the figure.");
        if (kind.CountsHours() && before is not null && now - before.Total > 24 * (on.DayNumber - before.On.DayNumber + 1))
            return new("shown",
                $"{now - before.Total:0.#} h since {before.On:yyyy-MM-dd} are more than those days hold. Check the day and the figure.");

        if (meters.All(other => other.Number != meter.Number))
            meters = [.. meters, meter];
        Loaded.List(meterReadings).Add(new(Id, meter, on, shown, source));
        if (kind == TimeBasis && (ReadOn is null || on >= ReadOn))
            (TimeInService, ReadOn) = (new(now), on);
        return null;
    }

    /// <summary>
    /// Puts a mistyped reading right: another day or figure takes its place, or it is struck alone. All readings must be loaded.
    /// </summary>
    /// <param name="readingId">The reading.</param>
    /// <param name="on">The day it was read; null to strike it alone.</param>
    /// <param name="shown">What the meter showed; null to strike it alone.</param>
    /// <returns>The reading that takes its place, null where none does; and why it can't be so, or null.</returns>
    public (MeterReading? Now, Refusal? Refusal) PutRight(Guid readingId, DateOnly? on, decimal? shown)
    {
        var all = Loaded.List(meterReadings);
        if (all.Find(reading => reading.Id == readingId) is not { } wrong)
            return (null, new("amendShown", "That reading is not on file any more."));
        var alone = all.TrueForAll(reading => reading == wrong || reading.Meter != wrong.Meter);
        if (shown is null && alone)
            return (null, new("amendShown", "It is the only reading of its meter: put the figure right instead."));
        all.Remove(wrong);
        Recount();
        MeterReading? now = null;
        if (shown is { } figure)
        {
            if (ReadMeter(wrong.Kind, on ?? wrong.On, figure, wrong.Source) is { } refusal)
            {
                all.Add(wrong);
                Recount();
                return (null, refusal with { Field = "amendShown" });
            }
            now = all.Find(reading => reading.Kind == wrong.Kind && reading.On == (on ?? wrong.On) && reading.Shown == figure);
        }
        return (now, null);
    }

    // The total is what the latest reading says, however many there were before it.
    private void Recount()
    {
        var latest = MeterReadings.Where(reading => reading.Kind == TimeBasis).MaxBy(reading => (reading.On, reading.Total));
        (TimeInService, ReadOn) = (new(latest?.Total ?? 0), latest?.On);
    }

    /// <summary>
    /// What rested on a reading that was put right stands at the hours there are now: stays that began or ended at what it said.
    /// </summary>
    /// <returns>How many stays.</returns>
    public int ReckonStays(Hours was, Hours now)
    {
        var resting = Installations.Where(stay => stay.InstalledAt == was || stay.RemovedAt == was).ToList();
        foreach (var stay in resting)
            stay.PutRight(stay.InstalledAt == was ? now : stay.InstalledAt, stay.OwnTimeThen, stay.RemovedAt == was ? now : stay.RemovedAt);
        return resting.Count;
    }

    /// <summary>Notes the meter that time in service goes by.</summary>
    /// <exception cref="ArgumentException">It can't be so, in words.</exception>
    public void ReadTime(DateOnly on, Hours shown, string source = "")
    {
        if (ReadMeter(TimeBasis, on, shown.Value, source) is { } refusal)
            throw new ArgumentException(refusal.Message, nameof(shown));
    }

    private Meter MeterFor(MeterKind kind, DateOnly on, decimal shown, MeterReplacement? replaced, decimal? total)
    {
        var ofKind = meters.Where(meter => meter.Kind == kind).ToList();
        var next = meters.Count + 1;
        if (ofKind.Count == 0)
            return new(next, kind, on, (total ?? shown) - shown);
        if (replaced is not null)
            return new(next, kind, on, replaced.LastShown + ofKind[^1].Offset - replaced.FirstShown);
        return MeterOn(kind, on)!;
    }

    /// <summary>The meter of a kind that was fitted on a day; the first, for a day before any.</summary>
    internal Meter? MeterOn(MeterKind kind, DateOnly on) =>
        meters.LastOrDefault(meter => meter.Kind == kind && meter.FittedOn <= on) ?? meters.FirstOrDefault(meter => meter.Kind == kind);

    /// <summary>Puts back meters and readings as a file has them, checked as a whole before.</summary>
    internal void Restore(List<Meter> from, IEnumerable<(int Meter, DateOnly On, decimal Shown, string Source)> readings)
    {
        meters = from;
        var byNumber = meters.ToDictionary(meter => meter.Number);
        Loaded.List(meterReadings)
            .AddRange(readings.Select(reading => new MeterReading(Id, byNumber[reading.Meter], reading.On, reading.Shown, reading.Source)));
        if (MeterReadings.Where(reading => reading.Kind == TimeBasis).MaxBy(reading => (reading.On, reading.Total)) is { } latest)
            (TimeInService, ReadOn) = (new(latest.Total), latest.On);
    }

    internal void Take(IReadOnlyList<PlannedReading> planned, string source)
    {
        meters = [.. meters, .. planned.Select(reading => reading.Meter).Distinct().Where(meter => meter.Number > meters.Count)
            .OrderBy(meter => meter.Number)];
        Loaded.List(meterReadings)
            .AddRange(planned.Select(reading => new MeterReading(Id, reading.Meter, reading.On, reading.Shown, source)));
        if (planned.Where(reading => reading.Meter.Kind == TimeBasis).MaxBy(reading => (reading.On, reading.Total)) is { } latest
            && (ReadOn is null || latest.On >= ReadOn))
            (TimeInService, ReadOn) = (new(latest.Total), latest.On);
    }
}

/// <summary>Names of what can be wrong with a meter reading, as fields of a form.</summary>
public static class MeterFault
{
    /// <summary>The reading runs backwards: the form asks whether the meter was replaced.</summary>
    public const string Backwards = "backwards";
}
