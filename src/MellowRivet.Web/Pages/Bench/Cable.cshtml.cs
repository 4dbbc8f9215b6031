using System.Globalization;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>A cable's tension.</summary>
/// <param name="In">What was typed.</param>
/// <param name="Target">What the table gives at this temperature, pounds; null where it can't be told.</param>
/// <param name="Judged">The answer; null where nothing was asked.</param>
public sealed record BenchCableView(BenchTyped In, double? Target, Judgement? Judged) : BenchView(In);

/// <summary>A cable's tension by a table of temperatures.</summary>
[Needs(Right.Look)]
public sealed class BenchCableModel : BenchPage<BenchCableView>
{
    protected override BenchCableView? Answer(BenchTyped typed)
    {
        var rows = (typed.Text("table") ?? "").Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(line => Row(line, typed)).ToList();
        var call = new CableCall(typed.Number("pounds"), typed.Number("celsius"), rows, typed.Number("tolerancePounds"));
        return typed.Problems.Any || call.Pounds is null || call.Celsius is null || rows.Count == 0
            || BenchApi.Cable(call, typed.Problems) is not { } answer
            ? new(typed, null, null)
            : new(typed, answer.TargetPounds, answer.Judgement.ToJudgement());
    }

    private static CableRowCall? Row(string line, BenchTyped typed)
    {
        var numbers = line.Split((char[])[' ', '\t', ';'], StringSplitOptions.RemoveEmptyEntries).Select(TypedNumber.Parse).ToList();
        if (numbers is [{ } celsius, { } pounds])
            return new(celsius, pounds);
        typed.Problems.Add("table", string.Create(CultureInfo.InvariantCulture,
            $"“{line}”: a row is the temperature in °C and the tension in lb, such as 15 38."));
        return null;
    }
}
