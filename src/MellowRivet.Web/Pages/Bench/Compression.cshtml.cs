using MellowRivet.Core.Compression;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>A compression test without an aircraft.</summary>
[Needs(Right.Look)]
public sealed class BenchCompressionModel : BenchPage
{
    public const int Cylinders = 6;

    public CompressionSchool School { get; private set; }
    public IReadOnlyList<(int Cylinder, double Psi, double? LeakArea, Judgement Judgement)> Answer { get; private set; } = [];
    public double? Spread { get; private set; }
    public Judgement? Overall { get; private set; }

    public void OnGet()
    {
        School = Choice<CompressionSchool>("limitSet") ?? CompressionSchool.SixtyOfEighty;
        var readings = Enumerable.Range(1, Cylinders).Where(number => Typed($"psi{number}") is not null)
            .Select(number => new ReadingCall(number, Number($"psi{number}"),
                new Leaks(Enum.GetValues<LeakPath>().Where(path => Ticked($"leak{number}-{path}"))))).ToList();
        foreach (var (reading, index) in readings.Select((reading, index) => (reading, index)))
            Call($"readings[{index}].psi", $"psi{reading.Cylinder}", $"Cylinder {reading.Cylinder}");
        foreach (var number in Enumerable.Range(1, Cylinders))
            Call($"psi{number}", $"psi{number}", $"Cylinder {number}");
        var call = new CompressionCall(School, Number("supplyPsi"), Number("ambientPsi"), Number("dayOrificePsi"),
            Typed("hot") is not "false", Ticked("secondTry"), readings);
        if (Problems.Any || readings.Count == 0)
            return;
        if (BenchApi.Compression(call, Problems) is not { } answer)
            return;
        Answer = [.. answer.Cylinders.Select(one => (one.Cylinder, one.Psi, one.LeakArea, one.Judgement.ToJudgement()))];
        (Spread, Overall) = (answer.SpreadPsi, answer.Overall.ToJudgement());
    }
}
