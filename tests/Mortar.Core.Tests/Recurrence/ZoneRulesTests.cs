using CsCheck;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Recurrence;

public class ZoneRulesTests
{
    /// <summary>What the European Union does since 1996, under a name nobody knows.</summary>
    private static readonly ZoneRules Kiln = new(
        "Kiln time",
        [
            new ZoneChange(
                new LocalDateTime(1996, 10, 27, 3, 0),
                Offset.FromHours(2),
                Offset.FromHours(1),
                RecurrenceRule.Of("FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU")
            ),
            new ZoneChange(
                new LocalDateTime(1996, 3, 31, 2, 0),
                Offset.FromHours(1),
                Offset.FromHours(2),
                RecurrenceRule.Of("FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU")
            ),
        ]
    );

    private static readonly KnownZones Zones = new(DateTimeZoneProviders.Tzdb);

    [Fact]
    public void A_defined_zone_has_the_offsets_of_its_rules() =>
        Gen.Long[838_000_000, 4_000_000_000]
            .Sample(second =>
                Zones[Kiln.Id].GetUtcOffset(Instant.FromUnixTimeSeconds(second))
                == Zones["Europe/Berlin"].GetUtcOffset(Instant.FromUnixTimeSeconds(second))
            );

    [Fact]
    public void Its_id_is_all_there_is_to_know()
    {
        Assert.Equal(Kiln, ZoneRules.FromId(Kiln.Id));
        Assert.Equal("Kiln time", ZoneRules.NameOf(Kiln.Id));
        Assert.Equal("Europe/Berlin", ZoneRules.NameOf("Europe/Berlin"));
    }

    [Theory]
    [InlineData("")]
    [InlineData("rules:")]
    [InlineData("rules:Kiln")]
    [InlineData("rules:Kiln|")]
    [InlineData("rules:Kiln|19960331T020000,+01")]
    [InlineData("rules:Kiln|19960331T020000,+01,+99")]
    [InlineData("rules:Kiln|19960331T020000,+01,+02,FREQ=SECONDLY")] // a clock that changes every second is none
    [InlineData("rules:Kiln|19960331T020000,+01,+02,FREQ=FORTNIGHTLY")]
    [InlineData("Nowhere/Land")]
    public void What_is_no_zone_is_not_known(string id) => Assert.False(new ZoneClock(Zones).Knows(id));

    [Fact]
    public void Series_in_it_keep_their_wall_clock_time()
    {
        var series = Studio.Event(
            Studio.Hours(new LocalDateTime(2026, 3, 19, 19, 0), 60, Kiln.Id),
            Studio.Every("FREQ=WEEKLY")
        );
        var window = new Window(new LocalDate(2026, 3, 23), new LocalDate(2026, 4, 5), DateTimeZone.Utc);

        Assert.Equal(
            ["2026-03-26T18:00:00Z", "2026-04-02T17:00:00Z"],
            Core.Events.SeriesExpansion.Occurrences(series, window, Studio.Clock)
                .Select(one => one.Span.Start.ToString())
        );
    }

    [Fact]
    public void Zones_agree_where_all_their_offsets_are_the_same()
    {
        var since1996 = new Interval(Instant.FromUtc(1997, 1, 1, 0, 0), Instant.FromUtc(2040, 1, 1, 0, 0));

        Assert.True(ZoneRules.Agree(Zones[Kiln.Id], Zones["Europe/Berlin"], since1996));
        Assert.False(ZoneRules.Agree(Zones[Kiln.Id], Zones["Europe/London"], since1996));
        Assert.False(ZoneRules.Agree(Zones[Kiln.Id], Zones["Africa/Lagos"], since1996));
    }
}
