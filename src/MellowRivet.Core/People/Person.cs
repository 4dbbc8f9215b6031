using MellowRivet.Core.Schedule;

namespace MellowRivet.Core.People;

public enum Role { Inspector = 1, Mechanic, Repairman, Assistant, Owner, ShopAdmin }

/// <summary>What a person may do in the product. Who may sign an inspection is the rule pack's, not a role's.</summary>
public enum Right { Look = 1, RecordWork, InspectWork, CorrectDiscrepancies, KeepShelf, SetLimits, KeepFile, TakeIn, Sign, ManageShop }

public enum CertificateKind
{
    Mechanic = 1, InspectionAuthorization, RepairmanExperimentalBuilder, RepairmanLightSportInspection, RepairmanLightSportMaintenance,
    PermitInspector, Pilot,
}

/// <summary>A certificate a person holds.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Number">Its number, as written under a signature.</param>
/// <param name="OnlySerial">The one airframe serial it holds for; null where it isn't bound to one.</param>
/// <param name="Until">The last day it holds; null where it has no end.</param>
public sealed record Certificate(CertificateKind Kind, string Number, string? OnlySerial = null, DateOnly? Until = null)
{
    /// <summary>How long before its end the shop is reminded, in days: common practice, time enough to renew one.</summary>
    public const int RemindDays = 60;

    /// <summary>The longest number and serial, in characters.</summary>
    public const int LongestNumber = 40;

    public bool HoldsOn(DateOnly day) => Until is null || day <= Until;

    /// <summary>What is wrong with it as typed; null where it can go on file.</summary>
    public Refusal? Check() => !Enum.IsDefined(Kind) ? new("certificate", "Which certificate?")
        : string.IsNullOrWhiteSpace(Number) || Number.Length > LongestNumber
        ? new("number", $"A certificate has a number, of up to {LongestNumber} characters.")
        : OnlySerial?.Length > LongestNumber ? new("onlySerial", $"A serial number of up to {LongestNumber} characters.")
        : Kind == CertificateKind.RepairmanExperimentalBuilder && OnlySerial is null
        ? new("onlySerial", "A builder's certificate holds for one serial number.")
        : Until is { Year: < 1950 or > 2199 } ? new("until", "A day from 1950 to 2199.")
        : null;

    /// <summary>Whether it ended, or ends soon enough to be reminded of.</summary>
    public bool WantsReminder(DateOnly today) => Until is { } end && end.DayNumber - today.DayNumber <= RemindDays;
}

/// <summary>That somebody owns, part-owns or operates an aircraft, for a span of days.</summary>
/// <param name="AircraftId">The aircraft.</param>
/// <param name="From">The first day.</param>
/// <param name="Until">The last day; null while it goes on.</param>
public sealed record Ownership(Guid AircraftId, DateOnly From, DateOnly? Until)
{
    public bool HoldsOn(DateOnly day) => From <= day && (Until is null || day <= Until);
}

/// <summary>What is typed of a person.</summary>
public static class TypedPerson
{
    /// <summary>The longest name and sign-in name, in characters.</summary>
    public const int LongestName = 80, LongestSignIn = 40;

    /// <summary>What is wrong with a name and initials; null where they will do.</summary>
    /// <param name="name">As it is written under a signature.</param>
    /// <param name="initials">As they stand beside a task: no two who are here have the same.</param>
    /// <param name="others">Everybody else.</param>
    public static Refusal? CheckName(string? name, string? initials, IEnumerable<Person> others) =>
        string.IsNullOrWhiteSpace(name) || name.Trim().Length > LongestName || name.Any(char.IsControl)
            ? new("name", $"A name of up to {LongestName} characters, as it is written under a signature.")
            : initials?.Trim() is not { Length: >= 2 and <= 4 } typed || !typed.All(char.IsLetterOrDigit)
            ? new("initials", "Two to four letters, as they stand beside a task.")
            : others.FirstOrDefault(other => other.IsHere && other.Initials.Equals(typed, StringComparison.OrdinalIgnoreCase)) is { } same
            ? new("initials", $"{same.Name} has these already: what stands beside a task has to tell one from the other.")
            : null;

    /// <summary>What is wrong with a name to sign in by; null where it will do.</summary>
    public static Refusal? CheckSignIn(string? name) => name?.Trim() is { Length: >= 2 and <= LongestSignIn } typed
        && typed.All(letter => char.IsAsciiLetterOrDigit(letter) || letter is '.' or '-' or '_' or '@')
            ? null
            : new("signInName", $"A name to sign in by, of 2 to {LongestSignIn} letters and digits.");
}

/// <summary>Someone who works in the shop or owns an aircraft there. Whoever leaves stays on file: what they did stands under their
/// name.</summary>
public sealed class Person
{
    private List<Role> roles = [];
    private List<Certificate> certificates = [];
    private List<Ownership> owns = [];

    private Person() { }

    public Person(Guid id, string name, string initials, IEnumerable<Role> roles, IEnumerable<Certificate> certificates)
    {
        Id = id;
        Name = name;
        Initials = initials;
        this.roles = [.. roles];
        this.certificates = [.. certificates];
    }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";
    public string Initials { get; private set; } = "";
    public IReadOnlyList<Role> Roles => roles;
    public IReadOnlyList<Certificate> Certificates => certificates;

    /// <summary>The aircraft that are or were theirs.</summary>
    public IReadOnlyList<Ownership> Owns => owns;

    /// <summary>Since when they can't enter any more; null for whoever can.</summary>
    public DateTimeOffset? LeftAt { get; private set; }

    /// <summary>SHA-256 of the key in this person's calendar address, in lower-case hex; null where they have none.</summary>
    public string? CalendarKeyHash { get; private set; }

    /// <summary>The shop they work at, for somebody whom a passport brought along; null for this one's own.</summary>
    public string? Elsewhere { get; private set; }

    public bool IsHere => LeftAt is null;

    /// <summary>When they work; null until somebody says.</summary>
    public WorkWeek? Week { get; private set; }

    /// <summary>Says when they work.</summary>
    /// <returns>What is wrong with it; null where it holds.</returns>
    public Refusal? Work(WorkWeek week)
    {
        if (week.Check() is { } refusal)
            return refusal;
        Week = week;
        return null;
    }

    /// <summary>Gives them a new calendar address; the one before stops working.</summary>
    public void HandOutCalendarKey(string hash) => CalendarKeyHash = hash;

    /// <summary>What they are called from now on. What they signed stands under the name they had then.</summary>
    /// <returns>What is wrong with it; null where it is theirs.</returns>
    public Refusal? Describe(string? name, string? initials, IEnumerable<Person> everybody)
    {
        if (TypedPerson.CheckName(name, initials, everybody.Where(other => other.Id != Id)) is { } refusal)
            return refusal;
        (Name, Initials) = (name!.Trim(), initials!.Trim().ToUpperInvariant());
        return null;
    }

    /// <summary>Gives them other roles. Somebody goes on managing the shop.</summary>
    /// <returns>Why not; null where they have them.</returns>
    public Refusal? Take(IReadOnlyCollection<Role> others, IEnumerable<Person> everybody)
    {
        if (others.Count == 0)
            return new("roles", "At least one role: whoever has none can close the door on them instead.");
        if (!others.Contains(Role.ShopAdmin) && IsTheLastAdmin(everybody))
            return new("roles", "Nobody would manage the shop: make somebody else shop admin first.");
        roles = [.. others.Distinct().Order()];
        return null;
    }

    /// <summary>Puts a certificate on file, in the place of the one of the same kind and serial: a renewed one keeps one line.</summary>
    /// <returns>What is wrong with it; null where it is on file.</returns>
    public Refusal? Hold(Certificate certificate)
    {
        if (certificate.Check() is { } refusal)
            return refusal;
        certificates = [.. certificates.Where(other => !SameAs(other, certificate)), certificate];
        return null;
    }

    /// <summary>Takes a certificate off file: it was typed by mistake, or given back.</summary>
    public void GiveBack(Certificate certificate) => certificates = [.. certificates.Where(other => !SameAs(other, certificate))];

    private static bool SameAs(Certificate one, Certificate other) => (one.Kind, one.OnlySerial) == (other.Kind, other.OnlySerial);

    /// <summary>Says that an aircraft is theirs; the span that begins on the same day is put right by it.</summary>
    /// <returns>What is wrong with the span; null where it is on file.</returns>
    public Refusal? Own(Ownership ownership)
    {
        if (ownership.Until < ownership.From)
            return new("until", "It ends before it begins.");
        var others = owns.Where(one => one.AircraftId == ownership.AircraftId && one.From != ownership.From).ToList();
        if (others.Any(one => one.From <= (ownership.Until ?? DateOnly.MaxValue) && ownership.From <= (one.Until ?? DateOnly.MaxValue)))
            return new("from", "It is theirs already on some of these days.");
        owns = [.. owns.Where(one => (one.AircraftId, one.From) != (ownership.AircraftId, ownership.From)), ownership];
        return null;
    }

    /// <summary>Whether an aircraft is theirs on a day.</summary>
    public bool OwnsOn(Guid aircraft, DateOnly day) => owns.Any(one => one.AircraftId == aircraft && one.HoldsOn(day));

    /// <summary>
    /// They can't enter from now on, and their calendar address stops working. The last who manages the shop stays.
    /// </summary>
    /// <param name="at">When.</param>
    /// <param name="everybody">The shop's people, with this one among them.</param>
    public Refusal? Leave(DateTimeOffset at, IEnumerable<Person> everybody)
    {
        if (IsTheLastAdmin(everybody))
            return new("left", "Nobody would manage the shop: make somebody else shop admin first.");
        (LeftAt, CalendarKeyHash) = (LeftAt ?? at, null);
        return null;
    }

    public void ComeBack() => LeftAt = null;

    /// <summary>Whether nobody else who is here manages the shop.</summary>
    public bool IsTheLastAdmin(IEnumerable<Person> everybody) =>
        May(Right.ManageShop) && !everybody.Any(other => other.Id != Id && other.May(Right.ManageShop));

    public bool May(Right right) => IsHere && Roles.Any(role => Rights.Of(role).Contains(right));
}

/// <summary>
/// What of the fleet somebody sees: whoever works here all of it, whoever only owns what is theirs on the day. The one place where
/// that is decided.
/// </summary>
public sealed class Sight
{
    private readonly HashSet<Guid>? only;

    private Sight(HashSet<Guid>? only) => this.only = only;

    public static readonly Sight Whole = new(null), Nothing = new([]);

    public bool IsWhole => only is null;

    /// <summary>The aircraft that are seen, where not every one is.</summary>
    public IReadOnlyCollection<Guid> Aircraft => only ?? throw new InvalidOperationException("The whole fleet is seen.");

    public bool Sees(Guid aircraft) => only is null || only.Contains(aircraft);

    public static Sight Of(Person person, DateOnly today) => !person.IsHere ? Nothing
        : IsWholeFor(person.Roles) ? Whole
        : new([.. person.Owns.Where(one => one.HoldsOn(today)).Select(one => one.AircraftId)]);

    public static bool IsWholeFor(IEnumerable<Role> roles) => roles.Any(role => role != Role.Owner);
}

/// <summary>Which role carries which rights. The one place where that is decided.</summary>
public static class Rights
{
    private static readonly Right[] Technician = [Right.Look, Right.RecordWork, Right.InspectWork, Right.CorrectDiscrepancies,
        Right.KeepShelf, Right.SetLimits, Right.KeepFile, Right.TakeIn, Right.Sign];

    public static IReadOnlyList<Right> Of(Role role) => role switch
    {
        Role.Inspector or Role.Mechanic or Role.Repairman => Technician,
        Role.Assistant => [Right.Look, Right.RecordWork],
        Role.ShopAdmin => [Right.Look, Right.KeepShelf, Right.KeepFile, Right.TakeIn, Right.ManageShop],
        // An owner who built the aircraft may hold the certificate to sign for it: the rule pack answers that, not the role.
        _ => [Right.Look, Right.Sign],
    };
}

/// <summary>Names of roles and certificates as people say them.</summary>
public static class PeopleWords
{
    public static string InWords(this Role role) => role switch
    {
        Role.ShopAdmin => "shop admin",
        _ => role.ToString().ToLowerInvariant(),
    };

    /// <summary>What the role is for, in a line.</summary>
    public static string MayInWords(this Role role) => role switch
    {
        Role.Assistant => "records work under somebody’s eye: times, photos, findings; changes no file, limit or class, signs nothing",
        Role.Owner => "sees the aircraft that are theirs; signs what a certificate allows",
        Role.ShopAdmin => "keeps people, files, shelf and this log; signs nothing by it",
        _ => "does, inspects and records work; signs what a certificate allows",
    };

    public static string InWords(this CertificateKind kind) => kind switch
    {
        CertificateKind.Mechanic => "mechanic, airframe and powerplant",
        CertificateKind.InspectionAuthorization => "mechanic with inspection authorization",
        CertificateKind.RepairmanExperimentalBuilder => "repairman, experimental aircraft builder",
        CertificateKind.RepairmanLightSportInspection => "repairman, light-sport inspection",
        CertificateKind.PermitInspector => "inspector under a permit scheme",
        CertificateKind.Pilot => "pilot, owner or operator",
        _ => "repairman, light-sport maintenance",
    };
}
