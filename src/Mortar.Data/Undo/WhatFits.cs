using System.Text.Json.Nodes;
using Mortar.Data.Kinds;

namespace Mortar.Data.Undo;

/// <summary>Takes back of a change what nobody has changed since: the state as it is now, with those of its parts as they were before that are still as the change left them.</summary>
internal static class WhatFits
{
    /// <param name="kind">What it is a state of: what of it belongs together, and what follows from the rest.</param>
    /// <param name="now">The state as it is.</param>
    /// <param name="before">The state before the change.</param>
    /// <param name="after">The state that it left.</param>
    /// <returns><c>null</c> where nothing fits.</returns>
    public static string? Of(ChangeKind kind, string now, string before, string after)
    {
        var (current, was, left) = (Parts(now), Parts(before), Parts(after));
        var fits = false;
        foreach (var part in Together(kind, was, left).Where(part => part.Any(name => !Same(was, left, name))))
        {
            if (!part.All(name => Same(current, left, name)))
            {
                continue;
            }

            fits = true;
            foreach (var name in part)
            {
                current.Remove(name);
                if (was[name] is { } value)
                {
                    current[name] = value.DeepClone();
                }
            }
        }

        return fits ? current.ToJsonString(Options) : null;
    }

    private static readonly System.Text.Json.JsonSerializerOptions Options = new()
    {
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    private static IEnumerable<IReadOnlyCollection<string>> Together(ChangeKind kind, JsonObject was, JsonObject left)
    {
        var names = was.Select(one => one.Key)
            .Union(left.Select(one => one.Key))
            .Except(kind.Derived, StringComparer.Ordinal)
            .ToHashSet(StringComparer.Ordinal);
        foreach (var part in kind.Together)
        {
            if (part.Any(names.Contains))
            {
                names.ExceptWith(part);
                yield return part;
            }
        }

        foreach (var name in names)
        {
            yield return [name];
        }
    }

    private static JsonObject Parts(string state) =>
        JsonNode.Parse(state) as JsonObject ?? throw new InvalidDataException("A stored state is an object.");

    private static bool Same(JsonObject one, JsonObject other, string name) =>
        JsonNode.DeepEquals(one[name], other[name]);
}
