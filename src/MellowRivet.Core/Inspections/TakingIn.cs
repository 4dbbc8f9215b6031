using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Inspections;

/// <summary>What an inspection begins with, beside its aircraft and its worksheets.</summary>
/// <param name="Done">What was last done when on this aircraft.</param>
/// <param name="House">How the shop works.</param>
/// <param name="KnownMarks">Marks that earlier inspections found benign.</param>
/// <param name="OpenItems">What earlier inspections left open.</param>
public sealed record BeginsWith(IReadOnlyCollection<TaskDone> Done, HouseRules House, IEnumerable<KnownMark> KnownMarks,
    IEnumerable<OpenItem> OpenItems);

/// <summary>An aircraft taken in, as it is sent.</summary>
/// <param name="Kind">What kind of inspection.</param>
/// <param name="Hours">What the meter shows that time in service goes by.</param>
/// <param name="WorkOrder">The work order.</param>
/// <param name="Worksheets">The worksheets that are ticked, the leading one first.</param>
/// <param name="Squawks">The owner's complaints, one to a line.</param>
public sealed record TakingIn(InspectionKind Kind, string? Hours, string? WorkOrder, IReadOnlyList<Worksheet> Worksheets, string? Squawks)
{
    /// <summary>Longest work order, in characters.</summary>
    public const int LongestWorkOrder = 20;

    private const int BeforeFirstOrder = 100;

    /// <summary>The work order without blanks around it.</summary>
    public string Order => WorkOrder?.Trim() ?? "";

    /// <summary>What the work orders of a year begin with: "26-".</summary>
    public static string OrdersOf(DateOnly today) => $"{today:yy}-";

    /// <summary>One above the highest of this year; a shop that numbers its work otherwise types its own.</summary>
    /// <param name="today">The day.</param>
    /// <param name="taken">The work orders of this year.</param>
    public static string NextOrder(DateOnly today, IEnumerable<string> taken) => OrdersOf(today)
        + (taken.Select(order => int.TryParse(order[OrdersOf(today).Length..], out var number) ? number : 0)
            .DefaultIfEmpty(BeforeFirstOrder).Max() + 1);

    /// <summary>All that is wrong with it as it is typed.</summary>
    /// <param name="aircraft">The aircraft that was chosen; null while none is.</param>
    /// <param name="kinds">The kinds that somebody can sign on it.</param>
    public IEnumerable<Refusal> Check(Aircraft? aircraft, IReadOnlyCollection<InspectionKind> kinds)
    {
        if (aircraft is null)
            yield return new("Aircraft", "Choose the aircraft. One that was never here gets its file first.");
        else if (!kinds.Contains(Kind))
            yield return new("Kind",
                $"On an aircraft of category {aircraft.Category.InWords()} nobody signs a {Kind.InWords()} by the rule pack. There are: "
                + $"{string.Join(", ", kinds.Select(kind => kind.InWords()))}.");
        if (TypedNumber.ParseHours(Hours) is null)
            yield return new("Hours", "Type the hours the meter shows: 4318.6.");
        if (Order.Length is 0 or > LongestWorkOrder)
            yield return new("WorkOrder", $"A work order of up to {LongestWorkOrder} characters.");
        if (Worksheets.Count == 0)
            yield return new("Worksheets", "Tick at least one worksheet: its tasks are the walk.");
    }

    /// <summary>Reads the aircraft's meter and begins the inspection; or says why not.</summary>
    /// <param name="id">The inspection's id.</param>
    /// <param name="aircraft">The aircraft with its parts and all that its meters ever showed.</param>
    /// <param name="with">What it begins with.</param>
    /// <param name="by">Who takes it in.</param>
    /// <param name="initials">Their initials, for the meter's reading.</param>
    /// <param name="today">The day.</param>
    /// <param name="at">The moment.</param>
    public (Inspection? Inspection, Refusal? Refusal) Begin(Guid id, Aircraft aircraft, BeginsWith with, Guid by, string initials,
        DateOnly today, DateTimeOffset at)
    {
        if (aircraft.ReadMeter(aircraft.TimeBasis, today, TypedNumber.ParseHours(Hours)!.Value.Value, initials) is { } meter)
            return (null, new("Hours", meter.Field == MeterFault.Backwards
                ? $"{meter.Message} If it was, note that under Times first."
                : meter.Message));
        var inspection = new Inspection(id, aircraft, Kind, Order, Worksheets, today, with.Done, with.House, with.KnownMarks,
            with.OpenItems);
        if (inspection.Tasks.Count == 0)
            return (null, new("Worksheets", "Nothing of these worksheets is due now. Tick another one."));
        foreach (var words in (Squawks ?? "").Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
            if (inspection.Hear(Guid.CreateVersion7(), words, by, at) is { } squawk)
                return (null, squawk with { Field = "Squawks" });
        return (inspection, null);
    }
}
