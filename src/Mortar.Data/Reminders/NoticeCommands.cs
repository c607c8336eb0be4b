using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Answers;
using Mortar.Core.Changes;
using Mortar.Core.Letters;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Changes;
using Mortar.Data.Groups;
using Mortar.Data.Inbox;
using Mortar.Data.Kinds;
using Mortar.Data.Mail;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Reminders;

/// <summary>What was done about what others did.</summary>
/// <param name="Mails">How many mails were written.</param>
/// <param name="Awake">Those whose quiet hours are over: what waited for that may be laid over their screens now.</param>
public sealed record GivenNotices(int Mails, IReadOnlyList<PersonId> Awake);

/// <summary>
/// Writes to people at once what others did that concerns them, as each of them wants it. The log says for whom something
/// may have come; what it says is read when it is written, so that quiet hours pass over what does not hold any more or
/// may not be known any more.
/// </summary>
public sealed class NoticeCommands(MortarDb db, NoticeQueries notices, PublicLinks links, ZoneClock zones)
{
    /// <summary>Whoever was just written to is written to again no sooner: what comes meanwhile comes in one mail.</summary>
    public static readonly Duration Pace = Duration.FromMinutes(5);

    /// <summary>So many changes are looked at in one go.</summary>
    private const int AtATime = 2_000;

    /// <summary>Writes what is to be told.</summary>
    public async Task<GivenNotices> Give(Instant now, CancellationToken cancellationToken)
    {
        NoticeClockRow clock;
        bool isMore;
        do
        {
            (clock, isMore) = await LookOn(now, cancellationToken);
        } while (isMore);

        var written = 0;
        var awake = new List<PersonId>();
        var waiting = await db
            .People.Where(person => person.TellFrom != null || person.TellEndsAfter != null)
            .OrderBy(person => person.Id)
            .ToListAsync(cancellationToken);
        foreach (var person in waiting)
        {
            // A clock that was far ahead then keeps nothing back.
            var isTooSoon = person.ToldAt is { } last && last <= now && now < last + Pace;
            var preferences = person.ToPreferences();
            if (!isTooSoon && preferences.QuietUntil(now, zones.Zone(person.Zone)) is null)
            {
                written += await Give(person, preferences, clock, cancellationToken) ? 1 : 0;
                if (preferences.Quiet is not null)
                {
                    awake.Add(person.Id);
                }
            }
        }

        return new GivenNotices(written, awake);
    }

    private async Task<bool> Give(
        PersonRow person,
        PersonPreferences preferences,
        NoticeClockRow clock,
        CancellationToken cancellationToken
    )
    {
        // What is committed meanwhile is looked at in the next round, and told once.
        var stretch = new Stretch(
            person.TellFrom ?? clock.UpTo + 1,
            clock.UpTo,
            person.TellEndsAfter ?? clock.EndsUpTo,
            clock.EndsUpTo
        );
        var found = await notices.Of(person.Id, stretch, cancellationToken);
        var told = new List<string>();
        foreach (var notice in found)
        {
            if (
                preferences.Told.Of(notice.Topic).Mail == MailWay.AtOnce
                && !await IsMailed(person.Id, notice, cancellationToken)
            )
            {
                told.Add(notice.Sentence);
            }
        }

        await db.WriteUnlogged(
            () =>
            {
                (person.TellFrom, person.TellEndsAfter) = (null, null);
                if (told.Count > 0 && person.Address is { } address)
                {
                    person.ToldAt = clock.EndsUpTo;
                    db.Post(
                        NoticeLetter.For(person.Name, told, links.Inbox, links.Preferences),
                        address,
                        rank: MailRank.Timed
                    );
                }

                return Task.CompletedTask;
            },
            cancellationToken
        );
        return told.Count > 0;
    }

    /// <summary>Whether they hear of it by the mail with the event itself, since they were asked by one.</summary>
    private async Task<bool> IsMailed(PersonId person, Notice notice, CancellationToken cancellationToken)
    {
        if (notice is not { Topic: NoticeTopic.Plan, Events: [var only] })
        {
            return false;
        }

        if (!await db.Asked.AnyAsync(asked => asked.EventId == only && asked.PersonId == person, cancellationToken))
        {
            return false;
        }

        var change = await db
            .Changes.AsNoTracking()
            .SingleAsync(change => change.Sequence == notice.Sequence, cancellationToken);
        return AnswerRules.ToTell(person, change.EventBefore(), change.EventAfter()) != ToldOfEvent.Nothing;
    }

    /// <summary>Takes note for whom something may have come; up to where, and whether there may be more.</summary>
    private async Task<(NoticeClockRow Clock, bool IsMore)> LookOn(Instant now, CancellationToken cancellationToken)
    {
        var clock = await db.NoticeClock.FirstOrDefaultAsync(cancellationToken) ?? await Begin(now, cancellationToken);
        var changes = await db
            .Changes.AsNoTracking()
            .Where(change => change.Sequence > clock.UpTo)
            .OrderBy(change => change.Sequence)
            .Take(AtATime)
            .ToListAsync(cancellationToken);
        // A clock that was put back is followed: what ends by its date from here on is told.
        var after = Instant.Min(clock.EndsUpTo, now);
        var ended = await db.EndedBetween(after, now).ToListAsync(cancellationToken);
        var concerned = await Concerned(changes, cancellationToken);
        await db.WriteUnlogged(
            async () =>
            {
                var people = concerned.Keys.Union(ended).ToList();
                foreach (
                    var person in await db
                        .People.Where(row => row.Address != null && people.Contains(row.Id))
                        .ToListAsync(cancellationToken)
                )
                {
                    person.TellFrom ??= concerned.TryGetValue(person.Id, out var first) ? first : null;
                    person.TellEndsAfter ??= ended.Contains(person.Id) ? after : null;
                }

                clock.UpTo = changes.Count > 0 ? changes[^1].Sequence : clock.UpTo;
                clock.EndsUpTo = now;
            },
            cancellationToken
        );
        return (clock, changes.Count == AtATime);
    }

    /// <summary>What was done before anybody could say how they want to be told of it is not dug up.</summary>
    private async Task<NoticeClockRow> Begin(Instant now, CancellationToken cancellationToken)
    {
        var latest = await db.Changes.MaxAsync(change => (long?)change.Sequence, cancellationToken) ?? 0;
        var clock = new NoticeClockRow { UpTo = latest, EndsUpTo = now };
        await db.WriteUnlogged(
            () =>
            {
                db.NoticeClock.Add(clock);
                return Task.CompletedTask;
            },
            cancellationToken
        );
        return clock;
    }

    /// <summary>The first change of some by which something may stand in the inbox of whom.</summary>
    private async Task<Dictionary<PersonId, long>> Concerned(
        List<ChangeRow> changes,
        CancellationToken cancellationToken
    )
    {
        var first = new Dictionary<PersonId, long>();
        foreach (var ofAct in changes.GroupBy(change => change.Set))
        {
            try
            {
                foreach (var told in await db.ToldOf([.. ofAct], cancellationToken))
                {
                    foreach (var person in told.Topic == Topic.Inbox ? told.People : [])
                    {
                        first.TryAdd(person, ofAct.First().Sequence);
                    }
                }
            }
            catch (Exception bad) when (bad is JsonException or InvalidDataException)
            {
                // A state that nobody understands keeps nobody from being told the rest.
            }
        }

        return first;
    }
}
