using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Fleet;

/// <summary>The certification basis, which decides who may sign and which wording holds.</summary>
public enum Category { Standard, ExperimentalAmateurBuilt, SpecialLightSport }

public static class CategoryWords
{
    public static string InWords(this Category category) => category switch
    {
        Category.ExperimentalAmateurBuilt => "experimental, amateur-built",
        Category.SpecialLightSport => "special light-sport",
        _ => "standard",
    };
}

public enum Wing { Low, High }

public enum Gear { NoseWheel, TailWheel }

/// <summary>What the drawing of an aircraft is made from.</summary>
public sealed record Configuration(Wing Wing, Gear Gear, int Engines, int Seats);

/// <summary>One reading of the recording tach: the aircraft's time in service on a day.</summary>
public sealed record TimeReading(DateOnly On, Hours TimeInService);

/// <summary>A limit of this aircraft's own maintenance manual. It stands before any limit of a worksheet.</summary>
/// <param name="Measure">The kind of measurement, as the worksheet names it: "static-rpm".</param>
/// <param name="UnitSymbol">The unit of the limits.</param>
/// <param name="Low">The least good value, or null.</param>
/// <param name="High">The greatest good value, or null.</param>
/// <param name="Reference">Where the manual says so.</param>
public sealed record ManualLimit(string Measure, string UnitSymbol, double? Low, double? High, string Reference);

/// <summary>An aircraft that the shop looks after.</summary>
public sealed class Aircraft
{
    private readonly List<Component> components = [];
    private List<TimeReading> times = [];
    private List<ManualLimit> limits = [];

    private Aircraft() { }

    public Aircraft(Guid id, string registration, string type, string serialNumber, Category category, Configuration configuration)
    {
        Id = id;
        Registration = registration;
        Type = type;
        SerialNumber = serialNumber;
        Category = category;
        Configuration = configuration;
    }

    public Guid Id { get; private set; }
    public string Registration { get; private set; } = "";
    public string Type { get; private set; } = "";
    public string SerialNumber { get; private set; } = "";
    public Category Category { get; private set; }
    public Configuration Configuration { get; private set; } = new(Wing.Low, Gear.NoseWheel, 1, 2);
    public IReadOnlyList<TimeReading> Times => times;
    public IReadOnlyList<ManualLimit> Limits => limits;
    public IReadOnlyList<Component> Components => components;

    /// <summary>Time in service at the latest reading; zero for an aircraft that was never read.</summary>
    public Hours TimeInService => times.Count == 0 ? default : times.Max(reading => reading.TimeInService);

    public IEnumerable<Component> Engines => Fitted(ComponentKind.Engine);
    public IEnumerable<Component> Propellers => Fitted(ComponentKind.Propeller);

    /// <summary>The components of a kind that are on the aircraft now, by position.</summary>
    public IEnumerable<Component> Fitted(ComponentKind kind) => components
        .Where(component => component.Kind == kind && component.RemovedAt is null)
        .OrderBy(component => component.Position, StringComparer.Ordinal);

    /// <summary>The cylinder in a numbered place of an engine now.</summary>
    public Component? Cylinder(Component engine, int number) => components.FirstOrDefault(component =>
        component.Kind == ComponentKind.Cylinder && component.ParentId == engine.Id
        && component.Position == number.ToString() && component.RemovedAt is null);

    /// <summary>Puts a component on the aircraft, with its cylinders where it is an engine.</summary>
    public Component Install(Component component)
    {
        components.Add(component);
        return component;
    }

    /// <summary>Puts on an engine with a cylinder in every place of its layout.</summary>
    public Component InstallEngine(Component engine)
    {
        Install(engine);
        foreach (var place in engine.Layout.Cylinders)
            Install(new Component(Guid.CreateVersion7(), ComponentKind.Cylinder, place.Number.ToString(), engine.PartNumber,
                $"{engine.SerialNumber}-{place.Number}", engine.InstalledAt, engine.HoursWhenInstalled)
            { ParentId = engine.Id });
        return engine;
    }

    /// <summary>Notes the recording tach.</summary>
    /// <exception cref="ArgumentException">An earlier day read more: a tach doesn't run backwards.</exception>
    public void ReadTime(DateOnly on, Hours timeInService)
    {
        var runsBackwards = times.Any(earlier => earlier.On <= on && earlier.TimeInService > timeInService)
            || times.Any(later => later.On > on && later.TimeInService < timeInService);
        if (runsBackwards)
            throw new ArgumentException($"{timeInService} h on {on:yyyy-MM-dd} runs backwards against the readings on file (now {TimeInService} h).", nameof(timeInService));
        times = [.. times, new(on, timeInService)];
    }

    /// <summary>Puts a manual limit on file in place of an earlier one for the same measurement.</summary>
    public void SetLimit(ManualLimit limit) => limits = [.. limits.Where(other => other.Measure != limit.Measure), limit];
}
