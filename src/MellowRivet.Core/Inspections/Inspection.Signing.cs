using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Inspections;

// What the signature is weighed by: bad judgements and their answers, what isn't part of this one, the checklist, and whose look counts.
public sealed partial class Inspection
{
    private List<Remembered> remembered = [];
    private List<SetAside> setAside = [];
    private List<NotPart> notPart = [];
    private List<SignersLook> signersLooks = [];

    /// <summary>Bad judgements as they once stood, with how each was answered: earliest first.</summary>
    public IReadOnlyList<Remembered> Remembered => remembered;

    /// <summary>Bad judgements that somebody who may sign set aside.</summary>
    public IReadOnlyList<SetAside> SetAside => setAside;

    /// <summary>What somebody who may sign said is not part of this inspection.</summary>
    public IReadOnlyList<NotPart> NotPart => notPart;

    /// <summary>Zones that somebody who may sign looked at.</summary>
    public IReadOnlyList<SignersLook> SignersLooks => signersLooks;

    /// <summary>The checklist that the signer goes by beside these worksheets, or instead of them; null where there is none.</summary>
    public Checklist? Checklist { get; private set; }

    /// <summary>
    /// Keeps every bad judgement there is now, and notes how those of before were answered: read again, or the part replaced.
    /// </summary>
    public void Remember(Aircraft aircraft)
    {
        var next = RememberedBy(InspectionJudgements.Of(this, aircraft), aircraft);
        if (!next.SequenceEqual(remembered))
            remembered = next;
    }

    /// <summary>What is remembered, as it stands beside the judgements there are now.</summary>
    /// <param name="live">Everything that is judged now.</param>
    /// <param name="aircraft">The aircraft.</param>
    public List<Remembered> RememberedBy(IReadOnlyList<Judged> live, Aircraft aircraft)
    {
        var now = live.GroupBy(judged => judged.Key)
            .ToDictionary(group => group.Key, group => group.MaxBy(judged => judged.Judgement.Verdict)!);
        List<Remembered> next = [.. remembered.Select(was => was.By is not null ? was
            : now.TryGetValue(was.Judged.Key, out var there) ? was.Against(there)
            : was.Judged.IsReplacedOn(aircraft) ? was with { By = AnsweredBy.PartReplaced } : was)];
        var open = next.Where(was => was.By is null).Select(was => was.Judged.Key).ToHashSet();
        next.AddRange(now.Values.Where(judged => judged.WantsAnswer && !open.Contains(judged.Key))
            .Select(judged => new Remembered(judged)));
        return next;
    }

    /// <summary>Sets a bad judgement aside, with reason and reference.</summary>
    /// <param name="aircraft">The aircraft.</param>
    /// <param name="key">The judgement.</param>
    /// <param name="seen">The judgement as the person saw it: another one isn't set aside unseen.</param>
    /// <param name="reason">Why it may stand.</param>
    /// <param name="reference">By which data.</param>
    /// <param name="person">Who.</param>
    /// <param name="signs">The certificate by which they may sign this inspection; null where they may not.</param>
    /// <param name="at">When.</param>
    public Refusal? SetJudgementAside(Aircraft aircraft, string? key, string? seen, string? reason, string? reference, Person person,
        Certificate? signs, DateTimeOffset at)
    {
        if (JudgedLines.Of(this, aircraft)
            .FirstOrDefault(line => line.Judged.Key == key && line.Judged.WantsAnswer && line.By is null or AnsweredBy.SetAside)
            is not { } line)
            return new("aside", "There is no such judgement to answer.");
        if (line.Judged.Seen != seen)
            return new("aside", $"It was read again meanwhile: {line.Judged.InWords}. Look at it first.");
        if (signs is null)
            return new("aside", $"Only somebody who may sign this inspection sets a judgement aside; {person.Name} may not.");
        if (string.IsNullOrWhiteSpace(reason) || reason.Trim().Length > Discrepancy.LongestWhere)
            return new("aside", $"Say why it may stand, in up to {Discrepancy.LongestWhere} characters: the entry carries it.");
        if (string.IsNullOrWhiteSpace(reference) || reference.Trim().Length > Correction.LongestReference)
            return new("aside", $"By which data: manual, chapter, revision, in up to {Correction.LongestReference} characters.");
        setAside = [.. setAside.Where(other => other.Key != key),
            new(line.Judged.Key, line.Judged.Seen, line.Judged.InWords, reason.Trim(), reference.Trim(), InWords(signs), person.Id, at)];
        return null;
    }

    /// <summary>Takes up again what was set aside.</summary>
    public void TakeUpAgain(string? key)
    {
        setAside = [.. setAside.Where(other => other.Key != key)];
    }

    /// <summary>Says that something the inspection asks for is not part of this one.</summary>
    /// <param name="ask">What.</param>
    /// <param name="reason">Why.</param>
    /// <param name="person">Who.</param>
    /// <param name="signs">The certificate by which they may sign this inspection; null where they may not.</param>
    /// <param name="at">When.</param>
    public Refusal? LeaveOut(Ask ask, string? reason, Person person, Certificate? signs, DateTimeOffset at)
    {
        if (signs is null)
            return new("not-part", $"Only somebody who may sign this inspection says what is not part of it; {person.Name} may not.");
        if (string.IsNullOrWhiteSpace(reason) || reason.Trim().Length > Discrepancy.LongestWhere)
            return new("not-part",
                $"Say why it is not part of this one, in up to {Discrepancy.LongestWhere} characters: the entry carries it.");
        notPart = [.. notPart.Where(other => other.Key != ask.Key), new(ask.Key, ask.What, reason.Trim(), InWords(signs), person.Id, at)];
        return null;
    }

    /// <summary>Asks for it again.</summary>
    public void AskAgain(string? key)
    {
        notPart = [.. notPart.Where(other => other.Key != key)];
    }

    /// <summary>States the checklist that the signer goes by; an empty title takes it back.</summary>
    public Refusal? GoBy(string? title, string? revision, Person person, Certificate? signs, DateTimeOffset at)
    {
        if (signs is null)
            return new("checklist", $"Only somebody who may sign this inspection states its checklist; {person.Name} may not.");
        if (string.IsNullOrWhiteSpace(title) && string.IsNullOrWhiteSpace(revision))
        {
            Checklist = null;
            return null;
        }
        if (string.IsNullOrWhiteSpace(title) || title.Trim().Length > 100 || string.IsNullOrWhiteSpace(revision)
            || revision.Trim().Length > 40)
            return new("checklist",
                "The checklist by its title, up to 100 characters, and its revision or date, up to 40: the entry names it.");
        Checklist = new(title.Trim(), revision.Trim(), person.Id, at);
        return null;
    }

    /// <summary>The person who may sign has looked at a zone, but for some tasks.</summary>
    /// <param name="zoneKey">The zone.</param>
    /// <param name="except">Tasks that this look doesn't take in.</param>
    /// <param name="person">Who looked.</param>
    /// <param name="signs">The certificate by which they may sign this inspection; null where they may not.</param>
    /// <param name="at">When.</param>
    public Refusal? LookAtZone(string? zoneKey, IReadOnlyCollection<Guid> except, Person person, Certificate? signs, DateTimeOffset at)
    {
        if (signs is null)
            return new("zone-look", $"The look that counts is that of somebody who may sign this inspection; {person.Name} may not.");
        if (Tasks.FirstOrDefault(task => task.ZoneKey == zoneKey && task.Verdict == TaskVerdict.NotYet && task.TiedTo is null
            && !except.Contains(task.Id)) is { } open)
            return new("zone-look", $"{open.Text}: not answered yet. Answer it, or leave it out of this look.");
        if (Tasks.All(task => task.ZoneKey != zoneKey))
            return new("zone-look", "There is no such zone on this walk.");
        signersLooks = [.. signersLooks.Where(look => look.ZoneKey != zoneKey),
            new(zoneKey!, person.Id, at, [.. except.Where(id => Tasks.Any(task => task.Id == id && task.ZoneKey == zoneKey))])];
        return null;
    }

    /// <summary>Takes a look at a zone back.</summary>
    public void LookAtZoneAgain(string? zoneKey)
    {
        signersLooks = [.. signersLooks.Where(look => look.ZoneKey != zoneKey)];
    }

    /// <summary>The zone that an engine's own pages belong to.</summary>
    public string EngineZone(Installation engine)
    {
        var zones = Tasks.Where(task => task.IsOfEngine).OrderBy(task => task.Book == Book.Engine ? 0 : 1)
            .ThenBy(task => task.ZoneKey.StartsWith("engine", StringComparison.Ordinal) ? 0 : 1).ThenBy(task => task.Order).ToList();
        return (zones.FirstOrDefault(task => task.ComponentId == engine.ComponentId)
            ?? zones.FirstOrDefault(task => task.ComponentId is null) ?? zones.FirstOrDefault()
            ?? Tasks.OrderBy(task => task.Order).FirstOrDefault())?.ZoneKey ?? "engine";
    }

    private static string InWords(Certificate signs) => $"{signs.Kind.InWords()}, {signs.Number}";
}
