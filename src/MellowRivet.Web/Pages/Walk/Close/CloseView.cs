using MellowRivet.Core.Inspections;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Pages.Walk.Engine;

namespace MellowRivet.Web.Pages.Walk.Close;

/// <summary>A zone with who did it and who looked, and the look itself in one touch.</summary>
/// <param name="On">The page it stands on.</param>
/// <param name="Zone">The zone.</param>
/// <param name="From">Where one comes back to: "zone" or "close".</param>
public sealed record ZoneLookView(WalkView On, ZoneState Zone, string From);

/// <summary>An answer to something that stands before the signature, as it is sent.</summary>
/// <param name="Key">What it is about.</param>
/// <param name="Reason">The reason, or a title.</param>
/// <param name="Reference">The reference, or a revision.</param>
public sealed record AnsweredForm(string? Key, string? Reason, string? Reference);

/// <summary>What stands between the aircraft and its signature.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Answer">By which certificate whoever looks may sign, or why they may not.</param>
/// <param name="Readiness">What stands before the signature.</param>
/// <param name="Entries">The entries as they will stand; none once it is signed, or where the rules have no statement.</param>
/// <param name="Read">Which entries these are, so that no others are signed; null for whoever may not sign.</param>
public sealed record CloseView(WalkShown Walk, SigningAnswer Answer, Readiness Readiness, IReadOnlyList<LogbookEntry> Entries, string? Read)
    : SigningView(Walk, Answer)
{
    public override Station At => Station.Close;

    /// <summary>What was typed in the form that wasn't taken.</summary>
    public AnsweredForm Sent => Typed<AnsweredForm>() ?? new(null, null, null);

    private string Here => $"/walk/{Id}";

    /// <summary>Where something judged is read or looked at again.</summary>
    public string HrefOf(Judged judged) => judged.Where switch
    {
        { Sheet: { } sheet } where => $"{Here}/engine-sheet/{sheet.ToString().ToLowerInvariant()}/{where.Carrier}",
        { Hole: { } hole } where => $"{Here}/plugs/{where.EngineId}?hole={hole}",
        { Cylinder: { } cylinder } where => $"{Here}/compressions/{where.EngineId}?cylinder={cylinder}",
        { TaskId: { } task } => Job.Inspection.Tasks.FirstOrDefault(one => one.Id == task) is { } on
            ? $"{Here}/{Seam.Place(on.Station)}/{on.ZoneKey}?task={task}"
            : Here,
        _ => $"{Here}/look",
    };

    /// <summary>Where what is asked for is filled in.</summary>
    public string HrefOf(Ask ask) => EngineNavView.HrefOf(Job.Inspection, ask.Asked, ask.EngineId, ask.Carrier);

    /// <summary>What the signature says, on its button.</summary>
    public string SignsAs => Readiness.Unairworthy.Count > 0 ? "Sign as unairworthy, with the list"
        : Job.Inspection.JobOf is null ? "Sign as airworthy" : "Sign the entry";

    /// <summary>A job at which nothing was recorded yet.</summary>
    public bool MayGiveUp => MayRecord && Job.Inspection is { JobOf: not null } job && job.CheckGiveUp() is null;

    /// <summary>Where one reads what a sentence of an entry rests on.</summary>
    public string HrefOf(RestsOn on) => on.Kind switch
    {
        RestsOnKind.Task when Job.Inspection.Tasks.FirstOrDefault(one => one.Id == on.Id) is { } task =>
            $"{Here}/{Seam.Place(task.Station)}/{task.ZoneKey}?task={task.Id}",
        RestsOnKind.FixList => $"{Here}/fix-list/{on.Key}",
        RestsOnKind.Compressions => $"{Here}/compressions/{on.Id}",
        RestsOnKind.Plugs => $"{Here}/plugs/{on.Id}",
        RestsOnKind.Sheet => $"{Here}/engine-sheet/{on.Key}/{on.Id}",
        RestsOnKind.Bulletins => $"{Here}/bulletins/{on.Key}",
        RestsOnKind.Parts => $"/aircraft/{Job.Inspection.AircraftId}/parts",
        RestsOnKind.Due => $"/aircraft/{Job.Inspection.AircraftId}",
        RestsOnKind.Close => $"{Here}/close#{on.Key}",
        _ => Here,
    };

    /// <summary>The line that a person added, where a sentence is one.</summary>
    public AddedLine? AddedLine(EntrySentence sentence) => sentence.Fact.Kind != FactKind.Added ? null
        : Job.Inspection.AddedLines.FirstOrDefault(line => sentence.Fact.Key == $"added/{line.Id:N}");

    public ZoneLookView LookOf(ZoneState zone) => new(this, zone, "close");
}
