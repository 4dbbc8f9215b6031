using System.Security.Cryptography;
using System.Text;

namespace MellowRivet.Web.Access;

/// <summary>
/// What whoever starts the program knows, and a stranger at the door of an empty shop doesn't: the first account takes it. It holds until
/// the program stops, and is printed where it was started.
/// </summary>
public sealed class FirstRunCode
{
    // Letters and digits that nobody takes for one another.
    private const string Letters = "ABCDEFGHJKMNPQRSTVWXYZ23456789";

    public string Code { get; } = $"{RandomNumberGenerator.GetString(Letters, 5)}-{RandomNumberGenerator.GetString(Letters, 5)}";

    public bool Is(string? typed) => CryptographicOperations.FixedTimeEquals(Bare(typed), Bare(Code));

    private static byte[] Bare(string? code) =>
        Encoding.UTF8.GetBytes(string.Concat((code ?? "").Where(char.IsLetterOrDigit)).ToUpperInvariant());
}
