using System.Security.Cryptography;
using System.Text;

namespace MellowRivet.Core.Records;

/// <summary>
/// The key a shop signs its records and passports with: ECDSA on the curve P-256 over SHA-256 (FIPS 186-4). It says which shop a paper
/// comes from, and is no person's signature.
/// </summary>
public sealed class ShopKey : IDisposable
{
    private readonly ECDsa key;

    private ShopKey(ECDsa key)
    {
        this.key = key;
        PublicKey = Convert.ToBase64String(key.ExportSubjectPublicKeyInfo());
        Fingerprint = FingerprintOf(PublicKey)!;
    }

    /// <summary>What everybody may know of it: its SubjectPublicKeyInfo (RFC 5280) in base64.</summary>
    public string PublicKey { get; }

    /// <summary>SHA-256 over that, in lower-case hex: what a person compares.</summary>
    public string Fingerprint { get; }

    public static ShopKey Make() => new(ECDsa.Create(ECCurve.NamedCurves.nistP256));

    /// <exception cref="FormatException">It is no such key.</exception>
    public static ShopKey Read(string pem)
    {
        var key = ECDsa.Create();
        try
        {
            key.ImportFromPem(pem);
            return new(key);
        }
        catch (Exception problem) when (problem is ArgumentException or CryptographicException)
        {
            key.Dispose();
            throw new FormatException("The shop's key can't be read.", problem);
        }
    }

    /// <summary>The whole of it, PKCS #8 in PEM: whoever has this signs as the shop.</summary>
    public string ToPem() => key.ExportPkcs8PrivateKeyPem();

    /// <summary>Signs a text of some purpose, so that what is signed for one stands for no other.</summary>
    public string Sign(string purpose, string text) => Convert.ToBase64String(key.SignData(Bytes(purpose, text), HashAlgorithmName.SHA256));

    /// <summary>Whether a signature was made over this text, for this purpose, with the key of which only this is known.</summary>
    public static bool Holds(string publicKey, string purpose, string text, string? signature)
    {
        try
        {
            using var known = ECDsa.Create();
            known.ImportSubjectPublicKeyInfo(Convert.FromBase64String(publicKey), out _);
            return signature is not null
                && known.VerifyData(Bytes(purpose, text), Convert.FromBase64String(signature), HashAlgorithmName.SHA256);
        }
        catch (Exception problem) when (problem is FormatException or CryptographicException)
        {
            return false;
        }
    }

    /// <summary>The fingerprint of a key of which only this is known; null where it is no base64.</summary>
    public static string? FingerprintOf(string publicKey)
    {
        var bytes = new byte[publicKey.Length];
        return Convert.TryFromBase64String(publicKey, bytes, out var length)
            ? Convert.ToHexStringLower(SHA256.HashData(bytes.AsSpan(0, length)))
            : null;
    }

    /// <summary>A fingerprint or hash as one compares it by eye: its first 32 digits in groups of four.</summary>
    public static string ToCompare(string hex) => string.Join(' ', hex.Take(32).Chunk(4).Select(four => new string(four)));

    public void Dispose() => key.Dispose();

    private static byte[] Bytes(string purpose, string text) => Encoding.UTF8.GetBytes($"mellow-rivet {purpose}\n{text}");
}

/// <summary>
/// From when on a shop signs with a key. The first one vouches for the chain as it found it; each later one is handed over by the one
/// before, or says that there was nobody to hand it over.
/// </summary>
public sealed class ShopKeyLine
{
    private const string Purpose = "key";

    private ShopKeyLine() { }

    /// <summary>SHA-256 over the public key, in lower-case hex.</summary>
    public string Fingerprint { get; private set; } = "";

    /// <summary>Which shop's chain it signs: the fingerprint of that shop's first key.</summary>
    public string Chain { get; private set; } = "";

    /// <summary>The how manieth of that shop, from 1.</summary>
    public int Number { get; private set; }
    public string PublicKey { get; private set; } = "";
    public DateTimeOffset From { get; private set; }

    /// <summary>The last record of the chain that was signed without it, and that record's hash: all up to there is vouched for.</summary>
    public long AfterRecord { get; private set; }
    public string AfterHash { get; private set; } = "";

    /// <summary>Signed with itself.</summary>
    public string Signature { get; private set; } = "";

    /// <summary>Signed with the key before it; null for the first, and where that one was lost.</summary>
    public string? HandOver { get; private set; }

    /// <summary>What the shop is called whose key it is; null for this one's own.</summary>
    public string? ShopThere { get; private set; }

    /// <summary>A key begins.</summary>
    /// <param name="key">The key.</param>
    /// <param name="after">The chain as it stands.</param>
    /// <param name="at">When.</param>
    /// <param name="before">The line of the key before it; null for the first.</param>
    /// <param name="old">That key; null where it was lost.</param>
    public static ShopKeyLine Begin(ShopKey key, ChainHead after, DateTimeOffset at, ShopKeyLine? before = null, ShopKey? old = null)
    {
        ShopKeyLine line = new()
        {
            Fingerprint = key.Fingerprint, Chain = before?.Chain ?? key.Fingerprint, Number = (before?.Number ?? 0) + 1,
            PublicKey = key.PublicKey, From = at, AfterRecord = after.Number, AfterHash = after.Hash,
        };
        line.Signature = key.Sign(Purpose, line.Statement);
        line.HandOver = old?.Sign(Purpose, line.Statement);
        return line;
    }

    /// <summary>Begun while the one before it was lost.</summary>
    public bool IsAnew => Number > 1 && HandOver is null;

    private string Statement => string.Join('\n', Chain, Number.ToString(System.Globalization.CultureInfo.InvariantCulture), PublicKey,
        From.UtcDateTime.ToString("O"), AfterRecord.ToString(System.Globalization.CultureInfo.InvariantCulture), AfterHash);

    /// <summary>What is wrong with a shop's keys, in their order; null where each begins as it should.</summary>
    public static string? Fault(IReadOnlyList<ShopKeyLine> lines)
    {
        foreach (var (index, line) in lines.Index())
        {
            var before = index == 0 ? null : lines[index - 1];
            if (line.Number != index + 1 || line.Chain != lines[0].Fingerprint)
                return $"key {index + 1} of the shop is missing";
            if (ShopKey.FingerprintOf(line.PublicKey) != line.Fingerprint
                || !ShopKey.Holds(line.PublicKey, Purpose, line.Statement, line.Signature))
                return $"key {line.Number} of the shop was altered";
            if (before is not null && (line.AfterRecord < before.AfterRecord || line.From < before.From
                || (line.HandOver is not null && !ShopKey.Holds(before.PublicKey, Purpose, line.Statement, line.HandOver))))
                return $"key {line.Number} of the shop wasn't handed over by the one before it";
        }
        return null;
    }
}
