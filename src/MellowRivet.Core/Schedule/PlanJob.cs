using MellowRivet.Core.Estimates;

namespace MellowRivet.Core.Schedule;

/// <summary>What somebody wants of a job: that it begins on a day, or that one hand does it.</summary>
/// <param name="Hand">The hand; null for whoever can.</param>
/// <param name="Day">The day; null for any.</param>
public sealed record JobPin(string? Hand, DateOnly? Day);

/// <summary>One hand's piece of work on an aircraft, with what it waits for.</summary>
/// <param name="Id">Its name in the plan.</param>
/// <param name="Aircraft">The aircraft.</param>
public sealed record PlanJob(string Id, string Aircraft)
{
    /// <summary>What it is, in words.</summary>
    public string Title { get; init; } = "";

    /// <summary>The skill it takes; null where anybody can do it.</summary>
    public string? Skill { get; init; }

    /// <summary>A hand's hours.</summary>
    public Spread Hours { get; init; }

    /// <summary>What has to be through before it begins.</summary>
    public IReadOnlyList<string> After { get; init; } = [];

    /// <summary>Days its parts take from the order; null where it waits for none.</summary>
    public int? LeadDays { get; init; }

    /// <summary>
    /// The day they were ordered; null where they aren't: they are reckoned as if they were ordered on the plan's first day.
    /// </summary>
    public DateOnly? OrderedOn { get; init; }

    /// <summary>What its parts are, in words.</summary>
    public string Part { get; init; } = "";

    /// <summary>It doesn't begin before this day, for another reason; null for none.</summary>
    public DateOnly? NotBefore { get; init; }

    /// <summary>That reason.</summary>
    public string Because { get; init; } = "";

    /// <summary>Hours after the work in which it cures or dries: nobody works on it, and nothing that waits for it goes on.</summary>
    public decimal CureHours { get; init; }

    /// <summary>Days it is away at an outside shop after the work.</summary>
    public int OutsideDays { get; init; }

    /// <summary>The place it takes until it has cured; null for none.</summary>
    public string? Place { get; init; }

    /// <summary>It is a look that finds other work: the sooner the better.</summary>
    public bool Finds { get; init; }

    /// <summary>Its turn in the order of the work on its aircraft: the least first where nothing else decides.</summary>
    public int Turn { get; init; }

    public JobPin? Pin { get; init; }

    /// <summary>What it belongs to in the shop; null in a plan of somebody else's.</summary>
    public WorkLine? Line { get; init; }

    /// <summary>Its parts are still to be ordered.</summary>
    public bool IsToOrder => LeadDays > 0 && OrderedOn is null;

    /// <summary>The day its parts are there; null where it waits for none.</summary>
    public DateOnly? PartsOn(DateOnly start) => LeadDays is { } days ? (OrderedOn ?? start).AddDays(days) : null;
}

/// <summary>The line of an inspection that a piece of work belongs to.</summary>
/// <param name="InspectionId">The inspection.</param>
/// <param name="Key">A discrepancy's number, the work's key, or a zone's.</param>
/// <param name="Order">The work order.</param>
/// <param name="IsAgreed">The owner has agreed to it, or needn't be asked.</param>
public sealed record WorkLine(Guid InspectionId, string Key, string Order, bool IsAgreed);

/// <summary>What a shop has to do, and with what.</summary>
/// <param name="Start">The first day.</param>
/// <param name="Hands">Who works.</param>
/// <param name="Jobs">The work.</param>
/// <param name="Places">Places of which there are only so many; one that isn't named is there once.</param>
/// <param name="Wanted">The day on which an aircraft is wanted.</param>
public sealed record PlanQuestion(DateOnly Start, IReadOnlyList<Hand> Hands, IReadOnlyList<PlanJob> Jobs,
    IReadOnlyDictionary<string, int> Places, IReadOnlyDictionary<string, DateOnly> Wanted)
{
    /// <summary>From what minute of its first day on it is planned: what is gone by of a day can't be worked in any more.</summary>
    public int FromMinute { get; init; }

    /// <summary>What can't be planned because nobody has said enough of it; and what is planned on a guess.</summary>
    public IReadOnlyList<PlanProblem> Unsaid { get; init; } = [];
}

/// <summary>What of a plan can't be as it was said, in words; a job of which that is so is left out, and the rest planned.</summary>
/// <param name="About">The job or hand.</param>
/// <param name="Field">What of it: "hours", "after", "skill", "lead", "week", "pin".</param>
/// <param name="Words">What is wrong.</param>
/// <param name="IsLeftOut">It is not in the plan.</param>
/// <param name="Aircraft">The aircraft it is on; null for none.</param>
/// <param name="Line">What it belongs to in the shop; null for none.</param>
public sealed record PlanProblem(string About, string Field, string Words, bool IsLeftOut, string? Aircraft = null, WorkLine? Line = null);
