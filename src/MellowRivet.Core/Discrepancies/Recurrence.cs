namespace MellowRivet.Core.Discrepancies;

/// <summary>How a discrepancy compares with the inspection before.</summary>
public enum Compared { New = 1, Again, Gone }

/// <summary>Two fix lists side by side.</summary>
/// <param name="Again">What is on both: this inspection's with the earlier one.</param>
/// <param name="Gone">The earlier ones that aren't here again.</param>
public sealed record Recurrence(IReadOnlyDictionary<Guid, Discrepancy> Again, IReadOnlyList<Discrepancy> Gone)
{
    /// <summary>Share of words in common from which two at one place are taken for the same; the product's own choice.</summary>
    public const double SameWords = 0.4;

    /// <summary>The same in one zone without a common place: nearly the same words.</summary>
    public const double NearlyAllWords = 0.75;

    /// <summary>
    /// Compares this inspection's list with the one before. What a person said goes first; of the rest each is paired with the
    /// one most like it, once.
    /// </summary>
    public static Recurrence Of(IEnumerable<Discrepancy> now, IEnumerable<Discrepancy> before)
    {
        var (here, there) = (Standing(now), Standing(before));
        Dictionary<Guid, Discrepancy> again = [];
        HashSet<Guid> taken = [];
        foreach (var found in here.Where(found => found.SameAs is not null))
            if (there.FirstOrDefault(earlier => earlier.Id == found.SameAs) is { } earlier && taken.Add(earlier.Id))
                again[found.Id] = earlier;
        var byWords = there.Select(Worded.Of).ToList();
        var pairs = from worded in here.Where(found => found.SameAs is null).Select(Worded.Of)
                    from earlierWorded in byWords
                    let alike = Likeness(worded, earlierWorded)
                    where alike > 0
                    let found = worded.Found
                    let earlier = earlierWorded.Found
                    orderby alike descending, found.Number, earlier.Number
                    select (found, earlier);
        foreach (var (found, earlier) in pairs)
            if (!again.ContainsKey(found.Id) && taken.Add(earlier.Id))
                again[found.Id] = earlier;
        return new(again, [.. there.Where(earlier => !taken.Contains(earlier.Id)).OrderBy(earlier => earlier.Number)]);
    }

    public Compared With(Discrepancy found) => Again.ContainsKey(found.Id) ? Compared.Again : Compared.New;

    // Withdrawn ones were never there.
    private static List<Discrepancy> Standing(IEnumerable<Discrepancy> list) =>
        [.. list.Where(found => found.Disposition != Disposition.Withdrawn)];

    /// <summary>
    /// Those of one list that may say the same as an earlier one, found by somebody else: at one place and in much the same words. Nobody
    /// has said yet whether they do.
    /// </summary>
    public static IReadOnlyDictionary<Guid, Discrepancy> Twins(IEnumerable<Discrepancy> list)
    {
        var open = list.Where(found => found.IsOpen && !found.IsUnworded).OrderBy(found => found.Number).ToList();
        if (open.DistinctBy(found => found.FoundBy).Count() < 2)
            return new Dictionary<Guid, Discrepancy>();
        var worded = open.Select(Worded.Of).ToList();
        return worded.Where(one => one.Found.Twin is null)
            .Select(one => (one.Found, Twin: worded.TakeWhile(other => other.Found != one.Found)
                .Where(other => other.Found.FoundBy != one.Found.FoundBy)
                .Select(other => (other.Found, Alike: Likeness(one, other))).Where(pair => pair.Alike > 0)
                // Left and right are two, whatever their words: elsewhere in the zone they may be one where a place wasn't said.
                .Where(pair => pair.Alike > 1 || one.Found.Where.Length == 0 || pair.Found.Where.Length == 0)
                .OrderByDescending(pair => pair.Alike).Select(pair => pair.Found).FirstOrDefault()))
            .Where(pair => pair.Twin is not null).ToDictionary(pair => pair.Found.Id, pair => pair.Twin!);
    }

    private static double Likeness(Worded one, Worded other)
    {
        var near = one.Place.To(other.Place, one.Where, other.Where);
        if (near == Nearness.Elsewhere)
            return 0;
        var words = Words.Overlap(one.What, other.What);
        return near switch
        {
            Nearness.Same when words >= SameWords => 1 + words,
            Nearness.SameZone when words >= NearlyAllWords => words,
            _ => 0,
        };
    }

    // A discrepancy with its words taken apart once.
    private sealed record Worded(Discrepancy Found, Place Place, IReadOnlySet<string> What, IReadOnlySet<string> Where)
    {
        public static Worded Of(Discrepancy found) => new(found, found.Place, Words.Stems(found.What), Words.Stems(found.Where));
    }
}

/// <summary>What was found, repaired or left at a place before.</summary>
/// <param name="Same">At the same place, latest first.</param>
/// <param name="Near">Elsewhere in the zone, latest first.</param>
public sealed record PlaceHistory(IReadOnlyList<EarlierFind> Same, IReadOnlyList<EarlierFind> Near)
{
    public static PlaceHistory Of(Place place, IEnumerable<EarlierFind> earlier)
    {
        var byNearness = earlier.Where(find => find.Found.Disposition != Disposition.Withdrawn).OrderByDescending(find => find.On)
            .ThenByDescending(find => find.Found.Number).ToLookup(find => place.To(find.Found.Place));
        return new([.. byNearness[Nearness.Same]], [.. byNearness[Nearness.SameZone]]);
    }

    /// <summary>The repairs that were made at this place before.</summary>
    public IEnumerable<EarlierFind> Repairs => Same.Where(find => find.Found.Correction is { Kind: CorrectionKind.Repaired });

    /// <summary>
    /// A second repair at one place says that the part nears the end of its life: repair it and watch it, or replace it
    /// (common practice). Null under one repair before.
    /// </summary>
    public string? RepairWarning => Repairs.FirstOrDefault() is { } repair
        ? $"Repaired here before, {repair.Number} on {repair.On:yyyy-MM-dd}: a second repair at one place says the part nears the end "
        + $"of its life. Replace it, or repair it and watch it (common practice; your manual decides)."
        : null;
}

/// <summary>A discrepancy of an earlier inspection.</summary>
/// <param name="Found">The discrepancy.</param>
/// <param name="WorkOrder">The work order of its inspection.</param>
/// <param name="InspectionId">The inspection.</param>
/// <param name="On">The day that was opened.</param>
/// <param name="TimeInService">The aircraft's time in service then, hours.</param>
public sealed record EarlierFind(Discrepancy Found, string WorkOrder, Guid InspectionId, DateOnly On, decimal TimeInService)
{
    public string Number => $"{WorkOrder}-{Found.Number:00}";
}
