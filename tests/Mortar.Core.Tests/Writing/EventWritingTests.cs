using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Words;
using Mortar.Core.Writing;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Writing;

/// <summary>What becomes of a wish, for every step and state a command can find; by the product's words, no other source.</summary>
public class EventWritingTests
{
    private static readonly LocalDateTime Nine = new(2026, 3, 12, 9, 0);

    private static readonly CalendarId Elsewhere = new(new Guid("00000000-0000-0000-0000-0000000000c2"));

    private static readonly GroupId Group = new(new Guid("00000000-0000-0000-0000-0000000000d1"));

    private static readonly EventId Id = new(new Guid("00000000-0000-0000-0000-0000000000e1"));

    private static readonly PersonId Stranger = new(new Guid("00000000-0000-0000-0000-000000000009"));

    private static readonly Event Firing = Studio.Event(Studio.Hours(Nine, 60)) with { Id = Id, Version = 3 };

    private static readonly StoredEvent There = new(Firing, IsInBin: false, IsHomeInBin: false);

    public static TheoryData<Role> Roles() => [.. Enum.GetValues<Role>()];

    [Theory]
    [MemberData(nameof(Roles))]
    public void Who_may_add_makes_an_event_on_the_clock_of_its_calendar(Role role)
    {
        var decided = EventWriting.Create(Who(role), Id, Wish(), Into(), default, Studio.Clock);

        if (role < Role.Add)
        {
            AssertRefused(role == Role.None ? new Refusal.NotThere("calendar") : null, decided);
            return;
        }

        var made = Made(decided);
        Assert.Equal(
            (Id, Studio.GlazeTests, Studio.Priya, "Slip casting", $"{Id.Value}@mortar"),
            (made.Id, made.CalendarId, made.AddedBy, made.Content.Title, made.Uid)
        );
        Assert.Equal(Studio.Hours(Nine, 60), made.Time);
    }

    [Theory]
    [MemberData(nameof(Roles))]
    public void Who_may_edit_changes_it_and_who_does_not_see_it_learns_nothing(Role role)
    {
        var decided = EventWriting.Change(Who(role), There, Wish(version: 3), Into(), default, Studio.Clock);

        if (role >= Role.Edit)
        {
            Assert.Equal("Slip casting", Made(decided).Content.Title);
            return;
        }

        AssertRefused(role < Role.Outline ? new Refusal.NotThere("event") : null, decided);
        // Neither a version nor the bin is told either.
        Assert.Equal(
            decided.WhyNot,
            EventWriting
                .Change(Who(role), There with { IsInBin = true }, Wish(version: 1), Into(), default, Studio.Clock)
                .WhyNot
        );
    }

    [Fact]
    public void What_was_changed_or_deleted_meanwhile_is_not_overwritten()
    {
        Assert.IsType<Outcome<EventEdit>.Stale>(
            EventWriting.Change(Who(Role.Edit), There, Wish(version: 2), Into(), default, Studio.Clock)
        );
        Assert.IsType<Refusal.VersionNeeded>(
            EventWriting.Change(Who(Role.Edit), There, Wish(), Into(), default, Studio.Clock).WhyNot
        );
        Assert.Equal(
            "in-bin",
            Rule(
                EventWriting.Change(
                    Who(Role.Edit),
                    There with
                    {
                        IsInBin = true,
                    },
                    Wish(version: 3),
                    Into(),
                    default,
                    Studio.Clock
                )
            )
        );
        AssertRefused(
            new Refusal.NotThere("event"),
            EventWriting.Create(Who(Role.Edit), Id, Wish(version: 3), Into(), default, Studio.Clock)
        );
    }

    [Fact]
    public void A_creation_whose_answer_was_lost_is_done_once()
    {
        var mine = There with { Event = Firing with { AddedBy = Studio.Priya, Version = 1 } };

        var again = EventWriting.Change(Who(Role.Add), mine, Wish(), Into(), default, Studio.Clock);

        Assert.Equal(mine.Event, Made(again));
        // Of another one, or by now changed, it is no creation any more.
        Assert.IsType<Refusal.NotAllowed>(
            EventWriting
                .Change(
                    Who(Role.Add),
                    mine with
                    {
                        Event = Firing with { Version = 1 },
                    },
                    Wish(),
                    Into(),
                    default,
                    Studio.Clock
                )
                .WhyNot
        );
    }

    [Fact]
    public void It_moves_where_one_may_add_and_no_copy_is_and_only_by_who_may_give_it_away()
    {
        var to = Wish(version: 3, calendar: Elsewhere);

        Assert.Equal(Elsewhere, Made(Move(Who(Role.Edit, Role.Add), to)).CalendarId);
        AssertRefused(new Refusal.NotThere("calendar"), Move(Who(Role.Edit), to));
        Assert.IsType<Refusal.NotAllowed>(Move(Who(Role.Edit, Role.View), to).WhyNot);
        Assert.Equal("already-there", Rule(Move(Who(Role.Edit, Role.Add), to, hasCopy: true)));
        var given = There with
        {
            Event = Firing with
            {
                Content = Firing.Content with { Attendees = Attendees.Of([Studio.Priya]) },
                Editors = Attendees.Of([Studio.Priya]),
            },
        };
        Assert.IsType<Refusal.NotAllowed>(
            EventWriting.Change(Who(Role.None, Role.Edit), given, to, Into(Elsewhere), default, Studio.Clock).WhyNot
        );

        static Outcome<EventEdit> Move(Reader writer, EventWish wish, bool hasCopy = false) =>
            EventWriting.Change(writer, There, wish, Into(Elsewhere, hasCopy: hasCopy), default, Studio.Clock);
    }

    [Fact]
    public void Only_a_whole_series_moves()
    {
        var series = There with { Event = Firing with { Series = Studio.Every("FREQ=DAILY;COUNT=3") } };
        var one = Wish(version: 3, calendar: Elsewhere) with { Key = Nine.PlusDays(1), Reach = Reach.OnlyThis };

        Assert.Equal(
            "not-one-of-a-series",
            Rule(EventWriting.Change(Who(Role.Edit, Role.Add), series, one, Into(Elsewhere), default, Studio.Clock))
        );
    }

    [Fact]
    public void Whoever_is_named_has_to_be_known_there_and_all_that_is_wrong_is_told_at_once()
    {
        var wish = Wish() with
        {
            Draft = Wish().Draft with
            {
                Title = new string('x', EventRules.LongestLine + 1),
                Attendees = Attendees.Of([Stranger]),
            },
            Repeats = "FREQ=OFTEN",
        };

        var unfit = Assert.IsType<Refusal.Unfit>(
            EventWriting.Create(Who(Role.Add), Id, wish, Into(strangers: [Stranger]), default, Studio.Clock).WhyNot
        );

        Assert.Equal(["attendees", "repeats", "title"], unfit.Problems.Select(problem => problem.Path).Order());
    }

    [Fact]
    public void With_the_step_add_absences_are_ones_own_or_of_those_one_answers_for()
    {
        var wish = Wish() with { Draft = Wish().Draft with { Attendees = Attendees.Of([Studio.Ines]) } };
        var guardian = Who(Role.Add) with { Wards = [new Ward(Studio.Ines, Group)] };

        Assert.IsType<Refusal.Unfit>(Away(Who(Role.Add), wish).WhyNot);
        Assert.Equal([Studio.Ines], Made(Away(guardian, wish)).Content.Attendees);
        Assert.Equal([Studio.Ines], Made(Away(Who(Role.Edit), wish)).Content.Attendees);
        Assert.Equal([Studio.Priya], Made(Away(Who(Role.Add), Wish())).Content.Attendees);

        static Outcome<EventEdit> Away(Reader writer, EventWish wish) =>
            EventWriting.Create(writer, Id, wish, Into(purpose: Purpose.Away), default, Studio.Clock);
    }

    [Fact]
    public void Where_a_coordinator_agrees_first_what_others_write_is_a_proposal()
    {
        Assert.Equal(ShowAs.Tentative, Written(Role.Edit));
        Assert.Equal(ShowAs.Busy, Written(Role.Coordinate));

        static ShowAs Written(Role role) =>
            Made(EventWriting.Create(Who(role), Id, Wish(), Into(agreed: true), default, Studio.Clock)).Content.ShowAs;
    }

    [Fact]
    public void Deleting_is_for_who_may_give_it_away()
    {
        Assert.IsType<EventEdit.Gone>(((Outcome<EventEdit>.Done)Delete(Role.Edit, There)).Value);
        Assert.IsType<Refusal.NotAllowed>(Delete(Role.View, There).WhyNot);
        AssertRefused(new Refusal.NotThere("event"), Delete(Role.None, There));
        AssertRefused(new Refusal.NotThere("event"), Delete(Role.None, There with { IsHomeInBin = true }));

        static Outcome<EventEdit> Delete(Role role, StoredEvent stored) =>
            EventWriting.Delete(Who(role), stored, null, Reach.Whole, 3, Into(), default, Studio.Clock);
    }

    [Fact]
    public void A_rule_is_shown_before_it_is_saved_for_a_new_event_as_for_one_that_is_hidden()
    {
        var time = Studio.Hours(Nine, 60);

        var fresh = Preview(Who(Role.Add), null, "FREQ=WEEKLY;COUNT=2");
        var hidden = Preview(
            Who(Role.Add),
            There with
            {
                Event = Firing with { CalendarId = Elsewhere },
            },
            "FREQ=WEEKLY;COUNT=2"
        );

        Assert.Equal(fresh.Sentence, hidden.Sentence);
        Assert.Equal([Nine, Nine.PlusWeeks(1)], fresh.Next);
        Assert.NotNull(Preview(Who(Role.Add), null, "FREQ=OFTEN").Problem);
        AssertRefused(
            new Refusal.NotThere("calendar"),
            EventWriting.PreviewRule(Who(Role.Add), null, Id, into: null, null, time, "", Studio.Clock)
        );

        RulePreview Preview(Reader writer, StoredEvent? stored, string rule) =>
            (
                (Outcome<RulePreview>.Done)
                    EventWriting.PreviewRule(writer, stored, Id, Into(), null, time, rule, Studio.Clock)
            ).Value;
    }

    private static Reader Who(Role here, Role elsewhere = Role.None) =>
        new(
            Studio.Priya,
            new[] { (Studio.GlazeTests, here), (Elsewhere, elsewhere) }
                .Where(one => one.Item2 > Role.None)
                .ToDictionary(
                    one => one.Item1,
                    one => new Standing(one.Item2, [new Grant(one.Item2, Way.Own, EndsAt: null)])
                ),
            []
        );

    private static EventWish Wish(int? version = null, CalendarId? calendar = null) =>
        new(
            calendar ?? Studio.GlazeTests,
            new EventDraft(
                "Slip casting",
                Place: null,
                Notes: null,
                ShowAs.Busy,
                new TimeDraft.Clock(Nine, Nine.PlusHours(1), Studio.London)
            ),
            Key: null,
            Reach.Whole,
            Repeats: null,
            version
        );

    private static WishedCalendar Into(
        CalendarId? id = null,
        Purpose purpose = Purpose.Events,
        bool agreed = false,
        bool hasCopy = false,
        params PersonId[] strangers
    ) =>
        new(
            id ?? Studio.GlazeTests,
            Group,
            new CalendarSettings("Glaze tests", string.Empty, Hue.Iron, Mark.Drop, Studio.London, purpose, Role.None)
            {
                Agreed = agreed,
            },
            strangers,
            hasCopy
        );

    private static Event Made(Outcome<EventEdit> decided) =>
        Assert.IsType<EventEdit.Done>(Assert.IsType<Outcome<EventEdit>.Done>(decided).Value).Event;

    private static string Rule<T>(Outcome<T> decided) => Assert.IsType<Refusal.AgainstRule>(decided.WhyNot).Type;

    /// <param name="refusal">Which; <c>null</c> for that it is not allowed.</param>
    private static void AssertRefused<T>(Refusal? refusal, Outcome<T> decided)
    {
        if (refusal is null)
        {
            Assert.IsType<Refusal.NotAllowed>(decided.WhyNot);
        }
        else
        {
            Assert.Equal(refusal, decided.WhyNot);
        }
    }
}
