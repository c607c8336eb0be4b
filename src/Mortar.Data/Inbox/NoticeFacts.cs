using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Changes;
using Mortar.Core.Proposals;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Absences;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.Calendars;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Proposals;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Inbox;

/// <summary>All that the sentences of some changes need beside the changes themselves, each read once for all of them; and those sentences.</summary>
/// <param name="Reader">Whom they are told.</param>
/// <param name="Zone">On whose clock.</param>
/// <param name="Now">When.</param>
/// <param name="Groups">The names of groups.</param>
/// <param name="People">The names of people.</param>
/// <param name="Events">Events, also deleted ones.</param>
/// <param name="InBin">Their calendars that are in the bin.</param>
/// <param name="Proposals">Proposals for calendars that are there.</param>
/// <param name="Calendars">By the sequence of a change the name that its calendar had then.</param>
internal sealed record NoticeFacts(
    Reader Reader,
    DateTimeZone Zone,
    ZoneClock Zones,
    Instant Now,
    IReadOnlyDictionary<GroupId, string> Groups,
    IReadOnlyDictionary<PersonId, string> People,
    IReadOnlyDictionary<EventId, EventRow> Events,
    IReadOnlySet<CalendarId> InBin,
    IReadOnlyDictionary<ProposalId, ProposalRow> Proposals,
    IReadOnlyDictionary<long, string> Calendars
)
{
    public static async Task<NoticeFacts> Of(
        MortarDb db,
        PersonId person,
        ZoneClock zones,
        IReadOnlyList<ChangeRow> changes,
        CancellationToken cancellationToken
    )
    {
        var members = After<MemberRow>(changes, Subject.Member);
        var answers = After<AnswerRow>(changes, Subject.Answer);
        var agreements = After<AgreementRow>(changes, Subject.Agreement);
        var said = After<SuitingsRow>(changes, Subject.Suitings);
        var groups = members.ConvertAll(one => one.GroupId);
        var people = answers.Select(one => one.PersonId).Concat(said.Select(one => one.PersonId)).Distinct().ToList();
        var events = answers.Select(one => one.EventId).Concat(agreements.Select(one => one.EventId)).ToList();
        var rows = await Any(
            events,
            () =>
                db
                    .Events.AsNoTracking()
                    .Where(row => events.Contains(row.Id))
                    .ToDictionaryAsync(row => row.Id, cancellationToken)
        );
        var homes = rows.Values.Select(row => row.CalendarId).Distinct().ToList();
        var proposals = said.ConvertAll(one => one.ProposalId);
        return new NoticeFacts(
            await db.ReaderOf(person, cancellationToken),
            await db.ZoneOf(person, zones, cancellationToken),
            zones,
            db.Now,
            await Any(
                groups,
                () =>
                    db
                        .Groups.Where(row => groups.Contains(row.Id))
                        .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken)
            ),
            await Any(
                people,
                () =>
                    db
                        .People.Where(row => people.Contains(row.Id))
                        .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken)
            ),
            rows,
            homes.Count == 0
                ? new HashSet<CalendarId>()
                : await db
                    .Calendars.Where(row => homes.Contains(row.Id) && row.DeletedAt != null)
                    .Select(row => row.Id)
                    .ToHashSetAsync(cancellationToken),
            await Any(
                proposals,
                () =>
                    db
                        .Proposals.AsNoTracking()
                        .Where(row =>
                            proposals.Contains(row.Id)
                            && db.Calendars.Any(home => home.Id == row.CalendarId && home.DeletedAt == null)
                        )
                        .ToDictionaryAsync(row => row.Id, cancellationToken)
            ),
            await NamesThen(
                db,
                [.. changes.Where(change => IsAboutAccess(change.Subject)).Select(change => change.Sequence)],
                cancellationToken
            )
        );
    }

    /// <summary>What a change says to the reader; <c>null</c> where it says nothing new, or nothing they may know.</summary>
    public string? Sentence(ChangeRow change, string actor) =>
        change.Subject switch
        {
            Subject.Member => OfMember(change, actor),
            Subject.Suitings => OfSuitings(change),
            Subject.Agreement => OfAgreement(change, actor),
            Subject.Answer => OfAnswer(change, actor),
            _ when IsAboutAccess(change.Subject) => OfAccess(change, actor, Calendars[change.Sequence]),
            _ => null,
        };

    private static bool IsAboutAccess(Subject subject) =>
        subject is Subject.Grant or Subject.Invitation or Subject.OpenAsk or Subject.Ask;

    private static List<TRow> After<TRow>(IEnumerable<ChangeRow> changes, Subject subject) =>
        [
            .. changes
                .Where(change => change.Subject == subject && change.After is not null)
                .Select(change => StoredText.Read<TRow>(change.After!)),
        ];

    /// <summary>Asks only where there is something to ask for.</summary>
    private static async Task<Dictionary<TKey, TValue>> Any<TKey, TValue>(
        List<TKey> keys,
        Func<Task<Dictionary<TKey, TValue>>> read
    )
        where TKey : notnull => keys.Count == 0 ? [] : await read();

    /// <summary>The names of calendars at the time of changes: somebody whose access ended does not learn later ones.</summary>
    private static async Task<Dictionary<long, string>> NamesThen(
        MortarDb db,
        List<long> sequences,
        CancellationToken cancellationToken
    )
    {
        var states = await Any(
            sequences,
            () =>
                db
                    .Changes.Where(change => sequences.Contains(change.Sequence))
                    .Select(change => new
                    {
                        change.Sequence,
                        State = db
                            .Changes.Where(row =>
                                row.CalendarId == change.CalendarId
                                && row.Subject == Subject.Calendar
                                // What is made together with its calendar may be written before it.
                                && (row.Sequence <= change.Sequence || row.Set == change.Set)
                            )
                            .OrderByDescending(row => row.Sequence)
                            .Select(row => row.After)
                            .FirstOrDefault(),
                    })
                    .ToDictionaryAsync(one => one.Sequence, one => one.State, cancellationToken)
        );
        return states.ToDictionary(
            one => one.Key,
            one => one.Value is { } state ? StoredText.Read<CalendarRow>(state).Name : "a calendar"
        );
    }

    private bool IsThere(EventRow row) =>
        VisibleEvent.IsThere(Reader.RoleOn(row.CalendarId), Reader.Person, row.ToCore());

    /// <summary>What a change of one's place in a group says; <c>null</c> where it says nothing new.</summary>
    private string? OfMember(ChangeRow change, string actor)
    {
        if (change.After is not { } text)
        {
            return null;
        }

        var after = StoredText.Read<MemberRow>(text);
        var before = change.Before is { } state ? StoredText.Read<MemberRow>(state) : null;
        var group = Groups[after.GroupId];
        return (before, after) switch
        {
            ({ LeftAt: null, AskedAt: null }, { LeftAt: not null }) => $"{actor} took you out of “{group}”.",
            (null or { LeftAt: not null }, { LeftAt: null, AskedAt: null }) => $"{actor} added you to “{group}”.",
            ({ Coordinates: false }, { Coordinates: true }) => $"{actor} made you a coordinator of “{group}”.",
            ({ Coordinates: true }, { Coordinates: false }) =>
                $"You no longer coordinate “{group}”: {actor} changed that.",
            _ => null,
        };
    }

    /// <summary>What an answer says to the organizer, who reads the title only while they see the event.</summary>
    private string? OfAnswer(ChangeRow change, string actor)
    {
        if (change.After is not { } text)
        {
            return null;
        }

        var answer = StoredText.Read<AnswerRow>(text);
        var row = Events.GetValueOrDefault(answer.EventId);
        // Whoever has handed on the right to change it may not find any more who is named.
        if (
            row is not { DeletedAt: null }
            || !IsThere(row)
            || !VisibleEvent
                .WithNamesSeen(Reader.RoleOn(row.CalendarId), Reader.Person, row.ToCore())
                .Named.Contains(answer.PersonId)
        )
        {
            return null;
        }

        var who = People[answer.PersonId];
        var title = row.Title.Length > 0 ? $"“{row.Title}”" : "an untitled event";
        var by = who == actor ? string.Empty : $" ({actor} answered)";
        var other = Suggested(answer);
        return answer.Answer switch
        {
            Answer.Accepted => $"{who} comes to {title}{by}.{other}",
            Answer.Tentative => $"{who} perhaps comes to {title}{by}.{other}",
            Answer.Declined => $"{who} does not come to {title}{by}.{other}",
            _ => null,
        };
    }

    /// <summary>The other time that came with an answer, on the reader's clock; empty where none did.</summary>
    private string Suggested(AnswerRow answer)
    {
        if (answer is not { SuggestedStart: { } start, SuggestedEnd: { } end })
        {
            return string.Empty;
        }

        var time = EventTime.InZone(start.InZone(Zone).LocalDateTime, end.InZone(Zone).LocalDateTime, Zone.Id);
        return $" They suggest {RangeSentence.For(time, Now.InZone(Zone).Year)}; it can be taken where the event is.";
    }

    /// <summary>Whether a coordinator agreed to an absence, to who entered it and still sees it.</summary>
    private string? OfAgreement(ChangeRow change, string actor)
    {
        if (change.After is not { } text || StoredText.Read<AgreementRow>(text) is not { Agrees: { } agrees } answer)
        {
            return null;
        }

        if (Events.GetValueOrDefault(answer.EventId) is not { } row || InBin.Contains(row.CalendarId) || !IsThere(row))
        {
            return null;
        }

        var when = RangeSentence.For(Zones.AsSeenIn(row.ToCore().Time, Zone), Now.InZone(Zone).Year);
        var title = row.Title.Length > 0 ? $"“{row.Title}”" : "your absence";
        var comment = answer.Comment.Length > 0 ? $" They write: “{answer.Comment}”" : string.Empty;
        return agrees
            ? $"{actor} agreed to {title}, {when}.{comment}"
            : $"{actor} did not agree to {title}, {when}; it is off the plan.{comment}";
    }

    /// <summary>What is said to the times of a question, to who put it and can still settle it.</summary>
    private string? OfSuitings(ChangeRow change)
    {
        if (change.After is not { } text)
        {
            return null;
        }

        var said = StoredText.Read<SuitingsRow>(text);
        if (
            !Proposals.TryGetValue(said.ProposalId, out var row)
            || ProposalRules.ToSettle(Reader.RoleOn(row.CalendarId), Reader.Person, row.ProposedBy) != Verdict.Granted
        )
        {
            return null;
        }

        var who = People[said.PersonId];
        var suit = said.ToCore().Said.Count(one => one.Value != Suiting.DoesNotSuit);
        return $"“{row.Title}”: {Wording.Count(suit, "of the times suits", "of the times suit")} {who}.";
    }

    /// <summary>What a grant's, a request's or an invitation's change says to the one it concerns; <c>null</c> where it says nothing new.</summary>
    private static string? OfAccess(ChangeRow change, string actor, string calendar) =>
        change.Subject switch
        {
            Subject.Grant => OfGrant(Role(change.Before), Role(change.After), actor, calendar),
            Subject.Invitation when change.After is { } after => OfInvitation(
                StoredText.Read<InvitationRow>(after),
                change.Before is null,
                actor,
                calendar
            ),
            Subject.OpenAsk
                when change.After is { } after && StoredText.Read<OpenAskRow>(after).State == AskState.Refused =>
                $"{actor} did not give you the access you asked for.",
            Subject.Ask when change.After is { } after && StoredText.Read<AskRow>(after).State == AskState.Refused =>
                $"{actor} did not give you the access you asked for.",
            _ => null,
        };

    private static string? OfGrant(Role before, Role after, string actor, string calendar) =>
        (before, after) switch
        {
            (_, Core.Access.Role.None) when before != after => $"{actor} ended your access to “{calendar}”.",
            (Core.Access.Role.None, _) when before != after =>
                $"{actor} gave you the step {RoleSentence.Name(after)} on “{calendar}”.",
            _ when before != after =>
                $"{actor} changed your step on “{calendar}” from {RoleSentence.Name(before)} to {RoleSentence.Name(after)}.",
            _ => null,
        };

    private static string? OfInvitation(InvitationRow after, bool isNew, string actor, string calendar) =>
        after.State switch
        {
            InvitationState.Accepted => $"{actor} accepted your invitation to “{calendar}”.",
            InvitationState.Declined => $"{actor} declined your invitation to “{calendar}”.",
            InvitationState.Withdrawn when !isNew => $"{actor} took back the invitation to “{calendar}”.",
            _ => null,
        };

    private static Role Role(string? state) =>
        state is null ? Core.Access.Role.None : StoredText.Read<GrantRow>(state).Role;
}
