namespace MellowRivet.Core.Estimates;

/// <summary>Whose hour it is: they cost differently, and wait for different hands.</summary>
public enum Skill { Mechanic = 1, Inspector, Assistant }

/// <summary>What an hour costs, by skill, in the shop's money.</summary>
public sealed record Rates(decimal Mechanic, decimal Inspector, decimal Assistant)
{
    public decimal Of(Skill skill) => skill switch
    {
        Skill.Inspector => Inspector,
        Skill.Assistant => Assistant,
        _ => Mechanic,
    };
}

public static class SkillWords
{
    public static string InWords(this Skill skill) => skill.ToString().ToLowerInvariant();
}
