using System.Buffers.Binary;
using System.Text;
using SkiaSharp;

namespace MellowRivet.Store.Tests;

/// <summary>Pictures made for the tests: grey, with a red quarter at the top left of what the camera saw.</summary>
internal static class TestPictures
{
    public const int Width = 160, Height = 120;

    public static byte[] Jpeg(int orientation = 1, bool withLocation = false)
    {
        using var bitmap = new SKBitmap(Width, Height);
        using (var canvas = new SKCanvas(bitmap))
        {
            canvas.Clear(SKColors.Gray);
            using var red = new SKPaint { Color = SKColors.Red };
            canvas.DrawRect(0, 0, Width / 2f, Height / 2f, red);
        }
        using var encoded = bitmap.Encode(SKEncodedImageFormat.Jpeg, 92);
        var plain = encoded.ToArray();
        var exif = Exif(orientation, withLocation);
        // After the start-of-image marker: an APP1 segment, its length with itself, its content.
        var length = new byte[2];
        BinaryPrimitives.WriteUInt16BigEndian(length, (ushort)(exif.Length + 2));
        return [.. plain[..2], 0xFF, 0xE1, .. length, .. exif, .. plain[2..]];
    }

    public static byte[] Encoded(SKEncodedImageFormat format)
    {
        using var bitmap = new SKBitmap(40, 30);
        bitmap.Erase(SKColors.Olive);
        using var encoded = bitmap.Encode(format, 90);
        return encoded.ToArray();
    }

    /// <summary>A PNG that claims to be 30,000 × 30,000 pixels, in a few bytes.</summary>
    public static byte[] EnormousPng()
    {
        var small = Encoded(SKEncodedImageFormat.Png);
        BinaryPrimitives.WriteInt32BigEndian(small.AsSpan(16), 30_000);
        BinaryPrimitives.WriteInt32BigEndian(small.AsSpan(20), 30_000);
        BinaryPrimitives.WriteUInt32BigEndian(small.AsSpan(29), Crc32(small.AsSpan(12, 17)));
        return small;
    }

    public static byte[] Heic() =>
        [0, 0, 0, 24, .. Encoding.ASCII.GetBytes("ftypheic"), 0, 0, 0, 0, .. Encoding.ASCII.GetBytes("mif1heic"), .. new byte[200]];

    /// <summary>A JPEG in the four inks of a printing press, 16 × 12, red-brown; made by ImageMagick.</summary>
    public static byte[] FourInks() => Convert.FromBase64String(
        "/9j/7gAOQWRvYmUAZAAAAAAC/9sAQwANCQoLCggNCwoLDg4NDxMgFRMSEhMnHB4XIC4pMTAuKS0sMzpKPjM2RjcsLUBXQUZMTlJTUjI+WmFaUGBKUVJP/9sAQ"
        + "wEODg4TERMmFRUmTzUtNU9PT09PT0"
        + "9PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09PT09P/8AAFAgADAAQBAEiAAIRAQMRAQQiAP/EABYAAQEBAAAAAAAAAAAAAAAAAAADB"
        + "v/EABQQAQAAAAAAAAAAAAAAAAAAAAD/"
        + "xAAVAQEBAAAAAAAAAAAAAAAAAAAFBv/EABQRAQAAAAAAAAAAAAAAAAAAAAD/2gAOBAEAAhEDEQQAAD8AqAZRDTgP/9k=");

    /// <summary>A WebP of two pictures that take turns: the container of RFC 9649 round two still ones.</summary>
    public static byte[] Moving()
    {
        static byte[] Chunk(string name, byte[] content) =>
            [.. Encoding.ASCII.GetBytes(name), .. BitConverter.GetBytes(content.Length), .. content, .. new byte[content.Length % 2]];
        static byte[] Three(int value) => BitConverter.GetBytes(value)[..3];
        var still = Encoded(SKEncodedImageFormat.Webp)[12..];
        byte[] frame = Chunk("ANMF", [.. Three(0), .. Three(0), .. Three(39), .. Three(29), .. Three(100), 0, .. still]);
        byte[] body = [.. "WEBP"u8, .. Chunk("VP8X", [2, 0, 0, 0, .. Three(39), .. Three(29)]), .. Chunk("ANIM", [0, 0, 0, 0, 0, 0]),
            .. frame, .. frame];
        return Chunk("RIFF", body);
    }

    // A little-endian TIFF with the orientation and, where wanted, a pointer to a GPS directory.
    private static byte[] Exif(int orientation, bool withLocation)
    {
        using var buffer = new MemoryStream();
        using var writer = new BinaryWriter(buffer);
        writer.Write(Encoding.ASCII.GetBytes("Exif\0\0II*\0"));
        writer.Write(8);
        writer.Write((ushort)(withLocation ? 2 : 1));
        Entry(writer, 0x0112, 3, 1, orientation);
        if (withLocation)
            Entry(writer, 0x8825, 4, 1, 38);
        writer.Write(0);
        if (withLocation)
        {
            writer.Write((ushort)1);
            Entry(writer, 0x0001, 2, 2, 'N');
            writer.Write(0);
            writer.Write(Encoding.ASCII.GetBytes("SECRETPLACE"));
        }
        return buffer.ToArray();
    }

    private static void Entry(BinaryWriter writer, int tag, int type, int count, int value)
    {
        writer.Write((ushort)tag);
        writer.Write((ushort)type);
        writer.Write(count);
        writer.Write(value);
    }

    private static uint Crc32(ReadOnlySpan<byte> bytes)
    {
        var crc = 0xFFFFFFFFu;
        foreach (var value in bytes)
        {
            crc ^= value;
            for (var bit = 0; bit < 8; bit++)
                crc = (crc & 1) != 0 ? crc >> 1 ^ 0xEDB88320 : crc >> 1;
        }
        return ~crc;
    }
}
