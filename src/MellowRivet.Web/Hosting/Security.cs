namespace MellowRivet.Web.Hosting;

/// <summary>The headers every answer carries. Nothing inline runs, nothing comes from elsewhere, nobody frames us.</summary>
internal static class Security
{
    public static HeaderPolicyCollection Headers(bool overTls) => Always(overTls
        ? new HeaderPolicyCollection().AddStrictTransportSecurityMaxAge()
        : new());

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
