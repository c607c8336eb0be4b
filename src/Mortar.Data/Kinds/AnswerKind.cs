using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Letters;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Answers;
using Mortar.Data.Changes;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>What somebody answered to an event they are named on.</summary>
internal sealed class AnswerKind : ChangeKind<AnswerRow>
{
    public override Subject Subject => Subject.Answer;

    protected override async Task<AnswerRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.Answers.FindAsync([id], cancellationToken);

    /// <summary>Those who see that they are named on it, those to whom it is given as well, and who organizes it.</summary>
    protected override async Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var answer = Read(change).After;
        tellings.Tell(Concerned(change), Topic.Inbox, change);
        var row = await tellings
            .Db.Events.AsNoTracking()
            .FirstOrDefaultAsync(row => row.Id == answer.EventId, cancellationToken);
        if (row?.ToCore() is not { } whole)
        {
            return;
        }

        var calendar = CalendarOf(change);
        var seeing = (await tellings.RolesOn(calendar, cancellationToken))
            .Where(reader => Telling.AnswerShowsTo(reader.Value, reader.Key, whole, answer.PersonId))
            .Select(reader => reader.Key);
        tellings.Tell(seeing.Union(whole.GivenTo).Union(whole.Editors), Topic.Wall, change, calendar);
    }

    protected override async Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        AnswerRow now,
        AnswerRow? then,
        CancellationToken cancellationToken
    ) =>
        undoing.Vanishing.Contains(now.EventId)
            ? null
            : await undoing.Db.WhyNotAnswer(
                undoing.Actor,
                now.EventId,
                now.PersonId,
                AnswerRow.OnlyOf(now.Only),
                undoing.Zones,
                cancellationToken
            );

    public override void NeedForNotice(ChangeRow change, NoticeNeeds needs)
    {
        var answer = Read(change).After;
        needs.Events.Add(answer.EventId);
        needs.People.Add(answer.PersonId);
    }

    /// <summary>Told to the organizer while they see the event; whoever has handed on the right to change it may not find any more who is named.</summary>
    protected override NoticeLine? Notice(Said<AnswerRow> said, string actor, NoticeFacts facts)
    {
        var (answer, reader) = (said.After, facts.Reader);
        if (
            facts.Events.GetValueOrDefault(answer.EventId) is not { DeletedAt: null }
            || facts.Found(answer.EventId) is not { } whole
            || !VisibleEvent
                .WithNamesSeen(reader.RoleOn(whole.CalendarId), reader.Person, whole)
                .Named.Contains(answer.PersonId)
        )
        {
            return null;
        }

        return NoticeRules.OfAnswer(
            NoticeSentence.OfAnswer(
                facts.People[answer.PersonId],
                actor,
                whole.Content.Title,
                answer.Answer,
                Suggested(answer, facts)
            ),
            answer.EventId
        );
    }

    /// <summary>The other time that came with an answer, on the reader's clock.</summary>
    private static string? Suggested(AnswerRow answer, NoticeFacts facts) =>
        answer is { SuggestedStart: { } start, SuggestedEnd: { } end }
            ? facts.When(
                EventTime.InZone(
                    start.InZone(facts.Zone).LocalDateTime,
                    end.InZone(facts.Zone).LocalDateTime,
                    facts.Zone.Id
                )
            )
            : null;

    public override void NeedForDeed(ChangeRow change, DeedNeeds needs) => needs.Events.Add(Read(change).After.EventId);

    /// <summary>For who said it, of themselves or of whom they answer for.</summary>
    public override Deed? Deed(ChangeRow change, DeedFacts facts)
    {
        if (!facts.IsOwn(change) || change.After is null)
        {
            return null;
        }

        var answer = Read(change).After;
        return facts.TitleOf(answer.EventId) is { } title
            ? new Deed(title, [DeedSentence.OfAnswer(answer.Answer)], answer.EventId)
            : null;
    }
}
