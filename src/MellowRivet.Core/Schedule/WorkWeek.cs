using System.Globalization;

namespace MellowRivet.Core.Schedule;

/// <summary>Days on which somebody doesn't work.</summary>
/// <param name="From">The first.</param>
/// <param name="Until">The last; null while nobody knows.</param>
public sealed record DaysOff(DateOnly From, DateOnly? Until)
{
    public bool Holds(DateOnly day) => From <= day && (Until is null || day <= Until);
}

/// <summary>When somebody works: the same hours on the same days of the week, but for the days off.</summary>
/// <param name="Begins">When the day begins, by the shop's clock.</param>
/// <param name="HoursPerDay">Hours of one day, at a stretch.</param>
/// <param name="Days">Days of the week; none for whoever doesn't work here.</param>
/// <param name="Off">Days off, in order.</param>
public sealed record WorkWeek(TimeOnly Begins, decimal HoursPerDay, IReadOnlyList<DayOfWeek> Days, IReadOnlyList<DaysOff> Off)
{
    public const decimal MostHours = 16;
    public const int MostOff = 200;

    /// <summary>Monday to Friday, eight hours from eight: common practice, until a person's own are on file.</summary>
    public static readonly WorkWeek Usual = new(new(8, 0), 8,
        [DayOfWeek.Monday, DayOfWeek.Tuesday, DayOfWeek.Wednesday, DayOfWeek.Thursday, DayOfWeek.Friday], []);

    public bool WorksOn(DateOnly day) => Days.Contains(day.DayOfWeek) && !Off.Any(off => off.Holds(day));

    /// <summary>What is wrong with it as typed; null where it can be kept.</summary>
    public Refusal? Check() =>
        HoursPerDay is <= 0 or > MostHours ? new("hours", $"Hours of a day above 0 and up to {MostHours:0}.")
        : (decimal)Begins.ToTimeSpan().TotalHours + HoursPerDay > 24
            ? new("hours", $"{HoursPerDay:0.##} h from {Begins:HH\\:mm} go past midnight.")
        : Days.Distinct().Count() < Days.Count || !Days.All(Enum.IsDefined) ? new("days", "Each day of the week once.")
        : Off.Count > MostOff ? new("off", $"Up to {MostOff} spans of days off.")
        : Off.FirstOrDefault(off => off.Until < off.From) is { } turned
            ? new("off", $"{turned.From:yyyy-MM-dd} to {turned.Until:yyyy-MM-dd}: it ends before it begins.")
        : Off.FirstOrDefault(off => off.From is { Year: < 1950 or > 2199 } || off.Until is { Year: > 2199 }) is not null
            ? new("off", "Days off from 1950 to 2199.")
        : null;

    /// <summary>"8 h from 08:00, Mon Tue Wed Thu Fri".</summary>
    public string InWords => Days.Count == 0 ? "no days" : string.Create(CultureInfo.InvariantCulture,
        $"{HoursPerDay:0.##} h from {Begins:HH\\:mm}, {string.Join(' ', Days.OrderBy(FromMonday).Select(day => day.ToString()[..3]))}");

    /// <summary>A day's place in a week that begins on Monday.</summary>
    public static int FromMonday(DayOfWeek day) => ((int)day + 6) % 7;
}

/// <summary>A hand of the shop: somebody with skills and hours.</summary>
/// <param name="Id">Its name in the plan.</param>
/// <param name="Name">What they are called.</param>
/// <param name="Skills">What they can do.</param>
/// <param name="Week">When they work.</param>
public sealed record Hand(string Id, string Name, IReadOnlyList<string> Skills, WorkWeek Week)
{
    /// <summary>They have the skill that it takes.</summary>
    public bool Can(PlanJob job) => job.Skill is null || Skills.Contains(job.Skill, StringComparer.OrdinalIgnoreCase);
}

/// <summary>The minutes that somebody works, counted from midnight of a plan's first day.</summary>
internal sealed class HandCalendar
{
    /// <summary>No plan reaches farther, in days: eleven years.</summary>
    public const int Horizon = 4_000;

    public const int Day = 24 * 60;

    /// <summary>Past the end of any plan.</summary>
    public const int Never = int.MaxValue / 4;

    private readonly int opens;
    private readonly int[] worked = new int[Horizon + 1];

    public HandCalendar(WorkWeek week, DateOnly start)
    {
        opens = (int)week.Begins.ToTimeSpan().TotalMinutes;
        var length = (int)(week.HoursPerDay * 60);
        for (var day = 0; day < Horizon; day++)
            worked[day + 1] = worked[day] + (week.WorksOn(start.AddDays(day)) ? length : 0);
    }

    public bool NeverWorks => worked[Horizon] == 0;

    /// <summary>Minutes worked before a moment.</summary>
    public int Before(int minute)
    {
        var day = minute / Day;
        return day >= Horizon ? worked[Horizon]
            : worked[day] + Math.Clamp(minute - (day * Day) - opens, 0, worked[day + 1] - worked[day]);
    }

    /// <summary>The first moment from one on at which they work.</summary>
    public int Next(int minute)
    {
        for (var day = minute / Day; day < Horizon; day++)
        {
            var length = worked[day + 1] - worked[day];
            if (length == 0)
                continue;
            var from = (day * Day) + opens;
            if (minute < from + length)
                return Math.Max(minute, from);
        }
        return Never;
    }

    /// <summary>When work is through that begins at a moment of theirs and goes on over nights and days off.</summary>
    public int Finish(int from, int minutes)
    {
        if (from >= Never || minutes == 0)
            return from;
        var through = Before(from) + minutes;
        for (var day = from / Day; day < Horizon; day++)
            if (worked[day + 1] >= through)
                return (day * Day) + opens + through - worked[day];
        return Never;
    }
}
