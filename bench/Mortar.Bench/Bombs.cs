using System.Text;
using BenchmarkDotNet.Attributes;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Formats.ICalendar;
using NodaTime;

namespace Mortar.Bench;

/// <summary>
/// What somebody writes to cost the others, as the others pay for it; each with its bound in docs/benchmarks.md. Run with the
/// heap held at 1 GB: DOTNET_GCHeapHardLimit=0x40000000.
/// </summary>
[MemoryDiagnoser]
public class Bombs
{
    private static readonly PersonId Ines = new(Guid.NewGuid());
    private static readonly CalendarId Kiln = new(Guid.NewGuid());
    private static readonly Window Week = Mix.Window(7);

    private readonly Event everySecond = Make(RecurrenceRule.Of("FREQ=SECONDLY"), minutes: 1);
    private readonly Event everySecondForNoTime = Make(RecurrenceRule.Of("FREQ=SECONDLY"), minutes: 0);
    private CountedCalendar crowd = null!;
    private GapQuestion question = null!;
    private GapPool pool = null!;
    private byte[] badLines = [];
    private byte[] manyRules = [];

    [GlobalSetup]
    public void Setup()
    {
        var everybody = Attendees.Of(Enumerable.Range(0, 450).Select(_ => new PersonId(Guid.NewGuid())));
        crowd = new CountedCalendar(
            Kiln,
            Purpose.Events,
            WhoseTime.Named,
            [],
            [
                .. Enumerable
                    .Range(0, 300)
                    .Select(_ => Make(rule: null, minutes: 60))
                    .Select(one => one with { Content = one.Content with { Attendees = everybody } })
                    .Select(CountedEvent.Of),
            ]
        );
        var within = Mix.Window(400).Span;
        var random = new Random(1);
        List<Invitee> twelve =
        [
            .. Enumerable
                .Range(0, 12)
                .Select(_ => new Invitee(
                    Participant.Of(new PersonId(Guid.NewGuid())),
                    Need.Required,
                    BusyTime.Of(
                        within,
                        Enumerable
                            .Range(0, 800)
                            .Select(_ => within.Start + Duration.FromMinutes(random.Next(400 * 1_440)))
                            .Select(start => (new Interval(start, start + Duration.FromHours(2)), Taken.Busy))
                    ),
                    null
                )),
        ];
        question = new GapQuestion([], within, Duration.FromHours(1));
        pool = new GapPool(twelve, 6);
        badLines = File(
            "BEGIN:VEVENT\r\nUID:one\r\nDTSTART:20260311T100000Z\r\n",
            "?\r\n",
            6_600_000,
            "END:VEVENT\r\n"
        );
        manyRules = File(
            "BEGIN:VEVENT\r\nUID:one\r\nDTSTART:20260311T100000Z\r\n",
            "RRULE:FREQ=DAILY\r\n",
            20_000,
            "END:VEVENT\r\n"
        );
    }

    /// <summary>A booking every second in a place that takes one at a time, as it is looked at under the write lock.</summary>
    [Benchmark]
    public BookingCheck BookingEverySecond() => Booked(everySecond);

    /// <summary>The same of no time at all, which collides with nothing.</summary>
    [Benchmark]
    public BookingCheck MomentEverySecond() => Booked(everySecondForNoTime);

    /// <summary>An event every second on another one's wall.</summary>
    [Benchmark]
    public int EverySecondOnAWall() =>
        VisibleEvent.Through(Role.View, Ines, everySecond.Shown(Week, Mix.Clock), Week).Count();

    /// <summary>Three hundred events at one hour that name 450 people.</summary>
    [Benchmark]
    public int CrowdCollides()
    {
        var found = Clashes.Among(
            TakenTimes.In([crowd], Week, new Dictionary<PersonId, DateTimeZone>(), Mix.Clock),
            whose: null
        );
        return found.Told.Length + found.More;
    }

    /// <summary>Any six of twelve over 400 days.</summary>
    [Benchmark]
    public int SixOfTwelve() =>
        GapPools
            .Find(question with { Within = GapReach.Of(question.Within, 12, GapReach.Choices(12, 6)) }, pool, most: 201)
            .Length;

    /// <summary>A file of 20 MB that is nothing but bad lines.</summary>
    [Benchmark]
    public int BadLines() => Findings(badLines);

    /// <summary>An event with 20,000 rules.</summary>
    [Benchmark]
    public int ManyRules() => Findings(manyRules);

    private static int Findings(byte[] file) =>
        CalendarFile.Read(file, "Europe/London", Mix.Clock) is CalendarFileReading.Understood read
            ? read.FindingsInAll
            : throw new InvalidOperationException("It is a calendar.");

    private static BookingCheck Booked(Event one)
    {
        var zone = Mix.Clock.Zone("Europe/London");
        return Bookings.Check([one], [], Bookings.Reach([one], zone, Mix.Window(1).First), Mix.Clock);
    }

    private static byte[] File(string begin, string line, int count, string end) =>
        Encoding.UTF8.GetBytes(
            $"BEGIN:VCALENDAR\r\n{begin}{string.Concat(Enumerable.Repeat(line, count))}{end}END:VCALENDAR\r\n"
        );

    private static Event Make(RecurrenceRule? rule, int minutes)
    {
        var start = Mix.Window(7).First.PlusDays(1) + new LocalTime(9, 0);
        return new Event(
            new EventId(Guid.NewGuid()),
            Kiln,
            Guid.NewGuid().ToString(),
            Ines,
            EventTime.InZone(start, start.PlusMinutes(minutes), "Europe/London"),
            EventContent.Blank with
            {
                Title = "Kiln",
            },
            rule is null ? null : Series.By(rule),
            Version: 1
        );
    }
}
