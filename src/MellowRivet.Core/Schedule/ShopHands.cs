using MellowRivet.Core.Estimates;
using MellowRivet.Core.People;

namespace MellowRivet.Core.Schedule;

/// <summary>Whose hands the shop has, and what they can do.</summary>
public static class ShopHands
{
    /// <summary>
    /// What a role can do in the hangar: whoever inspects can do a mechanic's hours, and whoever does those an assistant's. Who may sign
    /// is another question, and the rule pack's.
    /// </summary>
    public static IReadOnlyList<Skill> SkillsOf(IEnumerable<Role> roles) => [.. roles.SelectMany(role => role switch
    {
        Role.Inspector => new[] { Skill.Inspector, Skill.Mechanic, Skill.Assistant },
        Role.Mechanic or Role.Repairman => [Skill.Mechanic, Skill.Assistant],
        Role.Assistant => [Skill.Assistant],
        _ => [],
    }).Distinct()];

    /// <summary>Everybody who is here and works with their hands, by name.</summary>
    public static IReadOnlyList<Hand> Of(IEnumerable<Person> people) =>
    [
        .. people.Where(person => person.IsHere && SkillsOf(person.Roles).Count > 0).OrderBy(person => person.Name, StringComparer.Ordinal)
            .Select(person => new Hand(Id(person.Id), person.Name, [.. SkillsOf(person.Roles).Select(skill => skill.InWords())],
                person.Week ?? WorkWeek.Usual)),
    ];

    /// <summary>A person's name in a plan.</summary>
    public static string Id(Guid person) => person.ToString("N");
}
