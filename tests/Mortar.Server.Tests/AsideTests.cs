using System.Text;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Events;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using Mortar.Server.Features.Demo;
using Mortar.Server.Features.Imports;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>Thousands of events are made aside: others go on meanwhile, and what they do then is not written over.</summary>
public class AsideTests
{
    private const int Many = 1_200;

    [Fact]
    public async Task While_many_events_are_made_others_write_and_both_are_there()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var dele = await mortar.As(DemoPeople.Dele);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.Edit);

        var outcome = await Import(
            mortar,
            calendar,
            meanwhile: time => time == 1 ? dele.MakeEvent(calendar, "Meanwhile") : Task.CompletedTask
        );

        Assert.Equal(Many, outcome);
        Assert.Contains(await ines.Bricks(calendar), brick => brick.Text("title") == "Meanwhile");
        Assert.Equal(Many + 1, await Count(mortar, calendar));
        Assert.Equal(
            Many + 1,
            await mortar.Store(db =>
                db.Changes.CountAsync(row => row.CalendarId == calendar && row.Subject == Core.Changes.Subject.Event)
            )
        );
        Assert.Empty(Left(mortar));
    }

    [Fact]
    public async Task Where_others_do_not_leave_off_nothing_is_written_and_it_is_said()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();

        var outcome = await Import(mortar, calendar, meanwhile: time => ines.MakeEvent(calendar, $"Again {time}"));

        Assert.Equal("changed-meanwhile", Assert.IsType<Refusal.AgainstRule>(outcome.WhyNot).Type);
        Assert.All(
            await ines.Bricks(calendar),
            brick => Assert.StartsWith("Again", brick.Text("title"), StringComparison.Ordinal)
        );
        Assert.Equal(4, await Count(mortar, calendar));
        Assert.Empty(Left(mortar));
    }

    [Fact]
    public async Task An_event_that_is_moved_away_meanwhile_is_not_written_over()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (calendar, other) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        await Import(mortar, calendar);
        var one = (await ines.Bricks(calendar))[0].GetProperty("eventId").GetGuid();

        var outcome = await Import(
            mortar,
            calendar,
            meanwhile: async time =>
            {
                if (time == 1)
                {
                    (await ines.Put($"/api/events/{one}", World.Event(other, "Moved"), 1)).Is(200);
                }
            },
            title: "Otherwise"
        );

        // What is not there any more comes anew from the file, as another event.
        Assert.Equal(Many, outcome);
        Assert.Equal((Many, 1), (await Count(mortar, calendar), await Count(mortar, other)));
        Assert.Equal("Moved", Assert.Single(await ines.Bricks(other)).Text("title"));
        Assert.All(
            await ines.Bricks(calendar),
            brick => Assert.StartsWith("Otherwise", brick.Text("title"), StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task Whose_step_ends_meanwhile_writes_nothing()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Dele, Role.Edit);

        var outcome = await Import(
            mortar,
            calendar,
            meanwhile: _ => mortar.Give(calendar, DemoPeople.Dele, Role.View),
            by: DemoPeople.Dele
        );

        Assert.IsType<Refusal.NotAllowed>(outcome.WhyNot);
        Assert.Equal(0, await Count(mortar, calendar));
        Assert.Empty(Left(mortar));
    }

    [Fact]
    public async Task Undone_and_brought_back_many_events_are_gone_and_there_with_their_history()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var (imported, undone) = (Act.By(DemoPeople.Ines.Id), Guid.NewGuid());
        await Import(mortar, calendar, act: imported);

        (await ines.Post($"/api/changes/{imported.Set.Value}/undo", set: undone)).Is(200);
        Assert.Equal(0, await Count(mortar, calendar));
        (await ines.Post($"/api/changes/{undone}/undo")).Is(200);

        Assert.Equal(Many, await Count(mortar, calendar));
        var one = (await ines.Bricks(calendar))[0].GetProperty("eventId").GetGuid();
        var history = (await ines.Get($"/api/events/{one}/history")).Is(200).Body;
        Assert.Equal(3, history.GetArrayLength());
    }

    [Fact]
    public async Task Of_many_events_one_that_was_moved_since_keeps_the_others_from_being_undone()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (calendar, other) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        var imported = Act.By(DemoPeople.Ines.Id);
        await Import(mortar, calendar, act: imported);
        var one = (await ines.Bricks(calendar))[0].GetProperty("eventId").GetGuid();
        (await ines.Put($"/api/events/{one}", World.Event(other, "Moved"), 1)).Is(200);

        (await ines.Post($"/api/changes/{imported.Set.Value}/undo")).IsProblem(409, "changed-since");

        Assert.Equal((Many - 1, 1), (await Count(mortar, calendar), await Count(mortar, other)));
    }

    [Fact]
    public async Task Many_bookings_do_not_go_into_a_place_that_is_taken_nor_come_back_into_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        await mortar.Store(db =>
            db.Calendars.Where(row => row.Id == calendar)
                .ExecuteUpdateAsync(set =>
                    set.SetProperty(row => row.Purpose, Core.Calendars.Purpose.Place)
                        .SetProperty(row => row.OneAtATime, true)
                )
        );
        var (imported, undone) = (Act.By(DemoPeople.Ines.Id), Guid.NewGuid());
        Assert.Equal(Many, await Import(mortar, calendar, act: imported));
        (await ines.Post($"/api/changes/{imported.Set.Value}/undo", set: undone)).Is(200);
        await ines.MakeEvent(calendar, "Taken");

        (await ines.Post($"/api/changes/{undone}/undo")).IsProblem(409, "taken");
        var again = await Import(mortar, calendar);

        Assert.Equal("taken", Assert.IsType<Refusal.AgainstRule>(again.WhyNot).Type);
        Assert.Equal(1, await Count(mortar, calendar));
    }

    [Fact]
    public async Task What_a_crash_left_aside_is_gone_after_the_next_start()
    {
        await using var mortar = await TestMortar.Start();
        Directory.CreateDirectory(Path.Combine(mortar.Data, Aside.Folder));
        await File.WriteAllTextAsync(
            Path.Combine(mortar.Data, Aside.Folder, "half.db"),
            "half",
            TestContext.Current.CancellationToken
        );

        await using var again = await mortar.Restart();

        Assert.Empty(Left(again));
    }

    /// <summary>Imports a file of whole days as the import's own worker does.</summary>
    /// <param name="mortar">Where.</param>
    /// <param name="calendar">Into which calendar.</param>
    /// <param name="meanwhile">Done each time that they are being made, with how many times that was.</param>
    /// <param name="by">Who imports; Ines by default.</param>
    /// <param name="act">Under which act.</param>
    /// <param name="title">What each event is called, before its number; those that are there already become so.</param>
    private static async Task<Outcome<int>> Import(
        TestMortar mortar,
        CalendarId calendar,
        Func<int, Task>? meanwhile = null,
        DemoPerson? by = null,
        Act? act = null,
        string title = "Day"
    )
    {
        await using var scope = mortar.Services.CreateAsyncScope();
        var file = (CalendarFileReading.Understood)
            CalendarFile.Read(
                Encoding.UTF8.GetBytes(
                    Files.Days(Many).Replace("SUMMARY:Day", $"SUMMARY:{title}", StringComparison.Ordinal)
                ),
                DemoPeople.Home,
                scope.ServiceProvider.GetRequiredService<ZoneClock>()
            );
        return await scope
            .ServiceProvider.GetRequiredService<ImportCommands>()
            .Apply(
                act ?? Act.By((by ?? DemoPeople.Ines).Id),
                calendar,
                StagedImport.Events(file),
                KnownEvents.Update,
                new Meanwhile(meanwhile ?? (_ => Task.CompletedTask)),
                CancellationToken.None
            );
    }

    private static Task<int> Count(TestMortar mortar, CalendarId calendar) =>
        mortar.Store(db => db.Events.CountAsync(row => row.CalendarId == calendar && row.DeletedAt == null));

    private static string[] Left(TestMortar mortar)
    {
        var folder = Path.Combine(mortar.Data, Aside.Folder);
        return Directory.Exists(folder) ? Directory.GetFiles(folder) : [];
    }

    /// <summary>Does something as soon as the first of the events have been made, each time anew.</summary>
    private sealed class Meanwhile(Func<int, Task> act) : IProgress<int>
    {
        private int times;

        public void Report(int value)
        {
            if (value < Many && value <= 500)
            {
                times++;
                Task.Run(() => act(times)).GetAwaiter().GetResult();
            }
        }
    }
}
