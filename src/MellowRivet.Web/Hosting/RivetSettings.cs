using MellowRivet.Store;

namespace MellowRivet.Web.Hosting;

/// <summary>How the application is run.</summary>
public sealed record RivetSettings(DataFolder Data)
{
    /// <summary>The port at 127.0.0.1; 0 takes a free one.</summary>
    public int Port { get; init; } = 5080;

    /// <summary>Serves the demo's invented shop and lists its people to enter as.</summary>
    public bool Demo { get; init; }

    /// <summary>The demo's shop is made with a large fleet and its past, to measure on.</summary>
    public bool Big { get; init; }

    public const double UsualPictureScale = 0.75;

    /// <summary>How large the demo's pictures are drawn, of 1280 × 960: drawing and taking them in is most of its making.</summary>
    public double PictureScale { get; init; } = UsualPictureScale;

    /// <summary>How often the bulletin service is asked by itself, in minutes.</summary>
    public int AskServiceEveryMinutes { get; init; } = 60;

    /// <summary>The shop's time.</summary>
    public TimeProvider Clock { get; init; } = TimeProvider.System;

    /// <summary>The shop runs on another day than the machine: each page says so.</summary>
    public bool DayIsSet => Clock is SetClock;

    /// <summary>
    /// Requests a minute from one address to the stateless calls, to sign-in, to an owner's page with its
    /// pictures, and with pictures to take in.
    /// </summary>
    public int BenchCallsPerMinute { get; init; } = 600;
    public int SignInsPerMinute { get; init; } = 20;
    public int OwnersCallsPerMinute { get; init; } = 600;
    public int UploadsPerMinute { get; init; } = 240;
}
