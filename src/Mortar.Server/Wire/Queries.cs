using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Server.Wire;

/// <summary>A date in an address, as <c>2026-03-11</c>.</summary>
internal readonly record struct DateQuery(LocalDate Value)
{
    public static bool TryParse(string? text, out DateQuery date)
    {
        var parsed = LocalDatePattern.Iso.Parse(text ?? string.Empty);
        date = new DateQuery(parsed.GetValueOrDefault());
        return parsed.Success;
    }
}

/// <summary>A local time in an address, as <c>2026-03-11T19:00:00</c>.</summary>
internal readonly record struct LocalTimeQuery(LocalDateTime Value)
{
    public static bool TryParse(string? text, out LocalTimeQuery time)
    {
        var parsed = LocalDateTimePattern.ExtendedIso.Parse(text ?? string.Empty);
        time = new LocalTimeQuery(parsed.GetValueOrDefault());
        return parsed.Success;
    }
}

/// <summary>A step of the ladder, in an address.</summary>
internal readonly record struct RoleQuery(Role Value)
{
    public static bool TryParse(string? text, out RoleQuery role)
    {
        var parsed = Enum.TryParse<Role>(text, ignoreCase: true, out var value) && Enum.IsDefined(value);
        role = new RoleQuery(value);
        return parsed;
    }
}

/// <summary>How far a change goes, in an address.</summary>
internal readonly record struct ReachQuery(Reach Value)
{
    public static bool TryParse(string? text, out ReachQuery reach)
    {
        var parsed = Enum.TryParse<Reach>(text, ignoreCase: true, out var value) && Enum.IsDefined(value);
        reach = new ReachQuery(value);
        return parsed;
    }

    /// <summary>What is said; else the one occurrence that is named, or all where none is.</summary>
    public static Reach Or(ReachQuery? said, LocalTimeQuery? only) =>
        said?.Value ?? (only is null ? Reach.Whole : Reach.OnlyThis);
}

file static class Parsed
{
    public static T GetValueOrDefault<T>(this ParseResult<T> result)
        where T : struct => result.TryGetValue(default, out var value) ? value : default;
}

/// <summary>What a history is narrowed to, in an address.</summary>
internal readonly record struct TopicQuery(HistoryTopic Value)
{
    public static bool TryParse(string? text, out TopicQuery topic)
    {
        var parsed = Enum.TryParse<HistoryTopic>(text, ignoreCase: true, out var value) && Enum.IsDefined(value);
        topic = new TopicQuery(value);
        return parsed;
    }
}
