using System.Text;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features;

public class UndoTests
{
    [Fact]
    public async Task Making_changing_and_deleting_are_taken_back_one_after_the_other()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var (made, changed, deleted) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        var id = await ines.MakeEvent(calendar, "One", set: made);
        (
            await ines.Put(
                $"/api/events/{id}",
                World.Event(calendar, "Two", World.Hours("2026-03-13T09:00:00", "2026-03-13T10:00:00")),
                1,
                changed
            )
        ).Is(200);
        (await ines.Delete($"/api/events/{id}", 2, deleted)).Is(200);
        Assert.Empty(await ines.Bricks(calendar));

        (await ines.Post($"/api/changes/{deleted}/undo")).Is(200);
        Assert.Equal("Two", Assert.Single(await ines.Bricks(calendar)).Text("title"));
        var redo = Guid.NewGuid();
        (await ines.Post($"/api/changes/{deleted}/undo", set: redo)).IsProblem(409, "changed-since");
    }

    [Fact]
    public async Task A_change_goes_back_to_what_was_before()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var (changed, undone) = (Guid.NewGuid(), Guid.NewGuid());
        var id = await ines.MakeEvent(calendar, "One");
        (
            await ines.Put(
                $"/api/events/{id}",
                World.Event(calendar, "Two", World.Hours("2026-03-13T09:00:00", "2026-03-13T10:00:00")),
                1,
                changed
            )
        ).Is(200);

        (await ines.Post($"/api/changes/{changed}/undo", set: undone)).Is(200);

        var brick = Assert.Single(await ines.Bricks(calendar));
        Assert.Equal(
            ("One", "2026-03-12T14:00:00", 3),
            (brick.Text("title"), brick.GetProperty("time").Text("start"), brick.GetProperty("version").GetInt32())
        );
        (await ines.Post($"/api/changes/{undone}/undo")).Is(200);
        Assert.Equal("Two", Assert.Single(await ines.Bricks(calendar)).Text("title"));
    }

    [Fact]
    public async Task What_somebody_changed_since_is_not_taken_back()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var made = Guid.NewGuid();
        var id = await ines.MakeEvent(calendar, set: made);
        (await priya.Put($"/api/events/{id}", World.Event(calendar, "Priya's"), 1)).Is(200);

        (await ines.Post($"/api/changes/{made}/undo")).IsProblem(409, "changed-since");

        Assert.Equal("Priya's", Assert.Single(await ines.Bricks(calendar)).Text("title"));
    }

    [Fact]
    public async Task What_one_may_no_longer_do_one_may_no_longer_undo()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var made = Guid.NewGuid();
        await priya.MakeEvent(calendar, "Hers", set: made);
        await mortar.Give(calendar, DemoPeople.Priya, Role.View);
        (await priya.Post($"/api/changes/{made}/undo")).IsProblem(403, "not-allowed");
        await mortar.Give(calendar, DemoPeople.Priya, Role.None);

        (await priya.Post($"/api/changes/{made}/undo")).IsProblem(404, "not-there");

        Assert.Single(await ines.Bricks(calendar));
    }

    [Fact]
    public async Task A_lower_step_cannot_undo_what_a_higher_one_did_to_others_events()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        var id = await ines.MakeEvent(calendar, "Ines's");
        var changed = Guid.NewGuid();
        (await priya.Put($"/api/events/{id}", World.Event(calendar, "Priya's"), 1, changed)).Is(200);
        await mortar.Give(calendar, DemoPeople.Priya, Role.Add);

        (await priya.Post($"/api/changes/{changed}/undo")).IsProblem(403, "not-allowed");

        Assert.Equal("Priya's", Assert.Single(await ines.Bricks(calendar)).Text("title"));
    }

    [Fact]
    public async Task A_move_to_another_calendar_is_taken_back()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var (from, to) = (await ines.MakeCalendar(), await ines.MakeCalendar());
        var id = await ines.MakeEvent(from);
        var moved = Guid.NewGuid();
        (await ines.Put($"/api/events/{id}", World.Event(to), 1, moved)).Is(200);

        (await ines.Post($"/api/changes/{moved}/undo")).Is(200);

        Assert.Single(await ines.Bricks(from));
        Assert.Empty(await ines.Bricks(to));
    }

    [Fact]
    public async Task What_has_taken_the_place_since_keeps_an_undo_from_happening()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var withdrawn = Guid.NewGuid();
        var first = Guid.NewGuid();
        var invitation = new { address = "priya@example.org", role = "view" };
        (await ines.Put($"/api/calendars/{calendar.Value}/invitations/{first}", invitation)).Is(204);
        (await ines.Delete($"/api/calendars/{calendar.Value}/invitations/{first}", set: withdrawn)).Is(204);
        (await ines.Put($"/api/calendars/{calendar.Value}/invitations/{Guid.NewGuid()}", invitation)).Is(204);

        (await ines.Post($"/api/changes/{withdrawn}/undo")).IsProblem(409, "already-there");
    }

    [Fact]
    public async Task Ended_access_and_a_deleted_calendar_come_back_whole()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Priya, Role.Edit);
        await ines.MakeEvent(calendar);
        var (ended, deleted) = (Guid.NewGuid(), Guid.NewGuid());

        (await ines.Delete($"/api/calendars/{calendar.Value}/access/{DemoPeople.Priya.Id.Value}", set: ended)).Is(204);
        Assert.False(await priya.HasLayer(calendar));
        (await ines.Post($"/api/changes/{ended}/undo")).Is(200);
        Assert.True(await priya.HasLayer(calendar));
        (await ines.Delete($"/api/calendars/{calendar.Value}?name=Glaze tests", 1, deleted)).Is(204);
        Assert.False(await priya.HasLayer(calendar));
        (await ines.Post($"/api/changes/{deleted}/undo")).Is(200);

        Assert.Single(await priya.Bricks(calendar));
    }

    [Fact]
    public async Task Every_mutation_is_in_the_log_with_who_and_what_was_before_and_after()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var id = await ines.MakeEvent(calendar, "One");
        (await ines.Put($"/api/events/{id}", World.Event(calendar, "Two"), 1)).Is(200);

        var log = await mortar.Store(db =>
            db.Changes.Where(change => change.SubjectId == id).OrderBy(change => change.Sequence).ToListAsync()
        );

        Assert.All(log, change => Assert.Equal(DemoPeople.Ines.Id, change.Actor));
        Assert.Null(log[0].Before);
        Assert.Contains("\"One\"", log[1].Before, StringComparison.Ordinal);
        Assert.Contains("\"Two\"", log[1].After, StringComparison.Ordinal);
    }

    [Fact]
    public async Task One_undo_takes_a_whole_import_back()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);
        var calendar = await ines.MakeCalendar();
        var (import, set) = (Guid.NewGuid(), Guid.NewGuid());
        var file = Files.Days(1_200);
        (await ines.Put($"/api/calendars/{calendar.Value}/imports/{import}", Encoding.UTF8.GetBytes(file))).Is(200);
        (await ines.Post($"/api/calendars/{calendar.Value}/imports/{import}/write", new { known = "keep" }, set)).Is(
            202
        );
        await ines.Imported(calendar, import);

        var answer = (await ines.Post($"/api/changes/{set}/undo")).Is(200);

        Assert.Equal(1_200, answer.Body.GetProperty("returned").GetInt32());
        Assert.Equal(
            0,
            await mortar.Store(db => db.Events.CountAsync(row => row.CalendarId == calendar && row.DeletedAt == null))
        );
    }

    [Fact]
    public async Task What_brings_an_event_back_does_not_give_it_again_to_who_has_left_since()
    {
        var clock = new SetClock();
        await using var mortar = await TestMortar.StartAt(clock);
        using var ines = await mortar.As(DemoPeople.Ines);
        using var priya = await mortar.As(DemoPeople.Priya);
        var calendar = await ines.MakeCalendar();
        var set = Guid.NewGuid();
        var id = await ines.MakeEvent(calendar);
        (await ines.Put($"/api/events/{id}", World.Event(calendar, attendees: DemoPeople.Priya.Id.Value), 1)).Is(200);
        (await ines.Put($"/api/events/{id}/editors", new { personIds = new[] { DemoPeople.Priya.Id.Value } }, 2)).Is(
            200
        );
        (await priya.Get($"/api/events/{id}")).Is(200);
        var moment = clock.Now;
        clock.Now += NodaTime.Duration.FromHours(1);
        (
            await ines.Put(
                $"/api/events/{id}",
                World.Event(calendar),
                Version(await ines.Get($"/api/events/{id}")),
                set
            )
        ).Is(200);
        (await priya.Get($"/api/events/{id}")).Is(404);
        (await ines.Delete($"/api/groups/{World.StudioTeam}/members/{DemoPeople.Priya.Id.Value}")).Is(204);

        (await ines.Post($"/api/changes/{set}/undo")).Is(200);
        (await priya.Get($"/api/events/{id}")).Is(404);
        (await ines.Put($"/api/events/{id}", World.Event(calendar), Version(await ines.Get($"/api/events/{id}")))).Is(
            200
        );
        var at = NodaTime.Text.InstantPattern.ExtendedIso.Format(moment);
        (await ines.Post($"/api/calendars/{calendar.Value}/moment", new { at })).Is(200);

        (await priya.Get($"/api/events/{id}")).Is(404);

        static int Version(Answer answer) => answer.Is(200).Body.GetProperty("version").GetInt32();
    }
}
