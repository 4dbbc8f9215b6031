using System.Text.Json.Serialization;
using MellowRivet.Core.Estimates;

namespace MellowRivet.Core.Worksheets;

/// <summary>What of an aircraft's papers a survey looks at: the file shows what it has beside the task.</summary>
public enum PaperTopic { Totals = 1, Holes, Damage, Signers, Bulletins, LifeLimits, DueSoon }

/// <summary>How a survey samples something without taking it apart.</summary>
/// <param name="How">How it is sampled, in words.</param>
/// <param name="Minutes">How long that takes, in minutes, from 0 to 480.</param>
/// <param name="CannotShow">What that can't show.</param>
/// <param name="Cost">What it costs where it is bad, as typed: "1500..4000..9000". Empty for what costs nothing by itself, such as a
/// paper.</param>
/// <param name="Likelihood">How often it is found bad, from 0 to 1.</param>
/// <param name="Paper">The papers it is about; null for what is looked at on the aircraft.</param>
public sealed record Sampling(string How, int Minutes, string CannotShow, string Cost = "", decimal Likelihood = 0,
    PaperTopic? Paper = null)
{
    /// <summary>Longest words of it, in characters, and the longest look, in minutes.</summary>
    public const int LongestWords = 400, LongestLook = 480;

    // A reserve isn't told to the unit: it is a guess.
    private const decimal Step = 10;

    /// <summary>What it costs where it is bad; null for nothing by itself.</summary>
    [JsonIgnore]
    public Spread? CostIfBad => Estimate.ReadPrice(Cost, "What it costs").Spread;

    /// <summary>
    /// What not looking is worth: its likely cost times how often it is found bad, rounded up to ten. Dear things are looked at in this
    /// order, and as long as nobody has looked it is held in reserve. Common practice, the product's own.
    /// </summary>
    [JsonIgnore]
    public decimal Worth => CostIfBad is { } cost ? Math.Ceiling(cost.Likely * Likelihood / Step) * Step : 0;

    /// <summary>What doesn't hold together, in words; null where it can stand.</summary>
    public string? Fault() =>
        string.IsNullOrWhiteSpace(How) || How.Length > LongestWords || CannotShow.Length > LongestWords
            ? $"how it is sampled, and what that can’t show, in up to {LongestWords} characters each."
        : Minutes is < 0 or > LongestLook ? $"a look takes from 0 to {LongestLook} minutes."
        : Likelihood is < 0 or > 1 ? "how often it is found bad is a share from 0 to 1."
        : Estimate.ReadPrice(Cost, "What it costs").Problem;
}
