using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using MellowRivet.Web.Look;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>Goes to where the work is: the first task not looked at, else the close.</summary>
public sealed class NextModel(RivetDb db) : PageModel
{
    public async Task<IActionResult> OnGetAsync(Guid id, CancellationToken stop)
    {
        if (await db.Inspections.AsNoTracking().Include(row => row.Tasks).FirstOrDefaultAsync(row => row.Id == id, stop) is not { } inspection)
            return NotFound();
        var next = inspection.Tasks.Where(task => task.Verdict == TaskVerdict.NotYet).MinBy(task => task.Order);
        return Redirect(next is null || !inspection.InWork ? $"/walk/{id}/close" : $"/walk/{id}/{Seam.Place(next.Station)}/{next.ZoneKey}?task={next.Id}");
    }
}
