using MellowRivet.Core.Fleet;

namespace MellowRivet.Web.Pages.Shelves;

/// <summary>"Did you mean": a name that no list knows, with what it may be.</summary>
/// <param name="Kind">What it names.</param>
/// <param name="Name">The name as it was typed.</param>
/// <param name="Near">Types it may mean.</param>
/// <param name="Field">The field that carries the answer.</param>
/// <param name="MakerField">The field that carries the maker of a type of its own.</param>
/// <param name="Said">The answer so far.</param>
/// <param name="Maker">The maker so far.</param>
/// <param name="Leave">It may be left unsettled here.</param>
public sealed record TypeQuestion(TypeKind Kind, string Name, IReadOnlyList<KnownType> Near, string Field, string MakerField, string? Said,
    string? Maker, bool Leave = true)
{
    /// <summary>The field that says which name was asked about: typed over, the answer holds no more.</summary>
    public string AboutField => Field + "About";

    /// <summary>Who may make one of its own, as far as the name or its neighbours tell.</summary>
    public string? LikelyMaker =>
        Maker ?? Near.Select(type => type.Maker)
            .FirstOrDefault(maker => Kind != TypeKind.Aircraft || Name.StartsWith(maker + " ", StringComparison.OrdinalIgnoreCase));

    /// <summary>The question about a name as it was typed; null where a list knows it, or nothing was typed.</summary>
    public static TypeQuestion? About(TypeList list, TypeKind? kind, string? typed, string field, string makerField, string? said,
        string? maker) =>
        kind is { } known && !string.IsNullOrWhiteSpace(typed) && list.Find(known, typed.Trim()) is { IsKnown: false } found
            ? new(known, typed.Trim(), found.Near, field, makerField, said, maker)
            : null;
}
