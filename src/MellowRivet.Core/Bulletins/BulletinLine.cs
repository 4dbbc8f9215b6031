using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.Bulletins;

/// <summary>Where a bulletin stands on one aircraft or part, from what needs nobody to what keeps it on the ground.</summary>
public enum BulletinState { DoesNotApply = 1, Superseded, Declined, Done, Ahead, Advisory, Soon, CannotTell, Overdue, BeforeFlight }

/// <summary>One bulletin on one aircraft, or on one part of it.</summary>
/// <param name="Held">The bulletin.</param>
/// <param name="On">The part it is about, as fitted; null for the aircraft, or where no such part is on file.</param>
/// <param name="Place">Where the part sits, in words.</param>
/// <param name="Answer">Whether it applies.</param>
/// <param name="Rule">Whether it binds, and why.</param>
/// <param name="FollowUp">What was decided and done; null for nothing yet.</param>
/// <param name="Last">The latest compliance that counts; null for none.</param>
/// <param name="Due">When it is due next, on the due line; null where nothing is.</param>
/// <param name="State">Where it stands.</param>
/// <param name="Why">The reason, in words.</param>
/// <param name="SupersededBy">What took its place; null while it stands.</param>
public sealed record BulletinLine(
    ShopBulletin Held, Installation? On, string Place, Applicability Answer, BindingRule Rule, BulletinFollowUp? FollowUp, Complied? Last,
    DueEntry? Due, BulletinState State, string Why, ShopBulletin? SupersededBy)
{
    public Bulletin Bulletin => Held.Bulletin;

    /// <summary>Own policy: adopted where it doesn't bind or isn't listed.</summary>
    public bool Adopted => FollowUp?.Policy is { Kind: PolicyKind.Adopted } && !(Rule.Binds && Answer.Answer == RuleAnswer.Applies);

    /// <summary>It has to be seen to: by rule or by own policy.</summary>
    public bool Counts => State >= BulletinState.Ahead && State != BulletinState.Advisory && (Rule.Binds || Adopted);

    /// <summary>"binding", "advisory" or "by own policy".</summary>
    public string Force => Adopted ? "by own policy" : Rule.Binds ? "binding" : "advisory";

    /// <summary>Hours of a ferry that are left; null where none was allowed.</summary>
    public decimal? FerryLeft(decimal aircraftHours) => FollowUp?.Ferry?.Left(aircraftHours);

    /// <summary>
    /// It applies, asks for something before next flight, binds nobody here, and nobody has decided about it: whoever
    /// flies on hasn’t decided either.
    /// </summary>
    public bool IsUndecidedAlert =>
        State == BulletinState.Advisory && Bulletin.Compliance.Deadlines.Any(limb => limb.When == DeadlineKind.BeforeNextFlight);

    /// <summary>Keeps the aircraft on the ground: before next flight, binding or adopted, and no ferry left.</summary>
    public bool Grounds(decimal aircraftHours) => State == BulletinState.BeforeFlight && Counts && FerryLeft(aircraftHours) is not > 0;

    /// <summary>What stands between it and a signature, of an inspection that hasn't taken it in.</summary>
    public bool HoldsUp => Counts && (State is BulletinState.Overdue or BulletinState.BeforeFlight or BulletinState.CannotTell
        || (Last is null && Bulletin.Compliance.Deadlines.Any(limb => limb.When == DeadlineKind.NextInspection)));

    /// <summary>What it is about: "engine left SF6-3140", or the aircraft.</summary>
    public string Subject =>
        On is null ? "aircraft"
            : $"{On.Component.Title}{(Place.Length > 0 ? " " + Place : "")}"
            + $"{(On.Component.SerialNumber.Length > 0 ? " s/n " + On.Component.SerialNumber : "")}";

    /// <summary>Its place in an address: the bulletin, and the part where it is about one.</summary>
    public string Key => On is null ? $"{Held.Id:N}" : $"{Held.Id:N}{On.ComponentId:N}";
}

public static class BulletinLineWords
{
    public static string InWords(this BulletinState state) => state switch
    {
        BulletinState.DoesNotApply => "does not apply",
        BulletinState.Superseded => "superseded",
        BulletinState.Declined => "declined",
        BulletinState.Done => "done",
        BulletinState.Ahead => "applies, due later",
        BulletinState.Advisory => "applies, not decided yet",
        BulletinState.Soon => "due soon",
        BulletinState.CannotTell => "can’t tell yet",
        BulletinState.Overdue => "overdue",
        _ => "before next flight",
    };
}
