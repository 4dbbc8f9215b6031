using MellowRivet.Core;
using MellowRivet.Core.Hangar;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Hangar;

/// <summary>The hangar.</summary>
/// <param name="Lines">One page of the aircraft.</param>
/// <param name="WhatNow">What calls loudest.</param>
/// <param name="InWords">The shop in a line.</param>
/// <param name="IsLarge">The shop is larger than one page.</param>
/// <param name="Find">What is looked for.</param>
/// <param name="Only">Which are shown.</param>
/// <param name="Counts">How many each filter would show.</param>
/// <param name="Rest">Those that want no hand now, folded; empty where something is looked for.</param>
/// <param name="Ending">Certificates that ended or end soon: one's own; of everybody, to whoever manages the shop.</param>
/// <param name="AsOf">The day of what is shown, where it is yesterday's still.</param>
/// <param name="Plan">The plan of the hangar.</param>
public sealed record HangarView(ListPage<HangarLine> Lines, IReadOnlyList<(HangarLine Line, Call Call)> WhatNow, string InWords,
    bool IsLarge,
    string? Find, HangarFilter Only, IReadOnlyDictionary<HangarFilter, int> Counts, IReadOnlyList<HangarLine> Rest,
    IReadOnlyList<(Person Who, Certificate Held)> Ending, DateOnly? AsOf, PlanNow Plan) : PageView
{
    /// <summary>How many surveys are under way; none for whoever isn't the shop's.</summary>
    public int Surveys { get; init; }

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

/// <summary>The hangar: answers "what do I do now?"</summary>
[OwnersSee(Through.Sight)]
[Needs(Right.Look)]
public sealed class HangarModel(RivetDb db, ShopBoard board, PlanDesk plans, Seen seen, TimeProvider clock) : ShopPage<HangarView>
{
    private const int MostCalls = 3, WantsNothing = 3;

    /// <summary>Most lines of one page: with more the page weighs more than a hangar's radio carries at once.</summary>
    private const int MostLines = 20;

    /// <summary>Which page of them, from 1.</summary>
    [FromQuery(Name = "page")]
    public int? PageTyped { get; set; }

    /// <summary>Only aircraft whose registration or type has this in it.</summary>
    [FromQuery(Name = "find")]
    public string? Find { get; set; }

    /// <summary>Only these.</summary>
    [FromQuery(Name = "only")]
    public HangarFilter? OnlyTyped { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override async Task<HangarView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var now = await board.NowAsync(stop);
        var sight = await seen.OfAsync(User, stop);
        var all = now.Followed.Select(one => one.Hangar).Where(line => sight.Sees(line.AircraftId)).ToList();
        var isLarge = all.Count > MostLines;
        // A large shop shows first what is in work, called for or held up; a small one is looked through by registration.
        var found = all.Where(line => string.IsNullOrWhiteSpace(Find)
            || $"{line.Registration} {line.Type}".Contains(Find.Trim(), StringComparison.OrdinalIgnoreCase));
        var (me, today) = (User.PersonId(), clock.Today());
        var only = OnlyTyped is { } typed && Enum.IsDefined(typed) ? typed : HangarFilter.All;
        var counts = Enum.GetValues<HangarFilter>().ToDictionary(filter => filter,
            filter => all.Count(line => line.Passes(filter, me, today)));
        found = found.Where(line => line.Passes(only, me, today));
        List<HangarLine> rest = [];
        if (isLarge)
        {
            found = found.OrderBy(line => line.Rank).ThenBy(line => line.Registration, StringComparer.Ordinal);
            // What wants no hand now is folded, until somebody looks for it.
            if (only == HangarFilter.All && string.IsNullOrWhiteSpace(Find))
                (rest, found) = ([.. all.Where(line => line.Rank == WantsNothing)
                    .OrderBy(line => line.Registration, StringComparer.Ordinal)],
                    found.Where(line => line.Rank != WantsNothing));
        }
        return new(ListPage.Of([.. found], PageTyped, MostLines),
            [.. all.SelectMany(line => line.Calls.Select(call => (line, call))).OrderByDescending(one => one.call.State).Take(MostCalls)],
            $"{all.Count} aircraft · {all.Count(line => line.Work is { InWork: true })} in work · "
                + $"{all.Count(line => line.IsGrounded)} grounded",
            isLarge, Find, only, counts, rest,
            [.. now.People.Values.Where(person => person.IsHere && (person.Id == User.PersonId() || User.May(Right.ManageShop)))
                .SelectMany(person => person.Certificates.Where(held => held.WantsReminder(clock.Today())).Select(held => (person, held)))
                .OrderBy(one => one.held.Until)],
            now.Day == clock.Today() ? null : now.Day, await plans.NowAsync(stop))
        { Surveys = User.SeesFleet() ? await db.SurveysUnderWayAsync(stop) : 0 };
    }
}
