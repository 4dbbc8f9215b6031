using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Core.Signing;

/// <summary>
/// What a judgement is known by: the same value read again on the same part has the same key, and what is written down for it keeps it.
/// </summary>
public static class JudgedKeys
{
    public static string Compression(Guid cylinder) => $"compression/{cylinder:N}";

    public static string Plug(Guid plug, PlugStep step) => $"plug/{plug:N}/{step}";

    public static string PlugDropped(Guid plug) => $"plug/{plug:N}/dropped";

    public static string PlugPlace(Guid plug) => $"plug/{plug:N}/place";

    public static string Value(Guid carrier, string kind) => $"sheet/{carrier:N}/{kind}";

    public static string Look(Guid carrier, SheetKind sheet, string look) => $"look/{carrier:N}/{sheet}/{look}";

    public static string Together(Guid carrier, string key) => $"together/{carrier:N}/{key}";

    public static string Filter(Guid engine, FilterPlace place) => $"filter/{engine:N}/{place}";

    public static string Task(Guid task) => $"task/{task:N}";

    public static string Mark(Guid mark) => $"mark/{mark:N}";
}
