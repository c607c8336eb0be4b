using Microsoft.EntityFrameworkCore;
using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Availability;
using Mortar.Data.Groups;
using Mortar.Data.Store;

namespace Mortar.Server.Features.Availability;

/// <summary>A group whose members are counted, for one of them.</summary>
internal sealed record CountedGroup(GroupRow Row, IReadOnlyList<PersonId> Members)
{
    /// <summary>The group; <c>null</c> where the reader is not in it.</summary>
    public static async Task<CountedGroup?> Read(
        GroupId id,
        PersonId reader,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var members = await db
            .Members.Where(member => member.GroupId == id)
            .Select(member => member.PersonId)
            .ToListAsync(cancellationToken);
        return members.Contains(reader)
            ? new CountedGroup(
                await db.Groups.AsNoTracking().SingleAsync(one => one.Id == id, cancellationToken),
                members
            )
            : null;
    }

    /// <summary>Its members with their absences as far as the reader sees them; as it would be were some away as well.</summary>
    public async Task<IReadOnlyList<CoverPerson>> People(
        PersonId reader,
        Window window,
        IReadOnlySet<Guid> without,
        TimesReader times,
        CancellationToken cancellationToken
    ) =>
        [
            .. (
                await times.Read(
                    reader,
                    [.. Members.Select(Participant.Of)],
                    window,
                    new TimesScope(Row.Id),
                    cancellationToken
                )
            ).Select(one => new CoverPerson(
                new PersonId(one.Who.Id),
                without.Contains(one.Who.Id) ? BusyTime.Of(window.Span, [(window.Span, Taken.Away)]) : one.Time.Busy,
                one.Hours
            )),
        ];
}
