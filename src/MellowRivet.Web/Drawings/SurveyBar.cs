using MellowRivet.Core.Inspections;
using MellowRivet.Core.Surveys;

namespace MellowRivet.Web.Drawings;

/// <summary>A part of the bar: what comes off the price in order, or on top of it.</summary>
/// <param name="Kind">What it is, as its pattern: "power", "found", "due", "reserve", "fair".</param>
/// <param name="Words">What it is, in words.</param>
/// <param name="Sum">The sum, in words.</param>
/// <param name="Y">Where it begins, from above.</param>
/// <param name="Height">How high it is.</param>
/// <param name="LabelY">Where its words stand.</param>
public sealed record BarPart(string Kind, string Words, string Sum, double Y, double Height, double LabelY);

/// <summary>
/// A survey's money as one bar, standing: from the price in order at its top down to the fair price, part by part, with the asking price
/// across it and how sure the fair one is beside it.
/// </summary>
public sealed class SurveyBar
{
    public const int Width = 400, BarX = 120, BarWidth = 54;
    private const double Top = 26, Length = 400, LabelHeight = 34, Foot = 16;
    private const int Letters = 28;

    // Single findings below this many are drawn each; the rest together.
    private const int MostFindings = 5;

    private readonly double scale;
    private readonly double most;

    private SurveyBar(SurveyStand stand, HouseRules house, decimal inOrder)
    {
        var money = stand.Money;
        var question = money.Question;
        var fair = money.Fair!.Value;
        List<(string Kind, string Words, decimal Off)> steps = [];
        foreach (var power in question.Power.Where(power => power.ComesOff.Likely < 0))
            steps.Add(("power", $"{power.What}, run less than supposed", power.ComesOff.Likely));
        foreach (var power in question.Power.Where(power => power.ComesOff.Likely > 0))
            steps.Add(("power", $"{power.What}, used up", power.ComesOff.Likely));
        var found = question.Findings.Where(one => !one.SellerPays && one.Cost.Likely > 0)
            .OrderByDescending(one => one.Cost.Likely).ToList();
        foreach (var one in found.Take(found.Count == MostFindings + 1 ? MostFindings + 1 : MostFindings))
            steps.Add(("found", $"{one.Id} {one.What}", one.Cost.Likely));
        if (found.Count > MostFindings + 1)
            steps.Add(("found", $"{found.Count - MostFindings} more found", found.Skip(MostFindings).Sum(one => one.Cost.Likely)));
        if (money.Due.Likely > 0)
            steps.Add(("due", $"falls due in {question.Rules.DueWithinMonths} months", money.Due.Likely));
        if (money.Reserve > 0)
            steps.Add(("reserve", "reserve, not looked at", money.Reserve));
        var highest = inOrder - steps.Where(step => step.Off < 0).Sum(step => step.Off);
        most = (double)Math.Max(highest, question.Asking) * 1.02;
        var least = Math.Min(0, (double)fair.Likely);
        scale = Length / (most - least);
        Floor = At(0);
        List<BarPart> parts = [];
        // What comes on top stands above the price in order, what comes off hangs below the last.
        var (at, label) = (highest, Top);
        foreach (var (kind, words, off) in steps)
        {
            var to = at - Math.Abs(off);
            var y = At(at);
            label = Math.Max(label, y + 12);
            parts.Add(new(kind, Cut(words), $"{(off < 0 ? "+" : "−")}{Say(house, Math.Abs(off))}", y, Math.Max(1, At(to) - y), label));
            label += LabelHeight;
            at = to;
        }
        Parts = parts;
        FairY = At(fair.Likely);
        FairLabelY = Math.Max(label, FairY + 14);
        (LowY, HighY) = (At(Math.Max(fair.Low, (decimal)least)), At(Math.Min(fair.High, (decimal)most)));
        AskingY = At(question.Asking);
        InOrderY = At(inOrder);
        // The words of two that are near each other stand apart.
        var apart = Math.Abs(AskingY - InOrderY) >= LabelHeight ? 0 : AskingY >= InOrderY ? LabelHeight / 2 : -LabelHeight / 2;
        (AskingLabelY, InOrderLabelY) = (AskingY + apart, InOrderY - apart);
        Asking = Say(house, question.Asking);
        InOrder = Say(house, inOrder);
        Fair = Say(house, Math.Max(0, fair.Likely));
        Range = $"{Say(house, Math.Max(0, fair.Low))} to {Say(house, Math.Max(0, fair.High))}";
        Height = Math.Max(Math.Max(Floor, At((decimal)least)), FairLabelY + 22) + Foot;
    }

    /// <summary>The bar of a survey; null without a price in order.</summary>
    public static SurveyBar? Of(SurveyStand stand, HouseRules house) =>
        stand.Money.Question.InOrder is { } inOrder ? new(stand, house, inOrder) : null;

    public IReadOnlyList<BarPart> Parts { get; }

    /// <summary>Where nothing is.</summary>
    public double Floor { get; }
    public double FairY { get; }
    public double FairLabelY { get; }
    public double LowY { get; }
    public double HighY { get; }
    public double AskingY { get; }
    public double AskingLabelY { get; }
    public double InOrderY { get; }
    public double InOrderLabelY { get; }
    public string Asking { get; }
    public string InOrder { get; }
    public string Fair { get; }
    public string Range { get; }
    public double Height { get; }

    private static string Say(HouseRules house, decimal sum) => house.Sum(Math.Round(sum));

    private double At(decimal sum) => Top + ((most - (double)sum) * scale);

    private static string Cut(string words)
    {
        var what = words.Split([':', ';'], 2)[0];
        return what.Length <= Letters ? what : $"{what[..(Letters - 1)].TrimEnd()}…";
    }
}
