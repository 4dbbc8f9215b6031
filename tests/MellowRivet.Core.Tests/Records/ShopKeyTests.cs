using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Tests.Records;

public class ShopKeyTests
{
    [Fact]
    public void A_key_that_was_kept_signs_what_the_public_one_holds_and_nothing_else()
    {
        using var made = ShopKey.Make();
        using var kept = ShopKey.Read(made.ToPem());
        var signature = kept.Sign("record", "abc");
        ShopKey.Holds(made.PublicKey, "record", "abc", signature).ShouldBeTrue();
        ShopKey.Holds(made.PublicKey, "record", "abd", signature).ShouldBeFalse();
        ShopKey.Holds(made.PublicKey, "passport", "abc", signature).ShouldBeFalse("what is signed for one purpose stands for no other");
        using var other = ShopKey.Make();
        ShopKey.Holds(other.PublicKey, "record", "abc", signature).ShouldBeFalse();
    }

    // FIPS 186-4 through the framework's own class, and SHA-256 (FIPS 180-4): what docs/formats.md says of both.
    [Fact]
    public void Signature_and_fingerprint_are_the_published_construction()
    {
        using var key = ShopKey.Make();
        using var ecdsa = ECDsa.Create();
        ecdsa.ImportSubjectPublicKeyInfo(Convert.FromBase64String(key.PublicKey), out _);
        ecdsa.ExportParameters(false).Curve.Oid.Value.ShouldBe("1.2.840.10045.3.1.7", "RFC 5480 names P-256 so");
        ecdsa.VerifyData(Encoding.UTF8.GetBytes("mellow-rivet passport\ntext"), Convert.FromBase64String(key.Sign("passport", "text")),
            HashAlgorithmName.SHA256, DSASignatureFormat.IeeeP1363FixedFieldConcatenation).ShouldBeTrue();
        key.Fingerprint.ShouldBe(Convert.ToHexStringLower(SHA256.HashData(Convert.FromBase64String(key.PublicKey))));
    }

    [Theory]
    [InlineData("", "")]
    [InlineData("no base64", "AAAA")]
    [InlineData("AAAA", "no base64")]
    public void What_is_no_key_or_no_signature_holds_nothing(string key, string signature) =>
        ShopKey.Holds(key, "record", "abc", signature).ShouldBeFalse();

    [Fact]
    public void A_text_that_is_no_key_is_told() => Should.Throw<FormatException>(() => ShopKey.Read("-----BEGIN SOMETHING-----"));

    [Fact]
    public void Keys_follow_each_other_by_a_hand_over_and_one_that_does_not_is_found()
    {
        using var first = ShopKey.Make();
        using var second = ShopKey.Make();
        using var strange = ShopKey.Make();
        var begun = ShopKeyLine.Begin(first, ChainHead.Empty, Fixture.Now);
        ChainHead head = new(3, new('a', 64));
        var handed = ShopKeyLine.Begin(second, head, Fixture.Now.AddDays(1), begun, first);
        (handed.Chain, handed.Number, handed.IsAnew).ShouldBe((first.Fingerprint, 2, false));
        ShopKeyLine.Fault([begun, handed]).ShouldBeNull();
        ShopKeyLine.Fault([handed]).ShouldBe("key 1 of the shop is missing");
        ShopKeyLine.Fault([begun, ShopKeyLine.Begin(second, head, Fixture.Now.AddDays(1), begun, strange)])
            .ShouldBe("key 2 of the shop wasn't handed over by the one before it");
        ShopKeyLine.Fault([begun, ShopKeyLine.Begin(second, head, Fixture.Now.AddDays(-1), begun, first)])
            .ShouldBe("key 2 of the shop wasn't handed over by the one before it");
        var lost = ShopKeyLine.Begin(second, head, Fixture.Now.AddDays(1), begun);
        (ShopKeyLine.Fault([begun, lost]), lost.IsAnew).ShouldBe((null, true));
    }

    [Fact]
    public void Records_are_signed_with_the_key_that_was_in_force()
    {
        using var first = ShopKey.Make();
        using var second = ShopKey.Make();
        List<SignedRecord> chain = [];
        void Sign(ShopKey? key) => chain.Add(SignedRecord.After(chain.LastOrDefault(), Guid.NewGuid(), Guid.NewGuid(), Book.Airframe,
            new JsonObject { ["statement"] = "good" }, Fixture.Now, key));
        ChainHead Head() => new(chain[^1].Number, chain[^1].Hash);
        Sign(null);
        var begun = ShopKeyLine.Begin(first, Head(), Fixture.Now);
        Sign(first);
        var handed = ShopKeyLine.Begin(second, Head(), Fixture.Now, begun, first);
        Sign(second);
        RecordChain.Faults(chain, 3, [begun, handed]).ShouldBeEmpty();
        Sign(first);
        RecordChain.Faults(chain, 4, [begun, handed]).ShouldHaveSingleItem().ShouldBe("record 4 isn't signed with the shop's key");
        RecordChain.Faults(chain, 4, [begun]).First().ShouldBe("record 3 isn't signed with the shop's key");
        chain.RemoveRange(1, 3);
        Sign(null);
        RecordChain.Faults(chain, 2, [begun]).ShouldHaveSingleItem().ShouldBe("record 2 isn't signed with the shop's key");
    }

    // The first key vouches for what was signed before there was one: a chain that was written anew there isn't the one it saw.
    [Fact]
    public void A_chain_from_before_the_key_that_was_written_anew_is_found()
    {
        using var key = ShopKey.Make();
        SignedRecord Signed(string words) => SignedRecord.After(null, default, default, Book.Airframe,
            new JsonObject { ["statement"] = words }, Fixture.Now);
        var begun = ShopKeyLine.Begin(key, new(1, Signed("not airworthy").Hash), Fixture.Now);
        RecordChain.Faults([Signed("not airworthy")], 1, [begun]).ShouldBeEmpty();
        RecordChain.Faults([Signed("airworthy")], 1, [begun]).ShouldHaveSingleItem()
            .ShouldBe("record 1 isn't the one after which key 1 of the shop began");
    }
}

public class ChainHeadTests
{
    private static readonly string Hash = string.Concat(Enumerable.Repeat("0123456789abcdef", 4));

    [Fact]
    public void What_is_printed_is_read_again()
    {
        var head = new ChainHead(50, Hash);
        $"{head}".ShouldBe("50-0123 4567 89ab cdef 0123 4567 89ab cdef");
        ChainHead.Read($"{head}").ShouldBe(new(50, Hash[..32]));
        ChainHead.Read(" 50 - 0123 4567 89AB CDEF ").ShouldBe(new(50, Hash[..16]), "as a tired hand types it");
    }

    [Theory]
    [InlineData(null)]
    [InlineData("")]
    [InlineData("50")]
    [InlineData("0-0123456789abcdef")]
    [InlineData("-0123456789abcdef")]
    [InlineData("50-0123456789abcde")]
    [InlineData("50-0123456789abcdeg")]
    [InlineData("50-0123456789abcdef-1")]
    public void What_says_no_record_or_too_little_of_its_hash_is_none(string? typed) => ChainHead.Read(typed).ShouldBeNull();

    [Fact]
    public void A_chain_goes_through_a_head_or_was_cut_or_written_anew()
    {
        List<string> hashes = [new('a', 64), Hash, new('c', 64)];
        new ChainHead(2, Hash[..16]).Fault(hashes).ShouldBeNull();
        new ChainHead(2, new('b', 16)).Fault(hashes).ShouldNotBeNull().ShouldContain("written anew: record 2");
        new ChainHead(4, Hash).Fault(hashes).ShouldNotBeNull().ShouldContain("cut: it has 3 records");
        ChainHead.Empty.Fault([]).ShouldBeNull();
    }
}

public class EvidenceTests
{
    // SHA-256 (FIPS 180-4) over the JSON array, its first 16 bytes in base64, as docs/formats.md says.
    [Fact]
    public void A_digest_is_the_published_construction() => Evidence.DigestOf(["a", 1L, 2.5, null]).ShouldBe(
        Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes("[\"a\",1,2.5,null]")).AsSpan(0, 16)));

    [Fact]
    public void Its_text_is_bound_and_read_again()
    {
        var (aircraft, inspection) = (Guid.NewGuid(), Guid.NewGuid());
        Evidence evidence = new(aircraft, inspection, new Dictionary<string, EvidencePart>
            { ["tasks"] = new(["At", "Verdict"], ["b", "a"]) }, [new('f', 64)]);
        (evidence.IsWhole, evidence.Hash)
            .ShouldBe((true, Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(evidence.Json)))));
        evidence.Files().ShouldBe([new('f', 64)]);
        evidence.Parts()["tasks"].Columns.ShouldBe(["At", "Verdict"]);
        evidence.Parts()["tasks"].Digests.ShouldBe(["a", "b"], "in one order, whatever the rows came in");
    }
}
