using MellowRivet.Core;
using MellowRivet.Store.Files;
using Microsoft.EntityFrameworkCore;
using MimeKit;

namespace MellowRivet.Store;

/// <summary>A mail as it stands in the outbox.</summary>
/// <param name="Name">Its file's name, without the ending.</param>
/// <param name="To">Whom it is for.</param>
/// <param name="Subject">Its subject.</param>
/// <param name="Body">Its words.</param>
/// <param name="At">When it was written.</param>
public sealed record OutMail(string Name, string To, string Subject, string Body, DateTimeOffset At);

/// <summary>A mail that waits for the write it tells of. Whoever lets go of it before it is sent lets go of the mail.</summary>
public sealed class WaitingMail : IDisposable
{
    internal const string Ending = ".half";

    private readonly string path;
    private readonly DateTimeOffset at;

    internal WaitingMail(string path, DateTimeOffset at) => (this.path, this.at) = (path, at);

    /// <summary>Puts it on the disk; or says why the disk doesn't take it.</summary>
    public async Task<Refusal?> WriteAsync(string to, string subject, string body, CancellationToken stop)
    {
        using var mail = new MimeMessage { Subject = subject, Date = at, Body = new TextPart("plain") { Text = body } };
        mail.From.Add(new MailboxAddress("The shop", "shop@localhost"));
        mail.To.Add(MailboxAddress.Parse(to));
        try
        {
            await using var file = new FileStream(path + Ending, FileMode.CreateNew);
            await mail.WriteToAsync(file, stop);
            file.Flush(flushToDisk: true);
            return null;
        }
        catch (Exception problem) when (problem is IOException or UnauthorizedAccessException)
        {
            return Disk.IsFull(problem)
                ? Disk.NoRoom
                : new("to", "Its mail can’t be written, so no link was made. Whoever looks after the machine finds out why.");
        }
    }

    /// <summary>Gives it its place in the outbox. What a power cut leaves on the way, the next start does.</summary>
    public void Send()
    {
        File.Move(path + Ending, path);
        Disk.SyncFolder(Path.GetDirectoryName(path)!);
    }

    public void Dispose() => File.Delete(path + Ending);
}

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

    /// <summary>
    /// Writes a mail within the write that it tells of: it is in the outbox once that is kept, and is nowhere where it isn't.
    /// </summary>
    /// <param name="about">The id of what it tells of, as of a link.</param>
    public WaitingMail For(Guid about) => new(PathOf($"{clock.GetUtcNow().UtcDateTime.ToString(Stamp)}-{about:N}"), clock.GetUtcNow());

    /// <summary>
    /// What a start before this one left on its way: a mail whose link is kept goes into the outbox, another one never was.
    /// </summary>
    public async Task FinishAsync(RivetDb db, CancellationToken stop)
    {
        foreach (var half in Directory.EnumerateFiles(data.Outbox, $"*{WaitingMail.Ending}").ToList())
        {
            var name = Path.GetFileNameWithoutExtension(Path.GetFileNameWithoutExtension(half));
            if (Guid.TryParse(name.Split('-')[^1], out var link) && await db.OwnerLinks.AnyAsync(row => row.Id == link, stop))
                File.Move(half, PathOf(name), overwrite: true);
            else
                File.Delete(half);
        }
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
