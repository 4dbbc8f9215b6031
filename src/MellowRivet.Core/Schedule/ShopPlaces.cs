using System.Globalization;
using MellowRivet.Core.Estimates;

namespace MellowRivet.Core.Schedule;

/// <summary>Places of which a shop has only so many: stands, a hoist, a spray booth.</summary>
public static class ShopPlaces
{
    public const int Most = 20, MostOfOne = 100;

    /// <summary>Places as typed: "stand 2, hoist 1"; one without a number is there once.</summary>
    public static (IReadOnlyDictionary<string, int> Places, Refusal? Refusal) Read(string? typed)
    {
        var places = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
        foreach (var one in (typed ?? "").Split([',', ';', '\n'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var (name, many) = (one, 1);
            if (one.LastIndexOf(' ') is > 0 and var at
                && int.TryParse(one[(at + 1)..], NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number))
                (name, many) = (one[..at].TrimEnd(), number);
            if (name.Length > Estimate.LongestPlace || many is < 1 or > MostOfOne)
                return (places, new("places", $"“{one}”: a place in up to {Estimate.LongestPlace} characters, and how many of it, "
                    + $"1 to {MostOfOne}: stand 2, hoist 1."));
            if (!places.TryAdd(name, many))
                return (places, new("places", $"“{name}” stands there twice."));
        }
        return places.Count > Most ? (places, new("places", $"Up to {Most} places.")) : (places, null);
    }
}
