using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Core.OpenItems;

/// <summary>
/// What somebody said at an inspection where the shop couldn't be reached, before it was signed without them: nothing is added to what
/// was signed, and nothing of theirs is lost.
/// </summary>
/// <param name="Post">What it was to be posted under.</param>
/// <param name="Words">What was said, in words.</param>
/// <param name="ZoneKey">The zone it was said of; null where it was of none.</param>
/// <param name="By">Who said it.</param>
/// <param name="Name">Their name.</param>
/// <param name="At">When, in the shop's time.</param>
/// <param name="SignedAt">When the inspection was signed.</param>
/// <param name="ArrivedAt">When it arrived.</param>
/// <param name="Photos">The pictures that came with it.</param>
/// <param name="IsCalm">It tells of work that was done or a look that was good, and of nothing found or measured.</param>
public sealed record LateWord(Guid Post, string Words, string? ZoneKey, Guid By, string Name, DateTimeOffset At, DateTimeOffset SignedAt,
    DateTimeOffset ArrivedAt, IReadOnlyList<Photo> Photos, bool IsCalm = false)
{
    /// <summary>The words with their story, within what a finding's words take.</summary>
    public string InWords
    {
        get
        {
            var story = $" (said by {Name} {At:yyyy-MM-dd HH:mm} without a network; signed without it {SignedAt:yyyy-MM-dd HH:mm}, arrived "
                + $"{ArrivedAt:yyyy-MM-dd HH:mm})";
            var words = Words.Trim();
            var room = Discrepancy.LongestWords - story.Length;
            return (words.Length > room ? words[..(room - 1)] + "…" : words) + story;
        }
    }
}
