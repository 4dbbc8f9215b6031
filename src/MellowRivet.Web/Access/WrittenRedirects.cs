using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;

namespace MellowRivet.Web.Access;

/// <summary>
/// An address that a page leads on to may have words of a person in it, such as a zone's: it goes out in the letters that a header takes.
/// </summary>
public sealed class WrittenRedirects : IAlwaysRunResultFilter
{
    public void OnResultExecuting(ResultExecutingContext context) => context.Result = context.Result switch
    {
        RedirectResult { Url: var url } to when Written(url) is var written && written != url => new RedirectResult(written, to.Permanent),
        LocalRedirectResult { Url: var url } when Written(url) is var written && written != url => new LocalRedirectResult(written),
        var other => other,
    };

    public void OnResultExecuted(ResultExecutedContext context) { }

    private static string Written(string url) =>
        string.Concat(url.EnumerateRunes().Select(letter => letter.Value is > ' ' and < 0x7f ? letter.ToString()
            : Uri.EscapeDataString(letter.ToString())));
}
