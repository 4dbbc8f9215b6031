using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Estimates;

/// <summary>
/// Hours that somebody worked on one thing. A clock that runs is kept by the shop, not by the page: a closed lid doesn't stop it.
/// </summary>
public sealed class BookedTime
{
    /// <summary>A clock that ran longer was forgotten: whoever started it says how many hours it was. Common practice.</summary>
    public const decimal LongestUnasked = 10;

    /// <summary>Most hours that are booked at once.</summary>
    public const decimal Most = 100;

    private BookedTime() { }

    /// <param name="id">Its id.</param>
    /// <param name="inspectionId">The inspection.</param>
    /// <param name="key">The line that it was worked on: a discrepancy's number, or the work's key.</param>
    /// <param name="kind">What kind of job it is; empty where nobody can say.</param>
    /// <param name="by">Who.</param>
    /// <param name="skill">As what.</param>
    /// <param name="from">When it began.</param>
    /// <param name="hours">Hours; null while the clock runs.</param>
    public BookedTime(Guid id, Guid inspectionId, string key, string kind, Guid by, Skill skill, DateTimeOffset from,
        decimal? hours = null) =>
        (Id, InspectionId, Key, Kind, By, Skill, From, Hours) = (id, inspectionId, key, kind, by, skill, from, hours);

    public Guid Id { get; private set; }
    public Guid InspectionId { get; private set; }
    public string Key { get; private set; } = "";
    public string Kind { get; private set; } = "";
    public Guid By { get; private set; }
    public Skill Skill { get; private set; }
    public DateTimeOffset From { get; private set; }

    /// <summary>Hours worked; null while the clock runs.</summary>
    public decimal? Hours { get; private set; }

    public bool IsRunning => Hours is null;

    /// <summary>What it runs on, as people say it.</summary>
    public string OnWhat => char.IsAsciiDigit(Key[0]) ? $"{Key} {Kind}".TrimEnd() : Kind.Length > 0 ? Kind : Key;

    /// <summary>Hours it has run at a moment.</summary>
    public decimal RunAt(DateTimeOffset now) => Math.Max(0, Math.Round((decimal)(now - From).TotalHours, 2));

    /// <summary>Whoever stops it has to say how many hours it was.</summary>
    public bool IsForgotten(DateTimeOffset now) => IsRunning && RunAt(now) > LongestUnasked;

    /// <summary>Stops the clock.</summary>
    /// <param name="typed">Hours, where they weren't worked through; empty for all of them.</param>
    /// <param name="now">The moment.</param>
    public Refusal? Stop(string? typed, DateTimeOffset now)
    {
        if (!IsRunning)
            return null;
        if (string.IsNullOrWhiteSpace(typed) && IsForgotten(now))
            return new("stop", $"The clock has run {RunAt(now):0.#} h: say how many of them you worked.");
        if (string.IsNullOrWhiteSpace(typed))
        {
            Hours = RunAt(now);
            return null;
        }
        var (hours, refusal) = Read(typed);
        if (hours > RunAt(now))
            refusal = new("hours", $"The clock has run {RunAt(now):0.##} h: it can't have been more.");
        if (refusal is not null)
            return refusal with { Field = "stop" };
        Hours = hours;
        return null;
    }

    /// <summary>It was named another kind of job.</summary>
    public void Call(string kind) => Kind = kind;

    /// <summary>Hours as typed.</summary>
    public static (decimal Hours, Refusal? Refusal) Read(string? typed) =>
        MeasureText.Value(typed, Unit.Hour) is > 0 and var hours && hours <= (double)Most
            ? (Math.Round((decimal)hours, 2), null)
            : (0, new("hours", $"Hours above 0, up to {Most:0}, as 1.5 or 1:30."));
}

/// <summary>What kinds of jobs there are: jobs of one kind say what the next one takes.</summary>
public static class JobKinds
{
    public const int Longest = 60;

    /// <summary>
    /// The kind of a discrepancy's job: as somebody named it, else what its words speak of; empty where they speak of nothing.
    /// </summary>
    public static string Of(Discrepancy found, ClassRules rules) => found.JobKind ?? Cut(rules.Guess(found.What, null, null).Speaks ?? "");

    /// <summary>The kind of an inspection: its own kind, on this type.</summary>
    public static string Of(Inspection inspection, string type) => Cut($"{inspection.Kind.InFull()}, {type}");

    /// <summary>The kind of other work: what it is called.</summary>
    public static string Of(PricedWork work) => Cut(work.Title);

    private static string Cut(string words) => words.Length <= Longest ? words : words[..Longest].TrimEnd();
}

/// <summary>A job that was done, and what it took.</summary>
/// <param name="Order">Its number as people say it: "26-117-04".</param>
/// <param name="Hours">All the hours that were booked on it.</param>
/// <param name="PutAt">Hours it was put at, likely; null where nobody had said.</param>
/// <param name="On">The day it was last worked on.</param>
public sealed record JobTook(string Order, decimal Hours, decimal? PutAt, DateOnly On);

/// <summary>What jobs of one kind took in this shop.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="Jobs">Those that were done, earliest first.</param>
public sealed record Learned(string Kind, IReadOnlyList<JobTook> Jobs)
{
    /// <summary>Under so many there is no history (domain.md section 12).</summary>
    public const int Fewest = 5;

    // With so many the slowest and the fastest tenth are left out: one bad day shouldn't widen every estimate to come.
    private const int Many = 10;

    public static readonly Learned Nothing = new("", []);

    /// <summary>
    /// What the next one is put at: the least, the middle and the most it took; from ten on the tenth and the ninetieth of a hundred.
    /// Null where there is no history.
    /// </summary>
    public Spread? Offer
    {
        get
        {
            if (Jobs.Count < Fewest)
                return null;
            var hours = Jobs.Select(job => job.Hours).Order().ToList();
            var edge = Jobs.Count < Many ? 0 : 0.1m;
            return new(At(hours, edge), At(hours, 0.5m), At(hours, 1 - edge));
        }
    }

    /// <summary>
    /// How far off the estimates were: the middle of what was taken over what was put; null under five that were put at something.
    /// </summary>
    public decimal? TimesEstimate
    {
        get
        {
            var ratios = Jobs.Where(job => job.PutAt > 0).Select(job => job.Hours / job.PutAt!.Value).Order().ToList();
            return ratios.Count < Fewest ? null : Math.Round(At(ratios, 0.5m), 2);
        }
    }

    /// <summary>In words, with how many it rests on.</summary>
    public string InWords => Kind.Length == 0 ? "Name its kind of job, and the next one knows what it took."
        : Offer is { } offer
        ? $"{Jobs.Count} of this kind took {offer.Likely:0.##} h in the middle, {offer.Low:0.##} to {offer.High:0.##}; the last "
            + $"{Jobs[^1].Hours:0.##} ({Jobs[^1].Order})"
            + $"{(TimesEstimate is { } times ? $". They took {times:0.##} times what they were put at" : "")}."
        : Jobs.Count == 0 ? "None of this kind was booked here: no history."
        : $"{Jobs.Count} of this kind {(Jobs.Count == 1 ? "was" : "were")} booked here: no history under {Fewest}.";

    // Between two of them in proportion (NIST/SEMATECH e-Handbook, 7.2.6.2, the way that reaches both ends).
    private static decimal At(List<decimal> sorted, decimal share)
    {
        var place = share * (sorted.Count - 1);
        var below = (int)Math.Floor(place);
        return Math.Round(below + 1 < sorted.Count
            ? sorted[below] + ((place - below) * (sorted[below + 1] - sorted[below]))
            : sorted[below], 2);
    }
}
