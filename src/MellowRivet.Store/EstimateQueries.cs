using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What pages load of hours that were booked, and what is learned from them.</summary>
public static class EstimateQueries
{
    /// <summary>Hours booked at an inspection, earliest first.</summary>
    public static async Task<IReadOnlyList<BookedTime>> BookedAtAsync(this RivetDb db, Guid inspectionId, CancellationToken stop) =>
        [.. (await db.BookedTimes.AsNoTracking().Where(row => row.InspectionId == inspectionId).ToListAsync(stop)).OrderBy(row =>
            row.From)];

    /// <summary>A person's clock that runs, within a write or to look at; null where none does.</summary>
    public static Task<BookedTime?> RunningAsync(this RivetDb db, Guid person, CancellationToken stop) =>
        db.BookedTimes.FirstOrDefaultAsync(row => row.By == person && row.Hours == null, stop);

    /// <summary>Hours that somebody booked, within a write; null where there are none of theirs.</summary>
    public static Task<BookedTime?> BookedAsync(this RivetDb db, Guid id, Guid by, CancellationToken stop) =>
        db.BookedTimes.FirstOrDefaultAsync(row => row.Id == id && row.By == by, stop);

    /// <summary>What is booked on a line was named another kind of job: so are its hours.</summary>
    public static async Task CallAsync(this RivetDb db, Guid inspectionId, string key, string kind, CancellationToken stop)
    {
        foreach (var row in await db.BookedTimes.Where(row => row.InspectionId == inspectionId && row.Key == key).ToListAsync(stop))
            row.Call(kind);
    }

    /// <summary>Kinds of jobs that hours were booked on, by name.</summary>
    public static async Task<IReadOnlyList<string>> JobKindsAsync(this RivetDb db, CancellationToken stop) =>
        [.. (await db.BookedTimes.AsNoTracking().Where(row => row.Kind != "").Select(row => row.Kind).Distinct().ToListAsync(stop))
            .Order(StringComparer.OrdinalIgnoreCase)];

    /// <summary>What jobs of one kind took: of signed inspections, and of lines that are done.</summary>
    public static async Task<Learned> TookAsync(this RivetDb db, string kind, TimeProvider clock, CancellationToken stop)
    {
        if (kind.Length == 0)
            return Learned.Nothing;
        var booked = await db.BookedTimes.AsNoTracking().Where(row => row.Kind == kind && row.Hours != null).ToListAsync(stop);
        var ids = booked.Select(row => row.InspectionId).Distinct().ToList();
        var inspections = await db.Inspections.AsNoTracking().Where(row => ids.Contains(row.Id)).Select(row => new
            {
                row.Id, row.WorkOrder, InWork = row.State == InspectionState.InWork,
                Priced = EF.Property<List<PricedWork>>(row, "pricedWork"),
            }).ToDictionaryAsync(row => row.Id, stop);
        // Hours on the inspection itself, or on a due item, are on no line of its list.
        var onLines = booked.Where(row => char.IsAsciiDigit(row.Key[0])).Select(row => row.InspectionId).Distinct().ToList();
        var lines = (await db.Discrepancies.AsNoTracking().Where(row => onLines.Contains(row.InspectionId))
            .Select(row => new { row.InspectionId, row.Number, row.Disposition, row.Estimate }).ToListAsync(stop))
            .ToDictionary(row => (row.InspectionId, Key: $"{row.Number:00}"));
        List<JobTook> jobs = [];
        foreach (var job in booked.GroupBy(row => (row.InspectionId, row.Key)))
        {
            var (inspection, line) = (inspections[job.Key.InspectionId], lines.GetValueOrDefault(job.Key));
            if (line?.Disposition == Disposition.Withdrawn || (inspection.InWork && line?.Disposition.IsSettled() != true))
                continue;
            var estimate = line is not null ? line.Estimate : inspection.Priced.Find(work =>
                work.Key == job.Key.Key)?.Estimate;
            jobs.Add(new(line is null ? inspection.WorkOrder : $"{inspection.WorkOrder}-{job.Key.Key}", job.Sum(row => row.Hours!.Value),
                estimate?.Hours?.Likely, clock.DayOf(job.Max(row => row.From))));
        }
        return new(kind, [.. jobs.OrderBy(job => job.On).ThenBy(job => job.Order, StringComparer.Ordinal)]);
    }

    /// <summary>What was found on other aircraft of a type at inspections that are signed, and on how many there were such.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="aircraft">The aircraft that they are sisters of.</param>
    /// <param name="zoneTitle">What a zone is called, for what was found in passing.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<(IReadOnlyList<SisterFind> Finds, int Inspected)> SisterFindsAsync(this RivetDb db, Aircraft aircraft,
        Func<string, string> zoneTitle, CancellationToken stop)
    {
        var signed = from inspection in db.Inspections.AsNoTracking()
                     join sister in db.Aircraft on inspection.AircraftId equals sister.Id
                     where sister.Type == aircraft.Type && sister.Id != aircraft.Id
                        && inspection.State != InspectionState.InWork && inspection.Kind != InspectionKind.Job
                        && inspection.Kind != InspectionKind.Survey
                     select inspection;
        var inspected = await signed.Select(inspection => inspection.AircraftId).Distinct().CountAsync(stop);
        if (inspected < TypeUsual.FewestAircraft)
            return ([], inspected);
        // Joined, and no list of ids: a large fleet has thousands of inspections of one type.
        var finds = await (from inspection in signed
                           join found in db.Discrepancies on inspection.Id equals found.InspectionId
                           join one in db.Set<InspectionTask>() on found.TaskId equals one.Id into tasks
                           from task in tasks.DefaultIfEmpty()
                           where found.Disposition != Disposition.Withdrawn && found.Class != DiscrepancyClass.KnownMark
                              && found.CarriedFrom == null
                           select new
                           {
                               inspection.AircraftId, inspection.TimeInService, found.TaskKey, found.ZoneKey, found.What, found.How,
                               Text = (string?)task.Text, Title = (string?)task.ZoneTitle,
                           }).ToListAsync(stop);
        return ([.. finds.Select(found => new SisterFind(found.AircraftId, found.TaskKey ?? found.ZoneKey,
            found.Text is null ? zoneTitle(found.ZoneKey) : $"{found.Title}: {found.Text}", found.What, found.How,
            found.TimeInService.Value))], inspected);
    }

    /// <summary>Days from taking in to the signature, of this kind of inspection on this type; shortest first.</summary>
    public static async Task<IReadOnlyList<int>> DaysInAsync(this RivetDb db, Inspection like, string type, TimeProvider clock,
        CancellationToken stop)
    {
        var rows = await (from inspection in db.Inspections.AsNoTracking()
                          join aircraft in db.Aircraft on inspection.AircraftId equals aircraft.Id
                          join record in db.SignedRecords on inspection.Id equals record.InspectionId
                          where aircraft.Type == type && inspection.Kind == like.Kind && inspection.Id != like.Id
                          select new { inspection.Id, inspection.OpenedOn, record.SignedAt }).ToListAsync(stop);
        return [.. rows.GroupBy(row => (row.Id, row.OpenedOn))
            .Select(row => clock.DayOf(row.Min(record => record.SignedAt)).DayNumber - row.Key.OpenedOn.DayNumber).Order()];
    }
}
