using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Compression;

/// <summary>The conditions of a test as they are typed, pressures in psi.</summary>
/// <param name="Supply">The regulator's.</param>
/// <param name="Ambient">Absolute.</param>
/// <param name="Orifice">The master orifice's reading of the day; empty without one.</param>
/// <param name="Hot">The engine ran within an hour; null while it isn't said.</param>
/// <param name="CautionRead">The caution was read and confirmed.</param>
public sealed record TypedConditions(string? Supply, string? Ambient, string? Orifice, bool? Hot, bool CautionRead);

/// <summary>One differential compression test of one engine: its conditions, and who read the caution before air went in.</summary>
public sealed class CompressionTest
{
    private CompressionTest() { }

    public CompressionTest(Guid id, Guid engineId, double supplyPsi, double ambientPsi, bool hot, double? dayOrificePsi, Guid cautionReadBy,
        DateTimeOffset startedAt)
    {
        Id = id;
        EngineId = engineId;
        SupplyPsi = supplyPsi;
        AmbientPsi = ambientPsi;
        Hot = hot;
        DayOrificePsi = dayOrificePsi;
        CautionReadBy = cautionReadBy;
        StartedAt = startedAt;
    }

    /// <summary>The caution that stands before the first reading of every test.</summary>
    public const string Caution =
        "Air in the cylinder can swing the propeller hard. Magnetos off and grounded. One person holds the propeller, nobody stands in "
        + "its arc. Regulator at zero before the hose goes on.";

    public Guid Id { get; private set; }
    public Guid InspectionId { get; private set; }
    public Guid EngineId { get; private set; }
    public double SupplyPsi { get; private set; }
    public double AmbientPsi { get; private set; }
    public bool Hot { get; private set; }
    public double? DayOrificePsi { get; private set; }
    public Guid CautionReadBy { get; private set; }
    public DateTimeOffset StartedAt { get; private set; }

    public TestConditions Conditions => new(new Psi(SupplyPsi), new Psi(AmbientPsi), Hot, DayOrificePsi is { } psi ? new Psi(psi) : null);

    /// <summary>The test as it is typed, or all that is wrong with its conditions.</summary>
    public static (CompressionTest? Test, IReadOnlyList<Refusal> Refusals) Read(TypedConditions typed, Guid engineId, Guid by,
        DateTimeOffset at)
    {
        var (supply, ambient) = (MeasureText.Value(typed.Supply, Unit.Psi), MeasureText.Value(typed.Ambient, Unit.Psi));
        var orifice = MeasureText.Value(typed.Orifice, Unit.Psi);
        List<Refusal> wrong = [.. Check(supply, ambient, typed.Hot, orifice, !string.IsNullOrWhiteSpace(typed.Orifice), typed.CautionRead)];
        return wrong.Count > 0
            ? (null, wrong)
            : (new(Guid.CreateVersion7(), engineId, supply!.Value, ambient!.Value, typed.Hot!.Value, orifice, by, at), []);
    }

    /// <summary>What is wrong with the conditions as typed: supply 20–150 psi, ambient 8–16 psi absolute, orifice below supply.</summary>
    public static IEnumerable<Refusal> Check(double? supply, double? ambient, bool? hot, double? dayOrifice, bool orificeTyped,
        bool cautionRead)
    {
        if (supply is not (>= 20 and <= 150))
            yield return new("supply", "The supply is between 20 and 150 psi; usually 80.");
        if (ambient is not (>= 8 and <= 16))
            yield return new("ambient", "Ambient pressure is between 8 and 16 psi absolute; 14.7 at sea level.");
        if (hot is null)
            yield return new("hot", "Say whether the engine is hot (within an hour of running) or cold.");
        if (orificeTyped && (dayOrifice is not > 0 || dayOrifice >= supply))
            yield return new("orifice", "The orifice reading is above zero and below the supply.");
        if (!cautionRead)
            yield return new("caution", "Read the caution and confirm it before any air goes in.");
    }
}

/// <summary>One cylinder of a test: its place on the engine, its tries so far and what they come to.</summary>
/// <param name="Place">Where it stands and which number it bears.</param>
/// <param name="Cylinder">The cylinder fitted there.</param>
/// <param name="Tries">Its readings in the latest test that has one of it, earliest first: a try belongs to one test.</param>
/// <param name="Before">Its readings in earlier tests of this inspection, earliest first.</param>
/// <param name="Latest">The latest try, judged; null while there is none.</param>
public sealed record CylinderOnTest(CylinderPlace Place, Component Cylinder, IReadOnlyList<Reading> Tries, IReadOnlyList<Reading> Before,
    JudgedCylinder? Latest)
{
    /// <summary>True where the last try asks for another one.</summary>
    public bool WantsAnotherTry => Latest is { Judgement.Verdict: Judgements.Verdict.Retest };
}

/// <summary>An engine's compressions in one inspection, cylinder by cylinder, with the whole judged.</summary>
public sealed record CompressionSheet(Component Engine, CompressionLimits Limits, CompressionTest? Test,
    IReadOnlyList<CylinderOnTest> Cylinders, CompressionAssessment? Assessment)
{
    /// <summary>Every cylinder has a reading that asks for nothing more.</summary>
    public bool IsComplete => Cylinders.All(cylinder => cylinder.Latest is not null && !cylinder.WantsAnotherTry);

    /// <summary>Numbers of the cylinders without a reading, those where no cylinder is fitted among them.</summary>
    public IReadOnlyList<int> Missing =>
        [.. Engine.Layout.Cylinders.Select(place => place.Number)
            .Where(number => Cylinders.FirstOrDefault(cylinder => cylinder.Place.Number == number)?.Latest is null)];

    /// <summary>The next cylinder to read, by number: one without a reading, else one that wants another try; null when complete.</summary>
    public CylinderOnTest? Next =>
        Cylinders.FirstOrDefault(cylinder => cylinder.Latest is null) ?? Cylinders.FirstOrDefault(cylinder => cylinder.WantsAnotherTry);

    /// <param name="aircraft">The aircraft with its components.</param>
    /// <param name="engine">One of its engines.</param>
    /// <param name="inspection">The inspection, for its tests of this engine.</param>
    public static CompressionSheet Of(Aircraft aircraft, Component engine, Inspection inspection)
    {
        var limits = (engine.CompressionRule ?? new(CompressionSchool.SixtyOfEighty)).Limits();
        var test = inspection.CompressionTests.Where(test => test.EngineId == engine.Id).MaxBy(test => test.StartedAt);
        var cylinders = new List<CylinderOnTest>();
        foreach (var place in engine.Layout.Cylinders)
        {
            if (aircraft.Cylinder(engine, place.Number) is not { } cylinder)
                continue;
            var all = inspection.Readings
                .Where(reading => reading.Kind == Reading.CompressionKind && reading.ComponentId == cylinder.Id)
                .OrderBy(reading => reading.At).ToList();
            var tries = all.Where(reading => reading.CompressionTestId == all[^1].CompressionTestId).ToList();
            cylinders.Add(new(place, cylinder, tries, [.. all.Except(tries)], tries.Count == 0
                ? null
                : JudgeOne(limits, place.Number, tries, tries[^1])));
        }
        // Each try is judged under the conditions it was taken in, then the latest tries together.
        var judged = cylinders.Where(cylinder => cylinder.Latest is not null).Select(cylinder => cylinder.Latest!).ToList();
        return new(engine, limits, test, cylinders, judged.Count == 0 ? null : CompressionJudge.Together(limits, judged));
    }

    /// <summary>A cylinder by its number; null where none is fitted there.</summary>
    public CylinderOnTest? Cylinder(int? number) => Cylinders.FirstOrDefault(cylinder => cylinder.Place.Number == number);

    /// <summary>The cylinder whose latest reading lets most air through; null while there is no reading.</summary>
    public CylinderOnTest? Weakest =>
        Cylinders.Where(cylinder => cylinder.Latest is not null).MaxBy(cylinder => cylinder.Latest!.LeakArea);

    /// <summary>The tries of a cylinder in the test that is running.</summary>
    public IReadOnlyList<Reading> TriesNow(CylinderOnTest cylinder) =>
        [.. cylinder.Tries.Where(reading => reading.CompressionTestId == Test?.Id)];

    /// <summary>Whether a reading is a further try of its cylinder after one that was hot and low.</summary>
    /// <param name="cylinder">The cylinder.</param>
    /// <param name="reading">The reading's id; one that isn't kept yet comes last.</param>
    public bool IsSecondTry(CylinderOnTest cylinder, Guid reading) =>
        IsSecondTry(Limits, TriesNow(cylinder).TakeWhile(earlier => earlier.Id != reading));

    /// <summary>Judges a reading as it is typed; what is wrong with it, or nothing of either while nothing is typed.</summary>
    public (JudgedCylinder? Judged, string? Problem) Judge(TypedCylinder typed)
    {
        if (Test is not { } test || string.IsNullOrWhiteSpace(typed.Value))
            return (null, null);
        var read = TypedReading.Parse(typed.Value, test.Conditions.Supply);
        if (read.Held is not { } held)
            return (null, read.Problem);
        var secondTry = Cylinder(typed.Number) is { } cylinder && IsSecondTry(cylinder, typed.ReadingId);
        return (CompressionJudge.Judge(Limits, test.Conditions, new(typed.Number, held, new(typed.Leaks), secondTry)), null);
    }

    private static JudgedCylinder JudgeOne(CompressionLimits limits, int number, IReadOnlyList<Reading> tries, Reading reading) =>
        CompressionJudge.Judge(limits, ConditionsOf(reading), new(number, new Psi(reading.Value), reading.Conditions.Leak ?? Leaks.None,
            reading.CompressionTestId is null
                ? reading.Conditions.SecondTry
                : IsSecondTry(limits, tries.TakeWhile(earlier => earlier != reading))));

    /// <summary>
    /// Whether the next try of a cylinder is a second one: an earlier try of the same test was hot and low. A good one was no first try.
    /// </summary>
    public static bool IsSecondTry(CompressionLimits limits, IEnumerable<Reading> earlier) =>
        earlier.Any(reading => reading.Conditions.Hot == true && limits.RejectBelow(ConditionsOf(reading)) is { } floor
            && reading.Value < floor.Value);

    /// <summary>How a reading was taken, as its limits are reckoned from.</summary>
    public static TestConditions ConditionsOf(Reading reading) => new(
        new Psi(reading.Conditions.SupplyPsi ?? 80), new Psi(reading.Conditions.AmbientPsi ?? Psi.StandardAmbient.Value),
        reading.Conditions.Hot ?? false, reading.Conditions.DayOrificePsi is { } orifice ? new Psi(orifice) : null);
}
