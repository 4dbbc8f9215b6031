using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Surveys;

/// <summary>The shop's surveys.</summary>
/// <param name="Rows">Every survey, latest first.</param>
/// <param name="Sum">A sum in the shop's money.</param>
public sealed record SurveysView(IReadOnlyList<SurveyRow> Rows, Func<decimal, string> Sum) : PageView
{
    public IEnumerable<(string Title, IReadOnlyList<SurveyRow> Rows)> Groups =>
        new[]
        {
            ("Under way", Rows.Where(row => row.Survey.End is null).ToList()),
            ("Ended, nobody said what came of it", Rows.Where(row => row.Survey is { End: not null, Outcome: null }).ToList()),
            ("Bought", Rows.Where(row => row.Survey.Outcome is { IsBought: true }).ToList()),
            ("Not bought", Rows.Where(row => row.Survey.Outcome is { IsBought: false }).ToList()),
        }.Where(group => group.Item2.Count > 0).Select(group => (group.Item1, (IReadOnlyList<SurveyRow>)group.Item2));
}

/// <summary>Every survey: under way, ended, and what came of them.</summary>
[Needs(Right.RecordWork)]
public sealed class SurveysModel(RivetDb db) : ShopPage<SurveysView>
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override async Task<SurveysView?> ViewAsync(Refused refused, CancellationToken stop) =>
        new(await db.SurveysAsync(stop), (await db.HouseRulesAsync(stop)).Sum);
}
