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
    public DateOnly? Until { get; set; }

    public IEnumerable<Refusal> Check(IEnumerable<Person> everybody)
    {
        if (TypedPerson.CheckName(Name, Initials, everybody) is { } name)
            yield return name;
        if (TypedPerson.CheckSignIn(SignInName) is { } signIn)
            yield return signIn;
        if (Roles.Count == 0)
            yield return new("roles", "At least one role.");
        if (Held?.Check() is { } held)
            yield return held;
    }

    public Person ToPerson() => new(Guid.CreateVersion7(), Name!.Trim(), Initials!.Trim().ToUpperInvariant(), Roles.Distinct(),
        Held is { } held ? [held] : []);

    private Certificate? Held => Certificate is { } kind ? CertificateForm.Read(kind, CertificateNumber, OnlySerial, Until) : null;
}

/// <summary>A certificate as it is sent.</summary>
public sealed record CertificateForm(CertificateKind Kind, string? Number, string? OnlySerial, DateOnly? Until)
{
    public Certificate ToCertificate() => Read(Kind, Number, OnlySerial, Until);

    public static Certificate Read(CertificateKind kind, string? number, string? onlySerial, DateOnly? until) =>
        new(kind, number?.Trim() ?? "", string.IsNullOrWhiteSpace(onlySerial) ? null : onlySerial.Trim(), until);
}
