using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Letters;
using Mortar.Core.Preferences;
using Mortar.Core.Reminders;
using Mortar.Core.Time;
using Mortar.Data.Access;
using Mortar.Data.Groups;
using Mortar.Data.Kinds;
using Mortar.Data.Mail;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Reminders;

/// <summary>Writes to people what changed in their calendars, as often as they chose. It reads the change log, as everything does that tells.</summary>
public sealed class DigestCommands(MortarDb db, PublicLinks links, ZoneClock zones)
{
    /// <summary>Writes what is due; returns how many mails were written.</summary>
    public async Task<int> Give(Instant now, CancellationToken cancellationToken)
    {
        var written = 0;
        var waiting = await db
            .People.Where(row =>
                row.Address != null
                && row.Preferences != null
                && (
                    row.Preferences.Contains(Chosen(DigestRhythm.Daily))
                    || row.Preferences.Contains(Chosen(DigestRhythm.Weekly))
                )
            )
            .ToListAsync(cancellationToken);
        foreach (var person in waiting)
        {
            var preferences = person.ToPreferences();
            var zone = zones.Zone(person.Zone);
            if (
                DigestRules.LastDue(preferences, zone, now) is not { } due
                || (person.DigestedAt is { } last && !DigestRules.IsDue(due, last, now))
            )
            {
                continue;
            }

            // Whoever has just chosen it begins with what comes after.
            var lines = person.DigestedAt is null ? [] : await Lines(person, zone, cancellationToken);
            var latest = await db.Changes.MaxAsync(change => (long?)change.Sequence, cancellationToken) ?? 0;
            await db.WriteUnlogged(
                () =>
                {
                    (person.DigestedAt, person.DigestedUpTo) = (now, latest);
                    if (lines.Count > 0)
                    {
                        db.Post(
                            DigestLetter.For(person.Name, lines, links.Week),
                            person.Address!,
                            rank: MailRank.ToMany
                        );
                        written++;
                    }

                    return Task.CompletedTask;
                },
                cancellationToken
            );
        }

        return written;
    }

    private static string Chosen(DigestRhythm rhythm) => $"\"{nameof(PersonPreferences.Digest)}\":\"{rhythm}\"";

    private async Task<IReadOnlyList<string>> Lines(
        PersonRow person,
        DateTimeZone zone,
        CancellationToken cancellationToken
    )
    {
        var reader = await db.ReaderOf(person.Id, cancellationToken);
        var seen = reader.Standings.Where(one => one.Value.Role >= Role.Outline).Select(one => one.Key).ToList();
        var told = ChangeKinds.Subjects(kind => kind.IsInDigest);
        var changes = await (
            from change in db.Changes.AsNoTracking()
            where
                change.Sequence > person.DigestedUpTo
                && told.Contains(change.Subject)
                && change.Actor != person.Id
                && change.CalendarId != null
                && seen.Contains(change.CalendarId.Value)
            join actor in db.People on change.Actor equals actor.Id
            orderby change.Sequence
            select new { change, actor.Name }
        ).ToListAsync(cancellationToken);
        var facts = new DigestFacts(reader, zone, zones);
        return
        [
            .. changes
                .GroupBy(one => (one.change.Subject, one.change.SubjectId))
                .Select(ofOne =>
                    ChangeKinds.Of(ofOne.Key.Subject).Digest([.. ofOne.Select(one => (one.change, one.Name))], facts)
                )
                .OfType<string>(),
        ];
    }
}
