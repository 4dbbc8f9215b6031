using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Inspections;

/// <summary>Who says something, when, and what they had before them.</summary>
/// <param name="By">Who.</param>
/// <param name="At">When it was said.</param>
/// <param name="Seen">What stood there when it was said (<see cref="InWords"/>); null where that wasn't told.</param>
public sealed record Saying(Guid By, DateTimeOffset At, string? Seen = null)
{
    public Stamp Stamp => new(By, At);

    /// <summary>What stands somewhere, as a form about it carries it and brings it back.</summary>
    public static string InWords(Stamp? standing) => standing is null ? "" : $"{standing.At.ToUnixTimeMilliseconds()}";

    /// <summary>
    /// Whoever says this hadn't seen what stands there. Not so of their own words of before: those they put right, wherever they are.
    /// </summary>
    public bool Missed(Stamp? standing) => standing is not null && Seen is not null && Seen != InWords(standing)
        && !(standing.By == By && At >= standing.At);
}

// Two people said something of the same thing, and neither had seen the other's.
public sealed partial class Inspection
{
    private List<SaidApart> apart = [];

    /// <summary>Answers that two people gave to the same thing, and what was chosen.</summary>
    public IReadOnlyList<SaidApart> Apart => apart;

    /// <summary>Those that nobody has chosen between yet.</summary>
    public IEnumerable<SaidApart> StillApart => apart.Where(one => one.IsOpen);

    /// <summary>Those of one thing that nobody has chosen between yet.</summary>
    public IEnumerable<SaidApart> ApartAt(string key) => StillApart.Where(one => one.Key == key);

    private Refusal? NotTakenBack(string key, string field, Stamp? standing, Saying said) => said.Missed(standing)
        ? new(field, "Somebody else said something here meanwhile. Nothing was taken back: look at it first.")
        : ApartAt(key).Any() ? new(field, "Two answers stand here: choose between them first.")
        : null;

    private void KeepApart(string key, string what, string stands, Stamp standsBy, string other, Saying said, OtherAnswer answer) =>
        apart = [.. apart, new(Guid.CreateVersion7(), key, what, stands, standsBy, other, said.Stamp, answer)];

    // A value beside the one that stands; read the same by both, it is no other.
    private void KeepApart(string key, string what, Reading stands, double value, Unit unit, WrenchUsed? wrench, Saying said)
    {
        if (stands.Value != value || stands.UnitSymbol != unit.Symbol)
            KeepApart(key, what, stands.InWords, stands.Last, MeasureText.InWords(value, unit), said,
                new(Value: new(stands.Id, value, unit.Symbol, wrench)));
    }

    // What is said anew takes the place of what stood, and the other answer stays beside it.
    private void StandsNow(string key, string words, Stamp by) => apart =
        [.. apart.Select(one => one.IsOpen && one.Key == key ? one with { Stands = words, StandsBy = by } : one)];

    /// <summary>Chooses between two answers. The one that isn't chosen stays in the story of the inspection.</summary>
    /// <param name="id">The two.</param>
    /// <param name="chosen">Which of them.</param>
    /// <param name="aircraft">The aircraft, for its own limits.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    public Refusal? Choose(Guid id, OfTwo chosen, Aircraft aircraft, Guid by, DateTimeOffset at)
    {
        if (apart.FirstOrDefault(other => other.Id == id) is not { } one || !Enum.IsDefined(chosen))
            return new("apart", "Choose one of the two.");
        if (!one.IsOpen)
            return new("apart", $"{one.What}: somebody has chosen already.");
        if (chosen == OfTwo.Other && Put(one.Answer, one.OtherBy, aircraft) is { } refusal)
            return refusal with { Field = "apart" };
        apart = [.. apart.Select(other => other.Id == id ? other with { ChosenBy = new(by, at), Chosen = chosen } : other)];
        if (chosen == OfTwo.Other)
            StandsNow(one.Key, one.Other, one.OtherBy);
        return null;
    }

    private Refusal? Put(OtherAnswer answer, Stamp said, Aircraft aircraft)
    {
        if (answer.Value is { } measured)
        {
            if (Readings.FirstOrDefault(reading => reading.Id == measured.ReadingId) is not { } reading)
                return new("apart", "What stood there was taken away meanwhile: measure it again.");
            if (measured.Leak is { } leak)
                reading.Correct(measured.Value, leak, said.By, said.At);
            else
                reading.Reread(measured.Value, Unit.Find(measured.UnitSymbol)!, measured.Wrench, said.By, said.At);
        }
        if (answer.Look is { } look)
            Put(look);
        if (answer.Plug is { } plug)
            Put(plug);
        if (answer.Cut is { } cut)
            Put(cut);
        if (answer.Fill is { } fill)
            Put(fill);
        return answer.Task is { } task ? Put(task, said, aircraft) : null;
    }
}
