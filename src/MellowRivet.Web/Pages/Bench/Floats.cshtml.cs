using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>Two carburettors' floats.</summary>
/// <param name="In">What was typed.</param>
/// <param name="Weighed">The answer by pair, grams.</param>
public sealed record BenchFloatsView(BenchTyped In, IReadOnlyList<(int Number, double Total, Judgement Judgement)> Weighed) : BenchView(In)
{
    public const int Pairs = 2;

    public static double UsualLimit => FloatJudge.LimitGrams;
}

/// <summary>Two carburettors' floats on the scale.</summary>
[Needs(Right.Look)]
public sealed class BenchFloatsModel : BenchPage<BenchFloatsView>
{
    protected override BenchFloatsView? Answer(BenchTyped typed)
    {
        var limit = typed.Number("limitGrams");
        var step = typed.Number("scaleResolutionGrams");
        var pairs = Enumerable.Range(1, BenchFloatsView.Pairs)
            .Select(pair => (Number: pair, First: typed.Number($"first{pair}"), Second: typed.Number($"second{pair}"),
                Together: typed.Number($"together{pair}")))
            .Where(pair => (pair.First ?? pair.Second ?? pair.Together) is not null).ToList();
        foreach (var (index, pair) in pairs.Index())
        {
            typed.Call($"pairs[{index}].grams[0]", $"first{pair.Number}", $"Pair {pair.Number}, one float");
            typed.Call($"pairs[{index}].grams[1]", $"second{pair.Number}", $"Pair {pair.Number}, the other");
            typed.Call($"pairs[{index}].togetherGrams", $"together{pair.Number}", $"Pair {pair.Number}, together");
        }
        var call = new FloatsCall([.. pairs.Select(pair => new PairCall([pair.First, pair.Second], pair.Together))], limit, step);
        return typed.Problems.Any || pairs.Count == 0 || EngineCalls.Floats(call, typed.Problems) is not { } answer
            ? new(typed, [])
            : new(typed, [.. pairs.Zip(answer.Pairs, (pair, said) => (pair.Number, said.TotalGrams, said.Judgement.ToJudgement()))]);
    }
}
