using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Signing;

/// <summary>The list of judgements with their answers, as Close shows it and Readiness walks it.</summary>
public static class JudgedLines
{
    /// <summary>Every judgement that wants an answer or got one, worst and unanswered first.</summary>
    public static IReadOnlyList<JudgedLine> Of(Inspection inspection, Aircraft aircraft)
    {
        var live = InspectionJudgements.Of(inspection, aircraft);
        var read = live.GroupBy(judged => judged.Key).ToDictionary(group => group.Key, group => group.Max(judged => judged.At));
        // As they stand now: a limit or a part may have changed in the file since anybody wrote on this inspection.
        var remembered = inspection.RememberedBy(live, aircraft);
        return
        [
            .. live.Where(judged => judged.WantsAnswer).Select(judged => Answer(inspection, judged, $"{judged.Judgement.Next}"))
                // A bad value that was taken back, and not read again on the same part.
                .Concat(remembered.Where(was => was.By is null && !(read.TryGetValue(was.Judged.Key, out var at) && at >= was.Judged.At))
                    .Select(was => Answer(inspection, was.Judged, "It was taken back and not read again: read it again.")))
                .Concat(remembered.Where(was => was.By is not null).Select(was => new JudgedLine(was.Judged, was.By, was.By switch
                {
                    AnsweredBy.PartReplaced => "The part was replaced: its series begins again.",
                    AnsweredBy.OtherLimit =>
                        $"The same reading, judged by another limit: {Small(was.Now!.Judgement.Rule)} ("
                        + $"{was.Now.Judgement.Source.AsItStands}).",
                    _ => $"Read again: {was.Now!.Saw}, {Small(was.Now.Judgement.Rule)}.",
                })))
                .OrderBy(line => line.IsUnanswered ? 0 : 1).ThenByDescending(line => line.Judged.Judgement.Verdict)
                .ThenBy(line => line.Judged.At),
        ];
    }

    // Not the units: Ω is no ω.
    private static string Small(string words) => char.ToLowerInvariant(words[0]) + words[1..];

    private static JudgedLine Answer(Inspection inspection, Judged judged, string wanted)
    {
        if (inspection.SetAside.FirstOrDefault(aside => (aside.Key, aside.Seen) == (judged.Key, judged.Seen)) is { } aside)
            return new(judged, AnsweredBy.SetAside, $"Set aside: {aside.Reason} Ref. {aside.Reference} ({aside.Certificate})",
                Aside: aside);
        var lines = inspection.Discrepancies.Where(found => found.Origin?.Key == judged.Key && found.Disposition != Disposition.Withdrawn)
            .OrderBy(found => found.Number).ToList();
        if (lines.LastOrDefault(found => Covers(found, judged)) is { } covering)
            return new(judged, AnsweredBy.FixList,
                $"On the fix list as {inspection.WorkOrder}-{covering.Number:00}, {covering.Class.InWords()}, "
                + $"{covering.Disposition.InWords()}.", covering);
        return lines.LastOrDefault() is { } line
            ? new(judged, null, line.IsOpen || line.IsDeferred
                ? $"{inspection.WorkOrder}-{line.Number:00} was set lower for what was there before: judge this one for itself."
                : judged.IsMeasured
                ? $"{inspection.WorkOrder}-{line.Number:00} is put right: read it again."
                : $"It was seen after {inspection.WorkOrder}-{line.Number:00} was put right: open that again, or look again.", line)
            : new(judged, null, wanted);
    }

    // An open airworthiness item answers for its part, whatever is read on it. What was set lower, deferred or
    // put right answers for the very
    // judgement alone, and no later one: not for what is read or seen since, not at the next inspection. A number put right is read again.
    private static bool Covers(Discrepancy found, Judged judged) => (found.IsOpen && found.Class == DiscrepancyClass.Airworthiness)
        || (found.Origin!.InWords == judged.InWords
            && (found.IsOpen || found.IsDeferred
                ? found.Lowered.Count > 0 && judged.At <= found.Lowered[^1].At
                : !judged.IsMeasured && judged.At <= found.CorrectedAt));

    /// <summary>Whether the part it was judged on, or what that sits on, is off the aircraft and another sits in its place.</summary>
    public static bool IsReplacedOn(this Judged judged, Aircraft aircraft) => judged.ComponentId is { } part && IsReplaced(part, aircraft);

    private static bool IsReplaced(Guid part, Aircraft aircraft) => aircraft.Fitting(part) is null
        && aircraft.Installations.Where(stay => stay.ComponentId == part).MaxBy(stay => stay.InstalledAt.Value) is { } was
        && (aircraft.Installations.Any(stay => stay.IsOn && stay.Component.Kind == was.Component.Kind && stay.ParentId == was.ParentId
            && stay.Position == was.Position)
            || (was.ParentId is { } parent && IsReplaced(parent, aircraft)));
}
