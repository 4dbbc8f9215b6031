namespace MellowRivet.Core.People;

/// <summary>Who put something on file, and when.</summary>
/// <param name="By">The person.</param>
/// <param name="Name">What they were called then: what leaves the shop says so without its list of people.</param>
/// <param name="At">When.</param>
public sealed record WhoSet(Guid By, string Name, DateTimeOffset At)
{
    public string InWords(TimeProvider clock) => $"put on file by {Name}, {clock.DayOf(At):yyyy-MM-dd}";
}
