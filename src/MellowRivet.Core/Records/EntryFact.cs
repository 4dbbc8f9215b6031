using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Records;

/// <summary>The kinds of facts that an entry can tell.</summary>
public enum FactKind
{
    Extent = 1, Compressions, Plugs, MagnetoBench, Timing, OilFill, OilAdded, Filter, Carburettor, Exhaust, Borescope, Run, Measured,
    Done, Part,
    Correction, Bulletin, SecondPerson, Deferred, SetAside, Lowered, NotPart, DueDone, Added, DueNext,
}

/// <summary>What a kind of fact brings with it.</summary>
/// <param name="Places">The places that its sentence can fill.</param>
/// <param name="Wanted">The rule that wants it in the entry, so that nobody leaves it out; null for none.</param>
public sealed record FactRule(IReadOnlyList<string> Places, RuleSource? Wanted = null);

/// <summary>The kinds of facts, with the places of their sentences and the rules that want them.</summary>
public static class Facts
{
    private static readonly RuleSource
        Maintenance = new(Standing.Law, "14 CFR 43.9(a), from memory"),
        Type = new(Standing.Law, "14 CFR 43.11(a)(1), from memory"),
        Status = new(Standing.Law, "14 CFR 91.417(a)(2)(v), from memory"),
        Inoperative = new(Standing.Law, "14 CFR 43.11(b) and 91.213(d), from memory"),
        Answered = new(Standing.Practice, "what was judged bad and may stand, or was set lower or left out, is carried by the entry");

    public static IReadOnlyDictionary<FactKind, FactRule> All { get; } = new Dictionary<FactKind, FactRule>
    {
        [FactKind.Extent] = new(["kind", "title", "subject", "scope", "worksheets", "workOrder"], Type),
        [FactKind.Compressions] = new(["state", "supply", "orifice", "readings", "limit"]),
        [FactKind.Plugs] = new(["count", "done", "gap", "ohms", "ohmsLimit", "gaskets", "torque", "wrench", "rotated"]),
        [FactKind.MagnetoBench] = new(["part", "hours", "values", "looks"]),
        [FactKind.Timing] = new(["part", "value", "limit"]),
        [FactKind.OilFill] = new(["amount", "oil", "filter", "hours", "by"]),
        [FactKind.OilAdded] = new(["amount"]),
        [FactKind.Filter] = new(["place", "held", "words"]),
        [FactKind.Carburettor] = new(["part", "values", "looks"]),
        [FactKind.Exhaust] = new(["pressure", "looks"]),
        [FactKind.Borescope] = new(["part", "found"]),
        [FactKind.Run] = new(["when", .. RunValues.All.Select(value => value.Kind)]),
        [FactKind.Measured] = new(["zone", "values"]),
        [FactKind.Done] = new(["zone", "kind", "tasks", "by"], Maintenance),
        [FactKind.Part] = new(["part", "off", "on", "why", "by"], Maintenance),
        [FactKind.Correction] = new(["number", "zone", "where", "what", "action", "reference", "parts", "torque", "by", "on", "inspector",
            "inspectedOn"], Maintenance),
        [FactKind.Bulletin] = new(["title", "part", "words", "method", "on", "hours", "next", "terminating", "finding", "by"], Status),
        [FactKind.SecondPerson] = new(["tasks", "by"]),
        [FactKind.Deferred] = new(["number", "zone", "where", "what", "action", "reference", "by", "on", "inspector"], Inoperative),
        [FactKind.SetAside] = new(["words"], Answered),
        [FactKind.Lowered] = new(["words"], Answered),
        [FactKind.NotPart] = new(["words"], Answered),
        [FactKind.DueDone] = new(["items"]),
        [FactKind.Added] = new(["words"]),
        [FactKind.DueNext] = new(["items"]),
    };
}

/// <summary>What a sentence of an entry rests on.</summary>
public enum RestsOnKind { Walk = 1, Task, FixList, Compressions, Plugs, Sheet, Bulletins, Parts, Due, Close }

/// <summary>Where in the product one reads what a sentence rests on.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Id">The task, the engine, or the part whose sheet it is.</param>
/// <param name="Key">The sheet, the number on the fix list, or the place on the page.</param>
public sealed record RestsOn(RestsOnKind Kind, Guid? Id = null, string Key = "");

/// <summary>Something that was done, found or read, as an entry can tell it.</summary>
/// <param name="Kind">Its kind.</param>
/// <param name="Key">Its name within the inspection: told anew, it has the same.</param>
/// <param name="Place">Whose book it is entered in.</param>
/// <param name="Values">What fills the places of its sentence; a place without a value is absent.</param>
/// <param name="On">What it rests on.</param>
public sealed record EntryFact(FactKind Kind, string Key, EnteredIn Place, IReadOnlyDictionary<string, string> Values, RestsOn On)
{
    /// <summary>Values as they are put into an entry: on one line, and none where there is nothing to say.</summary>
    public static IReadOnlyDictionary<string, string> Said(params IEnumerable<(string Place, string? Value)> values) => values
        .Select(one => (one.Place, Value: string.Join(' ', (one.Value ?? "").Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries))))
        .Where(one => one.Value.Length > 0).ToDictionary(one => one.Place, one => one.Value);
}
