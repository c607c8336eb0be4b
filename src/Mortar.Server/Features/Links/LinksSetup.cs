using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Links;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Links;

/// <summary>/api/calendars/{id}/links: links to hand round, for coordinators. The list of them is in the list of access.</summary>
internal static class LinksSetup
{
    /// <param name="EventId">The one event it gives out; <c>null</c> for the whole calendar. Cannot be changed later.</param>
    /// <param name="MostUses">How many people may put the calendar on their wall by it; <c>null</c> for any number.</param>
    /// <param name="LastDay">The last day it leads somewhere, on the calendar's clock.</param>
    internal sealed record Body(
        Role Role,
        string? Name = null,
        Guid? EventId = null,
        int? MostUses = null,
        LocalDate? LastDay = null
    );

    /// <summary>The link itself. Its secret is not kept, so this is the one time it is told.</summary>
    /// <param name="Url"><c>null</c> where only its terms were changed.</param>
    /// <param name="Qr">The address as an SVG picture to be read by a camera.</param>
    internal sealed record MadeBody(Guid LinkId, string? Url, string? Qr);

    public static void AddLinks(this IServiceCollection services) => services.AddScoped<LinkCommands>();

    public static void MapLinks(this RouteGroupBuilder api)
    {
        var calendar = api.MapGroup("/calendars/{calendarId:guid}");
        calendar.MapPut("/links/{linkId:guid}", Put).WithName("PutLink");
        calendar.MapPost("/links/{linkId:guid}/renew", Renew).WithName("RenewLink");
        calendar.MapDelete("/links/{linkId:guid}", End).WithName("EndLink");
        LinkWall.Map(api);
    }

    private static Task<Results<Ok<MadeBody>, ProblemHttpResult>> Put(
        CalendarId calendarId,
        LinkId linkId,
        Body body,
        Acting acting,
        LinkCommands links,
        IServiceProvider services,
        CancellationToken cancellationToken
    ) =>
        links
            .Put(
                acting.Act,
                calendarId,
                linkId,
                new LinkWish(
                    body.EventId is { } one ? new EventId(one) : null,
                    body.Name,
                    body.Role,
                    body.MostUses,
                    body.LastDay
                ),
                cancellationToken
            )
            .Answer(made => Told(made, services));

    private static Task<Results<Ok<MadeBody>, ProblemHttpResult>> Renew(
        CalendarId calendarId,
        LinkId linkId,
        Acting acting,
        LinkCommands links,
        IServiceProvider services,
        CancellationToken cancellationToken
    ) => links.Renew(acting.Act, calendarId, linkId, cancellationToken).Answer(made => Told(made, services));

    private static Task<Results<NoContent, ProblemHttpResult>> End(
        CalendarId calendarId,
        LinkId linkId,
        Acting acting,
        LinkCommands links,
        CancellationToken cancellationToken
    ) => links.End(acting.Act, calendarId, linkId, cancellationToken).Answer();

    private static Task<MadeBody> Told(MadeLink made, IServiceProvider services)
    {
        var url = made.Secret is { } secret ? $"{MortarHost.PublicUrl(services)}/link/{secret}" : null;
        return Task.FromResult(new MadeBody(made.Row.Id.Value, url, url is null ? null : QrPicture.Of(url)));
    }
}
