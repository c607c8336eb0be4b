using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace Mortar.Server.Wire;

/// <summary>How things are written on the wire: names of choices in camel case, times in ISO 8601.</summary>
internal static class WireJson
{
    public static void Configure(JsonSerializerOptions options)
    {
        options.NumberHandling = JsonNumberHandling.Strict;
        options.AllowOutOfOrderMetadataProperties = true;
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        options.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
    }

    /// <summary>Tells the OpenAPI document that NodaTime's values are strings.</summary>
    public static void Describe(OpenApiOptions options) =>
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
                if (type == typeof(LocalDate) || type == typeof(LocalDateTime) || type == typeof(Instant))
                {
                    schema.Type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) is null ? JsonSchemaType.String : JsonSchemaType.String | JsonSchemaType.Null;
                    schema.Format = type == typeof(LocalDate) ? "date" : type == typeof(Instant) ? "date-time" : "local-date-time";
                    schema.Properties?.Clear();
                }

                return Task.CompletedTask;
            }
        );
}
