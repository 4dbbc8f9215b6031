using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Signing;

/// <summary>The rules and people that a signature is weighed by.</summary>
/// <param name="Pack">The authority's rules for the aircraft.</param>
/// <param name="Classes">What a class may be set to.</param>
/// <param name="Entries">How its logbook entries are worded.</param>
/// <param name="People">The shop's people.</param>
/// <param name="Clock">The shop's time: a certificate that ended signs nothing.</param>
public sealed record ShopRules(RulePack Pack, ClassRules Classes, EntryTemplate Entries, IReadOnlyDictionary<Guid, Person> People,
    TimeProvider Clock)
{
    /// <summary>The day it is weighed on.</summary>
    public DateOnly Today => Clock.Today();

    /// <summary>
    /// Who somebody is, with a certificate that holds for an aircraft, as an entry names who did something; "" for nobody.
    /// </summary>
    /// <param name="person">Who.</param>
    /// <param name="serial">The aircraft's serial number: a certificate that is bound to another one isn't named.</param>
    public string Named(Guid? person, string serial) => person is not { } id ? ""
        : People.TryGetValue(id, out var who)
        ? $"{who.Name} ({Certificate(who, serial)})"
        : "somebody who isn’t on file";

    // One that ended may have held when the work was done, and is named with its end.
    private string Certificate(Person who, string serial) =>
        who.Certificates.Where(held => held.OnlySerial is null || held.OnlySerial == serial).OrderByDescending(held => held.HoldsOn(Today))
            .FirstOrDefault() is { } by
            ? $"{by.Kind.InWords()}, {by.Number}{(by.HoldsOn(Today) ? "" : $", ended {by.Until:yyyy-MM-dd}")}" : "no certificate";

    /// <summary>Who answers for a decision: a person with the certificate it was made by, as it was called then.</summary>
    public string Deciding(Guid person, string certificate) =>
        $"{(People.TryGetValue(person, out var who) ? who.Name : "somebody who isn’t on file")} ({certificate})";

    /// <summary>The certificate by which a person may sign an inspection; null where they may not.</summary>
    /// <param name="person">Who.</param>
    /// <param name="inspection">The inspection.</param>
    /// <param name="aircraft">Its aircraft.</param>
    /// <param name="on">The day, where it isn't the one it is weighed on.</param>
    public Certificate? SignsBy(Guid? person, Inspection inspection, Aircraft aircraft, DateOnly? on = null) =>
        person is { } id && People.TryGetValue(id, out var who) ? Pack.MaySign(who, inspection.Kind, aircraft, on ?? Today).By : null;

    /// <summary>Whether a person holds any certificate of a mechanic or inspector: somebody who doesn't opens, cleans and shows.</summary>
    public bool IsCertificated(Guid? person) =>
        person is { } id && People.TryGetValue(id, out var who) && who.Certificates.Any(held => held.Kind != CertificateKind.Pilot);
}
