using System.Globalization;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Oil;
using MellowRivet.Web.Pages.Walk.Found;
using Spot = MellowRivet.Core.Discrepancies.Spot;

namespace MellowRivet.Web.Tests.Judging;

// What is chosen of several, and what several values come to.
public partial class ParityTests
{
    private static IEnumerable<Case> Cuts(Aircraft aircraft, FilterCut before) =>
        from place in Enum.GetValues<FilterPlace>()
        from metal in Enum.GetValues<FilterMetal>()
        from amount in Enum.GetValues<FilterAmount>()
        select new Case(JudgedField.Cut(aircraft.Engines.First().Component), new($"{place} {metal} {amount}"),
            Shop.Of((before with { Place = place, Metal = metal, Amount = amount })
                .Judge(place == FilterPlace.Filter ? before : null), null));

    // What is measured on a picture before the shop has it.
    private IEnumerable<Drawn> Drawings()
    {
        for (var times = 0; times < 800; times++)
        {
            Spot At() => new(Math.Round(random.NextDouble() * 4000, 1), Math.Round(random.NextDouble() * 3000, 1));
            List<Spot> Points(int count) => [.. Enumerable.Range(0, count).Select(_ => At())];
            double Pick() => Math.Round(0.5 + random.NextDouble() * 8, 1);
            var start = At();
            var reach = random.Next(12) == 0 ? 0.3 : 20 + random.NextDouble() * 900;
            List<Annotation> drawn =
            [
                new(AnnotationKind.Length, Points(random.Next(2, 7)), "", PickPixels: Pick()),
                new(AnnotationKind.Patch, Points(random.Next(3, 9)), "stain", PickPixels: Pick()),
                new(AnnotationKind.Arrow, Points(2)),
                new(AnnotationKind.Length, [start, random.Next(9) == 0 ? start : start with { X = start.X + reach }], PickPixels: Pick()),
            ];
            if (random.Next(10) > 0)
                drawn.Insert(random.Next(4), new(AnnotationKind.Scale, [start, start with { Y = start.Y + reach }], "",
                    random.Next(12) switch { 0 => null, 1 => 6000, 2 => 0.04, _ => Math.Round(random.NextDouble() * 200, 2) },
                    random.Next(2) == 0 ? 0.05 : 0.5, Pick()));
            yield return new(DrawnForm.Of(new("", 4000, 3000, null, default, drawn)).Annotations!, [.. PhotoScale.SizesOf(drawn)]);
        }
    }

    // What is typed on the device of some of the values, beside what came along of the others.
    private IEnumerable<Sum> Sums(Aircraft aircraft, Inspection inspection)
    {
        foreach (var all in Together.All(aircraft, inspection).GroupBy(one => $"{one.Carrier:N} {one.Key}"))
            for (var times = 0; times < 250; times++)
            {
                Dictionary<string, Said?> said = [];
                Dictionary<string, string> looks = [];
                Dictionary<string, Reading?> read = [];
                foreach (var part in all.SelectMany(one => one.Parts).DistinctBy(part => part.Field).Where(_ => random.Next(5) > 0))
                {
                    // The field of a compression has no unit to choose.
                    var typedIn = random.Next(4) == 0 && !all.Key.EndsWith("spread", StringComparison.Ordinal)
                        ? part.Unit.Alternatives.ElementAt(random.Next(part.Unit.Alternatives.Count()))
                        : part.Unit;
                    var usual = all.Key.Split(' ')[1] switch { "floats" => 3.4, "drops" => 90, "spread" => 55, _ => 2.0 };
                    var value = Math.Round(part.Unit.To(typedIn, usual * (1 + (random.NextDouble() - 0.5) * 0.9)), 2);
                    var isThere = random.Next(8) > 0;
                    said[part.Field] = isThere ? new(value.ToString(CultureInfo.InvariantCulture), typedIn.Symbol) : null;
                    read[part.Field] = isThere
                        ? new(Guid.NewGuid(), aircraft.Id, null, "", "", value, typedIn, new(), default, DemoServer.Now, Guid.Empty)
                        : null;
                }
                foreach (var look in all.SelectMany(one => one.Looks).DistinctBy(look => look.Key).Where(_ => random.Next(4) > 0))
                    looks[look.Key] = TogetherLook.Word(random.Next(3) switch { 0 => LookState.Found, 1 => LookState.Good, _ => null });
                var shops = all.Select(one => (one with
                {
                    Parts = [.. one.Parts.Select(part => read.TryGetValue(part.Field, out var now) ? part with { Reading = now } : part)],
                    Looks = [.. one.Looks.Select(look => looks.TryGetValue(look.Key, out var saw)
                        ? look with { Check = Seen(saw) }
                        : look)],
                }).Judgement).FirstOrDefault(one => one is not null);
                yield return new(all.Key, said, looks, Shop.Of(shops, null));
            }

        static SheetCheck? Seen(string word) => Enum.TryParse<LookState>(word, out var state)
            ? new(Guid.Empty, SheetKind.Exhaust, "", state, "", null, null, Guid.Empty, default)
            : null;
    }
}
