using System.Diagnostics;
using System.Globalization;
using MellowRivet.Core.Books;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using Microsoft.EntityFrameworkCore;
using SkiaSharp;

namespace MellowRivet.Web.Hosting.Benchmarking;

/// <summary>
/// Sends an aircraft with two gigabytes of photos out and into another shop, each by a process of its own, and says how much memory that
/// took at most: files have to stream.
/// </summary>
internal static class PassportBench
{
    private const int Photos = 500, PhotoBytes = 4 * 1024 * 1024;
    private const string Registration = "N0BRM";

    /// <summary>What was promised, in MB.</summary>
    private const long MostMemory = 300;

    public static async Task<int> RunAsync(CancellationToken stop)
    {
        var folder = Directory.CreateTempSubdirectory("rivet-passport-bench-").FullName;
        try
        {
            var (from, to, file) = (Path.Combine(folder, "from"), Path.Combine(folder, "to"), Path.Combine(folder, "passport.zip"));
            await MakeAsync(new(from), stop);
            await using (var db = RivetDb.Of(new(to)))
                await ShopDatabase.BringUpToDateAsync(db, new(to), TimeProvider.System, stop);
            List<long> memory =
            [
                await MeasureAsync("written", ["archive", Registration, file, "--data", from], stop),
                await MeasureAsync("checked", ["verify", file], stop),
                await MeasureAsync("taken in", ["import", file, "--data", to], stop),
            ];
            Console.WriteLine($"A passport of {new FileInfo(file).Length / 1_000_000:#,0} MB, {Photos} photos of 12 megapixels: at most "
                + $"{memory.Max()} MB of memory, {MostMemory} promised.");
            return memory.Max() <= MostMemory ? 0 : 1;
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private static async Task MakeAsync(DataFolder data, CancellationToken stop)
    {
        await using var app = await RivetApp.OpenAsync(new(data) { Port = 0, Demo = true, PictureScale = 0.1 }, stop);
        await using var db = RivetDb.Of(data);
        var aircraft = await db.Aircraft.SingleAsync(row => row.Registration == Registration, stop);
        LogBook book = new(Guid.CreateVersion7(), aircraft.Id, BookKind.Other, "Pictures to measure by", new(2026, 1, 1), null, false);
        db.Add(book);
        var (picture, chance, files) = (Picture(), new Random(1), new PhotoFiles(data, TimeProvider.System));
        for (var number = 0; number < Photos; number++)
        {
            // What follows the end of a picture is no part of it, and makes each another file of a camera's size.
            var photo = new byte[PhotoBytes];
            chance.NextBytes(photo);
            picture.CopyTo(photo, 0);
            var taken = await files.TakeInAsync(new MemoryStream(photo), "", stop);
            db.Add(new BookEntry(Guid.CreateVersion7(), aircraft.Id, book.Id, new(2026, 1, 1), null, $"Picture {number}", "", taken.Photo,
                Guid.Empty, TimeProvider.System.GetUtcNow()));
        }
        await db.SaveChangesAsync(stop);
    }

    private static byte[] Picture()
    {
        using SKBitmap drawn = new(4000, 3000);
        using (SKCanvas canvas = new(drawn))
        using (SKPaint paint = new() { Color = SKColors.OliveDrab })
        {
            canvas.Clear(SKColors.Gray);
            for (var at = 0; at < 60; at++)
                canvas.DrawCircle(at * 66, (at * 997) % 3000, 90, paint);
        }
        using var encoded = drawn.Encode(SKEncodedImageFormat.Jpeg, 80);
        return encoded.ToArray();
    }

    // The most that the process had in memory, in MB: Linux keeps that by itself.
    private static async Task<long> MeasureAsync(string what, string[] arguments, CancellationToken stop)
    {
        var from = Stopwatch.GetTimestamp();
        using var process = Process.Start(new ProcessStartInfo(Environment.ProcessPath!,
            [typeof(PassportBench).Assembly.Location, .. arguments]) { RedirectStandardOutput = true, RedirectStandardError = true })!;
        var (output, error) = (process.StandardOutput.ReadToEndAsync(stop), process.StandardError.ReadToEndAsync(stop));
        var most = 0L;
        while (!process.HasExited)
        {
            most = Math.Max(most, MostOf(process.Id));
            await Task.Delay(50, stop);
        }
        if (process.ExitCode != 0)
            throw new InvalidDataException($"Nothing was {what}: {await output} {await error}");
        Console.WriteLine($"{what,-10}{Stopwatch.GetElapsedTime(from).TotalSeconds,6:0.0} s, at most {most} MB of memory");
        return most;
    }

    private static long MostOf(int process)
    {
        try
        {
            return File.ReadLines($"/proc/{process}/status").Where(line => line.StartsWith("VmHWM:", StringComparison.Ordinal))
                .Select(line => long.Parse(line.Split(' ', StringSplitOptions.RemoveEmptyEntries)[^2], CultureInfo.InvariantCulture) / 1024)
                .FirstOrDefault();
        }
        catch (IOException)
        {
            return 0; // It ended meanwhile.
        }
    }
}
