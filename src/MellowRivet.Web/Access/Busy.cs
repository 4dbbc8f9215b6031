using MellowRivet.Store;
using MellowRivet.Store.Files;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.ModelBinding;

namespace MellowRivet.Web.Access;

/// <summary>
/// A write whose turn didn't come, or that found no room on the disk: a page says so above everything, with what was typed in its
/// fields; a script is told to try again, and keeps what it holds.
/// </summary>
public sealed class Busy : IAlwaysRunResultFilter
{
    public void OnResultExecuting(ResultExecutingContext context)
    {
        if (Of(context.ModelState) is not { } words)
            return;
        var status = words == Disk.NoRoom.Message ? StatusCodes.Status507InsufficientStorage : StatusCodes.Status503ServiceUnavailable;
        context.HttpContext.Response.StatusCode = status;
        if (ReadableFields.IsByScript(context.HttpContext.Request))
            context.Result = new ContentResult { StatusCode = status, ContentType = "text/plain; charset=utf-8", Content = words };
    }

    public void OnResultExecuted(ResultExecutedContext context) { }

    /// <summary>What is said of it; null where every write had its turn.</summary>
    public static string? Of(ModelStateDictionary state) => state[Once.Busy] is { Errors: [var error, ..] } ? error.ErrorMessage : null;
}
