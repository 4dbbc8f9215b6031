namespace MellowRivet.Core.Passports;

/// <summary>
/// A passport that was taken in: its manifest stays as it was signed, and says which records of another shop have to be here.
/// </summary>
public sealed class PassportTaken
{
    private PassportTaken() { }

    /// <param name="id">Its id: the post's.</param>
    /// <param name="manifest">The manifest, checked.</param>
    /// <param name="text">The very text that was signed.</param>
    /// <param name="signature">The signature over it.</param>
    /// <param name="by">Who took it in; empty for the command line.</param>
    /// <param name="at">When.</param>
    public PassportTaken(Guid id, PassportManifest manifest, string text, string signature, Guid by, DateTimeOffset at) =>
        (Id, AircraftId, Shop, Fingerprint, Manifest, Signature, By, At) =
        (id, manifest.Aircraft.Id, manifest.Shop.Name, manifest.Shop.Fingerprint, text, signature, by, at);

    public Guid Id { get; private set; }
    public Guid AircraftId { get; private set; }

    /// <summary>What the shop is called that made it.</summary>
    public string Shop { get; private set; } = "";

    /// <summary>The key of that shop which signed it.</summary>
    public string Fingerprint { get; private set; } = "";
    public string Manifest { get; private set; } = "";
    public string Signature { get; private set; } = "";
    public Guid By { get; private set; }
    public DateTimeOffset At { get; private set; }
}
