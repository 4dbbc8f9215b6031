using MellowRivet.Store;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.ModelBinding;

namespace MellowRivet.Web.Access;

/// <summary>
/// A write whose turn didn't come: a page says so above everything, with what was typed in its fields; a script is told to try
/// again, and keeps what it holds.
/// </summary>
public sealed class Busy : IAlwaysRunResultFilter
{
    public void OnResultExecuting(ResultExecutingContext context)
    {
        if (Of(context.ModelState) is not { } words)
            return;
        context.HttpContext.Response.StatusCode = StatusCodes.Status503ServiceUnavailable;
        if (ReadableFields.IsByScript(context.HttpContext.Request))
            context.Result = new ContentResult
                { StatusCode = StatusCodes.Status503ServiceUnavailable, ContentType = "text/plain; charset=utf-8", Content = words };
    }

    public void OnResultExecuted(ResultExecutedContext context) { }

    /// <summary>What is said of it; null where every write had its turn.</summary>
    public static string? Of(ModelStateDictionary state) => state[Once.Busy] is { Errors: [var error, ..] } ? error.ErrorMessage : null;
}
