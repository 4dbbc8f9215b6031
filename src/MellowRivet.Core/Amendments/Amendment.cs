using System.Globalization;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Amendments;

/// <summary>What was put right.</summary>
public enum AmendmentOf { Meter = 1, Reading, Plate, Stay, Due }

/// <summary>
/// Something that stood in an aircraft's file wrong and was put right in the open: what stood there is struck and stays to be read, with
/// who, when and why. What was signed meanwhile stays as it was signed; its record says that this came after.
/// </summary>
public sealed class Amendment
{
    /// <summary>The longest reason, in characters.</summary>
    public const int LongestWhy = 200;

    private const string Purpose = "amendment";

    private List<int> records = [];

    private Amendment() { }

    /// <param name="id">Its id: the post's.</param>
    /// <param name="aircraftId">The aircraft whose file it stood in.</param>
    /// <param name="of">What kind of thing.</param>
    /// <param name="subject">The very thing: the reading, the part, the stay, the item.</param>
    /// <param name="what">What it is, in words.</param>
    /// <param name="was">What stood there.</param>
    /// <param name="is">What stands there now; null where it was struck alone.</param>
    /// <param name="why">Why.</param>
    /// <param name="by">Who, and when.</param>
    public Amendment(Guid id, Guid aircraftId, AmendmentOf of, Guid subject, string what, string was, string? @is, string why, WhoSet by) =>
        (Id, AircraftId, Of, Subject, What, Was, Is, Why, By, Name, At) =
        (id, aircraftId, of, subject, what, was, @is, why.Trim(), by.By, by.Name, by.At);

    public Guid Id { get; private set; }
    public Guid AircraftId { get; private set; }
    public AmendmentOf Of { get; private set; }
    public Guid Subject { get; private set; }
    public string What { get; private set; } = "";
    public string Was { get; private set; } = "";
    public string? Is { get; private set; }
    public string Why { get; private set; } = "";
    public Guid By { get; private set; }

    /// <summary>What they were called then.</summary>
    public string Name { get; private set; } = "";
    public DateTimeOffset At { get; private set; }

    /// <summary>What rested on it and was reckoned anew, in words; "" where nothing did.</summary>
    public string Along { get; private set; } = "";

    /// <summary>The signed records that rest on what stood there, by their numbers: they stay, and say so.</summary>
    public IReadOnlyList<int> Records => records;

    /// <summary>"recording tach of 2026-11-20: 4381.6 h struck, 4318.6 h in its place. Figures turned round".</summary>
    public string InWords => $"{What}: {Was} struck{(Is is null ? "" : $", {Is} in its place")}. {Why}";

    /// <summary>Says what was reckoned anew with it, and which signed records rest on what stood there.</summary>
    public void With(string along, IEnumerable<long> restsOnIt) =>
        (Along, records) = (along, [.. restsOnIt.Order().Select(number => (int)number)]);

    /// <summary>Made with the shop's key over what it says; null for one from before the shop had a key.</summary>
    public string? Signature { get; private set; }

    /// <summary>Seals it with the shop's key.</summary>
    public void Seal(ShopKey key) => Signature = key.Sign(Purpose, Statement);

    /// <summary>Whether one of these keys sealed it as it stands.</summary>
    public bool IsSealedBy(IEnumerable<ShopKeyLine> keys) =>
        keys.Any(line => ShopKey.Holds(line.PublicKey, Purpose, Statement, Signature));

    private string Statement => string.Join('\n', Id, AircraftId, Of, Subject, What, Was, Is, Why, By, Name,
        At.UtcDateTime.ToString("O", CultureInfo.InvariantCulture));

    /// <summary>What is wrong with the reason; null where it says something.</summary>
    public static Refusal? Check(string? why) => string.IsNullOrWhiteSpace(why) || why.Trim().Length > LongestWhy
        ? new("amendWhy", $"Say what was wrong, in up to {LongestWhy} characters: it stays beside what is struck.")
        : null;
}
