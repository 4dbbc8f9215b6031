using System.Security.Cryptography;
using System.Text;
using MellowRivet.Store.Files;
using SkiaSharp;

namespace MellowRivet.Store.Tests;

public sealed class PhotoFilesTests : IDisposable
{
    private readonly DataFolder data = new(Path.Combine(Path.GetTempPath(), $"rivet-photos-{Guid.NewGuid():N}"));
    private readonly PhotoFiles photos;

    public PhotoFilesTests() => photos = new(data, TestShop.Clock);

    public void Dispose() => Directory.Delete(data.Path, recursive: true);

    private Task<PhotoTaken> TakeIn(byte[] bytes, string name = "IMG.jpg") => photos.TakeInAsync(new MemoryStream(bytes), name, default);

    [Fact]
    public async Task The_original_is_kept_untouched_under_its_hash()
    {
        var bytes = TestPictures.Jpeg();
        var photo = (await TakeIn(bytes)).Photo!;
        photo.Sha256.ShouldBe(Convert.ToHexStringLower(SHA256.HashData(bytes)));
        File.ReadAllBytes(photos.OriginalPath(photo.Sha256)).ShouldBe(bytes);
        Directory.GetFiles(data.Photos, "*.incoming").ShouldBeEmpty();
    }

    // EXIF 2.3, tag 0x0112, from memory: where the first row and column of the file stand on the scene. The red quarter is the
    // file's top left; upright it must stand at the named corner, and 5 to 8 turn the picture on its side.
    [Theory]
    [InlineData(1, false, false, false)]
    [InlineData(2, true, false, false)]
    [InlineData(3, true, true, false)]
    [InlineData(4, false, true, false)]
    [InlineData(5, false, false, true)]
    [InlineData(6, true, false, true)]
    [InlineData(7, true, true, true)]
    [InlineData(8, false, true, true)]
    public async Task A_picture_is_turned_the_way_the_camera_was_held(int orientation, bool right, bool bottom, bool sideways)
    {
        var photo = (await TakeIn(TestPictures.Jpeg(orientation))).Photo!;
        (photo.Width, photo.Height).ShouldBe(sideways
            ? (TestPictures.Height, TestPictures.Width)
            : (TestPictures.Width, TestPictures.Height));

        using var copy = SKBitmap.Decode(photos.PathOf(photo.Sha256, PhotoSize.Large));
        (copy.Width, copy.Height).ShouldBe((photo.Width, photo.Height));
        IsRed(copy.GetPixel(copy.Width * (right ? 3 : 1) / 4, copy.Height * (bottom ? 3 : 1) / 4)).ShouldBeTrue();
        IsRed(copy.GetPixel(copy.Width * (right ? 1 : 3) / 4, copy.Height * (bottom ? 1 : 3) / 4)).ShouldBeFalse();
    }

    [Fact]
    public async Task Where_it_was_taken_never_leaves_with_a_copy()
    {
        var bytes = TestPictures.Jpeg(withLocation: true);
        Encoding.ASCII.GetString(bytes).ShouldContain("SECRETPLACE");
        var photo = (await TakeIn(bytes)).Photo!;
        foreach (var size in Enum.GetValues<PhotoSize>())
        {
            var copy = Encoding.ASCII.GetString(File.ReadAllBytes(photos.PathOf(photo.Sha256, size)!));
            copy.ShouldNotContain("SECRETPLACE");
            copy.ShouldNotContain("Exif");
        }
    }

    [Theory]
    [InlineData(SKEncodedImageFormat.Png)]
    [InlineData(SKEncodedImageFormat.Webp)]
    [InlineData(SKEncodedImageFormat.Jpeg)]
    public async Task What_it_is_decides_and_not_its_name(SKEncodedImageFormat format) =>
        (await TakeIn(TestPictures.Encoded(format), "holiday.txt")).Photo.ShouldNotBeNull();

    [Fact]
    public async Task Text_renamed_to_a_picture_is_refused() =>
        Refused(await TakeIn(Encoding.UTF8.GetBytes("no picture, just words"), "photo.jpg"))
            .ShouldContain("“photo.jpg” is not a JPEG, PNG or WebP picture");

    [Fact]
    public async Task A_picture_cut_short_is_refused()
    {
        var whole = TestPictures.Jpeg();
        Refused(await TakeIn(whole[..(whole.Length * 2 / 3)])).ShouldContain("damaged");
    }

    [Fact]
    public async Task Heic_is_refused_with_what_to_do() => Refused(await TakeIn(TestPictures.Heic())).ShouldContain("most compatible");

    [Fact]
    public async Task A_claim_of_too_many_pixels_is_refused_before_any_is_decoded() =>
        Refused(await TakeIn(TestPictures.EnormousPng())).ShouldContain("30000 × 30000 pixels; 60 megapixels is the most");

    [Fact]
    public async Task Sixty_megabytes_are_refused_and_not_kept() =>
        Refused(await TakeIn(new byte[60 * 1024 * 1024])).ShouldContain("larger than 25 MB");

    [Fact]
    public async Task An_empty_file_is_refused() => Refused(await TakeIn([])).ShouldContain("is empty");

    [Fact]
    public async Task A_picture_that_moves_is_refused_and_one_in_four_inks_is_shown_in_three()
    {
        Refused(await TakeIn(TestPictures.Moving(), "wing.webp")).ShouldContain("“wing.webp” moves: it has 2 pictures in it");
        var photo = (await TakeIn(TestPictures.FourInks())).Photo!;
        (photo.Width, photo.Height).ShouldBe((16, 12));
        using var copy = SKBitmap.Decode(photos.PathOf(photo.Sha256, PhotoSize.Large));
        copy.GetPixel(8, 6).Red.ShouldBeGreaterThan((byte)(copy.GetPixel(8, 6).Blue + 60), "red-brown stays red-brown");
        var found = photos.Find(photo.Sha256)!;
        (found.Sha256, found.Width, found.Height).ShouldBe((photo.Sha256, 16, 12));
        photos.Find(new string('a', 64)).ShouldBeNull();
    }

    [Theory]
    [InlineData("RIFFxxxxWAVEfmt ", "audio/wav")]
    [InlineData("OggS____________", "audio/ogg")]
    [InlineData("xxxxftypM4A ____", "audio/mp4")]
    [InlineData("ID3_____________", "audio/mpeg")]
    [InlineData("<html>__________", null)]
    [InlineData("", null)]
    public async Task A_sound_is_what_its_first_bytes_say(string head, string? type)
    {
        var sounds = new SoundFiles(data, TestShop.Clock);
        var taken = await sounds.TakeInAsync(new MemoryStream(Encoding.ASCII.GetBytes(head)), "click.wav", default);
        taken.Sound?.Type.ShouldBe(type);
        if (type is null)
        {
            taken.Refusal!.Message.ShouldContain(head.Length == 0 ? "is empty" : "is no sound that browsers play");
            Directory.GetFiles(data.Sounds, "*", SearchOption.AllDirectories).ShouldBeEmpty();
        }
        else
            File.ReadAllText(sounds.Find(taken.Sound!.Sha256)!).ShouldBe(head);
        sounds.Find("../../rivet.db").ShouldBeNull();
    }

    [Fact]
    public async Task A_sound_over_its_limit_is_refused() =>
        (await new SoundFiles(data, TestShop.Clock).TakeInAsync(new MemoryStream(new byte[SoundFiles.MostBytes + 1]), "long.wav",
            default)).Refusal!.Message.ShouldContain("larger than 10 MB");

    [Fact]
    public async Task Two_who_look_first_at_once_get_the_same_large_copy()
    {
        var photo = (await TakeIn(TestPictures.Jpeg())).Photo!;
        var paths = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => Task.Run(() => photos.PathOf(photo.Sha256, PhotoSize.Large))));
        paths.Distinct().ShouldHaveSingleItem().ShouldNotBeNull();
        using var copy = SKBitmap.Decode(paths[0]);
        copy.Width.ShouldBe(TestPictures.Width);
        Directory.GetFiles(data.Photos, "*.half", SearchOption.AllDirectories).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("../../rivet.db")]
    [InlineData("..")]
    [InlineData("")]
    [InlineData("AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA")]
    public void No_name_from_outside_reaches_the_file_system(string name) => photos.PathOf(name, PhotoSize.Large).ShouldBeNull();

    private string Refused(PhotoTaken taken)
    {
        taken.Photo.ShouldBeNull();
        Directory.GetFiles(data.Photos, "*", SearchOption.AllDirectories).ShouldBeEmpty("nothing half-saved");
        return taken.Refusal!.Message;
    }

    private static bool IsRed(SKColor colour) => colour.Red > 180 && colour.Green < 90 && colour.Blue < 90;
}
