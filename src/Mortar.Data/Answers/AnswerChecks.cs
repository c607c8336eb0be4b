using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Events;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Answers;

/// <summary>Why somebody may not answer; <c>null</c> where they may.</summary>
internal static class AnswerChecks
{
    /// <summary>To answer to an event for oneself, or for somebody whose guardian one is in its calendar's group.</summary>
    /// <param name="db">The store.</param>
    /// <param name="actor">Who answers.</param>
    /// <param name="id">The event.</param>
    /// <param name="whose">Whose answer it is.</param>
    /// <param name="only">The date that is meant; <c>null</c> for a single event, or all of a series.</param>
    /// <param name="zones">Zone rules.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public static async Task<Refusal?> WhyNotAnswer(
        this MortarDb db,
        PersonId actor,
        EventId id,
        PersonId whose,
        LocalDateTime? only,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        if (
            await db.EventFor(whose, id, cancellationToken) is not var (row, role)
            || (actor != whose && !(await db.AnswersFor(actor, row.CalendarId, cancellationToken)).Contains(whose))
        )
        {
            return new Refusal.NotThere("event");
        }

        var whole = row.ToCore();
        if (
            whole.OccurrenceAt(only, zones, DateTimeZone.Utc) is not { } occurrence
            || VisibleEvent.Show(role, whose, occurrence, DateTimeZone.Utc) is null
        )
        {
            return new Refusal.NotThere("event");
        }

        var isNamed = occurrence.Content.Attendees.Has(whose);
        return AnswerRules.ToAnswer(AccessRules.OnEvent(role, whose, whole), isNamed) == Verdict.Granted
            ? null
            : new Refusal.NotAllowed("Only who is named on an event answers to it.");
    }
}
