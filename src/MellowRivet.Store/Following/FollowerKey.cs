using System.Security.Cryptography;
using System.Text;
using MellowRivet.Store.Files;

namespace MellowRivet.Store.Following;

/// <summary>
/// What a second machine shows to be given everything: long, random, handed over as a file. The shop keeps its hash alone, and one at a
/// time.
/// </summary>
public static class FollowerKey
{
    private const string Name = "follower.sha256";

    /// <summary>Makes one, in a file that isn't there yet; the one before opens nothing any more.</summary>
    /// <exception cref="IOException">There is such a file.</exception>
    public static void Make(DataFolder data, string file)
    {
        if (Path.Exists(file))
            throw new IOException($"{file} is there already, and stays as it is: name another.");
        var key = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(32));
        Disk.Keep(Path.GetFullPath(file), key + "\n");
        Disk.Keep(Path.Combine(data.Keys, Name), HashOf(key) + "\n");
    }

    /// <summary>Whether a shop gives itself out to a second machine at all.</summary>
    public static bool IsThere(DataFolder data) => File.Exists(Path.Combine(data.Keys, Name));

    /// <summary>Whether it is the shop's.</summary>
    public static bool Opens(DataFolder data, string? key) => key is { Length: > 0 and < 200 } && IsThere(data)
        && CryptographicOperations.FixedTimeEquals(Encoding.ASCII.GetBytes(HashOf(key)),
            Encoding.ASCII.GetBytes(File.ReadAllText(Path.Combine(data.Keys, Name)).Trim()));

    private static string HashOf(string key) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(key)));
}
