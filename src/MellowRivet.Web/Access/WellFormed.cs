using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Mvc.RazorPages.Infrastructure;

namespace MellowRivet.Web.Access;

/// <summary>
/// What can't be a form of ours is refused before anything is read of it: a field whose name is broken off, as "a[", and one of a
/// handler that the page doesn't have.
/// </summary>
public sealed partial class WellFormed : IAsyncResourceFilter
{
    public async Task OnResourceExecutionAsync(ResourceExecutingContext context, ResourceExecutionDelegate next)
    {
        var request = context.HttpContext.Request;
        var fields = request.Query.Keys.AsEnumerable();
        try
        {
            if (request.HasFormContentType)
                fields = fields.Concat((await request.ReadFormAsync(context.HttpContext.RequestAborted)).Keys);
        }
        catch (InvalidDataException)
        {
            context.Result = new StatusCodeResult(StatusCodes.Status400BadRequest);
            return;
        }
        if (fields.FirstOrDefault(name => !Name().IsMatch(name)) is not { } broken)
            await next();
        else
            context.Result = ReadableFields.Refuse(context.HttpContext, [broken]);
    }

    // Words, with whole brackets of an index or a key.
    [GeneratedRegex(@"^[^\[\]]+(\[[^\[\]]*\][^\[\]]*)*$")]
    private static partial Regex Name();
}

/// <summary>A page answers what it has a handler for, and nothing else.</summary>
public sealed class HasHandler : IPageFilter
{
    public void OnPageHandlerSelected(PageHandlerSelectedContext context) { }

    public void OnPageHandlerExecuting(PageHandlerExecutingContext context)
    {
        var (method, page) = (context.HttpContext.Request.Method, (CompiledPageActionDescriptor)context.ActionDescriptor);
        // What only says what went wrong is shown for whatever was sent.
        if (page.HandlerMethods.Count == 0)
            return;
        var looks = HttpMethods.IsGet(method) || HttpMethods.IsHead(method);
        // What asks for a handler that isn't there would otherwise be done by the one without a name: another deed than was meant.
        if (context.HandlerMethod is { } found && (looks || IsMeant(found, context.HttpContext.Request)))
            return;
        if (looks && page.HandlerMethods.All(handler => handler.HttpMethod != "Get"))
            return;
        context.HttpContext.Response.Headers.Allow = string.Join(", ",
            page.HandlerMethods.Select(handler => handler.HttpMethod.ToUpperInvariant()).Append("GET").Distinct());
        context.Result = new StatusCodeResult(looks ? StatusCodes.Status404NotFound : StatusCodes.Status405MethodNotAllowed);
    }

    private static bool IsMeant(HandlerMethodDescriptor found, HttpRequest request) => request.Query["handler"].ToString() is var asked
        && string.Equals(asked, found.Name ?? "", StringComparison.OrdinalIgnoreCase);

    public void OnPageHandlerExecuted(PageHandlerExecutedContext context) { }
}
