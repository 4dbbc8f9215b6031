using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Tools;

namespace MellowRivet.Core.Inspections;

// Looks and witness marks, panels and bags, tools and foreign objects.
public sealed partial class Inspection
{
    private const int LongestTag = 120;
    private List<ZoneLook> looks = [];
    private List<WitnessMark> witnessMarks = [];
    private List<Tag> tags = [];
    private List<ToolOut> toolsOut = [];
    private List<ForeignObject> foreignObjects = [];

    /// <summary>The zones that are looked at, in walking order.</summary>
    public IReadOnlyList<ZoneLook> Looks => looks;
    public IReadOnlyList<WitnessMark> WitnessMarks => witnessMarks;
    public IReadOnlyList<Tag> Tags => tags;
    public IReadOnlyList<ToolOut> ToolsOut => toolsOut;
    public IReadOnlyList<ForeignObject> ForeignObjects => foreignObjects;

    /// <summary>Records that the next look of a zone is done.</summary>
    public Refusal? Looked(string? zoneKey, LookStep look, Guid by, DateTimeOffset at)
    {
        if (looks.FirstOrDefault(other => other.ZoneKey == zoneKey) is not { } zone)
            return new("look", "There is no such zone to look at.");
        if (zone.Next(House) is not { } next)
            return new("look", $"{zone.Title}: all looks are done.");
        if (next != look)
            return new("look", next == LookStep.First
                ? $"{zone.Title}: the first look comes before cleaning, for cleaning wipes the marks away. If it was "
                + $"cleaned already, say so instead."
                : $"{zone.Title}: {next.InWords()} comes first.");
        var stamp = new Stamp(by, at);
        Change(look switch { LookStep.First => zone with { First = stamp }, LookStep.Cleaned => zone with { Cleaned = stamp }, _ =>
            zone with { Second = stamp } });
        return null;
    }

    /// <summary>The zones that wait to be cleaned: looked at dirty, or without a first look.</summary>
    public IReadOnlyList<ZoneLook> ToClean() => [.. looks.Where(zone => zone.Next(House) == LookStep.Cleaned)];

    /// <summary>Every zone that waits for it was cleaned in one go.</summary>
    public Refusal? CleanedAll(Guid by, DateTimeOffset at) => ToClean() is { Count: > 0 } zones
        ? zones.Select(zone => Looked(zone.ZoneKey, LookStep.Cleaned, by, at)).FirstOrDefault(refusal => refusal is not null)
        : new("look", "No zone waits to be cleaned.");

    /// <summary>
    /// The next zone in walking order that waits for the same look: all are looked at dirty before the first is cleaned. Null for none.
    /// </summary>
    public ZoneLook? NextFor(LookStep look, string? zoneKey) => looks.SkipWhile(zone => zone.ZoneKey != zoneKey).Skip(1)
        .Concat(looks.TakeWhile(zone => zone.ZoneKey != zoneKey)).FirstOrDefault(zone => zone.Next(House) == look);

    /// <summary>Takes the last look of a zone back.</summary>
    public void LookAgain(string? zoneKey)
    {
        if (looks.FirstOrDefault(other => other.ZoneKey == zoneKey) is { } zone)
            Change(zone.Second is not null ? zone with { Second = null } : zone.Cleaned is not null
                ? zone with { Cleaned = null }
                : zone with { First = null, FirstMissed = null });
    }

    /// <summary>The zone was cleaned before anybody looked: says why, and goes on.</summary>
    public Refusal? MissFirstLook(string? zoneKey, string? why)
    {
        if (looks.FirstOrDefault(other => other.ZoneKey == zoneKey) is not { } zone || zone.Next(House) != LookStep.First)
            return new("why", "The first look of this zone isn't waiting.");
        if (string.IsNullOrWhiteSpace(why) || why.Trim().Length > LongestTag)
            return new("why", $"Say why there was no first look, in up to {LongestTag} characters.");
        Change(zone with { FirstMissed = why.Trim() });
        return null;
    }

    /// <summary>Somebody takes a zone on, or gives it back.</summary>
    public void TakeZone(string? zoneKey, Guid? by)
    {
        if (looks.FirstOrDefault(other => other.ZoneKey == zoneKey) is { } zone)
            Change(zone with { TakenBy = by });
    }

    /// <summary>Records a witness mark. It has to be seen before the zone is cleaned.</summary>
    public Refusal? See(Guid id, string? zoneKey, WitnessOf? of, WitnessAmount? amount, string? where, WitnessThen? then, WitnessMark? last,
        Photo? photo, Guid by, DateTimeOffset at)
    {
        if (looks.FirstOrDefault(other => other.ZoneKey == zoneKey) is not { } zone)
            return new("mark", "Choose the zone the mark is in.");
        if (of is not { } what || !Enum.IsDefined(what) || amount is not { } much || !Enum.IsDefined(much))
            return new("mark", "Say what it is and how much.");
        if (zone.Cleaned is not null)
            return new("mark", $"{zone.Title} is cleaned: what is there now is new. Put it on the fix list.");
        if (where?.Trim().Length > LongestTag)
            return new("mark", $"Where it is, in up to {LongestTag} characters.");
        witnessMarks = [.. witnessMarks,
            new(id, zone.ZoneKey, what, much, where?.Trim() ?? "", last is null
                ? WitnessThen.New
                : then ?? WitnessMark.Compare(much, last), photo, new(by, at))];
        return null;
    }

    /// <summary>Opens a panel or takes a part off, under the next number.</summary>
    public (Tag? Tag, Refusal? Refusal) Open(string? zoneKey, TagKind kind, string? what, string? hardware, Guid by, DateTimeOffset at)
    {
        if (string.IsNullOrWhiteSpace(what) || what.Trim().Length > LongestTag || hardware?.Trim().Length > LongestTag)
            return (null, new("tag", $"Say what it is, and what is in its bag, each in up to {LongestTag} characters."));
        if (Tasks.All(task => task.ZoneKey != zoneKey))
            return (null, new("tag", "Choose the zone it is in."));
        var tag = new Tag(tags.Select(other => other.Number).DefaultIfEmpty().Max() + 1, zoneKey!, Enum.IsDefined(kind)
            ? kind
            : TagKind.Panel, what.Trim(), hardware?.Trim() ?? "", new(by, at));
        tags = [.. tags, tag];
        return (tag, null);
    }

    /// <summary>
    /// The number of what is open in a zone under a name, the latest where several are; null where nothing is. For a device that opened
    /// it and hasn't heard its number.
    /// </summary>
    public int? OpenUnder(string? zoneKey, string? what) =>
        tags.LastOrDefault(tag => tag.Closed is null && tag.ZoneKey == zoneKey && tag.What == what?.Trim())?.Number;

    /// <summary>Closes a panel or puts a part back, after a last look inside.</summary>
    /// <param name="number">The tag.</param>
    /// <param name="lookedInside">The person says that no tool and no foreign object is left inside.</param>
    /// <param name="by">Who closes it.</param>
    /// <param name="at">When.</param>
    public Refusal? Close(int number, bool lookedInside, Guid by, DateTimeOffset at)
    {
        if (tags.FirstOrDefault(other => other.Number == number) is not { Closed: null } tag)
            return new("close", $"Tag {number} isn't open.");
        if (!lookedInside)
            return new("close", "Look inside once more: no tool, no rag, no foreign object. Then say so.");
        tags = [.. tags.Select(other => other == tag ? tag with { Closed = new(by, at) } : other)];
        return null;
    }

    /// <summary>Opens a closed one again.</summary>
    public Refusal? Reopen(int number, Guid by, DateTimeOffset at)
    {
        if (tags.FirstOrDefault(other => other.Number == number) is not { Closed: not null } tag)
            return new("close", $"Tag {number} isn't closed.");
        tags = [.. tags.Select(other => other == tag ? tag with { Closed = null, Opened = new(by, at) } : other)];
        return null;
    }

    /// <summary>Takes a tool to the aircraft; one that is there already stays.</summary>
    /// <param name="chosen">The tools that go to the aircraft.</param>
    /// <param name="elsewhere">Tools that are out at other inspections, with the work order they are out at.</param>
    /// <param name="by">Who takes them.</param>
    /// <param name="at">When.</param>
    public Refusal? TakeOut(IReadOnlyCollection<Tool> chosen, IReadOnlyDictionary<Guid, string> elsewhere, Guid by, DateTimeOffset at)
    {
        if (chosen.FirstOrDefault(tool => elsewhere.ContainsKey(tool.Id)) is { } there)
            return new("tools", $"{there.Title} is out at {elsewhere[there.Id]}: bring it in there first.");
        if (chosen.Count == 0)
            return new("tools", "Tick the tools that go to the aircraft.");
        foreach (var tool in chosen)
            TakeOut(tool, by, at);
        return null;
    }

    /// <summary>Takes a tool out; one that is out stays so.</summary>
    public void TakeOut(Tool tool, Guid by, DateTimeOffset at)
    {
        if (toolsOut.All(other => other.ToolId != tool.Id || other.In is not null))
            toolsOut = [.. toolsOut, new(tool.Id, tool.Title, new(by, at))];
    }

    /// <summary>The mark of one kind that was seen in a zone, the worst where there were several; null where there was none.</summary>
    public WitnessMark? LastWitnessMark(string? zone, WitnessOf of) =>
        WitnessMarks.Where(mark => mark.ZoneKey == zone && mark.Of == of).MaxBy(mark => mark.Amount);

    /// <summary>Brings a tool back, or accounts for one that won't come back whole.</summary>
    public Refusal? BringIn(Guid toolId, string? account, Guid by, DateTimeOffset at)
    {
        if (toolsOut.FirstOrDefault(other => other.ToolId == toolId && other.In is null) is not { } there)
            return new("tool", "It isn't out.");
        if (account?.Trim().Length > Discrepancy.LongestWhere)
            return new("tool", $"What became of it, in up to {Discrepancy.LongestWhere} characters.");
        toolsOut = [.. toolsOut.Select(other => other == there
            ? there with { In = new(by, at), Account = string.IsNullOrWhiteSpace(account) ? null : account.Trim() }
            : other)];
        return null;
    }

    /// <summary>Logs something found that doesn't belong in an aircraft.</summary>
    public Refusal? FindObject(Guid id, string? zoneKey, string? what, Photo? photo, Guid by, DateTimeOffset at)
    {
        if (string.IsNullOrWhiteSpace(what) || what.Trim().Length > LongestTag)
            return new("object", $"Say what was found, in up to {LongestTag} characters.");
        if (Tasks.All(task => task.ZoneKey != zoneKey))
            return new("object", "Choose the zone it was in.");
        foreignObjects = [.. foreignObjects, new(id, zoneKey!, what.Trim(), photo, new(by, at))];
        return null;
    }

    private void Change(ZoneLook zone) => looks = [.. looks.Select(other => other.ZoneKey == zone.ZoneKey ? zone : other)];
}
