using System.Security.Cryptography;
using Mortar.Core.Access;
using Mortar.Core.Availability;
using Mortar.Core.Words;
using Mortar.Data.Calendars;

namespace Mortar.Data.Reading;

/// <summary>A calendar and the step that somebody has on it; none where only events are given to them by themselves.</summary>
public sealed record SeenCalendar(CalendarRow Row, Role Role);

/// <summary>What one person may read, and whose time the calendars on their wall take.</summary>
public sealed class Sight(
    PersonId person,
    IReadOnlyList<SeenCalendar> calendars,
    ILookup<GroupId, PersonId> members,
    IReadOnlyDictionary<CalendarId, Willing> willing
)
{
    private readonly Dictionary<CalendarId, Role> roles = calendars.ToDictionary(one => one.Row.Id, one => one.Role);
    private Dictionary<CalendarId, byte[]>? likenesses;
    private string? likenessOnAll;

    /// <summary>Whose.</summary>
    public PersonId Person => person;

    /// <summary>All calendars they reach, and those of events given to them by themselves.</summary>
    public IReadOnlyList<SeenCalendar> Calendars => calendars;

    /// <summary>Who is in those groups that the person is in.</summary>
    public ILookup<GroupId, PersonId> Members => members;

    /// <summary>Whose time each calendar may take.</summary>
    public IReadOnlyDictionary<CalendarId, Willing> Willing => willing;

    /// <summary>The ids of all the calendars.</summary>
    public IReadOnlySet<CalendarId> All { get; } = calendars.Select(one => one.Row.Id).ToHashSet();

    /// <summary>Names this reading: what was read by another one may have been seen by other rules.</summary>
    public Guid Stamp { get; private init; } = Guid.NewGuid();

    /// <summary>This reading under the name of an earlier one, where all it decides is as it was then.</summary>
    internal Sight After(Sight? earlier) =>
        earlier is not null && earlier.LikenessOn(earlier.All) == LikenessOn(All)
            ? new Sight(person, calendars, members, willing) { Stamp = earlier.Stamp }
            : this;

    /// <summary>
    /// Stands for all that decides what its person sees of some calendars and whom their events take, but for what depends
    /// on who they are: two with the same have the same read.
    /// </summary>
    public string LikenessOn(IReadOnlySet<CalendarId> some) =>
        some.Count == All.Count ? likenessOnAll ??= Likeness(All) : Likeness(some);

    private string Likeness(IEnumerable<CalendarId> some)
    {
        likenesses ??= Likenesses(calendars, members, willing);
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        foreach (var calendar in some.OrderBy(one => one.Value))
        {
            hash.AppendData(likenesses[calendar]);
        }

        return Convert.ToHexString(hash.GetHashAndReset());
    }

    /// <summary>The step on a calendar.</summary>
    public Role RoleOn(CalendarId calendar) => roles.GetValueOrDefault(calendar, Role.None);

    /// <summary>Whether any step or event leads to a calendar.</summary>
    public bool Has(CalendarId calendar) => roles.ContainsKey(calendar);

    private static Dictionary<CalendarId, byte[]> Likenesses(
        IReadOnlyList<SeenCalendar> calendars,
        ILookup<GroupId, PersonId> members,
        IReadOnlyDictionary<CalendarId, Willing> willing
    )
    {
        var people = new Dictionary<object, byte[]>(ReferenceEqualityComparer.Instance);
        return calendars.ToDictionary(
            one => one.Row.Id,
            one =>
            {
                using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
                hash.AppendData(one.Row.Id.Value.ToByteArray());
                hash.AppendData((one.Row.Person ?? default).Value.ToByteArray());
                hash.AppendData([(byte)one.Role, (byte)one.Row.Purpose, (byte)one.Row.Takes]);
                if (one.Role is Role.Times or Role.Outline)
                {
                    // Whom events take is not for them, and so neither is that it is others now.
                    return hash.GetHashAndReset();
                }

                hash.AppendData(HashOf(members[one.Row.GroupId]));
                hash.AppendData(HashOf(willing[one.Row.Id].Group));
                hash.AppendData(HashOf(willing[one.Row.Id].Themselves));
                return hash.GetHashAndReset();
            }
        );

        // Most calendars of a group have the same people.
        byte[] HashOf(IEnumerable<PersonId> those)
        {
            if (!people.TryGetValue(those, out var known))
            {
                people[those] = known = SHA256.HashData(
                    those.Select(one => one.Value).Order().SelectMany(id => id.ToByteArray()).ToArray()
                );
            }

            return known;
        }
    }
}
