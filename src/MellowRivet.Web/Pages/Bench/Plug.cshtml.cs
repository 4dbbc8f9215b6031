using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;
using MellowRivet.Core.Plugs;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>One plug.</summary>
/// <param name="In">What was typed.</param>
/// <param name="Ignition">What fires it.</param>
/// <param name="Wear">Its electrodes.</param>
/// <param name="Gap">Its gap, inches; null where nothing is answered.</param>
/// <param name="Judged">The answer.</param>
public sealed record BenchPlugView(BenchTyped In, IgnitionKind Ignition, ElectrodeWear Wear, double? Gap,
    IReadOnlyList<(string Name, Judgement Judgement)> Judged) : BenchView(In)
{
    public PlugLimits Limits => PlugLimits.Of(Ignition);
}

/// <summary>One plug on the bench.</summary>
[Needs(Right.Look)]
public sealed class BenchPlugModel : BenchPage<BenchPlugView>
{
    protected override BenchPlugView? Answer(BenchTyped typed)
    {
        var ignition = typed.Choice<IgnitionKind>("ignition") ?? IgnitionKind.Magneto;
        var wear = typed.Choice<ElectrodeWear>("electrodeWear") ?? ElectrodeWear.None;
        var (ohms, gap) = (typed.Number("ohms"), typed.Number("gapInches"));
        // On paper a field may stay empty: what wasn't measured is said to be unknown. What is typed is judged as the open call does.
        var call = new PlugCall(ohms ?? 0, gap ?? 0, ignition, typed.Ticked("dropped"), typed.Ticked("insulatorCracked"), wear);
        if (!typed.Asked || typed.Problems.Any || EngineCalls.Plug(call, typed.Problems) is not { } answer)
            return new(typed, ignition, wear, null, []);
        var limits = PlugLimits.Of(ignition);
        return new(typed, ignition, wear, gap,
        [
            ("Resistance", ohms is null ? PlugJudge.Resistance(limits, null) : answer.Resistance.ToJudgement()),
            ("Gap", gap is null ? PlugJudge.Gap(limits, null) : answer.Gap.ToJudgement()),
            ("Condition", answer.Condition.ToJudgement()),
        ]);
    }
}
