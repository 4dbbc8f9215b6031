using System.Reflection;
using MellowRivet.Core.People;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.RazorPages.Infrastructure;

namespace MellowRivet.Web.Access;

/// <summary>
/// The right that an address needs: on a page for looking at it, on a handler for what that one does. What changes anything says so itself.
/// </summary>
[AttributeUsage(AttributeTargets.Class | AttributeTargets.Method)]
public sealed class NeedsAttribute(Right right) : Attribute
{
    public Right Right => right;
}

/// <summary>Whoever comes is let in, signed in or not.</summary>
/// <param name="why">Why that does no harm.</param>
[AttributeUsage(AttributeTargets.Class)]
public sealed class OpenToAllAttribute(string why) : Attribute, IAllowAnonymous
{
    public string Why => why;
}

/// <summary>Every address says who may come: an endpoint that doesn't is closed to strangers, and a test finds it.</summary>
public static class DeclaredRights
{
    public static TBuilder Needs<TBuilder>(this TBuilder endpoint, Right right) where TBuilder : IEndpointConventionBuilder =>
        endpoint.RequireAuthorization(policy => policy.RequireAuthenticatedUser().RequireAssertion(context => context.User.May(right)))
            .WithMetadata(new NeedsAttribute(right));

    /// <summary>Whoever only owns an aircraft may come, too, within these bounds.</summary>
    public static TBuilder OwnersSee<TBuilder>(this TBuilder endpoint, Through through) where TBuilder : IEndpointConventionBuilder =>
        endpoint.WithMetadata(new OwnersSeeAttribute(through));

    public static TBuilder OpenToAll<TBuilder>(this TBuilder endpoint, string why) where TBuilder : IEndpointConventionBuilder =>
        endpoint.WithMetadata(new OpenToAllAttribute(why));

    /// <summary>The right a page's handler needs: its own, or its page's where it only looks; null where neither says.</summary>
    /// <param name="page">The page's model.</param>
    /// <param name="handler">The handler; null where the page is shown without one.</param>
    public static Right? Of(TypeInfo page, HandlerMethodDescriptor? handler) =>
        (handler?.MethodInfo.GetCustomAttribute<NeedsAttribute>()
            ?? (handler is null || HttpMethods.IsGet(handler.HttpMethod) ? page.GetCustomAttribute<NeedsAttribute>() : null))?.Right;
}

/// <summary>Enforces what pages and their handlers declare.</summary>
public sealed class NeedsFilter : IPageFilter
{
    public void OnPageHandlerSelected(PageHandlerSelectedContext context) { }

    public void OnPageHandlerExecuting(PageHandlerExecutingContext context)
    {
        var page = context.ActionDescriptor.ModelTypeInfo!;
        if (page.GetCustomAttribute<OpenToAllAttribute>() is not null)
            return;
        var needed = DeclaredRights.Of(page, context.HandlerMethod)
            ?? throw new InvalidOperationException(
                $"{context.ActionDescriptor.DisplayName} {context.HandlerMethod?.HttpMethod} {context.HandlerMethod?.Name} doesn't "
                + $"say which right it needs.");
        if (!context.HttpContext.User.May(needed))
            context.Result = new StatusCodeResult(StatusCodes.Status403Forbidden);
    }

    public void OnPageHandlerExecuted(PageHandlerExecutedContext context) { }
}
