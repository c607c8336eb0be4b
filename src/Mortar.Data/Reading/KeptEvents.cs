using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Answers;
using Mortar.Core.Availability;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Events;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Reading;

/// <summary>An event with what people answered to it, kept for whoever reads it next. Nobody gets it but through the access rules.</summary>
/// <param name="Event">The event.</param>
/// <param name="From">Nothing of it lies before this, in milliseconds since 1970 in UTC.</param>
/// <param name="To">Nothing of it lies after this, in the same.</param>
/// <param name="Answers">All answers to it.</param>
public sealed record KeptEvent(Event Event, long From, long To, GivenAnswer[] Answers)
{
    /// <summary>It as it counts for people's time.</summary>
    public CountedEvent Counted { get; } = CountedEvent.Of(Event) with { Answers = [.. Answers] };

    /// <summary>Whether it can touch one of some stretches, as its index says.</summary>
    internal bool CanTouch((long From, long To)[] stretches)
    {
        foreach (var (from, to) in stretches)
        {
            if (To >= from && From <= to)
            {
                return true;
            }
        }

        return false;
    }

    internal static KeptEvent Of(EventRow row, GivenAnswer[] answers)
    {
        // Whole days and floating times are indexed as UTC.
        var whole = row.ToCore();
        var isExact =
            whole.Time is EventTime.Timed
            && (whole.Series is not { } series || series.Overrides.All(one => one.Time is EventTime.Timed));
        var slack = isExact ? Duration.Zero : EventQueries.Slack;
        return new KeptEvent(
            whole,
            (row.IndexStart - slack).ToUnixTimeMilliseconds(),
            (row.IndexEnd + slack).ToUnixTimeMilliseconds(),
            answers
        );
    }
}

/// <summary>
/// The events of calendars, week by week, as they were read from the store and as long as they hold: turning rows into
/// events is half of what a wall costs, and thirty people who look at one plan see the same events.
/// </summary>
/// <remarks>
/// Whoever reads takes note of the log first (<see cref="LogTail.Now"/>), which throws out every week that a change touched. What is
/// being read meanwhile is thrown out with it, so that nobody who comes after a commit gets what was read before it.
/// </remarks>
public sealed class KeptEvents
{
    /// <summary>How much is kept at most; the calendars that were not asked for the longest go first.</summary>
    public const int Most = 150_000;

    private const int LoadsBetweenLooks = 16;

    private const long LengthOfWeek = 7L * 24 * 60 * 60 * 1_000;

    private readonly IServiceScopeFactory scopes;
    private readonly ConcurrentDictionary<CalendarId, Weeks> calendars = new();
    private long asked;
    private int loads;

    public KeptEvents(IServiceScopeFactory scopes, LogTail tail)
    {
        this.scopes = scopes;
        tail.TellFirst(Forget);
    }

    /// <summary>How many events are kept, those of several weeks once in each, and how many weeks: of empty ones anybody can ask for any number.</summary>
    public int Count => calendars.Values.Sum(calendar => calendar.Count);

    /// <summary>The events of some calendars that can touch the window, calendar by calendar; a few may not when looked at closely.</summary>
    public Task<ILookup<CalendarId, KeptEvent>> Touching(
        IReadOnlyCollection<CalendarId> ids,
        Window window,
        CancellationToken cancellationToken
    ) => Touching(ids, [window.Span], cancellationToken);

    /// <summary>The same for those that can touch one of some stretches.</summary>
    public async Task<ILookup<CalendarId, KeptEvent>> Touching(
        IReadOnlyCollection<CalendarId> ids,
        IReadOnlyCollection<Interval> stretches,
        CancellationToken cancellationToken
    )
    {
        var reached = stretches
            .Select(one => (From: one.Start.ToUnixTimeMilliseconds(), To: one.End.ToUnixTimeMilliseconds()))
            .ToArray();
        var wanted = reached.SelectMany(one => Weeks.Between(WeekOf(one.From), WeekOf(one.To))).ToHashSet();
        var (weeks, missing) = (new List<Task<KeptEvent[]>>(ids.Count * wanted.Count), new Missing());
        var turn = Interlocked.Increment(ref asked);
        foreach (var id in ids)
        {
            var calendar = calendars.GetOrAdd(id, _ => new Weeks());
            calendar.Asked = turn;
            foreach (var week in wanted)
            {
                weeks.Add(calendar.GetOrClaim(id, week, missing));
            }
        }

        if (missing.Weeks.Count > 0)
        {
            await Load(missing);
        }

        var found = new Dictionary<EventId, KeptEvent>();
        foreach (var week in weeks)
        {
            foreach (var one in await week.WaitAsync(cancellationToken))
            {
                // What lasts over a week stands in several.
                if (one.CanTouch(reached))
                {
                    found.TryAdd(one.Event.Id, one);
                }
            }
        }

        return found.Values.ToLookup(one => one.Event.CalendarId);
    }

    private static long WeekOf(Instant instant) => WeekOf(instant.ToUnixTimeMilliseconds());

    private static long WeekOf(long milliseconds) => (long)Math.Floor(milliseconds / (double)LengthOfWeek);

    private static Instant StartOf(long week) => Instant.FromUnixTimeMilliseconds(week * LengthOfWeek);

    /// <summary>Reads what is missing for all who wait for it; not stopped when the one who asked first goes away.</summary>
    private async Task Load(Missing missing)
    {
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<MortarDb>();
            var ids = missing.Weeks.Keys.Select(key => key.Calendar).Distinct().ToList();
            var from = StartOf(missing.Weeks.Keys.Min(key => key.Week));
            var to = StartOf(missing.Weeks.Keys.Max(key => key.Week) + 1);
            var rows = db.RowsBetween(ids, from - EventQueries.Slack, to + EventQueries.Slack);
            var events = await rows.ToListAsync();
            var answers = (
                await db
                    .Answers.AsNoTracking()
                    .Where(row => ids.Contains(row.CalendarId) && rows.Any(one => one.Id == row.EventId))
                    .ToListAsync()
            ).ToLookup(row => row.EventId, row => row.ToCore());
            var loaded = missing.Weeks.Keys.ToDictionary(key => key, _ => new List<KeptEvent>());
            foreach (var row in events)
            {
                var one = KeptEvent.Of(row, [.. answers[row.Id]]);
                var last = Math.Min(WeekOf(one.To), WeekOf(to) - 1);
                for (var week = Math.Max(WeekOf(one.From), WeekOf(from)); week <= last; week++)
                {
                    if (loaded.TryGetValue((row.CalendarId, week), out var ofWeek))
                    {
                        ofWeek.Add(one);
                    }
                }
            }

            foreach (var (key, waiting) in missing.Weeks)
            {
                waiting.SetResult([.. loaded[key]]);
            }
        }
        catch (Exception bad)
        {
            foreach (var (key, waiting) in missing.Weeks)
            {
                if (calendars.TryGetValue(key.Calendar, out var calendar))
                {
                    calendar.Remove(key.Week, waiting.Task);
                }

                waiting.TrySetException(bad);

                // Whoever waits for it is told; that nobody does is no fault of its own.
                _ = waiting.Task.Exception;
            }

            return;
        }

        if (Interlocked.Increment(ref loads) % LoadsBetweenLooks == 0)
        {
            LeaveOld();
        }
    }

    private void Forget(IReadOnlyList<TailEntry>? entries)
    {
        if (entries is null)
        {
            foreach (var calendar in calendars.Values)
            {
                calendar.Remove(long.MinValue, long.MaxValue);
            }

            return;
        }

        foreach (var entry in entries)
        {
            if (entry.Subject is Subject.Answer && calendars.TryGetValue(entry.CalendarId!.Value, out var answered))
            {
                answered.Remove(entry.Answered!.Value);
            }

            foreach (var row in new[] { entry.RowBefore, entry.RowAfter }.OfType<EventRow>())
            {
                if (calendars.TryGetValue(row.CalendarId, out var calendar))
                {
                    calendar.Remove(
                        WeekOf(row.IndexStart - EventQueries.Slack),
                        WeekOf(row.IndexEnd + EventQueries.Slack)
                    );
                }
            }
        }
    }

    private void LeaveOld()
    {
        var count = Count;
        if (count <= Most)
        {
            return;
        }

        foreach (var (id, calendar) in calendars.OrderBy(one => one.Value.Asked).ToList())
        {
            if (count <= Most * 3 / 4)
            {
                return;
            }

            count -= calendar.Count;
            calendars.TryRemove(id, out _);
        }
    }

    /// <summary>What one reading has to bring, for itself and for whoever comes meanwhile.</summary>
    private sealed class Missing
    {
        public Dictionary<(CalendarId Calendar, long Week), TaskCompletionSource<KeptEvent[]>> Weeks { get; } = [];
    }

    private sealed class Weeks
    {
        private readonly ConcurrentDictionary<long, Task<KeptEvent[]>> all = new();

        public static IEnumerable<long> Between(long first, long last)
        {
            for (var week = first; week <= last; week++)
            {
                yield return week;
            }
        }

        public int Count => all.Values.Sum(LengthOf);

        /// <summary>When it was asked for last, counted in questions.</summary>
        public long Asked { get; set; }

        public Task<KeptEvent[]> GetOrClaim(CalendarId id, long week, Missing missing)
        {
            if (all.TryGetValue(week, out var there))
            {
                return there;
            }

            var mine = new TaskCompletionSource<KeptEvent[]>(TaskCreationOptions.RunContinuationsAsynchronously);
            there = all.GetOrAdd(week, mine.Task);
            if (there == mine.Task)
            {
                missing.Weeks.Add((id, week), mine);
            }

            return there;
        }

        public void Remove(long week, Task<KeptEvent[]> loading) => all.TryRemove(KeyValuePair.Create(week, loading));

        public void Remove(long first, long last)
        {
            foreach (var week in all.Keys)
            {
                if (week >= first && week <= last)
                {
                    all.TryRemove(week, out _);
                }
            }
        }

        /// <summary>Removes the weeks with one event, and what is being read.</summary>
        public void Remove(EventId one)
        {
            foreach (var week in all)
            {
                if (!week.Value.IsCompletedSuccessfully || week.Value.Result.Any(kept => kept.Event.Id == one))
                {
                    all.TryRemove(week);
                }
            }
        }

        private static int LengthOf(Task<KeptEvent[]> loaded) =>
            1 + (loaded.IsCompletedSuccessfully ? loaded.Result.Length : 0);
    }
}
