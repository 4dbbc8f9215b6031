using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Surveys;

/// <summary>A reason to stop looking: what was found passes the buyer's limit, or ends the deal.</summary>
/// <param name="Words">Why.</param>
/// <param name="Numbers">Numbers of what ends the deal.</param>
/// <param name="Work">What the buyer's part of the work likely comes to.</param>
public sealed record SurveyStop(string Words, IReadOnlyList<int> Numbers, decimal Work);

/// <summary>An engine or propeller as a survey weighs it.</summary>
/// <param name="Stay">Where it sits.</param>
/// <param name="Said">What was said of it in this survey; null for nothing.</param>
/// <param name="Hours">Hours since its overhaul, or since new; null where nobody knows.</param>
/// <param name="Interval">Hours from one overhaul to the next; null where nobody said.</param>
/// <param name="ByCalendar">The share of its years that is used up; null where it has none, or nobody knows.</param>
/// <param name="Used">The share that is run, by hours or by years; null where nobody can tell.</param>
/// <param name="Use">What is used up, once what was chosen for it is done; null where that can't be told.</param>
/// <param name="Missing">What is missing to tell it, in words; empty where nothing is.</param>
public sealed record PowerStand(Installation Stay, PowerSaid? Said, decimal? Hours, decimal? Interval, decimal? ByCalendar, decimal? Used,
    PowerUse? Use, string Missing)
{
    public string Title => Named(Stay);

    /// <summary>"Engine left", "Propeller".</summary>
    public static string Named(Installation stay) => $"{stay.Component.Kind}{(stay.Position.Length > 0 ? $" {stay.Position}" : "")}";
}

/// <summary>Something that falls due within the year, with what it costs.</summary>
/// <param name="Entry">The due item.</param>
/// <param name="Cost">What it costs; null where nobody said.</param>
/// <param name="WithPower">It is the overhaul that the engine's or propeller's hours count already: it is in no sum twice.</param>
public sealed record DueStand(DueEntry Entry, Spread? Cost, bool WithPower);

/// <summary>A task that nobody has looked at, with what is held in reserve for it.</summary>
/// <param name="Task">The task.</param>
/// <param name="Reserve">What is held in reserve.</param>
/// <param name="IsUsual">It is what the worksheet says; false where somebody said otherwise.</param>
public sealed record OpenLook(InspectionTask Task, decimal Reserve, bool IsUsual);

/// <summary>A finding as a survey weighs it.</summary>
/// <param name="Found">What was found.</param>
/// <param name="Mark">What the survey says of it.</param>
/// <param name="Cost">What it costs with tax; null where it has no price.</param>
public sealed record FindingStand(Discrepancy Found, SurveyMark Mark, Spread? Cost);

/// <summary>How a survey stands: everything that its money is made of, and whether it says to stop.</summary>
public sealed class SurveyStand
{
    private readonly Inspection inspection;

    /// <param name="inspection">The survey's walk, with tasks and what was found.</param>
    /// <param name="aircraft">Its aircraft with its parts.</param>
    /// <param name="due">What is due on it.</param>
    /// <exception cref="InvalidOperationException">It is no survey.</exception>
    public SurveyStand(Inspection inspection, Aircraft aircraft, DueLine due)
    {
        this.inspection = inspection;
        Survey = inspection.Survey ?? throw new InvalidOperationException("It is no survey.");
        var house = inspection.House;
        // What falls away with a choice is in no sum, as in the estimate.
        var lines = JobEstimate.Of(inspection).Lines.Where(line => line.FallsAwayWith is null).ToList();
        Findings = [.. lines.Select(line => line.Priced).OfType<Discrepancy>().Where(found => found.IsOpen).Select(found =>
            new FindingStand(found, Survey.MarkOf(found.Number), Gross(found.Price(house), house)))];
        Power = [.. aircraft.Engines.Concat(aircraft.Propellers).Select(stay => PowerOf(stay, aircraft, due))];
        Due = [.. DueWithin(due).Select(entry => new DueStand(entry, Survey.Due.FirstOrDefault(said => said.Item == entry.Item.Id)?.Cost,
            entry.Item.Kind == DueKind.Overhaul
                && Power.Any(power => power.Use is not null && power.Stay.ComponentId == entry.Item.ComponentId)))];
        NotLookedAt = [.. inspection.NotLookedAt.Select(task => Survey.Reserves.FirstOrDefault(said => said.Key == $"{task.Id:N}")
            is { } said ? new OpenLook(task, said.Sum, false) : new OpenLook(task, task.Sampling?.Worth ?? 0, true))];
        Unanswered = [.. inspection.Unanswered(aircraft)];
        OwnReserves = [.. Survey.Reserves.Where(said => said.What.Length > 0)];
        Choices = [.. inspection.Choices.Where(choice => choice.Number is null)];
        Money = new(new(Survey.Terms.Asking, Survey.Terms.InOrder?.Price,
            [
                .. Findings.Where(found => found.Cost is not null || found.Mark.Stops).Select(found => new SurveyFinding(
                    $"{found.Found.Number:00}", found.Found.What, found.Cost ?? Spread.Of(0),
                    found.Found.Class == DiscrepancyClass.Airworthiness, found.Mark.SellerPays, found.Mark.Stops)),
                .. Choices.Where(choice => choice.Chose is not null).Select(choice => Taking(choice, choice.Chose!)),
            ],
            [.. Due.Where(one => one is { WithPower: false, Cost: not null }).Select(one => new DueCost(one.Entry.Title, one.Cost!.Value))],
            [.. Power.Select(power => power.Use).OfType<PowerUse>()],
            // What is still to be looked at is held in reserve once the looking has ended, or where somebody says so before.
            ReservesOf(looks => !inspection.InWork || !looks.IsUsual), Survey.Terms.Limit, Survey.Rules));
        Reasons = new(Money, house);
        IfEnded = inspection.InWork ? new(Money.Question with { Reserves = ReservesOf(_ => true) }) : Money;
    }

    public Survey Survey { get; }

    /// <summary>What was found and is open, worst first.</summary>
    public IReadOnlyList<FindingStand> Findings { get; }

    public IReadOnlyList<PowerStand> Power { get; }

    /// <summary>What falls due within the year, what is due already, and what can't be told.</summary>
    public IReadOnlyList<DueStand> Due { get; }

    /// <summary>What nobody has looked at, in walking order.</summary>
    public IReadOnlyList<OpenLook> NotLookedAt { get; }

    /// <summary>What was read, is judged bad, and isn't on the list: it is in no sum.</summary>
    public IReadOnlyList<Judged> Unanswered { get; }

    /// <summary>What is held in reserve beside the tasks.</summary>
    public IReadOnlyList<ReserveSaid> OwnReserves { get; }

    /// <summary>Ways side by side that are about more than a line, such as an overhaul or another power unit.</summary>
    public IReadOnlyList<Choice> Choices { get; }
    public SurveyMoney Money { get; }
    public SurveyReasons Reasons { get; }

    /// <summary>The money if the looking ended now: what isn't looked at is then held in reserve.</summary>
    public SurveyMoney IfEnded { get; }

    /// <summary>It goes on, and something is still to be looked at: what is said of its money is said so far.</summary>
    public bool IsSoFar => inspection.InWork && (NotLookedAt.Count > 0 || Unanswered.Count > 0);

    /// <summary>The money if one of the ways side by side is taken.</summary>
    public SurveyMoney If(Choice choice, Alternative way)
    {
        var question = Money.Question;
        var others = Choices.Where(other => other.Id != choice.Id && other.Chose is not null).Select(other => other.Chose!).Append(way)
            .SelectMany(taken => taken.FallsAway).ToHashSet();
        return new(question with
        {
            Findings =
            [
                .. question.Findings.Where(found => found.Id != Key(choice)
                    && !(int.TryParse(found.Id, out var number) && others.Contains(number))), Taking(choice, way),
            ],
            Power = [.. Power.Where(power => power.Use is not null).Select(power => power.Said?.Choice == choice.Id
                ? power.Use! with { Used = BeginsAnew(way) ? 0 : power.Used ?? 0 }
                : power.Use!)],
        });
    }

    private static string Key(Choice choice) => choice.Title;

    private SurveyFinding Taking(Choice choice, Alternative way) => new(Key(choice), way.Name,
        Gross(way.Estimate.Price(inspection.House.HourlyRates()), inspection.House) ?? Spread.Of(0));

    private static bool BeginsAnew(Alternative? way) =>
        way?.Kind is AlternativeKind.Overhaul or AlternativeKind.Exchange or AlternativeKind.Replace;

    /// <summary>Findings without a price: they are in no sum.</summary>
    public IEnumerable<FindingStand> Unpriced => Findings.Where(found => found.Cost is null
        && found.Found.Class is not (DiscrepancyClass.Watch or DiscrepancyClass.KnownMark));

    /// <summary>What falls due and has no price: it is in no sum.</summary>
    public IEnumerable<DueStand> UnpricedDue => Due.Where(one => one is { WithPower: false, Cost: null });

    /// <summary>What would have to be known to say more, in words.</summary>
    public IReadOnlyList<string> CannotSay =>
    [
        .. Survey.Terms.InOrder is null ? ["what such an aircraft fetches in order: without it no price is fair or not"]
            : Array.Empty<string>(),
        .. Power.Where(power => power.Missing.Length > 0).Select(power => $"{power.Title.ToLowerInvariant()}: {power.Missing}"),
        .. Unanswered.Select(bad => $"{bad.What.ToLowerInvariant()}, {bad.Saw}: judged bad, and not on the list"),
        .. Count(Unpriced.Count(), "finding has no price", "findings have no price"),
        .. Count(UnpricedDue.Count(), "thing that falls due has no price", "things that fall due have no price"),
    ];

    private static IEnumerable<string> Count(int count, string one, string many) =>
        count == 0 ? [] : [$"{count} {(count == 1 ? one : many)}, and {(count == 1 ? "is" : "are")} in no sum"];

    /// <summary>Minutes that what isn't looked at takes, and that what is looked at took.</summary>
    public (int Left, int Done) Minutes => (NotLookedAt.Sum(look => look.Task.Sampling?.Minutes ?? 0),
        inspection.Walk.Where(task => task.Verdict != TaskVerdict.NotYet).Sum(task => task.Sampling?.Minutes ?? 0));

    /// <summary>How many minutes of the agreed hours are left; null where none were agreed.</summary>
    public int? MinutesAgreed => Survey.Terms.Hours is { } hours ? (int)Math.Round(hours * 60) - Minutes.Done : null;

    /// <summary>Why to stop; null where there is no reason, or the buyer wants it looked at further all the same.</summary>
    public SurveyStop? Stop
    {
        get
        {
            if (!inspection.InWork || Why is not { } stop)
                return null;
            return Survey.WentOn is { } went && stop.Numbers.All(went.Stops.Contains) && (stop.Work <= went.Work || !Money.PassesLimit)
                ? null
                : stop;
        }
    }

    /// <summary>Why to stop, whether the buyer went on or not; null for no reason.</summary>
    public SurveyStop? Why
    {
        get
        {
            if (Money.Stops.Count == 0 && !Money.PassesLimit)
                return null;
            var house = inspection.House;
            var stops = Findings.Where(found => found.Mark.Stops).ToList();
            List<string> words = [.. stops.Select(found => $"{found.Found.Number:00}, {found.Found.What}: ends the deal at any price")];
            if (Money.PassesLimit)
                words.Add($"the work likely comes to {house.Sum(Money.Work.Likely)}, above the buyer’s limit of "
                    + house.Sum(Survey.Terms.Limit!.Value));
            return new(string.Join("; ", words), [.. stops.Select(found => found.Found.Number)], Money.Work.Likely);
        }
    }

    private List<Reserve> ReservesOf(Func<OpenLook, bool> which) =>
    [
        .. NotLookedAt.Where(look => look.Reserve > 0 && which(look)).Select(look => new Reserve(look.Task.Text, look.Reserve)),
        .. OwnReserves.Where(said => said.Sum > 0).Select(said => new Reserve(said.What, said.Sum)),
    ];

    /// <summary>The state that its verdict shows: as long as something is to be looked at, nothing is good.</summary>
    public State Shape => Money.Verdict switch
    {
        SurveyVerdict.Fair => IsSoFar ? State.NotYet : State.Good,
        SurveyVerdict.Negotiate => State.Watch,
        SurveyVerdict.WalkAway => State.Airworthiness,
        _ => State.CannotTell,
    };

    /// <summary>Its verdict in words: "so far nothing against the price".</summary>
    public string Verdict => Money.Verdict switch
    {
        null => "can’t say yet",
        SurveyVerdict.Fair when IsSoFar => "so far nothing against the price",
        { } verdict => (IsSoFar ? "so far " : "") + verdict.InWords() + (verdict == SurveyVerdict.Negotiate
            ? $" by {inspection.House.Sum(Math.Round(Money.By ?? 0))}" : ""),
    };

    private static Spread? Gross(Spread? price, HouseRules house) =>
        price is { } net ? new(house.Taxed(net.Low), house.Taxed(net.Likely), house.Taxed(net.High)) : null;

    private IEnumerable<DueEntry> DueWithin(DueLine due)
    {
        var until = due.Now.Today.AddMonths(Survey.Rules.DueWithinMonths);
        return due.Entries.Where(entry => entry.Status.State is DueState.Overdue or DueState.Grace or DueState.Unknown
            || entry.Status.Forecast <= until);
    }

    private PowerStand PowerOf(Installation stay, Aircraft aircraft, DueLine due)
    {
        var said = Survey.Power.FirstOrDefault(one => one.ComponentId == stay.ComponentId);
        var overhaul = due.Entries.FirstOrDefault(entry => entry.Item.Kind == DueKind.Overhaul
            && entry.Item.ComponentId == stay.ComponentId);
        // Since its overhaul; one that never had any, since new.
        var hours = said?.Hours ?? (stay.SinceOverhaul(aircraft.TimeInService)
            ?? (stay.Component.LastOverhaul is null ? stay.TimeInService(aircraft.TimeInService) : null))?.Value;
        var interval = said?.Interval ?? overhaul?.Item.Interval.EveryHours;
        var last = overhaul?.Item.Last?.On ?? stay.Component.LastOverhaul?.On;
        var byCalendar = overhaul?.Item.Interval.EveryMonths is { } months && last is { } since
            ? Math.Round((due.Now.Today.DayNumber - since.DayNumber) / (months * 30.44m), 3)
            : (decimal?)null;
        var byHours = hours is { } run && interval is > 0 and var every ? run / every : (decimal?)null;
        var missing = string.Join(", ", new[]
        {
            byHours is null && byCalendar is null && hours is null ? "its hours since overhaul" : "",
            byHours is null && byCalendar is null && interval is null ? "hours from one overhaul to the next" : "",
            said?.Overhaul is null ? "what an overhaul costs" : "",
        }.Where(words => words.Length > 0));
        decimal? used = byHours is null && byCalendar is null ? null : Math.Max(byHours ?? 0, byCalendar ?? 0);
        var anew = BeginsAnew(inspection.Choices.FirstOrDefault(choice => choice.Id == said?.Choice)?.Chose);
        var use = missing.Length > 0 || used is null ? null : new PowerUse(PowerStand.Named(stay), anew ? 0 : used.Value,
            said!.Supposed is { } supposed && interval is > 0 and var of ? supposed / of : Survey.Rules.Supposed, said.Overhaul!.Value);
        return new(stay, said, hours, interval, byCalendar, used, use, missing.Length > 0 ? $"{missing} not said" : "");
    }
}
