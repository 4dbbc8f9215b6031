using System.Globalization;
using MellowRivet.Core.Schedule;

namespace MellowRivet.Web.Pages.Schedule;

/// <summary>Days and hands of a plan in words.</summary>
internal static class PlanWords
{
    public static string Day(DateOnly day) => day.ToString("ddd yyyy-MM-dd", CultureInfo.InvariantCulture);

    public static string Days(int days) => $"{days} day{(days == 1 ? "" : "s")}";

    public static string Span(IReadOnlyList<DateOnly> days) => $"{days[0]:MM-dd} and {days[^1]:MM-dd}";

    /// <summary>"an inspector".</summary>
    public static string Article(string skill) => PlanCheck.With(skill);

    /// <summary>How likely a promise is kept.</summary>
    public static string Kept(AircraftReady ready) =>
        $"kept in {ready.InTime * 100:0} of 100 runs{(ready.LateBy is { } late ? $", likely {Days(late)} late" : "")}";

    /// <summary>When an aircraft is ready, in a line.</summary>
    public static string InWords(this AircraftReady ready) =>
        $"{ready.Lead()} {Day(ready.Likely)}, nine times in ten by {Day(ready.NineInTen)}{ready.Without()}";

    /// <summary>How its likely day is told: where work isn't in the plan, no day is likely.</summary>
    public static string Lead(this AircraftReady ready) => ready.LeftOut == 0 ? "ready likely" : "ready at the soonest";

    /// <summary>What isn't in it; empty for nothing.</summary>
    public static string Without(this AircraftReady ready) => ready.LeftOut == 0 ? ""
        : $", without {ready.LeftOut} {(ready.LeftOut == 1 ? "line that has" : "lines that have")} no hours yet";
}
