using System.Security.Cryptography;
using System.Text;
using Mortar.Core.Noticeboards;
using Mortar.Core.Words;
using Mortar.Formats.ICalendar;
using NodaTime;
using NodaTime.Text;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>A noticeboard as other calendar programs read it: all that its page tells, and nothing else.</summary>
internal static class BoardFiles
{
    private static readonly Duration Refresh = Duration.FromHours(1);
    private static readonly LocalDateTimePattern Start = LocalDateTimePattern.CreateWithInvariantCulture(
        "uuuuMMdd'T'HHmmss"
    );

    /// <summary>All of it.</summary>
    /// <param name="model">What it is.</param>
    /// <param name="contents">What is on it.</param>
    /// <param name="stamp">Since when that is so.</param>
    public static string All(BoardModel model, BoardContents contents, Instant stamp) =>
        PublishedCalendar.Write(
            Head(model, model.FeedUrl),
            contents
                .Entries.Where(entry => entry.Event is not null)
                .OrderBy(entry => entry.Span.Start)
                .ThenBy(entry => Uid(entry), StringComparer.Ordinal)
                .Select(entry => Published(model, entry)),
            [
                .. contents
                    .Entries.Where(entry => entry.Event is null)
                    .Select(entry => new PublishedBusy(entry.Span, entry.Tentative)),
            ],
            contents.Reach,
            stamp
        );

    /// <summary>Stands for all that it tells now.</summary>
    public static string HashOf(BoardModel model, BoardContents contents) =>
        Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(All(model, contents, Instant.MinValue))));

    /// <summary>One event of it, taken once.</summary>
    public static string One(BoardModel model, BoardEntry entry, Instant changedAt) =>
        PublishedCalendar.Write(Head(model, source: null), [Published(model, entry)], [], entry.Span, changedAt);

    private static PublishedHead Head(BoardModel model, string? source) =>
        new(model.Board.Title, model.Board.Words, model.Board.Accent, model.Url, source, Refresh);

    private static PublishedEvent Published(BoardModel model, BoardEntry entry)
    {
        var names = model.NamesOn(entry).ToList();
        return new PublishedEvent(Uid(entry), entry.Revision, entry.Time, entry.Span, model.TitleOf(entry))
        {
            Place = entry.Place,
            Notes = string.Join(
                "\n\n",
                new[] { entry.Notes, names.Count > 0 ? $"With {Wording.List(names)}." : "" }.Where(one =>
                    one.Length > 0
                )
            ),
            Kind = entry.Kind ?? string.Empty,
            Cancelled = entry.Cancelled,
            Tentative = entry.Tentative,
            Free = entry.Free,
            Page = model.EventUrl(entry),
        };
    }

    private static string Uid(BoardEntry entry) =>
        entry.Occurrence is { } start
            ? $"{entry.Event!.Value.Value:N}-{Start.Format(start)}"
            : $"{entry.Event!.Value.Value:N}";
}
