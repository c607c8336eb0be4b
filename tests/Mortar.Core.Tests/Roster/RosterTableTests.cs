using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Roster;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Roster;

public class RosterTableTests
{
    private static readonly LocalDate Monday = new(2026, 3, 9);
    private static readonly Window Week = Studio.Week(Monday);
    private static readonly CalendarId Rota = Id(1);
    private static readonly CalendarId Kiln = Id(2);
    private static readonly CalendarId Own = Id(3);
    private static readonly CalendarId All = Id(4);

    private static CalendarId Id(int number) => new(new Guid(number, 0, 0, new byte[8]));

    private static VisibleCalendar Seen(string name, Purpose purpose, WhoseTime takes, PersonId? person = null) =>
        VisibleCalendar.Through(
            Role.View,
            new CalendarSettings(name, string.Empty, Hue.Iron, Mark.Cone, Studio.London, purpose, Role.None)
            {
                Takes = takes,
                Person = person,
            }
        )!;

    private static readonly Dictionary<CalendarId, VisibleCalendar> Calendars = new()
    {
        [Rota] = Seen("Rota", Purpose.Events, WhoseTime.Named),
        [Kiln] = Seen("Kiln", Purpose.Place, WhoseTime.Named),
        [Own] = Seen("Priya’s time", Purpose.Events, WhoseTime.Person, Studio.Priya),
        [All] = Seen("Studio", Purpose.Events, WhoseTime.Group),
    };

    private static RosterEntry Entry(
        CalendarId calendar,
        string title,
        EventTime time,
        Role role,
        params PersonId[] named
    )
    {
        var whole = Studio.Event(time, title: title);
        whole = whole with { Content = whole.Content with { Attendees = Attendees.Of(named) } };
        return RosterEntry.Of(
            calendar,
            Assert.Single(VisibleEvent.Through(role, Studio.Ines, whole.Occurrences(Week, Studio.Clock), Week)),
            Week.Reader
        );
    }

    private static EventTime At(int day, int hour, int hours = 1) =>
        Studio.Hours(Monday.PlusDays(day).At(new LocalTime(hour, 0)), hours * 60);

    private static List<string> Lay(params RosterEntry[] entries) =>
        [
            .. RosterTable
                .Lay(
                    RosterTable.Rows([(Studio.Ines, "Ines"), (Studio.Priya, "Priya")], [(Kiln, "Kiln")]),
                    entries,
                    Calendars,
                    Week
                )
                .SelectMany(line =>
                    line.Days.SelectMany(
                        (day, index) =>
                            day.Select(entry =>
                                $"{line.Row.Name} {index}: {EntryWords.Line(entry, Monday.PlusDays(index))}"
                            )
                    )
                ),
        ];

    [Fact]
    public void What_is_seen_lies_in_the_rows_of_those_it_concerns()
    {
        Assert.Equal(
            ["Ines 0: 09:00–10:00 Desk", "Priya 0: 09:00–10:00 Desk"],
            Lay(Entry(Rota, "Desk", At(0, 9), Role.View, Studio.Ines, Studio.Priya))
        );
        Assert.Equal(["Everyone 0: 09:00–10:00 Desk"], Lay(Entry(Rota, "Desk", At(0, 9), Role.View)));
        Assert.Equal(
            ["Everyone 0: 09:00–10:00 Desk"],
            Lay(Entry(Rota, "Desk", At(0, 9), Role.View, new PersonId(Guid.NewGuid())))
        );
        Assert.Equal(
            ["Priya 0: 09:00–10:00 Firing", "Kiln 0: 09:00–10:00 Firing"],
            Lay(Entry(Kiln, "Firing", At(0, 9), Role.View, Studio.Priya))
        );
        Assert.Equal(["Priya 0: 09:00–10:00 Busy"], Lay(Entry(Own, "Dentist", At(0, 9), Role.Times)));
        Assert.Equal(
            ["Everyone 0: 09:00–10:00 Party", "Ines 0: 09:00–10:00 Party"],
            Lay(Entry(All, "Party", At(0, 9), Role.View, Studio.Ines))
        );
    }

    [Fact]
    public void A_day_has_its_whole_days_first_and_a_night_says_where_it_comes_from_and_goes()
    {
        Assert.Equal(
            [
                "Ines 1: Away",
                "Ines 1: 09:00–10:00 Early",
                "Ines 1: from 22:00 Night",
                "Ines 2: until 02:00 Night",
                "Ines 3: 22:00–00:00 Late",
            ],
            Lay(
                Entry(Rota, "Night", At(1, 22, 4), Role.View, Studio.Ines),
                Entry(Rota, "Early", At(1, 9), Role.View, Studio.Ines),
                Entry(Rota, "Away", EventTime.Days(Monday.PlusDays(1), Monday.PlusDays(1)), Role.View, Studio.Ines),
                Entry(Rota, "Late", At(3, 22, 2), Role.View, Studio.Ines)
            )
        );
    }
}
