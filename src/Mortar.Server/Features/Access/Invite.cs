using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.People;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Access;

/// <summary>/api/calendars/{id}/invitations: what giving would mean, giving, sending again, taking back.</summary>
internal static class Invite
{
    internal sealed record Body(
        string Address,
        Role Role,
        string? Message = null,
        LocalDate? LastDay = null,
        bool InReturn = false
    );

    internal sealed record MeaningBody(IReadOnlyList<string> Addresses, Role Role);

    /// <param name="Sentence">What it means, with names where they are known.</param>
    /// <param name="People">Each address as it was understood.</param>
    internal sealed record Meaning(string Sentence, IReadOnlyList<InvitedBody> People);

    /// <param name="Name">Their name, where they share a group with the reader; <c>null</c> otherwise.</param>
    internal sealed record InvitedBody(ToldAddress Address, string? Name, bool IsAddress);

    internal static void Map(RouteGroupBuilder calendar)
    {
        calendar.MapPost("/invitations/meaning", Mean).WithName("SayWhatItMeans");
        calendar.MapPut("/invitations/{invitationId:guid}", Send).WithName(nameof(Invite));
        calendar.MapPost("/invitations/{invitationId:guid}/send-again", SendAgain).WithName("SendInvitationAgain");
        calendar.MapDelete("/invitations/{invitationId:guid}", Withdraw).WithName("WithdrawInvitation");
    }

    private static async Task<Results<Ok<Meaning>, ProblemHttpResult>> Mean(
        CalendarId calendarId,
        MeaningBody body,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        if (await db.WhyNotCoordinate(acting.Person, calendarId, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        if (body.Role == Role.None || body.Addresses.Count is 0 or > 200)
        {
            return Problems.Unfit([
                new FieldProblem("addresses", "Name 1 to 200 addresses and a step from Times only to Coordinate."),
            ]);
        }

        var read = body
            .Addresses.Select(text => Address.TryParse(text, out var address) ? address.Value.Value : null)
            .ToList();
        var known = await db.KnownTo(acting.Person)
            .Where(person => read.Contains(person.Address))
            .ToDictionaryAsync(person => person.Address!, person => person.Name, cancellationToken);
        var people = body
            .Addresses.Zip(
                read,
                (text, address) =>
                    new InvitedBody(
                        ToldAddress.AsWritten(address ?? PlainText.OneLine(text)),
                        address is null ? null : known.GetValueOrDefault(address),
                        address is not null
                    )
            )
            .ToList();
        var calendar = await db
            .Calendars.Where(one => one.Id == calendarId)
            .Select(one => one.Name)
            .SingleAsync(cancellationToken);
        return TypedResults.Ok(
            new Meaning(
                RoleSentence.For([.. people.Select(one => one.Name ?? one.Address.Value)], body.Role, calendar),
                people
            )
        );
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Send(
        CalendarId calendarId,
        InvitationId invitationId,
        Body body,
        Acting acting,
        InvitationCommands invitations,
        CancellationToken cancellationToken
    ) =>
        invitations
            .Invite(
                acting.Act,
                calendarId,
                invitationId,
                new InvitationDraft(body.Address, body.Role, body.Message, body.LastDay, body.InReturn),
                cancellationToken
            )
            .Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> SendAgain(
        CalendarId calendarId,
        InvitationId invitationId,
        Acting acting,
        InvitationCommands invitations,
        CancellationToken cancellationToken
    ) => invitations.SendAgain(acting.Act, calendarId, invitationId, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> Withdraw(
        CalendarId calendarId,
        InvitationId invitationId,
        Acting acting,
        InvitationCommands invitations,
        CancellationToken cancellationToken
    ) => invitations.Withdraw(acting.Act, calendarId, invitationId, cancellationToken).Answer();
}
