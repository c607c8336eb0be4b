using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Availability;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Availability;

/// <summary>
/// GET /api/groups/{groupId}/cover: day by day who is there and who is away, against how many are needed; for members, as
/// far as they see absences. With <c>without</c> as it would be were these people away as well.
/// </summary>
internal static class ReadCover
{
    /// <param name="Present">Those who are there in their usual hours.</param>
    /// <param name="Missing">Those who would be and are away.</param>
    /// <param name="TooFew">How many too few; 0 where there are enough.</param>
    internal sealed record DayBody(
        LocalDate Day,
        int Needed,
        IReadOnlyList<Guid> Present,
        IReadOnlyList<Guid> Missing,
        int TooFew
    );

    public static void Map(RouteGroupBuilder api) =>
        api.MapGet("/groups/{groupId:guid}/cover", Handle).WithName(nameof(ReadCover));

    private static async Task<Results<Ok<IReadOnlyList<DayBody>>, ProblemHttpResult>> Handle(
        Guid groupId,
        [FromQuery] DateQuery from,
        [FromQuery] DateQuery to,
        [FromQuery] Guid[]? without,
        Acting acting,
        MortarDb db,
        TimesReader times,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var id = new GroupId(groupId);
        var members = await db
            .Members.Where(member => member.GroupId == id)
            .Select(member => member.PersonId)
            .ToListAsync(cancellationToken);
        if (!members.Contains(acting.Person))
        {
            return Problems.NotThere("group");
        }

        if (Ranges.WhyNot(from.Value, to.Value) is { } refusal)
        {
            return refusal;
        }

        // Days are the group's, whoever looks at them.
        var row = await db.Groups.AsNoTracking().SingleAsync(group => group.Id == id, cancellationToken);
        var window = new Window(from.Value, to.Value, zones.Zone(row.Zone));
        var known = await times.Read(
            acting.Person,
            [.. members.Select(Participant.Of)],
            window,
            new TimesScope(id),
            cancellationToken
        );
        var away = (without ?? []).ToHashSet();
        var days = Cover.Every(
            window,
            CoverNeed.Of(row.ToSettings().Cover),
            known.Select(one => new CoverPerson(
                new PersonId(one.Who.Id),
                away.Contains(one.Who.Id) ? BusyTime.Of(window.Span, [(window.Span, Taken.Away)]) : one.Time.Busy,
                one.Hours
            ))
        );
        return TypedResults.Ok<IReadOnlyList<DayBody>>([
            .. days.Select(day => new DayBody(
                day.Day,
                day.Needed,
                [.. day.Present.Select(one => one.Value)],
                [.. day.Missing.Select(one => one.Value)],
                day.TooFew
            )),
        ]);
    }
}
