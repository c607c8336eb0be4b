namespace Mortar.Server.Hosting;

/// <summary>What browsers are told to refuse. No inline script, nothing from elsewhere.</summary>
internal static class SecurityHeaders
{
    public static HeaderPolicyCollection Policy() =>
        new HeaderPolicyCollection()
            .AddFrameOptionsDeny()
            .AddContentTypeOptionsNoSniff()
            .AddReferrerPolicyStrictOriginWhenCrossOrigin()
            .AddCrossOriginOpenerPolicy(policy => policy.SameOrigin())
            .RemoveServerHeader()
            // Sent where a request came by https, and so only where that is how people reach it.
            .AddStrictTransportSecurityMaxAgeIncludeSubDomains(maxAgeInSeconds: 365 * 24 * 60 * 60)
            .AddContentSecurityPolicy(policy =>
            {
                policy.AddDefaultSrc().Self();
                policy.AddScriptSrc().Self();

                // Scroll locking of the menus puts a style element into the page; styles cannot act.
                policy.AddStyleSrc().Self().UnsafeInline();
                policy.AddImgSrc().Self().Data();
                policy.AddFontSrc().Self();
                policy.AddConnectSrc().Self();
                policy.AddObjectSrc().None();
                policy.AddBaseUri().None();
                policy.AddFormAction().Self();
                policy.AddFrameAncestors().None();
            });
}
