using MellowRivet.Core.Schedule;

namespace MellowRivet.Web.Drawings;

/// <summary>A day of the calendar; one on which nobody works is narrow.</summary>
public sealed record DayColumn(DateOnly Day, double X, double Width, bool Works);

/// <summary>A piece of a job within one day, in its hand's row.</summary>
public sealed record WorkBlock(PlacedJob Placed, double X, double Y, double Width, double Height, IReadOnlyList<string> Label);

/// <summary>A hand's row, with the days on which they don't work.</summary>
public sealed record HandRow(Hand Hand, HandLoad Load, double Y, double Height, IReadOnlyList<WorkBlock> Blocks,
    IReadOnlyList<DayColumn> Off);

/// <summary>Something that an aircraft waits for; where there is no room behind its end its words stand before it.</summary>
public sealed record WaitLine(double From, double To, double Y, string Kind, string Words)
{
    // What a letter of them takes.
    private const double Letter = 5.1, Room = 210;

    public bool IsAtEnd => To > HangarCalendar.Width - Room;

    /// <summary>Where its words begin, or end.</summary>
    public double WordsAt => IsAtEnd ? Math.Min(To, HangarCalendar.Width) - 4 : To + 5;

    /// <summary>Where the line ends, so that it doesn't run through its words.</summary>
    public double LineTo => IsAtEnd ? Math.Max(From, WordsAt - (Words.Length * Letter)) : To;
}

/// <summary>A mark on an aircraft's lane: a day, or that it lies past the edge.</summary>
public sealed record DayMark(double X, bool IsPast, DateOnly Day);

/// <summary>An aircraft's lane.</summary>
public sealed record AircraftLane(AircraftReady Ready, double Y, double Height, IReadOnlyList<(double From, double To)> Work,
    IReadOnlyList<WaitLine> Waits, DayMark Likely, DayMark NineInTen, DayMark? Wanted);

/// <summary>A job on a place, as long as it holds it.</summary>
public sealed record PlaceSpan(PlacedJob Placed, double From, double To, int Unit);

/// <summary>A place of which there are only so many, with who is on it.</summary>
public sealed record PlaceRow(string Name, double Y, double Height, IReadOnlyList<PlaceSpan> Spans);

/// <summary>
/// The plan of the hangar as it is drawn: above, a lane for each aircraft with when somebody is on it, what it waits for and when it is
/// ready; below, a row for each hand, with a day's jobs one under the other as the hours go.
/// </summary>
public sealed class HangarCalendar
{
    public const int Width = 1_236, Label = 132, Head = 24, Days = 14;
    private const double Narrow = 18, HourHeight = 15, IdleHeight = 32, LaneHeight = 26, WaitHeight = 12, Gap = 8,
        LetterWidth = 6.3, LineHeight = 12, PlaceHeight = 18;

    // What of a day a lane shows: nobody is in the hangar at night.
    private const double DayFrom = 7, DayTo = 18;

    private readonly HangarPlan plan;
    private readonly List<(PlacedJob Job, DateTime From, DateTime To)> pieces;

    public HangarCalendar(HangarPlan plan, DateOnly from)
    {
        this.plan = plan;
        pieces = [.. plan.Hands.SelectMany(hand => plan.Pieces(hand.Id))];
        From = from;
        Columns = Laid(from);
        var y = Head + Gap;
        var lanes = new List<AircraftLane>();
        foreach (var ready in plan.Aircraft)
        {
            var lane = Lane(ready, y);
            lanes.Add(lane);
            y += lane.Height + 4;
        }
        Aircraft = lanes;
        HandsAt = (int)y + 6;
        var at = (double)HandsAt + Head;
        var rows = new List<HandRow>();
        foreach (var hand in plan.Hands)
        {
            rows.Add(Row(hand, at));
            at += rows[^1].Height + Gap;
        }
        Hands = rows;
        var places = new List<PlaceRow>();
        foreach (var place in plan.Jobs.Where(job => job.Job.Place is not null).GroupBy(job => job.Job.Place!))
            if (Place(place.Key, place, at) is { Spans.Count: > 0 } row)
            {
                places.Add(row);
                at += row.Height + Gap;
            }
        Places = places;
        Height = at + 4;
    }

    public DateOnly From { get; }
    public IReadOnlyList<DayColumn> Columns { get; }
    public IReadOnlyList<AircraftLane> Aircraft { get; }
    public IReadOnlyList<HandRow> Hands { get; }

    public IReadOnlyList<PlaceRow> Places { get; }

    /// <summary>Where the hands' part begins.</summary>
    public int HandsAt { get; }
    public double Height { get; }

    private List<DayColumn> Laid(DateOnly from)
    {
        var days = Enumerable.Range(0, Days).Select(from.AddDays).ToList();
        bool Works(DateOnly day) => plan.Hands.Any(hand => hand.Week.WorksOn(day));
        var wide = Math.Max(1, days.Count(Works));
        var width = (Width - Label - (Narrow * (Days - wide))) / wide;
        var x = (double)Label;
        return [.. days.Select(day =>
        {
            var column = new DayColumn(day, x, Works(day) ? width : Narrow, Works(day));
            x += column.Width;
            return column;
        })];
    }

    private double X(DateTime at)
    {
        var day = HangarPlan.DayOf(at);
        if (day < From)
            return Label;
        if (day >= From.AddDays(Days))
            return Width;
        var column = Columns[day.DayNumber - From.DayNumber];
        return column.X + (column.Width * Math.Clamp((at.TimeOfDay.TotalHours - DayFrom) / (DayTo - DayFrom), 0, 1));
    }

    private DayMark Mark(DateOnly day)
    {
        var past = day >= From.AddDays(Days);
        return new(past ? Width - 8 : day < From ? Label
            : Columns[day.DayNumber - From.DayNumber] is var column ? column.X + column.Width - 6 : 0, past, day);
    }

    private AircraftLane Lane(AircraftReady ready, double y)
    {
        var jobs = plan.Jobs.Where(job => job.Job.Aircraft == ready.Aircraft).ToList();
        var work = pieces.Where(piece => piece.Job.Job.Aircraft == ready.Aircraft).Select(piece => (X(piece.From), X(piece.To)))
            .Where(piece => piece.Item2 > Label && piece.Item1 < Width && piece.Item2 > piece.Item1).Distinct().ToList();
        var waits = jobs.SelectMany(Waits).OrderByDescending(wait => wait.To - wait.From).DistinctBy(wait => wait.Words).Take(3)
            .Select((wait, row) => new WaitLine(X(wait.From), X(wait.To), y + LaneHeight + (row * WaitHeight), wait.Kind, wait.Words))
            .Where(wait => wait.To > wait.From).ToList();
        return new(ready, y, LaneHeight + (waits.Count * WaitHeight), work, waits, Mark(ready.Likely), Mark(ready.NineInTen),
            ready.Wanted is { } wanted ? Mark(wanted) : null);
    }

    // Parts are waited for from the first day on, the rest from where it begins.
    private IEnumerable<(DateTime From, DateTime To, string Kind, string Words)> Waits(PlacedJob job)
    {
        var begins = plan.Start.ToDateTime(TimeOnly.MinValue);
        if (new[] { job.Job.PartsOn(plan.Start), job.Job.NotBefore }.Max() is { } on && on > plan.Start)
            yield return (begins, on.ToDateTime(new(8, 0)), "parts", job.Job.Part.Length > 0 ? $"{job.Job.Part}: {on:MM-dd}"
                : $"{(job.Job.Because.Length > 0 ? job.Job.Because : job.Job.Title)}: {on:MM-dd}");
        if (job.Job.OutsideDays > 0)
            yield return (job.End, job.GoesOn, "outside", $"{job.Job.Title}, outside: {job.GoesOn:MM-dd}");
        else if (job.GoesOn > job.End)
            yield return (job.End, job.GoesOn, "cure", $"{job.Job.Title}, cures: {job.GoesOn:MM-dd HH:mm}");
    }

    // What is there at the same time stands one under the other.
    private PlaceRow Place(string name, IEnumerable<PlacedJob> jobs, double y)
    {
        var until = new List<DateTime>();
        var spans = new List<PlaceSpan>();
        foreach (var job in jobs.OrderBy(job => job.Start))
        {
            var unit = until.FindIndex(end => end <= job.Start);
            if (unit < 0)
            {
                unit = until.Count;
                until.Add(default);
            }
            until[unit] = job.End.AddHours((double)job.Job.CureHours);
            if (X(job.Start) < Width && X(until[unit]) > X(job.Start))
                spans.Add(new(job, X(job.Start), X(until[unit]), unit));
        }
        return new(name, y, Math.Max(1, until.Count) * PlaceHeight, spans);
    }

    private HandRow Row(Hand hand, double y)
    {
        var blocks = new List<WorkBlock>();
        foreach (var (job, from, to) in pieces.Where(piece => piece.Job.Hand == hand.Id && HangarPlan.DayOf(piece.From) >= From
            && HangarPlan.DayOf(piece.From) < From.AddDays(Days)))
        {
            var column = Columns[HangarPlan.DayOf(from).DayNumber - From.DayNumber];
            var tall = (to - from).TotalHours * HourHeight;
            blocks.Add(new(job, column.X + 1, y + ((from.TimeOfDay - hand.Week.Begins.ToTimeSpan()).TotalHours * HourHeight),
                column.Width - 2, Math.Max(2, tall - 1), Words(job.Job, column.Width - 8, tall)));
        }
        // A hand that has nothing in these days takes no more room than its name.
        var height = blocks.Count == 0 ? IdleHeight : ((double)hand.Week.HoursPerDay * HourHeight) + 2;
        return new(hand, plan.Loads.First(load => load.Hand == hand.Id), y, height, blocks,
            [.. Columns.Where(column => column.Works && !hand.Week.WorksOn(column.Day))]);
    }

    // As much of what it is as there is room for: the aircraft first, then the work, word by word.
    private static List<string> Words(PlanJob job, double width, double tall)
    {
        var (letters, lines) = ((int)(width / LetterWidth), (int)(tall / LineHeight));
        if (lines == 0 || letters < 4)
            return [];
        List<string> said = [""];
        foreach (var word in $"{(job.Pin is null ? "" : "◆ ")}{job.Aircraft} {job.Title}".Split(' '))
            if (said[^1].Length == 0)
                said[^1] = word;
            else if (said[^1].Length + 1 + word.Length <= letters)
                said[^1] += $" {word}";
            else if (said.Count < lines)
                said.Add(word);
            else
            {
                said[^1] += "…";
                break;
            }
        return [.. said.Select(line => line.Length <= letters + 1 ? line : $"{line[..Math.Max(1, letters - 1)]}…")];
    }
}
