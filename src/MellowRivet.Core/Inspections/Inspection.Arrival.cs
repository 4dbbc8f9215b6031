using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Core.Inspections;

// How the aircraft came in, what the owner said, and what of the due line is done with this inspection.
public sealed partial class Inspection
{
    private List<Squawk> squawks = [];
    private List<Guid> leftOut = [];

    public Arrival Arrival { get; private set; } = Arrival.Empty;
    public IReadOnlyList<Squawk> Squawks => squawks;

    /// <summary>Due items that somebody decided not to do with this inspection.</summary>
    public IReadOnlyList<Guid> LeftOut => leftOut;

    /// <summary>Writes down a complaint in the owner's words.</summary>
    public Refusal? Hear(Guid id, string? words, Guid by, DateTimeOffset at)
    {
        if (string.IsNullOrWhiteSpace(words))
            return new("words", "What did the owner say? In their own words.");
        if (words.Trim().Length > Discrepancy.LongestWords)
            return new("words", $"{words.Trim().Length} characters; {Discrepancy.LongestWords} is the most.");
        squawks = [.. squawks, new(id, squawks.Select(other => other.Number).DefaultIfEmpty().Max() + 1, words.Trim(), by, at)];
        return null;
    }

    /// <summary>Answers a squawk; a later answer takes the place of an earlier one while the inspection is in work.</summary>
    public Refusal? Answer(Guid squawkId, string? answer, Guid by, DateTimeOffset at)
    {
        if (squawks.All(other => other.Id != squawkId))
            return new("answer", "There is no such squawk.");
        if (string.IsNullOrWhiteSpace(answer) || answer.Trim().Length > Discrepancy.LongestWords)
            return new("answer", $"Say what was found or done about it, in up to {Discrepancy.LongestWords} characters.");
        squawks = [.. squawks.Select(other => other.Id == squawkId
            ? other with { Answer = answer.Trim(), AnsweredBy = by, AnsweredAt = at }
            : other)];
        return null;
    }

    /// <summary>Adds a picture of the walk-round.</summary>
    public void Photograph(Viewpoint from, Photo photo, Guid by, DateTimeOffset at)
    {
        if (Arrival.Round.All(other => other.From != from || other.Photo.Sha256 != photo.Sha256))
            Arrival = Arrival with { Round = [.. Arrival.Round, new(from, photo, by, at)] };
    }

    /// <summary>Pins damage that was there before anything was touched.</summary>
    public Refusal? Pin(Guid id, double? x, double? y, string? what, Guid by, DateTimeOffset at)
    {
        if (x is not (>= 0 and <= 300) || y is not (>= 0 and <= 300))
            return new("pin", "Touch the place on the drawing.");
        if (string.IsNullOrWhiteSpace(what) || what.Trim().Length > Discrepancy.LongestWhere)
            return new("damage", $"Say what is there, in up to {Discrepancy.LongestWhere} characters.");
        Arrival = Arrival with
            { CameInWith = [.. Arrival.CameInWith, new(id, Math.Round(x.Value, 1), Math.Round(y.Value, 1), what.Trim(), by, at)] };
        return null;
    }

    public void Unpin(Guid id) => Arrival = Arrival with { CameInWith = [.. Arrival.CameInWith.Where(pin => pin.Id != id)] };

    public void Note(OnBoard onBoard) => Arrival = Arrival with { OnBoard = onBoard };

    public void Note(BooksBrought books) => Arrival = Arrival with { Books = books };

    /// <summary>Notes what is aboard, as it is typed: fuel, oil, and what was left inside.</summary>
    public Refusal? NoteAboard(string? fuel, string? oil, string? inside, Guid by, DateTimeOffset at)
    {
        if (new[] { fuel, oil, inside }.Any(words => words?.Trim().Length > Discrepancy.LongestWhere))
            return new("aboard", $"Up to {Discrepancy.LongestWhere} characters each.");
        if (string.IsNullOrWhiteSpace(fuel) || string.IsNullOrWhiteSpace(inside))
            return new("aboard", "Say how much fuel is aboard, and what was left inside: “nothing” is an answer.");
        Note(new OnBoard(fuel.Trim(), oil?.Trim() ?? "", inside.Trim(), by, at));
        return null;
    }

    /// <summary>Notes which books were brought, and which are missing, as it is typed.</summary>
    public Refusal? NoteBooks(IReadOnlyList<Guid> brought, string? missing, Guid by, DateTimeOffset at)
    {
        if (missing?.Trim().Length > Discrepancy.LongestWhere)
            return new("books", $"Up to {Discrepancy.LongestWhere} characters.");
        Note(new BooksBrought(brought, missing?.Trim() ?? "", by, at));
        return null;
    }

    /// <summary>Leaves a due item out of this inspection's plan, or takes it in again.</summary>
    public void Plan(Guid dueItemId, bool doIt) =>
        leftOut = doIt ? [.. leftOut.Where(id => id != dueItemId)] : [.. leftOut.Append(dueItemId).Distinct()];
}
