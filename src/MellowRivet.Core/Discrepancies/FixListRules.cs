namespace MellowRivet.Core.Discrepancies;

/// <summary>What a fix list is grouped by.</summary>
public enum GroupBy { Class = 1, Zone, Who, State, LastTime }

/// <summary>Which of a fix list is shown.</summary>
public enum FixListShow { All = 1, Open, Mine, OwnerWaits, New, Again }

/// <summary>The order and the groups of a fix list.</summary>
public static class FixListRules
{
    /// <summary>Worst first: what grounds the aircraft, then what is open by class, then what is settled; within them as found.</summary>
    public static IEnumerable<Discrepancy> WorstFirst(IEnumerable<Discrepancy> list) => list
        .OrderBy(found => found.IsOpen ? 0 : 1)
        .ThenBy(found => found.Grounded ? 0 : 1)
        .ThenBy(found => found.Class)
        .ThenBy(found => found.Number);

    /// <summary>
    /// Whether one holds every word that is searched for: in its words, its place, what was done, its notes or its number.
    /// </summary>
    /// <param name="found">The discrepancy.</param>
    /// <param name="number">Its number as people say it, "26-117-04".</param>
    /// <param name="zone">Its zone's title.</param>
    /// <param name="sought">What is searched for; empty for everything.</param>
    public static bool Holds(Discrepancy found, string number, string zone, string? sought)
    {
        if (string.IsNullOrWhiteSpace(sought))
            return true;
        var text = string.Join(' ',
            new[] { number, found.What, found.PlainWords, found.Where, zone, found.Correction?.InWords, found.MeasuredWords,
                found.Class.InWords(), found.Disposition.InWords() }.Concat(found.Notes.Select(note => note.Words)));
        return sought.Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .All(word => text.Contains(word, StringComparison.OrdinalIgnoreCase));
    }

    /// <summary>Whether it belongs to what is shown.</summary>
    public static bool Belongs(Discrepancy found, FixListShow show, Guid me, Recurrence before) => show switch
    {
        FixListShow.Open => found.IsOpen,
        FixListShow.Mine => found.FoundBy == me || found.CorrectedBy == me,
        FixListShow.OwnerWaits => found.OwnerWaits,
        FixListShow.New => before.With(found) == Compared.New,
        FixListShow.Again => before.With(found) == Compared.Again,
        _ => true,
    };

    public static string InWords(this FixListShow show) => show switch
    {
        FixListShow.OwnerWaits => "the owner asks",
        FixListShow.New => "new",
        FixListShow.Again => "again",
        _ => show.ToString().ToLowerInvariant(),
    };

    public static string InWords(this GroupBy by) => by switch { GroupBy.LastTime => "last time", _ => by.ToString().ToLowerInvariant() };
}
