using System.Text;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Devices;
using MellowRivet.Devices.Practice;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>Simulated instruments.</summary>
/// <param name="In">What was typed.</param>
/// <param name="Key">The exercise, or "free"; null for the list of them.</param>
/// <param name="Exercise">The exercise; null in free practice.</param>
/// <param name="Seed">The chance's number, in free practice.</param>
/// <param name="Instruments">The instruments; null for the list.</param>
/// <param name="Taken">What was read so far.</param>
/// <param name="Needle">The gauges of the last reading; null where it was none of a tester.</param>
/// <param name="Answer">The verdict that was said; null for none yet.</param>
/// <param name="Said">What the rules say to it.</param>
public sealed record PracticeView(BenchTyped In, string? Key, Exercise? Exercise, int? Seed, PracticeSet? Instruments,
    IReadOnlyList<TakenReading> Taken, NeedleDrawing? Needle, string? Answer, PracticeSaid? Said) : BenchView(In)
{
    public string Self => $"/bench/practice/{Key}";
}

/// <summary>
/// Simulated instruments: a exercise, or an engine by chance. What was taken stands in the address; nothing is kept.
/// </summary>
[Needs(Right.Look)]
public sealed class PracticeModel : BenchPage<PracticeView>
{
    private const int MostSeed = 9_999, LongestToken = 40;

    [FromRoute]
    public string? Key { get; set; }

    protected override PracticeView? Answer(BenchTyped typed)
    {
        if (Key is null)
            return new(typed, null, null, null, null, [], null, null, null);
        int? seed = Key == "free" ? Math.Clamp((int)(TypedNumber.Parse(typed.Text("seed")) ?? 1), 1, MostSeed) : null;
        var practised = Exercises.Find(Key);
        if ((practised?.Instruments ?? (seed is { } chance ? Exercises.Free(chance) : null)) is not { } set)
            return null;
        var tokens = typed.All("r").Append(NewToken(typed)).OfType<string>().Where(token => token.Length < LongestToken).Distinct()
            .Take(PracticeReader.Most);
        List<TakenReading> taken = [.. tokens.Select(token => PracticeReader.Take(set, token)).OfType<TakenReading>()];
        var answer = practised?.Answers.FirstOrDefault(answer => answer.Key == typed.Text("answer"))?.Key;
        return new(typed, Key, practised, seed, set, taken,
            taken.Count > 0 && set.Tester is { } tester ? NeedleDrawing.Of(tester, taken[^1].Token) : null, answer,
            answer is null ? null : practised!.Say(answer, taken));
    }

    // What the hand just reached for, as a token.
    private static string? NewToken(BenchTyped typed) => typed.Text("take") switch
    {
        "compression" when typed.Text("cylinder") is { } cylinder =>
            $"c-{cylinder}-{typed.Text("warmth") ?? "hot"}-{typed.Text("crank") ?? "0"}-{(typed.Ticked("rocked") ? "rocked" : "still")}",
        "plug" when typed.Text("hole") is { } hole => $"p-{hole}",
        "floats" when typed.Text("floats") is { } floats => $"f-{floats}",
        "cable" when typed.Text("cable") is { } cable => $"t-{cable}",
        _ => null,
    };

    /// <summary>A log of the simulated monitor, to practise taking one in.</summary>
    public IActionResult OnGetLog(int seed = 1) =>
        File(new UTF8Encoding(true).GetPreamble().Concat(Encoding.UTF8.GetBytes(new SimulatedEngineMonitor(Math.Clamp(seed, 1,
            MostSeed), 1 + seed % 4).Csv(30))).ToArray(),
            "text/csv", $"practice-log-{Math.Clamp(seed, 1, MostSeed)}.csv");
}
