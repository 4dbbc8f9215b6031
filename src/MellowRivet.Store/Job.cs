using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Store;

/// <summary>
/// What an inspection and its aircraft are loaded with. What isn't loaded can't be asked for: Core throws instead of taking it for nothing.
/// </summary>
[Flags]
public enum JobParts
{
    /// <summary>The inspection and its aircraft, with what stands in their own rows: looks, tags, tools, squawks, limits.</summary>
    Bare = 1,
    Tasks = 2,
    Discrepancies = 4,
    Readings = 8,
    CompressionTests = 16,

    /// <summary>Every part that is or was on the aircraft.</summary>
    Components = 32,

    /// <summary>What a zone of the walk shows.</summary>
    Walk = Bare | Tasks | Discrepancies | Readings,

    /// <summary>What a sheet of the engine station shows.</summary>
    Engine = Bare | Tasks | Readings | CompressionTests | Components,

    /// <summary>All that a judgement of the whole needs: what stands between the aircraft and its signature.</summary>
    Whole = Walk | Engine,
}

/// <summary>How often an inspection was changed, and which aircraft it is of.</summary>
public sealed record JobRevision(int Changes, Guid AircraftId);

/// <summary>An inspection with its aircraft, as a page works on them.</summary>
/// <param name="Inspection">The inspection.</param>
/// <param name="Aircraft">Its aircraft.</param>
public sealed record Job(Inspection Inspection, Aircraft Aircraft)
{
    /// <summary>What they were loaded with.</summary>
    public JobParts Has { get; internal set; } = JobParts.Whole;
}
