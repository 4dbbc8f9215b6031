using MellowRivet.Core.EngineLogs;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;

namespace MellowRivet.Core.Inspections;

// The sheets of the engine station.
public sealed partial class Inspection
{
    private List<SheetCheck> sheetChecks = [];
    private List<FilterCut> filterCuts = [];
    private List<Guid> benchedMagnetos = [];
    private List<OilFill> oilFills = [];

    /// <summary>Looks of the engine's sheets that are done.</summary>
    public IReadOnlyList<SheetCheck> SheetChecks => sheetChecks;

    /// <summary>What was found in filters, screens and on magnetic plugs.</summary>
    public IReadOnlyList<FilterCut> FilterCuts => filterCuts;

    /// <summary>Oil changes, one for each engine that had one.</summary>
    public IReadOnlyList<OilFill> OilFills => oilFills;

    /// <summary>Magnetos whose bench inspection was done: signing counts their hours from here.</summary>
    public IReadOnlyList<Guid> BenchedMagnetos => benchedMagnetos;

    /// <summary>
    /// Whether signing counts a due item as done because its magneto was on the bench: the inspection by hours that hangs on it.
    /// </summary>
    public bool CountsAsBenched(Due.DueItem item) =>
        item is { Kind: Due.DueKind.Service, Interval.EveryHours: not null, ComponentId: { } part } && benchedMagnetos.Contains(part);

    /// <summary>Records a value of a sheet as it is typed; an empty field takes it back.</summary>
    /// <param name="id">The reading's id, made by the device.</param>
    /// <param name="sheet">The sheet.</param>
    /// <param name="value">Which value.</param>
    /// <param name="typed">What was typed.</param>
    /// <param name="unit">The unit it was typed in; empty for that of its limits.</param>
    /// <param name="aircraft">The aircraft, for its own limits.</param>
    /// <param name="said">Who, when, and what they had before them.</param>
    public Refusal? Measure(Guid id, EngineSheet sheet, SheetValue value, string? typed, string? unit, Aircraft aircraft, Saying said)
    {
        var of = Unit.Find(unit) ?? value.BandOn(aircraft).Unit;
        var read = MeasureText.Read(typed, of);
        return read.Problem is { } problem
            ? new("value", problem)
            : Measure(id, sheet, value, read.Value, of, said);
    }

    /// <summary>
    /// Records a value of a sheet; measured again, it takes the place of the first. Measured by somebody who hadn't seen the first, it is
    /// kept beside it until somebody chooses.
    /// </summary>
    /// <param name="id">The reading's id, made by the device.</param>
    /// <param name="sheet">The sheet.</param>
    /// <param name="value">Which value.</param>
    /// <param name="typed">What was read, in the unit of its limits; null takes the value back.</param>
    /// <param name="unit">The unit it was typed in.</param>
    /// <param name="said">Who, when, and what they had before them.</param>
    public Refusal? Measure(Guid id, EngineSheet sheet, SheetValue value, double? typed, Unit unit, Saying said)
    {
        if (unit.Dimension != value.Band.Unit.Dimension)
            return new("value", $"{unit} doesn't measure this.");
        if (typed is { } given && FieldBound.First(value.Bounds, "value", null, given, unit, value.Band.Unit) is { } outside)
            return outside;
        // A task of the walk that asks for the same has its reading with it; nobody types it twice.
        var task = value.Position == SheetValue.After
            ? Tasks.FirstOrDefault(one => one.Measure?.Kind == value.Kind
                && (one.ComponentId is null || one.ComponentId == sheet.Carrier.Id))
            : null;
        var there = Readings.Where(reading => reading.ComponentId == sheet.Carrier.Id && reading.Kind == value.Kind && value.Takes(reading))
            .ToList();
        var earlier = there.MaxBy(reading => reading.At);
        var key = ApartKeys.Value(sheet.Carrier.Id, value);
        if (typed is not { } read)
        {
            if (NotTakenBack(key, "value", earlier?.Last, said) is { } refusal)
                return refusal;
            Loaded.List(readings).RemoveAll(there.Contains);
        }
        else if (said.Missed(earlier?.Last))
            KeepApart(key, $"{sheet.Title}, {value.Name}", earlier!, read, unit, null, said);
        else if (earlier is not null)
        {
            earlier.Reread(read, unit, null, said.By, said.At);
            StandsNow(key, earlier.InWords, earlier.Last);
        }
        else
            Record(new(id, AircraftId, sheet.Carrier.Id, value.Kind, value.Position, read, unit, new(), TimeInService, said.At, said.By)
                { InspectionId = Id, TaskId = task?.Id });
        return null;
    }

    /// <summary>What an oil pressure read in flight is called.</summary>
    public const string AltitudeKind = "oil-pressure-altitude";

    /// <summary>Oil pressures read at altitudes, by altitude.</summary>
    /// <param name="engine">The engine.</param>
    /// <param name="when">"before" or "after" the change.</param>
    public IReadOnlyList<AltitudePoint> PressuresAtAltitude(Component engine, string when) =>
        [.. Readings.Where(reading => reading.Kind == AltitudeKind && reading.ComponentId == engine.Id && reading.Position == when)
            .Select(reading => new AltitudePoint(reading.Conditions.Feet ?? 0, reading.Value)).OrderBy(point => point.Feet)];

    /// <summary>Puts what a flight came to on the run sheet, where nothing stands yet.</summary>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="engine">The engine.</param>
    /// <param name="flight">What the flight came to.</param>
    /// <param name="when">"before" or "after" the work.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    public Refusal? FillRun(Aircraft aircraft, Component engine, LogSummary flight, string? when, Guid by, DateTimeOffset at)
    {
        if (when is not ("before" or SheetValue.After))
            return new("fill", "Before the work or after it?");
        var sheet = RunSheet.Of(engine);
        var work = SheetWork.Of(sheet, aircraft, this);
        (string Kind, double? Value)[] read =
        [
            ("static-rpm", flight.GreatestRpm), ("idle-rpm", flight.IdleRpm), ("oil-temperature", flight.OilTemperature),
            ("oil-pressure", flight.OilPressure), ("cylinder-temperature", flight.GreatestCht),
        ];
        foreach (var (kind, value) in read)
            if (value is { } number && work.Value(kind, when) is null)
            {
                var of = sheet.Values.Single(one => one.Kind == kind && one.Position == when);
                Measure(Guid.CreateVersion7(), sheet, of, Math.Round(number, 1), of.Band.Unit, new(by, at));
            }
        return null;
    }

    /// <summary>Records oil pressures read at altitudes, in place of those there were.</summary>
    /// <param name="engine">The engine.</param>
    /// <param name="when">"before" or "after" the change.</param>
    /// <param name="points">The points.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    public void PressuresAtAltitude(Component engine, string when, IReadOnlyList<AltitudePoint> points, Guid by, DateTimeOffset at)
    {
        Loaded.List(readings).RemoveAll(reading => reading.Kind == AltitudeKind && reading.ComponentId == engine.Id
            && reading.Position == when);
        foreach (var point in points)
            Record(new(Guid.CreateVersion7(), AircraftId, engine.Id, AltitudeKind, when, point.Psi, Unit.Psi, new(Feet: point.Feet),
                TimeInService, at, by) { InspectionId = Id });
    }

    /// <summary>
    /// Notes a look of a sheet; what was noted before gives way where whoever says so had seen it, its picture and sound stay where no
    /// new ones came.
    /// </summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="look">Which look.</param>
    /// <param name="check">What was found, by whom and when.</param>
    /// <param name="seen">What they had before them; null where that wasn't told.</param>
    public Refusal? Look(EngineSheet sheet, SheetLook look, SheetCheck check, string? seen = null)
    {
        if (!Enum.IsDefined(check.State))
            return new("state", "Choose what you found.");
        if (check.State == LookState.Found && string.IsNullOrWhiteSpace(check.Words))
            return new("words", "Say what you found.");
        if (check.Words.Length > 200)
            return new("words", "Up to 200 characters.");
        var before = sheetChecks.FirstOrDefault(check.IsOfTheSame);
        var (key, said) = (ApartKeys.Look(sheet.Carrier.Id, sheet.Kind, look.Key), new Saying(check.By, check.At, seen));
        if (said.Missed(before?.Said))
        {
            if (check.InWords != before!.InWords || (check.Photo ?? before.Photo) != before.Photo
                || (check.Sound ?? before.Sound) != before.Sound)
                KeepApart(key, $"{sheet.Title}: {look.Text}", before.InWords, before.Said, check.InWords, said, new(Look: check));
            return null;
        }
        Put(check);
        StandsNow(key, check.InWords, check.Said);
        return null;
    }

    private void Put(SheetCheck check)
    {
        var before = sheetChecks.FirstOrDefault(check.IsOfTheSame);
        sheetChecks = [.. sheetChecks.Where(other => other != before),
            check with { Photo = check.Photo ?? before?.Photo, Sound = check.Sound ?? before?.Sound }];
    }

    /// <summary>Notes every look of a group that nobody has taken yet as good: one touch for what was looked at in one go.</summary>
    public Refusal? LookAtRest(EngineSheet sheet, string? title, Guid by, DateTimeOffset at)
    {
        if (sheet.Groups.FirstOrDefault(group => group.Title == title) is not { } group)
            return new("state", "There is no such group of looks on this sheet.");
        foreach (var look in group.Looks.Where(look => look.With is null
            && sheetChecks.All(check => (check.ComponentId, check.Sheet, check.Key) != (sheet.Carrier.Id, sheet.Kind, look.Key))))
            if (Look(sheet, look, new(sheet.Carrier.Id, sheet.Kind, look.Key, LookState.Good, "", null, null, by, at)) is { } refusal)
                return refusal;
        return null;
    }

    /// <summary>Notes what a filter showed; what was noted before gives way where whoever says so had seen it.</summary>
    /// <param name="cut">What it showed, by whom and when.</param>
    /// <param name="seen">What of that place they had before them; null where that wasn't told.</param>
    public Refusal? Cut(FilterCut cut, string? seen = null)
    {
        if (!Enum.IsDefined(cut.Place) || !Enum.IsDefined(cut.Metal) || !Enum.IsDefined(cut.Amount))
            return new("metal", "Choose where, which metal and how much.");
        if (cut.Metal == FilterMetal.None != (cut.Amount == FilterAmount.None))
            return new("amount", "Metal has an amount, and an amount is of something.");
        if (cut.Words.Length > 200)
            return new("words", "Up to 200 characters.");
        var (key, said) = (ApartKeys.Cut(cut.EngineId, cut.Place), new Saying(cut.By, cut.At, seen));
        if (filterCuts.FirstOrDefault(other => (other.EngineId, other.Place) == (cut.EngineId, cut.Place)) is { } before
            && said.Missed(before.Said))
        {
            if (before.InWords != cut.InWords || (cut.Photo ?? before.Photo) != before.Photo)
                KeepApart(key, $"What the {cut.Place.InWords()} showed", before.InWords, before.Said, cut.InWords, said, new(Cut: cut));
            return null;
        }
        Put(cut);
        StandsNow(key, cut.InWords, cut.Said);
        return null;
    }

    private void Put(FilterCut cut) =>
        filterCuts = [.. filterCuts.Where(other => (other.EngineId, other.Place) != (cut.EngineId, cut.Place)), cut];

    /// <summary>Notes an oil change; the one noted before gives way where whoever says so had seen it.</summary>
    /// <param name="fill">What was filled in, by whom and when.</param>
    /// <param name="seen">What they had before them; null where that wasn't told.</param>
    public void Fill(OilFill fill, string? seen = null)
    {
        var (key, said) = (ApartKeys.Fill(fill.EngineId), new Saying(fill.By, fill.At, seen));
        if (oilFills.FirstOrDefault(other => other.EngineId == fill.EngineId) is { } before && said.Missed(before.Said))
        {
            if (before.InWords != fill.InWords)
                KeepApart(key, "The oil that went in", before.InWords, before.Said, fill.InWords, said, new(Fill: fill));
            return;
        }
        Put(fill);
        StandsNow(key, fill.InWords, fill.Said);
    }

    private void Put(OilFill fill) => oilFills = [.. oilFills.Where(other => other.EngineId != fill.EngineId), fill];

    /// <summary>The oil was not changed after all.</summary>
    /// <param name="engineId">The engine.</param>
    /// <param name="said">Who says so, when, and what they had before them.</param>
    public Refusal? NotFilled(Guid engineId, Saying said)
    {
        var (key, before) = (ApartKeys.Fill(engineId), oilFills.FirstOrDefault(other => other.EngineId == engineId));
        if (NotTakenBack(key, "oil", before?.Said, said) is { } refusal)
            return refusal;
        oilFills = [.. oilFills.Where(other => other.EngineId != engineId)];
        return null;
    }

    /// <summary>A magneto's bench inspection is done, or isn't after all.</summary>
    /// <param name="work">Its sheet.</param>
    /// <param name="done">Whether it is.</param>
    public Refusal? Bench(SheetWork work, bool done)
    {
        if (done && !work.IsComplete)
            return new("benched", $"{work.All - work.Done} of the sheet still open: measure and look at the rest first.");
        if (done && work.Worst is { Verdict: Judgements.Verdict.Reject } bad)
            return new("benched", $"{bad.Rule}: it isn't good as it is. {bad.Next}");
        benchedMagnetos = [.. benchedMagnetos.Where(id => id != work.Sheet.Carrier.Id), .. done
            ? [work.Sheet.Carrier.Id]
            : Array.Empty<Guid>()];
        return null;
    }
}
