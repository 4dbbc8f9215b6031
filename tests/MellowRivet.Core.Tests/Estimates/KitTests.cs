using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Oil;

namespace MellowRivet.Core.Tests.Estimates;

/// <summary>Kits counted by hand for four engines.</summary>
public class KitTests
{
    private static readonly IReadOnlyList<Kit> Kits = Kit.Parse(File.ReadAllText(Path.Combine(Fixture.Shelf, "kits", "usual.json")));

    private static readonly OilFill Filled = new(Guid.NewGuid(), "SAE 50 mineral", 5.7, "l", "F-1", Fixture.Ines, Fixture.Now);

    // domain.md section 12: gaskets 2 a cylinder for plugs, 1 an intake; drain-back hose 2.5 in a cylinder. The rest is one gasket a
    // flange and what the shelf's file says from memory.
    [Theory]
    [InlineData("flat-four", "plugs", "gasket under a plug 8")]
    [InlineData("flat-six", "plugs", "gasket under a plug 12")]
    [InlineData("inline-two-stroke", "plugs", "gasket under a plug 4")]
    [InlineData("geared-flat-four", "plugs", "gasket under a plug 8")]
    [InlineData("flat-four", "top", "intake gasket 4, exhaust gasket 4, star washer under an exhaust nut 8, rocker cover gasket 4, "
        + "O-ring of a pushrod tube 16, oil drain-back hose 10 in, clamp of a drain-back hose 8")]
    [InlineData("flat-six", "top", "intake gasket 6, exhaust gasket 6, star washer under an exhaust nut 12, rocker cover gasket 6, "
        + "O-ring of a pushrod tube 24, oil drain-back hose 15 in, clamp of a drain-back hose 12")]
    [InlineData("geared-flat-four", "top", "intake gasket 4, exhaust gasket 4, star washer under an exhaust nut 8, rocker cover gasket 4")]
    [InlineData("inline-two-stroke", "top", "")]
    [InlineData("inline-two-stroke", "oil", "")]
    [InlineData("inline-two-stroke", "two-stroke-top", "exhaust gasket 2, cylinder head O-ring 2, cylinder base gasket 2, intake gasket 2")]
    [InlineData("flat-six", "two-stroke-top", "")]
    [InlineData("geared-flat-four", "oil", "oil filter 1, gasket under the drain plug 1, oil, SAE 50 mineral 5.7 l, safety wire 2 ft")]
    public void A_kit_is_counted_from_the_engine(string layout, string key, string counted) =>
        string.Join(", ", Kits.Single(kit => kit.Key == key).For(EngineLayout.Of(layout), Filled)
            .Select(part => $"{part.What} {part.Quantity:0.##}{(part.Unit.Length > 0 ? " " + part.Unit : "")}")).ShouldBe(counted);

    [Fact]
    public void Oil_that_nobody_measured_before_is_left_out()
    {
        var oil = Kits.Single(kit => kit.Key == "oil").For(EngineLayout.FlatFour, null);
        oil.Select(part => part.What).ShouldBe(["oil filter", "gasket under the drain plug", "safety wire"]);
        oil.ShouldAllBe(part => part.Price == null && !part.OnShelf, "a kit knows no prices");
    }

    [Theory]
    [InlineData("""[ { "key": "x", "title": "X", "items": [], "source": { "standing": "practice", "text": "s" } } ]""", "'x'")]
    [InlineData("""
        [ { "key": "x", "title": "X", "items": [ { "what": "ring", "per": "cylinder", "quantity": -1 } ],
        "source": { "standing": "practice", "text": "s" } } ]
        """, "above 0")]
    [InlineData("""
        [ { "key": "x", "title": "X", "items": [ { "what": "ring", "per": "cylinder", "quantity": 1, "not": ["v-eight"] } ],
        "source": { "standing": "practice", "text": "s" } } ]
        """, "v-eight")]
    [InlineData("nothing", "can't be read")]
    public void A_bad_file_of_kits_is_refused_with_what_is_wrong(string json, string says) =>
        Should.Throw<FormatException>(() => Kit.Parse(json)).Message.ShouldContain(says);
}
