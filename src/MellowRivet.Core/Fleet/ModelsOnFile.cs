using MellowRivet.Core.Bulletins;

namespace MellowRivet.Core.Fleet;

/// <summary>The names of models as they stand on a fleet's aircraft and on the parts that are on them, with what bears each.</summary>
public sealed class ModelsOnFile
{
    /// <summary>So many bearers of a name are named: of a hose a large fleet has hundreds.</summary>
    public const int MostBearers = 5;

    // An aircraft, or a part on one.
    private sealed record Bearer(TypeKind Kind, string Name, Aircraft Aircraft, Installation? Stay)
    {
        // "N0TST engine left".
        public string InWords =>
            Stay is null ? Aircraft.Registration
                : $"{Aircraft.Registration} {PartName} {Stay.Position}".TrimEnd();

        private string? PartName => Stay is { Component: { Name.Length: > 0 } part } ? part.Name : Stay?.Component.Kind.InWords();
    }

    private readonly ILookup<(TypeKind Kind, string Name), Bearer> bearers;

    /// <param name="fleet">The aircraft with their parts.</param>
    public ModelsOnFile(IEnumerable<Aircraft> fleet) =>
        bearers = fleet.OrderBy(aircraft => aircraft.Registration, StringComparer.Ordinal).SelectMany(aircraft => aircraft.Installations
            .Where(stay => stay.IsOn && stay.Component.PartNumber.Length > 0 && stay.Component.Kind.TypeOf() is not null)
            .Select(stay => new Bearer(stay.Component.Kind.TypeOf()!.Value, stay.Component.PartNumber, aircraft, stay))
            .Prepend(new(TypeKind.Aircraft, aircraft.Type, aircraft, null)))
        .ToLookup(bearer => (bearer.Kind, bearer.Name));

    /// <summary>On how many aircraft and parts each type of a list stands.</summary>
    public IReadOnlyDictionary<Guid, int> CountsOf(TypeList types) =>
        bearers.Select(group => (types.Find(group.Key.Kind, group.Key.Name).Type, Count: group.Count())).Where(one => one.Type is not null)
        .GroupBy(one => one.Type!.Id).ToDictionary(group => group.Key, group => group.Sum(one => one.Count));

    /// <summary>Names on file and in bulletins that no list knows, those that may be something known first.</summary>
    /// <param name="bulletins">The shop's bulletins and types.</param>
    public IReadOnlyList<UnsettledName> Unsettled(BulletinList bulletins)
    {
        var onFile = bearers.Select(
            group => (group.Key.Kind, group.Key.Name, Found: bulletins.Types.Find(group.Key.Kind, group.Key.Name), Bearers: group))
                .Where(one => !one.Found.IsKnown)
            .Select(one => new UnsettledName(one.Kind, one.Name, one.Found.Near,
                [.. one.Bearers.Take(MostBearers).Select(bearer => bearer.InWords)]));
        return [.. onFile.Concat(bulletins.All.Where(held => bulletins.SupersededBy(held) is null).SelectMany(bulletins.UnsettledIn))
            .GroupBy(one => (one.Kind, new ModelName(one.Name).Key))
            .Select(group => group.First() with { On = [.. group.SelectMany(one => one.On).Distinct()] })
            .OrderByDescending(one => one.Near.Count > 0).ThenBy(one => one.Kind)
            .ThenBy(one => one.Name, StringComparer.OrdinalIgnoreCase)];
    }
}
