using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Schedule;

namespace MellowRivet.Web.Api;

/// <summary>The plan of a hangar from what a program sends: the arithmetic alone.</summary>
internal static class ScheduleApi
{
    private const int MostJobs = 500, MostPeople = 50, MostPlaces = 50, LongestName = 80;

    private static readonly Dictionary<string, DayOfWeek> Days =
        Enum.GetValues<DayOfWeek>().ToDictionary(day => day.ToString()[..3].ToLowerInvariant());

    public static void MapSchedule(this RouteGroupBuilder bench) =>
        bench.MapPost("/schedule", (HttpRequest request) => BenchBody.AnswerAsync<ScheduleCall>(request, Reckon))
            .Accepts<ScheduleCall>("application/json").Produces<ScheduleAnswer>().ProducesValidationProblem()
            .WithName("Schedule")
            .WithSummary("Plans jobs on aircraft by people's skills and hours, order, parts, cures and places: who does what when, when "
                + "each aircraft is ready in half and in nine of ten runs, and what decides it. A day begins at 08:00.");

    public static ScheduleAnswer? Reckon(ScheduleCall call, Problems problems)
    {
        if (call.Start is not { Year: >= 1950 and <= 2199 })
            problems.Add("start", "A date from 1950 to 2199 is wanted: 2027-03-01.");
        if (call.People is not { Count: > 0 and <= MostPeople })
            problems.Add("people", $"From 1 to {MostPeople} people are wanted.");
        if (call.Jobs is not { Count: > 0 and <= MostJobs })
            problems.Add("jobs", $"From 1 to {MostJobs} jobs are wanted.");
        if (call.Places?.Count > MostPlaces)
            problems.Add("places", $"Up to {MostPlaces}.");
        var hands = (call.People ?? []).Take(MostPeople).Select((person, index) => Hand(person, index, problems)).ToList();
        var jobs = (call.Jobs ?? []).Take(MostJobs).Select((job, index) => Job(job, index, problems)).ToList();
        Twice(hands.Select(hand => hand.Id), "people", problems);
        Twice(jobs.Select(job => job.Id), "jobs", problems);
        foreach (var (job, index) in jobs.Select((job, index) => (job, index)))
            if (job.After.FirstOrDefault(id => jobs.All(other => other.Id != id)) is { } gone)
                problems.Add($"jobs[{index}].after", $"There is no job “{gone}”.");
        var places = (call.Places ?? []).ToDictionary(place => place.Key,
            place => (int)problems.Number($"places.{place.Key}", place.Value, 1, ShopPlaces.MostOfOne, "", 1));
        foreach (var (aircraft, day) in call.Wanted ?? [])
            if (day is not { Year: >= 1950 and <= 2199 } || jobs.All(job => job.Aircraft != aircraft))
                problems.Add($"wanted.{aircraft}", jobs.All(job => job.Aircraft != aircraft) ? "No job is on that aircraft."
                    : "A date is wanted: 2027-04-01.");
        if (problems.Any)
            return null;
        var plan = Planner.Plan(new(call.Start!.Value, hands, jobs, places,
            (call.Wanted ?? []).ToDictionary(one => one.Key, one => one.Value!.Value)), call.Seed ?? 1);
        foreach (var circle in plan.Problems.Where(problem => problem.Field == "after"))
            problems.Add($"jobs[{jobs.FindIndex(job => job.Id == circle.About)}].after", circle.Words);
        return problems.Any ? null : new(
            [.. plan.Jobs.Select(job => new ScheduledJob(job.Job.Id, job.Hand, job.Start, job.End, job.GoesOn, job.By, job.ByJob))],
            [.. plan.Aircraft.Select(ready => new ScheduledAircraft(ready.Aircraft, ready.Likely, ready.NineInTen, ready.Deciding, ready.By,
                ready.LateBy, ready.Wanted is null ? null : ready.InTime, ready.LeftOut))],
            [.. plan.OrderToday], plan.Orders, [.. plan.Loads.Select(load => new IdleHand(load.Hand, load.Idle))], plan.Short, plan.Helper,
            plan.Runs, plan.Seed, [.. plan.Problems.Select(problem => new ScheduleProblem(problem.About, problem.Field, problem.Words,
                problem.IsLeftOut))]);
    }

    private static void Twice(IEnumerable<string> ids, string field, Problems problems)
    {
        if (ids.GroupBy(id => id).FirstOrDefault(same => same.Count() > 1) is { } twice)
            problems.Add(field, $"“{twice.Key}” stands there twice.");
    }

    private static string Named(string? name, string field, Problems problems)
    {
        if (string.IsNullOrWhiteSpace(name) || name.Length > LongestName)
            problems.Add(field, $"A name of up to {LongestName} characters is wanted.");
        return name ?? "";
    }

    private static Hand Hand(PersonCall? person, int index, Problems problems)
    {
        var at = $"people[{index}]";
        var days = new List<DayOfWeek>();
        foreach (var day in person?.Days ?? ["mon", "tue", "wed", "thu", "fri"])
            if (Days.TryGetValue(day?.ToLowerInvariant() ?? "", out var known) && !days.Contains(known))
                days.Add(known);
            else
                problems.Add($"{at}.days", $"Each of {string.Join(", ", Days.Keys)} at most once is wanted.");
        if (person?.Skills is not { Count: > 0 } skills || skills.Any(string.IsNullOrWhiteSpace))
            problems.Add($"{at}.skills", "At least one skill is wanted: inspector, mechanic, assistant.");
        if (person?.Off?.Count > WorkWeek.MostOff)
            problems.Add($"{at}.off", $"Up to {WorkWeek.MostOff} days.");
        return new(Named(person?.Id, $"{at}.id", problems), person?.Id ?? "", [.. (person?.Skills ?? []).OfType<string>()],
            new(WorkWeek.Usual.Begins, person?.HoursPerDay is { } hours
                ? (decimal)problems.Number($"{at}.hoursPerDay", hours, 0.25, (double)WorkWeek.MostHours, "h", 8)
                : WorkWeek.Usual.HoursPerDay, days, [.. (person?.Off ?? []).Take(WorkWeek.MostOff).Select(day => new DaysOff(day, day))]));
    }

    private static PlanJob Job(JobCall? job, int index, Problems problems)
    {
        var at = $"jobs[{index}]";
        int? Days(string field, double? value)
        {
            if (value is null)
                return null;
            var days = problems.Number($"{at}.{field}", value, 0, Estimate.LongestWait, "days", 0);
            if (days % 1 != 0)
                problems.Add($"{at}.{field}", "A whole number of days is wanted.");
            return (int)days;
        }
        if (job?.Hours is null)
            problems.Add($"{at}.hours", "Hours, or low, likely and high, are wanted.");
        if (job?.OrderedOn is { Year: < 1950 or > 2199 })
            problems.Add($"{at}.orderedOn", "A date from 1950 to 2199 is wanted.");
        if (job?.OrderedOn is not null && job.LeadDays is null)
            problems.Add($"{at}.leadDays", "The days from the order are wanted where it was ordered.");
        if (job?.After?.Any(id => id is null) == true)
            problems.Add($"{at}.after", "Ids of jobs are wanted.");
        return new(Named(job?.Id, $"{at}.id", problems), Named(job?.Aircraft, $"{at}.aircraft", problems))
        {
            Title = job?.Id ?? "", Skill = string.IsNullOrWhiteSpace(job?.Skill) ? null : job.Skill,
            Hours = job?.Hours?.Checked($"{at}.hours", (double)Estimate.MostHours - 0.01, problems) ?? default,
            After = [.. (job?.After ?? []).OfType<string>()], LeadDays = Days("leadDays", job?.LeadDays), OrderedOn = job?.OrderedOn,
            CureHours = job?.CureHours is null ? 0
                : (decimal)problems.Number($"{at}.cureHours", job.CureHours, 0, Cure.MostHours, "h", 0),
            OutsideDays = Days("outsideDays", job?.OutsideDays) ?? 0, Place = string.IsNullOrWhiteSpace(job?.Place) ? null : job.Place,
            Turn = index,
        };
    }
}

internal sealed record ScheduleCall(DateOnly? Start, IReadOnlyList<PersonCall?>? People, IReadOnlyList<JobCall?>? Jobs,
    Dictionary<string, double?>? Places, Dictionary<string, DateOnly?>? Wanted, int? Seed);

internal sealed record PersonCall(string? Id, IReadOnlyList<string?>? Skills, double? HoursPerDay, IReadOnlyList<string?>? Days,
    IReadOnlyList<DateOnly>? Off);

internal sealed record JobCall(string? Id, string? Aircraft, string? Skill, RangeCall? Hours, IReadOnlyList<string?>? After,
    double? LeadDays, DateOnly? OrderedOn, double? CureHours, double? OutsideDays, string? Place);

internal sealed record ScheduleAnswer(IReadOnlyList<ScheduledJob> Jobs, IReadOnlyList<ScheduledAircraft> Aircraft,
    IReadOnlyList<string> OrderToday, IReadOnlyList<OrderBy> Orders, IReadOnlyList<IdleHand> Idle, ShortHand? Short, Helper? Helper,
        int Runs,
    int Seed, IReadOnlyList<ScheduleProblem> Problems);

/// <summary>A job of the plan: "end" is when the hand's work is done, "goesOn" when what waits for it may begin.</summary>
internal sealed record ScheduledJob(string Id, string? Person, DateTime Start, DateTime End, DateTime GoesOn, BoundBy BoundBy,
    string? BoundByJob);

/// <summary>When an aircraft is ready. "lateBy" is in days.</summary>
internal sealed record ScheduledAircraft(string Aircraft, DateOnly ReadyLikely, DateOnly ReadyNineInTen, IReadOnlyList<string> DecidedBy,
    string InWords, int? LateBy, double? InTime, int LeftOut);

internal sealed record IdleHand(string Person, decimal Hours);

internal sealed record ScheduleProblem(string About, string Field, string Message, bool LeftOut);
