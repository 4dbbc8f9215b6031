using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Trends;
using MellowRivet.Web.Drawings;

namespace MellowRivet.Web.Pages.Walk.Engine.Compression;

/// <summary>A leak path as it is picked: its letter while the reading is typed, and the word on its key.</summary>
public sealed record LeakKey(LeakPath Path, char Letter, string Word)
{
    public static IReadOnlyList<LeakKey> All { get; } =
    [
        new(LeakPath.ExhaustValve, 'x', "exhaust"), new(LeakPath.IntakeValve, 'i', "intake"), new(LeakPath.Rings, 'r', "rings"),
        new(LeakPath.HeadGasket, 'g', "gasket"), new(LeakPath.Crack, 'c', "crack"),
    ];
}

/// <summary>One cylinder on the drawn engine.</summary>
public sealed record CylinderView(CompressionsView On, CylinderOnTest Cylinder);

/// <summary>The field of one try: filled where it was taken, empty where it is asked for.</summary>
public sealed record TryView(CompressionsView On, CylinderOnTest Cylinder, Reading? Reading, int Try = 1);

/// <summary>The compressions of one engine, one cylinder of it open.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Engine">The engine.</param>
/// <param name="Sheet">Its compressions.</param>
/// <param name="Cylinder">The cylinder that is open.</param>
/// <param name="History">What it held before.</param>
/// <param name="LastTime">The last reading of each cylinder before this inspection, by number.</param>
/// <param name="Axis">Whose hours the trend runs on.</param>
/// <param name="NewTest">A new test is begun.</param>
public sealed record CompressionsView(WalkShown Walk, Component Engine, CompressionSheet Sheet, CylinderOnTest Cylinder,
    CylinderHistory History, IReadOnlyDictionary<int, Reading> LastTime, HoursAxis Axis, bool NewTest) : EngineView(Walk, Engine)
{
    public override string? ZoneHere => Job.Inspection.Tasks
        .FirstOrDefault(task => task.IsCompression && (task.ComponentId is null || task.ComponentId == EngineId))?.ZoneKey;

    public int CylinderNumber => Cylinder.Place.Number;
    public TrendPlot? Plot => History.Readings.Count > 0 ? new(History, Sheet.Test?.Conditions) : null;
    public TestForm Test => Typed<TestForm>() ?? new();
    public JudgedByForm? TypedRule => Typed<JudgedByForm>();

    public string HrefOn(HoursAxis axis) =>
        $"/walk/{Id}/compressions/{EngineId}?cylinder={CylinderNumber}{(axis == HoursAxis.Part ? "" : "&hours=aircraft")}";

    /// <summary>The tries of a cylinder in the test that is running.</summary>
    public IReadOnlyList<Reading> TriesNow(CylinderOnTest cylinder) => Sheet.TriesNow(cylinder);
}
