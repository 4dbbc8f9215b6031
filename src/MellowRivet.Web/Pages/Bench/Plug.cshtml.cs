using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;
using MellowRivet.Core.Plugs;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>One plug on the bench.</summary>
[Needs(Right.Look)]
public sealed class BenchPlugModel : BenchPage
{
    public IgnitionKind Ignition { get; private set; }
    public ElectrodeWear Wear { get; private set; }
    public PlugLimits Limits => PlugLimits.Of(Ignition);
    public IReadOnlyList<(string Name, Judgement Judgement)> Answer { get; private set; } = [];
    public double? Gap { get; private set; }

    public void OnGet()
    {
        Ignition = Choice<IgnitionKind>("ignition") ?? IgnitionKind.Magneto;
        Wear = Choice<ElectrodeWear>("electrodeWear") ?? ElectrodeWear.None;
        var (ohms, gap) = (Number("ohms"), Number("gapInches"));
        if (!Asked || Problems.Any)
            return;
        // On paper a field may stay empty: what wasn't measured is said to be unknown. What is typed is judged as the open call does.
        if (EngineCalls.Plug(new(ohms ?? 0, gap ?? 0, Ignition, Ticked("dropped"), Ticked("insulatorCracked"), Wear), Problems)
            is not { } answer)
            return;
        Gap = gap;
        var resistance = ohms is null ? PlugJudge.Resistance(Limits, null) : answer.Resistance.ToJudgement();
        var gapSaid = gap is null ? PlugJudge.Gap(Limits, null) : answer.Gap.ToJudgement();
        Answer = [("Resistance", resistance), ("Gap", gapSaid), ("Condition", answer.Condition.ToJudgement())];
    }
}
