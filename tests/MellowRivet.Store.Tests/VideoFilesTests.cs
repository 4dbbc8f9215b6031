using MellowRivet.Core.Discrepancies;
using MellowRivet.Store.Files;

namespace MellowRivet.Store.Tests;

/// <summary>
/// Short videos: what they are and how long they run by their content. The clips were made by an encoder outside, ffmpeg 5.1.
/// </summary>
public sealed class VideoFilesTests : IDisposable
{
    private readonly DataFolder data = new(Path.Combine(Path.GetTempPath(), $"rivet-videos-{Guid.NewGuid():N}"));
    private readonly VideoFiles videos;

    public VideoFilesTests() => videos = new(data, TestShop.Clock);

    public void Dispose() => Directory.Delete(data.Path, recursive: true);

    private static byte[] Clip(string name) => File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "Clips", name));

    private Task<VideoTaken> TakeIn(byte[] bytes) => videos.TakeInAsync(new MemoryStream(bytes), "clip.mp4", default);

    [Theory]
    [InlineData("two-seconds.mp4", "video/mp4")]
    [InlineData("two-seconds.webm", "video/webm")]
    public async Task A_short_one_is_kept_as_it_came(string clip, string type)
    {
        var video = (await TakeIn(Clip(clip))).Video!;
        (video.Type, video.Seconds).ShouldBe((type, 2));
        var (path, served) = videos.Find(video.Sha256)!.Value;
        served.ShouldBe(type);
        File.ReadAllBytes(path).ShouldBe(Clip(clip));
        videos.Find("../rivet.db").ShouldBeNull();
    }

    [Theory]
    [InlineData("too-long.mp4", "runs 31 s, and 30 s is the most")]
    [InlineData("too-long.webm", "runs 31 s, and 30 s is the most")]
    [InlineData("streamed.webm", "doesn’t say how long it runs")]
    [InlineData("fragments.mp4", "doesn’t say how long it runs")]
    [InlineData("sound-alone.mp4", "MP4 or WebM")]
    [InlineData("sound-alone.webm", "MP4 or WebM")]
    [InlineData("other-film.mp4", "MP4 or WebM")]
    public async Task Anything_else_is_refused_with_why_and_nothing_of_it_is_kept(string clip, string why)
    {
        (await TakeIn(Clip(clip))).Refusal!.Message.ShouldContain(why);
        Directory.GetFiles(data.Videos, "*", SearchOption.AllDirectories).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_file_broken_anywhere_is_refused_and_never_a_fault()
    {
        foreach (var whole in new[] { Clip("two-seconds.mp4"), Clip("two-seconds.webm") })
            for (var at = 0; at < whole.Length; at += 13)
            {
                byte[] cut = whole[..at], bent = [.. whole];
                bent[at] ^= 0xFF;
                foreach (var broken in new[] { cut, bent })
                {
                    var taken = await TakeIn(broken);
                    (taken.Video is null).ShouldBe(taken.Refusal is not null);
                    if (taken.Video is { } video)
                        video.Seconds.ShouldBeInRange(0.1, Video.LongestSeconds);
                }
            }
    }

    [Fact]
    public async Task A_file_that_nests_without_end_is_refused_and_stops_nothing()
    {
        const int deep = 100_000;
        byte[] Box(int size, string name) => [(byte)(size >> 24), (byte)(size >> 16), (byte)(size >> 8), (byte)size,
            .. System.Text.Encoding.ASCII.GetBytes(name)];
        byte[] Film(IEnumerable<string> names) => [.. Box(16, "ftyp"), .. "isom\0\0\0\0"u8,
            .. names.SelectMany((name, level) => Box((deep - level) * 8, name))];
        byte[] web = [.. Clip("two-seconds.webm")[..40], 0x18, 0x53, 0x80, 0x67, 0x01, .. Enumerable.Repeat((byte)0xFF, 7),
            .. Enumerable.Repeat<byte[]>([0xAE, 0x01, 0xFF, 0xFF, 0xFF, 0xFF, 0xFF, 0xFF, 0xFF], deep).SelectMany(element => element)];
        foreach (var nested in new[] { Film(Enumerable.Repeat("moov", deep)), web,
            Film(Enumerable.Repeat("trak", deep - 1).Prepend("moov")) })
            (await TakeIn(nested)).Refusal!.Message.ShouldContain("MP4 or WebM");
    }

    [Fact]
    public async Task One_over_the_size_is_refused()
    {
        var large = new byte[VideoFiles.MostBytes + 1];
        Clip("two-seconds.mp4").CopyTo(large, 0);
        (await TakeIn(large)).Refusal!.Message.ShouldContain("larger than 50 MB");
    }
}
