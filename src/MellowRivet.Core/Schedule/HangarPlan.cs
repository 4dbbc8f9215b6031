namespace MellowRivet.Core.Schedule;

/// <summary>What keeps a job from beginning sooner.</summary>
public enum BoundBy { Nothing = 1, Parts, Day, Other, Hand, Place }

/// <summary>A job as it is planned. Times are the shop's clock.</summary>
/// <param name="Job">The job.</param>
/// <param name="Hand">Whose it is; null for what takes no hand.</param>
/// <param name="Start">When it begins.</param>
/// <param name="End">When the hand's work is done.</param>
/// <param name="GoesOn">When what waits for it goes on: cured, and back.</param>
/// <param name="By">What keeps it from beginning sooner.</param>
/// <param name="ByJob">The job that does; null for none.</param>
public sealed record PlacedJob(PlanJob Job, string? Hand, DateTime Start, DateTime End, DateTime GoesOn, BoundBy By, string? ByJob);

/// <summary>When an aircraft is ready.</summary>
/// <param name="Aircraft">The aircraft.</param>
/// <param name="Likely">The day by which it is in half of the runs.</param>
/// <param name="NineInTen">The day by which it is in nine of ten runs.</param>
/// <param name="Deciding">The jobs that decide it, one after the other.</param>
/// <param name="By">What decides it, in words.</param>
/// <param name="Wanted">The day it is wanted; null where none is said.</param>
/// <param name="InTime">The share of runs in which it is ready by then.</param>
/// <param name="LeftOut">Work on it that isn't in the plan: it is ready no sooner than that is done.</param>
public sealed record AircraftReady(string Aircraft, DateOnly Likely, DateOnly NineInTen, IReadOnlyList<string> Deciding, string By,
    DateOnly? Wanted, double InTime, int LeftOut)
{
    /// <summary>Days that it is likely late; null where it isn't.</summary>
    public int? LateBy => Wanted is { } day && Likely > day ? Likely.DayNumber - day.DayNumber : null;
}

/// <summary>The hand that is short: what waits for it longest.</summary>
/// <param name="Skill">The skill.</param>
/// <param name="Hours">Working hours that jobs which could go on wait for it, added up.</param>
/// <param name="Jobs">How many of them.</param>
public sealed record ShortHand(string Skill, decimal Hours, int Jobs)
{
    /// <summary>Hours that one of them waits, on average.</summary>
    public decimal Each => Math.Round(Hours / Jobs, 1);
}

/// <summary>What somebody more would change.</summary>
/// <param name="Skill">What they can do.</param>
/// <param name="Days">On which days.</param>
/// <param name="Sooner">Aircraft that are ready sooner, and by how many days.</param>
public sealed record Helper(string Skill, IReadOnlyList<DateOnly> Days, IReadOnlyDictionary<string, int> Sooner);

/// <summary>A part to order, and until when.</summary>
/// <param name="Job">The job that waits for it.</param>
/// <param name="By">The last day on which its order makes no aircraft later; today's plan takes the first.</param>
public sealed record OrderBy(string Job, DateOnly By);

/// <summary>How busy a hand is between the plan's first day and the end of its last job.</summary>
public sealed record HandLoad(string Hand, decimal Busy, decimal Idle);

/// <summary>The plan of the hangar: who does what when, when each aircraft is ready, and what decides that.</summary>
/// <param name="Start">Its first day.</param>
/// <param name="Jobs">Every job, by start.</param>
/// <param name="Aircraft">When each aircraft is ready, soonest first.</param>
/// <param name="Orders">Parts to order, most pressing first.</param>
/// <param name="Short">The hand that is short; null where nothing waits for one.</param>
/// <param name="Helper">Who would change most in two days; null where nobody would.</param>
/// <param name="Loads">How busy each hand is.</param>
/// <param name="Hands">Who works.</param>
/// <param name="Problems">What can't be as it was said.</param>
/// <param name="Runs">Runs of the spread.</param>
/// <param name="Seed">The seed of their draws.</param>
public sealed record HangarPlan(DateOnly Start, IReadOnlyList<PlacedJob> Jobs, IReadOnlyList<AircraftReady> Aircraft,
    IReadOnlyList<OrderBy> Orders, ShortHand? Short, Helper? Helper, IReadOnlyList<HandLoad> Loads, IReadOnlyList<Hand> Hands,
    IReadOnlyList<PlanProblem> Problems, int Runs, int Seed)
{
    /// <summary>What has to be ordered on the plan's first day, or an aircraft is later.</summary>
    public IEnumerable<string> OrderToday => Orders.Where(order => order.By <= Start).Select(order => order.Job);

    /// <summary>What a hand does on which day, by the hour: a job goes on over nights and days off.</summary>
    public IEnumerable<(PlacedJob Job, DateTime From, DateTime To)> Pieces(string hand)
    {
        if (Hands.FirstOrDefault(one => one.Id == hand)?.Week is not { } week)
            yield break;
        foreach (var job in Jobs.Where(job => job.Hand == hand))
            for (var day = DayOf(job.Start); day <= DayOf(job.End); day = day.AddDays(1))
            {
                if (!week.WorksOn(day))
                    continue;
                var (opens, closes) = (day.ToDateTime(week.Begins), day.ToDateTime(week.Begins).AddHours((double)week.HoursPerDay));
                var (from, to) = (job.Start > opens ? job.Start : opens, job.End < closes ? job.End : closes);
                if (to > from)
                    yield return (job, from, to);
            }
    }

    /// <summary>The day of a moment of the shop's clock.</summary>
    public static DateOnly DayOf(DateTime at) => new(at.Year, at.Month, at.Day);

    public AircraftReady? Of(string aircraft) => Aircraft.FirstOrDefault(one => one.Aircraft == aircraft);

    /// <summary>How near the figure is: half of the runs, and nine in ten.</summary>
    public static int At(int[] sorted, double share) => sorted[Math.Clamp((int)Math.Ceiling(share * sorted.Length) - 1, 0,
        sorted.Length - 1)];
}
