namespace MellowRivet.Core.Due;

/// <summary>How long something is, in words people use: past two years, years.</summary>
public static class Spans
{
    private const int TwoYearsOfDays = 731, TwoYearsOfMonths = 24;

    /// <summary>"45 days", "2.4 years".</summary>
    public static string OfDays(decimal days) =>
        days > TwoYearsOfDays ? $"{days / 365.25m:0.#} years" : $"{days:0} {(days == 1 ? "day" : "days")}";

    /// <summary>"18 months", "6.5 years".</summary>
    public static string OfMonths(int months) =>
        months > TwoYearsOfMonths ? $"{months / 12m:0.#} years" : $"{months} {(months == 1 ? "month" : "months")}";
}
