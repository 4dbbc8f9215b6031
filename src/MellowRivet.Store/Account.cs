using Microsoft.AspNetCore.Identity;

namespace MellowRivet.Store;

/// <summary>A sign-in. What its person is called and may do is the person's.</summary>
public sealed class Account : IdentityUser<Guid>
{
    public Guid PersonId { get; set; }
}

/// <summary>A post that was carried out, by the id its form carried, so that the same post twice makes one record.</summary>
public sealed class Posting
{
    public Guid Id { get; init; }
    public DateTimeOffset At { get; init; }
}
