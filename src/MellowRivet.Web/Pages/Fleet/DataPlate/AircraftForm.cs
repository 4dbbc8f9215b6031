using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;

namespace MellowRivet.Web.Pages.Fleet.DataPlate;

/// <summary>What stands on the data plate and decides how the aircraft is drawn.</summary>
public class PlateForm
{
    public string? Registration { get; set; }
    public string? Serial { get; set; }
    public string? Type { get; set; }

    /// <summary>The answer where no list knows the type, and the maker of one of its own.</summary>
    public string? TypeMeans { get; set; }
    public string? TypeMeansAbout { get; set; }
    public string? TypeMaker { get; set; }
    public Category Category { get; set; }
    public Wing Wing { get; set; }
    public Gear Gear { get; set; }
    public bool Retractable { get; set; }
    public bool FoldingWing { get; set; }
    public bool Fabric { get; set; }
    public int Seats { get; set; } = 2;
    public int Engines { get; set; } = 1;

    public Configuration Configuration => new(Wing, Gear, Engines is 2 ? 2 : 1, Seats, Retractable, FoldingWing, Fabric);

    /// <summary>The plate as it is kept.</summary>
    public static PlateForm Of(Aircraft aircraft)
    {
        var form = new PlateForm();
        form.Take(aircraft);
        return form;
    }

    /// <summary>What is wrong with it, beside its fields.</summary>
    public IReadOnlyList<Refusal> Problems() => [.. Check().Select(wrong => wrong with { Field = "Form." + wrong.Field })];

    protected void Take(Aircraft aircraft)
    {
        var build = aircraft.Configuration;
        (Registration, Serial, Type, Category) = (aircraft.Registration, aircraft.SerialNumber, aircraft.Type, aircraft.Category);
        (Wing, Gear, Retractable, FoldingWing, Fabric, Seats, Engines) = (build.Wing, build.Gear, build.Retractable, build.FoldingWing,
            build.Fabric, build.Seats, build.Engines);
    }

    protected virtual IEnumerable<Refusal> Check()
    {
        if (Wanted("Registration", Registration, 12, "The registration as painted on the aircraft.") is { } registration)
            yield return registration;
        if (Wanted("Serial", Serial, 40, "The airframe's serial number, off its data plate.") is { } serial)
            yield return serial;
        if (Wanted("Type", Type, 60, "What kind of aircraft it is.") is { } type)
            yield return type;
        if (Seats is < 1 or > 20)
            yield return new("Seats", "From 1 to 20 seats.");
        if (!Enum.IsDefined(Category) || !Enum.IsDefined(Wing) || !Enum.IsDefined(Gear))
            yield return new("Category", "Choose one of those offered.");
    }

    protected static Refusal? Wanted(string field, string? value, int longest, string message) =>
        string.IsNullOrWhiteSpace(value) || value.Trim().Length > longest ? new(field, message) : null;
}

/// <summary>What it takes to make an aircraft: the plate, the engines and propellers, the time, and what falls due.</summary>
public sealed class AircraftForm : PlateForm
{
    public string Layout { get; set; } = EngineLayout.FlatFour.Key;
    public string? FiringOrder { get; set; }
    public IgnitionKind Top { get; set; }
    public IgnitionKind Bottom { get; set; }
    public CompressionSchool School { get; set; }
    public string? EngineSerial { get; set; }
    public string? RightEngineSerial { get; set; }
    public string? EnginePart { get; set; }
    public string? EngineMeans { get; set; }
    public string? EngineMeansAbout { get; set; }
    public string? EngineMaker { get; set; }
    public string? EngineHours { get; set; }
    public string? PropellerSerial { get; set; }
    public string? RightPropellerSerial { get; set; }
    public string? PropellerPart { get; set; }
    public string? PropellerMeans { get; set; }
    public string? PropellerMeansAbout { get; set; }
    public string? PropellerMaker { get; set; }
    public string? PropellerHours { get; set; }
    public MeterKind TimeBasis { get; set; } = MeterKind.Tach;
    public string? Shown { get; set; }
    public string? Total { get; set; }
    public List<string> Starters { get; set; } = [];

    /// <summary>What has been offered so far: a choice made there stands, what is offered anew comes with its usual tick.</summary>
    public List<string> Offered { get; set; } = [];

    public bool Ticks(DueStarter starter) => Starters.Contains(starter.Key) || (!starter.Asked && !Offered.Contains(starter.Key));

    /// <summary>Everything but what is one aircraft's own: serials, registration, times.</summary>
    public void CopyFrom(Aircraft aircraft)
    {
        Take(aircraft);
        (Registration, Serial) = (null, null);
        TimeBasis = aircraft.TimeBasis;
        if (aircraft.Engines.FirstOrDefault()?.Component is not { } engine)
            return;
        Layout = engine.LayoutKey!;
        FiringOrder = engine.OwnFiringOrder is { } order ? string.Join("-", order) : null;
        (Top, Bottom) = (engine.Ignition?.Top ?? default, engine.Ignition?.Bottom ?? default);
        School = engine.CompressionRule?.School ?? default;
        EnginePart = engine.PartNumber;
        PropellerPart = aircraft.Propellers.FirstOrDefault()?.Component.PartNumber;
    }

    protected override IEnumerable<Refusal> Check()
    {
        foreach (var wrong in base.Check())
            yield return wrong;
        if (Wanted("EngineSerial", EngineSerial, 40, "The engine's serial number, off its data plate.") is { } engine)
            yield return engine;
        // It stands under the spinner: read off once that is open.
        if (PropellerSerial?.Trim().Length > 40)
            yield return new("PropellerSerial", "Up to 40 characters.");
        if (Engines == 2 && Wanted("RightEngineSerial", RightEngineSerial, 40, "The right engine's serial number.") is { } right)
            yield return right;
        if (RightPropellerSerial?.Trim().Length > 40)
            yield return new("RightPropellerSerial", "Up to 40 characters.");
        if (EngineLayout.All.FirstOrDefault(layout => layout.Key == Layout) is not { } known)
            yield return new("Layout", "Choose a layout.");
        else if (Component.ReadFiringOrder(FiringOrder, known).Refusal is { } order)
            yield return new("FiringOrder", order.Message);
        if (EnginePart?.Trim().Length > 40)
            yield return new("EnginePart", "Up to 40 characters.");
        if (PropellerPart?.Trim().Length > 40)
            yield return new("PropellerPart", "Up to 40 characters.");
        if (TypedNumber.ParseHours(Shown) is null)
            yield return new("Shown", "What the meter shows now, in hours: 4318.6.");
        foreach (var (field, typed) in new[] { ("Total", Total), ("EngineHours", EngineHours), ("PropellerHours", PropellerHours) })
            if (!string.IsNullOrWhiteSpace(typed) && TypedNumber.ParseHours(typed) is null)
                yield return new(field, "Hours, as 4318.6; leave it empty where nobody knows.");
        if (!TimeBasis.CountsHours() || !Enum.IsDefined(Top) || !Enum.IsDefined(Bottom) || !Enum.IsDefined(School))
            yield return new("Category", "Choose one of those offered.");
    }

    /// <summary>The aircraft the checked form comes to.</summary>
    /// <param name="on">The day the meter was read.</param>
    /// <param name="by">Who read it.</param>
    public Aircraft Make(DateOnly on, string by)
    {
        var aircraft = new Aircraft(Guid.CreateVersion7(), Registration!.Trim(), Type!.Trim(), Serial!.Trim(), Category, Configuration)
            { TimeBasis = TimeBasis };
        aircraft.ReadMeter(TimeBasis, on, TypedNumber.ParseHours(Shown)!.Value.Value, by, total: TypedNumber.ParseHours(Total)?.Value);
        var two = Engines == 2;
        Fit(aircraft, two ? "left" : "", EngineSerial!, PropellerSerial);
        if (two)
            Fit(aircraft, "right", RightEngineSerial!, RightPropellerSerial);
        return aircraft;
    }

    // What was there before the file began is fitted since the file began, with the time it has now.
    private void Fit(Aircraft aircraft, string position, string engineSerial, string? propellerSerial)
    {
        var layout = EngineLayout.Of(Layout);
        var engine = new Component(Guid.CreateVersion7(), ComponentKind.Engine, EnginePart?.Trim() ?? "", engineSerial.Trim())
        {
            LayoutKey = Layout,
            OwnFiringOrder = Component.ReadFiringOrder(FiringOrder, layout).Order,
            Ignition = new(Top, Bottom),
        };
        engine.JudgeCompressionBy(new(School));
        var now = aircraft.TimeInService;
        aircraft.InstallIgnition(aircraft.InstallEngine(engine, position, now, TypedNumber.ParseHours(EngineHours)));
        aircraft.Install(new(Guid.CreateVersion7(), ComponentKind.Propeller, PropellerPart?.Trim() ?? "", propellerSerial?.Trim() ?? ""),
            position, now, TypedNumber.ParseHours(PropellerHours));
    }
}
