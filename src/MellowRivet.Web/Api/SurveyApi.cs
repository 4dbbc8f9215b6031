using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Surveys;
using MellowRivet.Store;

namespace MellowRivet.Web.Api;

/// <summary>What an aircraft is worth to a buyer by what was found: the arithmetic alone.</summary>
internal static class SurveyApi
{
    private const int Most = 500;
    private const double MostMoney = (double)SurveyQuestion.MostMoney, MostHours = 100_000;

    public static void MapSurvey(this RouteGroupBuilder bench) =>
        bench.MapPost("/survey", (HttpRequest request, Shelf shelf) =>
            BenchBody.AnswerAsync<SurveyCall>(request, (call, problems) => Reckon(call, shelf.Surveys, problems)))
            .Accepts<SurveyCall>("application/json").Produces<SurveyAnswer>().ProducesValidationProblem()
            .WithName("Survey")
            .WithSummary("A fair price = price in order, less what is used up of the engine beyond what that price supposes, less the "
                + "buyer's part of the work, less what falls due, less reserve; with a verdict by the shop's thresholds and the three "
                + "reasons that decide. Without a price in order only what stops the deal, or passes the limit, can be said.");

    public static SurveyAnswer? Reckon(SurveyCall call, SurveyRules rules, Problems problems)
    {
        var asking = call.Asking is > 0 and < MostMoney and var sum ? (decimal)sum : 0;
        if (asking == 0)
            problems.Add("asking", "The asking price, above 0, is wanted.");
        decimal? inOrder = null, supposed = null;
        if (call.InOrder is null)
            problems.Add("inOrder", "What such an aircraft fetches in order is wanted: { \"price\": 48000 }. Without it no price can be "
                + "said to be fair.");
        else if (call.InOrder.Price is > 0 and < MostMoney and var price)
        {
            inOrder = (decimal)price;
            supposed = call.InOrder.EngineHours is { } hours
                ? (decimal)problems.Number("inOrder.engineHours", hours, 0, MostHours, "h", 0) : null;
        }
        else
            problems.Add("inOrder.price", "A price in order above 0 is wanted: without it no price can be said to be fair.");
        if (call.Findings is null || call.Findings.Count > Most)
            problems.Add("findings", $"A list of up to {Most}, which may be empty, is wanted.");
        if (call.DueWithinYear?.Count > Most)
            problems.Add("dueWithinYear", $"Up to {Most}.");
        var findings = (call.Findings ?? []).Take(Most).Select((found, index) => Finding(found, $"findings[{index}]", problems)).ToList();
        if (findings.GroupBy(found => found.Id).FirstOrDefault(same => same.Count() > 1) is { } twice)
            problems.Add("findings", $"“{twice.Key}” stands there twice.");
        var due = (call.DueWithinYear ?? []).Take(Most).Select((one, index) => Due(one, $"dueWithinYear[{index}]", problems)).ToList();
        var power = call.Engine is null ? null : Engine(call.Engine, supposed, rules, problems);
        if (call.Engine is null && supposed is not null)
            problems.Add("inOrder.engineHours", "It says something of an engine: its hours, interval and overhaul's cost are wanted.");
        List<Reserve> reserves = call.Reserve is { } held
            ? [new("reserve", (decimal)problems.Number("reserve", held, 0, MostMoney, "", 0))] : [];
        decimal? limit = call.Limit is { } most ? (decimal)problems.Number("limit", most, 0, MostMoney, "", 0) : null;
        if (problems.Any)
            return null;
        var money = new SurveyMoney(new(asking, inOrder, findings, due, power is null ? [] : [power], reserves, limit, rules));
        var reasons = new SurveyReasons(money, new HouseRules(Money: ""));
        return new(money.Fair is { } fair ? new(fair.Low, fair.Likely, fair.High) : null, money.Verdict, money.By, money.UsedUp,
            reasons.Because, [.. reasons.WouldChange.Select(one => new SurveyChange(one.Words, one.Verdict, one.By))],
            new(money.Work.Low, money.Work.Likely, money.Work.High), money.Due.Likely, money.Reserve);
    }

    private static SurveyFinding Finding(SurveyFindingCall? found, string at, Problems problems)
    {
        if (string.IsNullOrWhiteSpace(found?.Id))
            problems.Add($"{at}.id", "An id is wanted.");
        if (found?.Cost is null)
            problems.Add($"{at}.cost", "A cost, or low, likely and high, is wanted.");
        if (found is { SellerPays: true, Stops: true })
            problems.Add($"{at}.stops", "What the seller pays doesn't stop the deal: one of the two.");
        return new(found?.Id ?? at, "found", found?.Cost?.Checked($"{at}.cost", MostMoney, problems) ?? Spread.Of(0),
            found?.Airworthiness ?? false, found?.SellerPays ?? false, found?.Stops ?? false);
    }

    private static DueCost Due(SurveyDueCall? due, string at, Problems problems)
    {
        if (string.IsNullOrWhiteSpace(due?.What))
            problems.Add($"{at}.what", "What falls due is wanted.");
        if (due?.Cost is null)
            problems.Add($"{at}.cost", "A cost, or low, likely and high, is wanted.");
        return new(due?.What ?? "", due?.Cost?.Checked($"{at}.cost", MostMoney, problems) ?? Spread.Of(0));
    }

    private static PowerUse? Engine(SurveyEngineCall engine, decimal? supposed, SurveyRules rules, Problems problems)
    {
        var hours = problems.Number("engine.hoursSinceOverhaul", engine.HoursSinceOverhaul, 0, MostHours, "h", 0);
        var interval = problems.Number("engine.interval", engine.Interval, 1, MostHours, "h", 1);
        if (engine.OverhaulCost is null)
            problems.Add("engine.overhaulCost", "A cost, or low, likely and high, is wanted.");
        var cost = engine.OverhaulCost?.Checked("engine.overhaulCost", MostMoney, problems);
        return cost is { } overhaul ? PowerUse.Of("engine", (decimal)hours, (decimal)interval, overhaul, supposed, rules) : null;
    }
}

internal sealed record SurveyCall(double? Asking, SurveyInOrderCall? InOrder, IReadOnlyList<SurveyFindingCall?>? Findings,
    IReadOnlyList<SurveyDueCall?>? DueWithinYear, SurveyEngineCall? Engine, double? Reserve, double? Limit);

internal sealed record SurveyInOrderCall(double? Price, double? EngineHours);

internal sealed record SurveyFindingCall(string? Id, RangeCall? Cost, bool? Airworthiness, bool? SellerPays, bool? Stops);

internal sealed record SurveyDueCall(string? What, RangeCall? Cost);

internal sealed record SurveyEngineCall(double? HoursSinceOverhaul, double? Interval, RangeCall? OverhaulCost);

internal sealed record SurveySpread(decimal Low, decimal Likely, decimal High);

internal sealed record SurveyChange(string If, SurveyVerdict Verdict, decimal By);

internal sealed record SurveyAnswer(SurveySpread? Fair, SurveyVerdict? Verdict, decimal? By, decimal? EngineUsedUp,
    IReadOnlyList<string> Because, IReadOnlyList<SurveyChange> WouldChange, SurveySpread Work, decimal DueWithinYear, decimal Reserve);
