using MellowRivet.Web.Pages.Shared;
using MellowRivet.Web.Pages.Walk;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Access;

/// <summary>
/// What a script of ours sent is answered so that it needn't read the page to tell what became of it, and may be one that nobody looks
/// at any more: 422 where it was refused; and where the work goes on, in the place of a redirect, which it would follow unasked.
/// </summary>
public sealed class ScriptAnswers : IAlwaysRunResultFilter
{
    /// <summary>What <c>X-Rivet</c> says for a form that goes out through a device's outbox.</summary>
    private const string Outbox = "outbox";

    /// <summary>Nothing is taken any more, since the inspection is signed: what was said before that is left open elsewhere.</summary>
    private const string Signed = "X-Rivet-Signed";

    public void OnResultExecuting(ResultExecutingContext context)
    {
        var request = context.HttpContext.Request;
        if (!HttpMethods.IsPost(request.Method) || !ReadableFields.IsByScript(request))
            return;
        if (context.Result is RedirectResult { Url: var next } && request.Headers["X-Rivet"] == Outbox)
            context.Result = new JsonResult(new { next });
        else if (context.Result is PageResult or PartialViewResult && Busy.Of(context.ModelState) is null
            && context.Controller is ShopPage { Shown.Refused.Refusals.Count: > 0 })
            context.HttpContext.Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        if (context.HttpContext.Response.StatusCode == StatusCodes.Status422UnprocessableEntity
            && context.Controller is IOfInspection { Inspection: { InWork: false, IsSurvey: false } })
            context.HttpContext.Response.Headers[Signed] = "yes";
    }

    public void OnResultExecuted(ResultExecutedContext context) { }
}
