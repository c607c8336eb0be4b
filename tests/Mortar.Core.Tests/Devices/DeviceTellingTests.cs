using Mortar.Core.Access;
using Mortar.Core.Devices;
using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Devices;

/// <summary>What a device is told, held against what the wall shows: the same dates, and no more.</summary>
public class DeviceTellingTests
{
    private static readonly LocalDate Monday = new(2026, 3, 9);
    private static readonly Mortar.Core.Time.Window Week = Studio.Week(Monday);

    private static EventContent Content(string title, bool isPrivate = false, params PersonId[] named) =>
        EventContent.Blank with
        {
            Title = title,
            Place = $"{title} place",
            Notes = $"{title} notes",
            Private = isPrivate,
            Attendees = Attendees.Of(named),
        };

    private static Event Daily(EventContent content, params (int Day, EventContent Content)[] changed)
    {
        var start = Monday.AtMidnight().PlusHours(9);
        var time = Studio.Hours(start, 60);
        return Studio.Event(time) with
        {
            Content = content,
            Series = Series.By(RecurrenceRule.Of("FREQ=DAILY;COUNT=5")) with
            {
                Overrides =
                [
                    .. changed.Select(one => new Override(
                        start.PlusDays(one.Day),
                        time.StartingAt(start.PlusDays(one.Day).PlusHours(2)),
                        one.Content
                    )),
                ],
            },
        };
    }

    public static TheoryData<string, Event> Events { get; } =
        new()
        {
            {
                "single",
                Studio.Event(Studio.Hours(Monday.AtMidnight().PlusHours(9), 60)) with
                {
                    Content = Content("Open"),
                }
            },
            {
                "single, private",
                Studio.Event(Studio.Hours(Monday.AtMidnight().PlusHours(9), 60)) with
                {
                    Content = Content("Mine", true),
                }
            },
            {
                "single, private, named",
                Studio.Event(Studio.Hours(Monday.AtMidnight().PlusHours(9), 60)) with
                {
                    Content = Content("Ours", true, Studio.Priya),
                }
            },
            { "series", Daily(Content("Open"), (1, Content("Changed"))) },
            { "series, one date private", Daily(Content("Open"), (1, Content("Mine", true)), (2, Content("Changed"))) },
            {
                "series, private but for two dates",
                Daily(Content("Mine", true), (1, Content("Open")), (3, Content("Also open")))
            },
            {
                "series, private but for one where she is named",
                Daily(Content("Mine", true), (1, Content("Ours", true, Studio.Priya)))
            },
            { "series, private", Daily(Content("Mine", true)) },
            {
                "series, private from a date on",
                Daily(Content("Open"), (2, Content("Mine", true))) is var whole
                    ? whole with
                    {
                        Series = whole.Series! with
                        {
                            Overrides = [whole.Series!.Overrides[0] with { Range = OverrideRange.AndLater }],
                        },
                    }
                    : whole
            },
            {
                "given by itself",
                Daily(Content("Open"), (1, Content("Mine", true))) with
                {
                    GivenTo = Attendees.Of([Studio.Priya]),
                }
            },
        };

    [Theory]
    [MemberData(nameof(Events))]
    public void It_is_told_the_dates_that_the_wall_shows_and_no_more(string name, Event whole)
    {
        foreach (var role in Enum.GetValues<Role>())
        {
            var wall = VisibleEvent.Through(role, Studio.Priya, whole.Occurrences(Week, Studio.Clock), Week).ToList();
            var (told, _) = DeviceTelling.Told(role, Studio.Priya, whole);
            var dates =
                told?.Occurrences(Week, Studio.Clock)
                    .Select(one => $"{one.Span} {one.Content.Title} {one.Content.Place} {one.Content.Notes}")
                    .ToList()
                ?? [];
            var busy = DeviceTelling.Busy(role, Studio.Priya, [whole], Week, Studio.Clock).Select(one => one.Span);

            var shown = wall.OfType<VisibleEvent.Shown>()
                .Select(one => $"{Studio.Clock.Span(one.Agreed, Week.Reader)} {one.Title} {one.Place} {one.Notes}")
                .ToList();
            if (name.Contains("from a date on", StringComparison.Ordinal) && told is null && role is not Role.None)
            {
                // What has no end that could be left out is told as taken, all of it.
                Assert.Equal(
                    VisibleEvent
                        .Through(Role.Times, Studio.Priya, whole.Occurrences(Week, Studio.Clock), Week)
                        .OfType<VisibleEvent.Busy>()
                        .Select(one => one.Span),
                    busy
                );
                continue;
            }

            Assert.Equal(shown.Order(StringComparer.Ordinal), dates.Order(StringComparer.Ordinal));
            Assert.Equal(wall.OfType<VisibleEvent.Busy>().Select(one => one.Span), busy);
        }
    }

    [Theory]
    [MemberData(nameof(Events))]
    public void Of_what_is_kept_back_nothing_is_in_what_is_told(string name, Event whole)
    {
        Assert.NotEmpty(name);
        foreach (var role in new[] { Role.None, Role.Times, Role.Outline, Role.View, Role.Add })
        {
            if (DeviceTelling.Told(role, Studio.Priya, whole) is (Event told, var isWhole))
            {
                var sees = VisibleEvent.SeesEverything(role, Studio.Priya, whole);
                Assert.Equal(sees, isWhole);
                if (!sees)
                {
                    Assert.Equal((default, default, 1), (told.Id, told.AddedBy, told.Version));
                    Assert.NotEqual(whole.Uid, told.Uid);
                    Assert.DoesNotContain(
                        told.Contents,
                        content => content.Title.StartsWith("Mine", StringComparison.Ordinal)
                    );
                }
            }
        }
    }

    [Fact]
    public void What_a_reader_does_not_see_makes_nothing_other_for_them()
    {
        var before = Daily(Content("Open"), (1, Content("Mine", true)));
        var notes = before with { Content = before.Content with { Notes = "Other" }, Version = 2 };
        var hidden = Daily(Content("Open"), (1, Content("Other mine", true))) with { Id = before.Id, Uid = before.Uid };

        Assert.False(DeviceTelling.IsOther(Role.Outline, Studio.Priya, before, notes));
        Assert.True(DeviceTelling.IsOther(Role.View, Studio.Priya, before, notes));
        Assert.False(DeviceTelling.IsOther(Role.View, Studio.Priya, before, hidden));
        Assert.True(DeviceTelling.IsOther(Role.Edit, Studio.Priya, before, hidden));
        Assert.False(DeviceTelling.IsOther(Role.View, Studio.Priya, before, before with { Version = 9 }));
        Assert.True(DeviceTelling.IsOther(Role.View, Studio.Priya, before, null));
        Assert.False(DeviceTelling.IsOther(Role.Times, Studio.Priya, before, null));
    }
}
