using System.Text;
using Mortar.Core.Spreadsheets;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Formats.ICalendar;
using Mortar.Formats.Spreadsheets;

namespace Mortar.Server.Features.Imports;

/// <summary>How a spreadsheet that is brought is read: shown beside what is in it, and mended by bringing it again.</summary>
internal static class SheetImport
{
    private const int MostShown = 50;

    private const int MostSamples = 3;

    /// <param name="Name">What stands over it; empty where nothing does.</param>
    /// <param name="Samples">The first things in it.</param>
    internal sealed record ColumnBody(string Name, ColumnRole Role, IReadOnlyList<string> Samples);

    /// <param name="Sentence">How it is read, or why it is left out.</param>
    internal sealed record RowBody(int Number, string Sentence, bool LeftOut);

    /// <param name="Head">The row that names the columns; 0 where none does.</param>
    /// <param name="AreDatesSure">Whether some date of it can be read in that order only.</param>
    /// <param name="Rows">The first of them.</param>
    internal sealed record Body(
        int Head,
        DateOrder Dates,
        bool AreDatesSure,
        IReadOnlyList<ColumnBody> Columns,
        IReadOnlyList<RowBody> Rows,
        int RowsInAll
    );

    /// <summary>A spreadsheet as the file it is written from.</summary>
    internal sealed record Made(byte[] Bytes, IReadOnlyList<Finding> Findings, Body Body);

    /// <summary>What is said of how it is to be read.</summary>
    /// <param name="head">The row that names the columns.</param>
    /// <param name="columns">The roles, parted by commas.</param>
    /// <param name="dates">"dayFirst" or "monthFirst".</param>
    public static Checked<SheetWish> Wish(int? head, string? columns, string? dates)
    {
        var problems = new List<FieldProblem>();
        var roles = new List<ColumnRole>();
        foreach (var name in (columns ?? string.Empty).Split(',', StringSplitOptions.RemoveEmptyEntries))
        {
            if (Enum.TryParse<ColumnRole>(name, ignoreCase: true, out var role) && Enum.IsDefined(role))
            {
                roles.Add(role);
            }
            else
            {
                problems.Add(new FieldProblem("columns", "Say for each column what it is taken for."));
                break;
            }
        }

        var order =
            Enum.TryParse<DateOrder>(dates, ignoreCase: true, out var said) && Enum.IsDefined(said)
                ? said
                : (DateOrder?)null;
        if (dates is not null && order is null)
        {
            problems.Add(new FieldProblem("dates", "Say whether the day or the month comes first."));
        }

        if (roles.Where(role => role != ColumnRole.Nothing).GroupBy(role => role).Any(alike => alike.Count() > 1))
        {
            problems.Add(new FieldProblem("columns", "Two columns cannot be taken for the same."));
        }

        return new(new SheetWish(head, columns is null ? null : roles, order), problems);
    }

    /// <summary>How many are read at a time: a workbook unpacks to many times what was sent.</summary>
    private static readonly SemaphoreSlim AtATime = new(2);

    /// <summary>Reads one.</summary>
    public static async Task<(Made? Made, string? WhyNot)> Read(
        byte[] bytes,
        SheetWish wish,
        string zone,
        ZoneClock clock,
        CancellationToken cancellationToken
    )
    {
        await AtATime.WaitAsync(cancellationToken);
        try
        {
            return Read(bytes, wish, zone, clock);
        }
        finally
        {
            AtATime.Release();
        }
    }

    private static (Made? Made, string? WhyNot) Read(byte[] bytes, SheetWish wish, string zone, ZoneClock clock)
    {
        switch (SheetFile.Read(bytes))
        {
            case SheetReading.NotASheet not:
                return (null, not.Sentence);
            case SheetReading.Understood understood:
                var plan = SheetGuess.Plan(understood.Rows, wish);
                var rows = SheetRows.Read(understood.Rows, plan, zone, clock).ToList();
                var head = understood.Rows.FirstOrDefault(row => row.Number == plan.Head);
                var below = understood.Rows.Where(row => row.Number > plan.Head).ToList();
                return (
                    new Made(
                        Encoding.UTF8.GetBytes(SheetCalendar.Of(rows, zone, clock)),
                        [.. SheetCalendar.Findings(rows)],
                        new Body(
                            plan.Head,
                            plan.Dates,
                            plan.AreDatesSure,
                            [
                                .. plan.Columns.Select(
                                    (role, index) =>
                                        new ColumnBody(
                                            Shown(head?[index].Text),
                                            role,
                                            [
                                                .. below
                                                    .Select(row => Shown(row[index].Text))
                                                    .Where(text => text.Length > 0)
                                                    .Distinct()
                                                    .Take(MostSamples),
                                            ]
                                        )
                                ),
                            ],
                            [
                                .. rows.Take(MostShown)
                                    .Select(row => new RowBody(
                                        row.Number,
                                        row.Why is not null && row.Time is not null
                                            ? $"{row.Sentence} ({row.Why})"
                                            : row.Sentence,
                                        row.Time is null
                                    )),
                            ],
                            rows.Count
                        )
                    ),
                    null
                );
            default:
                throw new System.Diagnostics.UnreachableException();
        }
    }

    private static string Shown(string? text) => PlainText.Shorten(PlainText.OneLine(text), 40);
}
