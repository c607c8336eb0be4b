using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Groups;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Absences;
using Mortar.Data.Access;
using Mortar.Data.Answers;
using Mortar.Data.Availability;
using Mortar.Data.Calendars;
using Mortar.Data.Changes;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Kinds;
using Mortar.Data.Links;
using Mortar.Data.Proposals;
using Mortar.Data.Store;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>Whatever is recorded has a kind that answers what is asked about its changes.</summary>
public class KindsTests
{
    [Fact]
    public void Every_recorded_row_has_one_kind_and_every_subject_too()
    {
        var rows = typeof(MortarDb)
            .Assembly.GetTypes()
            .Where(type => type is { IsClass: true, IsAbstract: false } && type.IsAssignableTo(typeof(IRecorded)))
            .ToList();

        Assert.Equal(Enum.GetValues<Subject>().Order(), ChangeKinds.All.Select(kind => kind.Subject).Order());
        Assert.Equal(
            rows.Select(row => (row, ((IRecorded)RuntimeHelpers.GetUninitializedObject(row)).Subject)).ToHashSet(),
            ChangeKinds.All.Select(kind => (kind.Row, kind.Subject)).ToHashSet()
        );
    }

    /// <summary>
    /// Ines keeps a group of her own with Priya in it and a calendar that Mei was given; Dele has nothing to do with it. Of
    /// each kind one record is made.
    /// </summary>
    [Fact]
    public async Task Of_each_kind_those_are_told_whom_it_concerns_and_who_has_nothing_to_do_with_it_never()
    {
        await using var mortar = await TestMortar.Start();
        var before = await mortar.Store(db => db.Changes.MaxAsync(change => change.Sequence));
        await mortar.Store(OneOfEach);
        await using var scope = mortar.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        var changes = await db
            .Changes.AsNoTracking()
            .Where(change => change.Sequence > before)
            .OrderBy(change => change.Sequence)
            .ToListAsync(TestContext.Current.CancellationToken);

        var told = new List<string>();
        foreach (
            var change in changes.Where(change =>
                change.Concerns != Ines || change.Subject is not (Subject.Member or Subject.Grant)
            )
        )
        {
            var tellings = await db.ToldOf([change], TestContext.Current.CancellationToken);
            told.Add($"{change.Subject} > {string.Join("; ", tellings.Select(Words).Order(StringComparer.Ordinal))}");
            Assert.NotNull(await change.Kind().Find(db, change.SubjectId, TestContext.Current.CancellationToken));
        }

        Assert.Equal(
            [
                "Agreement > inbox: Ines by herself; inbox: Priya",
                "Answer > inbox: Ines by herself; wall: Ines by herself; wall: Mei, Priya",
                "Ask > inbox: Ines by herself; inbox: Tomasz",
                "Calendar > inbox: Ines by herself; inbox: Mei, Priya; shelf: Ines by herself; shelf: Mei, Priya; wall: Ines by herself; wall: Mei, Priya",
                "Event > inbox: Priya; shelf: Priya; wall: Ines by herself; wall: Mei, Priya",
                "FineClash > wall: Ines by herself; wall: Mei, Priya",
                "Grant > access: Ines by herself; inbox: Ines by herself; inbox: Mei; shelf: Ines by herself; shelf: Mei",
                "Group > shelf: Ines by herself; shelf: Priya",
                "GroupGrant > access: Ines by herself; inbox: Ines by herself; inbox: Priya; shelf: Ines by herself; shelf: Priya",
                "Guardian > inbox: Ines by herself; inbox: Mei, Priya; shelf: Ines by herself; shelf: Mei, Priya",
                "Guest > groups: Ines by herself; groups: Priya",
                "Invitation > access: Ines by herself; inbox: Ines by herself; inbox: Tomasz; shelf: Ines by herself; shelf: Tomasz",
                "Link > access: Ines by herself; shelf: Mei",
                "LinkHolder > access: Ines by herself; inbox: Ines by herself; inbox: Mei; shelf: Ines by herself; shelf: Mei",
                "Member > inbox: Ines by herself; inbox: Priya; shelf: Ines by herself; shelf: Priya",
                "OpenAsk > inbox: Ines by herself; inbox: Tomasz",
                "Proposal > inbox: Ines by herself; inbox: Mei, Priya; proposals: Ines by herself; proposals: Mei, Priya",
                "Suitings > inbox: Ines by herself; proposals: Ines by herself",
            ],
            told.Order(StringComparer.Ordinal)
        );
    }

    [Fact]
    public async Task Who_did_several_things_alone_is_told_by_which_acts_and_where_others_did_too_by_none()
    {
        await using var mortar = await TestMortar.Start();
        ChangeSetId[] sets = [.. Enumerable.Range(0, 3).Select(_ => new ChangeSetId(Guid.NewGuid()))];
        var (mine, again, others) = (sets[0], sets[1], sets[2]);
        await using var scope = mortar.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
        var tellings = new Tellings(db);

        tellings.Tell([Ines, Priya], Topic.Inbox, Change(mine, Ines));
        tellings.Tell([Ines], Topic.Inbox, Change(mine, Ines));
        tellings.Tell([Ines], Topic.Inbox, Change(again, Ines));
        tellings.Tell([Ines], Topic.Shelf, Change(mine, Ines));
        tellings.Tell([Ines], Topic.Shelf, Change(others, Priya));

        Assert.Equal(
            ["inbox: Ines by herself", "inbox: Priya", "shelf: Ines"],
            tellings.All().Select(Words).Order(StringComparer.Ordinal)
        );
        Assert.Equal(
            new[] { mine, again }.ToHashSet(),
            tellings.All().Single(one => one.Sets.Count > 0).Sets.ToHashSet()
        );

        static ChangeRow Change(ChangeSetId set, PersonId actor) =>
            new()
            {
                Set = set,
                At = SystemClock.Instance.GetCurrentInstant(),
                Actor = actor,
                Subject = Subject.Event,
                SubjectId = Guid.NewGuid(),
            };
    }

    private static PersonId Ines => DemoPeople.Ines.Id;
    private static PersonId Priya => DemoPeople.Priya.Id;
    private static PersonId Mei => DemoPeople.Mei.Id;
    private static PersonId Tomasz => DemoPeople.Tomasz.Id;

    private static string Words(Told told) =>
        $"{told.Topic.ToString().ToLowerInvariant()}: {string.Join(", ", told.People.Select(NameOf).Order(StringComparer.Ordinal))}{(told.Sets.Count > 0 ? " by herself" : "")}";

    private static string NameOf(PersonId id) =>
        new[] { DemoPeople.Ines, DemoPeople.Priya, DemoPeople.Mei, DemoPeople.Tomasz, DemoPeople.Dele }
            .SingleOrDefault(person => person.Id == id)
            ?.Name.Split(' ')[0]
        ?? id.ToString();

    private static Task<Outcome<int>> OneOfEach(MortarDb db) =>
        db.Write<int>(
            Act.By(Ines),
            () =>
            {
                var now = Instant.FromUtc(2026, 3, 11, 12, 0);
                var (group, calendar) = (new GroupId(Guid.NewGuid()), new CalendarId(Guid.NewGuid()));
                var (id, link, proposal) = (
                    new EventId(Guid.NewGuid()),
                    new LinkId(Guid.NewGuid()),
                    new ProposalId(Guid.NewGuid())
                );
                db.Add(
                    new GroupRow
                    {
                        Id = group,
                        Name = "Glaze tests",
                        Sort = GroupSort.Club,
                        Zone = DemoPeople.Home,
                        FirstDay = IsoDayOfWeek.Monday,
                    }
                );
                db.Add(
                    new MemberRow
                    {
                        GroupId = group,
                        PersonId = Ines,
                        Coordinates = true,
                    }
                );
                db.Add(new MemberRow { GroupId = group, PersonId = Priya });
                db.Add(
                    new GuestRow
                    {
                        GroupId = group,
                        PersonId = Tomasz,
                        Address = "tomasz@example.org",
                        AddedBy = Ines,
                    }
                );
                db.Add(
                    new GuardianRow
                    {
                        GroupId = group,
                        WardId = Priya,
                        GuardianId = Mei,
                    }
                );
                db.Add(
                    new CalendarRow
                    {
                        Id = calendar,
                        GroupId = group,
                        Name = "Test tiles",
                        Description = string.Empty,
                        Hue = Hue.Iron,
                        Mark = Mark.Cone,
                        Zone = DemoPeople.Home,
                        Purpose = Purpose.Events,
                        GroupDefault = Role.View,
                    }
                );
                db.Add(
                    new GrantRow
                    {
                        Id = Guid.NewGuid(),
                        CalendarId = calendar,
                        PersonId = Ines,
                        Role = Role.Coordinate,
                    }
                );
                db.Add(
                    new GrantRow
                    {
                        Id = Guid.NewGuid(),
                        CalendarId = calendar,
                        PersonId = Mei,
                        Role = Role.View,
                    }
                );
                db.Add(
                    new GroupGrantRow
                    {
                        Id = Guid.NewGuid(),
                        CalendarId = calendar,
                        GroupId = group,
                        Role = Role.View,
                    }
                );
                db.Add(
                    new InvitationRow
                    {
                        Id = new InvitationId(Guid.NewGuid()),
                        CalendarId = calendar,
                        Address = "tomasz@example.org",
                        PersonId = Tomasz,
                        Role = Role.View,
                        Message = string.Empty,
                        State = InvitationState.Waiting,
                        InvitedBy = Ines,
                        SentAt = now,
                        LinkHash = "hash of an invitation",
                    }
                );
                db.Add(
                    new AskRow
                    {
                        Id = new AskId(Guid.NewGuid()),
                        CalendarId = calendar,
                        PersonId = Tomasz,
                        Role = Role.View,
                        Note = string.Empty,
                        State = AskState.Waiting,
                        AskedAt = now,
                    }
                );
                db.Add(
                    new OpenAskRow
                    {
                        Id = new AskId(Guid.NewGuid()),
                        PersonId = Tomasz,
                        ToGroupId = group,
                        Role = Role.View,
                        Note = string.Empty,
                        State = AskState.Waiting,
                        AskedAt = now,
                    }
                );
                db.Add(
                    new LinkRow
                    {
                        Id = link,
                        CalendarId = calendar,
                        Role = Role.View,
                        MadeBy = Ines,
                        Hash = "hash of a link",
                    }
                );
                db.Add(
                    new LinkHolderRow
                    {
                        LinkId = link,
                        CalendarId = calendar,
                        PersonId = Mei,
                    }
                );
                var row = new EventRow
                {
                    Id = id,
                    CalendarId = calendar,
                    Uid = "of each kind",
                    AddedBy = Ines,
                };
                var start = new LocalDateTime(2026, 3, 12, 9, 0);
                row.Apply(
                    EventTime.InZone(start, start.PlusHours(1), DemoPeople.Home),
                    EventContent.Blank with
                    {
                        Title = "Celadon",
                        Attendees = Attendees.Of([Priya]),
                    },
                    series: null,
                    new ZoneClock(DateTimeZoneProviders.Tzdb)
                );
                row.Apply(
                    row.ToCore() with
                    {
                        GivenTo = Attendees.Of([Priya]),
                    },
                    new ZoneClock(DateTimeZoneProviders.Tzdb)
                );
                db.Add(row);
                db.Add(
                    new AnswerRow
                    {
                        EventId = id,
                        CalendarId = calendar,
                        PersonId = Priya,
                        Only = string.Empty,
                        Answer = Mortar.Core.Answers.Answer.Accepted,
                        About = string.Empty,
                        Organizer = Ines,
                    }
                );
                db.Add(
                    new AgreementRow
                    {
                        EventId = id,
                        CalendarId = calendar,
                        Whose = Priya,
                        Agrees = true,
                    }
                );
                db.Add(
                    new FineClashRow
                    {
                        Id = Guid.NewGuid(),
                        Key = "a clash",
                        CalendarId = calendar,
                        Until = now,
                    }
                );
                db.Add(
                    new ProposalRow
                    {
                        Id = proposal,
                        CalendarId = calendar,
                        ProposedBy = Ines,
                        Title = "Firing",
                        Place = string.Empty,
                        Notes = string.Empty,
                        Times = string.Empty,
                        Zone = DemoPeople.Home,
                        ProposedAt = now,
                    }
                );
                db.Add(new ProposalAskedRow { ProposalId = proposal, PersonId = Priya });
                db.Add(
                    new SuitingsRow
                    {
                        ProposalId = proposal,
                        CalendarId = calendar,
                        PersonId = Priya,
                        ProposedBy = Ines,
                    }
                );
                return Task.FromResult<Outcome<int>>(1);
            },
            TestContext.Current.CancellationToken
        );
}
