using System.Diagnostics;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace MellowRivet.Web.Hosting.Benchmarking;

/// <summary>Counts what is asked of the database in this process.</summary>
internal sealed class QueryCount : IObserver<DiagnosticListener>, IObserver<KeyValuePair<string, object?>>
{
    private int asked;

    public QueryCount() => DiagnosticListener.AllListeners.Subscribe(this);

    /// <summary>How many since it was last asked.</summary>
    public int Take() => Interlocked.Exchange(ref asked, 0);

    public void OnNext(DiagnosticListener value)
    {
        if (value.Name == Microsoft.EntityFrameworkCore.DbLoggerCategory.Name)
            value.Subscribe(this);
    }

    public void OnNext(KeyValuePair<string, object?> value)
    {
        if (value.Key == RelationalEventId.CommandExecuting.Name)
            Interlocked.Increment(ref asked);
    }

    public void OnCompleted() { }

    public void OnError(Exception error) { }
}
