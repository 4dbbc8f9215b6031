using MellowRivet.Core;
using MellowRivet.Core.People;

namespace MellowRivet.Web.Pages.People;

/// <summary>What it takes to add a person: at the first run and under People.</summary>
public sealed class PersonForm
{
    public string? Name { get; set; }
    public string? Initials { get; set; }
    public string? SignInName { get; set; }
    public string? Password { get; set; }
    public List<Role> Roles { get; set; } = [];
    public CertificateKind? Certificate { get; set; }
    public string? CertificateNumber { get; set; }
    public string? OnlySerial { get; set; }

    public IEnumerable<Refusal> Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Trim().Length > 80)
            yield return new("Name", "A name of up to 80 characters, as it is written under a signature.");
        if (string.IsNullOrWhiteSpace(Initials) || Initials.Trim().Length is < 2 or > 4)
            yield return new("Initials", "Two to four letters, as they stand beside a task.");
        if (string.IsNullOrWhiteSpace(SignInName))
            yield return new("SignInName", "A name to sign in by: letters and digits.");
        if (Roles.Count == 0)
            yield return new("Roles", "At least one role.");
        if (Certificate is not null && string.IsNullOrWhiteSpace(CertificateNumber))
            yield return new("CertificateNumber", "A certificate has a number.");
        if (Certificate is CertificateKind.RepairmanExperimentalBuilder && string.IsNullOrWhiteSpace(OnlySerial))
            yield return new("OnlySerial", "A builder's certificate holds for one serial number.");
    }

    public Person ToPerson() => new(Guid.CreateVersion7(), Name!.Trim(), Initials!.Trim().ToUpperInvariant(), Roles.Distinct(),
        Certificate is { } kind
            ? [new(kind, CertificateNumber!.Trim(), string.IsNullOrWhiteSpace(OnlySerial) ? null : OnlySerial.Trim())]
            : []);
}
