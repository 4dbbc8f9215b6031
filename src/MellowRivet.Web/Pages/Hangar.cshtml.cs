using MellowRivet.Core;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages;

/// <summary>The hangar: answers "what do I do now?"</summary>
[Needs(Right.Look)]
public sealed class HangarModel(RivetDb db, HangarBoard board, TimeProvider clock) : PageModel
{
    private const int MostCalls = 3;

    public IReadOnlyList<HangarLine> Lines { get; private set; } = [];
    public IReadOnlyList<Call> WhatNow { get; private set; } = [];

    public string InWords => $"{Lines.Count} aircraft · {Lines.Count(line => line.Inspection is { InWork: true })} in work · "
        + $"{Lines.Count(line => line.Inspection?.OpenAirworthiness.Any(found => found.Grounded) == true || line.Grounding is not null)} grounded";

    public async Task OnGetAsync(CancellationToken stop)
    {
        Lines = await board.LinesAsync(db, clock.Today(), stop);
        WhatNow = [.. Lines.SelectMany(line => line.Calls).OrderByDescending(call => call.State).Take(MostCalls)];
    }

    public static string Doing(Inspection inspection)
    {
        var kind = inspection.Kind.InWords();
        var said = char.ToUpperInvariant(kind[0]) + kind[1..];
        return inspection.State switch
        {
            InspectionState.SignedAirworthy => $"{said}, signed",
            InspectionState.SignedUnairworthy => $"{said} completed, not airworthy",
            _ => said,
        };
    }
}
