using System.Text.Json;
using System.Text.Json.Serialization;
using Mortar.Core.Access;

namespace Mortar.Server.Wire;

/// <summary>An address that may be told is text on the wire; none is ever made of what comes in.</summary>
internal sealed class ToldAddresses : JsonConverter<ToldAddress>
{
    public override ToldAddress Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        throw new NotSupportedException("An address that comes in is not one that may be told.");

    public override void Write(Utf8JsonWriter writer, ToldAddress value, JsonSerializerOptions options) =>
        writer.WriteStringValue(value.Value);
}
