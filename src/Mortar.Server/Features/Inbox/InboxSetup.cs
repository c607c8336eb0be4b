using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Access;
using Mortar.Data.Inbox;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Inbox;

/// <summary>/api/inbox: invitations that wait for an answer, and what others did that concerns one.</summary>
internal static class InboxSetup
{
    /// <param name="Unread">Invitations and requests that wait, and notices since one last looked.</param>
    internal sealed record Body(
        int Unread,
        IReadOnlyList<InvitationBody> Invitations,
        IReadOnlyList<AskBody> Asks,
        IReadOnlyList<OpenAskBody> OpenAsks,
        IReadOnlyList<NoticeBody> Notices
    );

    internal sealed record InvitationBody(
        Guid Id,
        string CalendarName,
        string From,
        Role Role,
        string Sentence,
        string Message,
        bool InReturn,
        Instant SentAt
    );

    /// <param name="From">Who asks, by the name they gave themselves.</param>
    /// <param name="Address">Their mail address: what a coordinator knows them by.</param>
    /// <param name="Role">The step they ask for.</param>
    internal sealed record AskBody(
        Guid Id,
        Guid CalendarId,
        string CalendarName,
        string From,
        string? Address,
        Role Role,
        string Note,
        Instant AskedAt
    );

    /// <param name="GroupId">The group that is asked for a calendar of its; <c>null</c> where one is asked oneself.</param>
    internal sealed record OpenAskBody(
        Guid Id,
        Guid? GroupId,
        string? GroupName,
        string From,
        string? Address,
        Role Role,
        string Note,
        Instant AskedAt
    );

    /// <param name="Sentence">What happened, for example "Ines Varga ended your access to “Glaze tests”."</param>
    internal sealed record NoticeBody(long Sequence, Instant At, string Sentence, bool Seen);

    public static void AddInbox(this IServiceCollection services) => services.AddScoped<InboxQueries>();

    public static void MapInbox(this RouteGroupBuilder api)
    {
        api.MapGet("/inbox", Read).WithName("ReadInbox");
        api.MapPost("/inbox/seen", See).WithName("SeeInbox");
    }

    private static async Task<Ok<Body>> Read(Acting acting, InboxQueries inbox, CancellationToken cancellationToken)
    {
        var invitations = await inbox.Waiting(acting.Person, cancellationToken);
        var asks = await inbox.Asks(acting.Person, cancellationToken);
        var open = await inbox.OpenAsks(acting.Person, cancellationToken);
        var notices = await inbox.Notices(acting.Person, cancellationToken);
        return TypedResults.Ok(
            new Body(
                invitations.Count + asks.Count + open.Count + notices.Count(notice => !notice.Seen),
                [
                    .. invitations.Select(one => new InvitationBody(
                        one.Id.Value,
                        one.CalendarName,
                        one.From,
                        one.Role,
                        RoleSentence.ForReader(one.Role, one.CalendarName),
                        one.Message,
                        one.InReturn,
                        one.SentAt
                    )),
                ],
                [
                    .. asks.Select(one => new AskBody(
                        one.Id.Value,
                        one.CalendarId.Value,
                        one.CalendarName,
                        one.From,
                        one.Address,
                        one.Role,
                        one.Note,
                        one.AskedAt
                    )),
                ],
                [
                    .. open.Select(one => new OpenAskBody(
                        one.Id.Value,
                        one.GroupId?.Value,
                        one.GroupName,
                        one.From,
                        one.Address,
                        one.Role,
                        one.Note,
                        one.AskedAt
                    )),
                ],
                [.. notices.Select(notice => new NoticeBody(notice.Sequence, notice.At, notice.Sentence, notice.Seen))]
            )
        );
    }

    private static async Task<NoContent> See(Acting acting, InboxQueries inbox, CancellationToken cancellationToken)
    {
        await inbox.See(acting.Person, cancellationToken);
        return TypedResults.NoContent();
    }
}
