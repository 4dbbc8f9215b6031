namespace MellowRivet.Core.Due;

/// <summary>What a limb counts by.</summary>
public enum LimbKind { Hours = 1, Calendar, Landings, Cycles }

/// <summary>How urgent, from harmless to not. Unknown is never taken for fine.</summary>
public enum DueState { Ok = 1, Soon, Grace, Unknown, Overdue }

/// <summary>What has been counted by now.</summary>
/// <param name="Total">The total; null where it isn't known.</param>
/// <param name="On">The day it was read.</param>
/// <param name="Use">How fast it grows; null where there is no forecast.</param>
public sealed record Counted(decimal? Total, DateOnly? On, Utilisation? Use)
{
    public static readonly Counted Unknown = new(null, null, null);

    /// <summary>What the readings say: the latest total, and the use.</summary>
    public static Counted Of(IReadOnlyCollection<Count> readings) => readings.Count == 0
        ? Unknown
        : new(readings.Max(reading => reading.Total), readings.Max(reading => reading.On), Utilisation.Of(readings));
}

/// <summary>Now, as far as due items go.</summary>
public sealed record DueNow(DateOnly Today, Counted Hours, Counted Landings, Counted Cycles)
{
    public DueNow(DateOnly today, Counted hours) : this(today, hours, Counted.Unknown, Counted.Unknown) { }
}

/// <summary>Where one limb stands.</summary>
/// <param name="Kind">What it counts by.</param>
/// <param name="DueAt">The total at which it is due; null for a calendar limb or where unknown.</param>
/// <param name="DueOn">The date it is due; null for a counted limb or where unknown.</param>
/// <param name="Remaining">What remains: days, hours, landings or cycles; negative beyond it; null where unknown.</param>
/// <param name="Forecast">The day it falls due at the usual use.</param>
/// <param name="Earliest">The same in a busy stretch.</param>
/// <param name="Latest">The same in a slow stretch.</param>
/// <param name="State">How urgent it is.</param>
public sealed record LimbStatus(LimbKind Kind, decimal? DueAt, DateOnly? DueOn, decimal? Remaining, DateOnly? Forecast, DateOnly? Earliest,
    DateOnly? Latest, DueState State);

/// <summary>Where a due item stands.</summary>
/// <param name="Limbs">Every limb of its interval.</param>
/// <param name="Governing">The limb whose forecast is soonest; null where none can be told.</param>
/// <param name="State">The whole.</param>
/// <param name="Why">What the state rests on, or what is missing, in words.</param>
public sealed record DueStatus(IReadOnlyList<LimbStatus> Limbs, LimbStatus? Governing, DueState State, string Why)
{
    /// <summary>Days within which something is soon; common practice, the product's own.</summary>
    public const int SoonDays = 30;

    /// <summary>Hours within which something is soon, or a fifth of a period shorter than 50 h.</summary>
    public const decimal SoonHours = 10;

    /// <summary>When it is due, limb by limb: "at 1350.5 h or by 2027-11-30"; "not known" where nobody can tell.</summary>
    public string WhenDue => string.Join(" or ", Limbs.Select(limb => limb.DueOn is { } day ? $"by {day:yyyy-MM-dd}"
        : limb.DueAt is { } at ? $"at {at:0.0} {(limb.Kind == LimbKind.Hours ? "h" : limb.Kind.InWords())}"
        : "").Where(words => words.Length > 0).DefaultIfEmpty("not known"));

    public LimbStatus? Limb(LimbKind kind) => Limbs.FirstOrDefault(limb => limb.Kind == kind);

    public DateOnly? Forecast => Governing?.Forecast;

    /// <summary>Reckons where an item stands.</summary>
    /// <param name="interval">How often it is due.</param>
    /// <param name="last">When it was last done; null where nobody knows.</param>
    /// <param name="now">Today, and what has been counted; of the part, where the item hangs on one.</param>
    public static DueStatus Of(Interval interval, LastDone? last, DueNow now)
    {
        List<LimbStatus> limbs = [];
        List<string> missing = [], notes = [];
        if (interval.EveryHours is { } hours)
        {
            limbs.Add(CountedLimb(LimbKind.Hours, interval.NextHours(last?.Hours, last?.WasDueHours), interval.GraceHours,
                Math.Min(SoonHours, hours / 5), now.Hours, now.Today));
            Note(last?.Hours ?? interval.FirstAtHours, now.Hours, "hours", missing, notes);
            if (last is { Hours: { } done, WasDueHours: { } due } && done > due + interval.GraceHours && interval.GraceHours > 0)
                notes.Add(
                    $"The last one was overflown by {done - due:0.##} h, more than the {interval.GraceHours:0.##} h allowed; the next "
                    + $"still counts from {due:0.0}.");
        }
        if (interval.EveryMonths is not null || interval.NotAfter is not null)
        {
            limbs.Add(CalendarLimb(interval, last?.On, now.Today));
            if (interval.EveryMonths is not null && last?.On is null)
                missing.Add("the day it was last done");
        }
        if (interval.EveryLandings is { } landings)
        {
            limbs.Add(CountedLimb(LimbKind.Landings, last?.Landings + landings, 0, landings / 10m, now.Landings, now.Today));
            Note(last?.Landings, now.Landings, "landings", missing, notes);
        }
        if (interval.EveryCycles is { } cycles)
        {
            limbs.Add(CountedLimb(LimbKind.Cycles, last?.Cycles + cycles, 0, cycles / 10m, now.Cycles, now.Today));
            Note(last?.Cycles, now.Cycles, "cycles", missing, notes);
        }
        if (limbs.Count == 0)
            missing.Add("an interval: read it in the manual");

        var governing = Governs(limbs);
        var state = limbs.Select(limb => limb.State).Append(missing.Count > 0 ? DueState.Unknown : DueState.Ok).Max();
        var why = missing.Count > 0 ? $"Can’t tell yet: {string.Join(", and ", missing.Distinct())}." : "";
        return new(limbs, governing, state, string.Join(" ", notes.Prepend(why).Where(words => words.Length > 0)));
    }

    private static void Note(decimal? done, Counted now, string what, List<string> missing, List<string> notes)
    {
        if (done is null)
            missing.Add($"the {what} when it was last done");
        if (now.Total is null)
            missing.Add($"the {what} now");
        else if (now.Use is null)
            notes.Add($"No forecast of the {what}: it takes two readings on different days.");
        else if (now.Use.PerDay <= 0)
            notes.Add($"No forecast of the {what}: none are being added.");
    }

    // The soonest forecast governs. A counted limb that is used up governs even where nothing can be forecast.
    private static LimbStatus? Governs(List<LimbStatus> limbs) =>
        limbs.Where(limb => limb.Forecast is not null).MinBy(limb => limb.Forecast)
        ?? limbs.Where(limb => limb.Remaining is not null).MinBy(limb => limb.Remaining);

    private static LimbStatus CalendarLimb(Interval interval, DateOnly? done, DateOnly today)
    {
        DateOnly? byMonths = interval.EveryMonths is { } months && done is { } on ? Interval.DueDate(on, months, interval.Calendar) : null;
        var due = byMonths is { } one && interval.NotAfter is { } other ? (one < other ? one : other) : byMonths ?? interval.NotAfter;
        if (due is not { } day)
            return new(LimbKind.Calendar, null, null, null, null, null, null, DueState.Unknown);
        var remaining = day.DayNumber - today.DayNumber;
        var state = remaining < 0 ? DueState.Overdue
            : interval.EveryMonths is not null && byMonths is null ? DueState.Unknown
            : remaining <= SoonDays ? DueState.Soon : DueState.Ok;
        return new(LimbKind.Calendar, null, day, remaining, day, null, null, state);
    }

    private static LimbStatus CountedLimb(LimbKind kind, decimal? next, decimal grace, decimal soon, Counted now, DateOnly today)
    {
        if (next is not { } due)
            return new(kind, null, null, null, null, null, null, DueState.Unknown);
        if (now.Total is not { } total)
            return new(kind, due, null, null, null, null, null, DueState.Unknown);

        var remaining = due - total;
        var (usual, soonest, latest) = now.Use?.DaysFor(remaining) ?? default;
        DateOnly? After(int? days) => remaining <= 0 ? today : days is { } count ? Later(today, (now.On ?? today).AddDays(count)) : null;
        var forecast = After(usual);
        var state = remaining < -grace ? DueState.Overdue
            : remaining < 0 ? DueState.Grace
            : remaining <= soon || forecast?.DayNumber - today.DayNumber <= SoonDays ? DueState.Soon
            : DueState.Ok;
        return new(kind, due, null, remaining, forecast, remaining > 0 ? After(soonest) : null, remaining > 0
            ? After(latest)
            : null, state);
    }

    private static DateOnly Later(DateOnly one, DateOnly other) => one > other ? one : other;
}

public static class DueWords
{
    public static string InWords(this DueState state) => state switch
    {
        DueState.Ok => "good",
        DueState.Soon => "soon",
        DueState.Grace => "overrun, allowed",
        DueState.Overdue => "overdue",
        _ => "can’t tell yet",
    };

    public static string InWords(this LimbKind kind) => kind switch
    {
        LimbKind.Hours => "hours",
        LimbKind.Calendar => "calendar",
        LimbKind.Landings => "landings",
        _ => "cycles",
    };
}
