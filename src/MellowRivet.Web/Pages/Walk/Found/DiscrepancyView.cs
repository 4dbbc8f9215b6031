using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Parts;
using MellowRivet.Core.Tools;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>A picture with what is drawn over it.</summary>
/// <param name="Photo">The picture.</param>
/// <param name="What">What it shows.</param>
/// <param name="Address">Where its copies are served from.</param>
public sealed record AnnotatedPhoto(Photo Photo, string What, string Address = "/photos");

/// <summary>What is known of a discrepancy from before.</summary>
/// <param name="History">What was found at its place.</param>
/// <param name="Before">The inspection before, for what it may be again.</param>
/// <param name="AgainFrom">The one that it is again; null where it is new.</param>
public sealed record DiscrepancyPast(PlaceHistory History, IReadOnlyList<EarlierFind> Before, Discrepancy? AgainFrom);

/// <summary>One discrepancy: its pictures and place, its class, and its way from found to put right.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Found">The discrepancy.</param>
/// <param name="Past">What is known of it from before.</param>
/// <param name="Watched">Its place on the due line; null where it has none.</param>
/// <param name="Guess">The class that its words point to.</param>
/// <param name="NotDeferrable">Why it is never deferred; null where it may be.</param>
/// <param name="Wrenches">The torque wrenches in use.</param>
/// <param name="MayCorrect">Whoever looks may put it right.</param>
/// <param name="Today">The day.</param>
/// <param name="Ordered">What is on the parts list for it.</param>
public sealed record DiscrepancyView(WalkShown Walk, Discrepancy Found, DiscrepancyPast Past, DueItem? Watched, ClassGuess Guess,
    string? NotDeferrable, IReadOnlyList<Tool> Wrenches, bool MayCorrect, DateOnly Today, IReadOnlyList<OrderedPart> Ordered)
        : WalkView(Walk)
{
    public override Station At => Station.FixList;
    public override string? ZoneHere => Found.ZoneKey;

    public int Number => Found.Number;
    public PlaceHistory History => Past.History;
    public IReadOnlyList<EarlierFind> Before => Past.Before;
    public Discrepancy? AgainFrom => Past.AgainFrom;

    public CorrectionForm Correction => Typed<CorrectionForm>() ?? CorrectionForm.With(Ordered);
    public DescribeForm Described => Typed<DescribeForm>() is not { } typed ? DescribeForm.Of(Found)
        : Refused.Refusals.Contains(ChangedMeanwhile) ? typed.Seeing(Found) : typed;

    /// <summary>Somebody else wrote first: theirs is shown, and setting one's own again is done knowing it.</summary>
    public static readonly Refusal ChangedMeanwhile = new("describe",
        "Somebody changed this while you had it open: what they wrote stands above. Yours is still in its fields; set it again "
        + "if it holds.");

    /// <summary>The words that are still missing, as they were typed.</summary>
    public WordsForm Words => Typed<WordsForm>() ?? new() { Class = Found.Class, Grounded = Found.Grounded };

    public string? TypedNote => Typed<NoteForm>()?.Note;
    public LessForm? TypedLess => Typed<LessForm>();

    /// <summary>One of this fix list that may be the same, found by somebody else; null for none.</summary>
    public Discrepancy? PerhapsTwin => Job.Inspection.InWork && MayCorrect ? Job.Inspection.PerhapsTwinOf(Found) : null;

    /// <summary>The ones before and after it, worst first.</summary>
    public (int? Before, int? After) Neighbours
    {
        get
        {
            var order = FixListRules.WorstFirst(Job.Inspection.Discrepancies).Select(one => one.Number).ToList();
            var at = order.IndexOf(Number);
            return (at > 0 ? order[at - 1] : null, at < order.Count - 1 ? order[at + 1] : null);
        }
    }

    /// <summary>The aircraft's parts that it may be on, or that were replaced.</summary>
    public IReadOnlyList<Installation> Parts =>
        [.. Job.Aircraft.Installations.Where(stay => stay.IsOn).OrderBy(stay => stay.Component.Kind)
            .ThenBy(stay => stay.Position, StringComparer.Ordinal)];
}
