using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.EngineStation;

/// <summary>A value among several that are judged together.</summary>
/// <param name="Number">What the table calls it.</param>
/// <param name="Field">The field it is typed in, by <see cref="JudgedField"/>'s name.</param>
/// <param name="Unit">The unit in which the table takes it.</param>
/// <param name="Reading">What was read; null while nothing was.</param>
/// <param name="IsNeeded">Without it nothing is judged.</param>
public sealed record TogetherPart(string Number, string Field, Unit Unit, Reading? Reading, bool IsNeeded = true)
{
    /// <summary>What was read, in the unit in which the table takes it.</summary>
    public double? Value => Reading is null ? null : Measures.Unit.Find(Reading.UnitSymbol)!.To(Unit, Reading.Value);
}

/// <summary>A look that says by which table values are judged together.</summary>
/// <param name="Key">The look, by its sheet.</param>
/// <param name="Check">What was seen; null while nobody looked.</param>
public sealed record TogetherLook(string Key, SheetCheck? Check)
{
    /// <summary>What it is called by for a look of a sheet.</summary>
    public static string Of(EngineSheet sheet, string look) => $"look/{sheet.Carrier.Id:N}/{sheet.Kind}/{look}";

    /// <summary>What was seen, as the name of a table has it.</summary>
    public string Saw => Word(Check?.State);

    /// <summary>What a state is called in the name of a table: "none" where nobody has said.</summary>
    public static string Word(LookState? state) => state is LookState.Good or LookState.Found ? $"{state}" : "none";
}

/// <summary>Values that are judged together, beside each one's own judgement, whether they were read yet or not.</summary>
/// <param name="Key">What it is called by, with the part it is about; of two with the same, the first that can be judged holds.</param>
/// <param name="Name">What it is, in words.</param>
/// <param name="Sheet">The sheet it stands on; null for compressions.</param>
/// <param name="Carrier">The part it is about.</param>
/// <param name="Parts">The values.</param>
/// <param name="Tables">By which they are judged, by what was seen at the looks.</param>
public sealed record Together(string Key, string Name, SheetKind? Sheet, Guid Carrier, IReadOnlyList<TogetherPart> Parts,
    IReadOnlyList<TableWhen> Tables)
{
    /// <summary>The looks that say which table it is; none where there is one.</summary>
    public IReadOnlyList<TogetherLook> Looks { get; init; } = [];

    /// <summary>How many of the values it takes at least, beside those that are needed.</summary>
    public int AtLeast { get; init; }

    /// <summary>What the values come to; null while they don't come to anything.</summary>
    public Judgement? Judgement =>
        Parts.Any(part => part is { IsNeeded: true, Reading: null }) || Parts.Count(part => part.Reading is not null) < AtLeast
            ? null
            : Tables.First(table => table.When == string.Join(' ', Looks.Select(look => look.Saw))).Table
                .Of([.. Parts.Select(part => (part.Number, part.Value))]).Judgement;

    /// <summary>All that is judged together at an inspection: values of sheets, and the compressions of an engine.</summary>
    public static IEnumerable<Together> All(Aircraft aircraft, Inspection inspection) => aircraft.Engines.Select(stay => stay.Component)
        .SelectMany(engine => SheetTogether.All(aircraft, engine, inspection).Concat(
            new[] { Spread(CompressionSheet.Of(aircraft, engine, inspection)) }.OfType<Together>()));

    // Every cylinder has its reading, or the best and the worst aren't known.
    private static Together? Spread(CompressionSheet sheet)
    {
        List<TogetherPart> parts = [.. sheet.Cylinders.Select((cylinder, at) => new TogetherPart($"{at}",
            JudgedField.Compression(sheet.Engine, cylinder.Place.Number), Unit.Psi, cylinder.Tries is [.., var last] ? last : null))];
        return CompressionJudge.SpreadTable(sheet.Limits, [.. parts.Select(part => part.Number)]) is { } table && parts.Count > 1
            ? new("spread", "Best and worst cylinder", null, sheet.Engine.Id, parts, [new("", table)])
            : null;
    }

    /// <summary>The value of them that was read last.</summary>
    public Reading Last => Parts.Select(part => part.Reading).OfType<Reading>().MaxBy(reading => reading.LastAt)!;

    /// <summary>A value's reading, by what the table calls it; null while nothing was read.</summary>
    public Reading? this[string number] => Parts.FirstOrDefault(part => part.Number == number)?.Reading;
}
