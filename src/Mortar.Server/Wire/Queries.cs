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

file static class Parsed
{
    public static T GetValueOrDefault<T>(this ParseResult<T> result)
        where T : struct => result.TryGetValue(default, out var value) ? value : default;
}
