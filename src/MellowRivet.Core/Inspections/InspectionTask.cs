using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Inspections;

public enum TaskVerdict { NotYet = 1, Good, Discrepancy, NotApplicable }

/// <summary>One task of an inspection, copied from the worksheet it began with, and what was said of it.</summary>
public sealed class InspectionTask
{
    private InspectionTask() { }

    public InspectionTask(Guid id, WalkLine line, Guid? tiedTo)
    {
        Id = id;
        Order = line.Order;
        WorksheetKey = line.Worksheet.Key;
        ZoneKey = line.Zone.Key;
        ZoneTitle = line.Zone.Title;
        Station = line.Zone.Station;
        Book = line.Zone.Book;
        ComponentId = line.ComponentId;
        Key = line.Task.Key;
        Text = line.Task.Text;
        Reference = line.Task.Reference;
        Caution = line.Task.Caution;
        Measure = line.Task.Measure;
        IsCompression = line.Task.Compression;
        Kind = line.Task.Kind;
        With = line.Task.With;
        Needs = line.Task.Needs ?? [];
        SecondPerson = line.Task.SecondPerson;
        Covers = line.Task.Covers ?? [];
        Asks = line.Task.Asks ?? (line.Task.Compression ? Asked.Compressions : null);
        Sampling = line.Task.Sampling;
        Why = line.Pick.Why;
        TiedTo = tiedTo;
    }

    public Guid Id { get; private set; }
    public Guid InspectionId { get; private set; }

    /// <summary>Its place in walking order.</summary>
    public int Order { get; private set; }

    /// <summary>The worksheet it comes from.</summary>
    public string WorksheetKey { get; private set; } = "";
    public string ZoneKey { get; private set; } = "";
    public string ZoneTitle { get; private set; } = "";
    public Station Station { get; private set; }

    /// <summary>The logbook that work in its zone is entered in.</summary>
    public Book Book { get; private set; }

    /// <summary>The engine or propeller it is about, whose series its readings belong to; null for the airframe.</summary>
    public Guid? ComponentId { get; private set; }
    public string Key { get; private set; } = "";
    public string Text { get; private set; } = "";
    public string Reference { get; private set; } = "";
    public string? Caution { get; private set; }
    public WorksheetMeasure? Measure { get; private set; }

    /// <summary>Answered at the compression page, cylinder by cylinder.</summary>
    public bool IsCompression { get; private set; }
    public TaskKind Kind { get; private set; }

    /// <summary>The lubricant, fluid or part it takes; null for most.</summary>
    public string? With { get; private set; }
    public IReadOnlyList<Need> Needs { get; private set; } = [];

    /// <summary>An airworthiness item that a second person inspects where the shop says so.</summary>
    public bool SecondPerson { get; private set; }

    /// <summary>Paragraphs of the inspection's scope that it covers.</summary>
    public IReadOnlyList<string> Covers { get; private set; } = [];

    /// <summary>The sheet of the engine station that answers it; null for most.</summary>
    public Asked? Asks { get; private set; }

    /// <summary>How a survey samples it; null at an inspection.</summary>
    public Sampling? Sampling { get; private set; }

    /// <summary>It is about the engine or propeller: its sheets answer it.</summary>
    public bool IsOfEngine => Station == Station.Engine || (Station.IsOfSurvey() && Book is Book.Engine or Book.Propeller);

    /// <summary>Why it is due at this inspection.</summary>
    public string Why { get; private set; } = "";

    /// <summary>The task of another list that answers this one too; null for one that is answered by itself.</summary>
    public Guid? TiedTo { get; private set; }
    public TaskVerdict Verdict { get; private set; } = TaskVerdict.NotYet;

    /// <summary>Why it isn't on this aircraft; null under any other verdict.</summary>
    public string? Reason { get; private set; }
    public Guid? By { get; private set; }
    public DateTimeOffset? At { get; private set; }

    /// <summary>The second person, who inspected it.</summary>
    public Guid? InspectedBy { get; private set; }
    public DateTimeOffset? InspectedAt { get; private set; }

    /// <summary>Counts verdicts, so that two people on one task can't overwrite each other unseen.</summary>
    public int Changes { get; private set; }

    /// <summary>Records a verdict. What a second person inspected before is to be inspected again.</summary>
    /// <param name="verdict">What was found.</param>
    /// <param name="reason">Why it isn't on this aircraft; needed for that verdict alone.</param>
    /// <param name="judged">For a measured task or a compression: what the reading was judged to be; null where there is none yet.</param>
    /// <param name="by">Who looked.</param>
    /// <param name="at">When.</param>
    /// <returns>Why it can't be recorded so, or null.</returns>
    public Refusal? Set(TaskVerdict verdict, string? reason, Judgement? judged, Guid by, DateTimeOffset at)
    {
        if (verdict == TaskVerdict.NotApplicable && string.IsNullOrWhiteSpace(reason))
            return new("reason", "Say why it is not on this aircraft.");
        if (verdict == TaskVerdict.Good && (Measure is not null || IsCompression))
        {
            if (judged is null)
                return IsCompression
                    ? new("verdict", "Every cylinder needs a reading first.")
                    : new("value", NoValue(Measure!.Unit));
            if (judged.Verdict is Judgements.Verdict.Reject or Judgements.Verdict.Retest)
                return new(IsCompression ? "verdict" : "value", MeasureGrammar.Say(NotGood, ("rule", judged.Rule), ("next", judged.Next)));
        }
        Verdict = verdict;
        Reason = verdict == TaskVerdict.NotApplicable ? reason!.Trim() : null;
        (By, At) = verdict == TaskVerdict.NotYet ? (null, null) : ((Guid?)by, (DateTimeOffset?)at);
        (InspectedBy, InspectedAt) = (null, null);
        Changes++;
        return null;
    }

    /// <summary>What is said where a value that was judged bad is called good.</summary>
    public const string NotGood = "{rule}: not good. {next}";

    /// <summary>What is said where a measured task is called good without a value.</summary>
    public static string NoValue(string unit) => $"Type the value you read, in {unit}.";

    /// <summary>A second person has inspected it.</summary>
    public Refusal? Inspect(Person inspector, DateTimeOffset at)
    {
        if (Verdict == TaskVerdict.NotYet)
            return new("inspect", "Nobody has done it yet.");
        if (Inspections.SecondPerson.MayInspect(inspector, By) is { } refusal)
            return refusal;
        (InspectedBy, InspectedAt) = (inspector.Id, at);
        Changes++;
        return null;
    }

    // Its sheet says so: whoever filled in the last of it answered it.
    internal void IsSaid(TaskVerdict verdict, LastFilled? last)
    {
        (Verdict, Reason, InspectedBy, InspectedAt) = (verdict, null, null, null);
        (By, At) = verdict == TaskVerdict.NotYet || last is null ? (null, null) : ((Guid?)last.By, (DateTimeOffset?)last.At);
        Changes++;
    }

    // Another part came into the place of the one it was about: nobody has looked at that one yet.
    internal void IsAbout(Fleet.Component fresh)
    {
        (ComponentId, Why) = (fresh.Id, $"{fresh.Title} s/n {fresh.SerialNumber} came in its place during this inspection");
        if (Verdict != TaskVerdict.NotYet)
            (Verdict, Reason, By, At, InspectedBy, InspectedAt, Changes) = (TaskVerdict.NotYet, null, null, null, null, null, Changes + 1);
    }

    internal void TieTo(InspectionTask? lead) => TiedTo = lead?.Id;

    // Says what the task it is tied to says. Who inspected it before inspected another's answer.
    internal void Follow(InspectionTask lead) =>
        (Verdict, Reason, By, At, InspectedBy, InspectedAt, Changes) = (lead.Verdict, lead.Reason, lead.By, lead.At, null, null,
            Changes + 1);
}
