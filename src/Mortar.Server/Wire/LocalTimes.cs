using System.Text.Json;
using System.Text.Json.Serialization;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace Mortar.Server.Wire;

/// <summary>
/// Writes local times as NodaTime's own converters do and reads with them (ISO 8601, <c>2026-03-11T09:00:00</c>), without a text
/// made for each: a wall has thousands, and they were half of what it takes to write it.
/// </summary>
internal sealed class LocalTimes : JsonConverter<LocalDateTime>
{
    private static readonly JsonConverter<LocalDateTime> Exact = NodaConverters.LocalDateTimeConverter;

    public override LocalDateTime Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        Exact.Read(ref reader, typeToConvert, options);

    public override void Write(Utf8JsonWriter writer, LocalDateTime value, JsonSerializerOptions options)
    {
        if (value.NanosecondOfSecond != 0 || value.Year is < 1 or > 9999)
        {
            Exact.Write(writer, value, options);
            return;
        }

        Span<byte> text = stackalloc byte[19];
        LocalDates.Put(text, value.Date);
        text[10] = (byte)'T';
        LocalDates.Put(text[11..13], value.Hour);
        text[13] = (byte)':';
        LocalDates.Put(text[14..16], value.Minute);
        text[16] = (byte)':';
        LocalDates.Put(text[17..19], value.Second);
        writer.WriteStringValue(text);
    }
}

/// <summary>The same for dates.</summary>
internal sealed class LocalDates : JsonConverter<LocalDate>
{
    private static readonly JsonConverter<LocalDate> Exact = NodaConverters.LocalDateConverter;

    public override LocalDate Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        Exact.Read(ref reader, typeToConvert, options);

    public override void Write(Utf8JsonWriter writer, LocalDate value, JsonSerializerOptions options)
    {
        if (value.Year is < 1 or > 9999)
        {
            Exact.Write(writer, value, options);
            return;
        }

        Span<byte> text = stackalloc byte[10];
        Put(text, value);
        writer.WriteStringValue(text);
    }

    internal static void Put(Span<byte> text, LocalDate date)
    {
        Put(text[..2], date.Year / 100);
        Put(text[2..4], date.Year % 100);
        text[4] = (byte)'-';
        Put(text[5..7], date.Month);
        text[7] = (byte)'-';
        Put(text[8..10], date.Day);
    }

    internal static void Put(Span<byte> two, int number) =>
        (two[0], two[1]) = ((byte)('0' + (number / 10)), (byte)('0' + (number % 10)));
}
