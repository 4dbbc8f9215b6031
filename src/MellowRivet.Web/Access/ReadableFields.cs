using System.Reflection;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;

namespace MellowRivet.Web.Access;

/// <summary>
/// Refuses a form with a field that can't be read, by the field's name, before anything is done with the rest of it. A choice that
/// is missing or unknown is none: it never falls to whatever happens to stand first.
/// </summary>
public sealed class ReadableFields : IPageFilter
{
    private const string Names = "unreadable-fields";

    public void OnPageHandlerSelected(PageHandlerSelectedContext context) { }

    public void OnPageHandlerExecuting(PageHandlerExecutingContext context)
    {
        if (!HttpMethods.IsPost(context.HttpContext.Request.Method) || Unreadable(context).Distinct().ToList() is not { Count: > 0 } fields)
            return;
        context.Result = Refuse(context.HttpContext, fields);
    }

    /// <summary>Refuses a form for some of its fields.</summary>
    public static IActionResult Refuse(HttpContext context, List<string> fields)
    {
        var words = InWords(fields);
        context.Items[Names] = words;
        return IsByScript(context.Request)
            ? new ContentResult { StatusCode = StatusCodes.Status422UnprocessableEntity, ContentType = "text/plain; charset=utf-8",
                Content = words }
            : new StatusCodeResult(StatusCodes.Status422UnprocessableEntity);
    }

    public void OnPageHandlerExecuted(PageHandlerExecutedContext context) { }

    /// <summary>Whether a script of ours sent it, which shows words where the person is.</summary>
    public static bool IsByScript(HttpRequest request) =>
        request.Headers.ContainsKey("HX-Request") || request.Headers.ContainsKey("X-Rivet");

    /// <summary>What could not be read of the form that was just sent; null where all could.</summary>
    public static string? Of(HttpContext context) => context.Items[Names] as string;

    private static string InWords(List<string> fields) =>
        $"{string.Join(", ", fields.Select(field => $"“{field}”"))} can’t be read, or wasn’t sent. Nothing was changed.";

    private static IEnumerable<string> Unreadable(PageHandlerExecutingContext context) =>
    [
        .. context.ModelState.Where(entry => entry.Value!.Errors.Count > 0 && entry.Value.AttemptedValue is not null)
            .Select(entry => entry.Key),
        .. (context.HandlerMethod?.Parameters ?? [])
            .SelectMany(parameter => Meaningless(parameter.Name, ValueOf(context, parameter.Name, parameter.ParameterType))),
    ];

    // What wasn't sent is no argument at all: the handler would get its type's zero.
    private static object? ValueOf(PageHandlerExecutingContext context, string name, Type type) =>
        context.HandlerArguments.TryGetValue(name, out var value) ? value : type.IsValueType ? Activator.CreateInstance(type) : null;

    private static IEnumerable<string> Meaningless(string name, object? value)
    {
        switch (value)
        {
            case Enum choice when !Enum.IsDefined(choice.GetType(), choice):
            case Guid id when id == Guid.Empty && name == "post":
                yield return name;
                break;
            case not null when value.GetType() is { IsClass: true } form && form.Assembly == typeof(ReadableFields).Assembly:
                foreach (var property in form.GetProperties(BindingFlags.Public | BindingFlags.Instance)
                    .Where(property => property.GetIndexParameters().Length == 0 && property.PropertyType.IsValueType))
                    foreach (var inner in Meaningless(char.ToLowerInvariant(property.Name[0]) + property.Name[1..],
                        property.GetValue(value)))
                        yield return inner;
                break;
        }
    }
}
