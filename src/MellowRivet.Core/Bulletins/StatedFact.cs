using System.Globalization;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Bulletins;

/// <summary>
/// A fact that somebody read off an aircraft or a part, with the picture of the plate. It hangs on what it was read off, and
/// moves with a part. A number that the parts themselves keep is put there; this is then its evidence.
/// </summary>
public sealed class StatedFact
{
    /// <summary>Longest value taken, in characters.</summary>
    public const int Longest = 60;

    private StatedFact() { }

    public StatedFact(Guid id, Guid? aircraftId, Guid? componentId, string key, string value, Photo? photo, Guid by, DateTimeOffset at) =>
        (Id, AircraftId, ComponentId, Key, Value, Photo, By, At) = (id, aircraftId, componentId, key, value, photo, by, at);

    public Guid Id { get; private set; }
    public Guid? AircraftId { get; private set; }
    public Guid? ComponentId { get; private set; }

    /// <summary>What was read, by its name on what it hangs on: "serial", "modification.M-1", "crankshaft.fitted".</summary>
    public string Key { get; private set; } = "";
    public string Value { get; private set; } = "";
    public Photo? Photo { get; private set; }
    public Guid By { get; private set; }
    public DateTimeOffset At { get; private set; }

    /// <summary>
    /// Takes a fact that was read off the aircraft: a part's numbers, day and hours go to the part, which is put into the tree
    /// where it wasn't; the rest is kept as stated.
    /// </summary>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="target">The part that the bulletin is about; null for the aircraft.</param>
    /// <param name="name">The fact's name.</param>
    /// <param name="value">What was read: a number, a day as 2026-01-31, yes or no.</param>
    /// <param name="id">The id it is kept under.</param>
    /// <param name="photo">The picture of the plate; null where none was taken.</param>
    /// <param name="by">Who read it.</param>
    /// <param name="at">When.</param>
    /// <param name="today">The shop's day.</param>
    public static (StatedFact? Fact, Refusal? Refusal) Take(Aircraft aircraft, Installation? target, string name, string? value, Guid id,
        Photo? photo, Guid by, DateTimeOffset at, DateOnly today)
    {
        if (FactName.Read(name) is not { } fact)
            return (null, new("fact", "There is no such fact."));
        var read = value?.Trim() ?? "";
        if (read.Length is 0 or > Longest)
            return (null, new("value", $"Type what you read, in up to {Longest} characters."));
        if (fact.IsYesNo && read is not (YesNo.Yes or YesNo.No))
            return (null, new("value", "Yes or no."));
        DateOnly day = default;
        if (fact.IsDate && !DateOnly.TryParseExact(read, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out day))
            return (null, new("value", "A day, as 2004-05-31."));
        if (fact.IsDate && day > today)
            return (null, new("value", "That day is still to come."));
        if (fact.Asks == "serial" && SerialNumber.Read(read) is null)
            return (null, new("value", $"A serial number has letters or figures, up to {SerialNumber.Longest} characters."));

        var facts = new AircraftFacts(aircraft, [], TypeList.Empty, target);
        var hosts = facts.Hosts(fact);
        if (fact is { Whose: FactName.Aircraft, Part: null })
            return fact.IsYesNo || fact.IsDate
                ? (new(id, aircraft.Id, null, fact.Asks, read, photo, by, at), null)
                : (null, new("fact", "That stands on the aircraft’s data plate: change it there."));
        if (hosts.Count > 1 || (fact.Part is not null && facts.Parts(fact).Count > 1))
            return (null, new("fact",
                $"There are several: enter it on the parts page, for each of them. "
                + $"{char.ToUpperInvariant(fact.InWords[0])}{fact.InWords[1..]}."));

        // A part that sits on something which isn't in the tree either hangs on the aircraft.
        var host = hosts.Count == 1 ? hosts[0] : null;
        var stay = fact.Part is null ? host : facts.Parts(fact) is [var only] ? only : null;
        if (fact.Asks == "fitted")
            return (new(id, host is null ? aircraft.Id : null, host?.ComponentId, KeyOf(fact, host), read, photo, by, at), null);
        if (stay is null)
        {
            var (kind, called) = Kind(fact.Part ?? fact.Whose);
            if (kind == ComponentKind.Engine)
                return (null, new("fact", "The aircraft has no engine on file: fit it on the parts page."));
            stay = aircraft.Install(new(Guid.CreateVersion7(), kind, "", "", called), fact.Position ?? "", host?.InstalledAt
                ?? new Hours(0), null, fact.Part is null ? null : host?.ComponentId, host?.InstalledOn);
        }
        var part = stay.Component;
        switch (fact.Asks)
        {
            case "serial":
                part.Identify(part.PartNumber, read, part.Name, part.MadeOn);
                break;
            case "model":
                part.Identify(read, part.SerialNumber, part.Name, part.MadeOn);
                break;
            case "made":
                part.Identify(part.PartNumber, part.SerialNumber, part.Name, day);
                break;
            case "hours":
                if (!decimal.TryParse(read, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var hours)
                    || !stay.KnowTime(hours, aircraft.TimeInService))
                    return (null, new("value",
                        $"Its own hours now, from {stay.SinceInstalled(aircraft.TimeInService)} up: so many it has flown here alone."));
                break;
        }
        return (new(id, null, part.Id, fact.Asks, read, photo, by, at), null);
    }

    private static string KeyOf(FactName fact, Installation? host) =>
        fact.Part is null && host is null ? $"{fact.Whose}.{fact.Asks}" : fact.Part is null ? fact.Asks
        : $"{fact.Part}{(fact.Position is null ? "" : $".{fact.Position}")}.{fact.Asks}";

    private static (ComponentKind Kind, string Name) Kind(string word) =>
        Enum.TryParse<ComponentKind>(word, ignoreCase: true, out var kind) && kind != ComponentKind.Other
            ? (kind, "")
            : (ComponentKind.Other, char.ToUpperInvariant(word[0]) + word[1..]);
}
