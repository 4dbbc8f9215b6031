using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Signing;

namespace MellowRivet.Web.Pages.Shelves;

/// <summary>How the shop works, as it is sent.</summary>
public sealed class HouseForm
{
    // More than any sum of a shop: what can't be read comes out as a sum that is refused.
    private const double MostSum = 1e9;

    public Guid Post { get; set; } = Guid.CreateVersion7();
    public string? Name { get; set; }
    public SeparateInspector Inspector { get; set; }
    public bool FirstLook { get; set; }
    public bool AskFirst { get; set; }
    public bool AirworthinessUnasked { get; set; }
    public string? PreAuthorised { get; set; }
    public string? LabourRate { get; set; }
    public string? InspectorRate { get; set; }
    public string? AssistantRate { get; set; }
    public string? Tax { get; set; }
    public string? Money { get; set; }
    public LookSchool? SignersLook { get; set; }
    public string? StickerWidth { get; set; }
    public string? StickerHeight { get; set; }
    public string? Places { get; set; }
    public string? LockMinutes { get; set; }

    public HouseRules ToRules() => new(Inspector, FirstLook, AskFirst, Sum(PreAuthorised), AirworthinessUnasked, Sum(LabourRate),
        Money?.Trim() ?? "$", SignersLook, Millimetres(StickerWidth ?? "140"), Millimetres(StickerHeight ?? "90"),
        Name?.Trim() ?? "", Rate(InspectorRate), Rate(AssistantRate), Sum(Tax), Places?.Trim() ?? "",
        string.IsNullOrWhiteSpace(LockMinutes) ? new HouseRules().LockMinutes : Whole(LockMinutes));

    private static int Whole(string typed) => TypedNumber.Parse(typed) is { } number && number == Math.Round(number)
        && Math.Abs(number) < MostSum ? (int)number : -1;

    private static decimal? Rate(string? typed) => string.IsNullOrWhiteSpace(typed) ? null : Sum(typed);

    private static double Millimetres(string typed) => MeasureText.Value(typed, Core.Measures.Unit.Millimetre) ?? 0;

    private static decimal Sum(string? typed) =>
        TypedNumber.Parse(string.IsNullOrWhiteSpace(typed) ? "0" : typed) is { } sum && Math.Abs(sum) < MostSum ? (decimal)sum : -1;
}
