namespace MellowRivet.Web.Demo;

/// <summary>A pulley that clicks, made up: a short WAV of dull clicks over a hum.</summary>
internal static class DemoSound
{
    private const int Rate = 8000, Seconds = 2;

    public static Stream Clicks()
    {
        var buffer = new MemoryStream();
        using (var writer = new BinaryWriter(buffer, System.Text.Encoding.ASCII, leaveOpen: true))
        {
            const int bytes = Rate * Seconds;
            writer.Write("RIFF"u8);
            writer.Write(36 + bytes);
            writer.Write("WAVEfmt "u8);
            writer.Write(16);
            writer.Write((short)1); // plain samples
            writer.Write((short)1); // one channel
            writer.Write(Rate);
            writer.Write(Rate);
            writer.Write((short)1);
            writer.Write((short)8);
            writer.Write("data"u8);
            writer.Write(bytes);
            for (var at = 0; at < bytes; at++)
            {
                var since = at % (Rate / 4) / (double)Rate;
                var click = Math.Sin(2 * Math.PI * 420 * since) * Math.Exp(-since * 90) * 100;
                writer.Write((byte)(128 + click + Math.Sin(2 * Math.PI * 60 * at / Rate) * 5));
            }
        }
        buffer.Position = 0;
        return buffer;
    }
}
