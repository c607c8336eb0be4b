using System.Globalization;
using Mortar.Core.Roster;

namespace Mortar.Core.Spreadsheets;

/// <summary>A roster as a table: people and places down, days across, in each cell a line for each event.</summary>
public static class RosterRows
{
    /// <summary>The most days that are laid side by side.</summary>
    public const int MostDays = 92;

    /// <summary>The table.</summary>
    public static Table Of(GroupRoster roster) =>
        Table.Of(
            "Roster",
            [new Column("Who", 20), .. roster.Window.Days.Select(day => new Column(Head(day), 24) { Wraps = true })],
            roster.Lines.Select(
                IReadOnlyList<Cell> (line) =>
                    [
                        Cell.Of(line.Row.Name),
                        .. roster.Window.Days.Select(
                            (day, index) =>
                                Cell.Of(
                                    string.Join('\n', line.Days[index].Select(entry => EntryWords.Line(entry, day)))
                                )
                        ),
                    ]
            )
        ) with
        {
            Heads = 1,
        };

    internal static string Head(NodaTime.LocalDate day) => day.ToString("ddd uuuu-MM-dd", CultureInfo.InvariantCulture);
}
