using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Records;
using MellowRivet.Core.Surveys;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>A survey in the list of them.</summary>
public sealed record SurveyRow(Guid Id, string WorkOrder, DateOnly OpenedOn, Survey Survey, Guid AircraftId, string Registration,
    string Type);

/// <summary>What is loaded of surveys.</summary>
public static class SurveyQueries
{
    /// <summary>Whether a walk is a survey's.</summary>
    public static Task<bool> IsSurveyAsync(this RivetDb db, Guid inspectionId, CancellationToken stop) =>
        db.Inspections.AnyAsync(row => row.Id == inspectionId && row.Kind == InspectionKind.Survey, stop);

    /// <summary>The survey of an aircraft that is under way; null where none is.</summary>
    public static Task<Inspection?> SurveyUnderWayAsync(this RivetDb db, Guid aircraftId, CancellationToken stop) =>
        db.Inspections.AsNoTracking().FirstOrDefaultAsync(row => row.AircraftId == aircraftId && row.State == InspectionState.InWork
            && row.Kind == InspectionKind.Survey, stop);

    /// <summary>How many surveys are under way.</summary>
    public static Task<int> SurveysUnderWayAsync(this RivetDb db, CancellationToken stop) =>
        db.Inspections.CountAsync(row => row.State == InspectionState.InWork && row.Kind == InspectionKind.Survey, stop);

    /// <summary>Every survey, latest first.</summary>
    public static async Task<IReadOnlyList<SurveyRow>> SurveysAsync(this RivetDb db, CancellationToken stop) =>
        [.. (await (from survey in db.Inspections.AsNoTracking()
                    join aircraft in db.Aircraft on survey.AircraftId equals aircraft.Id
                    where survey.Kind == InspectionKind.Survey
                    orderby survey.OpenedOn descending, survey.WorkOrder descending
                    select new { survey, aircraft.Registration, aircraft.Type }).ToListAsync(stop))
            .Select(row => new SurveyRow(row.survey.Id, row.survey.WorkOrder, row.survey.OpenedOn, row.survey.Survey!,
                row.survey.AircraftId, row.Registration, row.Type))];

    /// <summary>Every aircraft, one that was only surveyed as well, as one chooses among them to survey it again.</summary>
    public static async Task<IReadOnlyList<FleetRow>> EveryAircraftAsync(this RivetDb db, CancellationToken stop) =>
        await db.Aircraft.AsNoTracking().OrderBy(aircraft => aircraft.Registration)
            .Select(aircraft => new FleetRow(aircraft.Id, aircraft.Registration, aircraft.Type)).ToListAsync(stop);

    /// <summary>An aircraft's papers, as a survey reads them.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="aircraft">The aircraft.</param>
    /// <param name="due">What is due on it, with its bulletins.</param>
    /// <param name="rules">The words that tell of damage and of yearly inspections.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<PaperTrail> PapersAsync(this RivetDb db, Aircraft aircraft, DueLine due, SurveyRules rules,
        CancellationToken stop)
    {
        var (books, gaps) = await db.BooksAsync(aircraft, due.Now.Today, stop);
        var entries = await db.BookEntries.AsNoTracking().Where(entry => entry.AircraftId == aircraft.Id).ToListAsync(stop);
        var yearly = await (from record in db.SignedRecords.AsNoTracking()
                            join inspection in db.Inspections on record.InspectionId equals inspection.Id
                            where record.AircraftId == aircraft.Id && record.Book == Book.Airframe
                               && (inspection.Kind == InspectionKind.Annual || inspection.Kind == InspectionKind.Condition
                                   || inspection.Kind == InspectionKind.Permit)
                            select record).ToListAsync(stop);
        return PaperTrail.Of(aircraft, books, entries, gaps, yearly.Select(Line), due, rules);
    }

    private static PaperLine Line(SignedRecord record)
    {
        var text = record.Text();
        return new($"record-{record.Number}", DateOnly.ParseExact($"{text["date"]}", "yyyy-MM-dd",
            System.Globalization.CultureInfo.InvariantCulture), $"{text["timeInService"]}",
            $"{text["workOrder"]}, signed in this shop by {text["signedBy"]}, {text["certificate"]}");
    }
}
