using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Judgements;

/// <summary>A table, and under which circumstances it is the one to judge by; "" where there is only one.</summary>
public sealed record TableWhen(string When, JudgementTable Table);

/// <summary>A field that has something in it before another one is judged.</summary>
/// <param name="Key">The field.</param>
/// <param name="Name">What it is called.</param>
public sealed record FieldBefore(string Key, string Name);

/// <summary>What is done, and not bad, before something is judged: a plug's other steps before its torque.</summary>
/// <param name="Fields">The fields, in order.</param>
/// <param name="Missing">What is said where {steps} are missing.</param>
/// <param name="Never">Why it can't be at all; null where it can.</param>
public sealed record DoneBefore(IReadOnlyList<FieldBefore> Fields, string Missing, string? Never);

/// <summary>
/// A field of the walk in which something is typed or chosen that is judged, with all that it takes to judge it where the shop can't be
/// reached.
/// </summary>
/// <param name="Key">What its form calls it.</param>
/// <param name="Unit">The unit of its limits; null where nothing is measured.</param>
/// <param name="Bounds">What it doesn't take.</param>
/// <param name="Tables">What it is judged by; none where it is judged only together with others.</param>
public sealed record JudgedField(string Key, Unit? Unit, IReadOnlyList<FieldBound> Bounds, IReadOnlyList<TableWhen> Tables)
{
    /// <summary>What is said where nothing stands in it; null where that is no fault.</summary>
    public string? Empty { get; init; }

    /// <summary>What comes before it; null where nothing does.</summary>
    public DoneBefore? After { get; init; }

    /// <summary>For a torque: what is said while no wrench is chosen; null for what isn't pulled with one.</summary>
    public string? NoWrench { get; init; }

    /// <summary>For a compression: the supply behind the stroke, psi, and what is said of another.</summary>
    public TypedReading.Behind? Behind { get; init; }

    /// <summary>What it is called by for a task.</summary>
    public static string Of(InspectionTask task) => $"task/{task.Id:N}";

    /// <summary>What it is called by for a cylinder's compression.</summary>
    public static string Compression(Component engine) => $"compression/{engine.Id:N}";

    /// <summary>What it is called by for one of an engine's cylinders, among them all.</summary>
    public static string Compression(Component engine, int cylinder) => $"{Compression(engine)}#{cylinder}";

    /// <summary>What it is called by for a filter, a screen or a plug that was opened.</summary>
    public static string Cut(Component engine) => $"cut/{engine.Id:N}";

    /// <summary>What it is called by for a value of a sheet.</summary>
    public static string Of(EngineSheet sheet, SheetValue value) => $"value/{sheet.Carrier.Id:N}/{value.Kind}/{value.Position}";

    /// <summary>What it is called by for a plug's step.</summary>
    public static string Of(Component plug, PlugStep step) => $"plug/{plug.Id:N}/{step}";

    /// <summary>Which table is for a compression.</summary>
    public static string When(bool hot, Leaks leaks, bool again) => string.Join(' ',
        [hot ? "hot" : "cold", .. leaks.Paths.Select(path => $"{path}"), .. again ? new[] { "again" } : []]);

    /// <summary>Every field of an inspection that is judged.</summary>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="inspection">The inspection.</param>
    /// <param name="before">What its filters showed last time.</param>
    public static IEnumerable<JudgedField> All(Aircraft aircraft, Inspection inspection, IReadOnlyList<FilterCut> before) =>
    [
        .. inspection.Tasks.Select(task => Task(task, aircraft)).OfType<JudgedField>(),
        .. aircraft.Engines.Select(stay => stay.Component).SelectMany(engine => (JudgedField[])
        [
            Compressions(CompressionSheet.Of(aircraft, engine, inspection)), Cuts(engine, before),
            .. EngineSheets.Of(aircraft, engine).Select(sheet => SheetWork.Of(sheet, aircraft, inspection))
                .SelectMany(work => work.Values.Select(value => Value(work, value))),
            .. PlugTray.Of(aircraft, engine, inspection).Places.Where(place => place.Plug is not null)
                .SelectMany(place => Enum.GetValues<PlugStep>().Select(step => Step(place, step)).OfType<JudgedField>()),
        ]),
    ];

    private static JudgedField? Task(InspectionTask task, Aircraft aircraft) => TaskJudge.TableOf(task, aircraft) is var (table, unit)
        ? new(Of(task), unit, TypedMeasure.Bounds(unit), [new("", table)])
        {
            Empty = InspectionTask.NoValue(task.Measure!.Unit),
            NoWrench = task.Measure.Method == MeasureMethod.Torque ? TypedMeasure.NoWrench : null,
        }
        : null;

    private static JudgedField Value(SheetWork work, ValueOnSheet value) => new(Of(work.Sheet, value.Of), value.Band.Unit, value.Of.Bounds,
        value.Of.StandsAlone ? [new("", work.TableOf(value))] : []);

    private static JudgedField? Step(TrayPlace place, PlugStep step) => place.TableOf(step) is var (table, unit)
        ? new(Of(place.Plug!, step), unit, PlugKinds.BoundsOf(step), [new("", table)])
        {
            Empty = PlugKinds.Wanted(step), NoWrench = step == PlugStep.Torque ? PlugKinds.NoWrench : null,
            After = step != PlugStep.Torque ? null : new(
                [.. Enum.GetValues<PlugStep>().Where(other => other != PlugStep.Torque).Select(other =>
                    new FieldBefore(Of(place.Plug!, other), other.InWords()))],
                PlugKinds.Missing, place.IsMisplaced ? PlugRotation.Placard : null),
        }
        : TrayPlace.Choices(step) is { Count: > 0 } choices
            ? new(Of(place.Plug!, step), null, [],
                [.. choices.Select(one => new TableWhen(one.Said, JudgementTable.Always(one.Judgement)))])
            : null;

    // Everything that can be said of a place, beside what was found there last time.
    private static JudgedField Cuts(Component engine, IReadOnlyList<FilterCut> before) => new(Cut(engine), null, [],
    [
        .. from place in Enum.GetValues<FilterPlace>()
           from metal in Enum.GetValues<FilterMetal>()
           from amount in Enum.GetValues<FilterAmount>()
           select new TableWhen($"{place} {metal} {amount}", JudgementTable.Always(
               new FilterCut(Guid.Empty, engine.Id, place, metal, amount, "", null, Guid.Empty, default)
                   .Judge(before.Where(cut => cut.EngineId == engine.Id && cut.Place == place).MaxBy(cut => cut.At)))),
    ]);

    // A test that isn't begun yet may be begun where the shop can't be reached, hot or cold, at the usual supply.
    private static JudgedField Compressions(CompressionSheet sheet)
    {
        var conditions = sheet.Test?.Conditions ?? TestConditions.Usual;
        var heard = Enum.GetValues<LeakPath>().Where(path => path != LeakPath.None).ToList();
        var all = Enumerable.Range(0, 1 << heard.Count).Select(set => new Leaks(heard.Where((_, n) => (set & 1 << n) != 0)));
        return new(Compression(sheet.Engine), Measures.Unit.Psi, TypedReading.Bounds(conditions.Supply),
        [
            .. from leaks in all
               from hot in sheet.Test is null ? new[] { true, false } : [conditions.Hot]
               from again in new[] { false, true }
               select new TableWhen(When(hot, leaks, again),
                   CompressionJudge.Table(sheet.Limits, conditions with { Hot = hot }, leaks, again)),
        ])
        { Empty = TypedReading.Wanted(conditions.Supply), Behind = new(conditions.Supply.Value, conditions.DayOrifice?.Value) };
    }
}
