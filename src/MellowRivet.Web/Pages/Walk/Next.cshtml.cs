using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>Goes to where the work is: on from a task, else on from where this person was last, on any device; else to the close.</summary>
[OwnersSee(Through.Walk)]
[Needs(Right.Look)]
public sealed class NextModel(RivetDb db) : PageModel
{
    public async Task<IActionResult> OnGetAsync(Guid id, Guid? after, CancellationToken stop)
    {
        if (await db.StateOfAsync(id, stop) is not { } state)
            return NotFound();
        if (await db.JobLineAsync(id, stop) is { } line)
            return Redirect(state == InspectionState.InWork && line.IsOpen ? $"/walk/{id}/fix-list/{line.Number}" : $"/walk/{id}/close");
        var place = after ?? await db.PlaceOfAsync(User.PersonId(), id, stop);
        var walk = await db.StepsAsync(id, stop);
        var here = walk.Index().FirstOrDefault(step => step.Item.Id == place, (-1, null!)).Index;
        var next = walk.Skip(Math.Max(0, after is null ? here : here + 1)).Concat(walk)
            .FirstOrDefault(task => task.Verdict == TaskVerdict.NotYet);
        return Redirect(next is null || state != InspectionState.InWork
            ? $"/walk/{id}/{(walk.Any(step => step.Station.IsOfSurvey()) ? "money" : "close")}"
            : $"/walk/{id}/{Seam.Place(next.Station)}/{next.ZoneKey}?task={next.Id}");
    }
}
