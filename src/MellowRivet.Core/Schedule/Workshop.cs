namespace MellowRivet.Core.Schedule;

/// <summary>A question as figures: minutes from midnight of the first day, jobs, hands and places by their place in a list.</summary>
internal sealed class Workshop
{
    /// <summary>A day that an aircraft is late counts as so many days that it is here: what was promised comes first. The product's
    /// own.</summary>
    public const int Late = 10;

    /// <summary>A look that finds other work is worth this share of a day for every day that it comes sooner: unknown waits begin then.
    /// The product's own.</summary>
    public const double Find = 0.05;

    /// <summary>That a job is done sooner for which no aircraft waits is worth this share. The product's own.</summary>
    public const double Sooner = 0.002;

    public required PlanQuestion Question { get; init; }
    public required IReadOnlyList<PlanJob> Jobs { get; init; }
    public required IReadOnlyList<HandCalendar> Calendars { get; init; }

    /// <summary>Minutes that each job is planned with: the mean of its hours.</summary>
    public required int[] Minutes { get; init; }

    /// <summary>No earlier than this, by parts, pin and reason.</summary>
    public required int[] From { get; init; }
    public required int[] Cure { get; init; }
    public required int[] Away { get; init; }
    public required int[][] After { get; init; }

    /// <summary>Who can do it; empty for what takes no hand.</summary>
    public required int[][] Who { get; init; }

    /// <summary>Its place; −1 for none.</summary>
    public required int[] Place { get; init; }
    public required int[] PlaceCount { get; init; }
    public required int[] Aircraft { get; init; }
    public required IReadOnlyList<string> Registrations { get; init; }

    /// <summary>The minute by which each aircraft is wanted.</summary>
    public required int[] Wanted { get; init; }

    /// <summary>Pinned to a day.</summary>
    public required bool[] Pinned { get; init; }

    public static Workshop Of(PlanQuestion question, IReadOnlyList<PlanJob> jobs, IReadOnlyList<HandCalendar> calendars)
    {
        var index = jobs.Select((job, at) => (job.Id, at)).ToDictionary(one => one.Id, one => one.at);
        var places = jobs.Select(job => job.Place).OfType<string>().Distinct().ToList();
        var aircraft = jobs.Select(job => job.Aircraft).Distinct().ToList();
        return new()
        {
            Question = question, Jobs = jobs, Calendars = calendars,
            Minutes = [.. jobs.Select(job => Of(job.Hours.Mean))],
            From = [.. jobs.Select(job => new[] { question.FromMinute, At(question, job.PartsOn(question.Start)),
                At(question, job.NotBefore), At(question, job.Pin?.Day) }.Max())],
            Cure = [.. jobs.Select(job => Of(job.CureHours))],
            Away = [.. jobs.Select(job => job.OutsideDays * HandCalendar.Day)],
            After = [.. jobs.Select(job => job.After.Distinct().Select(id => index[id]).ToArray())],
            Who = [.. jobs.Select(job => job.Hours.High == 0 ? [] : HandsFor(question, job, calendars))],
            Place = [.. jobs.Select(job => job.Place is { } place ? places.IndexOf(place) : -1)],
            PlaceCount = [.. places.Select(place => question.Places.GetValueOrDefault(place, 1))],
            Aircraft = [.. jobs.Select(job => aircraft.IndexOf(job.Aircraft))],
            Registrations = aircraft,
            Wanted = [.. aircraft.Select(one => question.Wanted.TryGetValue(one, out var day)
                ? At(question, day) + HandCalendar.Day : HandCalendar.Never)],
            Pinned = [.. jobs.Select(job => job.Pin?.Day is not null)],
        };
    }

    // Whoever has fewer skills stands first: of two who are through at once, the one is taken who can't do the rest.
    private static int[] HandsFor(PlanQuestion question, PlanJob job, IReadOnlyList<HandCalendar> calendars)
    {
        int[] able = [.. Enumerable.Range(0, calendars.Count).Where(hand => !calendars[hand].NeverWorks && question.Hands[hand].Can(job))
            .OrderBy(hand => question.Hands[hand].Skills.Count)];
        // Who is pinned to it and can't do it, or isn't here any more, is told; the work is still to do.
        var pinned = Array.FindAll(able, hand => question.Hands[hand].Id == job.Pin?.Hand);
        return pinned.Length > 0 ? pinned : able;
    }

    public static int Of(decimal hours) => (int)Math.Round(hours * 60);

    private static int At(PlanQuestion question, DateOnly? day) =>
        day is { } when ? Math.Max(0, when.DayNumber - question.Start.DayNumber) * HandCalendar.Day : 0;
}

/// <summary>When each job is done, by whom and where; or how good that is.</summary>
internal sealed class Timetable(int jobs)
{
    public int[] Start { get; } = new int[jobs];
    public int[] End { get; } = new int[jobs];

    /// <summary>When what waits for it goes on.</summary>
    public int[] Through { get; } = new int[jobs];

    /// <summary>Who does it; −1 for nobody.</summary>
    public int[] Hand { get; } = new int[jobs];

    /// <summary>Which of the places of its kind it takes; −1 for none.</summary>
    public int[] Unit { get; } = new int[jobs];

    /// <summary>What it costs: minutes that aircraft are here, and are late; less is better.</summary>
    public double Cost { get; private set; }

    /// <summary>When each aircraft is ready.</summary>
    public int[] ReadyOf(Workshop shop)
    {
        var ready = new int[shop.Registrations.Count];
        for (var job = 0; job < Start.Length; job++)
            ready[shop.Aircraft[job]] = Math.Max(ready[shop.Aircraft[job]], Through[job]);
        return ready;
    }

    public void Weigh(Workshop shop)
    {
        var (cost, ready) = (0.0, ReadyOf(shop));
        for (var aircraft = 0; aircraft < ready.Length; aircraft++)
            cost += ready[aircraft] + ((double)Workshop.Late * Math.Max(0, ready[aircraft] - shop.Wanted[aircraft]));
        // The sum of the ends decides between what is alike for every aircraft.
        var ends = 0.0;
        for (var job = 0; job < Start.Length; job++)
        {
            ends += End[job];
            if (shop.Jobs[job].Finds)
                cost += Workshop.Find * End[job];
        }
        Cost = cost + (ends * Workshop.Sooner);
    }
}
