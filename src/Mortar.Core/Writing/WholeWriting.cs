using Mortar.Core.Absences;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Words;

namespace Mortar.Core.Writing;

/// <summary>What becomes of an event that a calendar program sends, all its dates together: by the rules of what is written by hand.</summary>
public static class WholeWriting
{
    /// <summary>An event that is not there yet.</summary>
    /// <param name="writer">Who makes it.</param>
    /// <param name="id">What it is called.</param>
    /// <param name="uid">Its name in files.</param>
    /// <param name="wish">What it is to be.</param>
    /// <param name="into">The calendar it goes to; <c>null</c> where there is none for them.</param>
    public static Outcome<Event> Create(Reader writer, EventId id, string uid, WholeWish wish, WishedCalendar? into)
    {
        if (AccessRules.WhyNotAdd(writer.RoleOn(wish.CalendarId), into?.Settings.FromWeb == true) is { } refusal)
        {
            return refusal;
        }

        return WhyUnfit(writer, wish, before: null, into!) is { } unfit
            ? unfit
            : Written(
                writer,
                into!,
                before: null,
                new Event(id, wish.CalendarId, uid, writer.Person, wish.Time, wish.Content, wish.Series, Version: 0)
            );
    }

    /// <summary>An event that is there, also where it is to be in another calendar.</summary>
    /// <param name="writer">Who changes it.</param>
    /// <param name="stored">The event.</param>
    /// <param name="wish">What it is to be.</param>
    /// <param name="into">The calendar it is to be in; <c>null</c> where there is none for them.</param>
    public static Outcome<Event> Change(Reader writer, StoredEvent stored, WholeWish wish, WishedCalendar? into)
    {
        var whole = stored.Event;
        var role = writer.RoleOn(whole.CalendarId);
        var moves = wish.CalendarId != whole.CalendarId;
        var may = moves
            ? AccessRules.ToGiveAway(role, writer.Person, whole)
            : AccessRules.ToChange(role, writer.Person, whole);
        if (stored.WhyNot(may, wish.Version, whole) is { } refusal)
        {
            return refusal;
        }

        if (moves && AccessRules.WhyNotAdd(writer.RoleOn(wish.CalendarId), into?.Settings.FromWeb == true) is { } stays)
        {
            return stays;
        }

        if (moves && into!.HasCopy)
        {
            return new Refusal.AgainstRule("already-there", "A copy of this event is in that calendar already.");
        }

        return WhyUnfit(writer, wish, whole, into!) is { } unfit
            ? unfit
            : Written(
                writer,
                into!,
                moves ? null : whole,
                (
                    whole with
                    {
                        CalendarId = wish.CalendarId,
                        Time = wish.Time,
                        Content = wish.Content,
                        Series = wish.Series is { } series
                            ? series with
                            {
                                ContinuedFrom = whole.Series?.ContinuedFrom,
                            }
                            : null,
                    }
                ).WithoutStrangers()
            );
    }

    private static Refusal.Unfit? WhyUnfit(Reader writer, WholeWish wish, Event? before, WishedCalendar into)
    {
        if (into.Strangers.Count > 0)
        {
            return new Refusal.Unfit([Attendees.Stranger("attendees")]);
        }

        if (
            (wish.Series?.Overrides.Select(one => one.Content) ?? [])
                .Append(wish.Content)
                .Any(content => content.Attendees.Count > EventRules.MostAttendees)
        )
        {
            return new Refusal.Unfit(
                "attendees",
                $"Up to {EventRules.MostAttendees} people can be named on one event."
            );
        }

        return into.Settings.Purpose.MayName(
            writer.RoleOn(into.Id),
            writer.AnswersIn(into.Group),
            wish.NewlyNamed(before)
        )
            ? null
            : new Refusal.Unfit("attendees", EventWriting.OthersAbsences);
    }

    private static Event Written(Reader writer, WishedCalendar into, Event? before, Event after)
    {
        var purpose = into.Settings.Purpose;
        var named = after.WithContents(content =>
            content with
            {
                Attendees = purpose.Named(content.Attendees, after.AddedBy),
            }
        );
        return Agreement.Written(into.Settings, writer.RoleOn(into.Id), before, named);
    }
}
