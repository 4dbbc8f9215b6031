using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.People;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>A magneto's values.</summary>
/// <param name="In">What was typed.</param>
/// <param name="Judged">The answer by field.</param>
public sealed record BenchMagnetoView(BenchTyped In, IReadOnlyDictionary<string, (Judgement Judgement, double Value)> Judged)
    : BenchView(In)
{
    public static IReadOnlyList<(string Field, SheetValue Of)> Fields { get; } =
    [
        ("primaryOhms", MagnetoSheet.Primary), ("secondaryOhms", MagnetoSheet.Secondary), ("capacitorMicrofarads", MagnetoSheet.Capacitor),
        ("pointsOpenDegrees", MagnetoSheet.PointsOpen), ("pointsGapInches", MagnetoSheet.PointsGap), ("retardDegrees", MagnetoSheet.Retard),
    ];
}

/// <summary>A magneto's values on the bench.</summary>
[Needs(Right.Look)]
public sealed class BenchMagnetoModel : BenchPage<BenchMagnetoView>
{
    protected override BenchMagnetoView? Answer(BenchTyped typed)
    {
        var of = BenchMagnetoView.Fields.ToDictionary(field => field.Field, field => typed.Number(field.Field));
        var call = new MagnetoCall(of["primaryOhms"], of["secondaryOhms"], of["capacitorMicrofarads"], of["pointsOpenDegrees"],
            of["pointsGapInches"], of["retardDegrees"]);
        return EngineCalls.Magneto(call, typed.Problems) is not { } answer
            ? new(typed, new Dictionary<string, (Judgement, double)>())
            : new(typed, answer.Where(one => typed.Problem(one.Key) is null)
                .ToDictionary(one => one.Key, one => (one.Value.ToJudgement(), of[one.Key]!.Value)));
    }
}
