using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.EngineStation;

/// <summary>The sheets of the engine station that are values and looks; compressions, plugs and logs have pages of their own.</summary>
public enum SheetKind { Magneto = 1, Carburettor, Oil, Exhaust, Run, Borescope }

/// <summary>A value of a sheet.</summary>
/// <param name="Kind">What is stored, and what a limit of the aircraft's manual is filed under.</param>
/// <param name="Position">Where it is taken; "" where there is one place.</param>
/// <param name="Name">What the interface shows.</param>
/// <param name="Band">The limits, unless the manual's own are on file.</param>
/// <param name="IsLaw">A value of 14 CFR 43.15(c)(2): flagged while it is missing.</param>
/// <param name="StandsAlone">It has limits of its own; false for what is judged together with others or by its history.</param>
/// <param name="SpoiltBy">The look that, where something is found at it, makes a good value worth nothing; null for most.</param>
/// <param name="Danger">What it never goes above, in the unit of its limits, and why; null where nothing can happen.</param>
public sealed record SheetValue(string Kind, string Position, string Name, ToleranceBand Band, bool IsLaw = false, bool StandsAlone = true,
    string? SpoiltBy = null, (double Above, string Why)? Danger = null)
{
    /// <summary>After the work.</summary>
    public const string After = "after";

    /// <summary>A band without ends: the manual's own limit may be on file, and nothing else judges the value.</summary>
    internal static ToleranceBand NoLimit(Unit unit) => new(unit, null, null, new(Standing.Practice, "common practice"));

    /// <summary>
    /// Whether a reading of its kind is this value's. What a task of the walk measured after the work is not measured twice.
    /// </summary>
    public bool Takes(Reading reading) => reading.Position == Position || (Position == After && reading.TaskId is not null);

    /// <summary>What its field doesn't take.</summary>
    public IReadOnlyList<FieldBound> Bounds =>
    [
        .. Band.Unit.Dimension == Dimension.Temperature ? Array.Empty<FieldBound>() : [new(Than.Below, 0, NoReading)],
        new(Than.Above, MeasureText.Most, NoReading), .. Danger is var (above, why) ? [new(Than.Above, above, why, Band.Unit)]
            : Array.Empty<FieldBound>(),
    ];

    private const string NoReading = "Type what you read: a number from 0 up.";

    /// <summary>The limits on this aircraft: its manual's, where they are on file.</summary>
    public ToleranceBand BandOn(Aircraft aircraft) => aircraft.LimitOf(Kind) is { } own
        ? new(Unit.Find(own.UnitSymbol)!, own.Low, own.High, new(Standing.Manual, own.Reference))
        : Band;
}

/// <summary>Something that is looked at.</summary>
/// <param name="Key">Its name on the sheet.</param>
/// <param name="Text">What is looked at, and for what.</param>
/// <param name="Caution">What can hurt, or what it would mean; null for most.</param>
/// <param name="Spot">Its place on the engine drawing; null where it has none.</param>
/// <param name="With">The place of the value it is looked at with and judged by, such as a pressure; null where it stands alone.</param>
public sealed record SheetLook(string Key, string Text, string? Caution = null, Spot? Spot = null,
    (string Kind, string Position)? With = null);

/// <summary>A place on the drawn engine: from -1 (left) to 1 (right) across, from 0 (propeller) to 1 (firewall) along.</summary>
public sealed record Spot(double Across, double Along);

/// <summary>Values and looks that belong together.</summary>
public sealed record SheetGroup(string Title, IReadOnlyList<SheetValue> Values, IReadOnlyList<SheetLook> Looks, string? Caution = null);

/// <summary>A sheet for one part.</summary>
/// <param name="Kind">Which sheet.</param>
/// <param name="Carrier">The part its readings belong to, and go with.</param>
/// <param name="Groups">What is on it, in working order.</param>
public sealed record EngineSheet(SheetKind Kind, Component Carrier, IReadOnlyList<SheetGroup> Groups)
{
    public IEnumerable<SheetValue> Values => Groups.SelectMany(group => group.Values);

    public IEnumerable<SheetLook> Looks => Groups.SelectMany(group => group.Looks);

    /// <summary>What it is called, by its part where several have one: "Magneto s/n 4471".</summary>
    public string Title => $"{Kind.InWords()}{(Carrier.SerialNumber.Length > 0 ? $" s/n {Carrier.SerialNumber}" : "")}";
}

/// <summary>What was found at a look.</summary>
public enum LookState { Good = 1, Found, NotHere }

/// <summary>A look of a sheet, done.</summary>
/// <param name="ComponentId">The part whose sheet it is.</param>
/// <param name="Sheet">The sheet.</param>
/// <param name="Key">Which look.</param>
/// <param name="State">What was found.</param>
/// <param name="Words">In words; needed where something was found.</param>
/// <param name="Photo">A picture; null without one.</param>
/// <param name="Sound">What it sounded like: a tap test; null without one.</param>
/// <param name="By">Who.</param>
/// <param name="At">When.</param>
public sealed record SheetCheck(Guid ComponentId, SheetKind Sheet, string Key, LookState State, string Words, Discrepancies.Photo? Photo,
    Discrepancies.Sound? Sound, Guid By, DateTimeOffset At)
{
    private static readonly RuleSource Practice = new(Standing.Practice, "common practice");

    /// <summary>Who looked, and when.</summary>
    public Stamp Said => new(By, At);

    /// <summary>What was found, in words.</summary>
    public string InWords => State switch { LookState.Good => "good", LookState.NotHere => "not here", _ => "found" }
        + (Words.Length > 0 ? $": {Words}" : "");

    /// <summary>Whether another check is one of the same look.</summary>
    public bool IsOfTheSame(SheetCheck other) => (other.ComponentId, other.Sheet, other.Key) == (ComponentId, Sheet, Key);

    /// <summary>What the look comes to; null for what isn't there.</summary>
    public Judgement? Judgement => State switch
    {
        LookState.Good => new(Verdict.Good, "Looked at and good", Practice, null, "Good."),
        LookState.Found => new(Verdict.Reject, "Something was found at a look", Practice, null,
            "Put it on the fix list; put right, look at it again."),
        _ => null,
    };
}

/// <summary>A value as it stands on the sheet.</summary>
/// <param name="Of">The value.</param>
/// <param name="Band">Its limits on this aircraft.</param>
/// <param name="Reading">What was read at this inspection; null while nothing was.</param>
/// <param name="Judgement">What it came to; null while nothing was read.</param>
public sealed record ValueOnSheet(SheetValue Of, ToleranceBand Band, Reading? Reading, Judgement? Judgement);

/// <summary>
/// A look as it stands on the sheet; its check is null while nobody looked. One that goes with a value is wanted once that was read.
/// </summary>
public sealed record LookOnSheet(SheetLook Of, SheetCheck? Check, bool IsWanted = true);

/// <summary>A sheet as far as it is filled in at one inspection.</summary>
public sealed record SheetWork(EngineSheet Sheet, IReadOnlyList<ValueOnSheet> Values, IReadOnlyList<LookOnSheet> Looks)
{
    /// <summary>Everything is measured and looked at.</summary>
    public bool IsComplete => Values.All(value => value.Reading is not null) && Looks.All(look => look.Check is not null || !look.IsWanted);

    /// <summary>The worst of what was measured and looked at; null while nothing was.</summary>
    public Judgement? Worst =>
        Values.Select(value => value.Judgement).Concat(Looks.Select(look => look.Check?.Judgement)).OfType<Judgement>()
            .ToList() is { Count: > 0 } all ? Judgement.Worst(all) : null;

    public int Done => Values.Count(value => value.Reading is not null) + Looks.Count(look => look.Check is not null);

    public int All => Values.Count + Looks.Count(look => look.IsWanted);

    public double? Value(string kind, string position = "") =>
        Values.FirstOrDefault(value => value.Of.Kind == kind && value.Of.Position == position)?.Reading?.Value;

    public static SheetWork Of(EngineSheet sheet, Aircraft aircraft, Inspection inspection)
    {
        var checks = inspection.SheetChecks.Where(check => check.ComponentId == sheet.Carrier.Id && check.Sheet == sheet.Kind).ToList();
        List<ValueOnSheet> values = [.. sheet.Values.Select(value =>
        {
            var band = value.BandOn(aircraft);
            var reading = inspection.Readings.Where(one => one.ComponentId == sheet.Carrier.Id && one.Kind == value.Kind
                && value.Takes(one))
                .MaxBy(one => one.At);
            return new ValueOnSheet(value, band, reading, reading is null || !value.StandsAlone
                ? null
                : TableOf(value, band, checks).Of(Unit.Find(reading.UnitSymbol)!.To(band.Unit, reading.Value)));
        })];
        return new(sheet, values,
        [
            .. sheet.Looks.Select(look => new LookOnSheet(look, checks.Find(check => check.Key == look.Key), look.With is not { } with
                || values.Any(value => (value.Of.Kind, value.Of.Position) == with && value.Reading is not null))),
        ]);
    }

    /// <summary>What a value is judged by on this sheet, in the unit of its limits.</summary>
    public JudgementTable TableOf(ValueOnSheet value) =>
        TableOf(value.Of, value.Band, Looks.Select(look => look.Check).OfType<SheetCheck>());

    // A capacitor that measures well hangs on a broken lead: the value says nothing then.
    private static JudgementTable TableOf(SheetValue value, ToleranceBand band, IEnumerable<SheetCheck> checks) =>
        checks.FirstOrDefault(check => check.Key == value.SpoiltBy && check.State == LookState.Found) is { } found
            ? JudgementTable.Always(new(Verdict.Reject, $"{band.Table().Rows[^1].Rule}, and {found.Words}", band.Source, null,
                "A good value doesn’t outweigh what was found at it: replace it, or repair it by the manual, and measure again."))
            : band.Table();
}

public static class SheetWords
{
    public static string InWords(this SheetKind kind) => kind switch
    {
        SheetKind.Oil => "Oil and filter",
        SheetKind.Exhaust => "Exhaust, hoses, mount",
        SheetKind.Run => "Engine run",
        SheetKind.Borescope => "Borescope, cylinder",
        _ => kind.ToString(),
    };
}
