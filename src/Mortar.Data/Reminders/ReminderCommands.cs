using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Letters;
using Mortar.Core.Reminders;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.Calendars;
using Mortar.Data.Mail;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Reminders;

/// <summary>Gives reminders, each once.</summary>
public sealed class ReminderCommands(MortarDb db, ReminderReader reader, PublicLinks links, ZoneClock zones)
{
    /// <summary>Up to when reminders were looked for; <c>null</c> where they never were.</summary>
    public async Task<Instant?> LookedUpTo(CancellationToken cancellationToken) =>
        (await db.ReminderClock.AsNoTracking().SingleOrDefaultAsync(cancellationToken))?.LookedUpTo;

    /// <summary>
    /// Gives what is due after one instant and up to now, and takes note that it was looked for. What was given before
    /// is not given again, nor what has begun in the meantime (<see cref="ReminderRules.IsStillOfUse"/>).
    /// </summary>
    /// <returns>Those who were reminded.</returns>
    public async Task<IReadOnlyCollection<PersonId>> Give(
        Instant after,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        var due = await reader.Due(after, now, cancellationToken);
        using var giving = due.Count > 0 ? Measured.Source.StartActivity("reminders") : null;
        var (told, given) = (new HashSet<PersonId>(), 0);
        await db.WriteUnlogged(
            async () =>
            {
                foreach (var one in due.Where(one => ReminderRules.IsStillOfUse(one.DueAt, one.Start, now)))
                {
                    if (
                        await db.Reminders.FindAsync([one.Person, one.Seen.Id, one.Start], cancellationToken)
                        is not null
                    )
                    {
                        continue;
                    }

                    db.Reminders.Add(
                        new ReminderRow
                        {
                            PersonId = one.Person,
                            EventId = one.Seen.Id,
                            Start = one.Start,
                            Only = AnswerRow.OnlyText(one.Seen.Start),
                            GivenAt = now,
                        }
                    );
                    told.Add(one.Person);
                    given++;
                    await Mail(one, cancellationToken);
                }

                await TakeNote(now, cancellationToken);
            },
            cancellationToken
        );
        Measured.Reminders.Add(given);
        return told;
    }

    private async Task Mail(DueReminder due, CancellationToken cancellationToken)
    {
        var person = await db.People.AsNoTracking().SingleAsync(row => row.Id == due.Person, cancellationToken);
        if (person.Address is not { } to || !person.ToPreferences().RemindsByMail)
        {
            return;
        }

        var link = links.WeekOf(due.Seen.Seen.LocalStart.Date);
        var recipient = new Recipient(person.Name, zones.Zone(person.Zone));
        db.Post(EventLetters.ToRemind(due.Seen, recipient, link), to, rank: MailRank.Timed);
    }

    private async Task TakeNote(Instant now, CancellationToken cancellationToken)
    {
        if (await db.ReminderClock.SingleOrDefaultAsync(cancellationToken) is { } clock)
        {
            clock.LookedUpTo = now;
        }
        else
        {
            db.ReminderClock.Add(new ReminderClockRow { LookedUpTo = now });
        }
    }

    /// <summary>Chooses how somebody is reminded of what is in a calendar they see.</summary>
    public async Task<Outcome<LayerRow>> Choose(
        PersonId person,
        CalendarId calendar,
        CalendarReminder reminder,
        CancellationToken cancellationToken
    )
    {
        if (AccessRules.ToSee((await db.StandingOf(person, calendar, cancellationToken)).Role) != Verdict.Granted)
        {
            return new Refusal.NotThere("calendar");
        }

        if (reminder is CalendarReminder.Before { Minutes: < 0 or > EventRules.LongestReminder })
        {
            return new Refusal.Unfit([
                new FieldProblem("minutes", "A reminder comes up to eight weeks before the start."),
            ]);
        }

        LayerRow? layer = null;
        await db.WriteUnlogged(
            async () =>
            {
                layer = await db.OwnLayer(person, calendar, cancellationToken);
                layer.Apply(reminder);
            },
            cancellationToken
        );
        return layer!;
    }

    /// <summary>Puts a reminder away.</summary>
    public async Task<Outcome<ReminderRow>> See(
        PersonId person,
        EventId id,
        Instant start,
        CancellationToken cancellationToken
    )
    {
        if (await db.Reminders.FindAsync([person, id, start], cancellationToken) is not { } row)
        {
            return new Refusal.NotThere("reminder");
        }

        row.SeenAt = db.Now;
        await db.SaveChangesAsync(cancellationToken);
        return row;
    }
}
