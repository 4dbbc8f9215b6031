using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Http.Features;

namespace MellowRivet.Web.Hosting;

/// <summary>
/// Asks for every page once after a start, since a page's first request compiles what it is made of: so nobody waits for that who
/// comes a moment later. Only the door is asked for over the network, as by anybody; the pages behind it are asked for in here, as a
/// person sees them who is shown them. A page that is asked for changes nothing, and nothing that comes back is kept.
/// </summary>
public static class WarmUp
{
    /// <returns>How many pages were asked for, and which of them failed.</returns>
    public static async Task<(int Asked, IReadOnlyList<string> Failed)> RunAsync(WebApplication app, CancellationToken stop)
    {
        var way = ((IApplicationBuilder)app).New();
        way.UseRouting();
        way.UseAuthorization();
        way.UseEndpoints(routes =>
        {
            foreach (var pages in ((IEndpointRouteBuilder)app).DataSources)
                routes.DataSources.Add(pages);
        });
        var ask = way.Build();
        IReadOnlyList<(string Name, string Path)> all;
        Person? who;
        await using (var scope = app.Services.CreateAsyncScope())
        {
            all = (await ShopPages.OfAsync(scope.ServiceProvider.GetRequiredService<RivetDb>(),
                work => work.State == InspectionState.InWork, stop)).All();
            // A page shows more to whoever may do more.
            who = (await scope.ServiceProvider.GetRequiredService<ShopBoard>()
                .PeopleAsync(stop)).Values.MaxBy(person => person.Roles.Sum(role => Rights.Of(role).Count));
        }
        if (who is null)
            return (0, []);
        using var visitor = new HttpClient { BaseAddress = new(app.Urls.First()) };
        using var door = await visitor.GetAsync(new Uri("/enter", UriKind.Relative), stop);
        List<string> failed = [];
        foreach (var (name, path) in all)
            if (!await AskAsync(app, ask, who, path, stop))
                failed.Add(name);
        return (all.Count, failed);
    }

    private static async Task<bool> AskAsync(WebApplication app, RequestDelegate ask, Person who, string path, CancellationToken stop)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var (at, query) = path.IndexOf('?', StringComparison.Ordinal) is > 0 and var mark ? (path[..mark], path[mark..]) : (path, "");
        var context = new DefaultHttpContext
            { RequestServices = scope.ServiceProvider, RequestAborted = stop, User = ShopSignIn.Shown(who) };
        (context.Request.Method, context.Request.Scheme, context.Request.Host, context.Request.Path,
            context.Request.QueryString) = (HttpMethods.Get, Uri.UriSchemeHttp, new("localhost"), at, new(query));
        context.Features.Set<IHttpResponseBodyFeature>(new StreamResponseBodyFeature(Stream.Null));
        try
        {
            await ask(context);
            return context.Response.StatusCode < StatusCodes.Status400BadRequest;
        }
#pragma warning disable CA1031 // Whoever asks for the page will be told; until then nothing hangs on it.
        catch (Exception problem) when (!stop.IsCancellationRequested)
#pragma warning restore CA1031
        {
            app.Logger.LogWarning(problem, "{Path} can’t be shown.", path);
            return false;
        }
    }
}
