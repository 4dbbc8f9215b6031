using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Judgements;
using MellowRivet.Store;

namespace MellowRivet.Web.Api;

/// <summary>What a finding means for the aircraft, from its words or from what was measured.</summary>
internal static class FindingApi
{
    private const int MostWords = 500;

    public static void MapFinding(this RouteGroupBuilder bench) =>
        bench.MapPost("/bench/finding",
            (HttpRequest request, Shelf shelf) =>
                BenchBody.AnswerAsync<FindingCall>(request, (call, problems) => Judge(call, problems, shelf.Classes)))
            .Accepts<FindingCall>("application/json").Produces<FindingAnswer>().ProducesValidationProblem()
            .WithName("BenchFinding")
            .WithSummary(
                "Guesses what a finding means for the aircraft; with a judgement of what was measured, the class comes from "
                + "that and not from the words.");

    public static FindingAnswer? Judge(FindingCall call, Problems problems, ClassRules rules)
    {
        if (string.IsNullOrWhiteSpace(call.Words) || call.Words.Length > MostWords)
            problems.Add("words", $"What was found, in up to {MostWords} characters, is wanted.");
        if (call.Zone?.Length > MostWords)
            problems.Add("zone", $"Up to {MostWords} characters.");
        if (call.Measured is { } sent)
        {
            if (sent.Verdict is null)
                problems.Add("measured.verdict", "One of good, watch, reject, retest or unknown is wanted.");
            if (sent.Standing is null)
                problems.Add("measured.standing", "One of law, reference, practice or manual is wanted.");
            if (sent.Margin is { } margin && !double.IsFinite(margin))
                problems.Add("measured.margin", "A finite number or null is wanted.");
        }
        if (problems.Any)
            return null;
        var guess = rules.Guess(call.Words, null, call.Zone);
        if (call.Measured is not { } measured)
            return new(guess.Class, null, guess.Class == DiscrepancyClass.Deferrable
                && rules.MayDefer(call.Words!) is null, guess.Ground, guess.Why, guess.Means, guess.Next, guess.Source.Standing,
                guess.Source.Text);

        var judgement = new Judgement(measured.Verdict!.Value, measured.Rule
            ?? "as measured", new(measured.Standing!.Value, measured.Source ?? ""), measured.Margin, measured.Next ?? "");
        var judged = guess.Measured(judgement);
        // A rejection by a rule or the manual stays; one by common practice until somebody who may sign sets it lower.
        DiscrepancyClass? floor = judged.Class == DiscrepancyClass.Airworthiness ? judged.Class : null;
        return new(judged.Class, floor, false, judged.Class == DiscrepancyClass.Airworthiness
            && guess.Ground, judged.Why, judged.Means, judgement.Next.Length > 0
            ? [judgement.Next, .. judged.Next]
            : judged.Next, judgement.Source.Standing, judgement.Source.Text);
    }
}

internal sealed record FindingCall(string? Words, string? Zone, MeasuredCall? Measured);

internal sealed record MeasuredCall(Verdict? Verdict, string? Rule, Standing? Standing, string? Source, double? Margin, string? Next);

internal sealed record FindingAnswer(DiscrepancyClass Class, DiscrepancyClass? Floor, bool MayBeDeferred, bool Ground, string Why,
    string Means, IReadOnlyList<string> Next, Standing Standing, string Source);
