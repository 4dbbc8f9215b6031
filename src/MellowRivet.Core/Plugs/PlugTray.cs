using MellowRivet.Core.Compression;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Plugs;

/// <summary>The sequence a plug goes through, out of its hole and back.</summary>
public enum PlugStep { Look = 1, Ohms, Clean, GapFound, GapSet, PressureTest, Gasket, Torque }

/// <summary>A gasket goes on new, or annealed soft again.</summary>
public enum GasketState { New = 1, Annealed }

/// <summary>Something that was seen or done at a plug and is no number.</summary>
/// <param name="PlugId">The plug.</param>
/// <param name="Hole">The hole it came out of.</param>
/// <param name="Step">Which step; null for the fall that makes it scrap, and for another hole that it went to.</param>
/// <param name="Said">The look, "done", "pass", "fail", the gasket's state, or one of the words below.</param>
/// <param name="By">Who.</param>
/// <param name="At">When.</param>
public sealed record PlugNote(Guid PlugId, PlugHole Hole, PlugStep? Step, string Said, Guid By, DateTimeOffset At)
{
    /// <summary>It fell.</summary>
    public const string Dropped = "dropped";

    /// <summary>It came out again and went to another hole, after it had been torqued.</summary>
    public const string Moved = "moved";

    /// <summary>Who said it, and when.</summary>
    public Stamp Stamp => new(By, At);

    /// <summary>What was said, in words.</summary>
    public string InWords => Step switch
    {
        PlugStep.Look => EnumNames.Read<PlugLook>(Said).InWords(),
        PlugStep.PressureTest => Said == "pass" ? "fires" : "misses",
        _ => Said.ToLowerInvariant(),
    };
}

/// <summary>A place of the tray: a hole of the engine and the plug that goes there.</summary>
/// <param name="Hole">The hole.</param>
/// <param name="Ignition">What fires it; null where nobody has said.</param>
/// <param name="Plug">The plug; null where none is on file.</param>
/// <param name="CameFrom">The hole it was taken out of at this inspection.</param>
/// <param name="Notes">What was seen and done at it in this inspection.</param>
/// <param name="Readings">What was measured on it in this inspection.</param>
/// <param name="Time">Its own time in service; null where that isn't known.</param>
public sealed record TrayPlace(PlugHole Hole, IgnitionKind? Ignition, Component? Plug, PlugHole CameFrom, IReadOnlyList<PlugNote> Notes,
    IReadOnlyList<Reading> Readings, Hours? Time)
{
    /// <summary>The limits of the plug that sits here: by what it is made for, else by what fires the hole.</summary>
    public PlugLimits Limits => PlugLimits.Of(Plug?.Suits ?? Ignition ?? IgnitionKind.Magneto);

    public bool IsScrap => Notes.Any(note => note is { Step: null, Said: PlugNote.Dropped });

    /// <summary>
    /// When it last came out of a hole again, at this inspection: gasket and torque of before say nothing of where it sits now.
    /// </summary>
    private DateTimeOffset? OutAt =>
        Notes.Where(note => note is { Step: null, Said: PlugNote.Moved }).Select(note => (DateTimeOffset?)note.At).Max();

    public PlugLook? Look => Said(PlugStep.Look) is { } said ? EnumNames.Read<PlugLook>(said) : null;

    public string? Said(PlugStep step) => NoteOf(step)?.Said;

    /// <summary>What was seen or done at a step that measures nothing; null while nothing was.</summary>
    public PlugNote? NoteOf(PlugStep step) =>
        Notes.FirstOrDefault(note => note.Step == step && (step != PlugStep.Gasket || !(note.At <= OutAt)));

    /// <summary>Who did a step last, and when; null while nobody did.</summary>
    public Stamp? StampOf(PlugStep step) => ReadingOf(step)?.Last ?? NoteOf(step)?.Stamp;

    /// <summary>A step of this plug, in words.</summary>
    public string Title(PlugStep step) => $"Plug {Plug?.SerialNumber} at {Hole}, {step.InWords()}";

    public Reading? ReadingOf(PlugStep step) =>
        PlugKinds.Of(step) is { } kind
            ? Readings.Where(reading => reading.Kind == kind
                && (step != PlugStep.Torque || (reading.Position == Hole.ToString() && !(reading.LastAt <= OutAt))))
                .MaxBy(reading => reading.At)
            : null;

    public bool IsDone(PlugStep step) => PlugKinds.Of(step) is null ? Said(step) is not null : ReadingOf(step) is not null;

    /// <summary>The first step that is still to do; null when the whole sequence is done.</summary>
    public PlugStep? Next =>
        Plug is null || IsScrap
            ? null
            : Enum.GetValues<PlugStep>().Where(step => !IsDone(step)).Select(step => (PlugStep?)step).FirstOrDefault();

    /// <summary>Two people said different things of a step, and nobody has chosen.</summary>
    public bool IsApart { get; init; }

    /// <summary>The whole sequence is done, with one answer to each step, and none rejects the plug: only then it stands green.</summary>
    public bool IsFinished => Plug is not null && !IsScrap && Next is null && !IsApart
        && Judgement?.Verdict is Verdict.Good or Verdict.Watch;

    /// <summary>Something is still to do here. A plug that was judged bad is done: what becomes of it is answered for itself.</summary>
    public bool IsUndone => Plug is null || (Next is not null && Judgement?.Verdict is not Verdict.Reject);

    /// <summary>A plug made for the other ignition.</summary>
    public bool IsMisplaced => Plug?.Suits is { } made && Ignition is { } fires && made != fires;

    /// <summary>What was found of it so far; null while nothing was.</summary>
    public Judgement? Judgement =>
        Judgements.Select(one => one.Judgement).ToList() is { Count: > 0 } said ? Core.Judgements.Judgement.Worst(said) : null;

    /// <summary>
    /// The limits of its torque: the manual's where it is on file, else the usual one of a plug for magnetos; null where there is none.
    /// </summary>
    public ToleranceBand? TorqueBand { get; init; }

    /// <summary>What can be said at a step that measures nothing, with what it comes to; none where it says nothing of the plug.</summary>
    public static IReadOnlyList<(string Said, Judgement Judgement)> Choices(PlugStep step) => step switch
    {
        PlugStep.Look => [.. Enum.GetValues<PlugLook>().Select(look => ($"{look}", look.Judge()))],
        PlugStep.PressureTest =>
        [
            ("pass", new(Verdict.Good, "Fires under pressure", Practice, null, "Good.")),
            ("fail", new(Verdict.Reject, "Doesn't fire under pressure", Practice, null, "Scrap it: it will miss at full throttle.")),
        ],
        _ => [],
    };

    /// <summary>What a step that measures is judged by, with the unit; null for one that isn't judged by a number.</summary>
    public (JudgementTable Table, Unit Unit)? TableOf(PlugStep step) => step switch
    {
        PlugStep.Ohms => (PlugJudge.ResistanceTable(Limits), Unit.Ohm),
        PlugStep.GapFound or PlugStep.GapSet => (PlugJudge.GapTable(Limits, step == PlugStep.GapSet), Unit.Inch),
        PlugStep.Torque when TorqueBand is { } band => (band.Table(), band.Unit),
        _ => null,
    };

    /// <summary>What a step came to; null while it isn't done, or where it says nothing of the plug.</summary>
    public Judgement? JudgementOf(PlugStep step) => step switch
    {
        PlugStep.Look => Look?.Judge(),
        PlugStep.PressureTest => Choices(step).FirstOrDefault(one => one.Said == Said(step)).Judgement,
        // A gap found wide is closed; the gap it goes back with is what counts.
        PlugStep.GapFound when IsDone(PlugStep.GapSet) => null,
        _ when ReadingOf(step) is { } reading && TableOf(step) is var (table, unit) =>
            table.Of(Unit.Find(reading.UnitSymbol)!.To(unit, reading.Value)),
        _ => null,
    };

    private static readonly RuleSource Practice = new(Standing.Practice, "common practice");

    /// <summary>Every judgement with the step it comes from; null for the plug as it is: dropped, or made for the other ignition.</summary>
    public IEnumerable<(PlugStep? Of, Judgement Judgement)> Judgements
    {
        get
        {
            if (IsScrap)
                yield return (null, PlugJudge.Condition(new(null, null, Dropped: true)));
            if (IsMisplaced)
                yield return (null, new(Verdict.Reject, $"A {Plug!.Suits!.Value.InWords()} plug in a {Ignition!.Value.InWords()} hole",
                    Practice, null, PlugRotation.Placard));
            foreach (var step in Enum.GetValues<PlugStep>())
                if (JudgementOf(step) is { } judgement)
                    yield return (step, judgement);
        }
    }
}

/// <summary>Names of what is measured on plugs.</summary>
public static class PlugKinds
{
    public const string Ohms = "plug-ohms", GapFound = "plug-gap-found", GapSet = "plug-gap-set", Torque = "plug-torque";

    /// <summary>What a step's reading is called; null for a step that measures nothing.</summary>
    public static string? Of(PlugStep step) => step switch
    {
        PlugStep.Ohms => Ohms,
        PlugStep.GapFound => GapFound,
        PlugStep.GapSet => GapSet,
        PlugStep.Torque => Torque,
        _ => null,
    };

    public static Unit UnitOf(PlugStep step) =>
        step switch { PlugStep.Ohms => Unit.Ohm, PlugStep.Torque => Unit.InchPound, _ => Unit.Inch };

    /// <summary>What is said of a torque while {steps} are missing.</summary>
    public const string Missing = "Before it goes back: {steps}.";

    /// <summary>What is said of a torque without a wrench.</summary>
    public const string NoWrench = "Say which wrench.";

    /// <summary>What is wanted in the field of a step that measures.</summary>
    public static string Wanted(PlugStep step) => step switch
    {
        PlugStep.Ohms => "Type Ω from 0 up, such as 1500, 4.7k or open.",
        PlugStep.Torque => "Type in-lb up to 1000.",
        _ => "Type inches up to 0.2, such as 0.018.",
    };

    /// <summary>What the field of a step that measures doesn't take.</summary>
    public static IReadOnlyList<FieldBound> BoundsOf(PlugStep step) =>
    [
        new(step == PlugStep.Ohms ? Than.Below : Than.AtMost, 0, Wanted(step)),
        new(Than.Above, step switch { PlugStep.Ohms => MeasureText.Most, PlugStep.Torque => 1_000, _ => 0.2 }, Wanted(step)),
    ];

    public static string InWords(this PlugStep step) => step switch
    {
        PlugStep.Look => "firing end looked at",
        PlugStep.Ohms => "resistance",
        PlugStep.Clean => "lead out, blasted, washed",
        PlugStep.GapFound => "gap as found",
        PlugStep.GapSet => "gap as set",
        PlugStep.PressureTest => "fired under pressure",
        PlugStep.Gasket => "gasket",
        _ => "torqued",
    };
}

/// <summary>An engine's plugs in one inspection, out of the engine in a tray with a labelled place for each hole.</summary>
public sealed record PlugTray(Component Engine, IReadOnlyList<TrayPlace> Places)
{
    public bool IsMixed => Engine.Ignition is { IsMixed: true };

    /// <summary>Every hole has a plug whose sequence is done.</summary>
    public bool IsComplete => Places.All(place => place.IsFinished);

    /// <summary>Plugs that came off at this inspection, each at the hole that it sat in last.</summary>
    public IReadOnlyList<TrayPlace> Gone { get; init; } = [];

    /// <summary>A plug's place, wherever it sits now or sat last; null for none of this engine's.</summary>
    public TrayPlace? Of(Guid plug) => Places.Concat(Gone).FirstOrDefault(place => place.Plug?.Id == plug);

    public TrayPlace? At(PlugHole hole) => Places.FirstOrDefault(place => place.Hole == hole);

    /// <summary>The place after one, round the tray.</summary>
    public TrayPlace After(TrayPlace place) => Places[(Places.ToList().IndexOf(place) + 1) % Places.Count];

    public TrayPlace Before(TrayPlace place) => Places[(Places.ToList().IndexOf(place) + Places.Count - 1) % Places.Count];

    /// <param name="aircraft">The aircraft with its parts, those that came off too.</param>
    /// <param name="engine">One of its engines.</param>
    /// <param name="inspection">The inspection, for its notes and readings.</param>
    public static PlugTray Of(Aircraft aircraft, Component engine, Inspection inspection)
    {
        var stays = aircraft.Installations.Where(stay => stay.Component.Kind == ComponentKind.Plug && stay.ParentId == engine.Id).ToList();
        return new(engine, [.. Holes(engine).Select(hole =>
            Place(hole, stays.FirstOrDefault(other => other.IsOn && other.Position == hole.ToString())))])
        {
            Gone = [.. stays.Where(stay => !stay.IsOn && stay.RemovedAt >= inspection.TimeInService
                    && !stays.Exists(other => other.IsOn && other.ComponentId == stay.ComponentId))
                .Select(stay => (Stay: stay, Hole: PlugHole.Parse(stay.Position))).Where(one => one.Hole is not null)
                .Select(one => Place(one.Hole!.Value, one.Stay))],
        };

        TrayPlace Place(PlugHole hole, Installation? stay)
        {
            // Where it sat when the inspection began: the first of its stays that lasted until then.
            var first = stay is null
                ? null
                : stays.Where(other => other.ComponentId == stay.ComponentId
                    && (other.RemovedAt is not { } off || off >= inspection.TimeInService)).MinBy(other => other.InstalledAt.Value);
            var cameFrom = first is not null && PlugHole.Parse(first.Position) is { } began ? began : hole;
            return new TrayPlace(hole, FiresOf(engine, hole.Row), stay?.Component, cameFrom,
                [.. inspection.PlugNotes.Where(note => note.PlugId == stay?.ComponentId)],
                [.. inspection.Readings.Where(reading => reading.ComponentId == stay?.ComponentId && stay is not null)],
                stay?.TimeInService(aircraft.TimeInService))
            {
                TorqueBand = PlugLimits.TorqueOn(aircraft, stay?.Component.Suits ?? FiresOf(engine, hole.Row) ?? IgnitionKind.Magneto),
                IsApart = stay is not null
                    && Enum.GetValues<PlugStep>().Any(step => inspection.ApartAt(ApartKeys.Plug(stay.ComponentId, step)).Any()),
            };
        }
    }

    /// <summary>The holes of an engine, row by row: two a cylinder.</summary>
    public static IReadOnlyList<PlugHole> Holes(Component engine) =>
        [.. new[] { PlugRow.Top, PlugRow.Bottom }
            .SelectMany(row => engine.Layout.Cylinders.Select(place => new PlugHole(place.Number, row)))];

    private static IgnitionKind? FiresOf(Component engine, PlugRow row) =>
        row == PlugRow.Top ? engine.Ignition?.Top : engine.Ignition?.Bottom;
}
