using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Proposals;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.Events;
using Mortar.Data.Links;
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
            : await db.Waiting(asked.PersonId, row, cancellationToken);
    }

    /// <summary>The open questions that wait for somebody or for those for whom they answer, the oldest first.</summary>
    public static async Task<IReadOnlyList<WaitingProposal>> ProposalsWaiting(
        this MortarDb db,
        PersonId person,
        CancellationToken cancellationToken
    )
    {
        var wards = await db.WardsOf(person, cancellationToken);
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
        var waiting = new List<WaitingProposal>();
        foreach (
            var one in rows.Where(one => one.PersonId == person || wards.Contains(new Ward(one.PersonId, one.GroupId)))
        )
        {
            var times = one.Row.ToTimes();
            var said = await db.Waiting(one.PersonId, one.Row, cancellationToken);
            var isAnswered = said.Said?.ToCore().Said.Count == times.Count;
            if (!isAnswered && times.Any(time => time.Start > db.Now))
            {
                waiting.Add(said);
            }
        }

        return waiting;
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
        var counted = new List<CountedProposal>();
        foreach (
            var row in rows.Where(row =>
                ProposalRules.ToSettle(standings[row.CalendarId].Role, person, row.ProposedBy) == Verdict.Granted
            )
        )
        {
            counted.Add(await db.Counted(row, cancellationToken));
        }

        return counted;
    }

    private static async Task<CountedProposal> Counted(
        this MortarDb db,
        ProposalRow row,
        CancellationToken cancellationToken
    )
    {
        var asked = await (
            from one in db.ProposalAsked
            where one.ProposalId == row.Id
            join person in db.People on one.PersonId equals person.Id
            orderby person.Name
            select new { person.Id, person.Name }
        ).ToListAsync(cancellationToken);
        var said = await db
            .Suitings.AsNoTracking()
            .Where(one => one.ProposalId == row.Id)
            .ToListAsync(cancellationToken);
        var calendar = await db
            .Calendars.Where(one => one.Id == row.CalendarId)
            .Select(one => one.Name)
            .SingleAsync(cancellationToken);
        return new CountedProposal(
            row,
            calendar,
            ProposalRules.Count(row.ToTimes(), asked.ConvertAll(one => one.Id), said.Select(one => one.ToCore())),
            asked.ToDictionary(one => one.Id, one => one.Name),
            said.Where(one => one.Comment.Length > 0).ToDictionary(one => one.PersonId, one => one.Comment)
        );
    }

    private static async Task<WaitingProposal> Waiting(
        this MortarDb db,
        PersonId whose,
        ProposalRow row,
        CancellationToken cancellationToken
    )
    {
        var from = await db
            .People.Where(one => one.Id == row.ProposedBy)
            .Select(one => one.Name)
            .SingleAsync(cancellationToken);
        var said = await db
            .Suitings.AsNoTracking()
            .FirstOrDefaultAsync(one => one.ProposalId == row.Id && one.PersonId == whose, cancellationToken);
        return new WaitingProposal(whose, row, from, said);
    }
}
