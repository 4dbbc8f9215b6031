using System.Reflection;
using MellowRivet.Core.People;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;

namespace MellowRivet.Web.Access;

/// <summary>The right a handler needs. A handler that changes anything must carry one.</summary>
[AttributeUsage(AttributeTargets.Method)]
public sealed class NeedsAttribute(Right right) : Attribute
{
    public Right Right => right;
}

/// <summary>Enforces <see cref="NeedsAttribute"/> on every handler of a signed-in page: reading takes the right to look, writing the one it names.</summary>
public sealed class NeedsFilter : IPageFilter
{
    public void OnPageHandlerSelected(PageHandlerSelectedContext context) { }

    public void OnPageHandlerExecuting(PageHandlerExecutingContext context)
    {
        // Pages that anyone may see (entering, the first run) carry no person to ask.
        if (context.HttpContext.User.Identity?.IsAuthenticated != true || context.HandlerMethod is not { } handler)
            return;
        var needed = handler.MethodInfo.GetCustomAttribute<NeedsAttribute>()?.Right;
        if (needed is null && (context.ActionDescriptor.RelativePath.StartsWith("/Pages/Account", StringComparison.Ordinal) || context.ActionDescriptor.RelativePath.StartsWith("/Pages/Owners", StringComparison.Ordinal)))
            return;
        if (needed is null && !HttpMethods.IsGet(handler.HttpMethod))
            throw new InvalidOperationException($"{context.ActionDescriptor.DisplayName} {handler.Name} changes something and doesn't say which right that needs.");
        if (!context.HttpContext.User.May(needed ?? Right.Look))
            context.Result = new StatusCodeResult(StatusCodes.Status403Forbidden);
    }

    public void OnPageHandlerExecuted(PageHandlerExecutedContext context) { }
}
