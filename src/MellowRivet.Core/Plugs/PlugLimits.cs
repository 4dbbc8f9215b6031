using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Plugs;

/// <summary>What a plug is judged by, for what fires it.</summary>
/// <param name="Ignition">What fires it.</param>
/// <param name="OhmsWatch">Resistance from which it is watched, Ω, itself watched.</param>
/// <param name="OhmsReject">Resistance above which it is rejected, Ω, itself still watched.</param>
/// <param name="GapLeast">The least good gap, in.</param>
/// <param name="GapMost">The greatest good gap, in.</param>
/// <param name="GapTarget">What it is set to, in.</param>
/// <param name="Source">Where the numbers come from.</param>
public sealed record PlugLimits(IgnitionKind Ignition, double OhmsWatch, double OhmsReject, double GapLeast, double GapMost,
    double GapTarget, RuleSource Source)
{
    private static readonly RuleSource Practice = new(Standing.Practice, "common practice");

    /// <summary>A massive-electrode plug fired by a magneto.</summary>
    public static PlugLimits Magneto { get; } = new(IgnitionKind.Magneto, 3_000, 5_000, 0.016, 0.021, 0.016, Practice);

    /// <summary>A plug fired by a high-energy electronic ignition.</summary>
    public static PlugLimits HighEnergy { get; } = new(IgnitionKind.HighEnergy, 3_000, 5_000, 0.028, 0.040, 0.035,
        new(Standing.Practice, "common practice; the ignition's maker has the number"));

    public static PlugLimits Of(IgnitionKind ignition) => ignition == IgnitionKind.Magneto ? Magneto : HighEnergy;

    /// <summary>The same with limits of the shop's own; what is null stays.</summary>
    public PlugLimits With(double? ohmsWatch, double? ohmsReject, double? gapLeast, double? gapMost) =>
        ohmsWatch is null && ohmsReject is null && gapLeast is null && gapMost is null ? this : this with
        {
            OhmsWatch = ohmsWatch ?? OhmsWatch,
            OhmsReject = ohmsReject ?? OhmsReject,
            GapLeast = gapLeast ?? GapLeast,
            GapMost = gapMost ?? GapMost,
            Source = new(Standing.Manual, "limits as given"),
        };

    /// <summary>Torque of the 18 mm plug, in-lb: 35 ft-lb. The engine's manual decides; common practice.</summary>
    public const double TorqueInchPounds = 420;

    /// <summary>
    /// The limits of the torque: the manual's, where they are on file under <see cref="PlugKinds.Torque"/>; else the usual figure of
    /// the 18 mm plug that magnetos fire, within the 4 % that a click wrench is good for (ISO 6789, from memory). Null for a plug
    /// of an electronic ignition: its thread, and with it its torque, is its maker's.
    /// </summary>
    public static ToleranceBand? TorqueOn(Aircraft aircraft, IgnitionKind ignition) =>
        aircraft.LimitOf(PlugKinds.Torque) is { } own
        ? new(Unit.Find(own.UnitSymbol)!, own.Low, own.High, new(Standing.Manual, own.Reference))
        : ignition == IgnitionKind.Magneto ? new(Unit.InchPound, TorqueInchPounds * 0.96, TorqueInchPounds * 1.04, Practice) : null;
}

/// <summary>How far a plug's electrodes are worn.</summary>
public enum ElectrodeWear { None = 1, Oval, Half }

/// <summary>What a plug read and looked like.</summary>
/// <param name="Ohms">Internal resistance, Ω; null where it wasn't measured.</param>
/// <param name="GapInches">Gap, in; null where it wasn't measured.</param>
/// <param name="Dropped">It fell. It is scrap, even if it looks perfect.</param>
/// <param name="InsulatorCracked">The insulator is cracked.</param>
/// <param name="Wear">How far the electrodes are worn.</param>
public sealed record PlugReading(double? Ohms, double? GapInches, bool Dropped = false, bool InsulatorCracked = false,
    ElectrodeWear Wear = ElectrodeWear.None);

/// <summary>A plug judged: its resistance, its gap, its condition, and what comes first.</summary>
public sealed record JudgedPlug(Judgement Resistance, Judgement Gap, Judgement Condition)
{
    public Judgement Overall => Judgement.Worst([Condition, Resistance, Gap]);
}

/// <summary>Judges a plug on the bench.</summary>
public static class PlugJudge
{
    private static readonly RuleSource Practice = new(Standing.Practice, "common practice");

    public static JudgedPlug Judge(PlugLimits limits, PlugReading plug) =>
        new(Resistance(limits, plug.Ohms), Gap(limits, plug.GapInches), Condition(plug));

    /// <summary>Judges the internal resistance.</summary>
    /// <param name="limits">The plug's limits.</param>
    /// <param name="ohms">Zero or more, infinite for an open circuit; null where it wasn't measured.</param>
    public static Judgement Resistance(PlugLimits limits, double? ohms) => ohms is { } read
        ? ResistanceTable(limits).Of(read)
        : new(Verdict.Unknown, "Resistance not measured", limits.Source, null,
            "Measure it from the lead's contact to the centre electrode.");

    /// <summary>What a resistance is judged by, Ω.</summary>
    public static JudgementTable ResistanceTable(PlugLimits limits) => new(
        new Dictionary<string, double> { ["watch"] = limits.OhmsWatch, ["reject"] = limits.OhmsReject },
        [new("margin", Making.Less, ["reject", JudgementTable.Value])],
        [
            new([new(JudgementTable.Value, Than.Above, "reject")], Verdict.Reject, $"Above {limits.OhmsReject:0} Ω", limits.Source,
                "margin", "Scrap it: the spark arcs back into the magneto and the harness."),
            new([new(JudgementTable.Value, Than.AtLeast, "watch")], Verdict.Watch,
                $"From {limits.OhmsWatch:0} to {limits.OhmsReject:0} Ω", limits.Source, "margin",
                "Serviceable; measure it again at the next service."),
            new([], Verdict.Good, $"Below {limits.OhmsWatch:0} Ω", limits.Source, "margin", "Good."),
        ]);

    /// <summary>Judges the gap.</summary>
    /// <param name="limits">The plug's limits.</param>
    /// <param name="inches">Zero or more; null where it wasn't measured.</param>
    public static Judgement Gap(PlugLimits limits, double? inches) => inches is { } read
        ? GapTable(limits).Of(read)
        : new(Verdict.Unknown, "Gap not measured", limits.Source, null, "Measure it with a wire gauge.");

    /// <summary>What a gap is judged by, in.</summary>
    /// <param name="limits">The plug's limits.</param>
    /// <param name="isSet">It is the gap that the plug goes back with: one that is too wide then is no plug to be closed later.</param>
    public static JudgementTable GapTable(PlugLimits limits, bool isSet = false)
    {
        var wide = new JudgementRow([new("over", Than.Above, "nothing")], isSet ? Verdict.Reject : Verdict.Watch,
            $"Gap above {limits.GapMost:0.000} in", limits.Source, "margin",
            $"Close it to {limits.GapTarget:0.000} in; mind the spring-back.");
        var other = wide with
        {
            When = [.. wide.When, new(JudgementTable.Value, Than.AtLeast, "other")],
            Next = "A magneto can't fire this: see whether it is a plug of the electronic row. If not, close it to "
                + $"{limits.GapTarget:0.000} in; mind the spring-back.",
        };
        var narrow = new JudgementRow([new("under", Than.Above, "nothing")], Verdict.Reject, $"Gap below {limits.GapLeast:0.000} in",
            limits.Source, "margin", limits.Ignition == IgnitionKind.Magneto
                ? "It can't be opened without a special tool: take another plug."
                : "Too narrow for this ignition: see whether it is a magneto's plug, which this system ruins. "
                + "Set it only as its maker says.");
        return new(
            new Dictionary<string, double>
            {
                ["least"] = limits.GapLeast, ["most"] = limits.GapMost, ["nothing"] = 0, ["other"] = PlugLimits.HighEnergy.GapLeast,
            },
            // Gauges come in thousandths: what floating point adds to a thousandth is no gap.
            [
                new("over", Making.Less, [JudgementTable.Value, "most"], 7), new("under", Making.Less, ["least", JudgementTable.Value], 7),
                new("below", Making.Less, ["most", JudgementTable.Value], 7), new("above", Making.Less, [JudgementTable.Value, "least"], 7),
                new("margin", Making.Least, ["above", "below"]),
            ],
            [
                .. limits.Ignition == IgnitionKind.Magneto ? [other] : Array.Empty<JudgementRow>(), wide, narrow,
                new([], Verdict.Good, $"Gap within {limits.GapLeast:0.000}–{limits.GapMost:0.000} in", limits.Source, "margin", "Good."),
            ]);
    }

    /// <summary>Judges what is seen: a fall, the insulator, the electrodes.</summary>
    public static Judgement Condition(PlugReading plug)
    {
        if (plug.Dropped)
            return new(Verdict.Reject, "A dropped plug is scrap", Practice, null,
                "Scrap it, even if it looks perfect: the insulator may be cracked where nobody sees it.");
        if (plug.InsulatorCracked)
            return new(Verdict.Reject, "A cracked insulator is scrap", Practice, null,
                "Scrap it, and look into the cylinder for the piece that is missing.");
        return plug.Wear switch
        {
            ElectrodeWear.Half => new(Verdict.Reject, "Electrodes worn to half are scrap", Practice, null,
                "Scrap it, and look at the rest of the set."),
            ElectrodeWear.Oval => new(Verdict.Watch, "Electrodes oval instead of round", Practice, null, "Serviceable; plan a new set."),
            _ => new(Verdict.Good, "Electrodes full, insulator whole", Practice, null, "Good."),
        };
    }
}
