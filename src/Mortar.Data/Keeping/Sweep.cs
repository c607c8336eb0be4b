using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Accounts;
using Mortar.Core.Binned;
using Mortar.Core.Calendars;
using Mortar.Core.Letters;
using Mortar.Data.Calendars;
using Mortar.Data.Groups;
using Mortar.Data.Links;
using Mortar.Data.Noticeboards;
using Mortar.Data.Proposals;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Keeping;

/// <summary>How many rows of each sort went.</summary>
public sealed record Swept(int Calendars, int Events, int Changes, int Mails, int Other)
{
    /// <summary>All together.</summary>
    public int Total => Calendars + Events + Changes + Mails + Other;
}

/// <summary>
/// Takes out of the store for good what has been kept long enough. In pieces, each a short write, so that nobody waits for
/// it; ended in the middle, the next sweep goes on. Nobody is told: what goes had been out of everybody's sight.
/// </summary>
public sealed class Sweep(MortarDb db)
{
    /// <summary>How many rows go in one write.</summary>
    private const int Piece = 500;

    /// <param name="history">For how long changes are remembered.</param>
    /// <param name="cancellationToken">Ends it after the piece it is at.</param>
    public async Task<Swept> Run(Duration history, CancellationToken cancellationToken)
    {
        var (calendars, events) = await Bin(cancellationToken);
        return new Swept(
            calendars,
            events,
            await Changes(db.Now - history, cancellationToken),
            await Mails(cancellationToken),
            await Other(cancellationToken)
        );
    }

    /// <summary>Of the bin alone: what has been there for its time.</summary>
    public async Task<(int Calendars, int Events)> Bin(CancellationToken cancellationToken)
    {
        var (events, calendars) = (0, 0);
        var old = db.Now - BinRules.Kept;
        for (var gone = 1; gone > 0; events += gone)
        {
            gone = await db.Tidy(() => Events(old, cancellationToken), cancellationToken);
        }

        for (var gone = 1; gone > 0; calendars += gone)
        {
            gone = await db.Tidy(() => Calendar(old, cancellationToken), cancellationToken);
        }

        for (var gone = 1; gone > 0; )
        {
            gone = await db.Tidy(() => Group(old, cancellationToken), cancellationToken);
        }

        for (var gone = 1; gone > 0; )
        {
            gone = await db.Tidy(() => Proposals(row => row.WithdrawnAt < old, cancellationToken), cancellationToken);
        }

        return (calendars, events);
    }

    /// <summary>Some proposals with who was asked and what was said to them (ON DELETE CASCADE), and what was done to both.</summary>
    private async Task<int> Proposals(Expression<Func<ProposalRow, bool>> which, CancellationToken cancellationToken)
    {
        var ids = await db
            .Proposals.Where(which)
            .Select(row => row.Id)
            .OrderBy(id => id)
            .Take(Piece)
            .ToListAsync(cancellationToken);
        var subjects = ids.ConvertAll(id => id.Value);
        subjects.AddRange(
            await db
                .Suitings.Where(row => ids.Contains(row.ProposalId))
                .Select(row => row.Id)
                .ToListAsync(cancellationToken)
        );
        await db.Changes.Where(change => subjects.Contains(change.SubjectId)).ExecuteDeleteAsync(cancellationToken);
        return await db.Proposals.Where(row => ids.Contains(row.Id)).ExecuteDeleteAsync(cancellationToken);
    }

    /// <summary>Some events with all that hangs on them; what was answered, given, reminded and asked goes with the row (ON DELETE CASCADE).</summary>
    private async Task<int> Events(Instant old, CancellationToken cancellationToken)
    {
        var ids = await db
            .Events.Where(row => row.DeletedAt < old || CalendarsOver(old).Any(home => home.Id == row.CalendarId))
            .Select(row => row.Id)
            .OrderBy(id => id)
            .Take(Piece)
            .ToListAsync(cancellationToken);
        var subjects = ids.ConvertAll(id => id.Value);
        subjects.AddRange(
            await db
                .Answers.Where(row => ids.Contains(row.EventId))
                .Select(row => row.Id)
                .Concat(db.Agreements.Where(row => ids.Contains(row.EventId)).Select(row => row.Id))
                .ToListAsync(cancellationToken)
        );
        subjects.AddRange(
            await db
                .Links.Where(link => link.EventId != null && ids.Contains(link.EventId.Value))
                .Select(link => link.Id.Value)
                .ToListAsync(cancellationToken)
        );
        await Links(link => link.EventId != null && ids.Contains(link.EventId.Value), cancellationToken);
        await db.Changes.Where(change => subjects.Contains(change.SubjectId)).ExecuteDeleteAsync(cancellationToken);
        return await db.Events.Where(row => ids.Contains(row.Id)).ExecuteDeleteAsync(cancellationToken);
    }

    /// <summary>A calendar that is empty by now, with who had access to it and what was done to it.</summary>
    private async Task<int> Calendar(Instant old, CancellationToken cancellationToken)
    {
        var ids = await CalendarsOver(old)
            .Select(row => row.Id)
            .OrderBy(id => id)
            .Take(1)
            .ToListAsync(cancellationToken);
        await Links(link => ids.Contains(link.CalendarId), cancellationToken);
        await db.Proposals.Where(row => ids.Contains(row.CalendarId)).ExecuteDeleteAsync(cancellationToken);
        await db.FineClashes.Where(row => ids.Contains(row.CalendarId)).ExecuteDeleteAsync(cancellationToken);
        await db
            .Changes.Where(change => change.CalendarId != null && ids.Contains(change.CalendarId.Value))
            .ExecuteDeleteAsync(cancellationToken);
        return await db.Calendars.Where(row => ids.Contains(row.Id)).ExecuteDeleteAsync(cancellationToken);
    }

    /// <summary>The calendars whose time in the bin is over: by themselves, or with their group. What rests with its group stays.</summary>
    private IQueryable<CalendarRow> CalendarsOver(Instant old) =>
        db.Calendars.Where(row =>
            row.WithGroup ? db.Groups.Any(home => home.Id == row.GroupId && home.DeletedAt < old) : row.DeletedAt < old
        );

    /// <summary>A group without calendars by now, with who was in it and what was done to it; what else hangs on it goes with the row (ON DELETE CASCADE).</summary>
    private async Task<int> Group(Instant old, CancellationToken cancellationToken)
    {
        var ids = await db
            .Groups.Where(row => row.DeletedAt < old && !db.Calendars.Any(one => one.GroupId == row.Id))
            .Select(row => row.Id)
            .OrderBy(id => id)
            .Take(1)
            .ToListAsync(cancellationToken);
        var owners = ids.ConvertAll(id => id.Value);
        await db
            .OpenAsks.Where(row => row.ToGroupId != null && ids.Contains(row.ToGroupId.Value))
            .ExecuteDeleteAsync(cancellationToken);
        await db
            .ShortAddresses.Where(row => row.Space == GroupRow.AddressSpace && owners.Contains(row.OwnerId))
            .ExecuteDeleteAsync(cancellationToken);
        await db
            .Changes.Where(change => change.GroupId != null && ids.Contains(change.GroupId.Value))
            .ExecuteDeleteAsync(cancellationToken);
        return await db.Groups.Where(row => ids.Contains(row.Id)).ExecuteDeleteAsync(cancellationToken);
    }

    private async Task Links(Expression<Func<LinkRow, bool>> which, CancellationToken cancellationToken)
    {
        var links = db.Links.Where(which);
        await db
            .LinkHolders.Where(row => links.Any(link => link.Id == row.LinkId))
            .ExecuteDeleteAsync(cancellationToken);
        await links.ExecuteDeleteAsync(cancellationToken);
    }

    /// <summary>
    /// The oldest first; numbers are never given again (AUTOINCREMENT), so that whoever has read up to one is told right.
    /// </summary>
    private async Task<int> Changes(Instant before, CancellationToken cancellationToken)
    {
        var count = 0;
        while (true)
        {
            var oldest = await db
                .Changes.AsNoTracking()
                .OrderBy(change => change.Sequence)
                .Take(Piece)
                .Select(change => new { change.Sequence, change.At })
                .ToListAsync(cancellationToken);
            var old = oldest.TakeWhile(change => change.At < before).ToList();
            if (old.Count == 0)
            {
                return count;
            }

            var upTo = old[^1].Sequence;
            count += await db.Tidy(
                () => db.Changes.Where(change => change.Sequence <= upTo).ExecuteDeleteAsync(cancellationToken),
                cancellationToken
            );
        }
    }

    private async Task<int> Mails(CancellationToken cancellationToken)
    {
        var (count, last) = (0, db.Now - MailLife.KeptFor);
        for (var gone = 1; gone > 0; count += gone)
        {
            gone = await db.Tidy(
                () =>
                    db
                        .Mails.Where(mail => mail.WrittenAt < last && mail.DueAt < last)
                        .OrderBy(mail => mail.Id)
                        .Take(Piece)
                        .ExecuteDeleteAsync(cancellationToken),
                cancellationToken
            );
        }

        return count;
    }

    private async Task<int> Other(CancellationToken cancellationToken)
    {
        var now = db.Now;
        var asked = now - PasswordReset.Span;
        var leftAlone = now - KeptFor.LeftSources;
        var (reminded, signedIn, fine) = (now - KeptFor.Reminders, now - KeptFor.SignIns, now - KeptFor.FineClashes);
        return await db.Tidy(
                () => db.Reminders.Where(row => row.Start < reminded).ExecuteDeleteAsync(cancellationToken),
                cancellationToken
            )
            + await db.Tidy(
                () => db.SignIns.Where(row => row.EndsAt < signedIn).ExecuteDeleteAsync(cancellationToken),
                cancellationToken
            )
            + await db.Tidy(
                () => db.PasswordResets.Where(row => row.AskedAt < asked).ExecuteDeleteAsync(cancellationToken),
                cancellationToken
            )
            + await db.Tidy(
                () => db.FineClashes.Where(row => row.Until < fine).ExecuteDeleteAsync(cancellationToken),
                cancellationToken
            )
            + await db.Tidy(
                () => db.ShortAddresses.Where(row => row.HeldUntil < now).ExecuteDeleteAsync(cancellationToken),
                cancellationToken
            )
            + await db.Tidy(
                () =>
                    db
                        .WebSources.Where(row =>
                            row.TriedAt < leftAlone && !db.WebCalendars.Any(web => web.SourceId == row.Id)
                        )
                        .ExecuteDeleteAsync(cancellationToken),
                cancellationToken
            )
            + await db.Tidy(() => db.ForgetOpens(now - KeptFor.Opens, cancellationToken), cancellationToken);
    }
}
