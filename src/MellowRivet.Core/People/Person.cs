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
public sealed record Certificate(CertificateKind Kind, string Number, string? OnlySerial = null);

/// <summary>Someone who works in the shop or owns an aircraft there.</summary>
public sealed class Person
{
    private List<Role> roles = [];
    private List<Certificate> certificates = [];

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

    /// <summary>SHA-256 of the key in this person's calendar address, in lower-case hex; null where they have none.</summary>
    public string? CalendarKeyHash { get; private set; }

    /// <summary>Gives them a new calendar address; the one before stops working.</summary>
    public void HandOutCalendarKey(string hash) => CalendarKeyHash = hash;

    public bool May(Right right) => Roles.Any(role => Rights.Of(role).Contains(right));
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
