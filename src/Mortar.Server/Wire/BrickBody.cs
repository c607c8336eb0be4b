using System.Text.Json.Serialization;
using Mortar.Core.Access;
using Mortar.Core.Events;
using NodaTime;

namespace Mortar.Server.Wire;

/// <summary>A brick on the wall. Made of a <see cref="VisibleEvent"/> and of nothing else.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "form")]
[JsonDerivedType(typeof(Busy), "busy")]
[JsonDerivedType(typeof(Event), "event")]
internal abstract record BrickBody
{
    /// <summary>The calendar is busy; that is all that is told.</summary>
    internal sealed record Busy(Guid CalendarId, LocalDateTime Start, LocalDateTime End, bool Tentative) : BrickBody;

    /// <summary>One occurrence of an event.</summary>
    /// <param name="Only">By which start the series counts it; <c>null</c> for a single event.</param>
    /// <param name="Time">On the reader's clock.</param>
    /// <param name="Zone">The zone it lives in, where that is another than the reader's.</param>
    /// <param name="Agreed">When it is on the clock of that zone; <c>null</c> where that is the reader's.</param>
    /// <param name="Notes"><c>null</c> where the reader's step does not show them.</param>
    /// <param name="Attendees">Those named on it; nobody where the reader's step does not show them.</param>
    /// <param name="HidesAttendees">Whether only those who may change it see who is named; others find at most themselves.</param>
    /// <param name="Organizer">Who put it in or was handed it; <c>null</c> where the reader's step does not show it.</param>
    /// <param name="Kind"><c>null</c> where the reader's step does not show it.</param>
    /// <param name="Private">Whether others see its times only.</param>
    /// <param name="Reminder">Minutes before the start.</param>
    /// <param name="Repeats">How it repeats, as a sentence.</param>
    /// <param name="Rule">The rule it repeats by, where that is one rule.</param>
    /// <param name="MayGiveAway">Whether the reader may also delete it, move it away, hand it over and give it to others.</param>
    /// <param name="Dates">For how many dates it stands: more than one for the band of a day that has too many to tell apart.</param>
    /// <param name="Editors">Those who may change it by themselves; told to those who may give it to them.</param>
    /// <param name="Texts">
    /// Where notes, attendees, editors, rule and sentence stand, in the table beside the bricks; they are left out here then.
    /// <c>null</c> where they stand here.
    /// </param>
    internal sealed record Event(
        Guid CalendarId,
        Guid EventId,
        int Version,
        LocalDateTime? Only,
        TimeBody Time,
        string? Zone,
        TimeBody? Agreed,
        string Title,
        string Place,
        string? Notes,
        ShowAs ShowAs,
        bool Cancelled,
        IReadOnlyList<Guid> Attendees,
        bool HidesAttendees,
        Guid? Organizer,
        string? Kind,
        bool Private,
        int? Reminder,
        string? Repeats,
        string? Rule,
        bool MayChange,
        bool MayGiveAway,
        IReadOnlyList<Guid> Editors,
        int Dates,
        int? Texts
    ) : BrickBody;

    /// <param name="shown">The date as its reader sees it.</param>
    /// <param name="reader">The reader's zone.</param>
    /// <param name="texts">Where its texts stand already; <c>null</c> to have them on the brick.</param>
    public static Event Of(VisibleEvent.Shown shown, DateTimeZone reader, int? texts = null) =>
        new(
            shown.CalendarId.Value,
            shown.Id.Value,
            shown.Version,
            shown.Start,
            TimeBody.Of(shown.Seen),
            shown.Agreed is Core.Time.EventTime.Timed timed && timed.Zone != reader.Id
                ? Core.Recurrence.ZoneRules.NameOf(timed.Zone)
                : null,
            shown.Agreed is Core.Time.EventTime.Timed own && own.Zone != reader.Id ? TimeBody.Of(own) : null,
            shown.Title,
            shown.Place,
            texts is null ? shown.Notes : null,
            shown.ShowAs,
            shown.Cancelled,
            texts is null ? [.. shown.Attendees.Select(person => person.Value)] : [],
            shown.HidesAttendees,
            shown.Organizer?.Value,
            shown.Kind,
            shown.Private,
            shown.Reminder,
            texts is null ? shown.Repeats : null,
            texts is null ? shown.Rule?.ToString() : null,
            shown.MayChange,
            shown.MayGiveAway,
            texts is null ? [.. shown.Editors.Select(person => person.Value)] : [],
            shown.Dates,
            texts
        );
}
