using System.Text.Json;
using System.Text.Json.Nodes;
using Mortar.Core.Noticeboards;
using Mortar.Core.Time;
using NodaTime.Text;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>Events as search engines read them: schema.org/Event in JSON-LD.</summary>
internal static class BoardData
{
    private const string Open = """<script type="application/ld+json">""";
    private const string Close = "</script>";

    /// <summary>One event, with all that its page tells.</summary>
    public static string Of(BoardModel model, BoardEntry entry) => Element(One(model, entry));

    /// <summary>What is on a page; of busy times there is nothing to say.</summary>
    public static string Of(BoardModel model, IEnumerable<BoardEntry> entries)
    {
        var all = entries
            .Where(entry => entry.Event is not null)
            .Distinct()
            .Select(entry => One(model, entry))
            .ToArray();
        return all.Length == 0
            ? string.Empty
            : Element(new JsonObject { ["@context"] = "https://schema.org", ["@graph"] = new JsonArray([.. all]) });
    }

    private static JsonObject One(BoardModel model, BoardEntry entry)
    {
        var data = new JsonObject
        {
            ["@context"] = "https://schema.org",
            ["@type"] = "Event",
            ["name"] = model.TitleOf(entry),
            ["startDate"] = At(entry, model, isEnd: false),
            ["endDate"] = At(entry, model, isEnd: true),
            ["eventStatus"] = entry.Cancelled
                ? "https://schema.org/EventCancelled"
                : "https://schema.org/EventScheduled",
            ["url"] = model.EventUrl(entry),
        };
        if (entry.Place.Length > 0)
        {
            data["location"] = new JsonObject
            {
                ["@type"] = "Place",
                ["name"] = entry.Place,
                ["address"] = entry.Place,
            };
        }

        if (entry.Notes.Length > 0)
        {
            data["description"] = entry.Notes;
        }

        return data;
    }

    /// <summary>A date for whole days, both included; else a local time with its offset (schema.org/startDate).</summary>
    private static string At(BoardEntry entry, BoardModel model, bool isEnd) =>
        entry.Time is EventTime.AllDay days
            ? LocalDatePattern.Iso.Format(isEnd ? days.Last : days.First)
            : OffsetDateTimePattern.ExtendedIso.Format(
                (isEnd ? entry.Span.End : entry.Span.Start).InZone(model.Zone).ToOffsetDateTime()
            );

    /// <summary>In an element of a page; the writer escapes every character that could end it.</summary>
    private static string Element(JsonObject data) => Open + data.ToJsonString(JsonSerializerOptions.Default) + Close;
}
