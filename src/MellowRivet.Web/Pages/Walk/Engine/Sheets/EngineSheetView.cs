using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;

namespace MellowRivet.Web.Pages.Walk.Engine.Sheets;

/// <summary>A sheet of the engine station: values, looks, and what they come to together.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Engine">The engine.</param>
/// <param name="Work">The sheet as far as it is done.</param>
/// <param name="All">Readings of the part before this inspection and in it.</param>
/// <param name="CutsBefore">What was found in filters and on plugs before this inspection, latest first.</param>
/// <param name="Together">What the values come to together, beside each one's own judgement.</param>
/// <param name="SentValue">The value that was just sent; null for none.</param>
/// <param name="On">The day, for ages.</param>
/// <param name="OilBefore">The oil change before this inspection; null for none on file.</param>
public sealed record EngineSheetView(WalkShown Walk, Component Engine, SheetWork Work, IReadOnlyList<Reading> All,
    IReadOnlyList<FilterCut> CutsBefore, IReadOnlyList<SheetTogether> Together, (string Kind, string Position)? SentValue, DateOnly On,
    OilFill? OilBefore)
    : EngineView(Walk, Engine)
{
    public SheetKind Kind => Work.Sheet.Kind;
    public Guid Carrier => Work.Sheet.Carrier.Id;
    public string Place => Job.Aircraft.Fitting(Carrier) is { } stay && Carrier != Engine.Id ? stay.Position : "";
    public string Self => EngineNavView.HrefOf(Job.Inspection, Work.Sheet);
    public bool IsMagnetoBenched => Job.Inspection.BenchedMagnetos.Contains(Carrier);

    public SheetLookForm? TypedLook => Typed<SheetLookForm>();
    public CutForm? TypedCut => Typed<CutForm>();

    /// <summary>What stands in the fields of the oil change: as typed, as kept, or the oil of last time.</summary>
    public FillForm FillShown => Typed<FillForm>() ?? (Filled is { } now
        ? new() { Oil = now.Oil, Amount = $"{now.Value:0.##}", Unit = now.UnitSymbol, Filter = now.Filter }
        : new() { Oil = OilBefore?.Oil, Unit = OilBefore?.UnitSymbol ?? "qt", Filter = OilBefore?.Filter });

    public OilFill? Filled => Job.Inspection.OilFills.FirstOrDefault(fill => fill.EngineId == Carrier);

    public OilUse OilUse => OilUse.Of(All);
    public IReadOnlyList<OilMetal> Metals => OilMetal.Of([.. All]);

    /// <summary>The value that was just sent, as it stands now.</summary>
    public ValueOnSheet? Sent => SentValue is var (kind, position)
        ? Work.Values.FirstOrDefault(value => value.Of.Kind == kind && value.Of.Position == position)
        : null;

    /// <summary>The last reading of a value before this inspection.</summary>
    public Reading? LastTime(SheetValue value) =>
        All.Where(reading => reading.Kind == value.Kind && reading.Position == value.Position && reading.InspectionId != Id)
            .MaxBy(reading => reading.SeriesTime.Value);
}

/// <summary>One value of a sheet.</summary>
public sealed record SheetValueView(EngineSheetView On, ValueOnSheet Value)
{
    public string Key => $"{Value.Of.Kind}-{Value.Of.Position}";

    /// <summary>What stands in its field: as typed where it was refused, else as kept.</summary>
    public string? Typed =>
        On.Typed<SheetValueForm>() is { } sent && $"{sent.Of}-{sent.Position}" == Key
            ? sent.Value
            : Value.Reading is { } reading ? MeasureText.Typed(reading.Value, Unit.Find(reading.UnitSymbol)!) : null;
}
