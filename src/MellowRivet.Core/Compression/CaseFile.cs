using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineLogs;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Core.Compression;

/// <summary>What may be behind a weak cylinder.</summary>
public enum WeakCause { ExhaustValve = 1, IntakeValve, Rings, HeadGasket, Crack, TestItself }

/// <summary>Something that speaks for or against a cause.</summary>
/// <param name="Words">What was found, and where it is on file.</param>
/// <param name="For">How heavily it speaks, by cause; below zero against it.</param>
public sealed record CaseFact(string Words, IReadOnlyDictionary<WeakCause, int> For);

/// <summary>A cause with what speaks for it.</summary>
/// <param name="Cause">The cause.</param>
/// <param name="Weight">The sum of what speaks for and against it.</param>
/// <param name="Why">The facts that count, heaviest first.</param>
public sealed record RankedCause(WeakCause Cause, int Weight, IReadOnlyList<string> Why);

/// <summary>What is known of the cylinder's surroundings, beside its compressions.</summary>
/// <param name="Looks">Looks of the plugs that came out of this cylinder, latest first.</param>
/// <param name="OilUse">The engine's oil use; null where it isn't known.</param>
/// <param name="Cuts">What filters showed, latest first.</param>
/// <param name="Log">The latest log's summary; null without a log.</param>
public sealed record CaseSurroundings(IReadOnlyList<PlugLook> Looks, OilUse? OilUse, IReadOnlyList<FilterCut> Cuts, LogSummary? Log);

/// <summary>
/// The case file of a weak cylinder: every fact on file, the likely causes ranked by what speaks for them, and the next step.
/// The weights are our own reading of common practice: they order the suspicion, they prove nothing.
/// </summary>
public sealed record CaseFile(IReadOnlyList<CaseFact> Facts, IReadOnlyList<RankedCause> Causes)
{
    /// <summary>It holds by its limits: there are no causes to look for.</summary>
    public bool IsHealthy { get; private init; }

    /// <summary>The next step for the likeliest cause; what to find out first where nothing speaks for any.</summary>
    public string Next => IsHealthy ? "It holds: nothing to look for. Its trend says how long." : Causes.Count == 0
        ? "Listen at exhaust, intake and oil filler while the air is on, and note where it leaks: without that "
        + "nothing is likelier than the rest."
        : Causes[0].Cause switch
    {
        WeakCause.ExhaustValve =>
            "Borescope of the exhaust valve’s edge before anything is unbolted. A burning edge: the cylinder comes off. An even one: "
            + "stake or rotate it only as the manual says, fly, test again.",
        WeakCause.IntakeValve =>
            "Borescope of the intake valve and its seat; look for carbon that keeps it open. Test again after an hour’s run.",
        WeakCause.Rings =>
            "Rock it through top dead centre and test again; fly ten hours and test again. Borescope of the barrel for rust and "
            + "scratches. Below the limit after that: the cylinder comes off.",
        WeakCause.HeadGasket => "Pressure-test the cooling system, look for bubbles and coolant in the oil; the head comes off.",
        WeakCause.Crack => "Dye penetrant at the plug holes and between the valves. No flight before it is cleared.",
        _ =>
            "Before any cylinder: the tester’s own orifice, the supply, top dead centre, and whether the engine was hot. "
            + "Then test all of them again.",
    };

    /// <param name="sheet">The engine's compressions at this inspection.</param>
    /// <param name="number">The cylinder.</param>
    /// <param name="history">Its history.</param>
    /// <param name="around">What else is on file.</param>
    public static CaseFile Of(CompressionSheet sheet, int number, CylinderHistory history, CaseSurroundings around)
    {
        var facts = new List<CaseFact>();
        void Fact(string words, params (WeakCause Cause, int Weight)[] speaks) =>
            facts.Add(new(words, speaks.ToDictionary(one => one.Cause, one => one.Weight)));

        var mine = sheet.Cylinders.FirstOrDefault(cylinder => cylinder.Place.Number == number);
        if (mine?.Latest is { } latest)
        {
            var held = $"Holds {latest.Reading.Held}, leak area {latest.LeakArea:0.00}";
            if (!latest.Reading.Leak.Any)
                Fact($"{held}; no leak was noted");
            foreach (var path in latest.Reading.Leak.Paths)
                Fact($"{held}; {Air(path).Words}", (Air(path).Cause, Air(path).Weight));
            if (mine.Tries.Count > 1 && mine.Tries[^1].Value - mine.Tries[0].Value is var gained && gained >= 3)
                Fact($"A further try read {gained:0} psi more", (WeakCause.Rings, 3), (WeakCause.ExhaustValve, -1));
            else if (mine.Tries.Count > 1)
                Fact("A further try read no more", (WeakCause.ExhaustValve, 1), (WeakCause.IntakeValve, 1), (WeakCause.Crack, 1),
                    (WeakCause.Rings, -1));
            if (mine.Tries[^1].Conditions.Hot != true)
                Fact("Tested cold: low on a cold engine is no verdict", (WeakCause.TestItself, 3));
            var mates = sheet.Cylinders.Where(cylinder => cylinder != mine && cylinder.Latest is not null)
                .Select(cylinder => cylinder.Latest!.Reading.Held.Value).ToList();
            if (mates.Count >= 2 && mates.Average() - latest.Reading.Held.Value is var behind)
            {
                if (behind >= 8)
                    Fact($"Its mates hold {behind:0} psi more on average: it is this cylinder", (WeakCause.TestItself, -2));
                else if (sheet.Cylinders.All(cylinder => cylinder.Latest is { } one && one.Reading.Held.Value < 70))
                    Fact("All of its mates read low too", (WeakCause.TestItself, 4));
            }
        }
        if (history.Trend.Line is { Slope: > 0 } line && line.Slope * 100 > 0.02)
            Fact($"Its leak grows by {line.Slope * 100:0.00} × master in 100 h", (WeakCause.ExhaustValve, 1), (WeakCause.Rings, 1));
        if (history.IsWorseThanExpected)
            Fact("The last reading is unusual against its own history: something happened between", (WeakCause.ExhaustValve, 1),
                (WeakCause.Crack, 1));
        foreach (var look in around.Looks.Take(2).GroupBy(look => look))
        {
            var words = $"Plug out of it: {look.Key.InWords()}{(look.Count() > 1 ? ", top and bottom" : "")}";
            if (look.Key == PlugLook.OilWet)
                Fact(words, (WeakCause.Rings, 2));
            else if (look.Key == PlugLook.White)
                Fact(words, (WeakCause.ExhaustValve, 1), (WeakCause.IntakeValve, 1));
            else
                Fact(words);
        }
        if (around.OilUse is { HoursPerLitre: { } per } use)
            Fact($"The engine flies {per:0.0} h on a litre of oil{(use.Trend.Line is { Slope: < 0 } ? ", and falling" : "")}",
                use.Trend.Line is { Slope: < 0 } ? [(WeakCause.Rings, 1)] : []);
        if (around.Cuts is [var cut, ..] && cut.Metal != FilterMetal.None)
            Fact($"Filter: {cut.Metal.InWords()}, {cut.Amount.InWords()}",
                cut is { Metal: FilterMetal.Ferrous, Amount: >= FilterAmount.ManySpecks }
                    ? [(WeakCause.Rings, 2)]
                    : cut.Metal == FilterMetal.Aluminium ? [(WeakCause.Rings, 1)] : []);
        if (around.Log is { HottestCylinder: { } hottest })
            Fact(hottest == number ? $"The hottest cylinder of the last log, {around.Log.GreatestCht:0} °C"
                : $"Not the hottest of the last log: that is {hottest}", hottest == number ? [(WeakCause.ExhaustValve, 1)] : []);

        var causes = Enum.GetValues<WeakCause>()
            .Select(cause => new RankedCause(cause, facts.Sum(fact => fact.For.GetValueOrDefault(cause)),
            [.. facts.Where(fact => fact.For.GetValueOrDefault(cause) != 0).OrderByDescending(fact => fact.For[cause])
                .Select(fact => fact.For[cause] > 0 ? fact.Words : $"against it: {fact.Words}")]))
            .Where(cause => cause.Weight > 0).OrderByDescending(cause => cause.Weight).ToList();
        // A cylinder that holds has nothing to be explained.
        var healthy = mine?.Latest is { Judgement.Verdict: Verdict.Good };
        return new(facts, healthy ? [] : causes) { IsHealthy = healthy };
    }

    private static (string Words, WeakCause Cause, int Weight) Air(LeakPath path) => path switch
    {
        LeakPath.ExhaustValve => ("air at the exhaust pipe", WeakCause.ExhaustValve, 5),
        LeakPath.IntakeValve => ("air at the intake", WeakCause.IntakeValve, 5),
        LeakPath.Rings => ("air at the oil filler", WeakCause.Rings, 5),
        LeakPath.HeadGasket => ("bubbles in the coolant", WeakCause.HeadGasket, 6),
        _ => ("air at a plug hole or the head", WeakCause.Crack, 6),
    };
}

/// <summary>Causes as people say them.</summary>
public static class WeakCauseWords
{
    public static string InWords(this WeakCause cause) => cause switch
    {
        WeakCause.ExhaustValve => "exhaust valve burnt or not seating",
        WeakCause.IntakeValve => "intake valve not seating",
        WeakCause.Rings => "rings stuck or worn, barrel",
        WeakCause.HeadGasket => "head gasket",
        WeakCause.Crack => "crack in the head",
        _ => "the test itself",
    };
}
