using System.Collections.Immutable;
using System.Globalization;
using Mortar.Core.Time;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Core.Recurrence;

/// <summary>One change that comes again by a rule, or once: a STANDARD or DAYLIGHT part of a VTIMEZONE (RFC 5545, 3.6.5).</summary>
/// <param name="Onset">The first time, on the clock as it was before the change.</param>
/// <param name="From">The offset before it.</param>
/// <param name="To">The offset after it.</param>
/// <param name="Rule">When it comes again; <c>null</c> for once.</param>
public sealed record ZoneChange(LocalDateTime Onset, Offset From, Offset To, RecurrenceRule? Rule);

/// <summary>A zone that no database knows, as a file defines it.</summary>
/// <remarks>
/// Its id holds the whole definition, so that an event that lives in it can be read anywhere without another table:
/// <c>rules:NAME|19700329T020000,+01,+02,FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU|…</c>. Compared by content.
/// </remarks>
/// <param name="Name">The name the file gives it (TZID).</param>
/// <param name="Changes">Its changes, in the order of the file; at least one.</param>
public sealed record ZoneRules(string Name, ImmutableArray<ZoneChange> Changes)
{
    /// <summary>What every id of this sort begins with.</summary>
    public const string Prefix = "rules:";

    /// <summary>The longest id that is read; a real definition has some hundred characters.</summary>
    public const int LongestId = 8_000;

    /// <summary>Rules are followed to the end of this year; the last offset stays after it.</summary>
    public const int LastYear = 2150;

    private const int MostChanges = 400;

    private static readonly LocalDateTimePattern Time = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );

    /// <summary>The id of the zone.</summary>
    public string Id =>
        Prefix
        + Name.Replace('|', ' ')
        + string.Concat(
            Changes.Select(one =>
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"|{Time.Format(one.Onset)},{OffsetPattern.GeneralInvariant.Format(one.From)},{OffsetPattern.GeneralInvariant.Format(one.To)}{(one.Rule is null ? string.Empty : $",{one.Rule}")}"
                )
            )
        );

    /// <summary>Reads an id; <c>null</c> where it is none of this sort.</summary>
    public static ZoneRules? FromId(string id)
    {
        if (!id.StartsWith(Prefix, StringComparison.Ordinal) || id.Length > LongestId)
        {
            return null;
        }

        var parts = id[Prefix.Length..].Split('|');
        var changes = parts.Skip(1).Select(Change).ToList();
        return changes.Count is 0 or > MostChanges || changes.Contains(null)
            ? null
            : new ZoneRules(parts[0], [.. changes.Select(one => one!)]);
    }

    /// <summary>The name to show for a zone: that of its definition, or its id.</summary>
    public static string NameOf(string id) => FromId(id)?.Name ?? id;

    /// <summary>The zone itself.</summary>
    public DateTimeZone ToZone()
    {
        var end = new LocalDateTime(LastYear, 12, 31, 0, 0);
        var changes =
            from one in Changes
            from onset in one.Rule is null
                ? [one.Onset]
                : one.Rule.Starts(one.Onset, one.Onset).Prepend(one.Onset).Distinct().TakeWhile(onset => onset <= end)
            select (onset.WithOffset(one.From).ToInstant(), one.To);
        return DefinedZone.Of(Id, Changes.MinBy(one => one.Onset)!.From, changes.ToList());
    }

    /// <summary>Whether the zone has the same offsets as another from one instant to another.</summary>
    public static bool Agree(DateTimeZone one, DateTimeZone other, Interval during) =>
        Offsets(one, during).SequenceEqual(Offsets(other, during));

    private static IEnumerable<(Instant, Offset)> Offsets(DateTimeZone zone, Interval during)
    {
        Offset? before = null;
        foreach (var interval in zone.GetZoneIntervals(during))
        {
            if (interval.WallOffset != before)
            {
                before = interval.WallOffset;
                var start = interval.HasStart ? Instant.Max(interval.Start, during.Start) : during.Start;
                yield return (start, interval.WallOffset);
            }
        }
    }

    private static ZoneChange? Change(string text)
    {
        var parts = text.Split(',', 4);
        if (
            parts.Length < 3
            || !Time.Parse(parts[0]).TryGetValue(default, out var onset)
            || !OffsetPattern.GeneralInvariant.Parse(parts[1]).TryGetValue(default, out var from)
            || !OffsetPattern.GeneralInvariant.Parse(parts[2]).TryGetValue(default, out var to)
        )
        {
            return null;
        }

        if (parts.Length == 3)
        {
            return new ZoneChange(onset, from, to, null);
        }

        // A change of the clock comes once a year or so; anything quicker is no zone and would take long to follow.
        return RecurrenceRule.Parse(parts[3]) is RuleParse.Ok { Rule: { Frequency: Frequency.Yearly } rule }
            ? new ZoneChange(onset, from, to, rule)
            : null;
    }

    /// <inheritdoc />
    public bool Equals(ZoneRules? other) => other is not null && Id == other.Id;

    /// <inheritdoc />
    public override int GetHashCode() => Id.GetHashCode(StringComparison.Ordinal);
}

/// <summary>A zone database, and beside it the zones whose ids hold their own rules.</summary>
/// <param name="database">The database; its zones come first.</param>
public sealed class KnownZones(IDateTimeZoneProvider database) : IDateTimeZoneProvider
{
    private const int MostRemembered = 1_000;

    // What is remembered follows from the id alone, so it does not matter who is first.
    private readonly System.Collections.Concurrent.ConcurrentDictionary<string, DateTimeZone> remembered = new(
        StringComparer.Ordinal
    );

    /// <inheritdoc />
    public string VersionId => database.VersionId;

    /// <inheritdoc />
    public System.Collections.ObjectModel.ReadOnlyCollection<string> Ids => database.Ids;

    /// <inheritdoc />
    public DateTimeZone this[string id] =>
        GetZoneOrNull(id) ?? throw new NodaTime.TimeZones.DateTimeZoneNotFoundException($"There is no zone “{id}”.");

    /// <inheritdoc />
    public DateTimeZone GetSystemDefault() => database.GetSystemDefault();

    /// <inheritdoc />
    public DateTimeZone? GetZoneOrNull(string id)
    {
        if (!id.StartsWith(ZoneRules.Prefix, StringComparison.Ordinal))
        {
            return database.GetZoneOrNull(id);
        }

        if (remembered.TryGetValue(id, out var known))
        {
            return known;
        }

        if (ZoneRules.FromId(id)?.ToZone() is not { } zone)
        {
            return null;
        }

        if (remembered.Count >= MostRemembered)
        {
            remembered.Clear();
        }

        return remembered[id] = zone;
    }
}
