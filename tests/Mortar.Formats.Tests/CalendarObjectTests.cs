using System.Text;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Words;
using Mortar.Formats.ICalendar;
using Xunit;

namespace Mortar.Formats.Tests;

/// <summary>Events as resources of their own: written, sent, and taken into what is there.</summary>
public class CalendarObjectTests
{
    private static readonly ILookup<EventId, GivenAnswer> NoAnswers = Array
        .Empty<GivenAnswer>()
        .ToLookup(_ => default(EventId));

    private static readonly PersonId Sender = new(new Guid("00000000-0000-0000-0000-000000000001"));

    public static TheoryData<string> Files { get; } = new("studio.ics", "troubled.ics");

    private static Event Whole(FileEvent one) =>
        new(new EventId(Guid.NewGuid()), default, one.Uid, Sender, one.Time, one.Content, one.Series, Version: 3);

    private static CalendarObject Object(FileEvent one, OwnAlarms? own = null) =>
        CalendarObject.Of(
            new EventToWrite(Whole(one), one.Source),
            Samples.Nobody,
            NoAnswers,
            own,
            "Europe/London",
            Samples.Clock
        );

    private static SentObject Send(string text) =>
        SentObject.Read(Encoding.UTF8.GetBytes(text), "Europe/London", Samples.Clock);

    private static HashSet<string> Lines(string text) =>
        [.. text.Replace("\r\n ", "", StringComparison.Ordinal).Split("\r\n")];

    [Theory]
    [MemberData(nameof(Files))]
    public void Every_event_of_every_file_goes_out_and_comes_back_with_nothing_lost(string name)
    {
        var taken = 0;
        foreach (var one in Samples.Read(Samples.Bytes(name)).Events)
        {
            var before = Object(one);
            if (Send(before.Text) is not SentObject.Fit sent)
            {
                // What a file may have and a program may not send: a zone that nobody knows, dates that were left out.
                Assert.Equal("troubled.ics", name);
                continue;
            }

            var anew = sent.Anew("Europe/London", Samples.Clock)!;
            var after = CalendarObject.Of(
                new EventToWrite(
                    Whole(one) with
                    {
                        Time = anew.Time,
                        Content = anew.Content with { Reminder = one.Content.Reminder },
                        Series = anew.Series,
                    },
                    anew.Source
                ),
                Samples.Nobody,
                NoAnswers,
                anew.Alarms,
                "Europe/London",
                Samples.Clock
            );
            Assert.Equal(one.Time, anew.Time);
            Assert.Equal(one.Series, anew.Series);
            Assert.Equal(one.Content with { Reminder = null }, anew.Content);
            Assert.Equal(
                Lines(before.Text).Order(StringComparer.Ordinal),
                Lines(after.Text).Order(StringComparer.Ordinal)
            );
            taken++;
        }

        Assert.True(taken > 3, $"{taken} of {name}");
    }

    [Theory]
    [MemberData(nameof(Files))]
    public void Sent_back_as_it_is_nothing_is_another(string name)
    {
        foreach (var one in Samples.Read(Samples.Bytes(name)).Events)
        {
            var told = Object(one);
            if (Send(told.Text) is SentObject.Fit sent)
            {
                var taken = sent.Into(
                    Sender,
                    new EventToWrite(Whole(one), one.Source),
                    Samples.Nobody,
                    NoAnswers,
                    before: null,
                    "Europe/London",
                    Samples.Clock
                )!;
                Assert.False(taken.IsOther, told.Text);
                Assert.Empty(taken.Answers);
                Assert.False(taken.AnswersForOthers);
                Assert.Null(taken.Alarms);
            }
        }
    }

    [Fact]
    public void It_is_the_same_to_the_byte_whenever_it_is_written_and_whatever_its_version()
    {
        var one = Samples.Read(Samples.Bytes("studio.ics")).Events[0];
        var whole = Whole(one);
        var tags = new[] { 1, 2, 50 }
            .Select(version =>
                CalendarObject
                    .Of(
                        new EventToWrite(whole with { Version = version }, Source: null),
                        Samples.Nobody,
                        NoAnswers,
                        own: null,
                        "Europe/London",
                        Samples.Clock
                    )
                    .ETag
            )
            .Distinct();
        Assert.Matches("^\"[0-9a-f]{32}\"$", Assert.Single(tags));
    }

    [Fact]
    public void Own_alarms_stand_where_their_date_is_and_come_back_as_they_went()
    {
        var text = Samples
            .File_(
                "BEGIN:VEVENT",
                "UID:a",
                "DTSTART:20260312T090000Z",
                "RRULE:FREQ=DAILY;COUNT=3",
                "SUMMARY:A",
                "END:VEVENT",
                "BEGIN:VEVENT",
                "UID:a",
                "DTSTART:20260313T100000Z",
                "RECURRENCE-ID:20260313T090000Z",
                "SUMMARY:B",
                "END:VEVENT"
            )
            .Replace(
                "END:VEVENT",
                "BEGIN:VALARM\nACTION:DISPLAY\nTRIGGER:-PT10M\nDESCRIPTION:@home\\, ring\nEND:VALARM\nEND:VEVENT",
                StringComparison.Ordinal
            );
        var sent = Assert.IsType<SentObject.Fit>(Send(text));
        var taken = sent.Anew("Europe/London", Samples.Clock)!;
        Assert.DoesNotContain("VALARM", taken.Source, StringComparison.Ordinal);
        Assert.Null(taken.Content.Reminder);

        var whole = new Event(default, default, "a", Sender, taken.Time, taken.Content, taken.Series, 1);
        var with = CalendarObject.Of(
            new EventToWrite(whole, taken.Source),
            Samples.Nobody,
            NoAnswers,
            taken.Alarms,
            "UTC",
            Samples.Clock
        );
        var without = CalendarObject.Of(
            new EventToWrite(whole, taken.Source),
            Samples.Nobody,
            NoAnswers,
            new OwnAlarms(""),
            "UTC",
            Samples.Clock
        );
        Assert.Equal(2, with.Text.Split("DESCRIPTION:@home\\, ring").Length - 1);
        Assert.DoesNotContain("VALARM", without.Text, StringComparison.Ordinal);
        Assert.NotEqual(with.ETag, without.ETag);
    }

    [Fact]
    public void What_lies_inside_an_event_and_a_program_does_not_send_back_stays()
    {
        var first = Assert.IsType<SentObject.Fit>(
            Send(
                Samples.File_(
                    "BEGIN:VEVENT",
                    "UID:a",
                    "DTSTART:20260312T090000Z",
                    "BEGIN:VLOCATION",
                    "UID:place",
                    "NAME:Kiln yard",
                    "END:VLOCATION",
                    "END:VEVENT"
                )
            )
        );
        var taken = first.Anew("Europe/London", Samples.Clock)!;
        var whole = new Event(default, default, "a", Sender, taken.Time, taken.Content, taken.Series, 1);
        var second = Assert.IsType<SentObject.Fit>(
            Send(Samples.File_("BEGIN:VEVENT", "UID:a", "DTSTART:20260312T100000Z", "END:VEVENT"))
        );

        var then = second.Into(
            Sender,
            new EventToWrite(whole, taken.Source),
            Samples.Nobody,
            NoAnswers,
            null,
            "UTC",
            Samples.Clock
        )!;

        Assert.True(then.IsOther);
        Assert.Contains("NAME:Kiln yard", then.Source, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("#B01F24FF", "Iron")]
    [InlineData("#008080", "Teal")]
    [InlineData("#4169E1FF", "Cobalt")]
    [InlineData("red", null)]
    [InlineData("#12345", null)]
    [InlineData("#GGGGGG", null)]
    public void A_colour_is_the_nearest_of_the_hues(string code, string? hue) =>
        Assert.Equal(hue, HueColors.Nearest(code)?.ToString());

    [Fact]
    public void Each_hue_is_its_own_nearest()
    {
        foreach (var hue in Enum.GetValues<Core.Calendars.Hue>())
        {
            Assert.Equal(hue, HueColors.Nearest(HueColors.Code(hue)));
        }
    }

    [Fact]
    public void Whatever_is_sent_is_taken_or_refused_and_nothing_is_thrown()
    {
        var random = new Random(19);
        var bytes = Samples.Bytes("troubled.ics");
        var fit = 0;
        for (var round = 0; round < 2_000; round++)
        {
            var one = Samples.Read(Samples.Bytes("studio.ics")).Events[round % 5];
            var text = Encoding.UTF8.GetBytes(Object(one).Text);
            for (var cut = random.Next(1, 6); cut > 0; cut--)
            {
                var at = random.Next(text.Length);
                switch (random.Next(4))
                {
                    case 0:
                        text[at] = (byte)random.Next(256);
                        break;
                    case 1:
                        text = [.. text[..at], .. text[Math.Min(text.Length, at + random.Next(40))..]];
                        break;
                    case 2:
                        var from = random.Next(bytes.Length);
                        text =
                        [
                            .. text[..at],
                            .. bytes[from..Math.Min(bytes.Length, from + random.Next(200))],
                            .. text[at..],
                        ];
                        break;
                    default:
                        text = [.. text[..at], .. text[random.Next(at + 1)..]];
                        break;
                }
            }

            if (SentObject.Read(text, "Europe/London", Samples.Clock) is SentObject.Fit sent)
            {
                fit++;
                _ = sent.Anew("Europe/London", Samples.Clock);
                if (
                    sent.Into(
                        Sender,
                        new EventToWrite(Whole(one), one.Source),
                        Samples.Nobody,
                        NoAnswers,
                        null,
                        "Europe/London",
                        Samples.Clock
                    ) is
                    { } taken
                )
                {
                    _ = CalendarObject.Of(
                        new EventToWrite(
                            Whole(one) with
                            {
                                Time = taken.Time,
                                Content = taken.Content,
                                Series = taken.Series,
                            },
                            taken.Source
                        ),
                        Samples.Nobody,
                        NoAnswers,
                        taken.Alarms,
                        "Europe/London",
                        Samples.Clock
                    );
                }
            }
        }

        Assert.True(fit > 200, $"{fit}");
    }
}
