using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Tools;
using MellowRivet.Web.Drawings;

namespace MellowRivet.Web.Pages.Walk.Along;

/// <summary>How a verdict is shown.</summary>
public sealed record ShownVerdict(string Word, string Tone, string State);

/// <summary>A row of a table, as a device takes it along: each condition is two names with how they stand.</summary>
public sealed record RowAlong(IReadOnlyList<string[]> When, Verdict Verdict, string Rule, string Source, string Next);

/// <summary>A table, as a device takes it along.</summary>
public sealed record TableAlong(IReadOnlyDictionary<string, double> Given, IReadOnlyList<Made> Makes, IReadOnlyList<JudgementWant> Wants,
    IReadOnlyList<RowAlong> Rows);

public sealed record BoundAlong(Than Than, double Limit, string Words, string? In);

/// <summary>A supply behind a stroke, as a device takes it along.</summary>
public sealed record BehindAlong(double Supply, double? Orifice, string NoReading, string Other);

/// <summary>A field, as a device takes it along: its tables by number.</summary>
public sealed record FieldAlong(string Key, string? Unit, IReadOnlyList<BoundAlong> Bounds, string? Empty, BehindAlong? Behind,
    string? NoWrench, DoneBefore? After, IReadOnlyDictionary<string, int> Tables);

/// <summary>A value among several, as a device takes it along: with what stands at the shop, in the unit of the table.</summary>
public sealed record PartAlong(string Number, string Field, string Unit, bool Needed, double? Stands);

/// <summary>A look that says which table it is, with what stands at the shop.</summary>
public sealed record LookAlong(string Key, string Stands);

/// <summary>Values that are judged together, as a device takes them along.</summary>
public sealed record TogetherAlong(string Key, string Name, int AtLeast, IReadOnlyList<PartAlong> Parts, IReadOnlyList<LookAlong> Looks,
    IReadOnlyDictionary<string, int> Tables);

/// <summary>A torque wrench, as a device takes it along.</summary>
public sealed record WrenchAlong(Guid Id, DateOnly Until, string Ended, double? Least, double? Most, string? Unit, string Beyond,
    double? Length);

/// <summary>What a wrench can be set to, and with which extension.</summary>
public sealed record PullAlong(double Readable, double LongestWrench, double LongestExtension, string WantsLengths);

public sealed record CableAlong(double Hottest, string NoTemperature);

/// <summary>
/// All that a device needs to judge what is typed at an inspection as the shop would: how measures are read, what each field is judged
/// by, and how a verdict is shown.
/// </summary>
public sealed record Judging(MeasureGrammar Grammar, IReadOnlyDictionary<string, ShownVerdict> Verdicts, string NotGood,
    CableAlong Cable, PullAlong Pull, IReadOnlyList<WrenchAlong> Wrenches, IReadOnlyList<TableAlong> Tables,
    IReadOnlyList<FieldAlong> Fields, IReadOnlyList<TogetherAlong> Together)
{
    /// <summary>How it is written.</summary>
    public static JsonSerializerOptions Json { get; } = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>That of an inspection.</summary>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="inspection">The inspection.</param>
    /// <param name="before">What its filters showed last time.</param>
    /// <param name="wrenches">The torque wrenches in use.</param>
    public static Judging Of(Aircraft aircraft, Inspection inspection, IReadOnlyList<FilterCut> before, IReadOnlyList<Tool> wrenches) =>
        Of(JudgedField.All(aircraft, inspection, before), Core.EngineStation.Together.All(aircraft, inspection), wrenches);

    /// <summary>That of some fields, and of some that are judged together. A table that several of them have is there once.</summary>
    public static Judging Of(IEnumerable<JudgedField> fields, IEnumerable<Together> together, IEnumerable<Tool> wrenches)
    {
        List<TableAlong> tables = [];
        Dictionary<string, int> known = [];
        return new(MeasureGrammar.Current,
            Enum.GetValues<Verdict>().ToDictionary(verdict => JsonNamingPolicy.CamelCase.ConvertName($"{verdict}"),
                verdict => new ShownVerdict(verdict.InWords(), Tone.Of(verdict), StateTagHelper.Name(States.Of(verdict)))),
            InspectionTask.NotGood, new(CableTable.Hottest, CableTable.NoTemperature),
            new(Tool.Readable, Tool.LongestWrench, Tool.LongestExtension, Tool.WantsLengths),
            [
                .. wrenches.Where(tool => tool.CalibratedUntil is not null).Select(tool => new WrenchAlong(tool.Id,
                    tool.CalibratedUntil!.Value, tool.CalibrationEnded, tool.LeastTorque, tool.MostTorque, tool.TorqueUnit, tool.Beyond,
                    tool.LengthInches)),
            ], tables,
            [
                .. fields.Select(field => new FieldAlong(field.Key, field.Unit?.Symbol,
                    [.. field.Bounds.Select(bound => new BoundAlong(bound.Than, bound.Limit, bound.Words, bound.In?.Symbol))], field.Empty,
                    field.Behind is { } behind ? new(behind.Supply, behind.Orifice, behind.NoReading, behind.Other) : null, field.NoWrench,
                    field.After, Numbers(field.Tables))),
            ],
            [
                .. together.Select(one => new TogetherAlong($"{one.Carrier:N} {one.Key}", one.Name, one.AtLeast,
                    [.. one.Parts.Select(part => new PartAlong(part.Number, part.Field, part.Unit.Symbol, part.IsNeeded, part.Value))],
                    [.. one.Looks.Select(look => new LookAlong(look.Key, look.Saw))], Numbers(one.Tables))),
            ]);

        Dictionary<string, int> Numbers(IEnumerable<TableWhen> when) =>
            when.ToDictionary(table => table.When, table => Number(Along(table.Table)));

        int Number(TableAlong table)
        {
            var written = JsonSerializer.Serialize(table, Json);
            if (known.TryGetValue(written, out var number))
                return number;
            tables.Add(table);
            return known[written] = tables.Count - 1;
        }
    }

    private static TableAlong Along(JudgementTable table) => new(table.Given, table.Makes, table.Wants,
        [.. table.Rows.Select(row => new RowAlong(
            [.. row.When.Select(test => new[] { test.Left, JsonNamingPolicy.CamelCase.ConvertName($"{test.Than}"), test.Right })],
            row.Verdict, row.Rule, row.Source.InWords, row.Next))]);
}
