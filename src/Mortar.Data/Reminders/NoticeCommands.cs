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

        var due = await Due(now, cancellationToken);
        var mails = new List<(PersonRow Person, IReadOnlyList<string> Lines)>();
        foreach (var one in due)
        {
            mails.Add((one.Person, await Understood(one.Person, one.Preferences, clock, cancellationToken)));
        }

        var written = mails.FindAll(mail => mail.Lines.Count > 0 && mail.Person.Address is not null);
        if (due.Count > 0)
        {
            await db.WriteUnlogged(
                () =>
                {
                    due.ForEach(one => (one.Person.TellFrom, one.Person.TellEndsAfter) = (null, null));
                    foreach (var (person, lines) in written)
                    {
                        person.ToldAt = now;
                        db.Post(
                            NoticeLetter.For(person.Name, lines, links.Inbox, links.Preferences),
                            person.Address!,
                            rank: MailRank.Timed
                        );
                    }

                    return Task.CompletedTask;
                },
                cancellationToken
            );
        }

        return new GivenNotices(
            written.Count,
            [.. due.Where(one => one.Preferences.Quiet is not null).Select(one => one.Person.Id)]
        );
    }

    /// <summary>For whom something waits that may be told now.</summary>
    private async Task<List<(PersonRow Person, PersonPreferences Preferences)>> Due(
        Instant now,
        CancellationToken cancellationToken
    )
    {
        var waiting = await db
            .People.Where(person => person.TellFrom != null || person.TellEndsAfter != null)
            .OrderBy(person => person.Id)
            .ToListAsync(cancellationToken);
        return
        [
            .. from person in waiting
            // A clock that was far ahead then keeps nothing back.
            where person.ToldAt is not { } last || last > now || now >= last + Pace
            let preferences = person.ToPreferences()
            where preferences.QuietUntil(now, zones.Zone(person.Zone)) is null
            select (person, preferences),
        ];
    }

    /// <summary>The same, nothing where a state is not understood: that keeps nobody else from being told.</summary>
    private async Task<IReadOnlyList<string>> Understood(
        PersonRow person,
        PersonPreferences preferences,
        NoticeClockRow clock,
        CancellationToken cancellationToken
    )
    {
        try
        {
            return await Lines(person, preferences, clock, cancellationToken);
        }
        catch (Exception bad) when (bad is JsonException or InvalidDataException)
        {
            return [];
        }
    }

    /// <summary>What is written to somebody, each thing in a sentence.</summary>
    private async Task<IReadOnlyList<string>> Lines(
        PersonRow person,
        PersonPreferences preferences,
        NoticeClockRow clock,
        CancellationToken cancellationToken
    )
    {
        if (Enum.GetValues<NoticeTopic>().All(topic => preferences.Told.Of(topic).Mail != MailWay.AtOnce))
        {
            return [];
        }

        // What is committed meanwhile is looked at in the next round, and told once.
        var stretch = new Stretch(
            person.TellFrom ?? clock.UpTo + 1,
            clock.UpTo,
            person.TellEndsAfter ?? clock.EndsUpTo,
            clock.EndsUpTo
        );
        var told = new List<string>();
        foreach (var notice in await notices.Of(person.Id, stretch, cancellationToken))
        {
            if (
                preferences.Told.Of(notice.Topic).Mail == MailWay.AtOnce
                && !await IsMailed(person.Id, notice, cancellationToken)
            )
            {
                told.Add(notice.Sentence);
            }
        }

        return told;
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
        var clock =
            await db.NoticeClock.FirstOrDefaultAsync(row => row.Id == NoticeClockRow.Only, cancellationToken)
            ?? await Begin(now, cancellationToken);
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
                var people = concerned.Union(ended).ToList();
                foreach (
                    var person in await db
                        .People.Where(row => row.Address != null && people.Contains(row.Id))
                        .ToListAsync(cancellationToken)
                )
                {
                    person.TellFrom ??= concerned.Contains(person.Id) ? clock.UpTo + 1 : null;
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

    /// <summary>Those in whose inbox something may stand by some changes.</summary>
    private async Task<HashSet<PersonId>> Concerned(List<ChangeRow> changes, CancellationToken cancellationToken)
    {
        try
        {
            return await InInboxes(changes, cancellationToken);
        }
        catch (Exception bad) when (bad is JsonException or InvalidDataException && changes.Count > 1)
        {
            // A state that nobody understands keeps nobody from being told the rest.
            var half = changes.Count / 2;
            var some = await Concerned(changes[..half], cancellationToken);
            some.UnionWith(await Concerned(changes[half..], cancellationToken));
            return some;
        }
        catch (Exception bad) when (bad is JsonException or InvalidDataException)
        {
            return [];
        }
    }

    private async Task<HashSet<PersonId>> InInboxes(List<ChangeRow> changes, CancellationToken cancellationToken) =>
        changes.Count == 0
            ? []
            :
            [
                .. (await db.ToldOf(changes, cancellationToken))
                    .Where(told => told.Topic == Topic.Inbox)
                    .SelectMany(told => told.People),
            ];
}
