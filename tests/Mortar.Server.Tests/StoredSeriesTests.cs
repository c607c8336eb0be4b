using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Events;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests;

public class StoredSeriesTests
{
    private static readonly LocalDateTime Thursday = new(2026, 3, 12, 19, 0);

    [Fact]
    public void What_is_stored_is_read_again()
    {
        var series = new Series
        {
            Rules = [RecurrenceRule.Of("FREQ=WEEKLY;COUNT=10"), RecurrenceRule.Of("FREQ=YEARLY;BYWEEKNO=1")],
            ExceptRules = [RecurrenceRule.Of("FREQ=MONTHLY;BYDAY=1TH")],
            Extra = [Thursday.PlusDays(1)],
            Excluded = [Thursday.PlusDays(7)],
            Overrides =
            [
                new Override(
                    Thursday.PlusDays(14),
                    EventTime.Days(Thursday.Date, Thursday.Date),
                    new EventContent("Glaze day", "Kiln yard", "Cone 6", ShowAs.Tentative, Cancelled: true),
                    OverrideRange.AndLater
                ),
            ],
            NotShown = "RSCALE=HEBREW;FREQ=YEARLY",
            NominalDays = 2,
            ContinuedFrom = new EventId(Guid.NewGuid()),
        };

        Assert.Equal(series, StoredSeries.Read(StoredSeries.Text(series)));
    }
}
