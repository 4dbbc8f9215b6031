using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Surveys;

/// <summary>What would change a survey's verdict.</summary>
/// <param name="Words">"If the seller pays 03, cylinder 2".</param>
/// <param name="Verdict">What it would be then.</param>
/// <param name="By">By how much to negotiate then.</param>
public sealed record WhatIf(string Words, SurveyVerdict Verdict, decimal By);

/// <summary>Why a survey's money comes out as it does, and what would change it.</summary>
/// <param name="Money">The money.</param>
/// <param name="House">Whose money it is said in.</param>
public sealed record SurveyReasons(SurveyMoney Money, HouseRules House)
{
    /// <summary>So many reasons decide.</summary>
    public const int Deciding = 3;

    // More than this nobody weighs against one another.
    private const int MostWhatIfs = 4;

    private SurveyQuestion Question => Money.Question;

    /// <summary>The three reasons that decide, the one that weighs most first.</summary>
    public IReadOnlyList<string> Because => [.. All().Take(Deciding)];

    private IEnumerable<string> All()
    {
        foreach (var found in Money.Stops)
            yield return $"{Named(found)} ends it at any price{(found.IsAirworthiness ? ": airworthiness" : "")}";
        if (Money.PassesLimit)
            yield return $"the work likely comes to {Say(Money.Work.Likely)}, above the buyer’s limit of "
                + Say(Question.Limit!.Value);
        if (Money is { Over: { } over, Fair: { } fair })
            yield return over > 0
                ? $"asking {Say(Question.Asking)} is {Say(over)} above a fair {Say(Math.Max(0, fair.Likely))}, "
                    + $"{Share(over / Question.Asking)} of it"
                : $"asking {Say(Question.Asking)} is {(over == 0 ? "the fair price" : $"{Say(-over)} under a fair "
                    + Say(fair.Likely))}";
        else
            yield return "nobody said what such an aircraft fetches in order: without that no price is fair or not";
        foreach (var part in Parts().OrderByDescending(part => Math.Abs(part.Weight)))
            yield return part.Words;
        if (Question.Findings.Count == 0)
            yield return "nothing was found that costs anything";
        if (Money.Due.Likely == 0)
            yield return $"nothing with a cost falls due within {Question.Rules.DueWithinMonths} months";
        if (Money.Reserve == 0)
            yield return "nothing is held in reserve";
        if (Question.Power.Count == 0)
            yield return "no engine is in the sum: its hours or its overhaul’s price weren’t said";
        yield return "the rest costs nothing that was found out";
    }

    // What makes up the difference, each with its weight in money.
    private IEnumerable<(decimal Weight, string Words)> Parts()
    {
        foreach (var power in Question.Power.Where(power => power.ComesOff.Likely != 0))
            yield return (power.ComesOff.Likely,
                $"{power.What}: {Share(power.Used)} of its interval is run, {Say(power.UsedUp)} of its overhaul; "
                + $"{Say(Math.Abs(power.ComesOff.Likely))} {(power.ComesOff.Likely > 0 ? "more" : "less")} than the price supposes");
        foreach (var found in Question.Findings.Where(found => found is { SellerPays: false, Stops: false, Cost.Likely: > 0 }))
            yield return (found.Cost.Likely, $"{Named(found)}: {Say(found.Cost.Likely)}{Range(found)}"
                + (found.IsAirworthiness ? ", airworthiness" : ""));
        if (Question.Due.Where(due => due.Cost.Likely > 0).OrderByDescending(due => due.Cost.Likely).ToList() is [var most, ..] all)
            yield return (Money.Due.Likely, $"{Say(Money.Due.Likely)} falls due within {Question.Rules.DueWithinMonths} months"
                + $"{(all.Count > 1 ? ", most of it " : ": ")}{most.What}");
        if (Money.Reserve > 0)
            yield return (Money.Reserve, $"{Say(Money.Reserve)} is held in reserve for what wasn’t looked at");
    }

    /// <summary>What would change it, the least first. Empty where nothing that was found would.</summary>
    public IReadOnlyList<WhatIf> WouldChange
    {
        get
        {
            if (Money.Verdict is not { } now || now == SurveyVerdict.Fair)
                return [];
            List<(decimal Concession, WhatIf If)> ifs = [];
            foreach (var found in Question.Findings.Where(found => !found.SellerPays || found.Stops))
                if (If([found.Id], now) is { } one)
                    ifs.Add((found.Cost.Likely, one));
            if (Money.Reserve > 0 && new SurveyMoney(Question with { Reserves = [] }) is var looked && looked.Verdict < now)
                ifs.Add((Money.Reserve, new("If what is held in reserve is looked at and nothing is found", looked.Verdict!.Value,
                    looked.By ?? 0)));
            List<WhatIf> best = [.. ifs.OrderBy(one => one.If.Verdict).ThenBy(one => one.Concession).Select(one => one.If)
                .Take(MostWhatIfs - 1)];
            // Where no single one makes it fair, several together may.
            if (!best.Exists(one => one.Verdict == SurveyVerdict.Fair) && Together(now) is { } several)
                best = [several, .. best.Take(MostWhatIfs - 2)];
            return Asking() is { } price ? [.. best, price] : best;
        }
    }

    /// <summary>
    /// How much more may come to light before the price isn't fair any more, or the buyer's limit is passed; null where it isn't fair now.
    /// </summary>
    public decimal? Room => Money is { Verdict: SurveyVerdict.Fair, Over: { } over }
        ? Math.Max(0, Math.Min((Question.Rules.NegotiateAbove * Question.Asking) - over, Question.Limit - Money.Work.Likely
            ?? decimal.MaxValue))
        : null;

    // The highest price that is fair, in whole tens.
    private WhatIf? Asking()
    {
        if (Money.Stops.Count > 0 || Money.PassesLimit || Money.Fair is not { Likely: > 0 } fair)
            return null;
        var price = Math.Floor(fair.Likely / (1 - Question.Rules.NegotiateAbove) / 10) * 10;
        return price <= 0 || price >= Question.Asking ? null
            : new($"At an asking price of up to {Say(price)}", SurveyVerdict.Fair, 0);
    }

    // The seller puts several right: the dearest first, until it is fair.
    private WhatIf? Together(SurveyVerdict now)
    {
        List<string> paid = [];
        foreach (var found in Question.Findings.Where(found => !found.SellerPays || found.Stops).OrderByDescending(found => found.Stops)
            .ThenByDescending(found => found.Cost.Likely))
        {
            paid.Add(found.Id);
            if (paid.Count > 1 && If(paid, now) is { Verdict: SurveyVerdict.Fair } fair)
                return fair;
        }
        return paid.Count > 1 ? If(paid, now) : null;
    }

    // The seller pays for these, which puts what stops the deal right before it is made. Null where that changes nothing.
    private WhatIf? If(IReadOnlyCollection<string> paid, SurveyVerdict now)
    {
        var then = new SurveyMoney(Question with
        {
            Findings = [.. Question.Findings.Select(found => paid.Contains(found.Id) ? found with { SellerPays = true, Stops = false }
                : found)],
        });
        if (then.Verdict is not { } verdict || verdict >= now)
            return null;
        var which = Question.Findings.Where(found => paid.Contains(found.Id)).ToList();
        return new($"If the seller {(which.Exists(found => found.Stops) ? "puts right" : "pays")} "
            + (which is [var only] ? Named(only)
                : $"{string.Join(", ", which.SkipLast(1).Select(found => found.Id))} and {which[^1].Id}"),
            verdict, then.By ?? 0);
    }

    // A figure that is a guess isn't told to the cent.
    private string Say(decimal sum) => House.Sum(Math.Round(sum));

    private static string Named(SurveyFinding found)
    {
        var what = found.What.Split([':', ';', '.'], 2)[0];
        return $"{found.Id}, {(what.Length <= 60 ? what : $"{what[..60].TrimEnd()}…")}";
    }

    private string Range(SurveyFinding found) =>
        found.Cost.IsRange ? $" ({Say(found.Cost.Low)} to {Say(found.Cost.High)})" : "";

    private static string Share(decimal share) => $"{Math.Round(share * 100):0} %";
}
