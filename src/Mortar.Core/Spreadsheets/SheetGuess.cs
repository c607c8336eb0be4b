namespace Mortar.Core.Spreadsheets;

/// <summary>Guesses what the columns of a spreadsheet are: by what stands over them, else by what is in them.</summary>
public static class SheetGuess
{
    /// <summary>The most columns that are looked at.</summary>
    public const int MostColumns = 60;

    /// <summary>Among how many of the first rows the names of the columns are looked for: a merged heading may stand over them.</summary>
    private const int HeadAmong = 10;

    /// <summary>By how many rows a column is judged.</summary>
    private const int JudgedBy = 200;

    /// <summary>What stands over columns, in the languages people bring (common practice, no source; from memory).</summary>
    private static readonly (ColumnRole Role, string[] Names)[] Names =
    [
        (
            ColumnRole.StartDay,
            [
                "starts on",
                "start date",
                "startdate",
                "date",
                "day",
                "from",
                "start",
                "starts",
                "begin",
                "begins",
                "first day",
                "when",
                "datum",
                "tag",
                "von",
                "beginn",
                "début",
                "debut",
                "fecha",
                "data",
            ]
        ),
        (
            ColumnRole.StartTime,
            [
                "starts at",
                "start time",
                "starttime",
                "time",
                "at",
                "from time",
                "begin time",
                "uhrzeit",
                "startzeit",
                "zeit",
                "heure",
                "hora",
                "ora",
            ]
        ),
        (
            ColumnRole.EndDay,
            [
                "ends on",
                "end date",
                "enddate",
                "to",
                "until",
                "till",
                "last day",
                "end",
                "ends",
                "bis",
                "ende",
                "fin",
                "fine",
            ]
        ),
        (
            ColumnRole.EndTime,
            ["ends at", "end time", "endtime", "to time", "until time", "endzeit", "heure de fin", "hora fin"]
        ),
        (ColumnRole.Length, ["lasts", "duration", "length", "hours", "dauer", "durée", "duree", "duración", "durata"]),
        (ColumnRole.Zone, ["time zone", "timezone", "zone", "zeitzone"]),
        (
            ColumnRole.Title,
            [
                "title",
                "event",
                "what",
                "subject",
                "summary",
                "name",
                "activity",
                "titel",
                "was",
                "betreff",
                "veranstaltung",
                "titre",
                "título",
                "titolo",
            ]
        ),
        (ColumnRole.Place, ["place", "location", "where", "room", "venue", "ort", "raum", "lieu", "lugar", "luogo"]),
        (ColumnRole.Kind, ["kind", "type", "category", "art", "kategorie", "catégorie", "categorie", "tipo"]),
        (
            ColumnRole.Notes,
            [
                "notes",
                "note",
                "description",
                "details",
                "comment",
                "comments",
                "remarks",
                "bemerkung",
                "notizen",
                "beschreibung",
                "remarque",
            ]
        ),
    ];

    /// <summary>How a table is read.</summary>
    /// <param name="rows">Its rows.</param>
    /// <param name="wish">What is said of it.</param>
    public static SheetPlan Plan(IReadOnlyList<IncomingRow> rows, SheetWish wish)
    {
        var width = Math.Min(MostColumns, rows.Select(row => row.Cells.Count).DefaultIfEmpty().Max());
        var named = rows.Take(HeadAmong)
            .Select(row => (Row: row, Roles: ByName(row, width, [])))
            .Where(one => one.Roles.Count(role => role != ColumnRole.Nothing) >= 2)
            .ToList();
        var head = wish.Head ?? named.Select(one => one.Row.Number).FirstOrDefault();
        var heading = rows.FirstOrDefault(row => row.Number == head);
        var below = rows.Where(row => row.Number > head).Take(JudgedBy).ToList();
        var roles = heading is null ? new ColumnRole[width] : ByName(heading, width, below);
        var columns = wish.Columns is { } said
            ? [.. Enumerable.Range(0, width).Select(index => index < said.Count ? said[index] : ColumnRole.Nothing)]
            : ByContent(roles, below);
        var days = columns
            .Select((role, index) => (role, index))
            .Where(one => one.role is ColumnRole.StartDay or ColumnRole.EndDay)
            .SelectMany(one => rows.Where(row => row.Number > head).Select(row => row[one.index]))
            .ToList();
        var shown = days.Select(WrittenDates.OrderOf).OfType<DateOrder>().ToLookup(order => order);
        var isMonthFirst = shown[DateOrder.MonthFirst].Count() > shown[DateOrder.DayFirst].Count();
        return new SheetPlan(
            head,
            columns,
            wish.Dates ?? (isMonthFirst ? DateOrder.MonthFirst : DateOrder.DayFirst),
            wish.Dates is not null
                || !days.Exists(WrittenDates.HasOrder)
                || shown[DateOrder.MonthFirst].Any() != shown[DateOrder.DayFirst].Any()
        );
    }

    private static ColumnRole[] ByName(IncomingRow row, int width, List<IncomingRow> below)
    {
        var taken = new HashSet<ColumnRole>();
        return
        [
            .. Enumerable
                .Range(0, width)
                .Select(index => row[index].Text.Trim().TrimEnd(':', '*', '.').Trim().ToLowerInvariant())
                .Select(
                    (name, index) => Fitting(Names.FirstOrDefault(one => one.Names.Contains(name)).Role, below, index)
                )
                .Select(role => role == ColumnRole.Nothing || taken.Add(role) ? role : ColumnRole.Nothing),
        ];
    }

    /// <summary>"From" and "End" stand over days and over times: which it is, is seen in what is under them.</summary>
    private static ColumnRole Fitting(ColumnRole role, List<IncomingRow> below, int index)
    {
        if (role is not (ColumnRole.StartDay or ColumnRole.EndDay))
        {
            return role;
        }

        var cells = below.Select(row => row[index]).Where(cell => !cell.IsEmpty).ToList();
        var times = cells.Count(cell =>
            WrittenDates.Time(cell) is not null && WrittenDates.Day(cell, DateOrder.DayFirst) is null
        );
        return times * 2 <= cells.Count ? role
            : role == ColumnRole.StartDay ? ColumnRole.StartTime
            : ColumnRole.EndTime;
    }

    /// <summary>Fills in what has to be there and was not named: the days, the times, and the words.</summary>
    private static ColumnRole[] ByContent(ColumnRole[] roles, List<IncomingRow> below)
    {
        var columns = roles.ToArray();
        var free = Enumerable
            .Range(0, columns.Length)
            .Where(index => columns[index] == ColumnRole.Nothing)
            .Select(index =>
            {
                var cells = below.Select(row => row[index]).Where(cell => !cell.IsEmpty).ToList();
                return (
                    Index: index,
                    Count: cells.Count,
                    Days: cells.Count(cell => WrittenDates.Day(cell, DateOrder.DayFirst) is not null),
                    Times: cells.Count(cell =>
                        WrittenDates.Time(cell) is not null && WrittenDates.Day(cell, DateOrder.DayFirst) is null
                    )
                );
            })
            .Where(one => one.Count > 0)
            .ToList();
        var isNamed = columns.Any(role => role != ColumnRole.Nothing);
        var days = free.Where(one => one.Days * 2 > one.Count).Select(one => one.Index).ToList();
        var times = free.Where(one => one.Times * 2 > one.Count).Select(one => one.Index).ToList();
        var words = free.Select(one => one.Index).Except(days).Except(times).ToList();
        Take(days, ColumnRole.StartDay);
        Take(words, ColumnRole.Title);
        if (!isNamed)
        {
            // Nothing was named at all: the rest follows in the order people write it.
            Take(days, ColumnRole.EndDay);
            Take(times, ColumnRole.StartTime);
            Take(times, ColumnRole.EndTime);
            Take(words, ColumnRole.Place);
            Take(words, ColumnRole.Notes);
        }

        return columns;

        void Take(List<int> from, ColumnRole role)
        {
            if (from.Count > 0 && !columns.Contains(role))
            {
                columns[from[0]] = role;
                from.RemoveAt(0);
            }
        }
    }
}
