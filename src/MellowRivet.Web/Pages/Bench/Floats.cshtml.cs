using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>Two carburettors' floats on the scale.</summary>
[Needs(Right.Look)]
public sealed class BenchFloatsModel : BenchPage
{
    public const int Pairs = 2;

    public IReadOnlyList<(int Number, double Total, Judgement Judgement)> Answer { get; private set; } = [];

    public void OnGet()
    {
        var limit = Number("limitGrams");
        var step = Number("scaleResolutionGrams");
        var typed = Enumerable.Range(1, Pairs)
            .Select(pair => (Number: pair, First: Number($"first{pair}"), Second: Number($"second{pair}"),
                Together: Number($"together{pair}")))
            .Where(pair => (pair.First ?? pair.Second ?? pair.Together) is not null).ToList();
        foreach (var (pair, index) in typed.Select((pair, index) => (pair, index)))
        {
            Call($"pairs[{index}].grams[0]", $"first{pair.Number}", $"Pair {pair.Number}, one float");
            Call($"pairs[{index}].grams[1]", $"second{pair.Number}", $"Pair {pair.Number}, the other");
            Call($"pairs[{index}].togetherGrams", $"together{pair.Number}", $"Pair {pair.Number}, together");
        }
        if (Problems.Any || typed.Count == 0)
            return;
        if (EngineCalls.Floats(new([.. typed.Select(pair => new PairCall([pair.First, pair.Second], pair.Together))], limit, step),
            Problems) is { } answer)
            Answer = [.. typed.Zip(answer.Pairs, (pair, said) => (pair.Number, said.TotalGrams, said.Judgement.ToJudgement()))];
    }

    public static double UsualLimit => FloatJudge.LimitGrams;
}
