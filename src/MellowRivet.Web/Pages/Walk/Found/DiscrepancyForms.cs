using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Parts;
using MellowRivet.Core.Tools;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>Words, place and the rest of a discrepancy, as they are sent.</summary>
public sealed class DescribeForm
{
    public int Seen { get; set; }
    public string? What { get; set; }
    public string? PlainWords { get; set; }
    public string? Zone { get; set; }
    public string? Where { get; set; }
    public Guid? Component { get; set; }
    public FoundHow How { get; set; }
    public string? Measured { get; set; }
    public double? X { get; set; }
    public double? Y { get; set; }

    public static DescribeForm Of(Discrepancy found) => new()
    {
        Seen = found.Changes,
        What = found.IsUnworded ? "" : found.What,
        PlainWords = found.PlainWords,
        Zone = found.ZoneKey,
        Where = found.Where,
        Component = found.ComponentId,
        How = found.How,
        Measured = found.MeasuredWords,
        X = found.Pin?.X,
        Y = found.Pin?.Y,
    };

    /// <summary>The same, typed anew over the discrepancy as it stands now.</summary>
    public DescribeForm Seeing(Discrepancy found)
    {
        Seen = found.Changes;
        return this;
    }

    /// <summary>The place that it says, in the words of the form.</summary>
    public Place PlaceOf(Discrepancy found) =>
        found.Place with { ZoneKey = Zone!, Where = Where ?? "", ComponentId = Component, Pin = Pin.At(X, Y) };
}

/// <summary>A note as it is sent.</summary>
public sealed record NoteForm(string? Note);

/// <summary>The words of what a picture, a sound or a video alone told of, with the class that goes by them, as they are sent.</summary>
public sealed class WordsForm
{
    public string? What { get; set; }
    public DiscrepancyClass Class { get; set; } = DiscrepancyClass.Airworthiness;
    public bool Grounded { get; set; }
    public string? Why { get; set; }
    public string? Reference { get; set; }
}

/// <summary>Why it is less than it seems, and by which data, as it is sent.</summary>
public sealed record LessForm(string? Why, string? Reference);

/// <summary>A corrective action as it is sent: a part or none to a row.</summary>
public sealed class CorrectionForm
{
    /// <summary>Rows for parts that the form offers.</summary>
    public const int Rows = 3;

    public string? Action { get; set; }
    public CorrectionKind Kind { get; set; }
    public string? Reference { get; set; }
    public List<string?> PartNumber { get; set; } = [];
    public List<string?> SerialOut { get; set; } = [];
    public List<string?> SerialIn { get; set; } = [];
    public List<Guid?> Replaces { get; set; } = [];
    public string? Torque { get; set; }
    public string? Unit { get; set; }
    public Guid? Wrench { get; set; }

    /// <summary>An empty form, with what was fitted from the parts list in its rows.</summary>
    public static CorrectionForm With(IReadOnlyList<OrderedPart> ordered)
    {
        var fitted = ordered.SelectMany(part => part.Fitted.Select(taken => (part, taken))).ToList();
        return new()
        {
            PartNumber = [.. fitted.Select(one => one.part.Number.Length > 0 ? one.part.Number : one.part.What)],
            SerialOut = [.. fitted.Select(one => one.taken.SerialOff)],
            SerialIn = [.. fitted.Select(one => one.taken.Serial)],
        };
    }

    /// <summary>The correction, or what is wrong with it as typed.</summary>
    public (Correction? Correction, Refusal? Refusal) Read(Tool? wrench, DateOnly today)
    {
        if (!Enum.IsDefined(Kind))
            return (null, new("action", "Choose what kind of action it was."));
        List<PartUsed> parts = [];
        for (var row = 0; row < PartNumber.Count; row++)
        {
            var (number, off, on) = (PartNumber[row]?.Trim() ?? "", At(SerialOut, row)?.Trim() ?? "", At(SerialIn, row)?.Trim() ?? "");
            var replaces = row < Replaces.Count ? Replaces[row] : null;
            if (number.Length + off.Length + on.Length == 0 && replaces is null)
                continue;
            if (number.Length == 0)
                return (null, new("parts", "A part needs its part number."));
            parts.Add(new(number, off, on, replaces));
        }
        TorquePulled? torque = null;
        if (!string.IsNullOrWhiteSpace(Torque))
        {
            if (Core.Measures.Unit.Find(Unit) is not { Dimension: Dimension.Torque } unit
                || MeasureText.Value(Torque, unit) is not (> 0 and < 100_000 and var pulled))
                return (null, new("torque", "The torque as a number with its unit: 17 N·m."));
            if (wrench is null)
                return (null, new("torque", "Choose the wrench it was pulled with."));
            var (used, refusal) = wrench.Pull(pulled, unit, today);
            if (used is null)
                return (null, refusal! with { Field = "torque" });
            torque = new(pulled, unit.Symbol, used);
        }
        return (new(Action ?? "", Kind, Reference?.Trim() ?? "", parts.Count == 0 ? null : parts, torque), null);
    }

    public static T? At<T>(IReadOnlyList<T?> row, int at) => at < row.Count ? row[at] : default;
}
