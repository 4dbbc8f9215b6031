using MellowRivet.Core.Estimates;

namespace MellowRivet.Core.Schedule;

/// <summary>Finds what of a question can't be planned, and says why; the rest can.</summary>
public static class PlanCheck
{
    internal static (IReadOnlyList<PlanJob> Jobs, IReadOnlyList<PlanProblem> Problems) Of(PlanQuestion question,
        IReadOnlyList<HandCalendar> calendars)
    {
        List<PlanProblem> problems = [.. question.Unsaid];
        for (var index = 0; index < question.Hands.Count; index++)
            if (calendars[index].NeverWorks)
                problems.Add(new(question.Hands[index].Id, "week", $"{question.Hands[index].Name} never works: no days, or off for good. "
                    + "The plan does without them.", false));
        var working = question.Hands.Where((_, index) => !calendars[index].NeverWorks).ToList();
        var jobs = question.Jobs.ToDictionary(job => job.Id);
        // In rounds: what waits for a job that is left out is left out as well.
        foreach (var circle in Circles(jobs))
            foreach (var id in circle)
                Leave(id, "after", $"it waits for itself: {string.Join(" → ", circle.Append(circle[0]).Select(Named))}");
        foreach (var job in question.Jobs.Where(job => jobs.ContainsKey(job.Id)))
            if (Wrong(job, question, working) is var (field, words))
                Leave(job.Id, field, words);
        for (var again = true; again;)
        {
            again = false;
            foreach (var job in jobs.Values.ToList())
                if (job.After.FirstOrDefault(id => !jobs.ContainsKey(id)) is { } gone)
                {
                    Leave(job.Id, "after", question.Jobs.Any(other => other.Id == gone)
                        ? $"it waits for {Named(gone)}, which isn’t in the plan" : $"it waits for “{gone}”, which isn’t there");
                    again = true;
                }
        }
        foreach (var job in jobs.Values)
        {
            if (job is { OrderedOn: not null } && job.PartsOn(question.Start) is { } due && due < question.Start)
                problems.Add(new(job.Id, "lead", $"{Title(job)}: its parts should have come on {due:yyyy-MM-dd}. "
                    + "It is planned as if they were here: ask where they are.", false, job.Aircraft, job.Line));
            if (job.Pin?.Hand is { } pinned && !working.Exists(hand => hand.Id == pinned && hand.Can(job)))
                problems.Add(new(job.Id, "pin", $"{Title(job)}: pinned to {Unable(pinned, job)}. It is planned for whoever can.", false,
                    job.Aircraft, job.Line));
            if (job.Pin is { Day: { } day } && day < question.Start)
                problems.Add(new(job.Id, "pin", $"{Title(job)}: pinned to {day:yyyy-MM-dd}, which is gone by.", false, job.Aircraft,
                    job.Line));
        }
        return ([.. question.Jobs.Where(job => jobs.ContainsKey(job.Id))], problems);

        string Unable(string hand, PlanJob job) => question.Hands.FirstOrDefault(one => one.Id == hand) is not { } who
            ? "somebody who isn’t here any more" : $"{who.Name}, who {(who.Can(job) ? "doesn’t work" : $"is no {job.Skill}")}";

        string Named(string id) => question.Jobs.FirstOrDefault(job => job.Id == id) is { } job ? Title(job) : id;

        void Leave(string id, string field, string words)
        {
            if (jobs.Remove(id, out var job))
                problems.Add(new(id, field, $"{Title(job)}: {words}.", true, job.Aircraft, job.Line));
        }
    }

    /// <summary>What a job is called.</summary>
    public static string Title(PlanJob job) => job.Title.Length > 0 ? job.Title : job.Id;

    private static (string Field, string Words)? Wrong(PlanJob job, PlanQuestion question, List<Hand> working)
    {
        if (job.Hours.Low < 0 || job.Hours.Low > job.Hours.Likely || job.Hours.Likely > job.Hours.High
            || job.Hours.High >= Estimate.MostHours)
            return ("hours", $"hours from 0 to {Estimate.MostHours:#,0}, low first, and not {job.Hours.AsTyped}");
        if (job.CureHours is < 0 or > (decimal)Inspections.Cure.MostHours)
            return ("cure", $"a cure of 0 to {Inspections.Cure.MostHours:0} hours");
        if (job.LeadDays is < 0 or > Estimate.LongestWait || job.OutsideDays is < 0 or > Estimate.LongestWait)
            return ("lead", $"days from 0 to {Estimate.LongestWait:#,0}");
        // A part that is ordered in the year 9999 is no part.
        if (job.OrderedOn is { Year: < 1950 or > 2199 } || job.NotBefore is { Year: > 2199 } || job.Pin?.Day is { Year: > 2199 })
            return ("lead", "a day up to 2199");
        if ((job.PartsOn(question.Start) is { } parts && Far(parts)) || (job.NotBefore is { } from && Far(from))
            || (job.Pin?.Day is { } day && Far(day)))
            return ("lead", "it lies more than ten years ahead");
        if (job.Place is { } place && question.Places.TryGetValue(place, out var many) && many <= 0)
            return ("place", $"it takes a place, {place}, of which there is none");
        if (job.Hours.High == 0)
            return null;
        if (!working.Exists(hand => hand.Can(job)))
            return ("skill", job.Skill is null ? "nobody works" : question.Hands.Any(hand => hand.Can(job))
                ? $"it takes {With(job.Skill)}, and none of them works" : $"it takes {With(job.Skill)}, and nobody here is one");
        return null;

        bool Far(DateOnly when) => when.DayNumber - question.Start.DayNumber > HandCalendar.Horizon - 350;
    }

    /// <summary>"an inspector".</summary>
    public static string With(string skill) => $"{("aeiou".Contains(char.ToLowerInvariant(skill[0])) ? "an" : "a")} {skill}";

    // Each job that can be reached from itself, with the way round.
    private static List<IReadOnlyList<string>> Circles(Dictionary<string, PlanJob> jobs)
    {
        var state = new Dictionary<string, int>();
        List<IReadOnlyList<string>> found = [];
        foreach (var id in jobs.Keys)
            Walk(id);
        return found;

        // By hand and not by calls: a chain may be as long as the list.
        void Walk(string from)
        {
            var path = new List<(string Id, int Next)> { (from, 0) };
            if (!state.TryAdd(from, 1))
                return;
            while (path.Count > 0)
            {
                var (id, next) = path[^1];
                var after = jobs[id].After;
                if (next == after.Count)
                {
                    state[id] = 2;
                    path.RemoveAt(path.Count - 1);
                    continue;
                }
                path[^1] = (id, next + 1);
                var to = after[next];
                if (!jobs.ContainsKey(to))
                    continue;
                if (state.TryAdd(to, 1))
                    path.Add((to, 0));
                else if (state[to] == 1)
                    found.Add([.. path.SkipWhile(step => step.Id != to).Select(step => step.Id)]);
            }
        }
    }
}
