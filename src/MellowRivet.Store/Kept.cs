namespace MellowRivet.Store;

/// <summary>
/// The latest of something that is drawn from the database and only read from then on: published whole by one reference. One
/// request draws the next one, and whoever else wants it waits for that.
/// </summary>
public class Kept<T> : IDisposable where T : class
{
    private readonly SemaphoreSlim turn = new(1);
    private volatile T? published;

    /// <summary>The latest that was published; null before the first.</summary>
    public T? Latest => published;

    /// <param name="isGood">Whether one will do.</param>
    /// <param name="draw">Draws the next one from the latest.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="willDo">Whether one will do while another request draws the next; null where none will.</param>
    public async Task<T> GetAsync(Func<T, bool> isGood, Func<T?, Task<T>> draw, CancellationToken stop, Func<T, bool>? willDo = null)
    {
        if (published is { } there && isGood(there))
            return there;
        if (!await turn.WaitAsync(TimeSpan.Zero, stop))
        {
            if (willDo is not null && published is { } before && willDo(before))
                return before;
            await turn.WaitAsync(stop);
        }
        try
        {
            // Whoever waited finds what the one before drew.
            return published is { } meanwhile && isGood(meanwhile) ? meanwhile : published = await draw(published);
        }
        finally
        {
            turn.Release();
        }
    }

    public void Dispose()
    {
        turn.Dispose();
        GC.SuppressFinalize(this);
    }
}
