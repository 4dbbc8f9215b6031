using MimeKit;

namespace MellowRivet.Store;

/// <summary>A mail as it stands in the outbox.</summary>
/// <param name="Name">Its file's name, without the ending.</param>
/// <param name="To">Whom it is for.</param>
/// <param name="Subject">Its subject.</param>
/// <param name="Body">Its words.</param>
/// <param name="At">When it was written.</param>
public sealed record OutMail(string Name, string To, string Subject, string Body, DateTimeOffset At);

/// <summary>
/// Where mail would leave the shop. No mail is sent: each lies here as a file that any mail program opens, and a person sends
/// it or not. A shop that wants it sent puts a mailer in this place.
/// </summary>
public sealed class OutgoingMail(DataFolder data, TimeProvider clock)
{
    private const int MostListed = 200;
    private const string Stamp = "yyyyMMdd'T'HHmmssfff";

    /// <summary>Whether a mail can go to an address as typed: one address, and nothing but it.</summary>
    public static bool Takes(string? address) => MailboxAddress.TryParse(address, out var read) && read.Address == address?.Trim();

    /// <summary>Puts a mail into the outbox.</summary>
    /// <exception cref="IOException">The disk is full or gone.</exception>
    public async Task SendAsync(string from, string to, string subject, string body, CancellationToken stop)
    {
        var now = clock.GetUtcNow();
        var mail = new MimeMessage { Subject = subject, Date = now, Body = new TextPart("plain") { Text = body } };
        mail.From.Add(new MailboxAddress(from, "shop@localhost"));
        mail.To.Add(MailboxAddress.Parse(to));
        await using var file = new FileStream(PathOf($"{now.UtcDateTime.ToString(Stamp)}-{Guid.NewGuid():N}"), FileMode.CreateNew);
        await mail.WriteToAsync(file, stop);
        file.Flush(flushToDisk: true);
    }

    /// <summary>The latest mails, latest first.</summary>
    public IReadOnlyList<OutMail> List() =>
        [.. Directory.EnumerateFiles(data.Outbox, "*.eml").OrderDescending(StringComparer.Ordinal).Take(MostListed).Select(path =>
        {
            using var mail = MimeMessage.Load(path);
            return new OutMail(Path.GetFileNameWithoutExtension(path), mail.To.ToString(), mail.Subject ?? "", mail.TextBody
                ?? "", mail.Date);
        })];

    /// <summary>The path of a mail, or null where there is none. Only names that stand in the list reach the file system.</summary>
    public string? Find(string name) =>
        name.Length is > 0 and < 80 && name.All(letter => char.IsAsciiLetterOrDigit(letter) || letter == '-') && File.Exists(PathOf(name))
            ? PathOf(name)
            : null;

    private string PathOf(string name) => Path.Combine(data.Outbox, $"{name}.eml");
}
