using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Discrepancies;

/// <summary>What a discrepancy means for the aircraft, worst first.</summary>
public enum DiscrepancyClass { Airworthiness = 1, Deferrable, Recommended, Watch, KnownMark }

/// <summary>How it was found.</summary>
public enum FoundHow { Visual = 1, Mirror, Borescope, DyePenetrant, EddyCurrent, MagneticParticle, Measurement, Sound, PressureTest, Run }

/// <summary>Something found during an inspection.</summary>
public sealed partial class Discrepancy : IPriced
{
    private List<Lowered> lowered = [];

    private Discrepancy() { }

    /// <param name="id">Its id.</param>
    /// <param name="number">Its number on the fix list.</param>
    /// <param name="what">What was found.</param>
    /// <param name="place">Where.</param>
    /// <param name="class">What it means for the aircraft.</param>
    /// <param name="grounded">Safety of flight now.</param>
    /// <param name="taskId">The task it was found at; null in passing.</param>
    /// <param name="foundBy">Who found it.</param>
    /// <param name="foundAt">When.</param>
    /// <param name="origin">The judgement it was born from; null for none.</param>
    public Discrepancy(Guid id, int number, string what, Place place, DiscrepancyClass @class, bool grounded, Guid? taskId, Guid foundBy,
        DateTimeOffset foundAt, Origin? origin = null)
    {
        Origin = origin;
        Id = id;
        Number = number;
        What = what.Trim();
        Lies(place);
        Class = @class;
        Grounded = grounded && @class == DiscrepancyClass.Airworthiness;
        TaskId = taskId;
        TaskKey = place.TaskKey;
        FoundBy = foundBy;
        FoundAt = foundAt;
    }

    /// <summary>Longest text taken for what was found or done, in characters.</summary>
    public const int LongestWords = 2_000;

    /// <summary>Longest text taken for where, in characters.</summary>
    public const int LongestWhere = 200;

    /// <summary>Longest text taken for a measured value with its limit, in characters.</summary>
    public const int LongestMeasured = 120;

    public Guid Id { get; private set; }
    public Guid InspectionId { get; private set; }

    /// <summary>Its number on this inspection's fix list, from 1.</summary>
    public int Number { get; private set; }
    public string What { get; private set; } = "";

    /// <summary>What it is in an owner's words; null where the shop's words do.</summary>
    public string? PlainWords { get; private set; }
    public string ZoneKey { get; private set; } = "";

    /// <summary>Where in the zone, in free words; may be empty.</summary>
    public string Where { get; private set; } = "";

    /// <summary>Its pin on the drawing; null where nobody set one.</summary>
    public Pin? Pin { get; private set; }

    /// <summary>The part it is on; null for none that the file follows.</summary>
    public Guid? ComponentId { get; private set; }
    public FoundHow How { get; private set; } = FoundHow.Visual;

    /// <summary>The value that was measured and its limit, in words; null where nothing was measured.</summary>
    public string? MeasuredWords { get; private set; }
    public DiscrepancyClass Class { get; private set; }

    /// <summary>
    /// The judgement it was born from, which gives its class a floor; null for one that was found by eye and put in words.
    /// </summary>
    public Origin? Origin { get; private set; }

    /// <summary>Each time somebody set its class below what the judgement or the words say, earliest first.</summary>
    public IReadOnlyList<Lowered> Lowered => lowered;

    /// <summary>
    /// What its class rests on, in words: the judgement it was born from, and each time somebody set it lower; empty for neither.
    /// </summary>
    public string RestsOn =>
        string.Join(" ", new[] { Origin is { } born ? $"From a judgement: {born.InWords} ({born.Source.AsItStands})." : "" }
        .Concat(lowered.Select(less => $"{char.ToUpperInvariant(less.InWords[0])}{less.InWords[1..]}.")).Where(words => words.Length > 0));

    /// <summary>Safety of flight now: the aircraft is grounded and the owner told today. Only on an airworthiness item.</summary>
    public bool Grounded { get; private set; }

    /// <summary>The task it was found at; null where it was found in passing.</summary>
    public Guid? TaskId { get; private set; }

    /// <summary>That task as other inspections know it, "worksheet/task".</summary>
    public string? TaskKey { get; private set; }
    public Guid FoundBy { get; private set; }
    public DateTimeOffset FoundAt { get; private set; }

    /// <summary>
    /// The same thing at an earlier inspection, as a person said; null where nobody did, empty where somebody
    /// said that it is none of those.
    /// </summary>
    public Guid? SameAs { get; private set; }

    /// <summary>
    /// The one of this fix list that says the same, found by somebody else; null where nobody has said, empty where somebody said that
    /// they are two.
    /// </summary>
    public Guid? Twin { get; private set; }

    /// <summary>Counts changes, so that two people's edits can't overwrite each other unseen.</summary>
    public int Changes { get; private set; }

    /// <summary>The aircraft's open item that it was carried in from; null for one found at this inspection.</summary>
    public Guid? CarriedFrom { get; private set; }

    /// <summary>Where it was carried in from: its number there.</summary>
    public string? CarriedNumber { get; private set; }

    /// <summary>Who looked at it again at this inspection; null while nobody has.</summary>
    public Stamp? LookedAgain { get; private set; }

    /// <summary>It was left open before, and nobody has looked at it at this inspection.</summary>
    public bool WaitsForALook => CarriedFrom is not null && LookedAgain is null && IsOpen;

    public Place Place => new(ZoneKey, Where, TaskKey, ComponentId, Pin);

    /// <summary>The owner asked something last, and nobody has answered.</summary>
    public bool OwnerWaits => notes.Count > 0 && notes[^1].By is null && !Disposition.IsSettled();

    /// <summary>What is wrong with words and place as typed; empty where they can be recorded.</summary>
    public static IEnumerable<Refusal> Check(string? what, string? where)
    {
        if (string.IsNullOrWhiteSpace(what))
            yield return new("what", "Say what you found, in a few words.");
        else if (what.Trim().Length > LongestWords)
            yield return new("what", $"{what.Trim().Length} characters; {LongestWords} is the most. Put the rest in a second discrepancy.");
        if (where?.Trim().Length > LongestWhere)
            yield return new("where", $"{where.Trim().Length} characters; {LongestWhere} is the most.");
    }

    /// <summary>
    /// Sets what it means for the aircraft, while it is open. Below what the judgement or the words say, it is kept with who and why.
    /// </summary>
    /// <param name="to">The class, and by what right.</param>
    /// <param name="rules">What a class may be set to.</param>
    /// <param name="task">The task it was found at; null in passing.</param>
    public Refusal? Classify(Classing to, ClassRules rules, InspectionTask? task)
    {
        if (!IsOpen)
            return new("class", $"It is {Disposition.InWords()}: its class stays. Open it again first.");
        var (less, refusal) = rules.Decide(What, task, Origin, Class, to);
        if (refusal is not null)
            return refusal;
        Keep(less);
        Class = to.Class;
        Grounded = to.Grounded && to.Class == DiscrepancyClass.Airworthiness;
        Changes++;
        return null;
    }

    internal void Keep(Lowered? less) => lowered = less is null ? lowered : [.. lowered, less];

    /// <summary>Puts words, place and how it was found right. Other words leave the old ones behind as a note.</summary>
    public Refusal? Describe(string? what, string? plainWords, Place place, FoundHow how, string? measured, Guid by, DateTimeOffset at,
        ClassRules? rules = null)
    {
        if (IsUnworded && string.IsNullOrWhiteSpace(what))
            what = Unworded;
        if (Check(what, place.Where).FirstOrDefault() is { } wrong)
            return wrong;
        if (plainWords?.Trim().Length > LongestWords)
            return new("plain", $"The owner's words in up to {LongestWords} characters.");
        if (measured?.Trim().Length > LongestMeasured)
            return new("measured", $"What was measured, with its limit, in up to {LongestMeasured} characters.");
        if (!Enum.IsDefined(how))
            return new("how", "Choose how it was found.");
        if (what!.Trim() != What)
        {
            // Other words may speak of something worse than the class that was set for the first ones.
            if (Origin is null
                && rules?.Decide(what, null, null, null, new(Class, Grounded, by, at, lowered.LastOrDefault()?.Reason)).Refusal
                is { } worse)
                return new("what", $"{worse.Message} Set its class first, or take other words.");
            if (!IsUnworded && Add(Guid.CreateVersion7(),
                $"The words were: {(What.Length > LongestWords - 20 ? What[..(LongestWords - 20)] : What)}", by, at) is { } full)
                return full;
            What = what.Trim();
        }
        PlainWords = string.IsNullOrWhiteSpace(plainWords) ? null : plainWords.Trim();
        MeasuredWords = string.IsNullOrWhiteSpace(measured) ? null : measured.Trim();
        How = how;
        Lies(place);
        Changes++;
        return null;
    }

    /// <summary>Says which of an earlier inspection's it is again; empty for none of them, null to let the product compare.</summary>
    public void IsAgain(Guid? earlier)
    {
        SameAs = earlier;
        Changes++;
    }

    /// <summary>Says that it is one of its own, and no other's again.</summary>
    public void IsItsOwn()
    {
        Twin = Guid.Empty;
        Changes++;
    }

    /// <summary>Ties it to another one that says the same: what it tells goes there, and it is withdrawn with that reason.</summary>
    /// <param name="kept">The other one.</param>
    /// <param name="keptNumber">That one's number.</param>
    /// <param name="terms">The terms of the inspection.</param>
    /// <param name="by">Who says so.</param>
    /// <param name="at">When.</param>
    internal Refusal? TieTo(Discrepancy kept, string keptNumber, Terms terms, Guid by, DateTimeOffset at)
    {
        var words = $"{What}{(Where.Length > 0 ? $", {Where}" : "")}";
        if (kept.TakeFrom(this, words.Length > LongestWords ? words[..LongestWords] : words) is { } full)
            return full;
        var what = $"The same as {keptNumber}: {kept.What}";
        if (Move(Disposition.Withdrawn, what.Length > LongestWhere ? what[..LongestWhere] : what, terms, by, at) is { } refusal)
            return refusal;
        Twin = kept.Id;
        return null;
    }

    // Its pictures, sounds, videos and notes, its words as a note of whoever found it, and what it means where that is worse.
    private Refusal? TakeFrom(Discrepancy other, string words)
    {
        var refusal = other.photos.Select(Add).Concat(other.sounds.Select(Add)).Concat(other.videos.Select(Add))
            .Append(Add(Guid.CreateVersion7(), words, other.FoundBy, other.FoundAt)).FirstOrDefault(wrong => wrong is not null);
        if (refusal is not null)
            return refusal;
        foreach (var note in other.notes)
            if (Add(note.Id, note.Words, note.By, note.At) is { } full)
                return full;
        (Class, Grounded) = ((DiscrepancyClass)Math.Min((int)Class, (int)other.Class), Grounded || other.Grounded);
        MeasuredWords ??= other.MeasuredWords;
        Changes++;
        return null;
    }

    private void Lies(Place place) =>
        (ZoneKey, Where, ComponentId, Pin) = (place.ZoneKey, place.Where.Trim(), place.ComponentId, place.Pin);
}
