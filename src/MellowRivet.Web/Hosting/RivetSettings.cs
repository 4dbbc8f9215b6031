using MellowRivet.Store;

namespace MellowRivet.Web.Hosting;

/// <summary>How the application is run.</summary>
public sealed record RivetSettings(DataFolder Data)
{
    /// <summary>The port at 127.0.0.1; 0 takes a free one.</summary>
    public int Port { get; init; } = 5080;

    /// <summary>Where people reach it, as https://rivet.example, behind a web server with TLS; null where that is this machine
    /// alone.</summary>
    public Uri? PublicUrl { get; init; }

    /// <summary>The address of the web server in front: only what that one says of who asks is believed. Null where there is
    /// none.</summary>
    public System.Net.IPAddress? Proxy { get; init; }

    /// <summary>The start of every address that is given out, without a slash at its end.</summary>
    /// <param name="request">The request it is given out on, where no public address is set.</param>
    public string Address(HttpRequest request) =>
        PublicUrl is { } url ? url.GetLeftPart(UriPartial.Authority) : $"{request.Scheme}://{request.Host}";

    /// <summary>Serves the demo's invented shop and lists its people to enter as.</summary>
    public bool Demo { get; init; }

    /// <summary>The demo's shop is made with a large fleet and its past, to measure on.</summary>
    public bool Big { get; init; }

    public const int UsualBackupsKept = 14;

    /// <summary>The folder that gets a backup every day; null for none.</summary>
    public string? BackupTo { get; init; }

    /// <summary>How many of them are kept.</summary>
    public int BackupsKept { get; init; } = UsualBackupsKept;

    /// <summary>
    /// What the first who come would wait for is done before the door opens, and after: false for a server that is there to be killed.
    /// </summary>
    public bool Ahead { get; init; } = true;

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
    /// Requests a minute: from one address to the stateless calls, to the door, to an owner's page with its pictures; and from one
    /// person with pictures to take in, on pages that are signed on, and with a status that is signed.
    /// </summary>
    public int BenchCallsPerMinute { get; init; } = 600;
    public int SignInsPerMinute { get; init; } = 20;
    public int SigningsPerMinute { get; init; } = 120;
    public int StatusesPerMinute { get; init; } = 20;
    public int OwnersCallsPerMinute { get; init; } = 600;
    public int UploadsPerMinute { get; init; } = 240;
}
