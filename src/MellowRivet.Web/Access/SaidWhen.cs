using System.Globalization;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;

namespace MellowRivet.Web.Access;

/// <summary>When something was said, as a device tells that brings it later.</summary>
public static class SaidWhen
{
    /// <summary>How long ago it was said, s, by the device's own clock both times: it may be wrong, and says so all the same.</summary>
    public const string Age = "X-Rivet-Age";

    /// <summary>When the page was drawn that it was said on, by the shop's clock, ms since 1970.</summary>
    public const string Drawn = "X-Rivet-Drawn";

    /// <summary>What takes less is on its way, and said now.</summary>
    public static readonly TimeSpan Now = TimeSpan.FromMinutes(1);

    /// <summary>What is older was hardly said, but by a device whose clock is wrong.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromDays(400);

    /// <summary>The clock that a request's work goes by.</summary>
    public static WorkClock Of(IServiceProvider services)
    {
        var shop = services.GetRequiredService<TimeProvider>();
        var context = services.GetRequiredService<IHttpContextAccessor>().HttpContext;
        return new(shop, context?.User.Identity?.IsAuthenticated == true && Said(context.Request, shop.GetUtcNow()) is { } at
            ? new Stamp(context.User.PersonId(), at)
            : null);
    }

    // Said before its page was drawn, the device's clock was set meanwhile: when it was, nobody knows, and it stands as it arrives.
    private static DateTimeOffset? Said(HttpRequest request, DateTimeOffset now) =>
        Number(request, Age) is { } age && Number(request, Drawn) is { } drawn && age >= Now.TotalSeconds
        && age <= Longest.TotalSeconds && now.AddSeconds(-age) is var said && said.ToUnixTimeMilliseconds() >= drawn ? said : null;

    private static double? Number(HttpRequest request, string header) =>
        double.TryParse(request.Headers[header], NumberStyles.Float, CultureInfo.InvariantCulture, out var number) ? number : null;
}
