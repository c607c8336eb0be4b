using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;
using Xunit;
using static Mortar.Core.Tests.Availability.Pottery;

namespace Mortar.Core.Tests.Availability;

/// <summary>What of somebody's time a reader may know: never more than they see, and never less.</summary>
public class KnownTimesTests
{
    private static readonly Event Talk = Studio.Event(At(1, 9, 10)) is var talk
        ? talk with
        {
            Content = talk.Content with { Attendees = Attendees.Of([Dele]) },
        }
        : null!;

    [Theory]
    [InlineData(Role.None, false, false)]
    [InlineData(Role.Times, false, true)]
    [InlineData(Role.Outline, false, true)]
    [InlineData(Role.View, true, true)]
    public void Who_is_named_counts_from_View_on_and_whose_calendar_it_is_from_Times(Role role, bool named, bool owner)
    {
        var calendar = new CountedCalendar(Studio.GlazeTests, Purpose.Events, WhoseTime.Person, [], [Counted(Talk)])
        {
            Person = Astrid,
        };

        var takenTimes = TakenTimes.In([calendar.SeenBy(role, Studio.Priya)], Week, Zones, Studio.Clock).ToList();

        Assert.Equal(named, takenTimes.Exists(takenTime => takenTime.Who == Participant.Of(Dele)));
        Assert.Equal(owner, takenTimes.Exists(takenTime => takenTime.Who == Participant.Of(Astrid)));
        Assert.All(
            takenTimes,
            takenTime => Assert.Equal(named ? "Firing" : string.Empty, takenTime.Occurrence.Content.Title)
        );
    }

    [Fact]
    public void A_private_event_takes_the_time_of_who_owns_the_calendar_and_names_nobody()
    {
        var secret = Talk with { Content = Talk.Content with { Private = true } };
        var calendar = new CountedCalendar(
            Studio.GlazeTests,
            Purpose.Events,
            WhoseTime.Group,
            [Astrid],
            [Counted(secret)]
        );

        var takenTime = Assert.Single(
            TakenTimes.In([calendar.SeenBy(Role.View, Studio.Priya)], Week, Zones, Studio.Clock)
        );

        Assert.Equal(Participant.Of(Astrid), takenTime.Who);
        Assert.Empty(takenTime.Occurrence.Content.Title);
    }

    [Fact]
    public void What_the_reader_sees_and_they_do_not_takes_their_time_as_well()
    {
        var (seen, own) = (OfDele(Span(1, 9, 10)), OfDele(Span(1, 14, 15)));

        var known = KnownTimes.Of([seen], [own], Week);

        Assert.Equal(Knowledge.Whole, known.Knowledge);
        Assert.Equal([Span(1, 9, 10), Span(1, 14, 15)], known.Busy.Busy);
        Assert.Equal([(Span(1, 14, 15), false)], known.Unseen);
        Assert.Equal([Span(1, 9, 10)], KnownTimes.Of([seen], all: null, Week).Busy.Busy);
        Assert.Empty(KnownTimes.Of([seen], all: null, Week).Unseen);
    }

    [Theory]
    [InlineData(Answer.NeedsAction, true)]
    [InlineData(Answer.Accepted, true)]
    [InlineData(Answer.Tentative, true)]
    [InlineData(Answer.Declined, false)]
    public void An_answer_counts_for_the_time_it_was_about(Answer answer, bool taken)
    {
        var given = new GivenAnswer(Dele, answer, Only: null, AnswerRules.About(Talk, only: null, Studio.Clock));
        var moved = Talk with { Time = At(1, 11, 12) };

        Assert.Equal(taken, Takes(Talk, given));
        Assert.True(Takes(moved, given)); // a question that is open again takes the time

        bool Takes(Event whole, GivenAnswer one) =>
            TakenTimes
                .In(
                    [Calendar(WhoseTime.Named, Purpose.Events, Counted(whole) with { Answers = [one] })],
                    Week,
                    Zones,
                    Studio.Clock
                )
                .Any();
    }

    [Fact]
    public void One_date_answered_by_itself_comes_before_the_series_and_a_moved_one_is_open()
    {
        var first = Monday.PlusDays(1).At(new LocalTime(9, 0));
        var series = Talk with { Series = Studio.Every("FREQ=DAILY;COUNT=3") };
        series = series with
        {
            Series = series.Series!.With(new Override(first.PlusDays(2), At(3, 15, 16), series.Content)),
        };
        GivenAnswer[] given =
        [
            new(Dele, Answer.Accepted, null, AnswerRules.About(series, null, Studio.Clock)),
            new(Dele, Answer.Declined, first.PlusDays(1), AnswerRules.About(series, first.PlusDays(1), Studio.Clock)),
        ];

        var standing = series
            .Occurrences(Week, Studio.Clock)
            .Select(date => AnswerRules.Of(Dele, given, date, Studio.Clock))
            .ToList();

        Assert.Equal(
            [(Answer.Accepted, false), (Answer.Declined, false), (Answer.NeedsAction, true)],
            standing.Select(one => (one.Answer, one.ToEarlierTime))
        );
    }

    private static TakenTime OfDele(Interval span)
    {
        var zone = Studio.Zone(Studio.London);
        var (start, end) = (span.Start.InZone(zone).LocalDateTime, span.End.InZone(zone).LocalDateTime);
        var whole = Studio.Event(EventTime.InZone(start, end, Studio.London));
        return new TakenTime(Participant.Of(Dele), whole.Occurrences(Week, Studio.Clock).Single(), Taken.Busy);
    }
}
