namespace MellowRivet.Core.Discrepancies;

/// <summary>Where a discrepancy stands on its way from found to put right.</summary>
public enum Disposition { Open = 1, Asked, Approved, Declined, PartsAwaited, InWork, Done, Inspected, Withdrawn }

/// <summary>One step of that way.</summary>
/// <param name="To">Where it went.</param>
/// <param name="By">Who took it there; null for the owner, through the owner's page.</param>
/// <param name="At">When.</param>
/// <param name="Words">Why, where that is asked for; else null.</param>
public sealed record Step(Disposition To, Guid? By, DateTimeOffset At, string? Words = null);

/// <summary>Which steps there are. The one place where that is decided.</summary>
public static class Lifecycle
{
    private static readonly Dictionary<Disposition, Disposition[]> Ways = new()
    {
        [Disposition.Open] = [Disposition.Asked, Disposition.Approved, Disposition.Declined, Disposition.PartsAwaited, Disposition.InWork,
            Disposition.Done, Disposition.Withdrawn],
        [Disposition.Asked] = [Disposition.Approved, Disposition.Declined, Disposition.Withdrawn],
        [Disposition.Approved] = [Disposition.Asked, Disposition.Declined, Disposition.PartsAwaited, Disposition.InWork, Disposition.Done,
            Disposition.Withdrawn],
        [Disposition.Declined] = [Disposition.Asked, Disposition.Approved, Disposition.Withdrawn],
        [Disposition.PartsAwaited] = [Disposition.Asked, Disposition.InWork, Disposition.Done, Disposition.Withdrawn],
        [Disposition.InWork] = [Disposition.Asked, Disposition.PartsAwaited, Disposition.Done, Disposition.Withdrawn],
        [Disposition.Done] = [Disposition.Inspected, Disposition.Open],
        [Disposition.Inspected] = [Disposition.Open],
        [Disposition.Withdrawn] = [Disposition.Open],
    };

    public static IReadOnlyList<Disposition> From(Disposition here) => Ways[here];

    public static bool Allows(Disposition from, Disposition to) => Ways[from].Contains(to);

    /// <summary>Nothing is left to do: done, or withdrawn.</summary>
    public static bool IsSettled(this Disposition here) => here is Disposition.Done or Disposition.Inspected or Disposition.Withdrawn;

    /// <summary>Work has begun or is promised: what a shop that asks first doesn't do unasked.</summary>
    public static bool IsWork(this Disposition here) => here is Disposition.PartsAwaited or Disposition.InWork or Disposition.Done;

    /// <summary>A step that says why it is taken: withdrawing, and opening again what was settled.</summary>
    public static bool WantsReason(Disposition from, Disposition to) =>
        to == Disposition.Withdrawn || (to == Disposition.Open && from.IsSettled());

    public static string InWords(this Disposition here) => here switch
    {
        Disposition.Asked => "owner asked",
        Disposition.PartsAwaited => "parts awaited",
        Disposition.InWork => "in work",
        _ => here.ToString().ToLowerInvariant(),
    };
}
