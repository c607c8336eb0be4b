using Microsoft.EntityFrameworkCore;
using Mortar.Core.Answers;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Letters;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Events;
using Mortar.Data.Mail;
using Mortar.Data.People;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Answers;

/// <summary>What somebody answers.</summary>
/// <param name="Only">The date that is meant; <c>null</c> for a single event, or all of a series.</param>
/// <param name="Suggested">Another time they suggest, start and end; <c>null</c> for none.</param>
public sealed record AnswerWish(
    LocalDateTime? Only,
    Answer Answer,
    string? Comment = null,
    (Instant Start, Instant End)? Suggested = null
);

/// <summary>Asks people whether they come, and takes their answers.</summary>
public sealed class AnswerCommands(MortarDb db, PublicLinks links, ZoneClock zones)
{
    /// <summary>Answers for oneself, or for somebody whose guardian one is.</summary>
    public Task<Outcome<AnswerRow>> Answer(
        Act act,
        EventId id,
        PersonId whose,
        AnswerWish wish,
        CancellationToken cancellationToken
    ) =>
        db.Write<AnswerRow>(
            act,
            async () =>
            {
                return await db.WhyNotAnswer(act.Actor, id, whose, wish.Only, zones, cancellationToken)
                    ?? await Write(id, whose, wish, mark: null, cancellationToken);
            },
            cancellationToken
        );

    /// <summary>
    /// Takes an answer that came by mail to the address of one question. It counts only where it is about who was
    /// asked, comes from their address and names the event; whatever else it says is ignored.
    /// </summary>
    /// <param name="secret">The secret of the address it was sent to.</param>
    /// <param name="uid">The event it names.</param>
    /// <param name="from">The address it comes from, as written.</param>
    /// <param name="about">The address it is about, as written.</param>
    /// <param name="wishFor">What it says, given the event.</param>
    /// <param name="mark">Which of several it is.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task<Outcome<AnswerRow>> AnswerByMail(
        string secret,
        string uid,
        string from,
        string about,
        Func<Event, AnswerWish> wishFor,
        ReplyMark mark,
        CancellationToken cancellationToken
    )
    {
        if (await db.QuestionBy(secret, cancellationToken) is not { } asked)
        {
            return new Refusal.NotThere("question");
        }

        return await db.Write<AnswerRow>(
            Act.By(asked.PersonId),
            async () =>
            {
                var row = await db
                    .Events.AsNoTracking()
                    .FirstOrDefaultAsync(one => one.Id == asked.EventId, cancellationToken);
                return row is null || row.Uid != uid ? new Refusal.NotThere("event")
                    : !await IsTheirs(asked.PersonId, from, cancellationToken)
                    || !await IsTheirs(asked.PersonId, about, cancellationToken)
                        ? new Refusal.NotAllowed("It does not come from who was asked.")
                    : await AnswerOf(asked, mark, wishFor(row.ToCore()), cancellationToken);
            },
            cancellationToken
        );
    }

    private async Task<Outcome<AnswerRow>> AnswerOf(
        AskedRow asked,
        ReplyMark mark,
        AnswerWish wish,
        CancellationToken cancellationToken
    )
    {
        if (
            await db.WhyNotAnswer(asked.PersonId, asked.EventId, asked.PersonId, wish.Only, zones, cancellationToken) is
            { } refusal
        )
        {
            return refusal;
        }

        var only = AnswerRow.OnlyText(wish.Only);
        var read = await db.Answers.FirstOrDefaultAsync(
            one => one.EventId == asked.EventId && one.PersonId == asked.PersonId && one.Only == only,
            cancellationToken
        );
        return read is null || AnswerRules.IsNewer(mark, new ReplyMark(read.ReplySequence, read.ReplyStamp), db.Now)
            ? await Write(asked.EventId, asked.PersonId, wish, mark, cancellationToken)
            : new Refusal.AgainstRule("older", "A later answer was read already.");
    }

    private async Task<bool> IsTheirs(PersonId person, string written, CancellationToken cancellationToken)
    {
        if (!Address.TryParse(written, out var read) || read is not { } address)
        {
            return false;
        }

        return (await db.PersonAt(address, cancellationToken))?.Id == person
            || await db.Members.AnyAsync(
                member => member.PersonId == person && member.Address == address.Value,
                cancellationToken
            )
            || await db.Guests.AnyAsync(
                guest => guest.PersonId == person && guest.Address == address.Value,
                cancellationToken
            );
    }

    /// <summary>Asks some of those named on an event: they are given it to read and get a mail by which they answer without an account.</summary>
    public Task<Outcome<EventRow>> AskPeople(
        Act act,
        EventId id,
        IReadOnlyCollection<PersonId> people,
        int? version,
        CancellationToken cancellationToken
    ) =>
        db.Write<EventRow>(
            act,
            async () =>
            {
                if (await db.Events.FirstOrDefaultAsync(one => one.Id == id, cancellationToken) is not { } row)
                {
                    return await db.NoEvent(act.Actor, cancellationToken);
                }

                if (await db.WhyNotGiveAway(act.Actor, row, version, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                var whole = row.ToCore();
                if (AnswerRules.WhyNotAsk(whole, people) is { } unnamed)
                {
                    return unnamed;
                }

                row.Apply(whole with { GivenTo = Attendees.Of(whole.GivenTo.Concat(people)) }, zones);
                foreach (var person in people.Where(one => one != act.Actor))
                {
                    await Ask(row, person, act.Actor, AskedAbout.Whether, cancellationToken);
                }

                return row;
            },
            cancellationToken
        );

    /// <summary>
    /// Tells those who were asked by mail what became of the events: moved, called off, in the bin with their calendar, not
    /// asked any more. It waits until that has rested, so that a slip that is put right tells nobody.
    /// </summary>
    /// <param name="now">What o'clock it is.</param>
    /// <param name="rest">How long it has to have been as it is.</param>
    /// <param name="cancellationToken">Stops it.</param>
    /// <returns>How many mails were written.</returns>
    public async Task<int> TellAsked(Instant now, Duration rest, CancellationToken cancellationToken)
    {
        var waiting = await (
            from asked in db.Asked
            join row in db.Events on asked.EventId equals row.Id
            join home in db.Calendars on row.CalendarId equals home.Id
            let isChanged = row.Version > asked.ToldVersion
            // What lies in the bin with its calendar does not take place; out of the bin it does again.
            let isInBin = home.DeletedAt != null && !asked.IsToldOff && row.DeletedAt == null && row.IndexEnd > db.Now
            let isBack = asked.IsToldOff
                && row.DeletedAt == null
                && !row.Cancelled
                && row.IndexEnd > db.Now
                && db.Given.Any(given => given.EventId == row.Id && given.PersonId == asked.PersonId)
            where home.DeletedAt != null ? isInBin : isChanged || isBack
            select new
            {
                asked,
                row,
                home,
                isOfBin = home.DeletedAt != null || !isChanged,
            }
        ).ToListAsync(cancellationToken);
        var written = 0;
        foreach (var one in waiting)
        {
            var states = await db
                .Changes.AsNoTracking()
                .Where(change => change.Subject == Subject.Event && change.SubjectId == one.row.Id.Value)
                .OrderBy(change => change.Sequence)
                .ToListAsync(cancellationToken);
            var binned = one.isOfBin ? await LastChange(one.home.Id, cancellationToken) : null;
            if (states.Count == 0 || !AnswerRules.HasRested(states[^1].At, binned, rest, now))
            {
                continue;
            }

            var last = states.FindLast(change => change.VersionAfter() <= one.asked.ToldVersion);
            var whole = one.row.DeletedAt is null && one.home.DeletedAt is null ? one.row.ToCore() : null;

            // What it was asked with is the first that they were told of.
            var told = one.asked.IsToldOff ? null : (last?.EventAfter() ?? whole);
            await db.WriteUnlogged(
                async () =>
                {
                    one.asked.BinTold += one.isOfBin ? 1 : 0;
                    if (await Tell(one.asked, one.row, told, whole, cancellationToken))
                    {
                        written++;
                    }

                    if (one.isOfBin)
                    {
                        // Also where no mail reaches them: it is not to be looked at again and again.
                        one.asked.IsToldOff = whole is null;
                    }

                    one.asked.ToldVersion = one.row.Version;
                },
                cancellationToken
            );
        }

        return written;
    }

    private async Task<Instant?> LastChange(CalendarId calendar, CancellationToken cancellationToken) =>
        await db
            .Changes.Where(change => change.Subject == Subject.Calendar && change.SubjectId == calendar.Value)
            .MaxAsync(change => (Instant?)change.At, cancellationToken);

    private async Task<bool> Tell(
        AskedRow asked,
        EventRow row,
        Event? told,
        Event? now,
        CancellationToken cancellationToken
    )
    {
        var tells = AnswerRules.ToTell(asked.PersonId, told, now);
        if (
            tells == ToldOfEvent.Nothing
            || asked.PersonId == row.AddedBy
            || await db.MailedAt(asked.PersonId, NoticeTopic.Plan, zones, cancellationToken) is not { } to
        )
        {
            return false;
        }

        var secret = LinkSecret.New();
        (asked.Hash, asked.SentAt) = (LinkSecret.HashOf(secret), db.Now);
        asked.IsToldOff = tells is ToldOfEvent.CalledOff or ToldOfEvent.NotAsked;
        // Whoever is not asked any more reads what they knew, and not what became of it since.
        var whole = tells == ToldOfEvent.NotAsked ? told! : row.ToCore();
        var (recipient, from) = await db.Correspondents(asked.PersonId, whole.AddedBy, zones, cancellationToken);
        var letter = EventLetters.ToTell(tells, told, whole, recipient, from, links.Answer(secret), db.Now, zones);
        db.PostAbout(letter, to, whole.AddedBy, row.Id, secret, tells);
        return true;
    }

    /// <summary>Under the write lock of the one who calls.</summary>
    private async Task<Outcome<AnswerRow>> Write(
        EventId id,
        PersonId whose,
        AnswerWish wish,
        ReplyMark? mark,
        CancellationToken cancellationToken
    )
    {
        var row = await db.Events.AsNoTracking().SingleAsync(one => one.Id == id, cancellationToken);
        var whole = row.ToCore();
        var comment = AnswerRules.Comment(wish.Comment);
        if (comment.WhyNot is { } tooLong)
        {
            return tooLong;
        }

        if (
            wish.Suggested is { } suggested
            && AnswerRules.WhyNotSuggest(suggested.Start, suggested.End) is { } backwards
        )
        {
            return backwards;
        }

        var only = AnswerRow.OnlyText(wish.Only);
        var known = await db.Answers.FirstOrDefaultAsync(
            one => one.EventId == id && one.PersonId == whose && one.Only == only,
            cancellationToken
        );
        var about = AnswerRules.About(whole, wish.Only, zones);
        if (known is null)
        {
            known = new AnswerRow
            {
                EventId = id,
                CalendarId = row.CalendarId,
                PersonId = whose,
                Only = only,
                Answer = wish.Answer,
                About = about,
                Organizer = row.AddedBy,
            };
            db.Answers.Add(known);
        }

        (known.Answer, known.About, known.Comment) = (wish.Answer, about, comment.Value);
        (known.SuggestedStart, known.SuggestedEnd) = (wish.Suggested?.Start, wish.Suggested?.End);
        (known.AnsweredAt, known.Organizer) = (db.Now, row.AddedBy);
        (known.ReplySequence, known.ReplyStamp) = mark is { } reply
            ? (reply.Sequence, reply.Stamp)
            : (known.ReplySequence, db.Now);
        return known;
    }

    /// <summary>Writes to somebody named on an event, under the write lock of the one who calls. Links in earlier mails end.</summary>
    internal async Task Ask(
        EventRow row,
        PersonId person,
        PersonId from,
        AskedAbout about,
        CancellationToken cancellationToken
    )
    {
        if (await db.MailedAt(person, NoticeTopic.Asks, zones, cancellationToken) is not { } to)
        {
            return;
        }

        var secret = LinkSecret.New();
        var asked = await db.Asked.FirstOrDefaultAsync(
            one => one.EventId == row.Id && one.PersonId == person,
            cancellationToken
        );
        if (asked is null)
        {
            asked = new AskedRow
            {
                EventId = row.Id,
                PersonId = person,
                Hash = LinkSecret.HashOf(secret),
                SentAt = db.Now,
            };
            db.Asked.Add(asked);
        }
        else
        {
            (asked.Hash, asked.SentAt) = (LinkSecret.HashOf(secret), db.Now);
        }

        (asked.ToldVersion, asked.IsToldOff) = (db.VersionOnceSaved(row), false);

        var (recipient, asker) = await db.Correspondents(person, from, zones, cancellationToken);
        var letter = EventLetters.ToAttend(row.ToCore(), recipient, asker, about, links.Answer(secret), db.Now, zones);
        db.PostAbout(letter, to, from, row.Id, secret, ToldOfEvent.Nothing);
    }
}
