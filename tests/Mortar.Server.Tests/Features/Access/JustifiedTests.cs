using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Server.Features.Demo;
using NodaTime;
using Xunit;

namespace Mortar.Server.Tests.Features;

/// <summary>
/// Drawn sequences of giving, ending, expiring and undoing, after which nobody holds more than the log justifies: it is read
/// from its beginning, and whoever raised something had to coordinate the calendar just then, and for as long.
/// </summary>
public class JustifiedTests
{
    private static readonly Guid Raku = DemoPeople.Stable("Raku club");
    private static readonly DemoPerson[] People = [DemoPeople.Ines, DemoPeople.Dele, DemoPeople.Priya];
    private static readonly string[] Steps = ["view", "edit", "coordinate", "coordinate"];

    /// <summary>What a row gave at a moment.</summary>
    private sealed record Held(string Role, Instant? EndsAt)
    {
        public bool CountsAt(Instant now) => Role != "None" && (EndsAt is not { } end || now < end);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    public async Task Nobody_holds_more_than_the_log_justifies(int seed)
    {
        var (clock, draw) = (new SetClock(), new Random(seed));
        await using var mortar = await TestMortar.StartAt(clock);
        var browsers = new List<Browser>();
        foreach (var person in People)
        {
            browsers.Add(await mortar.As(person));
        }

        var calendar = await browsers[0].MakeCalendar();
        var path = $"/api/calendars/{calendar.Value}";
        var links = new[] { Guid.NewGuid(), Guid.NewGuid() };
        var sets = new List<(int Actor, Guid Set)>();
        var done = new Dictionary<string, int>(StringComparer.Ordinal);
        for (var step = 0; step < 120; step++)
        {
            var (actor, set) = (draw.Next(People.Length), Guid.NewGuid());
            var browser = browsers[actor];
            var whom = People[draw.Next(People.Length)].Id.Value;
            var lastDay = draw.Next(2) == 0 ? null : Day(clock.Now + Duration.FromDays(draw.Next(4)));
            var link = links[draw.Next(links.Length)];
            var (what, answer) = draw.Next(9) switch
            {
                0 or 1 => ("give", await Put($"access/{whom}", new { role = Steps[draw.Next(Steps.Length)], lastDay })),
                2 => ("end", await browser.Delete($"{path}/access/{whom}", set: set)),
                3 => ("give group", await Put($"group-access/{Raku}", new { role = "edit", lastDay })),
                4 => ("end group", await browser.Delete($"{path}/group-access/{Raku}", set: set)),
                5 => ("link", await Put($"links/{link}", new { role = "edit", lastDay })),
                6 => ("end link", await browser.Delete($"{path}/links/{link}", set: set)),
                7 when sets.Count > 0 => await Undo(),
                _ => await Wait(),
            };
            done[$"{what} {answer?.Status}"] = done.GetValueOrDefault($"{what} {answer?.Status}") + 1;
            if (answer is { Status: 200 or 204 } && what != "wait")
            {
                sets.Add((actor, set));
            }

            Task<Answer> Put(string route, object body) => browser.Put($"{path}/{route}", body, set: set);

            async Task<(string, Answer?)> Undo()
            {
                // What lies far back has mostly been changed again since, which stops an undo before access does.
                var (by, which) = sets[^(1 + draw.Next(Math.Min(sets.Count, 4)))];
                actor = by;
                return ("undo", await browsers[by].Post($"/api/changes/{which}/undo", set: set));
            }

            Task<(string, Answer?)> Wait()
            {
                clock.Now += Duration.FromHours(draw.Next(40));
                return Task.FromResult<(string, Answer?)>(("wait", null));
            }
        }

        // It is about something: much was done, and much refused.
        Assert.True(
            done.Where(one => one.Key.StartsWith("undo 200", StringComparison.Ordinal)).Sum(one => one.Value) > 2,
            Told(done)
        );
        Assert.True(
            done.Where(one => one.Key.Contains(" 4", StringComparison.Ordinal)).Sum(one => one.Value) > 5,
            Told(done)
        );
        await IsJustified(mortar, calendar.Value);
        browsers.ForEach(browser => browser.Dispose());
    }

    private static string Told(Dictionary<string, int> done) =>
        string.Join(", ", done.OrderBy(one => one.Key).Select(one => $"{one.Key}: {one.Value}"));

    private static string Day(Instant at) => at.InUtc().Date.ToString("uuuu-MM-dd", null);

    /// <summary>Reads the log from its beginning; the first grant of a calendar is that of who made it.</summary>
    private static async Task IsJustified(TestMortar mortar, Guid calendar)
    {
        var log = await mortar.Store(db =>
            db.Changes.AsNoTracking()
                .Where(change =>
                    change.CalendarId == new Core.Words.CalendarId(calendar)
                    && (
                        change.Subject == Subject.Grant
                        || change.Subject == Subject.GroupGrant
                        || change.Subject == Subject.Link
                    )
                )
                .OrderBy(change => change.Sequence)
                .ToListAsync()
        );
        var (held, own, isFirst) = (new Dictionary<Guid, Held>(), new Dictionary<Guid, Held>(), true);
        foreach (var change in log)
        {
            var state = JsonDocument.Parse(change.After!).RootElement;
            var isEnded = state.TryGetProperty("EndedAt", out var ended) && ended.ValueKind != JsonValueKind.Null;
            var now = new Held(
                isEnded ? "None" : state.GetProperty("Role").GetString()!,
                state.TryGetProperty("EndsAt", out var end) && end.ValueKind == JsonValueKind.String
                    ? NodaTime.Text.InstantPattern.ExtendedIso.Parse(end.GetString()!).Value
                    : null
            );
            var before = held.GetValueOrDefault(change.SubjectId);
            if (!isFirst && now.CountsAt(change.At) && IsMore(before, now, change.At))
            {
                var by = own.GetValueOrDefault(change.Actor.Value);
                Assert.True(
                    by is { Role: "Coordinate" } && by.CountsAt(change.At) && Outlasts(by.EndsAt, now.EndsAt),
                    $"{change.Sequence}: {change.Subject} became {now} from {before} at {change.At} by one who held {by}"
                );
            }

            held[change.SubjectId] = now;
            if (change.Subject == Subject.Grant)
            {
                own[state.GetProperty("PersonId").GetProperty("Value").GetGuid()] = now;
            }

            isFirst = false;
        }

        Assert.Contains(own.Values, one => one is { Role: "Coordinate", EndsAt: null });
    }

    private static bool IsMore(Held? before, Held now, Instant at) =>
        before is null
        || !before.CountsAt(at)
        || Enum.Parse<Role>(now.Role) > Enum.Parse<Role>(before.Role)
        || !Outlasts(before.EndsAt, now.EndsAt);

    private static bool Outlasts(Instant? one, Instant? other) =>
        one is not { } end || (other is { } then && then <= end);
}
