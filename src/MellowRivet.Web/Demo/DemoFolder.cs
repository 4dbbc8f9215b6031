using System.Globalization;

namespace MellowRivet.Web.Demo;

/// <summary>
/// The folder of an invented shop: a file in it says so, and on which day the shop ran last. It keeps three things apart that a tired
/// person mixes up: a real shop, whose door mustn't stand open and whose day mustn't be set; an invented one; and an invented one
/// that has been in the future, whose records of then would look like any other.
/// </summary>
public static class DemoFolder
{
    private const string Label = MellowRivet.Store.Backups.ShopFiles.DemoLabel;

    private static string LabelIn(string folder) => Path.Combine(folder, Label);

    private static bool HoldsAnything(string folder) =>
        Directory.Exists(folder) && Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories).Any();

    // Null where it doesn't say: an invented shop made before the day was written down.
    private static DateOnly? LastDay(string folder) =>
        File.Exists(LabelIn(folder))
            && DateOnly.TryParseExact(File.ReadAllText(LabelIn(folder))
                .Trim(), "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day : null;

    /// <summary>Why there is no demo to be made or run in it; null where there may.</summary>
    public static string? RealShop(string folder) =>
        HoldsAnything(folder) && !File.Exists(LabelIn(folder)) ? $"{folder} is not a demo's folder: it stays as it is." : null;

    /// <summary>Why its shop can't run on a day: it has run on a later one already. Null where it can.</summary>
    public static string? LaterThan(string folder, DateOnly today) => LastDay(folder) is { } last && last > today
        ? $"{folder} holds an invented shop of {last:yyyy-MM-dd}: on {today:yyyy-MM-dd} its records would lie in the future. Run it "
        + $"with demo --today {last:yyyy-MM-dd}, or make the demo anew with demo --fresh."
        : null;

    /// <summary>Says that it is an invented shop's, and that it runs on this day.</summary>
    public static void Runs(string folder, DateOnly today)
    {
        Directory.CreateDirectory(folder);
        if (LastDay(folder) is not { } last || last < today)
            File.WriteAllText(LabelIn(folder), today.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
    }
}
