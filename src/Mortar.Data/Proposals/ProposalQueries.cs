using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Proposals;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Store;

namespace Mortar.Data.Proposals;

/// <summary>Which of several times suit somebody: they are asked, and have not said it of every one.</summary>
/// <param name="Whose">Who is asked: oneself, or a member whose guardian one is.</param>
/// <param name="Row">What is proposed.</param>
/// <param name="From">Who proposes.</param>
/// <param name="Said">What they said so far; <c>null</c> for nothing.</param>
public sealed record WaitingProposal(PersonId Whose, ProposalRow Row, string From, SuitingsRow? Said);

/// <summary>A question that one can settle, and how its times suit.</summary>
/// <param name="Names">All who were asked, by id.</param>
/// <param name="Words">What they wrote beside that.</param>
public sealed record CountedProposal(
    ProposalRow Row,
    string CalendarName,
    IReadOnlyList<Tally> Tallies,
    IReadOnlyDictionary<PersonId, string> Names,
    IReadOnlyDictionary<PersonId, string> Words
);

/// <summary>Reads proposals.</summary>
public static class ProposalQueries
{
    /// <summary>One of a calendar that is there, whatever became of it; <c>null</c> where there is none.</summary>
    internal static Task<ProposalRow?> OpenProposal(
        this MortarDb db,
        ProposalId id,
        CancellationToken cancellationToken
    ) =>
        db.Proposals.FirstOrDefaultAsync(
            row =>
                row.Id == id
                && db.Calendars.Any(calendar => calendar.Id == row.CalendarId && calendar.DeletedAt == null),
            cancellationToken
        );

    /// <summary>All for whom some questions wait, and those who answer for them.</summary>
    public static async Task<IReadOnlyList<PersonId>> AskedWhichSuits(
        this MortarDb db,
        IReadOnlyCollection<ProposalId> proposals,
        CancellationToken cancellationToken
    )
    {
        var asked =
            from one in db.ProposalAsked
            where proposals.Contains(one.ProposalId)
            join row in db.Proposals on one.ProposalId equals row.Id
            join home in db.Calendars on row.CalendarId equals home.Id
            select new { one.PersonId, home.GroupId };
        return await asked
            .Select(one => one.PersonId)
            .Union(
                from guardian in db.Guardians
                join one in asked
                    on new { PersonId = guardian.WardId, guardian.GroupId } equals new { one.PersonId, one.GroupId }
                select guardian.GuardianId
            )
            .ToListAsync(cancellationToken);
    }

    /// <summary>Where a mailed link leads; <c>null</c> where nowhere.</summary>
    public static async Task<WaitingProposal?> ProposalBy(
        this MortarDb db,
        string secret,
        CancellationToken cancellationToken
    )
    {
        var hash = LinkSecret.HashOf(secret);
        var asked = await db
            .ProposalAsked.AsNoTracking()
            .FirstOrDefaultAsync(row => row.Hash == hash, cancellationToken);
        if (
            asked is null
            || await db.OpenProposal(asked.ProposalId, cancellationToken) is not { } row
            || row.ToTimes().All(time => time.End < db.Now - AnswerRules.LinkOutlasts)
        )
        {
            return null;
        }

        // Whoever has left the group since is not asked any more.
        var calendar = await db
            .Calendars.AsNoTracking()
            .SingleAsync(one => one.Id == row.CalendarId, cancellationToken);
        return (await db.StrangersAmong([asked.PersonId], calendar, cancellationToken)).Count > 0
            ? null
            : (await db.Waiting([(asked.PersonId, row)], cancellationToken))[0];
    }

    /// <summary>The open questions that wait for somebody or for those for whom they answer, the oldest first.</summary>
    public static async Task<IReadOnlyList<WaitingProposal>> ProposalsWaiting(
        this MortarDb db,
        PersonId person,
        CancellationToken cancellationToken
    )
    {
        var wards = (await db.ReaderOf(person, cancellationToken)).Wards;
        var people = wards.Select(ward => ward.Person).Append(person).Distinct().ToList();
        var rows = await (
            from asked in db.ProposalAsked
            where people.Contains(asked.PersonId)
            join row in db.Proposals.AsNoTracking() on asked.ProposalId equals row.Id
            where row.State == ProposalState.Open
            join home in db.Calendars on row.CalendarId equals home.Id
            where home.DeletedAt == null
            orderby row.ProposedAt
            select new
            {
                asked.PersonId,
                Row = row,
                home.GroupId,
            }
        ).ToListAsync(cancellationToken);
        var all = await db.Waiting(
            [
                .. rows.Where(one => one.PersonId == person || wards.Contains(new Ward(one.PersonId, one.GroupId)))
                    .Select(one => (one.PersonId, one.Row)),
            ],
            cancellationToken
        );
        return [.. all.Where(one => ProposalRules.Waits(one.Row.ToTimes(), one.Said?.ToCore(), db.Now))];
    }

    /// <summary>What somebody can settle and is open, with how it stands; the newest first.</summary>
    public static async Task<IReadOnlyList<CountedProposal>> ProposalsToSettle(
        this MortarDb db,
        PersonId person,
        CancellationToken cancellationToken
    )
    {
        var standings = await db.StandingsOf(person, cancellationToken);
        var rows = await db
            .Proposals.AsNoTracking()
            .Where(row => row.State == ProposalState.Open && standings.Keys.Contains(row.CalendarId))
            .OrderByDescending(row => row.ProposedAt)
            .ToListAsync(cancellationToken);
        return await db.Counted(
            rows.FindAll(row =>
                ProposalRules.ToSettle(standings[row.CalendarId].Role, person, row.ProposedBy) == Verdict.Granted
            ),
            cancellationToken
        );
    }

    private static async Task<IReadOnlyList<CountedProposal>> Counted(
        this MortarDb db,
        List<ProposalRow> rows,
        CancellationToken cancellationToken
    )
    {
        if (rows.Count == 0)
        {
            return [];
        }

        var (ids, homes) = (rows.ConvertAll(row => row.Id), rows.ConvertAll(row => row.CalendarId));
        var asked = (
            await (
                from one in db.ProposalAsked
                where ids.Contains(one.ProposalId)
                join person in db.People on one.PersonId equals person.Id
                orderby person.Name
                select new
                {
                    one.ProposalId,
                    person.Id,
                    person.Name,
                }
            ).ToListAsync(cancellationToken)
        ).ToLookup(one => one.ProposalId);
        var said = (
            await db.Suitings.AsNoTracking().Where(one => ids.Contains(one.ProposalId)).ToListAsync(cancellationToken)
        ).ToLookup(one => one.ProposalId);
        var calendars = await db
            .Calendars.Where(home => homes.Contains(home.Id))
            .ToDictionaryAsync(home => home.Id, home => home.Name, cancellationToken);
        return rows.ConvertAll(row => new CountedProposal(
            row,
            calendars[row.CalendarId],
            ProposalRules.Count(
                row.ToTimes(),
                [.. asked[row.Id].Select(one => one.Id)],
                said[row.Id].Select(one => one.ToCore())
            ),
            asked[row.Id].ToDictionary(one => one.Id, one => one.Name),
            said[row.Id].Where(one => one.Comment.Length > 0).ToDictionary(one => one.PersonId, one => one.Comment)
        ));
    }

    private static async Task<IReadOnlyList<WaitingProposal>> Waiting(
        this MortarDb db,
        IReadOnlyList<(PersonId Whose, ProposalRow Row)> asked,
        CancellationToken cancellationToken
    )
    {
        if (asked.Count == 0)
        {
            return [];
        }

        var (by, ids) = (asked.Select(one => one.Row.ProposedBy).ToList(), asked.Select(one => one.Row.Id).ToList());
        var people = asked.Select(one => one.Whose).Distinct().ToList();
        var from = await db
            .People.Where(one => by.Contains(one.Id))
            .ToDictionaryAsync(one => one.Id, one => one.Name, cancellationToken);
        var said = await db
            .Suitings.AsNoTracking()
            .Where(one => ids.Contains(one.ProposalId) && people.Contains(one.PersonId))
            .ToDictionaryAsync(one => (one.ProposalId, one.PersonId), cancellationToken);
        return
        [
            .. asked.Select(one => new WaitingProposal(
                one.Whose,
                one.Row,
                from[one.Row.ProposedBy],
                said.GetValueOrDefault((one.Row.Id, one.Whose))
            )),
        ];
    }
}
