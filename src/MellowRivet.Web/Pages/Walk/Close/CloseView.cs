using MellowRivet.Core.Signing;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;
using MellowRivet.Web.Drawings;

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
/// <param name="Statement">The statement that would be signed; empty where the rules have none.</param>
/// <param name="Source">Where its words come from.</param>
public sealed record CloseView(WalkShown Walk, SigningAnswer Answer, Readiness Readiness, string Statement, string Source)
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
    public string HrefOf(Ask ask) => ask.Asked switch
    {
        Asked.Compressions => $"{Here}/compressions/{ask.EngineId}",
        Asked.Plugs => $"{Here}/plugs/{ask.EngineId}",
        Asked.Filter => $"{Here}/engine-sheet/oil/{ask.EngineId}",
        Asked.Magnetos => $"{Here}/engine-sheet/magneto/{ask.Carrier}",
        Asked.Carburettors => $"{Here}/engine-sheet/carburettor/{ask.Carrier}",
        _ => $"{Here}/engine-sheet/{ask.Asked.ToString().ToLowerInvariant()}/{ask.EngineId}",
    };

    public ZoneLookView LookOf(ZoneState zone) => new(this, zone, "close");

    public string BooksInWords => string.Join(", ", new[] { "the airframe" }
        .Concat(Job.Aircraft.Engines.Select(engine => $"the {engine.Position} engine".Replace("  ", " ")))
        .Concat(Job.Aircraft.Propellers.Select(propeller => $"the {propeller.Position} propeller".Replace("  ", " "))));
}
