using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Bulletins;

/// <summary>Whether bulletins of some kinds bind aircraft of some categories: a rule of the rule pack.</summary>
/// <param name="Kinds">The kinds it is about.</param>
/// <param name="Categories">The categories it is about.</param>
/// <param name="Binds">They bind, by the authority's rule.</param>
/// <param name="Why">The reason, in words.</param>
/// <param name="Source">The rule.</param>
public sealed record BindingRule(IReadOnlyList<BulletinKind> Kinds, IReadOnlyList<Category> Categories, bool Binds, string Why,
    RuleSource Source)
{
    /// <summary>What holds for a bulletin. A pack that says nothing is taken to bind, the cautious way round.</summary>
    public static BindingRule For(BulletinKind kind, Category category, IReadOnlyList<BindingRule>? rules) =>
        rules?.FirstOrDefault(rule => rule.Kinds.Contains(kind) && rule.Categories.Contains(category))
        ?? new([kind], [category], true, "The rule pack says nothing about it: taken as binding until somebody has looked it up.",
            new(Standing.Practice, "the product’s own caution"));
}
