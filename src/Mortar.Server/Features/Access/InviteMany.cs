using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Access;
using Mortar.Core.Groups;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Access;

/// <summary>/api/calendars/{id}/invitations: how a pasted list is understood, and inviting all of it in one act.</summary>
internal static class InviteMany
{
    internal sealed record ListBody(string Text);

    /// <param name="Text">What it was read from.</param>
    /// <param name="Name">The name; of somebody known, the one they gave themselves.</param>
    /// <param name="Doubt">What is doubtful; <c>null</c> where nothing is.</param>
    internal sealed record EntryBody(string Text, string Name, ToldAddress? Address, InviteeFate Fate, string? Doubt);

    /// <param name="Id">Made by the client, so that sending it again writes it once.</param>
    internal sealed record OneBody(Guid Id, string Address, Role Role);

    internal sealed record Body(
        IReadOnlyList<OneBody> People,
        string? Message = null,
        LocalDate? LastDay = null,
        bool InReturn = false
    );

    /// <summary>What became of one.</summary>
    internal sealed record BecameBody(ToldAddress Address, InviteeFate Fate);

    internal static void Map(RouteGroupBuilder calendar)
    {
        calendar.MapPost("/invitations/read", Read).WithName("ReadInvitees");
        calendar.MapPut("/invitations", Send).WithName(nameof(InviteMany));
    }

    private static async Task<Results<Ok<List<EntryBody>>, ProblemHttpResult>> Read(
        CalendarId calendarId,
        ListBody body,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        if (await db.WhyNotCoordinate(acting.Person, calendarId, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        var found = await db.InviteesIn(calendarId, acting.Person, body.Text, cancellationToken);
        return TypedResults.Ok(
            found
                .Select(one => new EntryBody(
                    one.Entry.Text,
                    one.Name,
                    ToldAddress.AsWritten(one.Entry.Address?.Value),
                    one.Fate,
                    one.Entry.Doubt
                ))
                .ToList()
        );
    }

    private static Task<Results<Ok<List<BecameBody>>, ProblemHttpResult>> Send(
        CalendarId calendarId,
        Body body,
        Acting acting,
        InvitationCommands invitations,
        CancellationToken cancellationToken
    ) =>
        invitations
            .InviteMany(
                acting.Act,
                calendarId,
                [
                    .. body.People.Select(one =>
                        (
                            new InvitationId(one.Id),
                            new InvitationDraft(one.Address, one.Role, body.Message, body.LastDay, body.InReturn)
                        )
                    ),
                ],
                cancellationToken
            )
            .Answer(became =>
                Task.FromResult(
                    became.Select(one => new BecameBody(ToldAddress.AsWritten(one.Address), one.Fate)).ToList()
                )
            );
}
