using System.Diagnostics;
using System.Globalization;
using System.Text.Json;
using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Tools;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Pages.Walk.Along;
using Microsoft.Extensions.DependencyInjection;
using JudgingAlong = MellowRivet.Web.Pages.Walk.Along.Judging;

namespace MellowRivet.Web.Tests.Judging;

/// <summary>
/// A device that can't reach the shop says of a value what the shop says of it: the same verdict, rule, source and advice, or the same
/// problem. The shop's side of each case goes the way that a page of the shop goes.
/// </summary>
public partial class ParityTests(DemoServer server) : IClassFixture<DemoServer>
{
    private sealed record Said(string Value, string? Unit = null, string? Temperature = null, string? TemperatureUnit = null,
        double? Orifice = null, string? When = null, bool? IsKept = null, Guid? Wrench = null, string? Length = null,
        string? Extension = null, string? Today = null, IReadOnlyDictionary<string, Said>? Others = null);

    private sealed record Shop(string? Verdict = null, string? Rule = null, string? Source = null, string? Next = null,
        string? Problem = null)
    {
        public static Shop Of(Judgement? judgement, string? problem) => problem is not null ? new(Problem: problem)
            : judgement is null ? new() : new(JsonNamingPolicy.CamelCase.ConvertName($"{judgement.Verdict}"), judgement.Rule,
                judgement.Source.InWords, judgement.Next);
    }

    private sealed record Case(string Key, Said Said, Shop Shop);

    private sealed record Sum(string Of, IReadOnlyDictionary<string, Said?> Said, IReadOnlyDictionary<string, string> Looks, Shop Shop);

    private sealed record Drawn(string Annotations, IReadOnlyList<string?> Sizes);

    private sealed record Text(string text, string Unit, double? Value, string? Problem);

    private sealed record Number(double number, string Format, string Shop);

    private sealed record Result(int Held, int Differ, JsonElement First);

    private static readonly string[] Odd =
    [
        "", " ", "open", "OL", "4.7k", "4k7", "1M", "5m", "1,204", "1,204.5", "1.204,5", "12 345", "1 1/2", "3/8", "1½", "−3", "-2.5", "+4",
        "0", "0,018", "18 thou", "0.018\"", "35 ft-lb", "47 N·m", "47Nm", "2 bar", "80 kPa", "76/80", "76 / 80", "76/60", "a/80", "1/2/3",
        "abc", "12 apples", "12 °C", "70 F", "1:30", "1e9", ".5", "5.", "..", "9999999999", "2000000", "3 kg", "500 mV", "0.5 l", "7 daN",
        "12 knots of wind from the north", "NaN", "1 0/0", "15 in²", "90 °", "1013 hPa",
    ];

    private readonly Random random = new(27);

    // One that reaches everything, one that doesn't, and one whose calibration has ended.
    private static readonly Tool[] Wrenches =
    [
        Made("T-9", new(2100, 1, 1), new(0, 99_999, Unit.NewtonMetre)), Made("T-10", DemoServer.Today, new(150, 750, Unit.InchPound)),
        Made("T-11", DemoServer.Today.AddDays(-1), new(10, 80, Unit.NewtonMetre)),
    ];

    private static Tool Made(string number, DateOnly until, TorqueRange range)
    {
        var wrench = new Tool(Guid.NewGuid());
        wrench.Describe("Click wrench", number, true, until, 10, range).ShouldBeNull();
        return wrench;
    }

    private Tool? AnyWrench() => random.Next(9) is 0 ? null : Wrenches[random.Next(12) switch { 0 => 2, < 6 => 1, _ => 0 }];

    private string? AnyLength() => random.Next(5) switch { 0 => TextOf(null), 1 => Written(random.NextDouble() * 12), _ => null };

    // On the limits, beside them, and anywhere; at times as hands write it that mean something else.
    private string TextOf(JudgementTable? table, double scale = 1)
    {
        var limits = table?.Given.Values.Where(value => value > 0).ToList() ?? [];
        return random.Next(12) switch
        {
            0 => Odd[random.Next(Odd.Length)],
            < 7 when limits.Count > 0 =>
                Written((limits[random.Next(limits.Count)] + random.Next(-3, 4) * random.NextDouble() * 0.5) * scale),
            < 9 when limits.Count > 0 => Written(limits[random.Next(limits.Count)] * scale),
            _ => Written(random.NextDouble() * Math.Pow(10, random.Next(-3, 5))),
        };
    }

    private string Written(double value)
    {
        var text = Math.Round(value, random.Next(0, 6)).ToString(CultureInfo.InvariantCulture);
        return random.Next(6) == 0 ? text.Replace('.', ',') : text;
    }

    [Fact]
    public async Task Ten_thousand_values_come_to_the_same_on_a_device_and_at_the_shop()
    {
        List<Case> cases = [];
        List<JudgedField> fields = [];
        List<Together> together = [];
        List<Sum> sums = [];
        foreach (var registration in new[] { "N04QF", "N0BRM", "N0LTS" })
        {
            using var scope = server.Services.CreateScope();
            var id = Guid.Parse(server.Walk(registration)["/walk/".Length..]);
            var (aircraft, inspection) = await scope.ServiceProvider.GetRequiredService<Desk>()
                .JobAsync(id, TestContext.Current.CancellationToken) is { } job ? (job.Aircraft, job.Inspection) : default;
            var cut = new FilterCut(Guid.NewGuid(), aircraft.Engines.First().ComponentId, FilterPlace.Filter, FilterMetal.Ferrous,
                FilterAmount.ManySpecks, "", null, Guid.Empty, DemoServer.Now);
            fields.AddRange(JudgedField.All(aircraft, inspection, [cut, cut with { Amount = FilterAmount.Flakes, At = default }]));
            cases.AddRange(Cuts(aircraft, cut));
            cases.AddRange(Tasks(aircraft, inspection));
            cases.AddRange(Values(aircraft, inspection));
            cases.AddRange(Plugs(aircraft, inspection));
            cases.AddRange(Compressions(aircraft, inspection));
            // What stands is what the cases before have left there.
            together.AddRange(Together.All(aircraft, inspection));
            sums.AddRange(Sums(aircraft, inspection));
        }
        cases.Count.ShouldBeGreaterThan(10_000);
        cases.Count(one => one.Key.EndsWith("/Torque", StringComparison.Ordinal) && one.Shop.Verdict is not null).ShouldBeGreaterThan(50);
        foreach (var kind in new[] { "floats", "drops", "repair", "spread" })
            sums.Count(one => one.Of.EndsWith(kind, StringComparison.Ordinal) && one.Shop.Verdict is "reject" or "watch")
                .ShouldBeGreaterThan(20, kind);
        foreach (var kind in new[] { "task/", "value/", "plug/", "compression/", "cut/" })
            cases.Count(one => one.Key.StartsWith(kind, StringComparison.Ordinal) && one.Shop.Verdict == "reject")
                .ShouldBeGreaterThan(kind == "cut/" ? 20 : 50, kind);

        var result = await HoldAsync(new
        {
            judging = JudgingAlong.Of(fields, together, Wrenches),
            cases,
            sums,
            drawn = Drawings(),
            texts = Texts(),
            numbers = Numbers(),
        });
        result.Differ.ShouldBe(0, $"{result.First}");
        result.Held.ShouldBeGreaterThan(18_000);
    }

    private static async Task<Result> HoldAsync(object what)
    {
        var file = Path.GetTempFileName();
        await File.WriteAllTextAsync(file, JsonSerializer.Serialize(what, JudgingAlong.Json));
        var here = Path.Combine(SourceTree.Root, "tests", "MellowRivet.Web.Tests", "Judging", "parity.mjs");
        var source = Path.Combine(SourceTree.Root, "src", "MellowRivet.Web", "Browser", "Judging");
        using var node = Process.Start(new ProcessStartInfo("node", [here, source, file])
        {
            RedirectStandardOutput = true, RedirectStandardError = true,
        })!;
        var (said, wrong) = (node.StandardOutput.ReadToEndAsync(), node.StandardError.ReadToEndAsync());
        await node.WaitForExitAsync();
        node.ExitCode.ShouldBe(0, await wrong);
        File.Delete(file);
        return JsonSerializer.Deserialize<Result>(await said, JsonSerializerOptions.Web)!;
    }

    private IEnumerable<Case> Tasks(Aircraft aircraft, Inspection inspection)
    {
        foreach (var task in inspection.Tasks.OrderBy(task => task.Order)
            .Where(task => TaskJudge.TableOf(task, aircraft) is not null))
            for (var times = 0; times < 90; times++)
            {
                var (table, unit) = TaskJudge.TableOf(task, aircraft)!.Value;
                var isCable = TaskJudge.TableFor(task, aircraft) is not null;
                var typedIn = random.Next(4) == 0 ? unit.Alternatives.ElementAt(random.Next(unit.Alternatives.Count())) : unit;
                var said = new Said(TextOf(table, unit.To(typedIn, 1) - unit.To(typedIn, 0)), typedIn.Symbol,
                    isCable ? TextOf(null) : null, isCable ? (random.Next(2) == 0 ? "°C" : "°F") : null);
                var wrench = task.Measure!.Method == MeasureMethod.Torque ? AnyWrench() : null;
                if (wrench is not null)
                    said = said with { Wrench = wrench.Id, Length = AnyLength(), Extension = AnyLength(), Today = Day };
                if (isCable && random.Next(3) > 0)
                    said = said with
                    {
                        Value = Written(20 + random.NextDouble() * 40), Temperature = Written(random.NextDouble() * 50 - 15),
                    };
                yield return new(JudgedField.Of(task), said, Shops(said));

                // As ZoneModel.OnGetJudgeAsync.
                Shop Shops(Said one)
                {
                    var typed = new TypedMeasure(one.Value, one.Unit, one.Temperature, one.TemperatureUnit, one.Length, one.Extension);
                    if (!typed.Is)
                        return new();
                    var (read, refusal) = typed.Read(task, aircraft, wrench, DemoServer.Today);
                    if (read is null)
                        return Shop.Of(null, refusal!.Message);
                    var (judgement, missing) = TaskJudge.Judge(task, aircraft, read.Value, read.Unit, read.Conditions);
                    return Shop.Of(judgement, missing?.Message);
                }
            }
    }

    private IEnumerable<Case> Values(Aircraft aircraft, Inspection inspection)
    {
        foreach (var sheet in aircraft.Engines.SelectMany(stay => EngineSheets.Of(aircraft, stay.Component)))
            foreach (var value in sheet.Values)
                for (var times = 0; times < 30; times++)
                {
                    var unit = value.BandOn(aircraft).Unit;
                    var typedIn = random.Next(4) == 0 ? unit.Alternatives.ElementAt(random.Next(unit.Alternatives.Count())) : unit;
                    var text = TextOf(value.BandOn(aircraft).Table());
                    // Nothing in the field takes back what was read: there is nothing to say of it.
                    var wrong = inspection.Measure(Guid.NewGuid(), sheet, value, text, typedIn.Symbol, aircraft,
                        new(Guid.Empty, DemoServer.Now));
                    var judged = string.IsNullOrWhiteSpace(text) || wrong is not null ? null
                        : SheetWork.Of(sheet, aircraft, inspection).Values.Single(one => one.Of == value).Judgement;
                    yield return new(JudgedField.Of(sheet, value), new(text, typedIn.Symbol), Shop.Of(judged, wrong?.Message));
                }
    }

    private IEnumerable<Case> Compressions(Aircraft aircraft, Inspection inspection)
    {
        foreach (var engine in aircraft.Engines.Select(stay => stay.Component))
        {
            var sheet = CompressionSheet.Of(aircraft, engine, inspection);
            var begun = sheet.Test?.Conditions;
            for (var times = 0; times < 1_500; times++)
            {
                var hot = begun?.Hot ?? random.Next(2) == 0;
                var orifice = begun is not null ? begun.DayOrifice?.Value
                    : random.Next(3) == 0 ? (double?)null : 40 + random.Next(20) / 2.0;
                var conditions = (begun ?? TestConditions.Usual) with { Hot = hot, DayOrifice = orifice is { } psi ? new Psi(psi) : null };
                var leaks = new Leaks(Enum.GetValues<LeakPath>().Where(_ => random.Next(8) == 0));
                var again = random.Next(2) == 0;
                var text = TextOf(JudgementTable.Always(Judgement.Worst([new(Verdict.Good, "", sheet.Limits.RejectSource, null, "")]))
                    with
                { Given = new Dictionary<string, double> { ["a"] = 60, ["b"] = 70, ["c"] = conditions.Supply.Value, ["d"] = 48 } });
                if (random.Next(6) == 0)
                    text += "/80";
                var read = TypedReading.Parse(text, conditions.Supply);
                // As CompressionsModel.OnGetJudgeAsync, where nothing typed is nothing said.
                yield return new(JudgedField.Compression(engine),
                    new(text, Orifice: orifice, When: JudgedField.When(hot, leaks, again)), string.IsNullOrWhiteSpace(text) ? new()
                        : Shop.Of(read.Held is { } held
                            ? CompressionJudge.Judge(sheet.Limits, conditions, new(1, held, leaks, again)).Judgement
                            : null, read.Problem));
            }
        }
    }

    // Every text in every unit, and what the shop makes of it.
    private static IEnumerable<Text> Texts() => Unit.All.SelectMany(unit => Odd.Select(text =>
    {
        var read = MeasureText.Read(text, unit);
        return new Text(text, unit.Symbol, read.Value, read.Problem);
    }));

    private IEnumerable<Number> Numbers()
    {
        var formats = new[] { "0", "0.0", "0.#", "0.0#", "0.##", "0.###", "0.000", "0.0##" };
        for (var times = 0; times < 3_000; times++)
        {
            var (format, number) = (formats[random.Next(formats.Length)], random.Next(4) switch
            {
                0 => random.Next(-100, 100) / 8.0,
                1 => Math.Round(random.NextDouble() * 100, random.Next(0, 5)) + random.Next(3) * 0.05,
                2 => (random.NextDouble() - 0.5) * Math.Pow(10, random.Next(-6, 10)),
                _ => 0.1 * random.Next(1, 1000) - 0.05,
            });
            yield return new(number, format, number.ToString(format, CultureInfo.InvariantCulture));
        }
    }
}
