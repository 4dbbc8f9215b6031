using MellowRivet.Core.Hangar;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Web.Pages.Hangar;

/// <summary>The addresses and colours of the hangar's lines.</summary>
public static class HangarHref
{
    public static string Href(this HangarLine line, Hold hold) => line.Href(hold.At, hold.Key);

    public static string Href(this HangarLine line, Call call) => line.Href(call.At, call.Key);

    /// <summary>The tone of a call's panel.</summary>
    public static string Tone(this Call call) =>
        call.State switch { State.Grounded or State.Airworthiness => "bad", State.Good => "good", State.NotYet => "plain", _ => "warn" };

    private static string Href(this HangarLine line, GoTo at, string? key)
    {
        var (file, walk) = ($"/aircraft/{line.AircraftId}", $"/walk/{line.Work?.Id}");
        return at switch
        {
            GoTo.Bulletins => $"{file}/bulletins{(key is null ? "" : $"?b={key}")}",
            GoTo.OverdueBulletins => $"{file}/bulletins#Overdue",
            GoTo.OpenItems => $"{file}/open-items",
            GoTo.Squawks => $"{walk}/arrive",
            GoTo.Second => $"{walk}/inspect",
            GoTo.BulletinsAtWork => $"{walk}/bulletins",
            GoTo.Tags => $"{walk}/tags",
            GoTo.Judgements => $"{walk}/close#judged",
            GoTo.Asked => $"{walk}/close#asked",
            GoTo.ZoneLooks => $"{walk}/close#zones",
            GoTo.Close => $"{walk}/close",
            GoTo.FixList => $"{walk}/fix-list",
            GoTo.Found => $"{walk}/fix-list/{key}",
            GoTo.Compressions => $"{walk}/compressions?cylinder={key}",
            GoTo.Apart => $"{walk}/apart",
            _ => walk,
        };
    }
}
