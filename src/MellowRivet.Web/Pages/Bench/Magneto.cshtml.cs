using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.People;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>A magneto's values on the bench.</summary>
[Needs(Right.Look)]
public sealed class BenchMagnetoModel : BenchPage
{
    public static IReadOnlyList<(string Field, SheetValue Of)> Fields { get; } =
    [
        ("primaryOhms", MagnetoSheet.Primary), ("secondaryOhms", MagnetoSheet.Secondary), ("capacitorMicrofarads", MagnetoSheet.Capacitor),
        ("pointsOpenDegrees", MagnetoSheet.PointsOpen), ("pointsGapInches", MagnetoSheet.PointsGap), ("retardDegrees", MagnetoSheet.Retard),
    ];

    public IReadOnlyDictionary<string, (Judgement Judgement, double Value)> Answer { get; private set; } =
        new Dictionary<string, (Judgement, double)>();

    public void OnGet()
    {
        var typed = Fields.ToDictionary(field => field.Field, field => Number(field.Field));
        if (EngineCalls.Magneto(
            new(typed["primaryOhms"], typed["secondaryOhms"], typed["capacitorMicrofarads"], typed["pointsOpenDegrees"],
                typed["pointsGapInches"], typed["retardDegrees"]), Problems) is { } answer)
            Answer = answer.Where(one => Problem(one.Key) is null)
                .ToDictionary(one => one.Key, one => (one.Value.ToJudgement(), typed[one.Key]!.Value));
    }
}
