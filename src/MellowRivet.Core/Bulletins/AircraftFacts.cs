using System.Collections.Concurrent;
using System.Globalization;
using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.Bulletins;

/// <summary>
/// The facts of one aircraft, as a bulletin sees them: its plate, the parts that are on it now, and what was read off them.
/// Seen from a part, "engine" is the one it is or sits on; seen from the aircraft, every engine counts.
/// </summary>
/// <param name="aircraft">The aircraft with its parts.</param>
/// <param name="stated">Facts that were read off it and off parts.</param>
/// <param name="types">The types the shop knows: what the names of models mean.</param>
/// <param name="target">The part the bulletin is about; null for the aircraft.</param>
public sealed class AircraftFacts(Aircraft aircraft, IReadOnlyCollection<StatedFact> stated, TypeList types, Installation? target) : IFacts
{
    private static readonly ConcurrentDictionary<string, FactName?> Names = new();

    private readonly Dictionary<string, Fact> known = [];

    public Fact Of(string name) => known.TryGetValue(name, out var fact) ? fact : known[name] = Find(name);

    /// <summary>
    /// What a rule finds, and where it goes by the model or serial number of a thing whose model no list knows: that nobody can
    /// tell. A serial number says something within its model only.
    /// </summary>
    public Applicability Put(Rule rule)
    {
        var answer = rule.Of(this);
        if (answer.Answer != RuleAnswer.DoesNotApply || !HasUnlisted)
            return answer;
        foreach (var condition in rule.Conditions)
            if (Names.GetOrAdd(condition.Fact, FactName.Read) is { Asks: "model" or "serial", TypeKind: not null } name
                && Of(name.Model) is { Models: { } models } fact
                && fact.Values.FirstOrDefault(value => !models.List.Find(models.Kind, value).IsKnown) is { } unlisted)
                return new(RuleAnswer.CannotTell, [name.Model],
                    [.. answer.Reasons, Reason.Said($"{name.Model} {unlisted} is on no type list")]);
        return answer;
    }

    private bool? hasUnlisted;

    // Most aircraft have none: asked once, not with every bulletin.
    private bool HasUnlisted => hasUnlisted ??= !types.Find(TypeKind.Aircraft, aircraft.Type).IsKnown
        || On.Any(stay => stay.Component is { PartNumber.Length: > 0 } part && part.Kind.TypeOf() is { } kind
            && !types.Find(kind, part.PartNumber).IsKnown);

    /// <summary>The parts a name begins with; empty where none of the kind is on file.</summary>
    public IReadOnlyList<Installation> Hosts(FactName name)
    {
        if (name.Whose == FactName.Aircraft)
            return [];
        if (target is not null)
        {
            if (IsKind(target, name.Whose))
                return [target];
            for (var on = Under(target); on is not null; on = Under(on))
                if (IsKind(on, name.Whose))
                    return [on];
            return [.. SittingBelow(target).Where(stay => IsKind(stay, name.Whose))];
        }
        return [.. On.Where(stay => IsKind(stay, name.Whose))];
    }

    /// <summary>The parts a name is about, where it goes on to what sits on the first.</summary>
    public IReadOnlyList<Installation> Parts(FactName name) =>
    [
        .. (name.Whose == FactName.Aircraft ? On : Hosts(name).SelectMany(SittingBelow))
            .Where(stay => IsKind(stay, name.Part!) && (name.Position is null || IsSame(stay.Position, name.Position))),
    ];

    private IEnumerable<Installation> On => aircraft.Installations.Where(stay => stay.IsOn);

    private Installation? Under(Installation stay) =>
        stay.ParentId is { } parent ? On.FirstOrDefault(other => other.ComponentId == parent) : null;

    private IEnumerable<Installation> SittingBelow(Installation host) =>
        On.Where(stay => stay.ParentId == host.ComponentId).SelectMany(stay => SittingBelow(stay).Prepend(stay));

    private Fact Find(string name)
    {
        if (Names.GetOrAdd(name, FactName.Read) is not { } fact)
            return Fact.Unknown;
        if (fact is { Whose: FactName.Aircraft, Part: null })
            return OfAircraft(fact.Asks);
        var stays = fact.Part is null ? Hosts(fact) : Parts(fact);
        if (stays.Count > 0)
            return Fact.Of(stays.Select(stay => OfPart(stay, fact.Asks)));
        if (Enum.TryParse<ComponentKind>(fact.Part ?? fact.Whose, ignoreCase: true, out var kind) && kind == ComponentKind.Magneto
            && aircraft.Engines.Any() && aircraft.Engines.All(engine => engine.Component.Ignition is { HasMagneto: false }))
            return fact.Asks == "fitted" ? Fact.Known(YesNo.No) : Fact.NotThere;
        // None on file: somebody may have looked and found that there is none.
        var place = fact.Part is null ? fact.Whose : $"{fact.Part}{(fact.Position is null ? "" : $".{fact.Position}")}";
        var hosts = fact.Part is null ? [] : Hosts(fact);
        var looked = hosts.Count > 0
            ? hosts.Select(host => Said(null, host.ComponentId, $"{place}.fitted"))
            : [Said(aircraft.Id, null, $"{place}.fitted")];
        return looked.All(said => said == YesNo.No) ? fact.Asks == "fitted" ? Fact.Known(YesNo.No) : Fact.NotThere : Fact.Unknown;
    }

    private Fact OfAircraft(string asks) => asks switch
    {
        "model" => Model(aircraft.Type, TypeKind.Aircraft),
        "serial" => Word(aircraft.SerialNumber),
        "hours" => aircraft.ReadOn is null ? Fact.Unknown : Fact.Known(aircraft.TimeInService.Value.ToString(CultureInfo.InvariantCulture)),
        "category" => Fact.Known(aircraft.Category.InWords()),
        "fitted" => Fact.Known(YesNo.Yes),
        _ => Word(Said(aircraft.Id, null, asks)),
    };

    private Fact OfPart(Installation stay, string asks) => asks switch
    {
        "model" => stay.Component.Kind.TypeOf() is { } kind ? Model(stay.Component.PartNumber, kind) : Word(stay.Component.PartNumber),
        "serial" => Word(stay.Component.SerialNumber),
        "made" => Word(stay.Component.MadeOn?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)),
        "hours" => Word(stay.TimeInService(aircraft.TimeInService)?.Value.ToString(CultureInfo.InvariantCulture)),
        "fitted" => Fact.Known(YesNo.Yes),
        "category" => Fact.Known(aircraft.Category.InWords()),
        _ => Word(Said(null, stay.ComponentId, asks)),
    };

    private string? Said(Guid? aircraftId, Guid? componentId, string key) => stated
        .Where(fact => fact.AircraftId == aircraftId && fact.ComponentId == componentId
            && string.Equals(fact.Key, key, StringComparison.OrdinalIgnoreCase)).MaxBy(fact => fact.At)?.Value;

    private Fact Model(string name, TypeKind kind) => Word(name) with { Models = new(types, kind) };

    private static Fact Word(string? word) => string.IsNullOrWhiteSpace(word) ? Fact.Unknown : Fact.Known(word);

    // A kind of its own, or a part that is called so.
    private static bool IsKind(Installation stay, string word) => stay.Component.Kind == ComponentKind.Other
        ? IsSame(stay.Component.Name, word)
        : string.Equals(stay.Component.Kind.ToString(), word, StringComparison.OrdinalIgnoreCase);

    // A fact's name has no spaces: "engine.suctionpump" is the suction pump.
    private static bool IsSame(string called, string word) =>
        string.Equals(called.Replace(" ", "", StringComparison.Ordinal), word, StringComparison.OrdinalIgnoreCase);
}
