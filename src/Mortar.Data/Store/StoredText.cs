using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace Mortar.Data.Store;

/// <summary>Rows as text: how the change log keeps a state, and how lists inside a row are stored.</summary>
internal static class StoredText
{
    private static readonly JsonSerializerOptions Options = new JsonSerializerOptions
    {
        // The text is stored, never put into a page; without this every accent would be six characters.
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter() },
        IgnoreReadOnlyProperties = true,
    }.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);

    public static string Of(object value) => JsonSerializer.Serialize(value, value.GetType(), Options);

    public static object Read(string text, Type type) =>
        JsonSerializer.Deserialize(text, type, Options)
        ?? throw new InvalidDataException("A stored state is never null.");

    public static T Read<T>(string text) => (T)Read(text, typeof(T));
}
