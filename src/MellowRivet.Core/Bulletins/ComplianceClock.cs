using System.Security.Cryptography;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Bulletins;

/// <summary>Hours and days as a deadline of a bulletin needs them.</summary>
/// <param name="Line">The aircraft's due line, with its inspections.</param>
/// <param name="AircraftHoursOn">The aircraft's hours on a day; null where no reading tells.</param>
/// <param name="MadeOn">The day the aircraft was made; null where nobody has said.</param>
public sealed record ClockBasis(DueLine Line, Func<DateOnly, decimal?> AircraftHoursOn, DateOnly? MadeOn);

/// <summary>Turns the deadlines of a bulletin into one item of the due line: the limbs combined, whichever comes first.</summary>
public static class ComplianceClock
{
    /// <summary>When a bulletin is due on an aircraft or part.</summary>
    /// <param name="held">The bulletin.</param>
    /// <param name="on">The part it is about; null for the aircraft.</param>
    /// <param name="place">Where that sits.</param>
    /// <param name="last">The latest compliance that counts; null for none.</param>
    /// <param name="binds">It binds by rule; else it is own policy.</param>
    /// <param name="basis">Hours and days.</param>
    /// <returns>The item, and whether it is due before next flight; no item where nothing is due any more.</returns>
    public static (DueEntry? Entry, bool BeforeFlight) Of(ShopBulletin held, Installation? on, string place, Complied? last, bool binds,
        ClockBasis basis)
    {
        var compliance = held.Bulletin.Compliance;
        if (last is { Terminating: true } || (last is not null && compliance.Repeat is null))
            return (null, false);
        var now = on is null ? basis.Line.Now
            : basis.Line.Now with { Hours = basis.Line.Now.Hours with
                { Total = on.TimeInService(basis.Line.Aircraft.TimeInService)?.Value } };
        if (last is not null)
        {
            var every = last.Finding && compliance.AfterFinding is { } sooner ? sooner : compliance.Repeat!;
            var again = new Interval(every.Hours, every.Months, CalendarRule.SameDay);
            LastDone done = new(last.On, last.Hours, Reference: last.Reference);
            return (Entry(held, on, place, again, done, DueStatus.Of(again, done, now), now, binds), false);
        }

        var (hours, date, flight, missing) = First(held.Bulletin, on, basis, now);
        if (flight && held.Bulletin.Effective <= now.Today)
        {
            Interval before = new(NotAfter: held.Bulletin.Effective);
            var grounded = DueStatus.Of(before, null, now) with
                { State = DueState.Overdue, Why = $"In force since {held.Bulletin.Effective:yyyy-MM-dd}." };
            return (Entry(held, on, place, before, null, grounded, now, binds), true);
        }
        if (flight)
            date = Earlier(date, held.Bulletin.Effective);
        // Hours are counted from zero, since the limbs may count from different days.
        Interval combined = new(hours, NotAfter: date);
        LastDone since = new(held.Bulletin.Effective, 0);
        var status = combined.HasNoLimb ? new DueStatus([], null, DueState.Unknown, "") : DueStatus.Of(combined, since, now);
        if (missing.Count > 0)
            status = status with { State = status.State == DueState.Overdue
                ? DueState.Overdue
                : DueState.Unknown, Why = $"Can’t tell yet: {string.Join(", and ", missing.Distinct())}. {status.Why}".Trim() };
        return (Entry(held, on, place, combined, null, status, now, binds), false);
    }

    private static (decimal? Hours, DateOnly? Date, bool Flight, List<string> Missing) First(Bulletin bulletin, Installation? on,
        ClockBasis basis, DueNow now)
    {
        decimal? hours = null;
        DateOnly? date = null;
        var flight = false;
        List<string> missing = [];
        foreach (var limb in bulletin.Compliance.Deadlines is { Count: > 0 } given ? given : [new(DeadlineKind.NextInspection)])
            switch (limb.When)
            {
                case DeadlineKind.BeforeNextFlight:
                    flight = true;
                    break;
                case DeadlineKind.WithinHours when limb.From == CountedFrom.New:
                    hours = Least(hours, limb.Hours);
                    break;
                case DeadlineKind.WithinHours:
                    if (HoursOn(bulletin.Effective, on, basis) is { } then)
                        hours = Least(hours, then + limb.Hours);
                    else
                        missing.Add($"the {(on is null ? "" : on.Component.Title + "’s ")}hours on {bulletin.Effective:yyyy-MM-dd}");
                    break;
                case DeadlineKind.WithinMonths:
                    if ((limb.From == CountedFrom.Effective ? bulletin.Effective : on is null ? basis.MadeOn : on.Component.MadeOn)
                        is { } from)
                        date = Earlier(date, from.AddMonths(limb.Months!.Value));
                    else
                        missing.Add("the day of manufacture");
                    break;
                case DeadlineKind.NextInspection:
                    if (basis.Line.NextInspection is { } next)
                    {
                        if (next.Status.Limb(LimbKind.Calendar)?.DueOn is { } day)
                            date = Earlier(date, day);
                        // The inspection counts the aircraft's hours: as far ahead for a part as for the aircraft.
                        if (next.Status.Limb(LimbKind.Hours) is { Remaining: { } ahead } && now.Hours.Total is { } total
                            && total + ahead > 0)
                            hours = Least(hours, total + ahead);
                    }
                    else
                        missing.Add("the next inspection: none is followed on the due line");
                    break;
                default:
                    date = Earlier(date, limb.Date);
                    break;
            }
        return (hours, date, flight, missing);
    }

    private static decimal? HoursOn(DateOnly day, Installation? on, ClockBasis basis)
    {
        if (on is null)
            return basis.AircraftHoursOn(day);
        // A part that came later counts from its own hours when it came, if it came new; else nobody here can tell.
        if (on.InstalledOn > day)
            return on.OwnTimeThen is { Value: 0 } ? 0 : null;
        return on.OwnTimeThen is { } own && basis.AircraftHoursOn(day) is { } aircraft
            ? own.Value + Math.Max(0, aircraft - on.InstalledAt.Value)
            : null;
    }

    private static DueEntry Entry(ShopBulletin held, Installation? on, string place, Interval interval, LastDone? last, DueStatus status,
        DueNow now, bool binds)
    {
        var bulletin = held.Bulletin;
        var what = $"{bulletin.Title}: {bulletin.Subject}";
        var source = binds ? new RuleSource(Standing.Law, $"{bulletin.Issuer}, {bulletin.Title}, binding")
            : new RuleSource(Standing.Practice, $"{bulletin.Issuer}, {bulletin.Title}, by own policy");
        var item = new DueItem(IdOf(held.Id, on?.ComponentId), null, on?.ComponentId, what.Length <= DueItem.LongestWhat
            ? what
            : what[..(DueItem.LongestWhat - 1)] + "…", DueKind.Bulletin, interval, source);
        if (last is not null)
            item.Restore([last], null);
        return new(item, on, status, now, place);
    }

    // The same bulletin on the same part keeps its id from day to day: a calendar that reads the due line knows it again.
    private static Guid IdOf(Guid bulletin, Guid? part) =>
        new(SHA256.HashData([.. bulletin.ToByteArray(), .. (part ?? Guid.Empty).ToByteArray()]).AsSpan(0, 16));

    private static decimal? Least(decimal? one, decimal? other) => one is null ? other : other < one ? other : one;

    private static DateOnly? Earlier(DateOnly? one, DateOnly? other) => one is null ? other : other < one ? other : one;
}
