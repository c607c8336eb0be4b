using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Letters;
using Mortar.Core.Preferences;
using Mortar.Core.Reminders;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Groups;
using Mortar.Data.Inbox;
using Mortar.Data.Kinds;
using Mortar.Data.Mail;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Reminders;

/// <summary>Writes to people what changed in their calendars, as often as they chose. It reads the change log, as everything does that tells.</summary>
public sealed class DigestCommands(
    MortarDb db,
    NoticeQueries notices,
    InboxQueries inbox,
    PublicLinks links,
    ZoneClock zones
)
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

            var latest = await db.Changes.MaxAsync(change => (long?)change.Sequence, cancellationToken) ?? 0;
            // Whoever has just chosen it begins with what comes after.
            var lines = person.DigestedAt is { } since
                ? await Lines(
                    person,
                    preferences.Told,
                    zone,
                    new Stretch(person.DigestedUpTo + 1, latest, since, now),
                    cancellationToken
                )
                : [];
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

    /// <summary>What is told of oneself first, then what else changed; of an event of which one is told otherwise nothing is said again.</summary>
    private async Task<IReadOnlyList<string>> Lines(
        PersonRow person,
        ToldTable told,
        DateTimeZone zone,
        Stretch stretch,
        CancellationToken cancellationToken
    )
    {
        var asks = told.Asks.Mail == MailWay.Digest ? await inbox.Waits(person.Id, zone, cancellationToken) : null;
        var own = await notices.Of(person.Id, stretch, cancellationToken);
        var others = await Others(
            person,
            zone,
            stretch,
            own.SelectMany(notice => notice.Events).ToHashSet(),
            cancellationToken
        );
        return
        [
            .. asks?.Lines().Select(line => line.Sentence) ?? [],
            .. own.Where(notice => told.Of(notice.Topic).Mail == MailWay.Digest).Select(notice => notice.Sentence),
            .. others,
        ];
    }

    private async Task<IReadOnlyList<string>> Others(
        PersonRow person,
        DateTimeZone zone,
        Stretch stretch,
        HashSet<EventId> toldOtherwise,
        CancellationToken cancellationToken
    )
    {
        var reader = await db.ReaderOf(person.Id, cancellationToken);
        var seen = reader.Standings.Where(one => one.Value.Role >= Role.Outline).Select(one => one.Key).ToList();
        var kinds = ChangeKinds.Subjects(kind => kind.IsInDigest);
        var changes = await (
            from change in db.Changes.AsNoTracking()
            where
                change.Sequence >= stretch.From
                && change.Sequence <= stretch.UpTo
                && kinds.Contains(change.Subject)
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
                .Where(ofOne => !toldOtherwise.Contains(new EventId(ofOne.Key.SubjectId)))
                .Select(ofOne =>
                    ChangeKinds.Of(ofOne.Key.Subject).Digest([.. ofOne.Select(one => (one.change, one.Name))], facts)
                )
                .OfType<string>(),
        ];
    }
}
