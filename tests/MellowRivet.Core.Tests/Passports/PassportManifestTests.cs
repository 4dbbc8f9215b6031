using MellowRivet.Core.Passports;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Tests.Passports;

public class PassportManifestTests
{
    private static readonly string Hash = new('a', 64);

    private static PassportManifest Of(params string[] paths) => new(PassportManifest.FormatName, PassportManifest.CurrentVersion,
        Fixture.Now, new(Guid.NewGuid(), "N0TST", "Test", "1"), new("Test shop", Hash), new(1, Hash), [Hash], [], [],
        [.. paths.Select(path => new PassportFile(path, 1, Hash))]);

    [Fact]
    public void What_is_written_is_read_again()
    {
        var written = Of("README.txt", "data/aircraft.jsonl", $"photos/{Hash}.jpg").ToJson();
        var (read, fault) = PassportManifest.Read(written);
        fault.ShouldBeNull();
        read!.ToJson().ShouldBe(written);
    }

    [Theory]
    [InlineData("../etc/passwd")]
    [InlineData("photos/../../x.jpg")]
    [InlineData("/etc/passwd")]
    [InlineData("photos/a/b.jpg")]
    [InlineData("photos\\..\\x.jpg")]
    [InlineData("photos/")]
    [InlineData("elsewhere/x.jpg")]
    [InlineData("photos/.hidden")]
    [InlineData("..")]
    [InlineData("photos/a\u0000b")]
    [InlineData("photos/%2e%2e")]
    public void A_path_that_leads_anywhere_else_is_none(string path)
    {
        PassportFile.IsPath(path).ShouldBeFalse();
        PassportManifest.Read(Of(path).ToJson()).Fault.ShouldNotBeNull().ShouldContain("no path that a passport has");
    }

    [Theory]
    [InlineData("\"version\": 1", "\"version\": 2", "a newer one made it")]
    [InlineData("mellow-rivet-passport", "mellow-rivet-aircraft", "no aircraft’s passport")]
    [InlineData("\"records\"", "\"signed\"", "can’t be read")]
    [InlineData("\"registration\": \"N0TST\"", "\"registration\": \"\"", "names no aircraft")]
    [InlineData("\"bytes\": 1", "\"bytes\": -1", "a length or a hash")]
    [InlineData("aaaaaaaa\"", "aaaaaaaZ\"", "a length or a hash")]
    public void What_it_can_not_be_is_told(string was, string becomes, string says) =>
        PassportManifest.Read(Of("README.txt").ToJson().Replace(was, becomes, StringComparison.Ordinal)).Fault.ShouldNotBeNull()
            .ShouldContain(says);

    [Fact]
    public void A_path_stands_in_it_once_whatever_its_case() =>
        PassportManifest.Read(Of("README.txt", "readme.TXT").ToJson()).Fault.ShouldNotBeNull().ShouldContain("is in it twice");

    [Fact]
    public void It_is_signed_for_this_purpose_alone()
    {
        using var key = ShopKey.Make();
        var signature = PassportManifest.Sign(key, "text");
        PassportManifest.Holds(key.PublicKey, "text", signature).ShouldBeTrue();
        ShopKey.Holds(key.PublicKey, "record", "text", signature).ShouldBeFalse();
    }
}
