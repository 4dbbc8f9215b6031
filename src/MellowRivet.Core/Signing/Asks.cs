using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Signing;

/// <summary>What an inspection can ask for at the engine station.</summary>
public enum Asked { Run = 1, Compressions, Filter, Plugs, Exhaust, Magnetos, Carburettors }

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
        Ask One(string key, string what, string missing, Guid? carrier = null) =>
            new($"{key}/{carrier ?? id:N}", what + on, missing, source, asked, id, carrier ?? id);
        switch (asked)
        {
            case Asked.Run:
                return RunValues.On(engine.Component.Layout).Where(value => value.IsLaw)
                    .Select(value => new Ask($"run/{id:N}/{value.Kind}",
                        $"engine run, {char.ToLowerInvariant(value.Name[0])}{value.Name[1..]}{on}",
                    inspection.Readings.Any(reading => reading.Kind == value.Kind
                        && (reading.ComponentId == id || (reading.ComponentId is null && on.Length == 0)))
                        ? ""
                        : "not read", source, asked, id, id));
            case Asked.Compressions:
                var missing = CompressionSheet.Of(aircraft, engine.Component, inspection).Missing;
                return [One("compressions", "compressions", missing.Count == 0
                    ? ""
                    : $"no reading of cylinder {string.Join(", ", missing)}")];
            case Asked.Filter:
                return [One("filter", "oil filter and screens", inspection.FilterCuts.Any(cut => cut.EngineId == id)
                    ? ""
                    : "nobody said what the filter, screen or magnetic plug showed")];
            case Asked.Plugs:
                var places = PlugTray.Of(aircraft, engine.Component, inspection).Places;
                var open = places.Where(place => place.IsUndone).ToList();
                return [One("plugs", "plugs", open.Count == 0
                    ? ""
                    : $"{places.Count - open.Count} of {places.Count} done, next {open[0].Hole}")];
            case Asked.Exhaust:
                return [One("exhaust", "exhaust, hoses, mount",
                    Open(SheetWork.Of(ExhaustSheet.Of(aircraft, engine.Component), aircraft, inspection)))];
            case Asked.Magnetos:
                return On(ComponentKind.Magneto)
                    .Select(stay => One("magneto", $"magneto {stay.Position}".Trim(),
                        SheetWork.Of(MagnetoSheet.Of(stay.Component), aircraft, inspection) is { IsComplete: false } work
                            ? $"{work.Done} of {work.All} done"
                            : "", stay.ComponentId));
            default:
                return On(ComponentKind.Carburettor)
                    .Select(stay => One("carburettor", $"carburettor {stay.Position}".Trim(),
                        Open(SheetWork.Of(CarburettorSheet.Of(stay.Component), aircraft, inspection), "float"), stay.ComponentId));
        }

        IEnumerable<Installation> On(ComponentKind kind) => aircraft.SittingOn(id, kind);
    }

    // Looks, and values of a kind that can't be done without: one of a pair of floats says nothing.
    private static string Open(SheetWork work, string? kind = null)
    {
        var looks = work.Looks.Count(look => look.Check is null && look.IsWanted);
        var values = work.Values.Where(value => value.Of.Kind == kind && value.Of.Position != "together" && value.Reading is null)
            .Select(value => char.ToLowerInvariant(value.Of.Name[0]) + value.Of.Name[1..]).ToList();
        return string.Join("; ",
            new[] { looks == 0 ? ""
                : $"{work.Looks.Count(look => look.IsWanted) - looks} of {work.Looks.Count(look => look.IsWanted)} looked at",
                values.Count == 0 ? "" : $"not weighed: {string.Join(", ", values)}" }.Where(words => words.Length > 0));
    }
}
