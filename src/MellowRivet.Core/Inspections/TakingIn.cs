using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
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
/// <param name="Use">How much it flies; null where nobody can tell.</param>
public sealed record BeginsWith(IReadOnlyCollection<TaskDone> Done, HouseRules House, IEnumerable<KnownMark> KnownMarks,
    IEnumerable<OpenItem> OpenItems, Utilisation? Use = null);

/// <summary>An aircraft taken in, as it is sent.</summary>
/// <param name="Kind">What kind of inspection.</param>
/// <param name="Hours">What the meter shows that time in service goes by.</param>
/// <param name="WorkOrder">The work order.</param>
/// <param name="Worksheets">The worksheets that are ticked, the leading one first.</param>
/// <param name="Squawks">The owner's complaints, one to a line.</param>
/// <param name="Sure">Whoever typed the hours was asked about them, and says that they are right.</param>
public sealed record TakingIn(InspectionKind Kind, string? Hours, string? WorkOrder, IReadOnlyList<Worksheet> Worksheets, string? Squawks,
    bool Sure = false)
{
    /// <summary>The field of the question whether hours that are many are right.</summary>
    public const string AsksSure = "Sure";

    // Ten times what an aircraft usually flies is more often a slip of the finger than a busy month; common practice.
    private const double TimesUsual = 10;
    private const decimal FewestAskedAbout = 10;

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

    // More hours than it usually flies by far: asked about before anything rests on them.
    private static string? Unusual(Hours before, Hours now, DateOnly? since, DateOnly today, Utilisation? use)
    {
        var (flown, days) = (now.Value - before.Value, today.DayNumber - (since ?? today).DayNumber);
        return use is { PerDay: > 0 } usual && flown > FewestAskedAbout && (double)flown > TimesUsual * usual.PerDay * Math.Max(1, days)
            ? $"{flown:0.#} h since {since:yyyy-MM-dd}, {Spans.OfDays(days)}: usually it flies {usual.PerDay * 30:0.#} h a month. Look "
                + "again at what the meter shows."
            : null;
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
        var (before, since) = (aircraft.TimeInService, aircraft.ReadOn);
        if (aircraft.ReadMeter(aircraft.TimeBasis, today, TypedNumber.ParseHours(Hours)!.Value.Value, initials) is { } meter)
            return (null, new("Hours", meter.Field == MeterFault.Backwards
                ? $"{meter.Message} If it was, note that under Times first."
                : meter.Message));
        if (!Sure && Unusual(before, aircraft.TimeInService, since, today, with.Use) is { } asked)
            return (null, new(AsksSure, asked));
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
