using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Letters;
using Mortar.Core.Noticeboards;
using Mortar.Core.Preferences;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Letters;

/// <summary>The table of who is told what that others did, with those who are told nothing as rows of it.</summary>
public class NoticeRulesTests
{
    private static readonly PersonId Mei = new(new Guid("00000000-0000-0000-0000-000000000003"));
    private static readonly Instant Now = Instant.FromUtc(2026, 3, 11, 9, 0);

    private static readonly Event Empty = Studio.Event(Studio.Hours(new LocalDateTime(2026, 3, 12, 14, 0), 90));

    /// <summary>Ines made it, Mei is on it.</summary>
    private static readonly Event Firing = On(Mei);

    private static Event On(params PersonId[] people) =>
        With(Empty, content => content with { Attendees = Attendees.Of(people) });

    private static readonly Event Later = Firing with
    {
        Time = Studio.Hours(new LocalDateTime(2026, 3, 13, 14, 0), 90),
    };

    private static readonly Event Past = Firing with { Time = Studio.Hours(new LocalDateTime(2026, 3, 2, 14, 0), 90) };

    private static readonly Event Asked = Firing with { GivenTo = Attendees.Of([Mei]) };

    private static readonly Event MayChange = Firing with { Editors = Attendees.Of([Mei]) };

    private static readonly Event Meis = Empty with { AddedBy = Mei };

    private const string When = "Thu 12 March, 14:00 to 15:30";

    /// <summary>What becomes of an event, the reader's step on its calendar, and what Mei is told by Ines having done it.</summary>
    public static TheoryData<string, Event?, Event?, Role, NoticeTopic?, string?> Events() =>
        new()
        {
            // Put on, moved, taken off, called off.
            { "new with her", null, Firing, Role.View, NoticeTopic.Plan, $"Ines put you on “Firing”, {When}." },
            { "put on", Empty, Firing, Role.View, NoticeTopic.Plan, $"Ines put you on “Firing”, {When}." },
            {
                "moved",
                Firing,
                Later,
                Role.View,
                NoticeTopic.Plan,
                "“Firing”: Ines moved it from Thu 12 March, 14:00 to 15:30 to Fri 13 March, 14:00 to 15:30."
            },
            { "taken off", Firing, Empty, Role.View, NoticeTopic.Plan, $"Ines took you off “Firing”, {When}." },
            { "called off", Firing, CalledOff(Firing), Role.View, NoticeTopic.Plan, "“Firing”: Ines called it off." },
            { "deleted", Firing, null, Role.View, NoticeTopic.Plan, "“Firing”: Ines deleted it." },
            { "deleted, and asked by itself", Asked, null, Role.None, NoticeTopic.Plan, "“Firing”: Ines deleted it." },
            {
                "given by itself and moved",
                Asked,
                Asked with
                {
                    Time = Later.Time,
                },
                Role.None,
                NoticeTopic.Plan,
                "“Firing”: Ines moved it from Thu 12 March, 14:00 to 15:30 to Fri 13 March, 14:00 to 15:30."
            },
            // Handed to her, or hers to change.
            {
                "handed",
                Empty,
                Meis,
                Role.View,
                NoticeTopic.Handed,
                $"Ines handed “Firing” to you, {When}: you organize it now."
            },
            {
                "may change",
                Firing,
                MayChange,
                Role.View,
                NoticeTopic.Handed,
                $"Ines lets you change “Firing”, {When}."
            },
            {
                "may change no more",
                MayChange,
                Firing,
                Role.View,
                NoticeTopic.Handed,
                "Ines does not let you change “Firing” any more."
            },
            {
                "put on and may change",
                Empty,
                MayChange,
                Role.View,
                NoticeTopic.Plan,
                $"Ines put you on “Firing”, {When}. You may change it."
            },
            // Hers, deleted.
            { "hers deleted", Meis, null, Role.View, NoticeTopic.Deleted, "“Firing”: Ines deleted it." },
            {
                "hers with her on it deleted",
                Meis with
                {
                    Content = Firing.Content,
                },
                null,
                Role.View,
                NoticeTopic.Deleted,
                "“Firing”: Ines deleted it."
            },
            // Nothing.
            { "not on it", Empty, Empty with { Time = Later.Time }, Role.Edit, null, null },
            { "new without her", null, Empty, Role.Coordinate, null, null },
            { "only who else is on it", Firing, On(Mei, Studio.Priya), Role.View, null, null },
            {
                "only its reminder",
                Firing,
                With(Firing, content => content with { Reminder = 10 }),
                Role.View,
                null,
                null
            },
            { "asked: the question says it", Firing, Asked, Role.View, null, null },
            { "new and asked: the question says it", null, Asked, Role.View, null, null },
            { "put on what she sees not", Empty, Firing, Role.Times, null, null },
            { "put on what she sees in outline", Empty, Firing, Role.Outline, null, null },
            { "taken off what she never reached", Firing, Empty, Role.None, null, null },
            { "moved, and she has the calendar no more", Firing, Later, Role.None, null, null },
            { "hers deleted, and she has the calendar no more", Meis, null, Role.None, null, null },
            { "over", Past, null, Role.View, null, null },
            { "put on what is over", null, Past, Role.View, null, null },
            { "as it was", Firing, Firing with { Version = 2 }, Role.View, null, null },
        };

    [Theory]
    [MemberData(nameof(Events))]
    public void Of_an_event_is_told(
        string what,
        Event? before,
        Event? after,
        Role role,
        NoticeTopic? topic,
        string? sentence
    )
    {
        var told = NoticeRules.OfEvent("Ines", before, after, isBack: false, Reading(role));

        Assert.Equal((what, topic, sentence), (what, told?.Topic, told?.Sentence));
        // Whoever is told is among those whom a change may concern, or nobody would look.
        Assert.True(told is null || NoticeRules.PeopleOf(before, after).Contains(Mei));
    }

    [Fact]
    public void What_came_back_from_the_bin_is_told_as_that_and_a_series_by_how_it_repeats()
    {
        var back = NoticeRules.OfEvent("Ines", null, Firing, isBack: true, Reading(Role.View));
        var series = NoticeRules.OfEvent(
            "Ines",
            Past with
            {
                Content = Empty.Content,
                Series = Studio.Every("FREQ=WEEKLY"),
            },
            Past with
            {
                Series = Studio.Every("FREQ=WEEKLY"),
            },
            isBack: false,
            Reading(Role.View)
        );

        Assert.Equal($"Ines brought “Firing” back, {When}; you are on it.", back?.Sentence);
        Assert.Equal("Ines put you on “Firing”, Mon 2 March, 14:00 to 15:30, every Monday at 14:00.", series?.Sentence);
    }

    [Fact]
    public void One_private_to_others_is_told_to_who_is_on_it_alone()
    {
        var hidden = With(Firing, content => content with { Private = true });

        Assert.NotNull(NoticeRules.OfEvent("Ines", null, hidden, isBack: false, Reading(Role.View)));
        Assert.Null(
            NoticeRules.OfEvent("Ines", hidden, null, isBack: false, Reading(Role.View) with { Person = Studio.Priya })
        );
    }

    private static CalendarThen Rota(Role everybody, bool isThere = true) => new("Rota", everybody, isThere);

    private static NoticePlace Member(Role stands = Role.View, Role own = Role.None) =>
        new(IsMember: true, stands, own);

    private static readonly NoticePlace Outside = new(IsMember: false, Role.None, Role.None);

    public static TheoryData<CalendarThen?, CalendarThen, NoticePlace, NoticeTopic?, string?> Calendars() =>
        new()
        {
            {
                null,
                Rota(Role.View),
                Member(),
                NoticeTopic.Calendars,
                "Ines made the calendar “Rota” in “Studio”. You have the step View on it."
            },
            {
                Rota(Role.None),
                Rota(Role.Outline),
                Member(),
                NoticeTopic.Calendars,
                "Ines opened the calendar “Rota” to every member of “Studio”: you have the step Outline on it."
            },
            {
                Rota(Role.View, isThere: false),
                Rota(Role.View),
                Member(),
                NoticeTopic.Calendars,
                "Ines brought the calendar “Rota” of “Studio” back."
            },
            {
                Rota(Role.View),
                Rota(Role.View, isThere: false),
                Member(),
                NoticeTopic.Deleted,
                "Ines put the calendar “Rota” of “Studio” in the bin."
            },
            {
                Rota(Role.None),
                Rota(Role.None, isThere: false),
                new(IsMember: false, Role.Edit, Role.Edit),
                NoticeTopic.Deleted,
                "Ines put the calendar “Rota” of “Studio” in the bin."
            },
            {
                Rota(Role.View),
                Rota(Role.Add),
                Member(),
                NoticeTopic.Access,
                "Ines changed the step of every member of “Studio” on “Rota” from View to Add."
            },
            {
                Rota(Role.View),
                Rota(Role.Times),
                Member(),
                NoticeTopic.Access,
                "Ines changed the step of every member of “Studio” on “Rota” from View to Times only."
            },
            {
                Rota(Role.View),
                Rota(Role.None),
                Member(Role.None),
                NoticeTopic.Access,
                "Ines closed the calendar “Rota” to the members of “Studio”."
            },
            {
                Rota(Role.View),
                Rota(Role.None) with
                {
                    Name = "Secret glazes",
                },
                Member(Role.None),
                NoticeTopic.Access,
                "Ines closed the calendar “Rota” to the members of “Studio”."
            },
            // Nothing: who is not in the group, or was not then; who has more anyway; what is for nobody of it.
            { null, Rota(Role.View), Outside, null, null },
            { null, Rota(Role.None), Member(Role.None), null, null },
            { Rota(Role.None), Rota(Role.View), Member(Role.Edit, own: Role.Edit), null, null },
            { Rota(Role.View), Rota(Role.None), Member(Role.Edit, own: Role.Edit), null, null },
            { Rota(Role.None), Rota(Role.None, isThere: false), Member(Role.None), null, null },
            { Rota(Role.View), Rota(Role.View), Member(), null, null },
            { Rota(Role.View, isThere: false), Rota(Role.Edit, isThere: false), Member(), null, null },
        };

    [Theory]
    [MemberData(nameof(Calendars))]
    public void Of_a_calendar_is_told(
        CalendarThen? before,
        CalendarThen after,
        NoticePlace place,
        NoticeTopic? topic,
        string? sentence
    )
    {
        var told = NoticeRules.OfCalendar("Ines", "Studio", before, after, place);

        Assert.Equal((topic, sentence), (told?.Topic, told?.Sentence));
    }

    public static TheoryData<Role, Role, NoticePlace, NoticeTopic?, string?> GroupSteps() =>
        new()
        {
            {
                Role.None,
                Role.View,
                Member(),
                NoticeTopic.Calendars,
                "Ines gave “Studio” the calendar “Rota”: you have the step View on it."
            },
            {
                Role.View,
                Role.Edit,
                Member(),
                NoticeTopic.Access,
                "Ines changed the step of “Studio” on “Rota” from View to Edit."
            },
            {
                Role.Edit,
                Role.None,
                Member(Role.None),
                NoticeTopic.Access,
                "Ines took the calendar “Rota” from “Studio”."
            },
            { Role.View, Role.View, Member(), null, null },
            { Role.None, Role.View, Outside, null, null },
            { Role.None, Role.View, Member(Role.Edit, own: Role.Edit), null, null },
        };

    [Theory]
    [MemberData(nameof(GroupSteps))]
    public void Of_what_a_whole_group_was_given_is_told(
        Role before,
        Role after,
        NoticePlace place,
        NoticeTopic? topic,
        string? sentence
    )
    {
        var told = NoticeRules.OfGroupStep("Ines", "Studio", "Rota", before, after, place);

        Assert.Equal((topic, sentence), (told?.Topic, told?.Sentence));
    }

    public static TheoryData<NoticeLine?, NoticeTopic?> Others() =>
        new()
        {
            { NoticeRules.OfStep("Ines", "Rota", Role.View, Role.Edit), NoticeTopic.Access },
            { NoticeRules.OfStep("Ines", "Rota", Role.View, Role.View), null },
            { NoticeRules.OfEnd("Rota", Role.View, null), NoticeTopic.Access },
            { NoticeRules.OfEnd("Rota", Role.View, "Studio"), NoticeTopic.Access },
            {
                NoticeRules.OfPlace("Ines", "Studio", (MemberPlace.Outside, false), (MemberPlace.Member, false)),
                NoticeTopic.Access
            },
            { NoticeRules.OfPlace("Ines", "Studio", (MemberPlace.Outside, false), (MemberPlace.Asked, false)), null },
            { NoticeRules.OfTheirPlace("Mei", "Studio", MemberPlace.Member, MemberPlace.Outside), NoticeTopic.Keeping },
            { NoticeRules.OfClaim("Mei", "M.", "Studio"), NoticeTopic.Keeping },
            {
                NoticeRules.OfNoticeboard("Ines", "Fair", (BoardState.Open, true), (BoardState.Paused, true)),
                NoticeTopic.Keeping
            },
            { NoticeRules.OfInvitation("Mei", "Rota", InvitationState.Accepted, isNew: false), NoticeTopic.Answers },
            { NoticeRules.OfInvitation("Mei", "Rota", InvitationState.Withdrawn, isNew: false), NoticeTopic.Asks },
            { NoticeRules.OfInvitation("Mei", "Rota", InvitationState.Waiting, isNew: true), null },
            { NoticeRules.OfAsk("Ines", AskState.Refused), NoticeTopic.Answers },
            { NoticeRules.OfAsk("Ines", AskState.Granted), null },
            {
                NoticeRules.OfAnswer(NoticeSentence.OfAnswer("Mei", "Mei", "Firing", Answer.Accepted, null)),
                NoticeTopic.Answers
            },
            { NoticeRules.OfAnswer(null), null },
        };

    [Theory]
    [MemberData(nameof(Others))]
    public void What_else_is_told_is_told_under_its_topic(NoticeLine? told, NoticeTopic? topic) =>
        Assert.Equal(topic, told?.Topic);

    [Fact]
    public void Many_events_of_one_act_are_counted_and_few_are_told_singly()
    {
        NoticeLine Line(int number, NoticeTopic topic = NoticeTopic.Plan) =>
            new(topic, $"{number}") { Title = $"Firing {number}" };
        NoticeLine access = new(NoticeTopic.Access, "A step");

        Assert.Equal(
            ["1", "2", "3", "A step"],
            NoticeRules.OfOneAct("Ines", [Line(1), Line(2), Line(3), access]).Select(line => line.Sentence)
        );
        Assert.Equal(
            ["Ines changed 5 events that concern you: “Firing 1”, “Firing 2”, “Firing 3” and 2 more.", "A step", "7"],
            NoticeRules
                .OfOneAct(
                    "Ines",
                    [.. Enumerable.Range(1, 5).Select(number => Line(number)), access, Line(7, NoticeTopic.Deleted)]
                )
                .Select(line => line.Sentence)
        );
    }

    [Fact]
    public void More_than_are_looked_at_are_not_counted()
    {
        NoticeLine[] lines =
        [
            .. Enumerable
                .Range(1, NoticeRules.MostCounted + 1)
                .Select(number => new NoticeLine(NoticeTopic.Deleted, $"{number}") { Title = $"Firing {number}" }),
        ];

        Assert.Equal(
            "Ines deleted more than 50 events of yours: “Firing 1”, “Firing 2”, “Firing 3” and others.",
            Assert.Single(NoticeRules.OfOneAct("Ines", lines)).Sentence
        );
    }

    private static NoticeReader Reading(Role role) =>
        new(Mei, _ => role, Studio.Zone(Studio.London), Studio.Clock, Now);

    private static Event CalledOff(Event one) => With(one, content => content with { Cancelled = true });

    private static Event With(Event one, Func<EventContent, EventContent> made) => one.WithContents(made);
}
