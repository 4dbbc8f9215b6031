namespace MellowRivet.Store;

/// <summary>Something new has the id of something that is there.</summary>
public sealed class IdTakenException(Exception problem) : Exception("Something else has this id.", problem)
{
    // EF Core has no type of its own for it; a test holds its words.
    internal static bool Is(InvalidOperationException problem) =>
        problem.Message.Contains("already being tracked", StringComparison.Ordinal);
}

/// <summary>What a write puts into the shop and takes out of it.</summary>
public static class Rows
{
    /// <summary>Something new, kept with what is saved next.</summary>
    public static T Put<T>(this RivetDb db, T row) where T : class
    {
        try
        {
            db.Add(row);
        }
        catch (InvalidOperationException problem) when (IdTakenException.Is(problem))
        {
            throw new IdTakenException(problem);
        }
        return row;
    }

    /// <inheritdoc cref="Put"/>
    public static void PutAll<T>(this RivetDb db, IEnumerable<T> rows) where T : class => db.AddRange(rows);

    /// <summary>Something taken out with what is saved next.</summary>
    public static void Drop<T>(this RivetDb db, T row) where T : class => db.Remove(row);

    /// <summary>Lets go of what a refused write had begun to change, so that a page shows what is kept.</summary>
    public static void Forget(this RivetDb db)
    {
        db.ChangeTracker.Clear();
        db.Signing.Clear();
    }
}
