using MellowRivet.Core.Compression;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>One cylinder's answer.</summary>
/// <param name="Cylinder">Its number.</param>
/// <param name="Psi">What it held, psi.</param>
/// <param name="LeakArea">Its leak, in areas of the master orifice; null where it has no end.</param>
/// <param name="Judgement">How it is judged.</param>
public sealed record BenchCylinder(int Cylinder, double Psi, double? LeakArea, Judgement Judgement);

/// <summary>A compression test.</summary>
/// <param name="In">What was typed.</param>
/// <param name="School">By which school it is judged.</param>
/// <param name="Cylinders">The answer by cylinder.</param>
/// <param name="Spread">How far the cylinders lie apart, psi.</param>
/// <param name="Overall">The answer for the engine; null where nothing was asked.</param>
public sealed record BenchCompressionView(BenchTyped In, CompressionSchool School, IReadOnlyList<BenchCylinder> Cylinders, double? Spread,
    Judgement? Overall) : BenchView(In)
{
    public const int Most = 6;
}

/// <summary>A compression test without an aircraft.</summary>
[Needs(Right.Look)]
public sealed class BenchCompressionModel : BenchPage<BenchCompressionView>
{
    // 76/80 says the supply again: it has to be the one above.
    private static double? Held(BenchTyped typed, int number)
    {
        var supply = typed.Number("supplyPsi") is > 0 and < 1_000 and { } psi ? new Psi(psi) : new Psi(80);
        var read = TypedReading.Parse(typed.Text($"psi{number}"), supply);
        if (read.Problem is { } problem)
            typed.Problems.Add($"psi{number}", problem);
        return read.Held?.Value;
    }

    protected override BenchCompressionView? Answer(BenchTyped typed)
    {
        var school = typed.Choice<CompressionSchool>("limitSet") ?? CompressionSchool.SixtyOfEighty;
        var numbers = Enumerable.Range(1, BenchCompressionView.Most).ToList();
        var readings = numbers.Where(number => typed.Text($"psi{number}") is not null)
            .Select(number => new ReadingCall(number, Held(typed, number),
                new Leaks(Enum.GetValues<LeakPath>().Where(path => typed.Ticked($"leak{number}-{path}"))))).ToList();
        foreach (var (index, reading) in readings.Index())
            typed.Call($"readings[{index}].psi", $"psi{reading.Cylinder}", $"Cylinder {reading.Cylinder}");
        foreach (var number in numbers)
            typed.Call($"psi{number}", $"psi{number}", $"Cylinder {number}");
        var call = new CompressionCall(school, typed.Number("supplyPsi"), typed.Number("ambientPsi"), typed.Number("dayOrificePsi"),
            typed.Text("hot") is not "false", typed.Ticked("secondTry"), readings);
        return typed.Problems.Any || readings.Count == 0 || BenchApi.Compression(call, typed.Problems) is not { } answer
            ? new(typed, school, [], null, null)
            : new(typed, school,
                [.. answer.Cylinders.Select(one => new BenchCylinder(one.Cylinder, one.Psi, one.LeakArea, one.Judgement.ToJudgement()))],
                answer.SpreadPsi, answer.Overall.ToJudgement());
    }
}
