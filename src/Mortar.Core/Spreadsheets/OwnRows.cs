using System.Diagnostics;
using Mortar.Core.Access;
using NodaTime;

namespace Mortar.Core.Spreadsheets;

/// <summary>A calendar that somebody reaches, as they take that along.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Group">Its group; empty where that is not told.</param>
/// <param name="Standing">Where they stand with it.</param>
/// <param name="Zone">The calendar's zone, on whose clock access ends.</param>
public sealed record OwnAccess(string Name, string Group, Standing Standing, DateTimeZone Zone);

/// <summary>Something that somebody did.</summary>
/// <param name="At">When, on their own clock.</param>
/// <param name="About">What it was done to; may be empty.</param>
/// <param name="What">What was done, in words.</param>
public sealed record OwnDeed(LocalDateTime At, string About, string What);

/// <summary>What is somebody's own, as tables they take along.</summary>
public static class OwnRows
{
    /// <summary>What they may do where, and by which ways; a calendar of which only events are given to them is in it, too.</summary>
    public static Table Access(IEnumerable<OwnAccess> calendars) =>
        Table.Of(
            "My access",
            [
                new Column("Calendar", 26),
                new Column("Group", 26),
                new Column("Step", 14),
                new Column("By", 20),
                new Column("Until", 12),
            ],
            from one in calendars
            from grant in one.Standing.Grants.Select(Grant? (grant) => grant).DefaultIfEmpty()
            select (IReadOnlyList<Cell>)
                [
                    Cell.Of(one.Name),
                    Cell.Of(one.Group),
                    Cell.Of(grant is { } step ? RoleSentence.Name(step.Role) : "single events"),
                    Cell.Of(grant is { } way ? By(way.Way) : "given by themselves"),
                    grant?.EndsAt is { } end ? Cell.Of(AccessEnd.LastDay(end, one.Zone)) : Cell.Empty,
                ]
        );

    /// <summary>What they did, the latest first.</summary>
    public static Table Deeds(IAsyncEnumerable<OwnDeed> deeds) =>
        new(
            "What I did",
            [
                new Column("Day", 12),
                new Column("Time", 8),
                new Column("About", 30),
                new Column("What", 60) { Wraps = true },
            ],
            deeds.Select(
                IReadOnlyList<Cell> (one) =>
                    [Cell.Of(one.At.Date), Cell.Of(one.At.TimeOfDay), Cell.Of(one.About), Cell.Of(one.What)]
            )
        );

    private static string By(Way way) =>
        way switch
        {
            Way.Own => "given to me",
            Way.Group => "by a group",
            Way.Default => "as every member",
            Way.Link => "by a link",
            Way.Guardian => "as a guardian",
            _ => throw new UnreachableException(),
        };
}
