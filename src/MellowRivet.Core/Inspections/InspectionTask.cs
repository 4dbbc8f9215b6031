using MellowRivet.Core.Judgements;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Inspections;

public enum TaskVerdict { NotYet, Good, Discrepancy, NotApplicable }

/// <summary>One task of an inspection, copied from the worksheet it began with, and what was said of it.</summary>
public sealed class InspectionTask
{
    private InspectionTask() { }

    public InspectionTask(Guid id, int order, WorksheetZone zone, WorksheetTask task)
    {
        Id = id;
        Order = order;
        ZoneKey = zone.Key;
        ZoneTitle = zone.Title;
        Station = zone.Station;
        Book = zone.Book;
        Key = task.Key;
        Text = task.Text;
        Reference = task.Reference;
        Caution = task.Caution;
        Measure = task.Measure;
        IsCompression = task.Compression;
    }

    public Guid Id { get; private set; }
    public Guid InspectionId { get; private set; }

    /// <summary>Its place in walking order.</summary>
    public int Order { get; private set; }
    public string ZoneKey { get; private set; } = "";
    public string ZoneTitle { get; private set; } = "";
    public Station Station { get; private set; }

    /// <summary>The logbook that work in its zone is entered in.</summary>
    public Book Book { get; private set; }
    public string Key { get; private set; } = "";
    public string Text { get; private set; } = "";
    public string Reference { get; private set; } = "";
    public string? Caution { get; private set; }
    public WorksheetMeasure? Measure { get; private set; }

    /// <summary>Answered at the compression page, cylinder by cylinder.</summary>
    public bool IsCompression { get; private set; }
    public TaskVerdict Verdict { get; private set; }

    /// <summary>Why it isn't on this aircraft; null under any other verdict.</summary>
    public string? Reason { get; private set; }
    public Guid? By { get; private set; }
    public DateTimeOffset? At { get; private set; }

    /// <summary>Counts verdicts, so that two people on one task can't overwrite each other unseen.</summary>
    public int Version { get; private set; }

    /// <summary>Records a verdict.</summary>
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
                    : new("value", $"Type the value you read, in {Measure!.Unit}.");
            if (judged.Verdict is Judgements.Verdict.Reject or Judgements.Verdict.Retest)
                return new(IsCompression ? "verdict" : "value", $"{judged.Rule}: not good. {judged.Next}");
        }
        Verdict = verdict;
        Reason = verdict == TaskVerdict.NotApplicable ? reason!.Trim() : null;
        (By, At) = verdict == TaskVerdict.NotYet ? (null, null) : ((Guid?)by, (DateTimeOffset?)at);
        Version++;
        return null;
    }
}
