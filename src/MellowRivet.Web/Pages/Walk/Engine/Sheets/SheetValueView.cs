using MellowRivet.Core.EngineStation;

namespace MellowRivet.Web.Pages.Walk.Engine.Sheets;

/// <summary>One value of a sheet.</summary>
public sealed record SheetValueView(EngineSheetModel On, ValueOnSheet Value)
{
    public string Key => $"{Value.Of.Kind}-{Value.Of.Position}";

    /// <summary>What stands in its field: as typed where it was refused, else as kept.</summary>
    public string? Typed =>
        On.TypedValue is { } sent && $"{sent.Of}-{sent.Position}" == Key ? sent.Value : Value.Reading?.Value.ToString("0.####");
}
