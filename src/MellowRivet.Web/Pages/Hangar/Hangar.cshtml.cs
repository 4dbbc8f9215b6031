using MellowRivet.Core.Compression;
using MellowRivet.Core.Hangar;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Hangar;

/// <summary>The hangar: answers "what do I do now?"</summary>
[Needs(Right.Look)]
public sealed class HangarModel(ShopBoard board) : PageModel
{
    private const int MostCalls = 3;

    /// <summary>Most lines of one page: with more the page weighs more than a hangar's radio carries at once.</summary>
    private const int MostLines = 20;

    /// <summary>Which page of them, from 1.</summary>
    [FromQuery(Name = "page")]
    public int? PageTyped { get; set; }

    /// <summary>Only aircraft whose registration or type has this in it.</summary>
    [FromQuery(Name = "find")]
    public string? Find { get; set; }

    public ListPage<HangarLine> Lines { get; private set; } = new([], 1, 1, 0);
    public IReadOnlyList<(HangarLine Line, Call Call)> WhatNow { get; private set; } = [];
    public string InWords { get; private set; } = "";

    /// <summary>The shop is larger than one page.</summary>
    public bool IsLarge { get; private set; }

    /// <summary>The day of what is shown, where it is yesterday's still.</summary>
    public DateOnly? AsOf { get; private set; }

    public async Task OnGetAsync([FromServices] TimeProvider clock, CancellationToken stop)
    {
        var now = await board.NowAsync(stop);
        var all = now.Aircraft.Select(one => one.Hangar).ToList();
        AsOf = now.Day == Core.ShopTime.Today(clock) ? null : now.Day;
        IsLarge = all.Count > MostLines;
        WhatNow = [.. all.SelectMany(line => line.Calls.Select(call => (line, call))).OrderByDescending(one => one.call.State)
            .Take(MostCalls)];
        InWords =
            $"{all.Count} aircraft · {all.Count(line => line.Work is { InWork: true })} in work · "
            + $"{all.Count(line => line.IsGrounded)} grounded";
        // A large shop shows first what is in work, called for or held up; a small one is looked through by registration.
        var found = all.Where(line => string.IsNullOrWhiteSpace(Find)
            || $"{line.Registration} {line.Type}".Contains(Find.Trim(), StringComparison.OrdinalIgnoreCase)).ToList();
        if (IsLarge)
            found = [.. found.OrderBy(line => line.Rank).ThenBy(line => line.Registration, StringComparer.Ordinal)];
        Lines = ListPage.Of(found, PageTyped, MostLines);
    }

    public static string Doing(WorkShown work)
    {
        var kind = work.Kind.InWords();
        var said = char.ToUpperInvariant(kind[0]) + kind[1..];
        return work.State switch
        {
            InspectionState.SignedAirworthy => $"{said}, signed",
            InspectionState.SignedUnairworthy => $"{said} completed, not airworthy",
            _ => said,
        };
    }
}
