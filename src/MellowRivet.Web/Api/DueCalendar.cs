using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using MellowRivet.Core.Due;
using MellowRivet.Web.Drawings;

namespace MellowRivet.Web.Api;

/// <summary>Due items as all-day events of an iCalendar (RFC 5545): each on the day its governing limb is forecast.</summary>
internal static class DueCalendar
{
    public const string ContentType = "text/calendar; charset=utf-8";

    public static string Write(IEnumerable<DueLine> lines, string name, DateTimeOffset now)
    {
        var calendar = new Calendar { ProductId = "-//Mellow Rivet//Due line//EN" };
        calendar.AddProperty("X-WR-CALNAME", name);
        foreach (var line in lines)
            foreach (var entry in line.Entries.Where(entry => entry.Status.Forecast is not null))
                calendar.Events.Add(new CalendarEvent
                {
                    // The same item keeps its name, so that a calendar moves the event instead of adding one.
                    Uid = $"{entry.Item.Id}@mellow-rivet",
                    DtStamp = new CalDateTime(now.UtcDateTime, "UTC"),
                    Start = new CalDateTime(entry.Status.Forecast!.Value),
                    End = new CalDateTime(entry.Status.Forecast.Value.AddDays(1)),
                    Summary = $"{line.Aircraft.Registration}: {entry.Title}",
                    Description =
                        $"{entry.Status.State.InWords()}; {string.Join("; ", entry.Status.Limbs.Select(DueSaid.Of))}. "
                        + $"{DueSaid.Forecast(entry.Status)}. {entry.Item.Source.AsItStands}",
                    Transparency = TransparencyType.Transparent,
                });
        return new CalendarSerializer(calendar).SerializeToString() ?? "";
    }
}
