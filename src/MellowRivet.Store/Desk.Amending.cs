using MellowRivet.Core.Amendments;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What is put right, by whom and why.</summary>
/// <param name="Post">The post's id, which the amendment gets.</param>
/// <param name="Why">Why.</param>
/// <param name="By">Who, and when.</param>
/// <param name="Today">The day.</param>
public sealed record PuttingRight(Guid Post, string? Why, WhoSet By, DateOnly Today);

// What stood in a file wrong is struck with who, when and why, and what rested on it is reckoned anew: in one turn, wholly or not at all.
public sealed partial class Desk
{
    /// <summary>Puts a meter reading right, or strikes it, with all that rested on the hours it said.</summary>
    /// <param name="aircraftId">The aircraft.</param>
    /// <param name="readingId">The reading.</param>
    /// <param name="on">The day it was read.</param>
    /// <param name="shown">What the meter showed; null to strike it alone.</param>
    /// <param name="right">By whom and why.</param>
    /// <param name="stop">Stops waiting.</param>
    public Task<Written> PutMeterRightAsync(Guid aircraftId, Guid readingId, DateOnly? on, decimal? shown, PuttingRight right,
        CancellationToken stop) => WriteFileAsync(aircraftId, right.Post, async aircraft =>
    {
        if (Amendment.Check(right.Why) is { } wrong)
            return wrong;
        if (on > right.Today)
            return new("amendShown", "The day it was read, not one to come.");
        var was = aircraft.MeterReadings.FirstOrDefault(reading => reading.Id == readingId);
        var said = was is null ? "" : $"{was.Kind.Say(was.Shown)} on {was.On:yyyy-MM-dd}, by {was.Source}";
        var (now, refusal) = aircraft.PutRight(readingId, on, shown);
        if (refusal is not null || was is null)
            return refusal;
        db.MeterReadings.Remove(was);
        Amendment amendment = new(right.Post, aircraftId, AmendmentOf.Meter, readingId, was.Kind.InWords(), said,
            now is null ? null : $"{now.Kind.Say(now.Shown)} on {now.On:yyyy-MM-dd}", right.Why!, right.By);
        if (was.Kind == aircraft.TimeBasis && aircraft.MeterReadings.All(other => other.Kind != was.Kind || other.Total != was.Total))
            await ReckonAsync(aircraft, new(was.Total), new(now?.Total ?? Before(aircraft, was)), amendment, stop);
        db.Amendments.Add(amendment);
        return null;
    }, stop, meters: true);

    // Struck alone, what rested on it stands at the total of the reading before.
    private static decimal Before(Aircraft aircraft, MeterReading was) => aircraft.MeterReadings
        .Where(reading => reading.Kind == was.Kind && reading.On <= was.On).Select(reading => reading.Total)
        .DefaultIfEmpty(was.Total).Max();

    private async Task ReckonAsync(Aircraft aircraft, Hours was, Hours now, Amendment amendment, CancellationToken stop)
    {
        var readings = await db.Readings.Where(reading => reading.AircraftId == aircraft.Id && reading.TimeInService == was)
            .ToListAsync(stop);
        foreach (var reading in readings)
            reading.ReckonFrom(now);
        var inspections = await db.Inspections.Where(row => row.AircraftId == aircraft.Id && row.TimeInService == was).ToListAsync(stop);
        foreach (var inspection in inspections)
            inspection.ReckonFrom(now);
        var stays = aircraft.ReckonStays(was, now);
        var parts = aircraft.Installations.Select(stay => stay.ComponentId).Distinct().ToList();
        var done = 0;
        foreach (var item in await db.DueItems.Where(item => item.AircraftId == aircraft.Id || parts.Contains(item.ComponentId!.Value))
            .ToListAsync(stop))
            done += item.Reckon(was.Value, now.Value, aircraft.Id);
        var signed = inspections.Select(inspection => inspection.Id).ToList();
        amendment.With(string.Join(", ", new[]
        {
            Count(readings.Count, "reading"), Count(inspections.Count(inspection => inspection.InWork), "inspection in work"),
            Count(stays, "stay of a part", "stays of parts"), Count(done, "due item’s last time", "due items’ last times"),
        }.Where(words => words.Length > 0)), await db.SignedRecords.Where(record => signed.Contains(record.InspectionId))
            .Select(record => record.Id).ToListAsync(stop));
    }

    private static string Count(int count, string one, string? more = null) =>
        count == 0 ? "" : count == 1 ? $"1 {one}" : $"{count} {more ?? one + "s"}";

    /// <summary>Puts a measured value right that a signed inspection took, or the books brought.</summary>
    /// <param name="aircraftId">The aircraft it was taken on.</param>
    /// <param name="readingId">The reading.</param>
    /// <param name="typed">The value as typed, in its own unit or another.</param>
    /// <param name="right">By whom and why.</param>
    /// <param name="stop">Stops waiting.</param>
    public Task<Written> PutReadingRightAsync(Guid aircraftId, Guid readingId, string? typed, PuttingRight right, CancellationToken stop) =>
        WriteFileAsync(aircraftId, right.Post, async aircraft =>
        {
            if (await db.Readings.FirstOrDefaultAsync(row => row.Id == readingId && row.AircraftId == aircraftId, stop) is not { } reading)
                return new("amendValue", "That value is not on file any more.");
            if (Amendment.Check(right.Why) is { } wrong)
                return wrong;
            if (reading.InspectionId is { } inspection
                && await db.Inspections.AnyAsync(row => row.Id == inspection && row.State == InspectionState.InWork, stop))
                return new("amendValue", "Its inspection is in work: read it again on its own sheet.");
            var read = MeasureText.Read(typed, Unit.Find(reading.UnitSymbol)!);
            if (read.Value is not { } value || (value < 0 && !Unit.Find(reading.UnitSymbol)!.GoesBelowZero))
                return new("amendValue", read.Problem ?? $"The value that was read, in {reading.UnitSymbol}.");
            if (reading.Kind == Reading.CompressionKind && value > (reading.Conditions.SupplyPsi ?? 80))
                return new("amendValue", $"It can’t be above the supply of {reading.Conditions.SupplyPsi ?? 80:0.#} psi.");
            var signed = reading.InspectionId is { } at ? await LoadAsync(at, JobParts.Whole, tracking: true, stop, aircraft) : null;
            var before = signed?.Inspection.Unanswered(aircraft).Select(judged => judged.Seen).ToHashSet();
            var was = reading.InWords;
            reading.PutRight(value, right.By.At);
            Amendment amendment = new(right.Post, aircraftId, AmendmentOf.Reading, readingId,
                $"{reading.Kind.Replace('-', ' ')} {reading.Position} at {reading.TimeInService} h".Replace("  ", " "), was,
                reading.InWords, right.Why!, right.By);
            await EndOpenAsync(aircraftId, reading, right, stop);
            // Nothing was signed on what a survey read.
            var opened = signed is null or { Inspection.IsSurvey: true } || await IsReadSinceAsync(reading, stop) ? []
                : await OpenAsync(signed!.Inspection.Unanswered(aircraft).Where(judged => !before!.Contains(judged.Seen)),
                    signed.Inspection,
                    aircraft, readingId, right, stop);
            amendment.With(opened.Count == 0 ? "" : $"bad as it stands, open as {string.Join(", ", opened)}", await db.SignedRecords
                .Where(record => record.InspectionId == reading.InspectionId).Select(record => record.Id).ToListAsync(stop));
            db.Amendments.Add(amendment);
            return null;
        }, stop);

    // What was read there again at a later inspection was judged there.
    private Task<bool> IsReadSinceAsync(Reading reading, CancellationToken stop) => db.Readings.AnyAsync(later =>
        later.AircraftId == reading.AircraftId && later.ComponentId == reading.ComponentId && later.Kind == reading.Kind
        && later.Position == reading.Position && later.InspectionId != reading.InspectionId && later.At > reading.At, stop);

    // What was opened for the value as it stood before ends with it, on the list in work as well.
    private async Task EndOpenAsync(Guid aircraftId, Reading reading, PuttingRight right, CancellationToken stop)
    {
        var words = $"put right again: {reading.InWords}";
        foreach (var item in await db.OpenItems.Where(item => item.AircraftId == aircraftId && item.DiscrepancyId == reading.Id
            && item.End == null).ToListAsync(stop))
        {
            item.Close(new(words, right.Today, right.By.By, item.FirstNumber));
            foreach (var work in await db.Inspections.Include(row => row.Discrepancies.Where(found => found.CarriedFrom == item.Id))
                .Where(row => row.AircraftId == aircraftId && row.State == InspectionState.InWork).ToListAsync(stop))
                foreach (var found in work.Discrepancies.Where(found => found.IsOpen))
                    found.Move(Disposition.Withdrawn, words, work.Terms, right.By.By, right.By.At);
        }
    }

    // A judgement that came after the signature stays open on the aircraft, and stands on the fix list that is in work.
    private async Task<List<string>> OpenAsync(IEnumerable<Judged> judged, Inspection signed, Aircraft aircraft, Guid readingId,
        PuttingRight right, CancellationToken stop)
    {
        var stem = OpenItem.NumberSincePutRight(signed, null);
        var number = await db.OpenItems.CountAsync(item => item.AircraftId == aircraft.Id && item.FirstNumber.StartsWith(stem), stop);
        List<OpenItem> items = [.. judged.Where(one => !one.IsReplacedOn(aircraft))
            .Select(one => new OpenItem(signed, one, readingId, ++number, right.By, right.Today))];
        await LeaveOpenAsync(aircraft.Id, items, stop);
        return [.. items.Select(item => item.FirstNumber)];
    }

    // It stays open on the aircraft, and stands on the fix list that is in work.
    private async Task LeaveOpenAsync(Guid aircraftId, List<OpenItem> items, CancellationToken stop)
    {
        db.OpenItems.AddRange(items);
        foreach (var open in items.Count == 0 ? [] : await db.Inspections.Include(row => row.Tasks).Include(row => row.Discrepancies)
            .Where(row => row.AircraftId == aircraftId && row.State == InspectionState.InWork && row.Kind != InspectionKind.Job
                && row.Kind != InspectionKind.Survey)
            .ToListAsync(stop))
            open.CarryIn(items);
    }

    /// <summary>Puts a time that something was done right, or strikes it.</summary>
    /// <param name="aircraftId">The aircraft.</param>
    /// <param name="itemId">The due item.</param>
    /// <param name="index">Which time, from the earliest at 0.</param>
    /// <param name="now">What takes its place; null to strike it alone.</param>
    /// <param name="right">By whom and why.</param>
    /// <param name="stop">Stops waiting.</param>
    public Task<Written> PutDoneRightAsync(Guid aircraftId, Guid itemId, int index, LastDone? now, PuttingRight right,
        CancellationToken stop) => WriteFileAsync(aircraftId, right.Post, async aircraft =>
    {
        if (await db.DueOn(aircraftId).FirstOrDefaultAsync(row => row.Id == itemId, stop) is not { } item)
            return new("amendOn", "It is not on this aircraft’s due line any more.");
        if (Amendment.Check(right.Why) is { } wrong)
            return wrong;
        var (was, refusal) = item.PutRight(index, now, right.Today);
        if (was is null)
            return refusal;
        Amendment amendment = new(right.Post, aircraftId, AmendmentOf.Due, itemId, item.What, was.InWords, now?.InWords, right.Why!,
            right.By);
        amendment.With("", was.Reference.Length == 0 ? [] : await db.SignedRecords
            .Where(record => db.Inspections.Any(row => row.Id == record.InspectionId && row.AircraftId == aircraftId
                && row.WorkOrder == was.Reference)).Select(record => record.Id).ToListAsync(stop));
        db.Amendments.Add(amendment);
        return null;
    }, stop);

    /// <summary>Keeps what a part's plate or stay said before it was put right. Every record of the aircraft since rests on it.</summary>
    /// <param name="amendment">What was put right.</param>
    /// <param name="since">The day from which records rest on it; null for all.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task KeepAsync(Amendment amendment, DateOnly? since, CancellationToken stop)
    {
        var from = since?.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc) ?? DateTime.MinValue;
        var day = new DateTimeOffset(DateTime.SpecifyKind(from, DateTimeKind.Utc));
        amendment.With("", await db.SignedRecords.Where(record => record.AircraftId == amendment.AircraftId && record.SignedAt >= day)
            .Select(record => record.Id).ToListAsync(stop));
        db.Amendments.Add(amendment);
    }
}
