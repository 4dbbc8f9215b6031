using MellowRivet.Core.People;

namespace MellowRivet.Core.Bulletins;

/// <summary>What a shop or owner made of a bulletin that doesn't bind, or that doesn't list this one.</summary>
public enum PolicyKind { Adopted = 1, Declined }

/// <summary>Adopted as own policy, or declined.</summary>
public sealed record Policy(PolicyKind Kind, string Reason, Guid By, DateTimeOffset At);

/// <summary>One time that a bulletin was complied with.</summary>
/// <param name="On">The day.</param>
/// <param name="Hours">Hours then, of the aircraft or of the part it hangs on; null where nobody knows.</param>
/// <param name="Revision">The revision it was done to.</param>
/// <param name="Method">How.</param>
/// <param name="Finding">Something was found, which may shorten the interval.</param>
/// <param name="Terminating">It was the action that ends it for good.</param>
/// <param name="Reference">Where it is entered.</param>
/// <param name="By">Who noted it.</param>
public sealed record Complied(DateOnly On, decimal? Hours, string Revision, string Method, bool Finding, bool Terminating, string Reference,
    Guid By);

/// <summary>The flight that a bulletin allows to the place of work, once its conditions were ticked.</summary>
/// <param name="On">The day.</param>
/// <param name="AtHours">The aircraft's time in service then.</param>
/// <param name="Hours">Flight hours allowed in all.</param>
/// <param name="Ticked">The conditions, as they were ticked.</param>
/// <param name="By">Who ticked them.</param>
public sealed record FerryPermit(DateOnly On, decimal AtHours, decimal Hours, IReadOnlyList<string> Ticked, Guid By)
{
    /// <summary>Hours that are left of it, never negative.</summary>
    public decimal Left(decimal aircraftHours) => Math.Max(0, Hours - Math.Max(0, aircraftHours - AtHours));

    /// <summary>Hours that were flown beyond it; zero while some are left.</summary>
    public decimal Overrun(decimal aircraftHours) => Math.Max(0, aircraftHours - AtHours - Hours);

    /// <summary>"2.5 h left", or by how much it was overrun: the work was due before that.</summary>
    public string InWords(decimal aircraftHours) =>
        Overrun(aircraftHours) is > 0 and var over ? $"overrun by {over:0.0} h, of {Hours:0.##} h allowed" : Left(aircraftHours) > 0
            ? $"{Left(aircraftHours):0.0} h left"
            : $"its {Hours:0.##} h are used up";
}

/// <summary>
/// What was decided and done about a bulletin, all its revisions, on one aircraft or one part. On a part, it goes where the part goes.
/// </summary>
public sealed class BulletinFollowUp
{
    private List<Complied> done = [];

    private BulletinFollowUp() { }

    public BulletinFollowUp(Guid id, string family, Guid? aircraftId, Guid? componentId) =>
        (Id, Family, AircraftId, ComponentId) = (id, family, aircraftId, componentId);

    public Guid Id { get; private set; }

    /// <summary>The bulletin, whatever its revision.</summary>
    public string Family { get; private set; } = "";
    public Guid? AircraftId { get; private set; }
    public Guid? ComponentId { get; private set; }
    public Policy? Policy { get; private set; }
    public FerryPermit? Ferry { get; private set; }

    /// <summary>Every time it was complied with, earliest first.</summary>
    public IReadOnlyList<Complied> Done => done;

    /// <summary>
    /// Adopts a bulletin that doesn't bind, or doesn't list this one; or declines it, with the reason; or, by no kind, takes either back.
    /// </summary>
    public Refusal? Decide(BulletinLine line, PolicyKind? kind, string? reason, Guid by, DateTimeOffset at)
    {
        if (kind is not { } decided)
        {
            Policy = null;
            return null;
        }
        if (!Enum.IsDefined(decided))
            return new("reason", "Adopt it or decline it.");
        if (line.Rule.Binds && line.Answer.Answer == RuleAnswer.Applies)
            return new("reason", decided == PolicyKind.Declined
                ? $"It binds this aircraft and can’t be declined. {line.Rule.Why}"
                : "It binds this aircraft as it is.");
        if (string.IsNullOrWhiteSpace(reason) || reason.Trim().Length > 300)
            return new("reason", "Say why, in up to 300 characters: it stays with the aircraft’s papers.");
        Policy = new(decided, reason.Trim(), by, at);
        return null;
    }

    /// <summary>Notes that it was complied with.</summary>
    public Refusal? Comply(Bulletin bulletin, Complied when, DateOnly today)
    {
        if (when.On > today)
            return new("on", "That day is still to come.");
        if (string.IsNullOrWhiteSpace(when.Method) || when.Method.Length > 300)
            return new("method", "Say how it was complied with: document, paragraph, revision, up to 300 characters.");
        if (string.IsNullOrWhiteSpace(when.Reference) || when.Reference.Length > 80)
            return new("reference", "Say where it is entered: the book and page, or the work order, up to 80 characters.");
        if (bulletin.Compliance.Repeat is { Hours: not null } && when.Hours is null && !when.Terminating)
            return new("hours", "It recurs by hours: the hours when it was done are wanted.");
        if (when.Terminating && bulletin.Compliance.Terminating is null)
            return new("terminating", "It names no action that ends it.");
        if (done.Count > 0 && done[^1].On > when.On)
            return new("on", $"It was done on {done[^1].On:yyyy-MM-dd} after that. An older entry goes into the books.");
        if (done.Count > 0 && when.Hours < done[^1].Hours)
            return new("hours", $"It was done at {done[^1].Hours:0.0} h before: fewer hours can’t follow.");
        done = [.. done, when];
        return null;
    }

    /// <summary>Puts back what a file has.</summary>
    internal void Restore(Policy? policy, IEnumerable<Complied> history) =>
        (Policy, done) = (policy, [.. history.OrderBy(time => time.On)]);

    /// <summary>How a time that a signature noted refers to it.</summary>
    public static string SignedReference(string workOrder) => $"work order {workOrder}";

    /// <summary>Takes back the latest time it was noted by mistake. What a signature noted stands in its record, and stays.</summary>
    /// <param name="signed">The work orders that were signed on the aircraft.</param>
    public Refusal? TakeBack(IEnumerable<string> signed)
    {
        if (done.Count > 0 && signed.Any(order => done[^1].Reference == SignedReference(order)))
            return new("take-back", $"It was signed with {done[^1].Reference}, and its record says so: correct the record by a new entry.");
        done = done.Count == 0 ? done : done[..^1];
        return null;
    }

    /// <summary>Notes that the conditions of the ferry allowance are met. It is given once: what is flown of it is gone.</summary>
    /// <param name="bulletin">The bulletin.</param>
    /// <param name="ticked">The conditions that were ticked.</param>
    /// <param name="aircraftHours">The aircraft's time in service now.</param>
    /// <param name="person">Who ticked them.</param>
    /// <param name="on">The day.</param>
    public Refusal? AllowFerry(Bulletin bulletin, IReadOnlyCollection<string> ticked, decimal aircraftHours, Person person, DateOnly on)
    {
        if (bulletin.Compliance.Ferry is not { } allowance)
            return new("ferry", "It allows no ferry flight.");
        if (Ferry is { } before)
            return new("ferry",
                $"Its conditions were ticked on {before.On:yyyy-MM-dd}, {before.InWords(aircraftHours)}. It is allowed once.");
        if (allowance.Conditions.Except(ticked).FirstOrDefault() is { } open)
            return new("ferry", $"Not ticked: {open}.");
        if (Qualification.Check(bulletin, person, on) is { } refusal)
            return refusal with { Field = "ferry" };
        Ferry = new(on, aircraftHours, allowance.Hours, allowance.Conditions, person.Id);
        return null;
    }
}

/// <summary>Who may comply with a bulletin.</summary>
public static class Qualification
{
    /// <summary>Why a person may not comply with it; null where they may, or where it doesn't say who may.</summary>
    public static Refusal? Check(Bulletin bulletin, Person person, DateOnly on) =>
        bulletin.By is not { Count: > 0 } by || person.Certificates.Any(held => by.Contains(held.Kind) && held.HoldsOn(on))
        ? null
        : new("by",
            $"{bulletin.Title} is done by a {string.Join(", or a ", by.Select(kind => kind.InWords()))}. {person.Name} holds "
            + $"{(person.Certificates.Count == 0 ? "none" : string.Join(", ", person.Certificates.Select(held => held.Kind.InWords()
                + (held.HoldsOn(on) ? "" : $", which ended on {held.Until:yyyy-MM-dd}"))))}.");
}
