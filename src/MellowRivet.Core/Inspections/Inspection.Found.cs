using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Inspections;

/// <summary>Something found, as it is sent.</summary>
/// <param name="What">What it is.</param>
/// <param name="Zone">The zone it is in.</param>
/// <param name="Where">Where in the zone.</param>
/// <param name="Class">What it means for the aircraft.</param>
/// <param name="Grounded">The aircraft must not fly with it.</param>
/// <param name="Why">Why it is less than the judgement or the words say.</param>
/// <param name="Reference">By which data.</param>
/// <param name="How">How it was found.</param>
/// <param name="Measured">What was measured, in words.</param>
/// <param name="Note">A note beside it.</param>
/// <param name="Foreign">An object that doesn't belong there: it goes into that log as well.</param>
/// <param name="TaskId">The task it was found at; null for none.</param>
/// <param name="Judged">The judgement that it is written down for; null for none.</param>
/// <param name="Squawk">The owner's complaint that it answers; null for none.</param>
/// <param name="Attached">A picture, a sound or a video came along: the words may come later.</param>
public sealed record TypedFind(string? What, string? Zone, string? Where, DiscrepancyClass Class, bool Grounded, string? Why,
    string? Reference, FoundHow How, string? Measured, string? Note, bool Foreign, Guid? TaskId, string? Judged, Guid? Squawk,
    bool Attached = false)
{
    /// <summary>What it is, or what stands for the words until somebody says them.</summary>
    public string? Words => Attached && string.IsNullOrWhiteSpace(What) ? Discrepancy.Unworded : What;
}

// What is found, with all that hangs on it.
public sealed partial class Inspection
{
    private const int LongestObject = 120;

    /// <summary>All that is wrong with something found as it is typed.</summary>
    public IEnumerable<Refusal> Check(TypedFind typed)
    {
        foreach (var wrong in Discrepancy.Check(typed.Words, typed.Where))
            yield return wrong;
        if (!Enum.IsDefined(typed.Class) || !Enum.IsDefined(typed.How))
            yield return new("class", "Choose what it means for the aircraft.");
        if (!HasZone(typed.Zone))
            yield return new("zone", "Choose the zone it is in.");
    }

    /// <summary>A judgement that still waits to be written down, or is written down; null where there is none by that key.</summary>
    public Judged? OpenJudgement(Aircraft aircraft, string? key) => key is null ? null : JudgedLines.Of(this, aircraft)
        .FirstOrDefault(line => line.Judged.Key == key && line.Judged.WantsAnswer && line.By is null or AnsweredBy.FixList)?.Judged;

    /// <summary>What is judged bad and nobody has answered, as it stands.</summary>
    public IEnumerable<Judged> Unanswered(Aircraft aircraft) => JudgedLines.Of(this, aircraft)
        .Where(line => line.IsUnanswered && line.Judged.Judgement.Verdict is Verdict.Reject or Verdict.Retest).Select(line => line.Judged);

    /// <summary>Puts it on the fix list with all that hangs on it: what was measured, pictures, the owner's complaint.</summary>
    /// <param name="id">The discrepancy's id, made by the device.</param>
    /// <param name="typed">What was found, checked.</param>
    /// <param name="aircraft">The aircraft.</param>
    /// <param name="rules">The rules and people it is weighed by.</param>
    /// <param name="attach">Adds the pictures, sounds and videos that came along.</param>
    /// <param name="picture">The first of the pictures; null without one.</param>
    /// <param name="by">Who found it.</param>
    /// <param name="at">When.</param>
    public (Discrepancy? Found, Refusal? Refusal) PutOnList(Guid id, TypedFind typed, Aircraft aircraft, ShopRules rules,
        Func<Discrepancy, Refusal?> attach, Photo? picture, Guid by, DateTimeOffset at)
    {
        var judged = OpenJudgement(aircraft, typed.Judged);
        if (typed.Judged is not null && judged is null)
            return (null, new("what", "What this was to be written down for was read again or answered meanwhile. Look at it first."));
        Classing classing = new(typed.Class, typed.Grounded, by, at, typed.Why, typed.Reference, rules.SignsBy(by, this, aircraft));
        var (found, refusal) = PutOnList(id, typed.Words!, typed.Zone!, typed.Where ?? "", classing,
            Tasks.FirstOrDefault(task => task.Id == typed.TaskId), judged, rules.Classes);
        return found is null ? (null, refusal) : (found, Complete(found, typed, attach, picture, by, at));
    }

    private Refusal? Complete(Discrepancy found, TypedFind typed, Func<Discrepancy, Refusal?> attach, Photo? picture, Guid by,
        DateTimeOffset at)
    {
        if ((typed.How != FoundHow.Visual || !string.IsNullOrWhiteSpace(typed.Measured))
            && found.Describe(found.What, null, found.Place, typed.How, typed.Measured, by, at) is { } measured)
            return measured;
        if ((attach(found) ?? found.CheckTold()) is { } full)
            return full;
        if (!string.IsNullOrWhiteSpace(typed.Note) && found.Add(Guid.CreateVersion7(), typed.Note, by, at) is { } note)
            return note;
        var words = found.What.Length > LongestObject ? found.What[..LongestObject] : found.What;
        if (typed.Foreign && FindObject(Guid.CreateVersion7(), typed.Zone, words, picture, by, at) is { } foreign)
            return foreign;
        return typed.Squawk is { } squawk ? Answer(squawk, $"On the fix list as {WorkOrder}-{found.Number:00}.", by, at) : null;
    }
}
