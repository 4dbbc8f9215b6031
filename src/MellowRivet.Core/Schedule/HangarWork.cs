using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Parts;

namespace MellowRivet.Core.Schedule;

/// <summary>How far a zone of a walk is.</summary>
/// <param name="Key">Its key.</param>
/// <param name="Title">Its title.</param>
/// <param name="Tasks">Its tasks.</param>
/// <param name="Left">Those that aren't answered yet.</param>
public sealed record ZoneLeft(string Key, string Title, int Tasks, int Left);

/// <summary>An inspection in work, with all that says what is still to do on it.</summary>
/// <param name="Inspection">The inspection with what was found.</param>
/// <param name="Registration">Its aircraft.</param>
/// <param name="Zones">Its zones, those with long waits first, the others in walking order.</param>
/// <param name="Due">Due items that are done with it and aren't done yet.</param>
/// <param name="Parts">Parts of the shop's list for its aircraft.</param>
/// <param name="Booked">Hours booked, by line.</param>
public sealed record WorkInHand(Inspection Inspection, string Registration, IReadOnlyList<ZoneLeft> Zones, IReadOnlyList<DueWork> Due,
    IReadOnlyList<OrderedPart> Parts, IReadOnlyDictionary<string, decimal> Booked);

/// <summary>
/// What is still to do on the aircraft in work, as jobs of a plan: the inspection zone by zone, what was found, what falls due, bulletins,
/// and at the end the hours of whoever inspects and signs.
/// </summary>
public static class HangarWork
{
    // What is open takes some time yet, whatever was booked on it; the product's own.
    private const decimal LeastLeft = 0.1m;

    /// <summary>The inspector's part of an inspection, which comes last.</summary>
    public const string Close = "close";

    /// <summary>The question that a shop's plan answers.</summary>
    /// <param name="work">Every inspection in work.</param>
    /// <param name="hands">Who works.</param>
    /// <param name="places">Places of which there are only so many.</param>
    /// <param name="now">The moment, by the shop's clock.</param>
    public static PlanQuestion Question(IReadOnlyList<WorkInHand> work, IReadOnlyList<Hand> hands, IReadOnlyDictionary<string, int> places,
        DateTimeOffset now)
    {
        var today = new DateOnly(now.Year, now.Month, now.Day);
        var (jobs, unsaid) = (new List<PlanJob>(), new List<PlanProblem>());
        foreach (var one in work)
            new OfInspection(one, today, now, jobs, unsaid).Add();
        return new(today, hands, jobs, places, work.Where(one => one.Inspection.Promised is not null).GroupBy(one => one.Registration)
            .ToDictionary(aircraft => aircraft.Key, aircraft => aircraft.Min(one => one.Inspection.Promised!.On)))
        {
            // By the quarter of an hour: a minute more or less is no other plan.
            FromMinute = ((now.Hour * 60) + now.Minute) / 15 * 15, Unsaid = unsaid,
        };
    }

    private sealed class OfInspection(WorkInHand work, DateOnly today, DateTimeOffset now, List<PlanJob> jobs, List<PlanProblem> unsaid)
    {
        private readonly Inspection inspection = work.Inspection;
        private readonly Dictionary<string, List<string>> byLine = [];
        private readonly int first = jobs.Count;

        public void Add()
        {
            var lines = JobEstimate.Of(inspection).Lines.Where(line => line.FallsAwayWith is null
                && line.Priced.Decided() != Decision.Declined).Concat(inspection.Unpriced(work.Due).Select(PricedLine.Of)).ToList();
            var itself = lines.Find(line => line.Kind == WorkKind.Inspection);
            if (itself is not null)
                Zones(itself.Priced.Estimate);
            foreach (var (line, turn) in lines.Select((line, turn) => (line, turn)))
                if (line.Kind != WorkKind.Inspection && IsToDo(line))
                    Line(line, 1_000 + turn);
            foreach (var choice in inspection.Choices.Where(choice => choice.Chosen is null))
                Unsaid(new(inspection.Id, "choices", inspection.WorkOrder, false), choice.Key, "hours",
                    $"{choice.Title}: nobody has chosen yet which way", true);
            Cures();
            Tie();
            Loose();
            var others = jobs.Skip(first).Select(job => job.Id).ToList();
            if (itself?.Priced.Estimate?.Labour is { Count: > 1 } labour && labour.FirstOrDefault(one => one.Skill == Skill.Inspector) is
                { } signing)
                Put(new(inspection.Id, Inspection.ItselfKey, inspection.WorkOrder, true), Close, new PlanJob(Close, work.Registration)
                {
                    Title = $"{inspection.WorkOrder}: inspect and close", Skill = Skill.Inspector.InWords(), Hours = signing.Hours,
                    After = others, Turn = 9_999,
                });
        }

        // The inspection's own hours, by how many of its tasks are left in which zone: a zone knows no hours of its own.
        private void Zones(Estimate? estimate)
        {
            var zones = work.Zones.Where(zone => inspection.BulletinIn(zone.Key) is null).ToList();
            var (all, line) = (zones.Sum(zone => zone.Tasks), new WorkLine(inspection.Id, Inspection.ItselfKey, inspection.WorkOrder,
                true));
            if (estimate is not { Labour.Count: > 0 })
            {
                if (zones.Exists(zone => zone.Left > 0))
                    Unsaid(line, Inspection.ItselfKey, "hours",
                        $"{inspection.WorkOrder}: nobody has said how long the inspection itself takes",
                        true);
                return;
            }
            foreach (var (zone, turn) in zones.Select((zone, turn) => (zone, turn)))
                foreach (var labour in estimate.Labour.Where(one => estimate.Labour.Count == 1 || one.Skill != Skill.Inspector))
                    if (zone.Left > 0)
                        Put(line with { Key = zone.Key }, $"zone-{zone.Key}{(estimate.Labour.Count(one => one.Skill != Skill.Inspector) > 1
                                ? $"/{labour.Skill.InWords()}" : "")}", new PlanJob("", work.Registration)
                        {
                            Title = $"{zone.Title}: inspect", Skill = labour.Skill.InWords(),
                            Hours = labour.Hours.Times((decimal)zone.Left / all), Finds = true, Turn = turn,
                        });
        }

        private bool IsToDo(PricedLine line) => line.Priced switch
        {
            Discrepancy found => found.IsOpen
                && (found.Estimate is not null || found.Class is not (DiscrepancyClass.Watch or DiscrepancyClass.KnownMark)),
            PricedWork { Kind: WorkKind.Due } due => work.Due.Any(item => due.Key == $"due-{item.Id:N}"),
            PricedWork { Kind: WorkKind.Bulletin } bulletin => ZoneOf(bulletin) is not { Left: 0 },
            _ => true,
        };

        private ZoneLeft? ZoneOf(PricedWork bulletin) => work.Zones.FirstOrDefault(zone => $"bulletin-{zone.Key}" == bulletin.Key);

        private void Line(PricedLine line, int turn)
        {
            var found = line.Priced as Discrepancy;
            // Who was asked has to answer, also in a shop that needn't ask: a part that is ordered before is the shop's own.
            var agreed = line.Priced.Decided() == Decision.Agreed || (line.Priced.Decided() == Decision.Open
                && (found is null ? !inspection.House.AskFirst : inspection.Terms.AsksFirst(found) is null));
            var (of, title) = (new WorkLine(inspection.Id, line.Key, inspection.WorkOrder, agreed),
                found is null ? line.Title : $"{line.Key} {line.Title}");
            var estimate = line.Priced.Estimate ?? Estimate.Nothing;
            var wait = Wait(line, estimate, of, title);
            if (estimate.Labour.Count == 0)
            {
                Unsaid(of, line.Key, "hours", $"{title}: nobody has said how long it takes", true);
                // What it waits for is waited for all the same, and ordered.
                if (wait.LeadDays is not null || wait.Part.Length > 0 || estimate is { Outside.Days: > 0, PartsBy: null })
                    byLine[line.Key] = [Put(of, line.Key, wait with
                    {
                        Title = title, Turn = turn, OutsideDays = estimate.PartsBy is null ? estimate.Outside?.Days ?? 0 : 0,
                        CureHours = estimate.CureHours ?? 0,
                    })];
                return;
            }
            var left = Left(line, estimate);
            var main = estimate.Labour.Where(one => estimate.Labour.Count == 1 || one.Skill != Skill.Inspector).ToList();
            // What goes out is taken off before, and fitted after: half of the hours each. Once a day for it is known, only that counts.
            var goesOut = estimate.Outside?.Days is > 0 && estimate.PartsBy is null;
            List<string> done = [];
            foreach (var (labour, index) in main.Select((labour, index) => (labour, index)))
            {
                var job = wait with
                {
                    Title = title, Skill = labour.Skill.InWords(), Hours = labour.Hours.Times(goesOut ? left / 2 : left), Turn = turn,
                    Place = index == 0 && estimate.Place.Length > 0 ? estimate.Place.ToLowerInvariant() : null,
                    CureHours = index == 0 && !goesOut ? estimate.CureHours ?? 0 : 0,
                    OutsideDays = index == 0 && goesOut ? estimate.Outside!.Days!.Value : 0,
                };
                done.Add(Put(of, main.Count == 1 ? line.Key : $"{line.Key}/{labour.Skill.InWords()}", job));
            }
            if (goesOut)
                done = [Put(of, $"{line.Key}/back", new PlanJob("", work.Registration)
                {
                    Title = $"{title}: back in", Skill = main[0].Skill.InWords(), Hours = main[0].Hours.Times(left / 2), After = [.. done],
                    Turn = turn, CureHours = estimate.CureHours ?? 0,
                })];
            if (main.Count < estimate.Labour.Count)
                done.Add(Put(of, $"{line.Key}/{Skill.Inspector.InWords()}", new PlanJob("", work.Registration)
                {
                    Title = $"{title}: inspect", Skill = Skill.Inspector.InWords(), After = [.. done], Turn = turn,
                    Hours = estimate.Labour.Single(one => one.Skill == Skill.Inspector).Hours.Times(left),
                }));
            byLine[line.Key] = done;
        }

        private decimal Left(PricedLine line, Estimate estimate)
        {
            if (line.Priced is PricedWork { Kind: WorkKind.Bulletin } bulletin && ZoneOf(bulletin) is { Tasks: > 0 } zone)
                return (decimal)zone.Left / zone.Tasks;
            return estimate.Hours is { Mean: > 0 and var mean } && work.Booked.GetValueOrDefault(line.Key) is > 0 and var booked
                ? Math.Max(LeastLeft, 1 - (booked / mean)) : 1;
        }

        // What it waits for: the owner, parts that are ordered, parts that are still to be.
        private PlanJob Wait(PricedLine line, Estimate estimate, WorkLine of, string title)
        {
            var wait = new PlanJob("", work.Registration);
            if (!of.IsAgreed)
                wait = wait with
                {
                    NotBefore = today.AddDays(1),
                    Because = line.Priced.Decided() == Decision.Asked ? "the owner hasn’t answered" : "the owner is to be asked",
                };
            var ordered = work.Parts.Where(part => part.State is not (PartState.Fitted or PartState.SentBack)
                && ((part.InspectionId == inspection.Id && part.Key == line.Key)
                    || (line.Priced is Discrepancy { CarriedFrom: not null }
                        && estimate.Parts.Any(one => (one.What, one.Number) == (part.What, part.Number))))).ToList();
            var expected = ordered.Where(part => part.OrderedOn is not null && part.Came < part.Quantity).Select(part => (part.What,
                On: part.ExpectedOn ?? (estimate.Parts.FirstOrDefault(one => one.What == part.What)?.LeadDays is { } days
                    ? part.OrderedOn!.Value.AddDays(days) : (DateOnly?)null))).ToList();
            foreach (var (what, _) in expected.Where(part => part.On is null))
                Unsaid(of, line.Key, "lead", $"{title}: {what} is ordered, and nobody has said when it comes; planned as if it were here",
                    false);
            var state = (line.Priced as Discrepancy)?.Disposition;
            // Work that has begun since has its parts.
            if (ordered.Count == 0 && estimate.PartsBy is { } by && (by >= today || state != Disposition.InWork))
                expected.Add((estimate.Slowest?.What ?? estimate.Outside?.What ?? "its parts", by));
            foreach (var (what, on) in expected.Where(part => part.On < today))
                Unsaid(of, line.Key, "lead",
                    $"{title}: {what} should have come on {on:yyyy-MM-dd}; planned as if it came tomorrow: ask where it is",
                    false);
            if (expected.Where(part => part.On is not null).Select(part => (part.What, On: part.On < today ? today.AddDays(1)
                : part.On!.Value))
                .OrderByDescending(part => part.On).FirstOrDefault() is { What: not null } last && !(wait.NotBefore > last.On))
                wait = wait with { NotBefore = last.On, Because = $"{last.What} is expected", Part = last.What };
            var toOrder = estimate.PartsBy is not null && ordered.Count == 0 ? [] : estimate.Parts.Where(part => !part.OnShelf
                && part is not { What: Estimate.PartsAtOnce, Number.Length: 0 }
                && !ordered.Exists(one => one.What == part.What && (one.OrderedOn is not null || one.Came > 0))).ToList();
            if (state == Disposition.PartsAwaited && ordered.Count + expected.Count + toOrder.Count == 0)
                Unsaid(of, line.Key, "lead", $"{title}: it waits for parts, and nobody has said until when; planned as if they were here",
                    false);
            foreach (var part in toOrder.Where(part => part.LeadDays is null))
                Unsaid(of, line.Key, "lead", $"{title}: nobody has said how many days {part.What} takes; planned as if it were here",
                    false);
            return toOrder.Where(part => part.LeadDays > 0).MaxBy(part => part.LeadDays) is { } slowest
                ? wait with { LeadDays = slowest.LeadDays, Part = slowest.What } : wait;
        }

        private void Cures()
        {
            foreach (var (cure, index) in inspection.Cures.Where(cure => cure.Until > now).Select((cure, index) => (cure, index)))
                Put(new(inspection.Id, Inspection.ItselfKey, inspection.WorkOrder, true), $"cure-{index + 1}",
                    new PlanJob("", work.Registration)
                    {
                        Title = $"{cure.Of.InWords()} cures", CureHours = Math.Round((decimal)(cure.Until - now).TotalHours, 2), Turn = 0,
                    });
        }

        // Lines that come after others wait for the last jobs of those; what is done or declined is waited for no more.
        private void Tie()
        {
            var after = JobEstimate.Of(inspection).Lines.ToDictionary(line => line.Key, line => line.Priced.Estimate?.After ?? []);
            for (var index = first; index < jobs.Count; index++)
                if (jobs[index].Line is { } line && after.GetValueOrDefault(line.Key) is { Count: > 0 } before)
                    jobs[index] = jobs[index] with
                    {
                        After = [.. jobs[index].After, .. before.SelectMany(key => byLine.GetValueOrDefault(key) ?? [])
                            .Where(id => id != jobs[index].Id)],
                    };
        }

        // A pin holds a job by its key: one whose line was split among other hands since is told, and not forgotten unseen.
        private void Loose()
        {
            foreach (var pin in inspection.Pins.Where(pin => jobs.Skip(first).All(job => job.Id != $"{inspection.WorkOrder}/{pin.Key}")))
                if (jobs.Skip(first).FirstOrDefault(job => job.Line?.Key == pin.Key.Split('/')[0]) is { Line: { } of } now)
                    Unsaid(of, pin.Key, "pin", $"{now.Title}: what was pinned of it is other jobs now; pin it again", false);
        }

        private string Put(WorkLine of, string key, PlanJob job)
        {
            var id = $"{inspection.WorkOrder}/{key}";
            var pin = inspection.Pins.FirstOrDefault(one => one.Key == key);
            jobs.Add(job with
            {
                Id = id, Line = of,
                Pin = pin is null ? null : new(pin.Hand is { } hand ? ShopHands.Id(hand) : null, pin.Day),
            });
            return id;
        }

        private void Unsaid(WorkLine of, string key, string field, string words, bool leftOut) =>
            unsaid.Add(new($"{inspection.WorkOrder}/{key}", field, $"{words}.", leftOut, work.Registration, of));
    }
}
