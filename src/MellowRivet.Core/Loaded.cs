using System.Runtime.CompilerServices;

namespace MellowRivet.Core;

/// <summary>The lists that an inspection or an aircraft comes with or without.</summary>
internal static class Loaded
{
    /// <summary>A list that was loaded.</summary>
    /// <exception cref="InvalidOperationException">It wasn't: what nobody fetched is not taken for nothing.</exception>
    public static List<T> List<T>(List<T>? part, [CallerArgumentExpression(nameof(part))] string? name = null) =>
        part ?? throw new InvalidOperationException($"It was loaded without its {name}.");
}
