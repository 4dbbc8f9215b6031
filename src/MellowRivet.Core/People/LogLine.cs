namespace MellowRivet.Core.People;

/// <summary>What the shop's log keeps a line of: what somebody may have to answer for, or somebody else to ask about.</summary>
public enum Deed
{
    Entered = 1, TurnedAway, Left, PersonAdded, PersonChanged, RolesSet, CertificatesSet, PasswordSet, PersonLeft, PersonBack, OwnerSet,
    LimitSet, HouseRulesSet, Deferred, ClassLowered, Signed, SignatureRefused, Exported, TakenIn, OwnerLinkMade, OwnerLinkEnded,
    CalendarAddressMade,
}

/// <summary>Who is at it.</summary>
/// <param name="Id">The person; null for a stranger, or an owner who came by a link.</param>
/// <param name="Name">What they are called at the time.</param>
/// <param name="From">The address they come from.</param>
public sealed record Actor(Guid? Id, string Name, string From);

/// <summary>One line of the shop's log. It is only ever added: the database refuses to change one or to delete one.</summary>
public sealed class LogLine
{
    /// <summary>The longest that a line keeps of one thing, in characters.</summary>
    public const int Longest = 600;

    private LogLine() { }

    public LogLine(DateTimeOffset at, Actor who, Deed deed, string about, string? before = null, string? after = null) =>
        (At, By, Name, From, Deed, About, Before, After) =
        (at, who.Id, Cut(who.Name), Cut(who.From), deed, Cut(about), before is null ? null : Cut(before), after is null ? null
            : Cut(after));

    /// <summary>Its place in the log, from 1.</summary>
    public long Number { get; private set; }
    public DateTimeOffset At { get; private set; }

    /// <summary>Who did it; null for a stranger, or an owner who came by a link.</summary>
    public Guid? By { get; private set; }

    /// <summary>What they were called then.</summary>
    public string Name { get; private set; } = "";

    /// <summary>The address it came from.</summary>
    public string From { get; private set; } = "";
    public Deed Deed { get; private set; }

    /// <summary>What it was done to.</summary>
    public string About { get; private set; } = "";

    /// <summary>What stood there before; null where nothing did, or it isn't to be told.</summary>
    public string? Before { get; private set; }

    /// <summary>What stands there since.</summary>
    public string? After { get; private set; }

    private static string Cut(string words) => words.Length <= Longest ? words : string.Concat(words.AsSpan(0, Longest - 1), "…");
}

/// <summary>What is looked for in the log; null for anything.</summary>
/// <param name="Words">Words that a line has in its names, in what it is about, or in what changed.</param>
/// <param name="Deed">What was done.</param>
/// <param name="By">Who did it.</param>
/// <param name="From">The first day.</param>
/// <param name="To">The last day.</param>
public sealed record LogAsked(string? Words = null, Deed? Deed = null, Guid? By = null, DateOnly? From = null, DateOnly? To = null);

public static class LogWords
{
    public static string InWords(this Deed deed) => deed switch
    {
        Deed.Entered => "entered",
        Deed.TurnedAway => "turned away at the door",
        Deed.Left => "left",
        Deed.PersonAdded => "added a person",
        Deed.PersonChanged => "changed a person’s name",
        Deed.RolesSet => "set roles",
        Deed.CertificatesSet => "set certificates",
        Deed.PasswordSet => "set a password",
        Deed.PersonLeft => "closed the door to a person",
        Deed.PersonBack => "let a person in again",
        Deed.OwnerSet => "said whose an aircraft is",
        Deed.LimitSet => "set a limit",
        Deed.HouseRulesSet => "set how the shop works",
        Deed.Deferred => "deferred",
        Deed.ClassLowered => "lowered a class",
        Deed.Signed => "signed",
        Deed.SignatureRefused => "gave a wrong password in the shop",
        Deed.Exported => "took a copy out",
        Deed.TakenIn => "took a file in",
        Deed.OwnerLinkMade => "made an owner’s link",
        Deed.OwnerLinkEnded => "ended an owner’s link",
        _ => "made a calendar address",
    };
}
