using CsCheck;

namespace Mortar.Core.Tests.Recurrence;

/// <summary>Rules drawn at random: every part that the standard allows beside the others, each with odd values too.</summary>
internal static class AnyRule
{
    private static readonly Gen<string> End = Gen.OneOfConst(
        string.Empty,
        string.Empty,
        ";COUNT=7",
        ";UNTIL=20261224",
        ";UNTIL=20261224T100000Z"
    );

    private static readonly Gen<string> Months = Sometimes(";BYMONTH=2", ";BYMONTH=3,10", ";BYMONTH=1,12");

    private static readonly Gen<string> MonthDays = Sometimes(
        ";BYMONTHDAY=1",
        ";BYMONTHDAY=13,-1",
        ";BYMONTHDAY=29,30,31",
        ";BYMONTHDAY=-31,-5"
    );

    private static readonly Gen<string> Weekdays = Sometimes(";BYDAY=MO", ";BYDAY=TU,TH,SU", ";BYDAY=MO,TU,WE,TH,FR");

    private static readonly Gen<string> Numbered = Sometimes(
        ";BYDAY=MO",
        ";BYDAY=TU,TH,SU",
        ";BYDAY=1FR,-1SU",
        ";BYDAY=5WE",
        ";BYDAY=WE,2MO"
    );

    private static readonly Gen<string> YearDays = Sometimes(
        ";BYYEARDAY=1,100,200",
        ";BYYEARDAY=60,-1",
        ";BYYEARDAY=366"
    );

    private static readonly Gen<string> Weeks = Sometimes(";BYWEEKNO=20", ";BYWEEKNO=1,53", ";BYWEEKNO=-1,10");

    private static readonly Gen<string> Hours = Sometimes(";BYHOUR=9", ";BYHOUR=8,23,0");

    private static readonly Gen<string> Minutes = Sometimes(";BYMINUTE=0", ";BYMINUTE=15,45,59");

    private static readonly Gen<string> Seconds = Sometimes(";BYSECOND=0", ";BYSECOND=30,60");

    private static readonly Gen<string> Positions = Sometimes(";BYSETPOS=1", ";BYSETPOS=-1,2", ";BYSETPOS=3,-2,50");

    private static readonly Gen<string> Week = Gen.OneOfConst(string.Empty, ";WKST=SU", ";WKST=TH");

    /// <summary>By days and longer.</summary>
    public static readonly Gen<string> Days = Gen.Frequency(
        (1, From("DAILY", Gen.Int[1, 40], Months, MonthDays, Weekdays, Positions)),
        (1, From("WEEKLY", Gen.Int[1, 5], Months, Weekdays, Positions)),
        (2, From("MONTHLY", Gen.Int[1, 7], Months, MonthDays, Numbered, Positions)),
        (2, From("YEARLY", Gen.Int[1, 3], Months, MonthDays, Numbered, YearDays, Positions)),
        (1, From("YEARLY", Gen.Int[1, 3], Months, Weekdays, Weeks, MonthDays, Positions))
    );

    /// <summary>By days and longer, with times of day of their own.</summary>
    public static readonly Gen<string> Times =
        from days in Days
        from hours in Hours
        from minutes in Minutes
        from seconds in Seconds
        select days + hours + minutes + seconds;

    /// <summary>By hours, minutes and seconds.</summary>
    public static readonly Gen<string> WithinDays = Gen.Frequency(
        (3, From("HOURLY", Gen.Int[1, 50], Months, MonthDays, Weekdays, YearDays, Hours, Minutes, Seconds, Positions)),
        (2, From("MINUTELY", Gen.Int[1, 3_000], Months, MonthDays, Weekdays, Hours, Minutes, Seconds, Positions)),
        (1, From("SECONDLY", Gen.Int[1, 90_000], Weekdays, Hours, Minutes, Seconds))
    );

    /// <summary>Any of them.</summary>
    public static readonly Gen<string> Any = Gen.Frequency((2, Days), (2, Times), (1, WithinDays));

    private static Gen<string> Sometimes(params string[] values) =>
        Gen.Frequency((2, Gen.Const(string.Empty)), (1, Gen.OneOfConst(values)));

    /// <summary>BYSETPOS needs another part to pick from, so it is dropped where there is none.</summary>
    private static Gen<string> From(string frequency, Gen<int> interval, params Gen<string>[] parts) =>
        from every in interval
        from end in End
        from week in Week
        from drawn in parts.Aggregate(
            Gen.Const(string.Empty),
            (all, part) =>
                from before in all
                from next in part
                select next.StartsWith(";BYSETPOS", StringComparison.Ordinal)
                && !before.Contains(";BY", StringComparison.Ordinal)
                    ? before
                    : before + next
        )
        select $"FREQ={frequency};INTERVAL={every}{end}{drawn}{week}";
}
