namespace MellowRivet.Web.Hosting;

/// <summary>The headers every answer carries. Nothing inline runs, nothing comes from elsewhere, nobody frames us.</summary>
internal static class Security
{
    public static HeaderPolicyCollection Headers(bool overTls) => Always(overTls
        ? new HeaderPolicyCollection().AddStrictTransportSecurityMaxAge()
        : new());

    /// <summary>
    /// What the shop says stands on no browser's disk, where whoever has the device could read it: pages, parts of them and data are
    /// kept nowhere but sealed, by the scripts that take them along. Pictures have a name that never changes, and say so themselves.
    /// </summary>
    public static void UseNothingKept(this WebApplication app) => app.Use(next => context =>
    {
        context.Response.OnStarting(() =>
        {
            var (headers, type) = (context.Response.Headers, context.Response.ContentType ?? "");
            if (headers.CacheControl.Count == 0 && (type.StartsWith("text/html", StringComparison.Ordinal)
                || type.StartsWith("application/json", StringComparison.Ordinal)))
                headers.CacheControl = "no-store";
            return Task.CompletedTask;
        });
        return next(context);
    });

    private static HeaderPolicyCollection Always(HeaderPolicyCollection headers) => headers
        .AddFrameOptionsDeny()
        .AddContentTypeOptionsNoSniff()
        .AddReferrerPolicyStrictOriginWhenCrossOrigin()
        .RemoveServerHeader()
        .AddContentSecurityPolicy(policy =>
        {
            policy.AddDefaultSrc().None();
            policy.AddScriptSrc().Self();
            policy.AddStyleSrc().Self();
            policy.AddFontSrc().Self();
            policy.AddConnectSrc().Self();
            policy.AddImgSrc().Self().Blob().Data();
            policy.AddMediaSrc().Self().Blob();
            policy.AddManifestSrc().Self();
            policy.AddFormAction().Self();
            policy.AddBaseUri().None();
            policy.AddFrameAncestors().None();
        });
}
