using MellowRivet.Core.People;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.AspNetCore.Mvc.RazorPages.Infrastructure;

namespace MellowRivet.Web.Access;

/// <summary>One thing that can be asked of the shop, and who it says may ask.</summary>
/// <param name="Method">GET or POST.</param>
/// <param name="Pattern">The address, without its first slash.</param>
/// <param name="Handler">The page's handler by name; empty for the page's own, and where no page is.</param>
/// <param name="Needs">The right it takes; null where it doesn't say, or is open.</param>
/// <param name="OpenTo">Why it is open to all; null where it isn't.</param>
/// <param name="Through">What bounds an owner on it; null where it is closed to them.</param>
/// <param name="Takes">What is sent to it, as the handler takes it; null where no page is.</param>
public sealed record Address(string Method, string Pattern, string Handler, Right? Needs, string? OpenTo, Through? Through,
    HandlerMethodDescriptor? Takes)
{
    public string Name => $"{Method} /{Pattern}{(Handler.Length > 0 ? $"?handler={Handler}" : "")}";
}

/// <summary>Every address of the shop, drawn from the endpoints themselves: one that was added is among them.</summary>
public static class EveryAddress
{
    public static async Task<IReadOnlyList<Address>> OfAsync(IServiceProvider services)
    {
        var loader = services.GetRequiredService<PageLoader>();
        List<Address> all = [];
        foreach (var endpoint in services.GetServices<EndpointDataSource>().SelectMany(source => source.Endpoints).OfType<RouteEndpoint>())
        {
            var pattern = endpoint.RoutePattern.RawText!.TrimStart('/');
            if (endpoint.Metadata.GetMetadata<PageActionDescriptor>() is { } page)
                all.AddRange(Of(pattern, await loader.LoadAsync(page, endpoint.Metadata)));
            else
                all.AddRange((endpoint.Metadata.GetMetadata<IHttpMethodMetadata>()?.HttpMethods ?? ["GET"]).Select(method => new Address(
                    method, pattern, "", endpoint.Metadata.GetMetadata<NeedsAttribute>()?.Right,
                    endpoint.Metadata.GetMetadata<OpenToAllAttribute>()?.Why, endpoint.Metadata.GetMetadata<OwnersSeeAttribute>()?.Through,
                    null)));
        }
        return [.. all.DistinctBy(address => address.Name).OrderBy(address => address.Pattern, StringComparer.Ordinal)
            .ThenBy(address => address.Method, StringComparer.Ordinal).ThenBy(address => address.Handler, StringComparer.Ordinal)];
    }

    private static IEnumerable<Address> Of(string pattern, CompiledPageActionDescriptor page)
    {
        var (open, through) = (page.EndpointMetadata.OfType<OpenToAllAttribute>().LastOrDefault()?.Why,
            page.EndpointMetadata.OfType<OwnersSeeAttribute>().LastOrDefault()?.Through);
        // A page that only shows has no handler for it.
        if (page.HandlerMethods.All(handler => handler.HttpMethod != "Get"))
            yield return new("GET", pattern, "", DeclaredRights.Of(page.ModelTypeInfo!, null), open, through, null);
        foreach (var handler in page.HandlerMethods)
            yield return new(handler.HttpMethod.ToUpperInvariant(), pattern, handler.Name ?? "",
                DeclaredRights.Of(page.ModelTypeInfo!, handler), open, through, handler);
    }
}
