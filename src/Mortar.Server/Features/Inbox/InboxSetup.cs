using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Letters;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Data.Inbox;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Inbox;

/// <summary>/api/inbox: invitations that wait for an answer, and what others did that concerns one.</summary>
internal static class InboxSetup
{
    /// <param name="Unread">Invitations and requests that wait, and notices since one last looked.</param>
    /// <param name="OnScreen">Of all that, what one wants to be told on an open screen; nothing in quiet hours.</param>
    internal sealed record Body(
        int Unread,
        IReadOnlyList<MembershipBody> Memberships,
        IReadOnlyList<GuardianshipBody> Guardianships,
        IReadOnlyList<GuestBody> Guests,
        IReadOnlyList<InvitationBody> Invitations,
        IReadOnlyList<AskBody> Asks,
        IReadOnlyList<OpenAskBody> OpenAsks,
        IReadOnlyList<QuestionBody> Questions,
        IReadOnlyList<AbsenceBody> Absences,
        IReadOnlyList<NoticeBody> Notices,
        MailsBody? Mails,
        IReadOnlyList<NewsBody> OnScreen
    );

    /// <summary>Something to be laid over an open screen when it has come; what is there already as a screen opens is not.</summary>
    /// <param name="Key">The same as long as it stands, and of nothing else.</param>
    /// <param name="Sentence">What happened or is asked.</param>
    /// <param name="EventId">The event it is about; <c>null</c> where it is about none.</param>
    internal sealed record NewsBody(string Key, string Sentence, Guid? EventId);

    /// <summary>A group that asks whether one wants to be in it.</summary>
    internal sealed record MembershipBody(Guid GroupId, string GroupName, string From, Instant AskedAt);

    /// <summary>That somebody is to see and answer for somebody in a group.</summary>
    /// <param name="Ward">For whom; <c>null</c> for oneself.</param>
    /// <param name="Guardian">Who; <c>null</c> for oneself.</param>
    internal sealed record GuardianshipBody(
        Guid Id,
        string GroupName,
        string From,
        string? Ward,
        string? Guardian,
        Instant AskedAt
    );

    /// <summary>That one is on a group's plan as somebody from outside, by an address of one's own.</summary>
    /// <param name="PersonId">The guest.</param>
    /// <param name="Name">What they are called there.</param>
    /// <param name="Events">What they were asked to or may change, the soonest first.</param>
    /// <param name="Proposals">The titles of what they were asked which times suit for.</param>
    internal sealed record GuestBody(
        Guid GroupId,
        string GroupName,
        Guid PersonId,
        string Name,
        ToldAddress Address,
        string From,
        IReadOnlyList<BrickBody.Event> Events,
        IReadOnlyList<string> Proposals
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
        ToldAddress? Address,
        Role Role,
        string Note,
        Instant AskedAt
    );

    /// <summary>Whether one comes to an event, or somebody for whom one answers does.</summary>
    /// <param name="Whose">Who is asked.</param>
    /// <param name="Name">Their name; <c>null</c> for oneself.</param>
    internal sealed record QuestionBody(Guid Whose, string? Name, BrickBody.Event Event);

    /// <summary>An absence that waits for one to agree to it.</summary>
    /// <param name="GroupId">Whose cover it touches.</param>
    /// <param name="Names">Who would be away.</param>
    internal sealed record AbsenceBody(
        Guid GroupId,
        string CalendarName,
        IReadOnlyList<string> Names,
        BrickBody.Event Event
    );

    /// <param name="GroupId">The group that is asked for a calendar of its; <c>null</c> where one is asked oneself.</param>
    internal sealed record OpenAskBody(
        Guid Id,
        Guid? GroupId,
        string? GroupName,
        string From,
        ToldAddress? Address,
        Role Role,
        string Note,
        Instant AskedAt
    );

    /// <summary>Mails one had written that could not be sent so far, since nobody takes them.</summary>
    /// <param name="NextTry">When it is tried again, by itself; <c>null</c> where none waits.</param>
    /// <param name="GivenUp">The subjects of those that are tried no more.</param>
    internal sealed record MailsBody(int Count, Instant? NextTry, IReadOnlyList<string> GivenUp);

    /// <param name="Sentence">What happened, for example "Ines Varga ended your access to “Glaze tests”."</param>
    /// <param name="EventId">The event it is about; <c>null</c> where it is about none.</param>
    internal sealed record NoticeBody(string Key, Instant At, string Sentence, bool Seen, Guid? EventId);

    public static void AddInbox(this IServiceCollection services) =>
        services.AddScoped<InboxQueries>().AddScoped<NoticeQueries>().AddScoped<InboxCommands>();

    public static void MapInbox(this RouteGroupBuilder api)
    {
        api.MapGet("/inbox", Read).WithName("ReadInbox");
        api.MapPost("/inbox/seen", See).WithName("SeeInbox");
    }

    private static async Task<Ok<Body>> Read(
        Acting acting,
        InboxQueries inbox,
        NoticeQueries notes,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var me = await db.People.AsNoTracking().SingleAsync(person => person.Id == acting.Person, cancellationToken);
        var (preferences, zone) = (me.ToPreferences(), zones.Zone(me.Zone));
        var waits = await inbox.Waits(acting.Person, zone, cancellationToken);
        var mails = await inbox.Mails(acting.Person, cancellationToken);
        var latest = await notes.Latest(acting.Person, cancellationToken);
        var notices = latest.Where(notice => preferences.Told.Of(notice.Topic).Inbox).ToList();
        var asks = preferences.IsOnScreen(NoticeTopic.Asks, db.Now, zone) ? waits.Lines() : [];
        var news = latest.Where(notice => !notice.Seen && preferences.IsOnScreen(notice.Topic, db.Now, zone));
        return TypedResults.Ok(
            new Body(
                InboxCount.Of(waits.Counts, notices.Count(notice => !notice.Seen), mailsAreStuck: mails is not null),
                [
                    .. waits.Memberships.Select(one => new MembershipBody(
                        one.GroupId.Value,
                        one.GroupName,
                        one.From,
                        one.AskedAt
                    )),
                ],
                [
                    .. waits.Guardianships.Select(one => new GuardianshipBody(
                        one.Id,
                        one.GroupName,
                        one.From,
                        one.Ward,
                        one.Guardian,
                        one.AskedAt
                    )),
                ],
                [
                    .. waits.Guests.Select(one => new GuestBody(
                        one.GroupId.Value,
                        one.GroupName,
                        one.PersonId.Value,
                        one.Name,
                        one.Address,
                        one.From,
                        [.. one.Events.Select(next => BrickBody.Of(next, zone))],
                        one.Proposals
                    )),
                ],
                [
                    .. waits.Invitations.Select(one => new InvitationBody(
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
                    .. waits.Asks.Select(one => new AskBody(
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
                    .. waits.OpenAsks.Select(one => new OpenAskBody(
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
                [
                    .. waits.Questions.Select(one => new QuestionBody(
                        one.Whose.Value,
                        waits.Names.GetValueOrDefault(one.Whose),
                        BrickBody.Of(one.Next, zone)
                    )),
                ],
                [
                    .. waits.Absences.Select(one => new AbsenceBody(
                        one.GroupId.Value,
                        one.CalendarName,
                        one.Names,
                        BrickBody.Of(one.Next, zone)
                    )),
                ],
                [
                    .. notices.Select(notice => new NoticeBody(
                        notice.Key,
                        notice.At,
                        notice.Sentence,
                        notice.Seen,
                        notice.Event?.Value
                    )),
                ],
                mails is null ? null : new MailsBody(mails.Count, mails.NextTry, mails.GivenUp),
                [
                    .. asks.Select(ask => new NewsBody(ask.Key, ask.Sentence, null)),
                    .. news.Select(notice => new NewsBody(notice.Key, notice.Sentence, notice.Event?.Value)),
                ]
            )
        );
    }

    private static async Task<NoContent> See(Acting acting, InboxCommands inbox, CancellationToken cancellationToken)
    {
        await inbox.See(acting.Person, cancellationToken);
        return TypedResults.NoContent();
    }
}
