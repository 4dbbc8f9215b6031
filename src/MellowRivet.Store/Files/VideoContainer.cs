using System.Buffers.Binary;

namespace MellowRivet.Store.Files;

/// <summary>
/// What a video's container says of itself: whether it has moving pictures, and how long it runs. MP4 by ISO/IEC 14496-12, WebM by
/// RFC 8794 and RFC 9559, both from memory. Only the few boxes on the way are opened, to a set depth: a file made to nest without end
/// overflows no stack here, as it does in a reader of all there is.
/// </summary>
internal static class VideoContainer
{
    // More of them in one place, and more tracks, than any recorder writes.
    private const int MostBoxes = 1_000, MostTracks = 64;

    private const long Segment = 0x18538067, Info = 0x1549A966, TimecodeScale = 0x2AD7B1, Duration = 0x4489, Tracks = 0x1654AE6B,
        TrackEntry = 0xAE, TrackType = 0x83, Cluster = 0x1F43B675;

    private readonly record struct Box(long Id, long From, long To);

    /// <summary>Reads it; a length that isn't stated is 0.</summary>
    /// <param name="file">The file, from its beginning.</param>
    /// <param name="type">Its media type: video/mp4 or video/webm.</param>
    /// <returns>Whether it has moving pictures, and its length, s.</returns>
    public static (bool Pictures, double Seconds) Read(Stream file, string type) => type == "video/mp4" ? Mp4(file) : WebM(file);

    private static (bool, double) Mp4(Stream file)
    {
        var (pictures, seconds) = (false, 0.0);
        var tracks = 0;
        foreach (var box in Inside(new(0, 0, file.Length), "moov"))
            if (Is(box, "mvhd"))
                seconds = Math.Max(seconds, Mp4Length(file, box));
            else if (Is(box, "trak") && tracks++ < MostTracks)
                foreach (var part in Inside(box, "mdia"))
                    if (Is(part, "hdlr"))
                        pictures |= At(file, part, 8, 4).AsSpan().SequenceEqual("vide"u8);
                    // A track may run longer than the whole is said to.
                    else if (Is(part, "mdhd"))
                        seconds = Math.Max(seconds, Mp4Length(file, part));
        return (pictures, seconds);

        IEnumerable<Box> Inside(Box within, string name) =>
            Mp4Boxes(file, within).Where(box => Is(box, name)).Take(1).SelectMany(one => Mp4Boxes(file, one));
    }

    // In its own units, and how many of those go into a second: 32 bits each, or in version 1 the length in 64. All ones: not known.
    private static double Mp4Length(Stream file, Box box)
    {
        var wide = At(file, box, 0, 1) is [1];
        var (scale, units) = wide ? (Number(At(file, box, 20, 4)), Number(At(file, box, 24, 8))) : (Number(At(file, box, 12, 4)),
            Number(At(file, box, 16, 4)));
        return scale == 0 || units == (wide ? ulong.MaxValue : uint.MaxValue) ? 0 : (double)units / scale;
    }

    private static bool Is(Box box, string name) =>
        box.Id == ((long)name[0] << 24 | (long)name[1] << 16 | (long)name[2] << 8 | name[3]);

    private static IEnumerable<Box> Mp4Boxes(Stream file, Box within)
    {
        var at = within.From;
        for (var count = 0; count < MostBoxes && at + 8 <= within.To; count++)
        {
            var head = At(file, within with { From = at }, 0, 16);
            if (head.Length < 8)
                yield break;
            var size = (long)Number(head.AsSpan(0, 4));
            var from = size == 1 ? 16 : 8;
            if (size == 1)
                size = head.Length < 16 ? 0 : (long)Math.Min(Number(head.AsSpan(8)), long.MaxValue);
            else if (size == 0)
                size = within.To - at;
            if (size < from || size > within.To - at)
                yield break;
            yield return new((long)Number(head.AsSpan(4, 4)), at + from, at + size);
            at += size;
        }
    }

    private static (bool, double) WebM(Stream file)
    {
        var (pictures, scale, length) = (false, 1_000_000.0, 0.0);
        // What describes it stands before its pictures.
        foreach (var box in Elements(file, new(0, 0, file.Length)).Where(box => box.Id == Segment).Take(1)
            .SelectMany(segment => Elements(file, segment)).TakeWhile(box => box.Id != Cluster))
            if (box.Id == Info)
                foreach (var said in Elements(file, box))
                    (scale, length) = said.Id switch
                    {
                        TimecodeScale => (Number(At(file, said, 0, 8)), length),
                        Duration => (scale, Real(At(file, said, 0, 8))),
                        _ => (scale, length),
                    };
            else if (box.Id == Tracks)
                pictures |= Elements(file, box).Where(track => track.Id == TrackEntry).Take(MostTracks)
                    .SelectMany(track => Elements(file, track)).Any(said => said.Id == TrackType && At(file, said, 0, 8) is [.., 1]);
        var seconds = length * scale / 1e9;
        return (pictures, double.IsFinite(seconds) ? seconds : 0);
    }

    private static IEnumerable<Box> Elements(Stream file, Box within)
    {
        var at = within.From;
        for (var count = 0; count < MostBoxes && at < within.To; count++)
        {
            var head = At(file, within with { From = at }, 0, 12);
            // The first bit that is set tells how many bytes there are; in an id it is kept.
            var idBytes = head.Length == 0 ? 9 : Leading(head[0]);
            if (idBytes > 4 || head.Length <= idBytes || Leading(head[idBytes]) is var sizeBytes && head.Length < idBytes + sizeBytes)
                yield break;
            var bits = 7 * sizeBytes;
            var size = sizeBytes > 8 ? 0 : Number(head.AsSpan(idBytes, sizeBytes)) & ((1UL << bits) - 1);
            var from = at + idBytes + sizeBytes;
            // All ones: up to the end of what it stands in.
            var to = size == (1UL << bits) - 1 ? within.To : size > (ulong)(within.To - from) ? -1 : from + (long)size;
            if (sizeBytes > 8 || to < from)
                yield break;
            yield return new((long)Number(head.AsSpan(0, idBytes)), from, to);
            at = to;
        }
    }

    private static int Leading(byte first) => first == 0 ? 9 : 8 - (int)Math.Log2(first);

    // As many as there are of them within the box.
    private static byte[] At(Stream file, Box box, long offset, int count)
    {
        var bytes = new byte[Math.Clamp(box.To - box.From - offset, 0, count)];
        file.Position = box.From + offset;
        return bytes[..file.ReadAtLeast(bytes, bytes.Length, throwOnEndOfStream: false)];
    }

    private static ulong Number(ReadOnlySpan<byte> bytes)
    {
        var number = 0UL;
        foreach (var part in bytes)
            number = number << 8 | part;
        return number;
    }

    private static double Real(byte[] bytes) => bytes.Length switch
    {
        4 => BinaryPrimitives.ReadSingleBigEndian(bytes),
        8 => BinaryPrimitives.ReadDoubleBigEndian(bytes),
        _ => 0,
    };
}
