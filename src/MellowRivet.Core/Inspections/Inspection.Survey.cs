using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Surveys;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Inspections;

// A pre-purchase survey: a walk that samples, and is never signed.
public sealed partial class Inspection
{
    /// <summary>Begins a survey: a walk of its own kind, dear things first.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="workOrder">Its work order.</param>
    /// <param name="worksheets">Lists of a survey.</param>
    /// <param name="survey">What it is agreed on.</param>
    /// <param name="openedOn">The day.</param>
    /// <param name="house">How the shop works.</param>
    /// <param name="openItems">What earlier inspections left open.</param>
    public Inspection(Guid id, Aircraft aircraft, string workOrder, IReadOnlyList<Worksheet> worksheets, Survey survey,
        DateOnly openedOn, HouseRules house, IEnumerable<OpenItem>? openItems = null)
        : this(id, aircraft, InspectionKind.Survey, workOrder, worksheets, openedOn, null, house, null, openItems) => Survey = survey;

    /// <summary>The survey that this is; null for an inspection, a service or a job.</summary>
    public Survey? Survey { get; private set; }

    /// <summary>Whether it is a survey: nothing of it is signed, and nothing is put right at it.</summary>
    public bool IsSurvey => Kind == InspectionKind.Survey;

    /// <summary>The tasks that nobody has answered, in walking order.</summary>
    public IEnumerable<InspectionTask> NotLookedAt => Walk.Where(task => task.Verdict == TaskVerdict.NotYet);

    /// <summary>Puts its terms right.</summary>
    public void Agree(SurveyTerms terms) => Survey = Survey! with { Terms = terms };

    /// <summary>Says who pays something found, whether it was hidden, and whether it ends the deal.</summary>
    public Refusal? Mark(SurveyMark mark)
    {
        if (Discrepancies.FirstOrDefault(found => found.Number == mark.Number) is not { IsOpen: true })
            return new("mark", "It is no open line of this list.");
        if (mark is { Stops: true, SellerPays: true })
            return new("mark", "What the seller puts right doesn’t end the deal: one of the two.");
        Survey = Survey! with { Marks = [.. Survey.Marks.Where(other => other.Number != mark.Number), mark] };
        return null;
    }

    /// <summary>Says of something that was just found what it costs, and who pays it.</summary>
    /// <param name="found">What was found.</param>
    /// <param name="cost">What putting it right costs; null where nobody knows yet.</param>
    /// <param name="mark">Who pays, whether it was hidden, and whether it ends the deal.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    public Refusal? Weigh(Discrepancy found, Spread? cost, SurveyMark mark, Guid by, DateTimeOffset at) =>
        (cost is { } sum ? found.Expect(new([], [new(Estimate.PartsAtOnce, "", 1, "", sum, null, false)]), Terms, by, at) : null)
            ?? (mark is { SellerPays: false, Hidden: false, Stops: false } ? null : Mark(mark));

    /// <summary>Says what an engine's or a propeller's money rests on.</summary>
    public void Say(PowerSaid said) =>
        Survey = Survey! with { Power = [.. Survey.Power.Where(other => other.ComponentId != said.ComponentId), said] };

    /// <summary>Says what a due item costs; null for what nobody knows.</summary>
    public void Say(Guid dueItem, Spread? cost) => Survey = Survey! with
    {
        Due = [.. Survey.Due.Where(other => other.Item != dueItem), .. cost is { } sum ? new[] { new PricedDue(dueItem, sum) } : []],
    };

    /// <summary>Holds a sum in reserve: for a task that isn't looked at, or for something of its own; null takes it back.</summary>
    /// <param name="key">The task's key, or the line's.</param>
    /// <param name="what">What it is, for a line of its own.</param>
    /// <param name="sum">The sum; null to take it back.</param>
    public Refusal? Hold(string key, string? what, decimal? sum)
    {
        var own = Tasks.All(task => task.Id.ToString("N") != key);
        if (sum is not null && own && (string.IsNullOrWhiteSpace(what) || what.Trim().Length > TypedTerms.LongestWords))
            return new("reserve", $"What the reserve is for, in up to {TypedTerms.LongestWords} characters.");
        if (sum is < 0 or >= SurveyQuestion.MostMoney)
            return new("reserve", "A reserve from 0 up.");
        Survey = Survey! with
        {
            Reserves =
            [
                .. Survey.Reserves.Where(other => other.Key != key),
                .. sum is { } held ? new[] { new ReserveSaid(key, own ? what!.Trim() : "", held) } : [],
            ],
        };
        return null;
    }

    /// <summary>Says whether damage or a repair that a book tells of is to be seen.</summary>
    public Refusal? LookFor(DamageLooked looked)
    {
        if (!Enum.IsDefined(looked.Says))
            return new("damage", "Choose what was seen.");
        Survey = Survey! with { Damage = [.. Survey.Damage.Where(other => other.Key != looked.Key), looked] };
        return null;
    }

    /// <summary>The buyer was told to stop, and wants it looked at further.</summary>
    public void GoOn(SurveyStop stop, Guid by, DateTimeOffset at) =>
        Survey = Survey! with { WentOn = new(stop.Numbers, stop.Work, by, at) };

    /// <summary>
    /// Ends the looking. What wasn't looked at stays so, and the report names it; what was read and judged bad doesn't: it is on the list
    /// first.
    /// </summary>
    public Refusal? EndSurvey(Aircraft aircraft, string? why, Guid by, DateTimeOffset at)
    {
        if (Unanswered(aircraft).FirstOrDefault() is { } bad)
            return new("end", $"{bad.What}: {bad.Saw}, judged bad and not on the list. Put it there, or read it again: the report would "
                + "leave it out.");
        var open = NotLookedAt.Count();
        if (open > 0 && (string.IsNullOrWhiteSpace(why) || why.Trim().Length > TypedTerms.LongestWords))
            return new("end", $"{open} {(open == 1 ? "thing" : "things")} not looked at yet. Say why it ends here, in up to "
                + $"{TypedTerms.LongestWords} characters: the report names them.");
        if (ToolsOut.FirstOrDefault(tool => tool.In is null) is { } left)
            return new("end", $"{left.Title} is still out: find it before the aircraft goes.");
        if (Tags.FirstOrDefault(tag => tag.Closed is null) is { } tag)
            return new("end", $"Tag {tag.Number}, {tag.What}, is still open: close what was opened.");
        Survey = Survey! with { End = new(open > 0, open > 0 ? why!.Trim() : "", by, at) };
        State = InspectionState.Surveyed;
        return null;
    }

    /// <summary>Takes an ended survey up again, as long as nobody said what came of it.</summary>
    public Refusal? TakeUpSurvey()
    {
        if (State != InspectionState.Surveyed || Survey!.Outcome is not null)
            return new("end", Survey?.Outcome is null ? "It is under way." : "What came of it is said: begin a survey of its own.");
        Survey = Survey with { End = null };
        State = InspectionState.InWork;
        return null;
    }

    /// <summary>Says what came of it, once the looking has ended.</summary>
    public Refusal? Came(SurveyOutcome outcome)
    {
        if (State != InspectionState.Surveyed)
            return new("outcome", "End the looking first: the report says what wasn’t looked at.");
        if (Survey!.Outcome is not null)
            return new("outcome", "It is said already.");
        Survey = Survey with { Outcome = outcome };
        return null;
    }
}
