using MellowRivet.Core;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Costs;

/// <summary>Ways side by side, as they are sent: one to a column.</summary>
public sealed class ChoiceForm
{
    public Guid? Choice { get; set; }
    public string? Title { get; set; }
    public int? Number { get; set; }
    public List<string?> Name { get; set; } = [];
    public List<AlternativeKind> Kind { get; set; } = [];
    public List<string?> Hours { get; set; } = [];
    public List<string?> Parts { get; set; } = [];
    public List<string?> Outside { get; set; } = [];
    public List<string?> BuysHours { get; set; } = [];
    public List<string?> DownDays { get; set; } = [];
    public List<string?> FallsAway { get; set; } = [];

    public static ChoiceForm Of(Choice choice)
    {
        List<string?> Each(Func<Alternative, string?> field) => [.. choice.Alternatives.Select(field)];
        return new()
        {
            Choice = choice.Id, Title = choice.Title, Number = choice.Number, Name = Each(one => one.Name),
            Kind = [.. choice.Alternatives.Select(one => one.Kind)], Hours = Each(one => one.Estimate.Hours?.AsTyped),
            Parts = Each(one => one.Estimate.PartsCost?.AsTyped), Outside = Each(one => one.Estimate.Outside?.Price?.AsTyped),
            BuysHours = Each(one => one.BuysHours?.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture)),
            DownDays = Each(one => $"{one.DownDays}"), FallsAway = Each(one => string.Join(' ', one.FallsAway.Select(away =>
                $"{away:00}"))),
        };
    }

    /// <summary>The choice, or what is wrong with it as typed.</summary>
    public (Choice? Choice, Refusal? Refusal) Read(Guid id, Inspection inspection)
    {
        List<Alternative> ways = [];
        var numbers = inspection.Discrepancies.Select(found => found.Number).ToHashSet();
        for (var index = 0; index < Name.Count; index++)
        {
            string? At(List<string?> column) => index < column.Count ? column[index] : null;
            var typed = new TypedAlternative(At(Name), index < Kind.Count ? Kind[index] : 0, At(Hours), At(Parts), At(Outside),
                At(BuysHours),
                At(DownDays), At(FallsAway));
            if (typed.IsEmpty)
                continue;
            var (way, refusal) = typed.Read(numbers);
            if (way is null)
                return (null, refusal);
            ways.Add(way);
        }
        return (new(Choice ?? id, Title?.Trim() ?? "", Number, ways), null);
    }
}

/// <summary>What is to be decided between ways side by side.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="MayPrice">Whoever looks may put ways side by side.</param>
/// <param name="Opened">The one that is being changed; null for none.</param>
public sealed record ChoicesView(WalkShown Walk, bool MayPrice, Choice? Opened) : WalkView(Walk)
{
    public override Station At => Station.FixList;

    public IReadOnlyList<Choice> Choices => Job.Inspection.Choices;
    public ChoiceForm Form => Typed<ChoiceForm>() ?? (Opened is null ? new() : ChoiceForm.Of(Opened));
    public string Here => $"/walk/{Id}/fix-list/choices";
}

/// <summary>Repair, exchange, replace or leave: ways side by side, for the owner to choose.</summary>
[Needs(Right.RecordWork)]
public sealed class ChoicesModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock)
    : WalkPage<ChoicesView>(desk, db, frames)
{
    [FromQuery(Name = "open")]
    public Guid? Open { get; set; }

    private string Here => $"/walk/{Id}/fix-list/choices";

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostAsync(Guid post, ChoiceForm form, CancellationToken stop) => WriteAsync(post, Here, job =>
    {
        var (choice, refusal) = form.Read(post, job.Inspection);
        return refusal ?? job.Inspection.Offer(choice!);
    }, stop, JobParts.Discrepancies, form);

    /// <summary>Asks the owner, or takes back what was chosen to ask anew.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostAskAsync(Guid post, Guid choice, CancellationToken stop) =>
        WriteAsync(post, Here, job => job.Inspection.AskChoice(choice, Me, clock.GetUtcNow()), stop, JobParts.Discrepancies);

    /// <summary>Notes what the owner chose.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostTakeAsync(Guid post, Guid choice, int index, string? seen, CancellationToken stop) =>
        WriteAsync(post, Here, job => job.Inspection.Choose(choice, index, seen, Me, clock.GetUtcNow()), stop, JobParts.Discrepancies);

    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostDropAsync(Guid post, Guid choice, CancellationToken stop) =>
        WriteAsync(post, Here, job => job.Inspection.Drop(choice), stop, JobParts.Bare);

    protected override Task<ChoicesView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        Task.FromResult<ChoicesView?>(
        new(walk, walk.Job.Inspection.InWork && User.May(Right.CorrectDiscrepancies),
            walk.Job.Inspection.Choices.FirstOrDefault(choice => choice.Id == Open && choice.Chosen is null)));
}
