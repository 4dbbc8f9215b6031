namespace MellowRivet.Web.Hosting;

/// <summary>
/// What has arrived is written. A person who types a value, sees it judged and goes on to the next page takes the connection away
/// before the answer comes; that is no reason to give the writing up.
/// </summary>
public static class WhatArrived
{
    public static IApplicationBuilder UseWhatArrived(this IApplicationBuilder app) =>
        app.Use(next => context => CarryThrough(context, next));

    /// <summary>Lets whoever only looks give up waiting, and nobody who writes.</summary>
    public static Task CarryThrough(HttpContext context, RequestDelegate next)
    {
        if (!HttpMethods.IsGet(context.Request.Method) && !HttpMethods.IsHead(context.Request.Method))
            context.RequestAborted = CancellationToken.None;
        return next(context);
    }
}
