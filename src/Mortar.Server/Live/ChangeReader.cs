using System.Threading.Channels;
using Microsoft.AspNetCore.SignalR;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.Proposals;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Live;

/// <summary>Reads the change log after each commit and tells the screens of those whom it concerns.</summary>
internal sealed class ChangeReader(
    IServiceScopeFactory scopes,
    IHubContext<LiveHub> hub,
    ChangeSignal signal,
    TimeProvider time,
    SecurityLog security,
    ILogger<ChangeReader> log
) : BackgroundService
{
    private static readonly TimeSpan TryAgain = TimeSpan.FromMilliseconds(500);

    /// <summary>One note is enough, however many commits it stands for.</summary>
    private readonly Channel<bool> notes = Channel.CreateBounded<bool>(
        new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite }
    );

    private sealed record Entry(
        long Sequence,
        ChangeSetId Set,
        Subject Subject,
        Guid SubjectId,
        CalendarId? CalendarId,
        PersonId? Concerns,
        PersonId Actor,
        string? EventBefore,
        string? EventAfter,
        GroupId? GroupId,
        string? MemberBefore,
        string? MemberAfter
    );

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        signal.Committed += TakeNote;
        try
        {
            var read = await Latest(stoppingToken);
            await foreach (var _ in notes.Reader.ReadAllAsync(stoppingToken))
            {
                read = await TellOrWait(read, stoppingToken);
            }
        }
        finally
        {
            signal.Committed -= TakeNote;
        }
    }

    /// <summary>A store that is busy or a line that breaks must not end the telling: it is logged and tried again.</summary>
    private async Task<long> TellOrWait(long read, CancellationToken cancellationToken)
    {
        try
        {
            return await Tell(read, cancellationToken);
        }
        catch (Exception bad) when (bad is not OperationCanceledException)
        {
            log.LogError(bad, "Changes after {Read} could not be told; trying again", read);
            await Task.Delay(TryAgain, time, cancellationToken);
            notes.Writer.TryWrite(true);
            return read;
        }
    }

    private void TakeNote(object? sender, EventArgs e) => notes.Writer.TryWrite(true);

    private async Task<long> Latest(CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        return await db.Changes.MaxAsync(change => (long?)change.Sequence, cancellationToken) ?? 0;
    }

    private async Task<long> Tell(long read, CancellationToken cancellationToken)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        var entries = await db
            .Changes.Where(change => change.Sequence > read)
            .OrderBy(change => change.Sequence)
            .Select(change => new Entry(
                change.Sequence,
                change.Set,
                change.Subject,
                change.SubjectId,
                change.CalendarId,
                change.Concerns,
                change.Actor,
                change.Subject == Subject.Event ? change.Before : null,
                change.Subject == Subject.Event ? change.After : null,
                change.GroupId,
                change.Subject == Subject.Member ? change.Before : null,
                change.Subject == Subject.Member ? change.After : null
            ))
            .ToListAsync(cancellationToken);
        foreach (
            var ofOne in entries.Where(entry => entry.CalendarId is not null).GroupBy(entry => entry.CalendarId!.Value)
        )
        {
            await Tell(db, ofOne.Key, [.. ofOne], cancellationToken);
        }

        foreach (
            var ofOne in entries
                .Where(entry => entry is { Subject: Subject.Member, GroupId: not null })
                .GroupBy(entry => entry.GroupId!.Value)
        )
        {
            // Who is asked and says no was never in it: that is for those who coordinate it.
            var isSeen = ofOne.Any(entry =>
                ChangeRow.IsMember(entry.MemberBefore) || ChangeRow.IsMember(entry.MemberAfter)
            );
            var members = await db
                .Members.Where(member => member.GroupId == ofOne.Key && (isSeen || member.Coordinates))
                .Select(member => member.PersonId)
                .ToListAsync(cancellationToken);
            var everybody = Users([.. members.Union(ofOne.Select(entry => entry.Concerns).OfType<PersonId>())]);
            await everybody.SendAsync("shelfChanged", cancellationToken);
            await everybody.SendAsync("inboxChanged", cancellationToken);
        }

        foreach (var entry in entries.Where(entry => entry.Subject is Subject.OpenAsk))
        {
            var answerers = await db.AnswerersOf(new AskId(entry.SubjectId)).ToListAsync(cancellationToken);
            await Users([.. answerers.Union([entry.Concerns!.Value])]).SendAsync("inboxChanged", cancellationToken);
        }

        foreach (var entry in entries.Where(entry => entry.Subject is Subject.Guardian && entry.Concerns is not null))
        {
            var row = await db
                .Guardians.IgnoreQueryFilters()
                .Where(one => one.Id == entry.SubjectId)
                .Select(one => new
                {
                    one.GroupId,
                    one.WardId,
                    one.GuardianId,
                })
                .SingleAsync(cancellationToken);
            var keepers = await db
                .Members.Where(member => member.GroupId == row.GroupId && member.Coordinates)
                .Select(member => member.PersonId)
                .ToListAsync(cancellationToken);
            var concerned = Users([.. keepers.Union([row.WardId, row.GuardianId])]);
            await concerned.SendAsync("shelfChanged", cancellationToken);
            await concerned.SendAsync("inboxChanged", cancellationToken);
        }

        // An event that was moved away has left a calendar whose readers may not see where it went.
        var left = entries
            .Where(entry => entry.EventBefore is not null)
            .Select(entry => (Entry: entry, Before: ChangeRow.CalendarOfEvent(entry.EventBefore!)))
            .Where(moved => moved.Entry.CalendarId != moved.Before)
            .GroupBy(moved => moved.Before, moved => moved.Entry);
        foreach (var moved in left)
        {
            await TellChanged(
                await db.ReadersOf(moved.Key, cancellationToken),
                moved.Key,
                [.. moved],
                cancellationToken
            );
        }

        foreach (
            var entry in entries.Where(entry =>
                entry.Subject
                    is Subject.Grant
                        or Subject.GroupGrant
                        or Subject.Link
                        or Subject.LinkHolder
                        or Subject.Invitation
                        or Subject.Member
                        or Subject.Guardian
            )
        )
        {
            security.AccessChanged(
                entry.Actor.Value,
                entry.Subject.ToString(),
                entry.SubjectId,
                entry.CalendarId?.Value,
                entry.GroupId?.Value,
                entry.Concerns?.Value
            );
        }

        log.LogDebug("Told of {Count} changes after {Read}", entries.Count, read);
        return entries.Count > 0 ? entries[^1].Sequence : read;
    }

    private async Task Tell(MortarDb db, CalendarId calendar, List<Entry> entries, CancellationToken cancellationToken)
    {
        var readers = await db.ReadersOf(calendar, cancellationToken);
        var concerned = entries
            .SelectMany(entry => new[] { entry.Concerns, entry.Actor })
            .OfType<PersonId>()
            .Distinct()
            .ToList();
        var given = await GivenConcerned(db, calendar, entries, cancellationToken);
        var roles = (await db.StandingsOn([calendar], cancellationToken)).ToDictionary(
            one => one.Key.Person,
            one => one.Value.Role
        );
        var coordinating = roles
            .Where(one => AccessRules.ToCoordinate(one.Value) == Verdict.Granted)
            .Select(one => one.Key)
            .ToList();
        var answered = await Answered(db, entries, cancellationToken);
        var seeing = SeeIt(calendar, entries, answered, readers, roles);
        await TellChanged(seeing.Union(given), calendar, entries, cancellationToken);
        await TellGiven(entries, cancellationToken);
        if (entries.Exists(entry => entry.Subject is Subject.Calendar))
        {
            // A lowered default takes the calendar from members who read it no longer; they are told as well.
            var group = db.Calendars.Where(row => row.Id == calendar).Select(row => row.GroupId);
            var members = await db
                .Members.Where(member => group.Contains(member.GroupId))
                .Select(member => member.PersonId)
                .ToListAsync(cancellationToken);
            await Users([.. readers.Union(members)]).SendAsync("shelfChanged", cancellationToken);
        }

        if (entries.Exists(entry => entry.Subject is Subject.GroupGrant))
        {
            // Also those who have it no longer, and so are not among the readers.
            var groups = db.GroupGrants.Where(grant => grant.CalendarId == calendar).Select(grant => grant.GroupId);
            var members = await db
                .Members.Where(member => groups.Contains(member.GroupId))
                .Select(member => member.PersonId)
                .ToListAsync(cancellationToken);
            await Users(members).SendAsync("shelfChanged", cancellationToken);
            await Users(coordinating).SendAsync("accessChanged", calendar.Value, cancellationToken);
        }

        if (entries.Exists(entry => entry.Subject is Subject.Link))
        {
            // Also those whose link was ended, and who are not among the readers any more.
            var holders = await db
                .LinkHolders.Where(holder => holder.CalendarId == calendar && holder.LeftAt == null)
                .Select(holder => holder.PersonId)
                .ToListAsync(cancellationToken);
            await Users(holders).SendAsync("shelfChanged", cancellationToken);
            await Users(coordinating).SendAsync("accessChanged", calendar.Value, cancellationToken);
        }

        var asksToAgree =
            entries.Exists(entry => entry.Subject is Subject.Event)
            && await db.Calendars.AnyAsync(row => row.Id == calendar && row.Agreed, cancellationToken);
        if (asksToAgree || entries.Exists(entry => entry.Subject is Subject.Ask))
        {
            await Users([.. coordinating.Union(concerned)]).SendAsync("inboxChanged", cancellationToken);
        }

        var proposals = entries
            .Where(entry => entry.Subject is Subject.Proposal)
            .Select(entry => new ProposalId(entry.SubjectId))
            .ToList();
        if (proposals.Count > 0)
        {
            var asked = await db.AskedWhichSuits(proposals, cancellationToken);
            await Users([.. asked.Union(concerned)]).SendAsync("inboxChanged", cancellationToken);
        }

        if (entries.Exists(entry => entry.Subject is Subject.Answer or Subject.Suitings or Subject.Agreement))
        {
            await Users(concerned).SendAsync("inboxChanged", cancellationToken);
        }

        if (entries.Exists(entry => entry.Subject is Subject.Grant or Subject.Invitation or Subject.LinkHolder))
        {
            await Users(concerned).SendAsync("shelfChanged", cancellationToken);
            await Users(concerned).SendAsync("inboxChanged", cancellationToken);
            await Users(coordinating).SendAsync("accessChanged", calendar.Value, cancellationToken);
        }
    }

    /// <summary>Those readers of a calendar who may see that something in it changed.</summary>
    private static IEnumerable<PersonId> SeeIt(
        CalendarId calendar,
        List<Entry> entries,
        IReadOnlyList<(Event Whole, PersonId Whose)> answered,
        IReadOnlyList<PersonId> readers,
        Dictionary<PersonId, Role> roles
    )
    {
        var subjects = entries.Select(entry => entry.Subject).Distinct().ToList();
        var events = new Lazy<List<(Event? Before, Event? After)>>(() =>
            [
                .. entries
                    .Where(entry => entry.Subject is Subject.Event)
                    .Select(entry => (Here(entry.EventBefore), Here(entry.EventAfter))),
            ]
        );
        return readers.Where(reader =>
            roles.GetValueOrDefault(reader) is var role
            && (
                subjects.Exists(subject => Telling.ShowsTo(subject, role))
                || answered.Any(one => Telling.AnswerShowsTo(role, reader, one.Whole, one.Whose))
                || events.Value.Exists(one => VisibleEvent.IsChangeSeen(role, reader, one.Before, one.After))
            )
        );

        Event? Here(string? state) =>
            ChangeRow.EventOf(state) is { } whole && whole.CalendarId == calendar ? whole : null;
    }

    /// <summary>The events that were answered to, each with who did.</summary>
    private static async Task<IReadOnlyList<(Event Whole, PersonId Whose)>> Answered(
        MortarDb db,
        List<Entry> entries,
        CancellationToken cancellationToken
    )
    {
        var ids = entries.Where(entry => entry.Subject is Subject.Answer).Select(entry => entry.SubjectId).ToList();
        return ids.Count == 0
            ? []
            :
            [
                .. (
                    await (
                        from answer in db.Answers.AsNoTracking()
                        where ids.Contains(answer.Id)
                        join row in db.Events.AsNoTracking() on answer.EventId equals row.Id
                        select new { row, answer.PersonId }
                    ).ToListAsync(cancellationToken)
                ).Select(one => (one.row.ToCore(), one.PersonId)),
            ];
    }

    /// <summary>
    /// Those to whom a changed event is given by itself. Of the rest of its calendar they learn nothing, and not that
    /// anything happened in it either; only how the calendar looks is theirs to see.
    /// </summary>
    private static async Task<IReadOnlyCollection<PersonId>> GivenConcerned(
        MortarDb db,
        CalendarId calendar,
        List<Entry> entries,
        CancellationToken cancellationToken
    )
    {
        var people = entries
            .SelectMany(entry => new[] { entry.EventBefore, entry.EventAfter })
            .SelectMany(ChangeRow.GivenOfEvent)
            .ToHashSet();
        var answers = entries.Where(entry => entry.Subject is Subject.Answer).Select(entry => entry.SubjectId).ToList();
        if (answers.Count > 0)
        {
            people.UnionWith(
                await (
                    from answer in db.Answers
                    where answers.Contains(answer.Id)
                    join given in db.Given on answer.EventId equals given.EventId
                    select given.PersonId
                ).ToListAsync(cancellationToken)
            );
        }

        if (entries.Exists(entry => entry.Subject is Subject.Calendar))
        {
            people.UnionWith(await db.GivenIn(calendar).ToListAsync(cancellationToken));
        }

        return people;
    }

    /// <summary>An event given by itself brings a layer, and taken back takes one along.</summary>
    private async Task TellGiven(List<Entry> entries, CancellationToken cancellationToken)
    {
        foreach (var entry in entries)
        {
            var (before, after) = (ChangeRow.GivenOfEvent(entry.EventBefore), ChangeRow.GivenOfEvent(entry.EventAfter));
            if (before.Union(after).ToList() is { Count: > 0 } concerned && !before.SetEquals(after))
            {
                await Users(concerned).SendAsync("shelfChanged", cancellationToken);
                await Users(concerned).SendAsync("inboxChanged", cancellationToken);
                await TellChanged(concerned, entry.CalendarId!.Value, [entry], cancellationToken);
            }
        }
    }

    /// <summary>
    /// Tells people that a calendar changed. Whoever did it, and nobody else meanwhile, is told by which acts: a screen that
    /// did them itself has asked already.
    /// </summary>
    private async Task TellChanged(
        IEnumerable<PersonId> people,
        CalendarId calendar,
        IReadOnlyCollection<Entry> entries,
        CancellationToken cancellationToken
    )
    {
        var told = people.ToHashSet();
        if (entries.Select(entry => entry.Actor).Distinct().ToList() is [var actor] && told.Remove(actor))
        {
            var sets = entries.Select(entry => entry.Set.Value).Distinct().ToArray();
            await Users([actor]).SendAsync("calendarChanged", calendar.Value, sets, cancellationToken);
        }

        await Users(told).SendAsync("calendarChanged", calendar.Value, Array.Empty<Guid>(), cancellationToken);
    }

    private IClientProxy Users(IEnumerable<PersonId> people) =>
        hub.Clients.Users([.. people.Select(person => person.Value.ToString())]);
}
