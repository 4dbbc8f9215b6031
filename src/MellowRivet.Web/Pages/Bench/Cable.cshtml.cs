using System.Globalization;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>A cable's tension by a table of temperatures.</summary>
[Needs(Right.Look)]
public sealed class BenchCableModel : BenchPage
{
    public double? Target { get; private set; }
    public Judgement? Judged { get; private set; }

    public void OnGet()
    {
        var rows = (Typed("table") ?? "").Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Select(Row)
            .ToList();
        var call = new CableCall(Number("pounds"), Number("celsius"), rows, Number("tolerancePounds"));
        if (Problems.Any || call.Pounds is null || call.Celsius is null || rows.Count == 0)
            return;
        if (BenchApi.Cable(call, Problems) is { } answer)
            (Target, Judged) = (answer.TargetPounds, answer.Judgement.ToJudgement());
    }

    private CableRowCall? Row(string line)
    {
        var numbers = line.Split((char[])[' ', '\t', ';'], StringSplitOptions.RemoveEmptyEntries).Select(TypedNumber.Parse).ToList();
        if (numbers is [{ } celsius, { } pounds])
            return new(celsius, pounds);
        Problems.Add("table", string.Create(CultureInfo.InvariantCulture,
            $"“{line}”: a row is the temperature in °C and the tension in lb, such as 15 38."));
        return null;
    }
}
