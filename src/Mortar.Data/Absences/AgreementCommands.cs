using Microsoft.EntityFrameworkCore;
using Mortar.Core.Absences;
using Mortar.Core.Answers;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Events;
using Mortar.Data.Store;

namespace Mortar.Data.Absences;

/// <summary>Agrees to absences that wait for it, or does not.</summary>
public sealed class AgreementCommands(MortarDb db, ZoneClock zones)
{
    /// <summary>
    /// Settles an absence, or takes it off the plan; who entered it is told in their inbox, with the comment. Both are one
    /// change that can be undone.
    /// </summary>
    public Task<Outcome<EventRow>> Answer(
        Act act,
        EventId id,
        int? version,
        bool agrees,
        string? comment,
        CancellationToken cancellationToken
    ) =>
        db.Write<EventRow>(
            act,
            async () =>
            {
                if (await db.Events.FirstOrDefaultAsync(one => one.Id == id, cancellationToken) is not { } row)
                {
                    return await db.NoEvent(act.Actor, cancellationToken);
                }

                if (await db.WhyNotAgree(act.Actor, row, version, cancellationToken) is { } refusal)
                {
                    return refusal;
                }

                var calendar = await db
                    .Calendars.AsNoTracking()
                    .SingleAsync(one => one.Id == row.CalendarId, cancellationToken);
                var whole = row.ToCore();
                if (!Agreement.Waits(calendar.Settings(), whole.Content))
                {
                    return new Refusal.AgainstRule(
                        "not-waiting",
                        "This does not wait for anybody to agree any more. Look at it again."
                    );
                }

                var said = AnswerRules.Comment(comment);
                if (said.WhyNot is { } tooLong)
                {
                    return tooLong;
                }

                if (agrees)
                {
                    row.Apply(Agreement.Agreed(whole), zones);
                }
                else
                {
                    row.DeletedAt = db.Now;
                }

                var answer = await db.Agreements.FirstOrDefaultAsync(one => one.EventId == id, cancellationToken);
                if (answer is null)
                {
                    answer = new AgreementRow
                    {
                        EventId = id,
                        CalendarId = row.CalendarId,
                        Whose = row.AddedBy,
                    };
                    db.Agreements.Add(answer);
                }

                (answer.CalendarId, answer.Whose) = (row.CalendarId, row.AddedBy);
                (answer.Agrees, answer.Comment) = (agrees, said.Value);
                return row;
            },
            cancellationToken
        );
}
