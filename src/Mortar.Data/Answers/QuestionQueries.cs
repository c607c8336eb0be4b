using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Answers;

/// <summary>Whether somebody comes to an event: they were asked, and have not answered to the time it has now.</summary>
/// <param name="Whose">Who is asked: oneself, or a member whose guardian one is.</param>
/// <param name="Next">The event, or the next date of a series, as they see it.</param>
public sealed record Question(PersonId Whose, VisibleEvent.Shown Next);

/// <summary>Somebody named on an event, and what they answered.</summary>
/// <param name="Asked">Whether they were asked.</param>
/// <param name="Row">What they wrote; <c>null</c> while they have not.</param>
public sealed record NamedAnswer(PersonId Person, string Name, bool Asked, StandingAnswer Standing, AnswerRow? Row);

/// <summary>Reads who is asked and what they answered.</summary>
public sealed class QuestionQueries(MortarDb db, ZoneClock zones)
{
    private const int DaysAhead = 365;

    /// <summary>The questions that wait for somebody, or for those for whom they answer; the soonest first.</summary>
    public async Task<IReadOnlyList<Question>> Waiting(
        PersonId person,
        DateTimeZone zone,
        CancellationToken cancellationToken
    )
    {
        var today = db.Now.InZone(zone).Date;
        var window = new Window(today, today.PlusDays(DaysAhead - 1), zone);
        var found = new List<(Instant Start, Question Question)>();
        var wards = (await db.ReaderOf(person, cancellationToken)).Wards;
        foreach (
            var (whose, groups) in wards
                .GroupBy(ward => ward.Person)
                .Select(same => (same.Key, (GroupId[]?)[.. same.Select(ward => ward.In)]))
                .Prepend((person, null))
        )
        {
            // A guardian answers in the group where they are one: what others ask the ward is not theirs to read.
            var calendars = await db.CalendarsGiving(whose)
                .Where(id => groups == null || db.Calendars.Any(row => row.Id == id && groups.Contains(row.GroupId)))
                .ToListAsync(cancellationToken);
            var events = await db.EventsGiven(whose, calendars, window, cancellationToken);
            var answers = await db.AnswersIn(calendars, window, cancellationToken);
            var standings = await db.StandingsOf(whose, cancellationToken);
            foreach (var one in events.Where(one => one.GivenTo.Has(whose)))
            {
                var role = standings.GetValueOrDefault(one.CalendarId, Standing.Outside).Role;
                var next = one.Occurrences(window, zones)
                    .Where(date => date.Span.End > db.Now && date.Content.Attendees.Has(whose))
                    .Select(date => (Occurrence?)date)
                    .FirstOrDefault();
                if (
                    next is { } date
                    && AnswerRules.Of(whose, answers[one.Id], date, zones).Answer == Answer.NeedsAction
                    && VisibleEvent.Show(role, whose, date, zone) is { } shown
                )
                {
                    found.Add((date.Span.Start, new Question(whose, shown)));
                }
            }
        }

        return [.. found.OrderBy(one => one.Start).Select(one => one.Question)];
    }

    /// <summary>Everybody named on an event on one date, by name; <c>null</c> where a reader does not see who is.</summary>
    public async Task<IReadOnlyList<NamedAnswer>?> Of(
        PersonId reader,
        EventRow row,
        LocalDateTime? only,
        CancellationToken cancellationToken
    )
    {
        var role = (await db.StandingOf(reader, row.CalendarId, cancellationToken)).Role;
        var whole = row.ToCore();
        if (
            await db.IsGone(row, role, cancellationToken)
            || whole.OccurrenceAt(only, zones, DateTimeZone.Utc) is not { } occurrence
            || VisibleEvent.Show(role, reader, occurrence, DateTimeZone.Utc) is not { Notes: not null } shown
        )
        {
            return null;
        }

        // Those for whom the reader answers are no secret to them, whoever else may not see who is named.
        var theirs = await db.AnswersFor(reader, row.CalendarId, cancellationToken);
        var named = shown.Attendees.Union(occurrence.Content.Attendees.Intersect(theirs)).ToList();
        var people = await db
            .People.Where(person => named.Contains(person.Id))
            .OrderBy(person => person.Name)
            .Select(person => new { person.Id, person.Name })
            .ToListAsync(cancellationToken);
        var rows = await db
            .Answers.AsNoTracking()
            .Where(answer => answer.EventId == row.Id)
            .ToListAsync(cancellationToken);
        var given = rows.ConvertAll(answer => answer.ToCore());
        var date = AnswerRow.OnlyText(occurrence.Start);
        return
        [
            .. people.Select(person => new NamedAnswer(
                person.Id,
                person.Name,
                whole.GivenTo.Has(person.Id),
                AnswerRules.Of(person.Id, given, occurrence, zones),
                rows.Find(answer => answer.PersonId == person.Id && answer.Only == date)
                    ?? rows.Find(answer => answer.PersonId == person.Id && answer.Only.Length == 0)
            )),
        ];
    }
}
