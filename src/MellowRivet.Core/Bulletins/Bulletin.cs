using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Bulletins;

public enum BulletinKind { AirworthinessDirective = 1, AlertBulletin, MandatoryBulletin, OptionalBulletin, SafetyDirective, Advisory }

/// <summary>A part of the format that keeps what it doesn't know: unknown members are kept and shown, never dropped.</summary>
public abstract record OpenRecord
{
    [JsonExtensionData]
    public Dictionary<string, JsonElement>? Other { get; init; }
}

/// <summary>Another bulletin that is named.</summary>
/// <param name="Number">Its number.</param>
/// <param name="Issuer">Who issued it; null for the same issuer.</param>
/// <param name="Revision">The one revision meant; null for every one.</param>
public sealed record BulletinRef(string Number, string? Issuer = null, string? Revision = null) : OpenRecord;

/// <summary>When something has to be done for the first time.</summary>
public enum DeadlineKind { BeforeNextFlight = 1, WithinHours, WithinMonths, NextInspection, NotLaterThan }

/// <summary>What hours and months are counted from.</summary>
public enum CountedFrom { Effective = 1, New }

/// <summary>One limb of a deadline; of several, whichever comes first governs.</summary>
/// <param name="When">What kind of limb.</param>
/// <param name="Hours">Hours, for that kind; of the part where the bulletin is about one.</param>
/// <param name="Months">Months to the day, for that kind.</param>
/// <param name="From">What they are counted from.</param>
/// <param name="Date">The last day, for that kind.</param>
public sealed record Deadline(DeadlineKind When, decimal? Hours = null, int? Months = null, CountedFrom From = CountedFrom.Effective,
    DateOnly? Date = null) : OpenRecord
{
    [JsonIgnore]
    public string InWords => When switch
    {
        DeadlineKind.BeforeNextFlight => "before next flight",
        DeadlineKind.WithinHours => $"within {Hours:0.##} h {(From == CountedFrom.New ? "since new" : "of the effective date")}",
        DeadlineKind.WithinMonths =>
            $"within {Months} {(Months == 1 ? "month" : "months")} {(From == CountedFrom.New ? "since new" : "of the effective date")}",
        DeadlineKind.NextInspection => "at the next inspection",
        _ => $"not later than {Date:yyyy-MM-dd}",
    };
}

/// <summary>How often something comes again.</summary>
public sealed record Repeat(decimal? Hours = null, int? Months = null) : OpenRecord
{
    [JsonIgnore]
    public string InWords =>
        "every " + string.Join(" or ",
            new[] { Hours is { } hours ? $"{hours:0.##} h" : null, Months is { } months ? months == 1
                ? "month"
                : $"{months} months" : null }
                .OfType<string>());
}

/// <summary>The flight that a bulletin allows to the place of work.</summary>
/// <param name="Hours">Flight hours in all.</param>
/// <param name="Conditions">What has to be so first.</param>
public sealed record FerryAllowance(decimal Hours, IReadOnlyList<string> Conditions) : OpenRecord;

/// <summary>When it has to be complied with.</summary>
/// <param name="Deadlines">The limbs for the first time.</param>
/// <param name="Repeat">How often it recurs; null for once.</param>
/// <param name="AfterFinding">How often after a finding; null where that changes nothing.</param>
/// <param name="Terminating">What ends it for good; null where nothing does.</param>
/// <param name="EarlierCounts">Compliance with an earlier revision, or with what this supersedes, counts.</param>
/// <param name="Ferry">A flight that is allowed before; null for none.</param>
public sealed record Compliance(
    IReadOnlyList<Deadline> Deadlines, Repeat? Repeat = null, Repeat? AfterFinding = null, string? Terminating = null,
    bool EarlierCounts = false, FerryAllowance? Ferry = null) : OpenRecord
{
    [JsonIgnore]
    public string InWords => string.Join("; ", new[]
    {
        Deadlines.Count == 0 ? "no deadline given"
            : string.Join(" or ", Deadlines.Select(limb => limb.InWords)) + (Deadlines.Count > 1 ? ", whichever first" : ""),
        Repeat is null ? null : $"again {Repeat.InWords}",
        AfterFinding is null ? null : $"after a finding {AfterFinding.InWords}",
        Terminating is null ? null : $"ended by {Terminating}",
        Ferry is null ? null : $"ferry up to {Ferry.Hours:0.##} h",
    }.OfType<string>());
}

/// <summary>One step of the work.</summary>
/// <param name="Text">What is done.</param>
/// <param name="Caution">What can hurt; null for most.</param>
/// <param name="Measure">What is measured; null for most.</param>
/// <param name="Torque">The torque as printed, in both units: "17 N·m (150 in-lb)"; null for none.</param>
public sealed record BulletinStep(string Text, string? Caution = null, WorksheetMeasure? Measure = null, string? Torque = null)
    : OpenRecord;

/// <summary>A part of the kit.</summary>
public sealed record KitPart(string What, string Number = "", decimal Quantity = 1) : OpenRecord;

/// <summary>A document that goes with it.</summary>
/// <param name="Title">What it is.</param>
/// <param name="Reference">Its number, revision and pages.</param>
public sealed record BulletinDocument(string Title, string Reference = "") : OpenRecord;

/// <summary>
/// A bulletin as its issuer sent it: which ones it concerns, by when, what is done and by whom. docs/formats.md describes the
/// file; unknown members are kept.
/// </summary>
/// <param name="Format">The format's name.</param>
/// <param name="Version">The format's version.</param>
/// <param name="Issuer">Who issued it.</param>
/// <param name="Number">Its number.</param>
/// <param name="Revision">Its revision; "" for the first.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Subject">What it is about.</param>
/// <param name="Published">The day it came out.</param>
/// <param name="Effective">The day from which it holds.</param>
/// <param name="AppliesTo">Which ones it concerns.</param>
/// <param name="Compliance">By when.</param>
/// <param name="Method">The document and paragraph that say how.</param>
/// <param name="Steps">The work, in order.</param>
/// <param name="About">The kind of part it hangs on and moves with; null for the aircraft.</param>
/// <param name="By">Who may do it: a holder of any of these; empty where it doesn't say.</param>
/// <param name="Approval">What else the doer needs, in words; null for nothing.</param>
/// <param name="Supersedes">Bulletins it takes the place of, besides its own earlier revisions.</param>
/// <param name="Kit">Parts it takes.</param>
/// <param name="Tools">Special tools.</param>
/// <param name="LabourHours">Hours it is expected to take; null where it doesn't say.</param>
/// <param name="LabourCredit">Hours the issuer credits; null for none.</param>
/// <param name="LogWording">The entry's wording; {method}, {revision}, {date} and {hours} are filled in.</param>
/// <param name="Documents">What goes with it.</param>
public sealed record Bulletin(
    string Format, int Version, string Issuer, string Number, string Revision, BulletinKind Kind, string Subject, DateOnly Published,
    DateOnly Effective,
    Rule AppliesTo, Compliance Compliance, string Method, IReadOnlyList<BulletinStep> Steps,
    ComponentKind? About = null, IReadOnlyList<CertificateKind>? By = null, string? Approval = null,
    IReadOnlyList<BulletinRef>? Supersedes = null, IReadOnlyList<KitPart>? Kit = null, IReadOnlyList<string>? Tools = null,
    decimal? LabourHours = null, decimal? LabourCredit = null, string? LogWording = null, IReadOnlyList<BulletinDocument>? Documents = null)
        : OpenRecord
{
    [JsonIgnore]
    public string Title => Revision.Length == 0 ? Number : $"{Number} rev {Revision}";

    /// <summary>What its revisions have in common.</summary>
    [JsonIgnore]
    public string Family => $"{Issuer}\n{Number}".ToUpperInvariant();

    /// <summary>The entry's wording, filled in.</summary>
    /// <param name="method">How it was complied with.</param>
    /// <param name="on">The day.</param>
    /// <param name="hours">Time in service then; null where it isn't known.</param>
    public string Wording(string method, DateOnly on, decimal? hours) =>
        (LogWording ?? "Complied with {number} in accordance with {method}.")
        .Replace("{number}", Title).Replace("{method}", method).Replace("{revision}", Revision.Length == 0 ? "original issue" : Revision)
        .Replace("{date}", on.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture))
        .Replace("{hours}", hours is { } known ? $"{known:0.0} h" : "hours not known");
}

public static class BulletinWords
{
    public static string InWords(this BulletinKind kind) => kind switch
    {
        BulletinKind.AirworthinessDirective => "airworthiness directive",
        BulletinKind.AlertBulletin => "alert bulletin",
        BulletinKind.MandatoryBulletin => "mandatory bulletin",
        BulletinKind.OptionalBulletin => "optional bulletin",
        BulletinKind.SafetyDirective => "safety directive",
        _ => "advisory or service letter",
    };
}
