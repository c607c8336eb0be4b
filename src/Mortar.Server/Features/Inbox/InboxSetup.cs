using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Letters;
using Mortar.Core.Time;
using Mortar.Data.Answers;
using Mortar.Data.Inbox;
using Mortar.Data.People;
using Mortar.Data.Proposals;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Inbox;

/// <summary>/api/inbox: invitations that wait for an answer, and what others did that concerns one.</summary>
internal static class InboxSetup
{
    /// <param name="Unread">Invitations and requests that wait, and notices since one last looked.</param>
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
        MailsBody? Mails
    );

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
    internal sealed record NoticeBody(long Sequence, Instant At, string Sentence, bool Seen, Guid? EventId);

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
        QuestionQueries questions,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var zone = await db.ZoneOf(acting.Person, zones, cancellationToken);
        var waiting = await questions.Waiting(acting.Person, zone, cancellationToken);
        var wards = waiting.Select(one => one.Whose).Where(one => one != acting.Person).Distinct().ToList();
        var names = await db
            .People.Where(one => wards.Contains(one.Id))
            .ToDictionaryAsync(one => one.Id, one => one.Name, cancellationToken);
        var memberships = await inbox.Memberships(acting.Person, cancellationToken);
        var guardianships = await inbox.Guardianships(acting.Person, cancellationToken);
        var guests = await inbox.Guests(acting.Person, zone, cancellationToken);
        var invitations = await inbox.Waiting(acting.Person, cancellationToken);
        var asks = await inbox.Asks(acting.Person, cancellationToken);
        var open = await inbox.OpenAsks(acting.Person, cancellationToken);
        var proposals = await db.ProposalsWaiting(acting.Person, cancellationToken);
        var absences = await inbox.Absences(acting.Person, zone, cancellationToken);
        var mails = await inbox.Mails(acting.Person, cancellationToken);
        var notices = await notes.Notices(acting.Person, cancellationToken);
        return TypedResults.Ok(
            new Body(
                InboxCount.Of(
                    [
                        memberships.Count,
                        guardianships.Count,
                        guests.Count,
                        invitations.Count,
                        asks.Count,
                        open.Count,
                        waiting.Count,
                        absences.Count,
                        proposals.Count,
                    ],
                    notices.Count(notice => !notice.Seen),
                    mailsAreStuck: mails is not null
                ),
                [
                    .. memberships.Select(one => new MembershipBody(
                        one.GroupId.Value,
                        one.GroupName,
                        one.From,
                        one.AskedAt
                    )),
                ],
                [
                    .. guardianships.Select(one => new GuardianshipBody(
                        one.Id,
                        one.GroupName,
                        one.From,
                        one.Ward,
                        one.Guardian,
                        one.AskedAt
                    )),
                ],
                [
                    .. guests.Select(one => new GuestBody(
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
                [
                    .. waiting.Select(one => new QuestionBody(
                        one.Whose.Value,
                        names.GetValueOrDefault(one.Whose),
                        BrickBody.Of(one.Next, zone)
                    )),
                ],
                [
                    .. absences.Select(one => new AbsenceBody(
                        one.GroupId.Value,
                        one.CalendarName,
                        one.Names,
                        BrickBody.Of(one.Next, zone)
                    )),
                ],
                [
                    .. notices.Select(notice => new NoticeBody(
                        notice.Sequence,
                        notice.At,
                        notice.Sentence,
                        notice.Seen,
                        notice.Event?.Value
                    )),
                ],
                mails is null ? null : new MailsBody(mails.Count, mails.NextTry, mails.GivenUp)
            )
        );
    }

    private static async Task<NoContent> See(Acting acting, InboxCommands inbox, CancellationToken cancellationToken)
    {
        await inbox.See(acting.Person, cancellationToken);
        return TypedResults.NoContent();
    }
}
