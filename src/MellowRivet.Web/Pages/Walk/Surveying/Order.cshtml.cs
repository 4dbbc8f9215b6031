using MellowRivet.Core.Inspections;
using MellowRivet.Core.Surveys;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Surveying;

/// <summary>What a survey looks at, in order.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Stand">How it stands.</param>
public sealed record OrderView(WalkShown Walk, SurveyStand Stand) : WalkView(Walk)
{
    public override Station At => Job.Inspection.NotLookedAt.FirstOrDefault()?.Station ?? Station.Money;

    /// <summary>The stations with their tasks, and the minutes that each ends at, of what isn't looked at.</summary>
    public IEnumerable<(Station Station, IReadOnlyList<(InspectionTask Task, int Until)> Tasks)> Order
    {
        get
        {
            var until = 0;
            foreach (var station in Job.Inspection.Walk.GroupBy(task => task.Station).OrderBy(station => station.Key))
            {
                List<(InspectionTask, int)> tasks = [];
                foreach (var task in station)
                {
                    until += task.Verdict == TaskVerdict.NotYet ? task.Sampling?.Minutes ?? 0 : 0;
                    tasks.Add((task, until));
                }
                yield return (station.Key, tasks);
            }
        }
    }

    /// <summary>Minutes as one says them: "2 h 40".</summary>
    public static string Say(int minutes) => minutes < 60 ? $"{minutes} min" : $"{minutes / 60} h {minutes % 60:00}";
}

/// <summary>The order of looking: paper first, then by what not looking is worth, with what fits the agreed hours.</summary>
public sealed class OrderModel(Desk desk, RivetDb db, KeptFrames frames) : WalkPage<OrderView>(desk, db, frames)
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override Task<OrderView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        Task.FromResult(walk.Frame.Survey is { } stand ? new OrderView(walk, stand) : null);
}
