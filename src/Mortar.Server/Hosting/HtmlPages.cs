using Microsoft.AspNetCore.Components;
using Microsoft.AspNetCore.Components.Web;

namespace Mortar.Server.Hosting;

/// <summary>Makes a page of its component: whole, on the server, with every text escaped by the framework.</summary>
internal static class HtmlPages
{
    public static async Task<string> Render<TPage>(IServiceProvider services, Dictionary<string, object?> parameters)
        where TPage : IComponent
    {
        await using var renderer = new HtmlRenderer(services, services.GetRequiredService<ILoggerFactory>());
        return await renderer.Dispatcher.InvokeAsync(async () =>
            (await renderer.RenderComponentAsync<TPage>(ParameterView.FromDictionary(parameters))).ToHtmlString()
        );
    }
}
