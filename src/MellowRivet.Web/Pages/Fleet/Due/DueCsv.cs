using MellowRivet.Core.Due;
using MellowRivet.Web.Handover;

namespace MellowRivet.Web.Pages.Fleet.Due;

/// <summary>Due items as CSV.</summary>
public static class DueCsv
{
    public static byte[] Write(IEnumerable<DueLine> lines) => TableWriter.Write(csv =>
        {
            foreach (var title in new[]
                { "registration", "item", "on", "state", "governing", "forecast", "earliest", "latest", "dueDate", "remainingDays",
                    "dueHours", "remainingHours", "interval", "source", "lastDone", "lastDoneHours" })
                csv.WriteField(title);
            csv.NextRecord();
            foreach (var line in lines)
                foreach (var entry in line.Entries)
                {
                    var (status, hours, calendar) = (entry.Status, entry.Status.Limb(LimbKind.Hours), entry.Status.Limb(LimbKind.Calendar));
                    foreach (var field in new object?[]
                    {
                        line.Aircraft.Registration, entry.Item.What, entry.On is { } on
                            ? $"{on.Component.Title} {on.Position} {on.Component.SerialNumber}".Trim()
                            : "aircraft",
                        status.State.ToString().ToLowerInvariant(), status.Governing?.Kind.InWords(),
                        status.Forecast?.ToString("yyyy-MM-dd"), status.Governing?.Earliest?.ToString("yyyy-MM-dd"),
                        status.Governing?.Latest?.ToString("yyyy-MM-dd"), calendar?.DueOn?.ToString("yyyy-MM-dd"), calendar?.Remaining,
                        hours?.DueAt, hours?.Remaining,
                        entry.Item.Interval.InWords(), entry.Item.Source.Text, entry.Item.Last?.On?.ToString("yyyy-MM-dd"),
                        entry.Item.Last?.Hours,
                    })
                        csv.WriteField(field);
                    csv.NextRecord();
                }
        });
}
