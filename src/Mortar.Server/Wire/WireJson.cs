using System.Reflection;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Words;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace Mortar.Server.Wire;

/// <summary>How things are written on the wire: names of choices in camel case, times in ISO 8601.</summary>
internal static class WireJson
{
    /// <summary>
    /// The first that fits is taken. They are the same for every Mortar of a process, as is what finds out how types are
    /// written: the serialiser then works that out once, and not for each of them.
    /// </summary>
    private static readonly JsonConverter[] Converters =
    [
        new ToldAddresses(),
        new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false),
        new LocalTimes(),
        new LocalDates(),
        .. new JsonSerializerOptions().ConfigureForNodaTime(DateTimeZoneProviders.Tzdb).Converters,
    ];

    private static readonly DefaultJsonTypeInfoResolver Types = new();

    public static void Configure(JsonSerializerOptions options)
    {
        options.NumberHandling = JsonNumberHandling.Strict;
        options.AllowOutOfOrderMetadataProperties = true;

        // A part that is missing is told to the client, instead of being null where nobody expects it.
        options.RespectRequiredConstructorParameters = true;
        options.RespectNullableAnnotations = true;
        foreach (var converter in Converters)
        {
            options.Converters.Add(converter);
        }

        options.TypeInfoResolver = Types;
    }

    /// <summary>Tells the OpenAPI document what the serialiser does: NodaTime's values are strings, cases name themselves.</summary>
    public static void Describe(OpenApiOptions options)
    {
        options.CreateSchemaReferenceId = type =>
            Name(type.Type) ?? OpenApiOptions.CreateDefaultSchemaReferenceId(type);
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
                if (Format(type) is { } format)
                {
                    schema.Type = JsonSchemaType.String;
                    schema.Format = format;
                    schema.Properties?.Clear();
                }
                else if (Choices(type) is { } choices)
                {
                    schema.Type = JsonSchemaType.String;
                    schema.Properties?.Clear();
                    schema.Enum = [.. choices.Select(name => (JsonNode)JsonNamingPolicy.CamelCase.ConvertName(name))];
                }
                else if (type == typeof(ToldAddress))
                {
                    schema.Type = JsonSchemaType.String;
                    schema.Properties?.Clear();
                    schema.Required?.Clear();
                }
                else if (type.IsEnum)
                {
                    schema.Type = JsonSchemaType.String;
                    schema.Enum = [.. (schema.Enum ?? []).Where(value => value is not null)];
                }
                else if (
                    type.BaseType?.GetCustomAttribute<JsonPolymorphicAttribute>() is
                    { TypeDiscriminatorPropertyName: { } name }
                )
                {
                    (schema.Required ??= new HashSet<string>(StringComparer.Ordinal)).Add(name);
                }

                return Task.CompletedTask;
            }
        );
    }

    /// <summary>What can be chosen in an address.</summary>
    private static string[]? Choices(Type type) =>
        type == typeof(ReachQuery) ? Enum.GetNames<Reach>()
        : type == typeof(RoleQuery) ? Enum.GetNames<Role>()
        : type == typeof(TopicQuery) ? Enum.GetNames<HistoryTopic>()
        : null;

    private static string? Format(Type type) =>
        type == typeof(LocalDate) || type == typeof(DateQuery) ? "date"
        : type == typeof(LocalDateTime) || type == typeof(LocalTimeQuery) ? "local-date-time"
        : type == typeof(Instant) ? "date-time"
        : IsId(type) ? "uuid"
        : null;

    private static bool IsId(Type type) =>
        type.Namespace == typeof(PersonId).Namespace && type.GetProperty("Value")?.PropertyType == typeof(Guid);

    /// <summary>A body nested in its use case is named after it: <c>ListAccess.Body</c> is <c>ListAccessBody</c>.</summary>
    private static string? Name(Type type) =>
        (Nullable.GetUnderlyingType(type) ?? type) is { IsNested: true, DeclaringType: { } outer } nested
        && nested.Namespace!.StartsWith("Mortar.", StringComparison.Ordinal)
            ? outer.Name.Replace("Setup", string.Empty, StringComparison.Ordinal) + nested.Name
            : null;
}
