using System.Collections.Immutable;
using System.Globalization;
using Mortar.Core.Access;
using Mortar.Core.Words;

namespace Mortar.Core.Spreadsheets;

/// <summary>A row of the table of access.</summary>
/// <param name="Name">Who or what reaches the calendars.</param>
/// <param name="Is">What they are to the group: "member", "from outside".</param>
/// <param name="Address">Where the reader is told it.</param>
/// <param name="Cells">What they have.</param>
/// <param name="IsPerson">Whether it is one person, to whom steps come by ways.</param>
public sealed record AccessRow(
    string Name,
    string Is,
    ToldAddress? Address,
    ImmutableArray<OverviewCell> Cells,
    bool IsPerson
);

/// <summary>Who may do what on which calendars of a group, as tables: the steps, and the ways that lead to them.</summary>
public static class AccessRows
{
    /// <summary>The rows: whole groups, links, noticeboards, and people.</summary>
    public static IReadOnlyList<AccessRow> RowsOf(AccessOverview overview) =>
        [
            .. overview.Groups.Select(group => new AccessRow(
                group.Name,
                $"group of {group.Members.ToString(CultureInfo.InvariantCulture)}",
                Address: null,
                group.Cells,
                IsPerson: false
            )),
            .. overview.Links.Select(link => new AccessRow(
                link.Name.Length > 0 ? $"Link “{link.Name}”" : "Link without a name",
                $"link, on {Wording.Count(link.Holders, "wall", "walls")}",
                Address: null,
                link.Cells,
                IsPerson: false
            )),
            .. overview.Noticeboards.Select(board => new AccessRow(
                $"Noticeboard “{board.Title}”",
                "the world",
                Address: null,
                board.Cells,
                IsPerson: false
            )),
            .. overview.People.Select(person => new AccessRow(
                person.Name,
                person.IsMember ? "member"
                    : person.HasLeft ? "left the group"
                    : "from outside",
                person.Address,
                person.Cells,
                IsPerson: true
            )),
        ];

    /// <summary>The tables.</summary>
    public static IReadOnlyList<Table> Of(AccessOverview overview)
    {
        var rows = RowsOf(overview);
        return
        [
            Table.Of(
                "Who has what",
                [
                    new Column("Who", 26),
                    new Column("Is", 16),
                    new Column("Address", 28),
                    .. overview.Calendars.Select(calendar => new Column(calendar.Name, 16)),
                ],
                rows.Select(
                    IReadOnlyList<Cell> (row) =>
                        [
                            Cell.Of(row.Name),
                            Cell.Of(row.Is),
                            Cell.Of(row.Address?.Value),
                            .. overview.Calendars.Select(calendar =>
                                row.Cells.FirstOrDefault(cell => cell.Calendar == calendar.Id)
                                    is { Role: > Role.None } cell
                                    ? Cell.Of(RoleSentence.Name(cell.Role))
                                    : Cell.Empty
                            ),
                        ]
                )
            ) with
            {
                Heads = 1,
            },
            Table.Of(
                "By which way",
                [
                    new Column("Who", 26),
                    new Column("Calendar", 20),
                    new Column("Step", 14),
                    new Column("By", 28),
                    new Column("Until", 12),
                ],
                from row in rows
                from cell in row.Cells
                from way in cell.Ways
                select (IReadOnlyList<Cell>)
                    [
                        Cell.Of(row.Name),
                        Cell.Of(overview.Calendars.First(one => one.Id == cell.Calendar).Name),
                        Cell.Of(RoleSentence.Name(way.Role)),
                        Cell.Of(row.IsPerson ? By(way) : null),
                        way.LastDay is { } last ? Cell.Of(last) : Cell.Empty,
                    ]
            ),
        ];
    }

    private static string By(OverviewWay way) =>
        way.Way switch
        {
            Way.Own => "given to them",
            Way.Group => $"by {way.Group ?? "a group"}",
            Way.Default => "as every member",
            Way.Link => "by a link",
            Way.Guardian => "as a guardian",
            _ => throw new System.Diagnostics.UnreachableException(),
        };
}
