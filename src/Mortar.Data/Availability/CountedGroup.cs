using Microsoft.EntityFrameworkCore;
using Mortar.Core.Availability;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Availability;

/// <summary>People who are taken as away as well, to see what that would do.</summary>
public sealed record Without(IReadOnlySet<Guid> People, Interval Span)
{
    public static Without Nobody { get; } = new(new HashSet<Guid>(), default);
}

/// <summary>A group whose members are counted, for one of them.</summary>
public sealed record CountedGroup(GroupRow Row, IReadOnlyList<PersonId> Members)
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
        return
            members.Contains(reader)
            && await db
                .Groups.AsNoTracking()
                .FirstOrDefaultAsync(one => one.Id == id && one.DeletedAt == null, cancellationToken)
                is { } row
            ? new CountedGroup(row, members)
            : null;
    }

    /// <summary>What is known of its members' time, as far as the reader sees it.</summary>
    public Task<IReadOnlyList<KnownParticipant>> Known(
        PersonId reader,
        Window window,
        TimesReader times,
        CancellationToken cancellationToken
    ) => times.Read(reader, [.. Members.Select(Participant.Of)], window, new TimesScope(Row.Id), cancellationToken);

    /// <summary>Its members with their absences as far as the reader sees them; as it would be were some away as well.</summary>
    public async Task<IReadOnlyList<CoverPerson>> People(
        PersonId reader,
        Window window,
        Without without,
        TimesReader times,
        CancellationToken cancellationToken
    ) =>
        [
            .. (await Known(reader, window, times, cancellationToken)).Select(one => new CoverPerson(
                new PersonId(one.Who.Id),
                without.People.Contains(one.Who.Id)
                    ? BusyTime.Of(window.Span, [(without.Span, Taken.Away)])
                    : one.Time.Busy,
                one.Hours
            )
            {
                Proposed =
                [
                    .. one
                        .Seen.Where(takenTime => takenTime is { IsAbsence: true, How: Taken.Tentative })
                        .Select(takenTime => takenTime.Occurrence.Span),
                ],
            }),
        ];
}
