using System.Text;
using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Store;
using MellowRivet.Store.Files;

namespace MellowRivet.Web.Pages.Shared;

/// <summary>What came along with a form: pictures, sounds and videos, all of them on the disk, or why not.</summary>
public sealed record Attachments(IReadOnlyList<Photo> Photos, IReadOnlyList<Sound> Sounds, IReadOnlyList<Video> Videos,
    IReadOnlyList<Refusal> Refusals)
{
    public static readonly Attachments None = new([], [], [], []);

    /// <summary>The only picture; null where none came, or none was taken.</summary>
    public Photo? Photo => Photos.Count > 0 ? Photos[0] : null;

    /// <summary>The only sound; null where none came, or none was taken.</summary>
    public Sound? Sound => Sounds.Count > 0 ? Sounds[0] : null;

    /// <summary>The first thing that is wrong, beside a field of the form; null where all was taken.</summary>
    public Refusal? Wrong(string field) => Refusals.Count > 0 ? Refusals[0].At(field) : null;

    /// <summary>Adds all of it; the first refusal, or null.</summary>
    public Refusal? AddTo(Discrepancy found) =>
        Photos.Select(found.Add).Concat(Sounds.Select(found.Add)).Concat(Videos.Select(found.Add))
            .FirstOrDefault(refusal => refusal is not null);
}

/// <summary>Files that come with a form, on their way in: here, and nowhere else.</summary>
public sealed class Uploads(PhotoFiles photos, SoundFiles sounds, VideoFiles videos)
{
    /// <summary>Most of a kind at a time.</summary>
    public const int Most = 12;

    private const string NotTaken =
        "The shop's disk didn't take it. Nothing was saved; your words are still here. Whoever looks after the machine finds out why.";

    private static Refusal WhyNot(IOException problem, string field) =>
        Disk.IsFull(problem) ? Disk.NoRoom : new(field, NotTaken);

    /// <summary>Takes in pictures, sounds and videos, in the order in which they came.</summary>
    /// <param name="pictures">The pictures; null and empty files are none.</param>
    /// <param name="recordings">The sounds.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="most">Most of a kind.</param>
    /// <param name="clips">The videos; null for none.</param>
    public async Task<Attachments> TakeInAsync(IReadOnlyList<IFormFile?> pictures, IReadOnlyList<IFormFile?> recordings,
        CancellationToken stop, int most = Most, IReadOnlyList<IFormFile?>? clips = null)
    {
        var count = Math.Max(Math.Max(pictures.Count, recordings.Count), clips?.Count ?? 0);
        if (count > most)
            return Attachments.None with { Refusals = [new("photos", $"{count} files; {most} at a time is the most.")] };
        List<Refusal> refusals = [];
        async Task<List<T>> EachAsync<T>(IEnumerable<IFormFile?> files, Func<Stream, string, Task<(T? Taken, Refusal? Refusal)>> take)
        {
            List<T> taken = [];
            foreach (var file in files.OfType<IFormFile>().Where(file => file.Length > 0))
            {
                await using var content = file.OpenReadStream();
                var (one, refusal) = await take(content, file.FileName);
                if (one is null)
                    refusals.Add(refusal!);
                else
                    taken.Add(one);
            }
            return taken;
        }
        try
        {
            return new(
                await EachAsync(pictures, async (content, name) =>
                {
                    var answer = await photos.TakeInAsync(content, name, stop);
                    return (answer.Photo, answer.Refusal);
                }),
                await EachAsync(recordings, async (content, name) =>
                {
                    var answer = await sounds.TakeInAsync(content, name, stop);
                    return (answer.Sound, answer.Refusal);
                }),
                await EachAsync(clips ?? [], async (content, name) =>
                {
                    var answer = await videos.TakeInAsync(content, name, stop);
                    return (answer.Video, answer.Refusal);
                }), refusals);
        }
        catch (IOException problem)
        {
            return Attachments.None with { Refusals = [WhyNot(problem, "photos"), .. refusals] };
        }
    }

    /// <summary>Takes one picture in, where one came along.</summary>
    public Task<Attachments> TakeInAsync(IFormFile? picture, CancellationToken stop) => TakeInAsync([picture], [], stop);

    /// <summary>Reads a file that is looked at and not kept, such as a table; or says that it is too large, or none.</summary>
    /// <param name="file">The file.</param>
    /// <param name="field">Its field.</param>
    /// <param name="mostBytes">The largest that is taken.</param>
    /// <param name="none">What is said where none was chosen.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<(byte[] Bytes, Refusal? Refusal)> ReadAsync(IFormFile? file, string field, long mostBytes, string none,
        CancellationToken stop)
    {
        if (file is null || file.Length == 0)
            return ([], new(field, none));
        if (file.Length > mostBytes)
            return ([], new(field, $"The file is larger than {InWords(mostBytes)}."));
        using var content = new MemoryStream();
        await file.CopyToAsync(content, stop);
        return (content.ToArray(), null);
    }

    /// <summary>The same of a file of text, in whichever encoding its first bytes say; UTF-8 where they say none.</summary>
    public static async Task<(string Text, Refusal? Refusal)> ReadTextAsync(IFormFile? file, string field, long mostBytes, string none,
        CancellationToken stop)
    {
        var (bytes, refusal) = await ReadAsync(file, field, mostBytes, none, stop);
        using var reader = new StreamReader(new MemoryStream(bytes), Encoding.UTF8, detectEncodingFromByteOrderMarks: true);
        return (await reader.ReadToEndAsync(stop), refusal);
    }

    /// <summary>Lets what a form sent be written to the disk; or says that the disk doesn't take it.</summary>
    public static async Task<(T? Taken, Refusal? Refusal)> ToDiskAsync<T>(string field, Func<Task<(T? Taken, Refusal? Refusal)>> write)
    {
        try
        {
            return await write();
        }
        catch (IOException problem)
        {
            return (default, WhyNot(problem, field));
        }
    }

    private static string InWords(long bytes) => bytes >= 1024 * 1024 ? $"{bytes / 1024 / 1024} MB" : $"{bytes / 1024} kB";
}
