namespace MellowRivet.Core.Fleet;

/// <summary>What a type is a type of: the products of 14 CFR 21.1, and appliances.</summary>
public enum TypeKind { Aircraft = 1, Engine, Propeller, Appliance }

/// <summary>
/// A type by its maker's model designation, as on the data plate: what a directive's applicability goes by (14 CFR 39,
/// from memory). Its other names are those that people and papers use for the very same model.
/// </summary>
public sealed class KnownType
{
    /// <summary>Longest maker, designation and alias taken, in characters.</summary>
    public const int Longest = 60;

    /// <summary>The most aliases of one type.</summary>
    public const int MostAliases = 20;

    private List<string> aliases = [];

    private KnownType() { }

    public KnownType(Guid id, TypeKind kind, string maker, string designation, IEnumerable<string>? aliases = null)
    {
        (Id, Kind) = (id, kind);
        (Maker, Designation, this.aliases) = (maker.Trim(), designation.Trim(), [.. aliases ?? []]);
    }

    public Guid Id { get; private set; }
    public TypeKind Kind { get; private set; }

    /// <summary>Who makes it; "" where nobody has said.</summary>
    public string Maker { get; private set; } = "";

    /// <summary>The model designation, as on the data plate.</summary>
    public string Designation { get; private set; } = "";

    /// <summary>What else the same model is called.</summary>
    public IReadOnlyList<string> Aliases => aliases;

    /// <summary>Counts changes, so that what is reckoned from it is reckoned anew.</summary>
    public int Changes { get; private set; }

    /// <summary>What stands on file: maker and designation of an aircraft, the designation of anything else.</summary>
    public string Name => Kind == TypeKind.Aircraft ? FullName : Designation;

    public string FullName => Maker.Length > 0 ? $"{Maker} {Designation}" : Designation;

    /// <summary>Every name that means this very model.</summary>
    public IEnumerable<string> Names =>
        new[] { FullName, Designation }.Concat(aliases).Concat(Maker.Length > 0 ? aliases.Select(alias => $"{Maker} {alias}") : [])
            .Distinct();

    /// <summary>Puts other words on it. A name that means another type can't mean this one too.</summary>
    /// <param name="maker">Who makes it.</param>
    /// <param name="designation">The model designation.</param>
    /// <param name="others">Its aliases.</param>
    /// <param name="list">The list it stands on, or will.</param>
    public Refusal? Describe(string? maker, string? designation, IEnumerable<string> others, TypeList list)
    {
        var (by, model, names) = (maker?.Trim() ?? "", designation?.Trim()
            ?? "", others.Select(name => name.Trim()).Where(name => name.Length > 0).Distinct().ToList());
        if (Key(model).Length == 0 || model.Length > Longest)
            return new("designation", $"The model designation, as on the data plate, in up to {Longest} characters.");
        if (by.Length > Longest)
            return new("maker", $"The maker in up to {Longest} characters.");
        if (names.Count > MostAliases || names.Any(name => name.Length > Longest || Key(name).Length == 0))
            return new("aliases", $"Up to {MostAliases} other names of up to {Longest} characters, one a line.");
        var asked = new KnownType(Id, Kind, by, model, names);
        foreach (var other in list.Of(Kind).Where(other => other.Id != Id))
        {
            // Two makers may use one designation: then it takes the maker to tell. Anything else that means both means neither.
            if (Key(other.FullName) == Key(asked.FullName)
                || (Key(other.Designation) == Key(model) && (by.Length == 0 || other.Maker.Length == 0)))
                return new("designation", $"{other.FullName} is on the list already.");
            if (names.Find(name => other.Means(name)) is { } taken)
                return new("aliases", $"“{taken}” means {other.FullName}.");
            if (other.aliases.Find(asked.Means) is { } theirs)
                return new("designation", $"“{theirs}” is another name of {other.FullName}.");
        }
        (Maker, Designation, aliases) = (by, model, names);
        Changes++;
        return null;
    }

    /// <summary>Takes a further spelling for the same model.</summary>
    public Refusal? AlsoCalled(string name, TypeList list) => Means(name) ? null : Describe(Maker, Designation, aliases.Append(name), list);

    /// <summary>Whether a name is one of its names.</summary>
    public bool Means(string name) => Names.Any(known => Key(known) == Key(name));

    private static string Key(string name) => new ModelName(name).Key;
}

/// <summary>What a name comes to on the type list.</summary>
/// <param name="Type">The one type it means; null where it means none, or could mean several.</param>
/// <param name="Near">Types it may mean, the closest first: for the question "did you mean".</param>
public sealed record NamedType(KnownType? Type, IReadOnlyList<KnownType> Near)
{
    public bool IsKnown => Type is not null;
}

public static class TypeWords
{
    public static string InWords(this TypeKind kind) => kind.ToString().ToLowerInvariant();

    /// <summary>What kind of type a part has; null for parts that go by part number alone.</summary>
    public static TypeKind? TypeOf(this ComponentKind kind) => kind switch
    {
        ComponentKind.Engine => TypeKind.Engine,
        ComponentKind.Propeller => TypeKind.Propeller,
        ComponentKind.Cylinder or ComponentKind.Crankshaft or ComponentKind.Hose or ComponentKind.Plug => null,
        _ => TypeKind.Appliance,
    };
}
