using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Preferences;
using Mortar.Core.Reminders;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Reminders;

/// <summary>When a digest is due, and what it may say.</summary>
public class DigestRulesTests
{
    private static readonly LocalDateTime Noon = new(2026, 3, 12, 12, 0);

    [Theory]
    [InlineData(DigestRhythm.Never, 12, 9, null)]
    [InlineData(DigestRhythm.Daily, 12, 9, "2026-03-12T08:00:00Z")]
    [InlineData(DigestRhythm.Daily, 12, 7, "2026-03-11T08:00:00Z")] // today's is not due yet
    [InlineData(DigestRhythm.Weekly, 12, 9, "2026-03-09T08:00:00Z")] // Monday
    [InlineData(DigestRhythm.Weekly, 9, 7, "2026-03-02T08:00:00Z")]
    [InlineData(DigestRhythm.Daily, 30, 7, "2026-03-30T07:00:00Z")] // 08:00 by the clock, after it went forward
    public void The_latest_was_due(DigestRhythm rhythm, int day, int hour, string? expected)
    {
        var preferences = PersonPreferences.In(Studio.London) with { Digest = rhythm };

        var due = DigestRules.LastDue(preferences, Studio.Zone(Studio.London), Instant.FromUtc(2026, 3, day, hour, 30));

        Assert.Equal(expected, due?.ToString());
    }

    [Fact]
    public void It_says_what_became_of_it()
    {
        var before = Studio.Event(Studio.Hours(Noon, 60), title: "Glaze day");
        var after = before with { Time = Studio.Hours(Noon.PlusHours(2), 60) };

        Assert.Equal(
            "“Glaze day”: Priya Raman and Tomasz Wilk moved it from Thu 12 March, 12:00 to 13:00 to Thu 12 March, 14:00 to 15:00.",
            Say(before, after, Role.View, "Priya Raman", "Tomasz Wilk")
        );
        Assert.Equal(
            "“Glaze day”, Thu 12 March, 12:00 to 13:00: new, by Priya Raman.",
            Say(null, before, Role.View, "Priya Raman")
        );
        Assert.Equal(
            "“Glaze day”, Thu 12 March, 12:00 to 13:00: gone, by Priya Raman.",
            Say(before, null, Role.View, "Priya Raman")
        );
        Assert.Null(Say(before, before, Role.View, "Priya Raman")); // there and back
        Assert.Null(Say(null, null, Role.View, "Priya Raman")); // come and gone
    }

    [Fact]
    public void What_a_step_does_not_show_is_in_no_digest()
    {
        var before = Studio.Event(Studio.Hours(Noon, 60), title: "Glaze day");
        var noted = before with { Content = before.Content with { Notes = "Bring last month's tiles" } };
        var hidden = before with { Content = before.Content with { Private = true } };

        Assert.Contains("changed the notes", Say(before, noted, Role.View, "Priya Raman"), StringComparison.Ordinal);
        Assert.Null(Say(before, noted, Role.Outline, "Priya Raman")); // of what an outline shows nothing changed
        Assert.Null(Say(null, before, Role.Times, "Priya Raman"));
        Assert.Null(Say(null, before, Role.None, "Priya Raman"));
        Assert.Null(Say(null, hidden, Role.View, "Priya Raman"));
        Assert.Equal(
            "“Glaze day”, Thu 12 March, 12:00 to 13:00: gone, by Priya Raman.",
            Say(before, hidden, Role.View, "Priya Raman") // what became of it is private
        );
    }

    [Fact]
    public void Who_changed_only_what_one_does_not_see_is_not_named()
    {
        var before = Studio.Event(Studio.Hours(Noon, 60), title: "Glaze day");
        var noted = before with { Content = before.Content with { Notes = "Bring last month's tiles" } };
        var handed = noted with { AddedBy = Studio.Priya, Editors = Attendees.Of([Studio.Ines]) };
        var moved = handed with { Time = Studio.Hours(Noon.PlusHours(2), 60) };
        EventStep[] steps =
        [
            new(before, noted, "Mei Sato"),
            new(noted, handed, "Dele Okoro"),
            new(handed, moved, "Tomasz Wilk"),
        ];

        Assert.Equal(
            "“Glaze day”: Tomasz Wilk moved it from Thu 12 March, 12:00 to 13:00 to Thu 12 March, 14:00 to 15:00.",
            Say(steps, Role.Outline)
        );
        Assert.Contains("Mei Sato", Say(steps, Role.View), StringComparison.Ordinal);
    }

    private static string? Say(Event? before, Event? after, Role role, params string[] by) =>
        Say([.. by.Select(name => new EventStep(before, after, name))], role);

    private static string? Say(IReadOnlyList<EventStep> steps, Role role) =>
        DigestRules.Sentence(steps, _ => role, Studio.Priya, Studio.Zone(Studio.London), Studio.Clock);
}
