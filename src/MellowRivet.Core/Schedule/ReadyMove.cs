namespace MellowRivet.Core.Schedule;

/// <summary>That the day an aircraft is ready has moved, and what moved it.</summary>
/// <param name="Aircraft">The aircraft.</param>
/// <param name="At">When it was seen.</param>
/// <param name="From">The likely day before.</param>
/// <param name="To">The likely day since.</param>
/// <param name="NineFrom">The day of nine in ten before.</param>
/// <param name="NineTo">The same since.</param>
/// <param name="Because">What moved it, in words.</param>
public sealed record ReadyMove(string Aircraft, DateTimeOffset At, DateOnly From, DateOnly To, DateOnly NineFrom, DateOnly NineTo,
    string Because)
{
    /// <summary>By how many days; more than nothing is later.</summary>
    public int Days => To.DayNumber - From.DayNumber;

    /// <summary>By how many days nine in ten moved.</summary>
    public int NineDays => NineTo.DayNumber - NineFrom.DayNumber;

    /// <summary>"4 days later", or of the late day where only that moved.</summary>
    public string InWords => Days != 0 ? By(Days) : $"nine in ten {By(NineDays)}";

    private static string By(int days) => $"{Math.Abs(days)} day{(Math.Abs(days) == 1 ? "" : "s")} {(days > 0 ? "later" : "sooner")}";

    /// <summary>What moved between two plans.</summary>
    public static IReadOnlyList<ReadyMove> Between(HangarPlan before, HangarPlan now, DateTimeOffset at) =>
    [
        .. now.Aircraft.Select(ready => (ready, was: before.Of(ready.Aircraft)))
            .Where(one => one.was is not null && (one.was.Likely, one.was.NineInTen) != (one.ready.Likely, one.ready.NineInTen))
            .Select(one => new ReadyMove(one.ready.Aircraft, at, one.was!.Likely, one.ready.Likely, one.was.NineInTen, one.ready.NineInTen,
                Moved(before, now, one.ready.Aircraft))),
    ];

    // What changed on the aircraft itself first; then what did elsewhere in the shop; then that days went by.
    private static string Moved(HangarPlan before, HangarPlan now, string aircraft)
    {
        var own = Changes(before, now, job => job.Aircraft == aircraft).ToList();
        var hands = Hands(before, now).ToList();
        var others = Changes(before, now, job => job.Aircraft != aircraft).ToList();
        var said = own.Count > 0 ? own : hands.Count > 0 ? hands : others;
        return said.Count == 0 ? now.Start > before.Start ? "days went by and the work did not" : "another order of the work"
            : string.Join("; ", said.Take(Most)) + (said.Count > Most ? $"; and {said.Count - Most} more" : "");
    }

    private const int Most = 3;

    private static IEnumerable<string> Changes(HangarPlan before, HangarPlan now, Func<PlanJob, bool> which)
    {
        var (was, are) = (Named(before, which), Named(now, which));
        // What waits for parts moves a day most: it is told first.
        foreach (var job in are.Values.Where(job => !was.ContainsKey(job.Id)).OrderByDescending(job =>
            (job.LeadDays ?? 0) + job.OutsideDays)
            .ThenByDescending(job => job.Hours.Mean))
            yield return $"new: {PlanCheck.Title(job)}{Waits(job)}";
        foreach (var (id, job) in are)
            if (was.TryGetValue(id, out var old) && Differs(old, job) is { } how)
                yield return $"{PlanCheck.Title(job)}: {how}";
        foreach (var job in was.Values.Where(job => !are.ContainsKey(job.Id)))
            yield return $"no more: {PlanCheck.Title(job)}";
    }

    private static Dictionary<string, PlanJob> Named(HangarPlan plan, Func<PlanJob, bool> which) =>
        plan.Jobs.Select(job => job.Job).Where(which).ToDictionary(job => job.Id);

    private static string Waits(PlanJob job) => $", {job.Hours.Mean:0.#} h" + (job.LeadDays > 0 ? $", {job.Part} {job.LeadDays} days away"
        : job.OutsideDays > 0 ? $", {job.OutsideDays} days outside" : job.NotBefore is { } day ? $", not before {day:yyyy-MM-dd}" : "");

    private static string? Differs(PlanJob old, PlanJob now) =>
        old.NotBefore != now.NotBefore && (now.Part.Length > 0 || old.Part.Length > 0) ? now.NotBefore is { } day
            ? $"{now.Part} expected {day:yyyy-MM-dd}" : $"{old.Part} is here"
        : old.LeadDays != now.LeadDays || old.Part != now.Part
            ? now.LeadDays > 0 ? $"{now.Part} takes {now.LeadDays} days" : "its parts are here"
        : old.OutsideDays != now.OutsideDays ? $"{now.OutsideDays} days outside"
        : old.CureHours != now.CureHours ? $"{now.CureHours:0.#} h to cure"
        : old.Hours.Mean != now.Hours.Mean ? $"{now.Hours.Mean:0.#} h instead of {old.Hours.Mean:0.#}"
        : old.Pin != now.Pin ? now.Pin is null ? "not pinned any more" : "pinned"
        : old.Place != now.Place || !old.After.SequenceEqual(now.After) ? "waits for something else"
        : null;

    private static IEnumerable<string> Hands(HangarPlan before, HangarPlan now)
    {
        var (was, are) = (before.Hands.ToDictionary(hand => hand.Id), now.Hands.ToDictionary(hand => hand.Id));
        foreach (var hand in now.Hands)
            if (!was.TryGetValue(hand.Id, out var old))
                yield return $"{hand.Name} works here now";
            else if (old.Week.InWords != hand.Week.InWords)
                yield return $"{hand.Name} works {hand.Week.InWords}";
            else if (!old.Week.Off.SequenceEqual(hand.Week.Off))
                yield return $"{hand.Name} has other days off";
        foreach (var hand in before.Hands.Where(hand => !are.ContainsKey(hand.Id)))
            yield return $"{hand.Name} doesn’t work here any more";
    }
}
