using MellowRivet.Core.Carburettors;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Web.Api;

/// <summary>The stateless calls of the engine's bench. The pages under Bench answer with the same.</summary>
internal static class EngineCalls
{
    public static void MapEngine(this RouteGroupBuilder bench)
    {
        bench.MapPost("/bench/exhaust-pressure", (HttpRequest request) => BenchBody.AnswerAsync<ExhaustCall>(request, Exhaust))
            .Accepts<ExhaustCall>("application/json").Produces<JudgementAnswer>().ProducesValidationProblem()
            .WithName("BenchExhaustPressure")
            .WithSummary("Judges an exhaust's pressure test by its bubbles; above the caution's pressure it is refused as dangerous.");
        bench.MapPost("/bench/pressure-altitude", (HttpRequest request) => BenchBody.AnswerAsync<AltitudeCall>(request, Altitude))
            .Accepts<AltitudeCall>("application/json").Produces<AltitudeAnswer>().ProducesValidationProblem()
            .WithName("BenchPressureAltitude")
            .WithSummary("Oil pressure against altitude before and after a change, from as few readings as one on each side.");
        bench.MapPost("/bench/plug", (HttpRequest request) => BenchBody.AnswerAsync<PlugCall>(request, Plug))
            .Accepts<PlugCall>("application/json").Produces<PlugAnswer>().ProducesValidationProblem()
            .WithName("BenchPlug").WithSummary("Judges a spark plug's resistance, gap and condition.");
        bench.MapPost("/bench/plug-rotation", (HttpRequest request) => BenchBody.AnswerAsync<RotationCall>(request, Rotation))
            .Accepts<RotationCall>("application/json").Produces<RotationAnswer>().ProducesValidationProblem()
            .WithName("BenchPlugRotation").WithSummary("Plans a plug rotation in which each plug changes row and polarity.");
        bench.MapPost("/bench/magneto", (HttpRequest request) => BenchBody.AnswerAsync<MagnetoCall>(request, Magneto))
            .Accepts<MagnetoCall>("application/json").Produces<Dictionary<string, JudgementAnswer>>().ProducesValidationProblem()
            .WithName("BenchMagneto").WithSummary("Judges the values of a magneto bench inspection, each under its own name.");
        bench.MapPost("/bench/floats", (HttpRequest request) => BenchBody.AnswerAsync<FloatsCall>(request, Floats))
            .Accepts<FloatsCall>("application/json").Produces<FloatsAnswer>().ProducesValidationProblem()
            .WithName("BenchFloats")
            .WithSummary("Judges pairs of carburettor floats by weight, and asks for a re-weigh where the scale contradicts itself.");
    }

    private const int MostAltitudes = 500;

    public static AltitudeAnswer? Altitude(AltitudeCall call, Problems problems)
    {
        IReadOnlyList<AltitudePoint> Points(string field, IReadOnlyList<AltitudePointCall?>? points)
        {
            if (points is not { Count: <= MostAltitudes })
                problems.Add(field, $"Up to {MostAltitudes} points with feet and psi are wanted.");
            return [.. (points ?? []).Take(MostAltitudes).Select((point, index) => new AltitudePoint(
                problems.Number($"{field}[{index}].feet", point?.Feet, -2_000, 60_000, "ft", 0),
                problems.Number($"{field}[{index}].psi", point?.Psi, 0, 500, "psi", 0)))];
        }

        var (before, after) = (Points("before", call.Before), Points("after", call.After));
        double? at = call.AtFeet is { } feet ? problems.Number("atFeet", feet, -2_000, 60_000, "ft", 0) : null;
        if (problems.Any)
            return null;
        var said = AltitudeComparison.Of(before, after, at);
        return new(new(said.Before?.AtSeaLevel, said.Before?.PsiPerFoot * 1_000, before.Count),
            new(said.After?.AtSeaLevel, said.After?.PsiPerFoot * 1_000, after.Count),
            said.Psi is { } gain ? new(said.Feet!.Value, gain, gain - said.Half, gain + said.Half) : null, said.Why);
    }

    public static JudgementAnswer? Exhaust(ExhaustCall call, Problems problems)
    {
        double Psi(string field, double? value)
        {
            if (value is > ExhaustPressure.Most)
                problems.Add(field, ExhaustPressure.Danger);
            return problems.Number(field, value is > ExhaustPressure.Most && double.IsFinite(value.Value)
                ? ExhaustPressure.Most
                : value, 0, ExhaustPressure.Most, "psi", ExhaustPressure.Usual);
        }

        var psi = Psi("psi", call.Psi);
        if (call.Bubbles is null)
            problems.Add("bubbles", "true or false is wanted: whether it bubbled anywhere.");
        (double, bool?)? before = call.Before is { } earlier ? (Psi("before.psi", earlier.Psi), earlier.Bubbles) : null;
        return problems.Any ? null : JudgementAnswer.Of(ExhaustPressure.Judge(psi, call.Bubbles, before));
    }

    public static PlugAnswer? Plug(PlugCall call, Problems problems)
    {
        if (call.Ignition is null)
            problems.Add("ignition", "One of magneto or highEnergy is wanted.");
        var ohms = problems.Number("ohms", call.Ohms, 0, 1e9, "Ω", 0);
        var gap = problems.Number("gapInches", call.GapInches, 0, 0.2, "in", 0);
        var limits = LimitsOf(call, problems);
        if (problems.Any)
            return null;
        var judged = PlugJudge.Judge(limits,
            new(ohms, gap, call.Dropped ?? false, call.InsulatorCracked ?? false, call.ElectrodeWear ?? ElectrodeWear.None));
        return new(JudgementAnswer.Of(judged.Resistance), JudgementAnswer.Of(judged.Gap), JudgementAnswer.Of(judged.Condition),
            JudgementAnswer.Of(judged.Overall));
    }

    private static PlugLimits LimitsOf(PlugCall call, Problems problems)
    {
        double? Own(string field, double? value, double most, string unit) =>
            value is null ? null : problems.Number($"limits.{field}", value, 0, most, unit, 0);
        var limits = PlugLimits.Of(call.Ignition ?? IgnitionKind.Magneto)
            .With(Own("ohmsWatch", call.Limits?.OhmsWatch, 1e9, "Ω"), Own("ohmsReject", call.Limits?.OhmsReject, 1e9, "Ω"),
            Own("gapMinInches", call.Limits?.GapMinInches, 0.2, "in"), Own("gapMaxInches", call.Limits?.GapMaxInches, 0.2, "in"));
        if (limits.OhmsWatch > limits.OhmsReject)
            problems.Add("limits.ohmsWatch", $"At most the limit of rejection, {limits.OhmsReject} Ω, is wanted.");
        if (limits.GapLeast > limits.GapMost)
            problems.Add("limits.gapMinInches", $"At most the greatest gap, {limits.GapMost} in, is wanted.");
        return limits;
    }

    public static RotationAnswer? Rotation(RotationCall call, Problems problems)
    {
        if (call.Pattern is null)
            problems.Add("pattern", "One of nextInFiringOrder or swapPairs is wanted.");
        if (call.Cylinders is not (>= 2 and <= 24))
            problems.Add("cylinders", "A number of cylinders from 2 to 24 is wanted.");
        else if (call.FiringOrder is not { } order || !order.Order().SequenceEqual(Enumerable.Range(1, call.Cylinders.Value)))
            problems.Add("firingOrder", $"Each cylinder from 1 to {call.Cylinders} once is wanted, in the order they fire.");
        if (problems.Any)
            return null;
        var known = call.TopIgnition ?? call.BottomIgnition;
        var (plan, refusal) = PlugRotation.Plan(call.FiringOrder!, call.Pattern!.Value, known is null
            ? null
            : new(call.TopIgnition ?? known.Value, call.BottomIgnition ?? known.Value));
        if (refusal is not null)
            problems.Add(refusal.Field, refusal.Message);
        var halfSaid = call.TopIgnition is null != call.BottomIgnition is null;
        return plan is null ? null : new([.. plan.Moves.Select(move => new MoveAnswer(move.From.ToString(), move.To.ToString()))],
            halfSaid ? [.. plan.Warnings, "Only one row's ignition was said; both were taken for the same. Look before a plug changes row."]
                : plan.Warnings);
    }

    public static Dictionary<string, JudgementAnswer>? Magneto(MagnetoCall call, Problems problems)
    {
        (string Name, double? Value, SheetValue Of, double Most)[] given =
        [
            ("primaryOhms", call.PrimaryOhms, MagnetoSheet.Primary, 1e6),
            ("secondaryOhms", call.SecondaryOhms, MagnetoSheet.Secondary, 1e9),
            ("capacitorMicrofarads", call.CapacitorMicrofarads, MagnetoSheet.Capacitor, 1e3),
            ("pointsOpenDegrees", call.PointsOpenDegrees, MagnetoSheet.PointsOpen, 360),
            ("pointsGapInches", call.PointsGapInches, MagnetoSheet.PointsGap, 1),
            ("retardDegrees", call.RetardDegrees, MagnetoSheet.Retard, 360),
        ];
        var answers = new Dictionary<string, JudgementAnswer>();
        foreach (var (name, value, of, most) in given.Where(one => one.Value is not null))
            answers[name] = JudgementAnswer.Of(of.Band.Judge(problems.Number(name, value, 0, most, of.Band.Unit.Symbol, 0)));
        return answers;
    }

    public static FloatsAnswer? Floats(FloatsCall call, Problems problems)
    {
        if (call.Pairs is not { Count: > 0 and <= 12 })
            problems.Add("pairs", "From 1 to 12 pairs are wanted.");
        var limit = problems.Number("limitGrams", call.LimitGrams ?? FloatJudge.LimitGrams, 0.1, 1_000, "g", FloatJudge.LimitGrams);
        var step = problems.Number("scaleResolutionGrams", call.ScaleResolutionGrams ?? 0.1, 0.001, 10, "g", 0.1);
        var pairs = new List<FloatPair>();
        foreach (var (pair, index) in (call.Pairs ?? []).Take(12).Select((pair, index) => (pair, index)))
        {
            var at = $"pairs[{index}]";
            if (pair?.Grams is not { Count: 2 } grams)
            {
                problems.Add($"{at}.grams", "The weights of two floats are wanted.");
                continue;
            }
            pairs.Add(new(problems.Number($"{at}.grams[0]", grams[0], 0.01, 1_000, "g", 1),
                problems.Number($"{at}.grams[1]", grams[1], 0.01, 1_000, "g", 1),
                pair.TogetherGrams is { } together ? problems.Number($"{at}.togetherGrams", together, 0.01, 2_000, "g", 1) : null));
        }
        return problems.Any ? null
            : new([.. pairs.Select(pair => new PairAnswer(pair.TotalGrams, JudgementAnswer.Of(FloatJudge.Judge(pair, limit, step))))]);
    }
}

internal sealed record PlugCall(double? Ohms, double? GapInches, IgnitionKind? Ignition, bool? Dropped = null,
    bool? InsulatorCracked = null, ElectrodeWear? ElectrodeWear = null, PlugLimitsCall? Limits = null);

internal sealed record PlugLimitsCall(double? GapMinInches, double? GapMaxInches, double? OhmsWatch, double? OhmsReject);

internal sealed record PlugAnswer(JudgementAnswer Resistance, JudgementAnswer Gap, JudgementAnswer Condition, JudgementAnswer Overall);

internal sealed record RotationCall(int? Cylinders, IReadOnlyList<int>? FiringOrder, RotationPattern? Pattern,
    IgnitionKind? TopIgnition = null, IgnitionKind? BottomIgnition = null);

internal sealed record RotationAnswer(IReadOnlyList<MoveAnswer> Moves, IReadOnlyList<string> Warnings);

internal sealed record MoveAnswer(string From, string To);

internal sealed record MagnetoCall(double? PrimaryOhms, double? SecondaryOhms, double? CapacitorMicrofarads, double? PointsOpenDegrees,
    double? PointsGapInches, double? RetardDegrees);

internal sealed record FloatsCall(IReadOnlyList<PairCall?>? Pairs, double? LimitGrams = null, double? ScaleResolutionGrams = null);

internal sealed record PairCall(IReadOnlyList<double?>? Grams, double? TogetherGrams = null);

internal sealed record FloatsAnswer(IReadOnlyList<PairAnswer> Pairs);

internal sealed record PairAnswer(double TotalGrams, JudgementAnswer Judgement);

internal sealed record ExhaustCall(double? Psi, ExhaustBeforeCall? Before, bool? Bubbles);

internal sealed record ExhaustBeforeCall(double? Psi, bool? Bubbles);

internal sealed record AltitudeCall(IReadOnlyList<AltitudePointCall?>? Before, IReadOnlyList<AltitudePointCall?>? After, double? AtFeet);

internal sealed record AltitudePointCall(double? Feet, double? Psi);

/// <summary>Oil pressure before and after: null is what so few readings don't tell.</summary>
internal sealed record AltitudeAnswer(AltitudeLineAnswer Before, AltitudeLineAnswer After, AltitudeGainAnswer? Gain, string Why);

internal sealed record AltitudeLineAnswer(double? InterceptPsi, double? PsiPer1000Feet, int N);

internal sealed record AltitudeGainAnswer(double Feet, double Psi, double? Low, double? High);
