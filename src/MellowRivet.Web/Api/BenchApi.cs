using System.Text.Json.Serialization;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Trends;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Api;

/// <summary>The stateless calls: the product's judgement for a shop's own programs, without signing in.</summary>
internal static class BenchApi
{
    private const int MostPoints = 500, LongestMeasure = 60;

    public static void MapBench(this WebApplication app)
    {
        var bench = app.MapGroup("/api/v1").RequireRateLimiting("bench").OpenToAll("arithmetic: it keeps and reads nothing of the shop");
        bench.MapPost("/bench/compression", (HttpRequest request) => BenchBody.AnswerAsync<CompressionCall>(request, Compression))
            .Accepts<CompressionCall>("application/json").Produces<CompressionAnswer>().ProducesValidationProblem()
            .WithName("BenchCompression").WithSummary("Judges a differential compression test.");
        bench.MapPost("/bench/torque", (HttpRequest request) => BenchBody.AnswerAsync<TorqueCall>(request, Torque))
            .Accepts<TorqueCall>("application/json").Produces<TorqueAnswer>().ProducesValidationProblem()
            .WithName("BenchTorque")
            .WithSummary("What a torque wrench is set to with an extension in line (AC 43.13-1B fig. 7-2, from memory).");
        bench.MapPost("/bench/cable-tension", (HttpRequest request) => BenchBody.AnswerAsync<CableCall>(request, Cable))
            .Accepts<CableCall>("application/json").Produces<CableAnswer>().ProducesValidationProblem()
            .WithName("BenchCableTension")
            .WithSummary("Judges a cable's tension by a table of tension by temperature, linear between its rows and silent outside them.");
        bench.MapPost("/bench/wear", (HttpRequest request) => BenchBody.AnswerAsync<WearCall>(request, ReadWear))
            .Accepts<WearCall>("application/json").Produces<WearAnswer>().ProducesValidationProblem()
            .WithName("BenchWear").WithSummary("Hours left until something worn meets its minimum.");
        bench.MapGet("/bench/measure", Measure).Produces<MeasureAnswer>().ProducesValidationProblem().WithName("BenchMeasure")
            .WithSummary("Reads a measure as hands write it: 4.7k, open, 35 ft-lb, 18 thou, 1 1/2, a comma for a point.");
        bench.MapEngine();
        bench.MapFinding();
        bench.MapEstimate();
        bench.MapSchedule();
        bench.MapSurvey();
        bench.MapPost("/trend", (HttpRequest request) => BenchBody.AnswerAsync<TrendCall>(request, ReadTrend))
            .Accepts<TrendCall>("application/json").Produces<TrendAnswer>().ProducesValidationProblem()
            .WithName("Trend").WithSummary("Reads a series of values against time in service as a trend.");
    }

    public static CompressionAnswer? Compression(CompressionCall call, Problems problems)
    {
        var supply = new Psi(problems.Number("supplyPsi", call.SupplyPsi ?? 80, 20, 150, "psi", 80));
        var ambient = new Psi(problems.Number("ambientPsi", call.AmbientPsi
            ?? Psi.StandardAmbient.Value, 8, 16, "psi absolute", Psi.StandardAmbient.Value));
        Psi? orifice = call.DayOrificePsi is { } day ? new Psi(problems.Number("dayOrificePsi", day, 0, supply.Value, "psi", 0)) : null;
        if (call.LimitSet is null)
            problems.Add("limitSet", "One of sixtyOfEighty, orificeOfTheDay or quarterDrop is wanted.");
        if (call.Readings is not { Count: > 0 and <= 24 })
            problems.Add("readings", "From 1 to 24 readings are wanted.");

        var readings = new List<CompressionReading>();
        foreach (var (reading, index) in (call.Readings ?? []).Select((reading, index) => (reading, index)))
        {
            if (reading?.Cylinder is not (>= 1 and <= 24))
                problems.Add($"readings[{index}].cylinder", "A cylinder number from 1 to 24 is wanted.");
            else if (readings.Any(other => other.Cylinder == reading.Cylinder))
                problems.Add($"readings[{index}].cylinder", $"Cylinder {reading.Cylinder} stands twice.");
            var held = new Psi(problems.Number($"readings[{index}].psi", reading?.Psi, 0, supply.Value, "psi, the supply,", 0));
            readings.Add(new(reading?.Cylinder ?? 0, held, reading?.Leak ?? Leaks.None, call.SecondTry ?? false));
        }
        if (problems.Any)
            return null;

        var assessment = CompressionJudge.Assess(CompressionLimits.Of(call.LimitSet!.Value),
            new(supply, ambient, call.Hot ?? true, orifice), readings);
        return new([.. assessment.Cylinders.Select(cylinder => new CylinderAnswer(
                cylinder.Reading.Cylinder, cylinder.Reading.Held.Value, Finite(cylinder.LeakArea),
                JudgementAnswer.Of(cylinder.Judgement)))],
            assessment.SpreadPsi, JudgementAnswer.Of(assessment.Overall));
    }

    // Asked while somebody types: what can't be read is an answer, too.
    private static IResult Measure(string? text, string? unit)
    {
        var problems = new Problems();
        if (text is not { Length: > 0 and <= LongestMeasure })
            problems.Add("text", $"The measure as written, in 1 to {LongestMeasure} characters, is wanted.");
        if (Unit.Find(unit) is not { } wanted)
            problems.Add("unit", $"One of {string.Join(", ", Unit.All)} is wanted.");
        else if (!problems.Any)
        {
            var read = MeasureText.Read(text, wanted);
            return Results.Ok(new MeasureAnswer(read.Value, wanted.Symbol, read.Understood, read.Problem));
        }
        return Results.ValidationProblem(problems.ByField, title: "Some fields can't be taken as they are.");
    }

    private static TrendAnswer? ReadTrend(TrendCall call, Problems problems)
    {
        if (call.Points is null || call.Points.Count > MostPoints)
            problems.Add("points", $"Up to {MostPoints} points are wanted.");
        var points = (call.Points ?? []).Take(MostPoints).Select((point, index) => new TrendPoint(
            problems.Number($"points[{index}].hours", point?.Hours, 0, 999_999, "h", 0),
            problems.Number($"points[{index}].value", point?.Value, -1e9, 1e9, "", 0))).ToList();
        var events = (call.Events ?? []).Select((done, index) => new TrendEvent(
            problems.Number($"events[{index}].hours", done?.Hours, 0, 999_999, "h", 0), done?.Restarts ?? false)).ToList();
        double? limit = call.Limit is { } level ? problems.Number("limit", level, -1e9, 1e9, "", 0) : null;
        if (problems.Any)
            return null;

        var trend = Trend.Read(points, events, limit, call.Direction ?? Direction.Falling);
        return new(trend.N, trend.Line?.Slope * 100, trend.Line?.Intercept, trend.Line?.Noise,
            trend.Next is { } next ? new(next.Expected, next.Low, next.High) : null, trend.LastIsUnusual, trend.Crossing, trend.Why);
    }

    public static TorqueAnswer? Torque(TorqueCall call, Problems problems)
    {
        var unit = call.Unit switch { TorqueUnit.FtLb => Unit.FootPound, TorqueUnit.Nm => Unit.NewtonMetre, _ => Unit.InchPound };
        if (call.Unit is null)
            problems.Add("unit", "One of inLb, ftLb or Nm is wanted.");
        var wanted = problems.Number("wanted", call.Wanted, 0, 100_000, unit.Symbol, 0);
        var length = problems.Number("wrenchLengthInches", call.WrenchLengthInches, 0.5, 80, "in", 10);
        var extension = problems.Number("extensionInches", call.ExtensionInches ?? 0, 0, 40, "in", 0);
        if (problems.Any)
            return null;
        var setting = TorqueWrench.Setting(wanted, length, extension);
        return new(setting, call.Unit!.Value, unit.To(Unit.InchPound, setting), unit.To(Unit.FootPound, setting),
            unit.To(Unit.NewtonMetre, setting));
    }

    public static CableAnswer? Cable(CableCall call, Problems problems)
    {
        var rows = (call.Table ?? []).Take(60).Select((row, index) => new CableRow(
            problems.Number($"table[{index}].celsius", row?.Celsius, -80, 80, "°C", 0),
            problems.Number($"table[{index}].pounds", row?.Pounds, 0.1, 2_000, "lb", 1))).ToList();
        var tolerance = problems.Number("tolerancePounds", call.TolerancePounds, 0.1, 200, "lb", 1);
        var tension = problems.Number("pounds", call.Pounds, 0, 10_000, "lb", 0);
        var celsius = problems.Number("celsius", call.Celsius, -80, 80, "°C", 0);
        var table = new CableTable([], rows, tolerance, "the table that was sent");
        if (!problems.Any && table.Fault() is { } fault)
            problems.Add("table", fault.Message);
        if (!problems.Any && table.Target(celsius) is null)
            problems.Add("celsius", $"The table runs {table.Reach} and says nothing outside it.");
        return problems.Any ? null : new(table.Target(celsius)!.Value, JudgementAnswer.Of(table.At(celsius)!.Judge(tension)));
    }

    private static WearAnswer? ReadWear(WearCall call, Problems problems)
    {
        if (call.Points is not { Count: > 0 and <= MostPoints })
            problems.Add("points", $"From 1 to {MostPoints} points are wanted.");
        var points = (call.Points ?? []).Take(MostPoints).Select((point, index) => new TrendPoint(
            problems.Number($"points[{index}].hours", point?.Hours, 0, 999_999, "h", 0),
            problems.Number($"points[{index}].value", point?.Value, 0, 1e6, "", 0))).ToList();
        var minimum = problems.Number("minimum", call.Minimum, 0, 1e6, "", 0);
        var resolution = problems.Number("resolution", call.Resolution ?? 0, 0, 1e6, "", 0);
        if (problems.Any)
            return null;
        var wear = Wear.Of(points, minimum, resolution);
        return new(wear.N, wear.PerHundredHours, wear.HoursLeft, wear.Earliest, wear.Why);
    }

    private static double? Finite(double value) => double.IsFinite(value) ? value : null;
}

internal sealed record CompressionCall(CompressionSchool? LimitSet, double? SupplyPsi, double? AmbientPsi, double? DayOrificePsi, bool? Hot,
    bool? SecondTry, IReadOnlyList<ReadingCall?>? Readings);

internal sealed record ReadingCall(int? Cylinder, double? Psi, Leaks? Leak);

internal sealed record CompressionAnswer(IReadOnlyList<CylinderAnswer> Cylinders, double? SpreadPsi, JudgementAnswer Overall);

internal sealed record CylinderAnswer(int Cylinder, double Psi, double? LeakArea, JudgementAnswer Judgement);

internal sealed record JudgementAnswer(Verdict Verdict, string Rule, Standing Standing, string Source, double? Margin, string Next)
{
    public static JudgementAnswer Of(Judgement judgement) => new(
        judgement.Verdict, judgement.Rule, judgement.Source.Standing, judgement.Source.Text, judgement.Margin, judgement.Next);

    /// <summary>The same for a page to show.</summary>
    public Judgement ToJudgement() => new(Verdict, Rule, new(Standing, Source), Margin, Next);
}

internal enum TorqueUnit
{
    InLb = 1,
    FtLb,
    [JsonStringEnumMemberName("Nm")] Nm,
}

internal sealed record TorqueCall(double? Wanted, TorqueUnit? Unit, double? WrenchLengthInches, double? ExtensionInches);

internal sealed record TorqueAnswer(double Setting, TorqueUnit Unit, double InLb, double FtLb, double NewtonMetres);

internal sealed record CableCall(double? Pounds, double? Celsius, IReadOnlyList<CableRowCall?>? Table, double? TolerancePounds);

internal sealed record CableRowCall(double? Celsius, double? Pounds);

internal sealed record CableAnswer(double TargetPounds, JudgementAnswer Judgement);

internal sealed record WearCall(IReadOnlyList<PointCall?>? Points, double? Minimum, double? Resolution);

internal sealed record WearAnswer(int N, double? Per100Hours, double? HoursLeft, double? EarliestHoursLeft, string Why);

internal sealed record TrendCall(IReadOnlyList<PointCall?>? Points, IReadOnlyList<EventCall?>? Events, double? Limit, Direction? Direction);

internal sealed record PointCall(double? Hours, double? Value);

internal sealed record EventCall(double? Hours, bool? Restarts);

internal sealed record TrendAnswer(int N, double? SlopePer100Hours, double? Intercept, double? Noise, NextAnswer? Next, bool? LastIsUnusual,
    Crossing? Crossing, string Why);

internal sealed record NextAnswer(double Expected, double Low, double High);

/// <summary>A measure as it was read.</summary>
/// <param name="Value">In the unit that was asked for; null where it can't be read.</param>
/// <param name="Unit">That unit.</param>
/// <param name="Understood">In words, where more than a plain number stood there.</param>
/// <param name="Problem">Why it can't be read; null where it can.</param>
internal sealed record MeasureAnswer(double? Value, string Unit, string? Understood, string? Problem);
