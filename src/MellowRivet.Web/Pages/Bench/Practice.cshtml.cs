using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Devices;
using MellowRivet.Devices.Practice;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>
/// Simulated instruments: a practice case, or an engine by chance. What was taken stands in the address; nothing is kept.
/// </summary>
[Needs(Right.Look)]
public sealed class PracticeModel : BenchPage
{
    private const int MostSeed = 9_999;

    [FromRoute]
    public string? Key { get; set; }

    public PracticeCase? Case { get; private set; }

    /// <summary>The chance's number, in free practice.</summary>
    public int? Seed { get; private set; }

    public PracticeSet? Instruments { get; private set; }
    public IReadOnlyList<TakenReading> Taken { get; private set; } = [];
    public NeedleDrawing? Needle { get; private set; }
    public PracticeSaid? Said { get; private set; }
    public string? Answer { get; private set; }
    public string Self => $"/bench/practice/{Key}";

    public IActionResult OnGet()
    {
        if (Key is null)
            return Page();
        Seed = Key == "free" ? Math.Clamp((int)(TypedNumber.Parse(Typed("seed")) ?? 1), 1, MostSeed) : null;
        Case = PracticeCases.Find(Key);
        Instruments = Case?.Instruments ?? (Seed is { } seed ? PracticeCases.Free(seed) : null);
        if (Instruments is null)
            return NotFound();
        var tokens = Request.Query["r"].OfType<string>().Append(NewToken()).OfType<string>().Where(token => token.Length < 40).Distinct()
            .Take(PracticeReader.Most);
        Taken = [.. tokens.Select(token => PracticeReader.Take(Instruments, token)).OfType<TakenReading>()];
        if (Taken.Count > 0 && Instruments.Tester is { } tester)
            Needle = NeedleDrawing.Of(tester, Taken[^1].Token);
        Answer = Case?.Answers.FirstOrDefault(answer => answer.Key == Typed("answer"))?.Key;
        Said = Answer is null ? null : Case!.Say(Answer, Taken);
        return Page();
    }

    // What the hand just reached for, as a token.
    private string? NewToken() => Typed("take") switch
    {
        "compression" when Typed("cylinder") is { } cylinder =>
            $"c-{cylinder}-{Typed("warmth") ?? "hot"}-{Typed("crank") ?? "0"}-{(Ticked("rocked") ? "rocked" : "still")}",
        "plug" when Typed("hole") is { } hole => $"p-{hole}",
        "floats" when Typed("floats") is { } floats => $"f-{floats}",
        "cable" when Typed("cable") is { } cable => $"t-{cable}",
        _ => null,
    };

    /// <summary>A log of the simulated monitor, to practise taking one in.</summary>
    public IActionResult OnGetLog(int seed = 1) =>
        File(System.Text.Encoding.UTF8.GetBytes(new SimulatedEngineMonitor(Math.Clamp(seed, 1, MostSeed), 1 + seed % 4).Csv(30)),
            "text/csv", $"practice-log-{Math.Clamp(seed, 1, MostSeed)}.csv");
}
