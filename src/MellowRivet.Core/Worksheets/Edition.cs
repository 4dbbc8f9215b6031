namespace MellowRivet.Core.Worksheets;

/// <summary>
/// One edition of a worksheet on the shelf. A published one never changes; a draft becomes the next when it is published.
/// </summary>
public sealed class Edition
{
    private Edition() { }

    /// <param name="id">Its id.</param>
    /// <param name="sheet">The worksheet, its version among its fields.</param>
    /// <param name="isDraft">Still being written.</param>
    /// <param name="by">Who wrote it; null for one that came with the product.</param>
    /// <param name="at">When.</param>
    /// <param name="note">What is new in it; may be empty.</param>
    public Edition(Guid id, Worksheet sheet, bool isDraft, Guid? by, DateTimeOffset at, string note)
    {
        Id = id;
        Key = sheet.Key;
        Version = sheet.Version;
        Worksheet = sheet;
        IsDraft = isDraft;
        (By, At, Note) = (by, at, note);
    }

    public Guid Id { get; private set; }
    public string Key { get; private set; } = "";
    public int Version { get; private set; }
    public bool IsDraft { get; private set; }
    public Worksheet Worksheet { get; private set; } = null!;
    public Guid? By { get; private set; }
    public DateTimeOffset At { get; private set; }
    public string Note { get; private set; } = "";

    /// <summary>Counts changes of a draft, so that two people can't overwrite each other unseen.</summary>
    public int Changes { get; private set; }

    /// <summary>Puts another wording in a draft.</summary>
    public Refusal? Write(Worksheet sheet, Guid by, DateTimeOffset at)
    {
        if (!IsDraft)
            return new("draft", "This edition is published and stays as it is. Begin a draft of the next one.");
        Worksheet = sheet with { Key = Key, Version = Version };
        (By, At) = (by, at);
        Changes++;
        return null;
    }

    /// <summary>Makes a draft the edition that inspections begin with from now on.</summary>
    public Refusal? Publish(string? note, Guid by, DateTimeOffset at)
    {
        if (!IsDraft)
            return new("draft", "It is published already.");
        if (Worksheet.Fault() is { } fault)
            return new("draft", $"It can't be walked yet: {fault}");
        if (string.IsNullOrWhiteSpace(note) || note.Trim().Length > 200)
            return new("note", "Say what is new in this edition, in up to 200 characters.");
        IsDraft = false;
        (By, At, Note) = (by, at, note.Trim());
        Changes++;
        return null;
    }
}
