using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Reminders;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.People;
using Mortar.Data.Reminders;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Reminders;

/// <summary>/api/reminders: what one was reminded of and has not put away; and how one is reminded of a calendar.</summary>
internal static class RemindersSetup
{
    private static readonly Duration Shown = Duration.FromDays(2);

    /// <param name="Start">With the event what names it.</param>
    /// <param name="Event">The event as one sees it.</param>
    internal sealed record Body(Instant Start, BrickBody.Event Event);

    internal sealed record SeenBody(Guid EventId, Instant Start);

    /// <summary>How one is reminded of what is in a calendar.</summary>
    internal enum Kind
    {
        AsEventsSay,
        Never,
        Before,
    }

    /// <param name="Minutes">How long before, of everything; 0 where that is not the kind.</param>
    internal sealed record ChoiceBody(Kind Kind, int Minutes = 0);

    public static void AddReminders(this IServiceCollection services) =>
        services
            .AddScoped<ReminderReader>()
            .AddScoped<ReminderCommands>()
            .AddScoped<DigestCommands>()
            .AddScoped<NoticeCommands>()
            .AddHostedService<ReminderSender>()
            .AddHostedService<DigestSender>()
            .AddHostedService<NoticeSender>();

    public static void MapReminders(this RouteGroupBuilder api)
    {
        api.MapGet("/reminders", Read).WithName("ReadReminders");
        api.MapPost("/reminders/seen", See).WithName("SeeReminder");
        api.MapGet("/shelf/{calendarId:guid}/reminder", ReadChoice).WithName("ReadCalendarReminder");
        api.MapPut("/shelf/{calendarId:guid}/reminder", Choose).WithName("SetCalendarReminder");
    }

    private static async Task<Ok<IReadOnlyList<Body>>> Read(
        Acting acting,
        MortarDb db,
        ZoneClock zones,
        IClock clock,
        CancellationToken cancellationToken
    )
    {
        var now = clock.GetCurrentInstant();
        var since = now - Shown;
        var given = await db
            .Reminders.AsNoTracking()
            .Where(row => row.PersonId == acting.Person && row.SeenAt == null && row.GivenAt >= since)
            .OrderBy(row => row.Start)
            .ToListAsync(cancellationToken);
        var zone = await db.ZoneOf(acting.Person, zones, cancellationToken);
        var ids = given.ConvertAll(row => row.EventId);
        var events = await db
            .Events.AsNoTracking()
            .Where(row =>
                ids.Contains(row.Id)
                && row.DeletedAt == null
                && db.Calendars.Any(calendar => calendar.Id == row.CalendarId && calendar.DeletedAt == null)
            )
            .ToDictionaryAsync(row => row.Id, cancellationToken);
        var standings = await db.StandingsOf(acting.Person, cancellationToken);
        return TypedResults.Ok<IReadOnlyList<Body>>([
            .. from row in given
            where events.ContainsKey(row.EventId)
            let whole = events[row.EventId].ToCore()
            let occurrence = whole.OccurrenceAt(row.ToOnly(), zones, zone)
            where occurrence is { } one && one.Span.End >= now
            let role = standings.GetValueOrDefault(whole.CalendarId, Standing.Outside).Role
            let shown = VisibleEvent.Show(role, acting.Person, occurrence.Value, zone)
            where shown is not null
            select new Body(row.Start, BrickBody.Of(shown, zone)),
        ]);
    }

    private static Task<Results<NoContent, ProblemHttpResult>> See(
        SeenBody body,
        Acting acting,
        ReminderCommands reminders,
        CancellationToken cancellationToken
    ) => reminders.See(acting.Person, new EventId(body.EventId), body.Start, cancellationToken).Answer();

    private static async Task<Results<Ok<ChoiceBody>, ProblemHttpResult>> ReadChoice(
        CalendarId calendarId,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        if (
            AccessRules.ToSee((await db.StandingOf(acting.Person, calendarId, cancellationToken)).Role)
            != Verdict.Granted
        )
        {
            return Problems.NotThere("calendar");
        }

        var layer = await db.Layers.FindAsync([acting.Person, calendarId], cancellationToken);
        return TypedResults.Ok(
            layer?.ToReminder() switch
            {
                CalendarReminder.Before before => new ChoiceBody(Kind.Before, before.Minutes),
                CalendarReminder.Never => new ChoiceBody(Kind.Never),
                _ => new ChoiceBody(Kind.AsEventsSay),
            }
        );
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Choose(
        CalendarId calendarId,
        ChoiceBody body,
        Acting acting,
        ReminderCommands reminders,
        CancellationToken cancellationToken
    ) =>
        reminders
            .Choose(
                acting.Person,
                calendarId,
                body.Kind switch
                {
                    Kind.Before => new CalendarReminder.Before(body.Minutes),
                    Kind.Never => new CalendarReminder.Never(),
                    _ => new CalendarReminder.AsEventsSay(),
                },
                cancellationToken
            )
            .Answer();
}
