namespace MellowRivet.Core.Schedule;

/// <summary>
/// Lays jobs out one after the other, as a list has them: each at the first moment at which a hand that can do it and its place are free,
/// in gaps as well (serial schedule generation; Kolisch, 1996, from memory).
/// </summary>
internal sealed class ListScheduler
{
    private readonly Workshop shop;
    private readonly List<(int From, int To)>[] busy;
    private readonly List<(int From, int To)>[][] taken;

    public ListScheduler(Workshop shop)
    {
        this.shop = shop;
        busy = [.. shop.Calendars.Select(_ => new List<(int, int)>())];
        taken = [.. shop.PlaceCount.Select(count => Enumerable.Range(0, count).Select(_ => new List<(int, int)>()).ToArray())];
    }

    /// <summary>Lays them out.</summary>
    /// <param name="order">Every job once, none before what it waits for.</param>
    /// <param name="hand">The hand of each job; −1 for whoever is through first.</param>
    /// <param name="into">Where it is written.</param>
    public void LayOut(int[] order, int[] hand, Timetable into)
    {
        foreach (var spans in busy)
            spans.Clear();
        foreach (var units in taken)
            foreach (var spans in units)
                spans.Clear();
        foreach (var job in order)
            Put(job, hand[job], into);
        into.Weigh(shop);
    }

    private void Put(int job, int wanted, Timetable into)
    {
        var from = shop.From[job];
        foreach (var before in shop.After[job])
            from = Math.Max(from, into.Through[before]);
        var (start, end, who, unit) = (HandCalendar.Never, HandCalendar.Never, -1, -1);
        if (shop.Who[job].Length == 0)
            (start, end, unit) = Slot(job, -1, from);
        else
            foreach (var hand in shop.Who[job])
            {
                if (wanted >= 0 && wanted != hand)
                    continue;
                var slot = Slot(job, hand, from);
                if (slot.End < end || who < 0)
                    (start, end, unit, who) = (slot.Start, slot.End, slot.Unit, hand);
            }
        (into.Start[job], into.End[job], into.Hand[job], into.Unit[job]) = (start, end, who, unit);
        into.Through[job] = end + shop.Cure[job] + shop.Away[job];
        if (who >= 0 && end > start)
            Fill(busy[who], shop.Calendars[who], start, end);
        if (unit >= 0)
            Insert(taken[shop.Place[job]][unit], start, end + shop.Cure[job]);
    }

    private (int Start, int End, int Unit) Slot(int job, int hand, int from)
    {
        var (minutes, place) = (shop.Minutes[job], shop.Place[job]);
        while (true)
        {
            var start = hand < 0 ? from : shop.Calendars[hand].Next(from);
            var end = hand < 0 ? start : shop.Calendars[hand].Finish(start, minutes);
            if (start >= HandCalendar.Never || end >= HandCalendar.Never)
                return (HandCalendar.Never, HandCalendar.Never, place < 0 ? -1 : 0);
            if (hand >= 0 && Clash(busy[hand], start, end) is { } until)
            {
                from = until;
                continue;
            }
            if (place < 0)
                return (start, end, -1);
            // Any unit that is free all the while will do; else it is tried again when the first of them is.
            var (units, free, next) = (taken[place], -1, HandCalendar.Never);
            for (var unit = 0; unit < units.Length && free < 0; unit++)
                if (Clash(units[unit], start, end + shop.Cure[job]) is { } later)
                    next = Math.Min(next, later);
                else
                    free = unit;
            if (free >= 0)
                return (start, end, free);
            from = next;
        }
    }

    // When the first span that overlaps is over; null for none.
    private static int? Clash(List<(int From, int To)> spans, int from, int to)
    {
        for (var at = First(spans, from); at < spans.Count && spans[at].From < Math.Max(to, from + 1); at++)
            if (spans[at].To > from)
                return spans[at].To;
        return null;
    }

    // What no working time lies between becomes one span: a day that is full is passed over at once.
    private static void Fill(List<(int From, int To)> spans, HandCalendar calendar, int from, int to)
    {
        var at = First(spans, from);
        var joinsNext = at < spans.Count && calendar.Next(to) >= spans[at].From;
        if (at > 0 && calendar.Next(spans[at - 1].To) >= from)
        {
            spans[at - 1] = (spans[at - 1].From, joinsNext ? spans[at].To : to);
            if (joinsNext)
                spans.RemoveAt(at);
        }
        else if (joinsNext)
            spans[at] = (from, spans[at].To);
        else
            spans.Insert(at, (from, to));
    }

    private static void Insert(List<(int From, int To)> spans, int from, int to)
    {
        if (to > from)
            spans.Insert(First(spans, from), (from, to));
    }

    // The first span that ends after a moment: they don't overlap, so their ends rise.
    private static int First(List<(int From, int To)> spans, int after)
    {
        var (low, high) = (0, spans.Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (spans[middle].To <= after)
                low = middle + 1;
            else
                high = middle;
        }
        return low;
    }
}
