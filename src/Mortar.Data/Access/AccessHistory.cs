using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Links;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Calendars;
using Mortar.Data.Changes;
using Mortar.Data.Groups;
using Mortar.Data.Links;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Access;

/// <summary>One thing somebody did about who has access.</summary>
/// <param name="Sequence">Its place in the log.</param>
/// <param name="CalendarId">The calendar; <c>null</c> for what was done about a group, by which its calendars reach people.</param>
/// <param name="Actor">The name of who did it.</param>
/// <param name="Sentence">What they did, to be read after the name.</param>
public sealed record AccessEntry(long Sequence, Instant At, CalendarId? CalendarId, string Actor, string Sentence);

/// <summary>Reads out of the change log who gave what to whom and when.</summary>
public sealed class AccessHistory(MortarDb db, ZoneClock zones)
{
    /// <summary>The most entries that are told at once, the latest first.</summary>
    public const int Most = 300;

    /// <summary>How many rows of the log are read at once, until there are entries enough.</summary>
    private const int ChunkSize = 500;

    private static readonly Subject[] Subjects =
    [
        Subject.Grant,
        Subject.GroupGrant,
        Subject.Invitation,
        Subject.Ask,
        Subject.Link,
        Subject.LinkHolder,
        Subject.Calendar,
    ];

    /// <summary>
    /// The history of some calendars, which the reader coordinates, with who came into their groups and who sees for whom;
    /// of one person alone where one is named.
    /// </summary>
    public async Task<IReadOnlyList<AccessEntry>> Of(
        PersonId reader,
        IReadOnlyCollection<CalendarId> calendars,
        PersonId? person,
        CancellationToken cancellationToken
    )
    {
        var told = new List<AccessEntry>();
        var (before, isOver) = (long.MaxValue, false);
        while (told.Count < Most && !isOver)
        {
            var changes = await Chunk(reader, calendars, person, before).ToListAsync(cancellationToken);
            told.AddRange(await Entries(changes, calendars, person, cancellationToken));
            (before, isOver) = (changes.Count == 0 ? 0 : changes[^1].Sequence, changes.Count < ChunkSize);
        }

        return [.. told.Take(Most)];
    }

    /// <summary>The next rows of the log that can be told, the latest first.</summary>
    private IQueryable<ChangeRow> Chunk(
        PersonId reader,
        IReadOnlyCollection<CalendarId> calendars,
        PersonId? person,
        long before
    )
    {
        // Only of groups that the reader is in: who is in another is not theirs to know.
        var groups = db
            .Calendars.Where(row => calendars.Contains(row.Id))
            .Select(row => row.GroupId)
            .Where(group => db.Members.Any(member => member.GroupId == group && member.PersonId == reader));
        return db
            .Changes.AsNoTracking()
            .Where(change => change.Sequence < before)
            .Where(change =>
                (
                    change.CalendarId != null
                    && calendars.Contains(change.CalendarId.Value)
                    && Subjects.Contains(change.Subject)
                    // Of whom an invitation is about, and who sees for whom, their states alone tell.
                    && (person == null || change.Concerns == person || change.Subject == Subject.Invitation)
                )
                || (
                    change.GroupId != null
                    && groups.Contains(change.GroupId.Value)
                    && (
                        change.Subject == Subject.Guardian
                        || (change.Subject == Subject.Member && (person == null || change.Concerns == person))
                    )
                    && change.After != null
                )
            )
            .OrderByDescending(change => change.Sequence)
            .Take(ChunkSize);
    }

    private async Task<IReadOnlyList<AccessEntry>> Entries(
        List<ChangeRow> changes,
        IReadOnlyCollection<CalendarId> calendars,
        PersonId? person,
        CancellationToken cancellationToken
    )
    {
        var zoneOf = await db
            .Calendars.Where(row => calendars.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, row => row.Zone, cancellationToken);
        var people = changes
            .Select(change => change.Actor)
            .Concat(changes.Select(About).OfType<PersonId>())
            .Concat(
                changes
                    .Where(change => change.Subject == Subject.Guardian)
                    .Select(change => States<GuardianRow>(change).After.WardId)
            )
            .ToHashSet();
        var names = await db
            .People.Where(row => people.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken);
        var givenTo = changes
            .Where(change => change.Subject == Subject.GroupGrant)
            .Select(change => States<GroupGrantRow>(change).After.GroupId)
            .ToHashSet();
        var groups = await db
            .Groups.Where(row => givenTo.Contains(row.Id))
            .ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken);
        var links = await db
            .Links.Where(row => calendars.Contains(row.CalendarId))
            .ToDictionaryAsync(row => row.Id, row => row.Terms(), cancellationToken);
        return
        [
            .. changes
                .Where(change => person is null || About(change) == person || IsWard(change, person.Value))
                .Select(change => (change, Sentence: SentenceOf(change)))
                .Where(one => one.Sentence is not null)
                .Select(one => new AccessEntry(
                    one.change.Sequence,
                    one.change.At,
                    one.change.CalendarId,
                    NameOf(one.change.Actor),
                    one.Sentence!
                )),
        ];

        string NameOf(PersonId id) => names.GetValueOrDefault(id, "somebody");

        LocalDate? LastDay(ChangeRow change, Instant? end) =>
            end is { } at ? AccessEnd.LastDay(at, zones.Zone(zoneOf[change.CalendarId!.Value])) : null;

        string? SentenceOf(ChangeRow change)
        {
            switch (change.Subject)
            {
                case Subject.Grant:
                    var (had, has) = States<GrantRow>(change);
                    return HistorySentence.OfStep(
                        has.PersonId == change.Actor ? null : NameOf(has.PersonId),
                        (had?.Role ?? Role.None, LastDay(change, had?.EndsAt)),
                        (has.Role, LastDay(change, has.EndsAt))
                    );
                case Subject.GroupGrant:
                    var (hadAll, hasAll) = States<GroupGrantRow>(change);
                    return HistorySentence.OfStep(
                        $"the group “{groups.GetValueOrDefault(hasAll.GroupId, "?")}”",
                        (hadAll?.Role ?? Role.None, LastDay(change, hadAll?.EndsAt)),
                        (hasAll.Role, LastDay(change, hasAll.EndsAt))
                    );
                case Subject.Invitation:
                    var (sent, now) = States<InvitationRow>(change);
                    return sent is not null && sent.State == now.State && sent.SentAt == now.SentAt
                        ? null
                        : HistorySentence.OfInvitation(now.Address, now.Role, sent?.State, now.State);
                case Subject.Ask:
                    var (asked, ask) = States<AskRow>(change);
                    return HistorySentence.OfAsk(NameOf(ask.PersonId), ask.Role, asked?.State, ask.State);
                case Subject.Link:
                    var (before, link) = States<LinkRow>(change);
                    return OfLink(before, link, change);
                case Subject.LinkHolder:
                    var holder = States<LinkHolderRow>(change).After;
                    var name = links.TryGetValue(holder.LinkId, out var terms) ? terms.Spoken() : "a link";
                    return holder.LeftAt is null ? $"came by {name}" : $"left, having come by {name}";
                case Subject.Calendar:
                    var (was, calendar) = States<CalendarRow>(change);
                    return OfCalendar(was, calendar);
                case Subject.Member:
                    var (member, nowMember) = States<MemberRow>(change);
                    return HistorySentence.OfMember(
                        nowMember.PersonId == change.Actor ? null : NameOf(nowMember.PersonId),
                        (member?.Place() ?? MemberPlace.Outside, member?.Coordinates == true),
                        (nowMember.Place(), nowMember.Coordinates)
                    );
                case Subject.Guardian:
                    var (guardian, nowGuardian) = States<GuardianRow>(change);
                    return HistorySentence.OfGuardian(
                        nowGuardian.GuardianId == change.Actor ? null : NameOf(nowGuardian.GuardianId),
                        nowGuardian.WardId == change.Actor ? null : NameOf(nowGuardian.WardId),
                        guardian?.Place() ?? MemberPlace.Outside,
                        nowGuardian.Place()
                    );
                default:
                    return null;
            }
        }

        string? OfLink(LinkRow? before, LinkRow link, ChangeRow change)
        {
            var name = link.Terms().Spoken();
            return before is null ? $"made {name} at {RoleSentence.Name(link.Role)}"
                : before.EndedAt is null && link.EndedAt is not null ? $"ended {name}"
                : before.EndedAt is not null && link.EndedAt is null ? $"brought back {name}"
                : before.Hash != link.Hash ? $"renewed {name}"
                : HistorySentence.OfStep(
                    name,
                    (before.Role, LastDay(change, before.EndsAt)),
                    (link.Role, LastDay(change, link.EndsAt))
                );
        }
    }

    private static bool IsWard(ChangeRow change, PersonId person) =>
        change.Subject == Subject.Guardian && States<GuardianRow>(change).After.WardId == person;

    private static string? OfCalendar(CalendarRow? before, CalendarRow after) =>
        before is null ? "made the calendar"
        : before.DeletedAt is null && after.DeletedAt is not null ? "put the calendar in the bin"
        : before.DeletedAt is not null && after.DeletedAt is null ? "brought the calendar back"
        : HistorySentence.OfStep("every member", (before.GroupDefault, null), (after.GroupDefault, null));

    /// <summary>Whom an entry is about, beside who did it.</summary>
    private static PersonId? About(ChangeRow change) =>
        change.Subject switch
        {
            Subject.Grant => States<GrantRow>(change).After.PersonId,

            // Whose an address is, is told by their answer and not by ours.
            Subject.Invitation => States<InvitationRow>(change).After is { State: InvitationState.Accepted } taken
                ? taken.PersonId
                : null,
            Subject.Ask => States<AskRow>(change).After.PersonId,
            Subject.LinkHolder => States<LinkHolderRow>(change).After.PersonId,
            Subject.Member => States<MemberRow>(change).After.PersonId,
            Subject.Guardian => States<GuardianRow>(change).After.GuardianId,
            _ => null,
        };

    private static (T? Before, T After) States<T>(ChangeRow change)
        where T : class =>
        (
            change.Before is { } before ? StoredText.Read<T>(before) : null,
            StoredText.Read<T>(change.After ?? throw new InvalidDataException("Access is never erased."))
        );
}
