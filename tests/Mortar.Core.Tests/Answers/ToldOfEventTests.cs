using Mortar.Core.Answers;
using Mortar.Core.Events;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Answers;

/// <summary>What somebody who was asked is told of what became of an event.</summary>
public class ToldOfEventTests
{
    private static readonly Event Asked = Studio.Event(Studio.Hours(new LocalDateTime(2026, 3, 12, 12, 0), 60)) with
    {
        GivenTo = Attendees.Of([Studio.Priya]),
    };

    private static readonly Event Off = Asked with { Content = Asked.Content with { Cancelled = true } };

    public static TheoryData<string, Event?, Event?, ToldOfEvent> Cases =>
        new()
        {
            { "nothing happened", Asked, Asked, ToldOfEvent.Nothing },
            {
                "another time",
                Asked,
                Asked with
                {
                    Time = Studio.Hours(new LocalDateTime(2026, 3, 12, 14, 0), 60),
                },
                ToldOfEvent.Changed
            },
            { "another place", Asked, With(Asked.Content with { Place = "Long table" }), ToldOfEvent.Changed },
            {
                "other notes are nobody's concern",
                Asked,
                With(Asked.Content with { Notes = "Cone 7" }),
                ToldOfEvent.Nothing
            },
            {
                "others come too",
                Asked,
                With(Asked.Content with { Attendees = Attendees.Of([Studio.Ines]) }),
                ToldOfEvent.Nothing
            },
            {
                "it repeats now",
                Asked,
                Asked with
                {
                    Series = Studio.Every("FREQ=WEEKLY;COUNT=3"),
                },
                ToldOfEvent.Changed
            },
            { "called off", Asked, Off, ToldOfEvent.CalledOff },
            { "deleted", Asked, null, ToldOfEvent.CalledOff },
            { "they are not asked any more", Asked, Asked with { GivenTo = Attendees.None }, ToldOfEvent.NotAsked },
            { "off already, and deleted then", null, null, ToldOfEvent.Nothing },
            { "off already, and still off", null, Off, ToldOfEvent.Nothing },
            { "brought back", null, Asked, ToldOfEvent.Changed },
        };

    [Theory]
    [MemberData(nameof(Cases))]
    public void They_are_told_of_what_concerns_them(string why, Event? told, Event? now, ToldOfEvent expected) =>
        Assert.True(expected == AnswerRules.ToTell(Studio.Priya, told, now), why);

    private static Event With(EventContent content) => Asked with { Content = content };
}
