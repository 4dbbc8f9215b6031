using Microsoft.AspNetCore.Identity;

namespace MellowRivet.Store;

/// <summary>A sign-in. What its person is called and may do is the person's.</summary>
public sealed class Account : IdentityUser<Guid>
{
    public Guid PersonId { get; set; }

    /// <summary>Wrong passwords at a signature since the last right one. The door counts its own: who is turned away there signs
    /// on.</summary>
    public int SigningFailures { get; set; }

    /// <summary>Until when signing rests; null where it doesn't.</summary>
    public DateTimeOffset? SigningRestsUntil { get; set; }
}

/// <summary>
/// One browser that somebody entered with. Its cookie is good for as long as this is here: leaving takes it away, and a copy of the
/// cookie opens nothing any more.
/// </summary>
public sealed class Session
{
    /// <summary>The longest that anybody stays in, however often they come.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromDays(30);

    public Guid Id { get; init; }
    public Guid AccountId { get; init; }
    public DateTimeOffset Ends { get; init; }
}

/// <summary>A post that was carried out, by the id its form carried, so that the same post twice makes one record.</summary>
public sealed class Posting
{
    public Guid Id { get; init; }
    public DateTimeOffset At { get; init; }
}
