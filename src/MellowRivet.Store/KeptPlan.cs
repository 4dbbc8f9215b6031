using MellowRivet.Core.Schedule;

namespace MellowRivet.Store;

/// <summary>The plan of the hangar as it was reckoned last: one row, so that a start has it at once, and knows what moves.</summary>
public sealed class KeptPlan
{
    /// <summary>So many moves of ready days are kept, latest first.</summary>
    public const int MostMoves = 100;

    private KeptPlan() { }

    public KeptPlan(DateTimeOffset at, ChangeCounts of, HangarPlan plan, IReadOnlyList<ReadyMove> moves) =>
        (At, Of, Plan, Moves) = (at, of, plan, [.. moves.Take(MostMoves)]);

    public int Id { get; private set; } = 1;

    /// <summary>When it was reckoned.</summary>
    public DateTimeOffset At { get; private set; }

    /// <summary>Of which changes.</summary>
    public ChangeCounts Of { get; private set; } = new(0, 0, 0, 0, 0);
    public HangarPlan Plan { get; private set; } = null!;

    /// <summary>What moved, latest first.</summary>
    public List<ReadyMove> Moves { get; private set; } = [];

    /// <summary>A later one takes its place.</summary>
    public void Take(KeptPlan later) => (At, Of, Plan, Moves) = (later.At, later.Of, later.Plan, later.Moves);

    /// <summary>The last move of an aircraft's ready day; null where it never moved.</summary>
    public ReadyMove? LastMove(string registration) => Moves.Find(move => move.Aircraft == registration);
}

/// <summary>What is kept of the plan between requests, how far the next one is, and that somebody wants it.</summary>
public sealed class PlanKeeper : IDisposable
{
    private readonly SemaphoreSlim asked = new(0, 1);
    private volatile KeptPlan? latest;
    private volatile object? progress;

    /// <summary>One is reckoned at a time.</summary>
    internal SemaphoreSlim Turn { get; } = new(1);

    public KeptPlan? Latest => latest;

    /// <summary>How much of the next one is reckoned, from 0 to 1; null while none is.</summary>
    public double? Progress => progress as double?;

    /// <summary>The last one couldn't be reckoned: the one that is kept stays.</summary>
    public bool HasFailed { get; private set; }

    /// <summary>Says that it couldn't be.</summary>
    public void Fail() => HasFailed = true;

    internal void Publish(KeptPlan plan) => (latest, HasFailed) = (plan, false);

    internal void Reckons(double? share) => progress = share;

    /// <summary>Asks for the next one, to be reckoned beside the requests.</summary>
    public void Ask()
    {
        try
        {
            asked.Release();
        }
        catch (SemaphoreFullException)
        {
            // It was asked for already.
        }
    }

    /// <summary>Waits until somebody asks.</summary>
    public Task AskedAsync(CancellationToken stop) => asked.WaitAsync(stop);

    public void Dispose()
    {
        asked.Dispose();
        Turn.Dispose();
    }
}
