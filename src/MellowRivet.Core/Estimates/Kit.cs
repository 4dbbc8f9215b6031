using System.Text.Json;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Estimates;

/// <summary>What the amount of a kit's item goes by.</summary>
public enum KitPer { Engine = 1, Cylinder, Plug, OilFill }

/// <summary>One thing a kit is made up of.</summary>
/// <param name="What">What it is.</param>
/// <param name="Per">What its amount goes by.</param>
/// <param name="Quantity">How many, or how much, to each of those; of an oil fill 1 is as much as went in last time.</param>
/// <param name="Unit">Of what: "in", "ft"; empty for pieces, and for oil, which has the unit it was filled in.</param>
/// <param name="Not">Layouts of engines that have none of it, by their keys.</param>
public sealed record KitItem(string What, KitPer Per, decimal Quantity, string Unit = "", IReadOnlyList<string>? Not = null);

/// <summary>
/// What a job usually takes, counted from the engine it is done on. It lives on the shelf as a JSON file, and the parts book decides.
/// </summary>
/// <param name="Key">Its name on the shelf.</param>
/// <param name="Title">What it is for.</param>
/// <param name="Items">What it is made up of.</param>
/// <param name="Source">Where the counts come from.</param>
/// <param name="Not">Layouts of engines that the whole kit isn't for, by their keys.</param>
public sealed record Kit(string Key, string Title, IReadOnlyList<KitItem> Items, RuleSource Source, IReadOnlyList<string>? Not = null)
{
    /// <exception cref="FormatException">It isn't a list of kits, or one names a layout that there isn't.</exception>
    public static IReadOnlyList<Kit> Parse(string json)
    {
        try
        {
            var kits = JsonSerializer.Deserialize<List<Kit>>(json, Worksheet.Json)
                ?? throw new FormatException("The list of kits is empty.");
            foreach (var kit in kits)
            {
                if (kit.Items.Count == 0 || kit.Items.Any(item => item.What.Length is 0 or > Estimate.LongestWords || item.Quantity <= 0))
                    throw new FormatException($"Kit '{kit.Key}': each item says what it is, and how many above 0.");
                if (kit.Items.SelectMany(item => item.Not ?? []).Concat(kit.Not ?? [])
                    .FirstOrDefault(key => EngineLayout.All.All(layout => layout.Key != key)) is { } unknown)
                    throw new FormatException($"Kit '{kit.Key}': there is no layout of engines '{unknown}'.");
            }
            return kits;
        }
        catch (JsonException problem)
        {
            throw new FormatException($"The list of kits can't be read: {problem.Message}", problem);
        }
    }

    /// <summary>Whether there is anything of it on an engine.</summary>
    public bool IsFor(EngineLayout layout) => Not?.Contains(layout.Key) != true && Items.Any(item => IsOn(item, layout));

    /// <summary>The kit counted for an engine.</summary>
    /// <param name="layout">The engine's layout.</param>
    /// <param name="filled">Its last oil change; null where none is on file: then nobody can say how much oil.</param>
    /// <returns>The parts, without prices; oil that nobody can say the amount of is left out.</returns>
    public IReadOnlyList<PartNeeded> For(EngineLayout layout, OilFill? filled) => !IsFor(layout) ? [] :
    [
        .. Items.Where(item => IsOn(item, layout) && (item.Per != KitPer.OilFill || filled is not null)).Select(item => item.Per switch
        {
            KitPer.OilFill => new PartNeeded($"{item.What}, {filled!.Oil}", "", Math.Round((decimal)filled.Value * item.Quantity, 2),
                filled.UnitSymbol, null, null, false),
            // One plug above and one below in every cylinder that the product knows.
            KitPer.Plug => Of(item, 2 * layout.Cylinders.Count),
            KitPer.Cylinder => Of(item, layout.Cylinders.Count),
            _ => Of(item, 1),
        }),
    ];

    private static bool IsOn(KitItem item, EngineLayout layout) => item.Not?.Contains(layout.Key) != true;

    private static PartNeeded Of(KitItem item, int each) => new(item.What, "", item.Quantity * each, item.Unit, null, null, false);
}
