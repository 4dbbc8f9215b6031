namespace MellowRivet.Core.Inspections;

/// <summary>What one person said away from the shop, and brought in one go.</summary>
/// <param name="By">Who.</param>
/// <param name="Count">How many posts.</param>
/// <param name="SaidFirst">When the first of them was said.</param>
/// <param name="SaidLast">When the last was.</param>
/// <param name="CameFirst">When the first that came arrived.</param>
/// <param name="CameLast">When the last did.</param>
public sealed record CameLate(Guid By, int Count, DateTimeOffset SaidFirst, DateTimeOffset SaidLast, DateTimeOffset CameFirst,
    DateTimeOffset CameLast);

// What was said away from the shop stands with the time that it was said at; when it arrived is kept beside.
public sealed partial class Inspection
{
    private List<CameLate> cameLate = [];

    // Longer between two, it is another return.
    private static readonly TimeSpan OneGo = TimeSpan.FromMinutes(30);

    /// <summary>What was said away from the shop and arrived later, each return for itself.</summary>
    public IReadOnlyList<CameLate> CameLate => cameLate;

    /// <summary>Something that was said away from the shop has arrived.</summary>
    /// <param name="said">Who said it, and when.</param>
    /// <param name="now">When it arrived.</param>
    public void Came(Stamp said, DateTimeOffset now) =>
        cameLate = cameLate.FindLast(one => one.By == said.By) is { } last && now - last.CameLast <= OneGo
            ? [.. cameLate.Where(one => one != last), last with
            {
                Count = last.Count + 1, SaidFirst = Earlier(last.SaidFirst, said.At), SaidLast = Later(last.SaidLast, said.At),
                CameLast = now,
            }]
            : [.. cameLate, new(said.By, 1, said.At, said.At, now, now)];

    /// <summary>
    /// When the shop could know of what somebody said at some time: then, or when it arrived from out of reach, or was chosen of two.
    /// Whoever looked before had not seen it.
    /// </summary>
    public DateTimeOffset KnownAt(Guid? by, DateTimeOffset saidAt) => cameLate
        .Where(one => one.By == by && one.SaidFirst <= saidAt && saidAt <= one.SaidLast).Select(one => one.CameLast)
        .Concat(apart.Where(two => two.Chosen == OfTwo.Other && two.OtherBy.By == by && two.OtherBy.At == saidAt)
            .Select(two => two.ChosenBy!.At))
        .Append(saidAt).Max();

    private static DateTimeOffset Earlier(DateTimeOffset one, DateTimeOffset other) => one < other ? one : other;

    private static DateTimeOffset Later(DateTimeOffset one, DateTimeOffset other) => one > other ? one : other;
}
