namespace MellowRivet.Core.Bulletins;

/// <summary>An answer that may have to wait for a fact.</summary>
public enum RuleAnswer { DoesNotApply = 1, CannotTell, Applies }

/// <summary>Whether a rule holds.</summary>
/// <param name="Answer">Applies, doesn't, or can't be told yet.</param>
/// <param name="Missing">Names of the facts that would tell; empty unless it can't be told.</param>
/// <param name="Reasons">The facts that decide.</param>
public sealed record Applicability(RuleAnswer Answer, IReadOnlyList<string> Missing, IReadOnlyList<Reason> Reasons)
{
    /// <summary>The facts that decide, in words.</summary>
    public IReadOnlyList<string> Because => [.. Reasons.Select(reason => reason.InWords).Distinct()];
}

/// <summary>One fact that decides. Put into words only where somebody reads it: a shop looks up more than it reads.</summary>
/// <param name="Condition">The condition it was put to; null for a reason that is words alone.</param>
/// <param name="Words">The value, or the words.</param>
/// <param name="Answer">What came of it.</param>
public readonly record struct Reason(Condition? Condition, string Words, RuleAnswer Answer)
{
    public static Reason Said(string words) => new(null, words, RuleAnswer.DoesNotApply);

    public string InWords =>
        Condition is null ? Words : Words.Length == 0
            ? $"{Condition.Fact}: there is none"
            : $"{Condition.Fact} {Words} "
                + Answer switch
                {
                    RuleAnswer.Applies => Condition.Test.Met,
                    RuleAnswer.CannotTell => Condition.Test.Doubt,
                    _ => Condition.Test.Unmet,
                };
}

/// <summary>
/// A rule over facts, three-valued (Kleene's strong logic): a fact that isn't known leaves the answer open wherever it could
/// still turn it, and nowhere else.
/// </summary>
public abstract record Rule
{
    /// <summary>Deepest nesting taken.</summary>
    public const int Deepest = 24;

    /// <summary>The most conditions of one rule.</summary>
    public const int MostConditions = 500;

    public abstract Applicability Of(IFacts facts);

    /// <summary>Every condition in it.</summary>
    public abstract IEnumerable<Condition> Conditions { get; }

    /// <summary>The rule in words, one sentence.</summary>
    public abstract string InWords { get; }
}

/// <summary>Holds where every part does; with no part it holds.</summary>
public sealed record All(IReadOnlyList<Rule> Parts) : Rule
{
    public override IEnumerable<Condition> Conditions => Parts.SelectMany(part => part.Conditions);

    public override string InWords =>
        Parts.Count == 0 ? "every one"
            : string.Join(" and ", Parts.Select(part => part is Any { Parts.Count: > 1 } ? $"({part.InWords})" : part.InWords));

    public override Applicability Of(IFacts facts) => Rules.Decide(Parts, facts, decides: RuleAnswer.DoesNotApply);

    public bool Equals(All? other) => other is not null && Parts.SequenceEqual(other.Parts);

    public override int GetHashCode() => Parts.Aggregate(1, HashCode.Combine);
}

/// <summary>Holds where one part does; with no part it doesn't.</summary>
public sealed record Any(IReadOnlyList<Rule> Parts) : Rule
{
    public override IEnumerable<Condition> Conditions => Parts.SelectMany(part => part.Conditions);

    public override string InWords =>
        Parts.Count == 0 ? "none"
            : string.Join(" or ", Parts.Select(part => part is All { Parts.Count: > 1 } ? $"({part.InWords})" : part.InWords));

    public override Applicability Of(IFacts facts) => Rules.Decide(Parts, facts, decides: RuleAnswer.Applies);

    public bool Equals(Any? other) => other is not null && Parts.SequenceEqual(other.Parts);

    public override int GetHashCode() => Parts.Aggregate(2, HashCode.Combine);
}

/// <summary>Holds where its part doesn't. What can't be told stays so.</summary>
public sealed record Not(Rule Part) : Rule
{
    public override IEnumerable<Condition> Conditions => Part.Conditions;

    public override string InWords => Part is Condition ? $"not {Part.InWords}" : $"not ({Part.InWords})";

    public override Applicability Of(IFacts facts)
    {
        var part = Part.Of(facts);
        return part with { Answer = part.Answer switch { RuleAnswer.Applies => RuleAnswer.DoesNotApply, RuleAnswer.DoesNotApply =>
            RuleAnswer.Applies, _ => RuleAnswer.CannotTell } };
    }
}

/// <summary>One fact put to a test.</summary>
/// <param name="Fact">The fact's name.</param>
/// <param name="Test">What is asked of it.</param>
public sealed record Condition(string Fact, FactTest Test) : Rule
{
    public override IEnumerable<Condition> Conditions => [this];

    public override string InWords => $"{Fact} {Test.InWords}";

    public override Applicability Of(IFacts facts)
    {
        var fact = facts.Of(Fact);
        string? doubt = null;
        foreach (var value in fact.Values)
            switch (Test is IsOneOf named && fact.Models is { } models ? models.Match(value, named) : Test.On(value))
            {
                case RuleAnswer.Applies:
                    return new(RuleAnswer.Applies, [], [new(this, value, RuleAnswer.Applies)]);
                case RuleAnswer.CannotTell:
                    doubt ??= value;
                    break;
            }
        if (doubt is not null)
            return new(RuleAnswer.CannotTell, [Fact], [new(this, doubt, RuleAnswer.CannotTell)]);
        return fact.Whole
            ? new(RuleAnswer.DoesNotApply, [],
                [new(this, fact.Values.Count == 1 ? fact.Values[0] : string.Join(", ", fact.Values), RuleAnswer.DoesNotApply)])
            : new(RuleAnswer.CannotTell, [Fact], []);
    }
}

internal static class Rules
{
    // One part that decides is enough; else one that can't be told leaves it open; else all agree the other way.
    public static Applicability Decide(IReadOnlyList<Rule> parts, IFacts facts, RuleAnswer decides)
    {
        List<Applicability> answers = [];
        foreach (var part in parts)
        {
            var answer = part.Of(facts);
            if (answer.Answer == decides)
                return answer;
            answers.Add(answer);
        }
        var open = answers.Where(answer => answer.Answer == RuleAnswer.CannotTell).ToList();
        if (open.Count > 0)
            return new(RuleAnswer.CannotTell, [.. open.SelectMany(answer => answer.Missing).Distinct()],
                [.. answers.SelectMany(answer => answer.Reasons)]);
        return new(decides == RuleAnswer.Applies
            ? RuleAnswer.DoesNotApply
            : RuleAnswer.Applies, [], [.. answers.SelectMany(answer => answer.Reasons)]);
    }
}
