using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Core.Inspections;

/// <summary>A value, ready to take the place of the one that stands.</summary>
/// <param name="ReadingId">The reading that stands.</param>
/// <param name="Value">How much.</param>
/// <param name="UnitSymbol">Its unit.</param>
/// <param name="Wrench">For a torque: the wrench; null for anything else.</param>
/// <param name="Leak">For a compression: where it leaks; null for anything else.</param>
public sealed record MeasuredToo(Guid ReadingId, double Value, string UnitSymbol, WrenchUsed? Wrench = null,
    Compression.Leaks? Leak = null);

/// <summary>A task's other answer, ready to take the place of the one that stands.</summary>
/// <param name="TaskId">The task.</param>
/// <param name="Verdict">What was pressed.</param>
/// <param name="Reason">Why it is not on this one; null otherwise.</param>
/// <param name="PostId">What it was sent under: its reading's id.</param>
/// <param name="Value">The value that came with it, in the unit of the limits; null without one.</param>
/// <param name="UnitSymbol">That unit; null without a value.</param>
/// <param name="Conditions">How the value was taken; null without one.</param>
public sealed record AnsweredToo(Guid TaskId, TaskVerdict Verdict, string? Reason, Guid PostId, double? Value, string? UnitSymbol,
    ReadingConditions? Conditions);

/// <summary>The other answer of two: one of these.</summary>
public sealed record OtherAnswer(MeasuredToo? Value = null, SheetCheck? Look = null, PlugNote? Plug = null, FilterCut? Cut = null,
    OilFill? Fill = null, AnsweredToo? Task = null);

/// <summary>What was chosen of two answers.</summary>
public enum OfTwo { Stays = 1, Other }

/// <summary>What two people said of one thing, neither having seen the other's: both are kept until somebody chooses.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Key">What it is about (<see cref="ApartKeys"/>).</param>
/// <param name="What">The same in words.</param>
/// <param name="Stands">What stands there, in words.</param>
/// <param name="StandsBy">Who said that, and when.</param>
/// <param name="Other">What came beside it, in words.</param>
/// <param name="OtherBy">Who said that, and when.</param>
/// <param name="Answer">The same, ready to take its place.</param>
/// <param name="ChosenBy">Who chose, and when; null while nobody has.</param>
/// <param name="Chosen">What was chosen; null while nothing was.</param>
public sealed record SaidApart(Guid Id, string Key, string What, string Stands, Stamp StandsBy, string Other, Stamp OtherBy,
    OtherAnswer Answer, Stamp? ChosenBy = null, OfTwo? Chosen = null)
{
    public bool IsOpen => ChosenBy is null;
}

/// <summary>What two answers can be about, by a name that a form of the same thing finds again.</summary>
public static class ApartKeys
{
    public static string Value(Guid carrier, SheetValue value) => $"value/{carrier:N}/{value.Kind}/{value.Position}";

    public static string Look(Guid carrier, SheetKind sheet, string key) => $"look/{carrier:N}/{sheet}/{key}";

    public static string Plug(Guid plug, PlugStep step) => $"plug/{plug:N}/{step}";

    public static string Cut(Guid engine, FilterPlace place) => $"cut/{engine:N}/{place}";

    public static string Fill(Guid engine) => $"fill/{engine:N}";

    public static string Compression(Guid reading) => $"compression/{reading:N}";

    public static string Task(Guid task) => $"task/{task:N}";
}
