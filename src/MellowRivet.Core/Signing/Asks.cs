using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Signing;

/// <summary>What an inspection can ask for at the engine station.</summary>
public enum Asked
{
    Run = 1, Compressions, Filter, Plugs, Exhaust, Magnetos, Carburettors,

    // Parts of a sheet that a task of its own asks for.
    Intake, Hoses, Mount, MagnetosInPlace, Floats, Balance,
}

/// <summary>What some kinds of inspection on some categories ask for, by the rule pack. A worksheet's task asks for its own.</summary>
/// <param name="Inspections">The kinds.</param>
/// <param name="Categories">The categories.</param>
/// <param name="Asks">What is asked for.</param>
/// <param name="Source">The rule.</param>
/// <param name="Except">Builds it isn't asked for.</param>
public sealed record AskRule(IReadOnlyList<InspectionKind> Inspections, IReadOnlyList<Category> Categories, IReadOnlyList<Asked> Asks,
    RuleSource Source, IReadOnlyList<AppliesTo>? Except = null);

/// <summary>Something that an inspection asks for.</summary>
/// <param name="Key">Its name: what, and on which part.</param>
/// <param name="What">In words: "compressions", "plugs, left engine".</param>
/// <param name="Missing">What is missing, in words; empty where nothing is.</param>
/// <param name="Source">Who asks.</param>
/// <param name="Asked">What is asked for.</param>
/// <param name="EngineId">The engine.</param>
/// <param name="Carrier">The part its sheet is about.</param>
public sealed record Ask(string Key, string What, string Missing, RuleSource Source, Asked Asked, Guid EngineId, Guid Carrier)
{
    public bool IsMet => Missing.Length == 0;
}

/// <summary>What isn't part of one inspection, with the reason, by somebody who may sign it. The entry carries it.</summary>
public sealed record NotPart(string Key, string What, string Reason, string Certificate, Guid By, DateTimeOffset At)
{
    /// <summary>The part it was asked of; null where the key doesn't say.</summary>
    public Guid? Carrier => Key.Split('/') is [_, var id, ..] && Guid.TryParseExact(id, "N", out var part) ? part : null;

    public string AsEntered => $"Not part of this inspection: {What}. {Reason}";
}

/// <summary>What an inspection asks for and what of it is missing.</summary>
public static class Asks
{
    /// <summary>Everything it asks for at the engine station, met or not, but for what was left out with reason.</summary>
    public static IReadOnlyList<Ask> Of(Inspection inspection, Aircraft aircraft, ShopRules rules) =>
        [.. All(inspection, aircraft, rules).Where(ask => inspection.NotPart.All(left => left.Key != ask.Key))];

    /// <summary>The key of what is asked for on a part.</summary>
    public static string KeyOf(Asked asked, Guid carrier) => $"{NameOf(asked)}/{carrier:N}";

    /// <summary>Something it asks for by its key, left out or not; null where there is no such thing.</summary>
    public static Ask? Find(Inspection inspection, Aircraft aircraft, ShopRules rules, string? key) =>
        All(inspection, aircraft, rules).FirstOrDefault(ask => ask.Key == key);

    private static IEnumerable<Ask> All(Inspection inspection, Aircraft aircraft, ShopRules rules)
    {
        foreach (var engine in aircraft.Engines)
            foreach (var (asked, source) in AskedOf(inspection, aircraft, engine, rules))
                foreach (var ask in Of(asked, source, inspection, aircraft, engine))
                    if (!IsExcused(ask, inspection, aircraft, rules))
                        yield return ask;
    }

    private static IEnumerable<(Asked Asked, RuleSource Source)> AskedOf(Inspection inspection, Aircraft aircraft, Installation engine,
        ShopRules rules) =>
        (rules.Pack.Asks ?? [])
            .Where(rule => rule.Inspections.Contains(inspection.Kind) && rule.Categories.Contains(aircraft.Category)
                && rule.Except?.Any(build => Worksheet.Applies(build, aircraft, engine.Component)) != true)
            .SelectMany(rule => rule.Asks.Select(asked => (asked, rule.Source)))
            .Concat(TasksOf(inspection, engine.ComponentId).Where(task => task.Asks is not null)
                .Select(task => (task.Asks!.Value,
                    new RuleSource(Standing.Practice, $"worksheet {inspection.WorksheetTitle(task.WorksheetKey)}, {task.Reference}"))))
            .GroupBy(pair => pair.Item1).Select(group => group.First()).OrderBy(pair => pair.Item1);

    private static IEnumerable<InspectionTask> TasksOf(Inspection inspection, Guid engineId) =>
        inspection.Tasks.Where(task => task.ComponentId is null || task.ComponentId == engineId);

    // A task that asks for it, answered as not on this one: that holds once somebody who may sign has said so or looked at it.
    private static bool IsExcused(Ask ask, Inspection inspection, Aircraft aircraft, ShopRules rules)
    {
        var asking = TasksOf(inspection, ask.EngineId)
            .Where(task => ask.Asked == Asked.Run
                ? ask.Key.EndsWith($"/{task.Measure?.Kind}", StringComparison.Ordinal)
                : task.Asks == ask.Asked).ToList();
        return asking.Count > 0
            && asking.All(task => task.Verdict == TaskVerdict.NotApplicable && WhoseLook.Counts(task, inspection, aircraft, rules));
    }

    private static IEnumerable<Ask> Of(Asked asked, RuleSource source, Inspection inspection, Aircraft aircraft, Installation engine)
    {
        var id = engine.ComponentId;
        var on = aircraft.Engines.Skip(1).Any() ? $", {engine.Position} engine" : "";
        return asked == Asked.Run
            ? RunValues.On(engine.Component.Layout).Where(value => value.IsLaw)
                .Select(value => new Ask($"run/{id:N}/{value.Kind}",
                    $"engine run, {char.ToLowerInvariant(value.Name[0])}{value.Name[1..]}{on}",
                inspection.Readings.Any(reading => reading.Kind == value.Kind
                    && (reading.ComponentId == id || (reading.ComponentId is null && on.Length == 0)))
                    ? ""
                    : "not read", source, asked, id, id))
            : SheetPart.Of(asked, inspection, aircraft, engine.Component, []).Select(part =>
                new Ask(KeyOf(asked, part.Carrier), $"{Called(asked)}{At(part)}{on}", part.IsComplete ? "" : part.Says, source, asked, id,
                    part.Carrier));

        string At(SheetPart part) => part.Carrier == id || aircraft.Fitting(part.Carrier)?.Position is not { Length: > 0 } position
            ? ""
            : $" {position}";
    }

    private static string NameOf(Asked asked) => asked switch
    {
        Asked.Magnetos => "magneto",
        Asked.Carburettors => "carburettor",
        _ => char.ToLowerInvariant($"{asked}"[0]) + $"{asked}"[1..],
    };

    /// <summary>What is asked for, in words.</summary>
    internal static string Called(Asked asked) => asked switch
    {
        Asked.Filter => "oil filter and screens",
        Asked.Magnetos => "magneto",
        Asked.MagnetosInPlace => "magneto in place",
        Asked.Carburettors => "carburettor",
        Asked.Floats => "floats, carburettor",
        Asked.Balance => "balance, carburettor",
        Asked.Mount => "mount and baffles",
        _ => $"{asked}".ToLowerInvariant(),
    };
}
