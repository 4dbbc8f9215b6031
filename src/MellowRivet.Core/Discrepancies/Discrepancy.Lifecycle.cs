using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;

namespace MellowRivet.Core.Discrepancies;

// From found to put right: who took which step, and when.
public sealed partial class Discrepancy
{
    private List<Step> steps = [];
    private List<DeferralAnswer> deferral = [];

    public Disposition Disposition { get; private set; } = Disposition.Open;

    /// <summary>Every step since it was found, earliest first.</summary>
    public IReadOnlyList<Step> Steps => steps;

    /// <summary>What was done about it; null until it is done.</summary>
    public Correction? Correction { get; private set; }
    public Guid? CorrectedBy { get; private set; }
    public DateTimeOffset? CorrectedAt { get; private set; }

    /// <summary>Who inspected the corrective action, as a second person.</summary>
    public Guid? InspectedBy { get; private set; }
    public DateTimeOffset? InspectedAt { get; private set; }

    /// <summary>The test that found a known mark to be benign; null for anything else, and until somebody says so.</summary>
    public Examination? Examination { get; private set; }

    /// <summary>The questions of the deferral test that were answered.</summary>
    public DeferralWalk Deferral => new(deferral);

    public bool IsOpen => !Disposition.IsSettled();

    /// <summary>Stands between the aircraft and the airworthy statement.</summary>
    public bool IsOpenAirworthiness => IsOpen && Class == DiscrepancyClass.Airworthiness;

    /// <summary>
    /// Takes it a step on: asked, approved or declined on the owner's word, parts ordered, work begun, withdrawn, opened again.
    /// </summary>
    /// <param name="to">Where it goes. Done and inspected have their own ways: <see cref="Correct"/> and <see cref="Inspect"/>.</param>
    /// <param name="words">Why; needed to withdraw it and to open it again, kept with any other step.</param>
    /// <param name="terms">On what terms work begins: whether the owner is asked first.</param>
    /// <param name="by">Who; null for the owner.</param>
    /// <param name="at">When.</param>
    public Refusal? Move(Disposition to, string? words, Terms terms, Guid? by, DateTimeOffset at)
    {
        if (to is Disposition.Done or Disposition.Inspected)
            return new("state", to == Disposition.Done
                ? "Say what was done: that makes it done."
                : "A second person inspects it by their own name.");
        if (Forbidden(to, terms) is { } refusal)
            return refusal;
        if (IsUnworded && to == Disposition.Asked)
            return new("state", "Put it in words first: the owner answers what they can read.");
        if (Lifecycle.WantsReason(Disposition, to) && string.IsNullOrWhiteSpace(words))
            return new("state", to == Disposition.Withdrawn
                ? "Say why it is withdrawn: it stays on file with the reason."
                : "Say why it is opened again.");
        if (words?.Trim().Length > LongestWhere)
            return new("state", $"The reason in up to {LongestWhere} characters.");
        if (to == Disposition.Open)
        {
            // What was done stays in the steps.
            words = Correction is { } undone ? $"{words!.Trim()} · Done before: {undone.InWords}" : words;
            (Correction, CorrectedBy, CorrectedAt, InspectedBy, InspectedAt, Agreed) = (null, null, null, null, null, null);
        }
        Agree(to, terms, by, at);
        Go(to, by, at, string.Join(" · ", new[] { to == Disposition.Approved ? AgreedAt(terms.House) : "", words?.Trim() ?? "" }
            .Where(said => said.Length > 0)) is { Length: > 0 } why ? why : null);
        return null;
    }

    /// <summary>Records what was done about it.</summary>
    public Refusal? Correct(Correction done, Terms terms, Guid by, DateTimeOffset at)
    {
        if (Disposition.IsSettled())
            return new("action", $"It is {Disposition.InWords()} already: what was done stands beside it.");
        if (Forbidden(Disposition.Done, terms) is { } forbidden)
            return forbidden with { Field = "action" };
        if (done.Check() is { } refusal)
            return refusal;
        if (done.Kind == CorrectionKind.Deferred
            && (Class != DiscrepancyClass.Deferrable || Deferral.Outcome != DeferralOutcome.MayBeDeferred))
            return new("action", Class != DiscrepancyClass.Deferrable
                ? "Only a deferrable item is deactivated and placarded."
                : $"It isn't deferred yet: {Deferral.InWords} Answer the deferral test first, or fix it.");
        Correction = done with { Action = done.Action.Trim() };
        (CorrectedBy, CorrectedAt) = (by, at);
        Agree(Disposition.Done, terms, by, at);
        Go(Disposition.Done, by, at, null);
        return null;
    }

    /// <summary>Puts the parts that its correction used into the places of those they replaced.</summary>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="workOrder">The work order it is corrected at.</param>
    /// <param name="on">The day.</param>
    public Refusal? ReplaceParts(Aircraft aircraft, string workOrder, DateOnly on)
    {
        foreach (var part in Correction?.Parts ?? [])
            if (part.ReplacedComponent is { } replaced && aircraft.Replace(replaced, part.Number, part.SerialIn, on,
                $"{workOrder}-{Number:00}: {Correction!.Kind.InWords()}", CorrectedBy) is { } refusal)
                return refusal;
        return null;
    }

    /// <summary>A second person has looked at what was done.</summary>
    public Refusal? Inspect(Person inspector, DateTimeOffset at)
    {
        if (Disposition != Disposition.Done)
            return new("inspect", Disposition == Disposition.Inspected ? "It was inspected already." : "Nothing was done about it yet.");
        if (SecondPerson.MayInspect(inspector, CorrectedBy) is { } refusal)
            return refusal;
        (InspectedBy, InspectedAt) = (inspector.Id, at);
        Go(Disposition.Inspected, inspector.Id, at, null);
        return null;
    }

    /// <summary>
    /// Answers a question of the deferral test. A later answer takes the place of an earlier one, and of all that follow from it.
    /// </summary>
    public Refusal? Answer(string question, DeferralSays says, string? words, ClassRules rules, Guid by, DateTimeOffset at)
    {
        if (!IsOpen || Class != DiscrepancyClass.Deferrable)
            return new("deferral", "The deferral test is for an open item of class deferrable.");
        if (rules.MayDefer(What) is { } never)
            return never with { Field = "deferral" };
        if (words?.Trim().Length > LongestWhere)
            return new("deferral", $"A remark in up to {LongestWhere} characters.");
        var (answers, refusal) = Deferral.With(new(question, says, words?.Trim() ?? "", by, at));
        if (refusal is not null)
            return refusal;
        deferral = [.. answers];
        Changes++;
        return null;
    }

    /// <summary>Deactivated and placarded: it stays with the aircraft until it is put right.</summary>
    public bool IsDeferred => Disposition is Disposition.Done or Disposition.Inspected && Correction is { Kind: CorrectionKind.Deferred };

    /// <summary>Comes over from the aircraft's open items.</summary>
    internal void Carry(OpenItem item)
    {
        (CarriedFrom, CarriedNumber, ComponentId) = (item.Id, item.FirstNumber, item.ComponentId);
        (deferral, photos) = ([.. item.Deferral], [.. item.Photos]);
        // What the owner agreed to is agreed to, whichever inspection it is done at.
        (Estimate, Agreed) = (item.Estimate, item.Agreed);
        if (Agreed is { } yes)
            Go(Disposition.Approved, yes.By, yes.At, $"carried over from {item.Number}");
    }

    /// <summary>A step was taken here; that it came over agreed is none.</summary>
    public bool HasMoved => steps.Skip(CarriedFrom is not null && steps is [{ To: Disposition.Approved } first, ..]
        && first.At == Agreed?.At
        ? 1 : 0).Any();

    /// <summary>
    /// Somebody looked at a line that was left open before: it is still as it was. What is deferred stays deferred, with its placard.
    /// </summary>
    /// <param name="placarded">How it was deactivated and placarded; empty for what isn't deferred.</param>
    /// <param name="by">Who looked.</param>
    /// <param name="at">When.</param>
    public Refusal? LookAgain(string placarded, Guid by, DateTimeOffset at)
    {
        if (!WaitsForALook)
            return new("look", CarriedFrom is null ? "It was found at this inspection." : "It was looked at again already.");
        LookedAgain = new(by, at);
        if (Class == DiscrepancyClass.Deferrable && placarded.Length > 0)
        {
            Correction = new(placarded, CorrectionKind.Deferred);
            (CorrectedBy, CorrectedAt) = (by, at);
            Go(Disposition.Done, by, at, "looked at again: still deactivated, its placard in place");
        }
        Changes++;
        return null;
    }

    /// <summary>Says how a mark was found to be benign. It is a known mark from then on.</summary>
    public Refusal? Examine(Examination examination, DateOnly today, Classing by, ClassRules rules)
    {
        if (!IsOpen)
            return new("examination", $"It is {Disposition.InWords()}.");
        if (examination.Check(today) is { } refusal)
            return refusal;
        if (Classify(by with { Class = DiscrepancyClass.KnownMark, Grounded = false, Why = examination.Words, Reference = by.Reference
            ?? examination.Method.InWords() }, rules, null) is { } refused)
            return refused with { Field = "examination" };
        Examination = examination;
        return null;
    }

    private Refusal? Forbidden(Disposition to, Terms terms)
    {
        if (terms.Surveys(to) is { } survey)
            return survey;
        if (!Lifecycle.Allows(Disposition, to))
            return new("state",
                $"It is {Disposition.InWords()}: from there it goes to "
                + $"{string.Join(", ", Lifecycle.From(Disposition).Select(way => way.InWords()))}, not to {to.InWords()}.");
        return Disposition == Disposition.Open && to.IsWork() ? terms.AsksFirst(this) : null;
    }

    private void Go(Disposition to, Guid? by, DateTimeOffset at, string? words)
    {
        Disposition = to;
        steps = [.. steps, new(to, by, at, words)];
        Changes++;
    }
}
