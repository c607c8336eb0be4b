using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Access;

/// <summary>
/// GET /api/groups/{id}/access: who reaches which of the group's calendars that one coordinates, at which step and by
/// which way. Calendars that one does not coordinate are not in it, and neither is who reaches only those.
/// </summary>
internal static class AccessTable
{
    /// <param name="GroupName">The group's name.</param>
    /// <param name="Calendars">Across, by name.</param>
    /// <param name="Groups">Down, first: whole groups that were given a step.</param>
    /// <param name="Links">Down, then: links to whole calendars that lead somewhere.</param>
    /// <param name="Noticeboards">Down, then: noticeboards that the world reads now.</param>
    /// <param name="People">Down: everybody who reaches one of the calendars, and every member, by name.</param>
    /// <param name="Left">Calendars that nobody of the group coordinates any more, told to those who coordinate the group.</param>
    internal sealed record Body(
        string GroupName,
        IReadOnlyList<CalendarBody> Calendars,
        IReadOnlyList<GroupBody> Groups,
        IReadOnlyList<LinkBody> Links,
        IReadOnlyList<NoticeboardBody> Noticeboards,
        IReadOnlyList<PersonBody> People,
        IReadOnlyList<LeftBody> Left
    );

    internal sealed record LeftBody(Guid CalendarId, string Name);

    internal sealed record CalendarBody(Guid CalendarId, string Name, Hue Hue, Mark Mark, Role GroupDefault);

    /// <summary>A link to hand round, which gives a step on one calendar.</summary>
    /// <param name="MostUses">How many people may use it; <c>null</c> for any number.</param>
    /// <param name="Holders">How many have the calendar on their wall by it.</param>
    internal sealed record LinkBody(
        Guid LinkId,
        string Name,
        int? MostUses,
        int Holders,
        IReadOnlyList<CellBody> Cells
    );

    /// <summary>A noticeboard, and what the world reads there of the calendars.</summary>
    internal sealed record NoticeboardBody(Guid NoticeboardId, string Title, IReadOnlyList<CellBody> Cells);

    internal sealed record GroupBody(Guid GroupId, string Name, int Members, IReadOnlyList<CellBody> Cells);

    /// <param name="Address">Told to coordinators of the group, and of whom was invited there or asked with it.</param>
    /// <param name="IsMember">Whether they are in the group; others come from outside.</param>
    /// <param name="HasLeft">Whether they were in it once and are no longer.</param>
    /// <param name="HasAccount">Whether they can sign in.</param>
    /// <param name="WasHere">Whether they have been here at all.</param>
    /// <param name="EventsAlone">How many events are given to them by themselves, of calendars that nothing else leads them to.</param>
    /// <param name="IsUnseen">Whether they have not been here for long; when just is theirs.</param>
    internal sealed record PersonBody(
        Guid PersonId,
        string Name,
        ToldAddress? Address,
        bool IsMember,
        bool HasLeft,
        bool HasAccount,
        bool WasHere,
        bool IsUnseen,
        int EventsAlone,
        IReadOnlyList<CellBody> Cells
    );

    /// <param name="Role">The step: the highest of all ways.</param>
    /// <param name="Stays">The step that stays where what was given to it alone ends, as <see cref="Standing.Stays"/>.</param>
    /// <param name="Ways">Every way that counts, highest first.</param>
    internal sealed record CellBody(Guid CalendarId, Role Role, Role Stays, IReadOnlyList<WayBody> Ways);

    /// <param name="Group">The name of the group it was given to, for that way.</param>
    internal sealed record WayBody(Way Way, Role Role, string? Group, LocalDate? LastDay);

    internal static void Map(RouteGroupBuilder api) =>
        api.MapGet("/groups/{groupId:guid}/access", Handle).WithName(nameof(AccessTable));

    private static Task<Results<Ok<Body>, ProblemHttpResult>> Handle(
        GroupId groupId,
        Acting acting,
        MortarDb db,
        ZoneClock zones,
        CancellationToken cancellationToken
    ) =>
        db.AccessOverviewOf(groupId, acting.Person, zones, cancellationToken)
            .Answer(overview => Task.FromResult(Of(overview)));

    private static Body Of(AccessOverview overview) =>
        new(
            overview.GroupName,
            [
                .. overview.Calendars.Select(one => new CalendarBody(
                    one.Id.Value,
                    one.Name,
                    one.Hue,
                    one.Mark,
                    one.GroupDefault
                )),
            ],
            [.. overview.Groups.Select(one => new GroupBody(one.Id.Value, one.Name, one.Members, Cells(one.Cells)))],
            [
                .. overview.Links.Select(one => new LinkBody(
                    one.Id.Value,
                    one.Name,
                    one.MostUses,
                    one.Holders,
                    Cells(one.Cells)
                )),
            ],
            [.. overview.Noticeboards.Select(one => new NoticeboardBody(one.Id.Value, one.Title, Cells(one.Cells)))],
            [
                .. overview.People.Select(one => new PersonBody(
                    one.Id.Value,
                    one.Name,
                    one.Address,
                    one.IsMember,
                    one.HasLeft,
                    one.HasAccount,
                    one.WasHere,
                    one.IsUnseen,
                    one.EventsAlone,
                    Cells(one.Cells)
                )),
            ],
            [.. overview.Left.Select(one => new LeftBody(one.Id.Value, one.Name))]
        );

    private static IReadOnlyList<CellBody> Cells(IEnumerable<OverviewCell> cells) =>
        [
            .. cells.Select(cell => new CellBody(
                cell.Calendar.Value,
                cell.Role,
                cell.Stays,
                [.. cell.Ways.Select(way => new WayBody(way.Way, way.Role, way.Group, way.LastDay))]
            )),
        ];
}
