using Mortar.Core.Changes;
using Mortar.Core.Letters;
using Mortar.Core.Time;
using Mortar.Core.Undo;
using Mortar.Core.Words;
using Mortar.Data.Changes;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>
/// A kind of record of which the log keeps every change, and the answers to all that is asked about such a change: to whom
/// it is told, what taking it back needs, what it says in inboxes, digests and histories. Whoever asks goes through
/// <see cref="ChangeKinds"/>; in which calendar and group a record is, and whom it concerns, it says itself
/// (<see cref="IRecorded"/>).
/// </summary>
internal abstract class ChangeKind
{
    public abstract Subject Subject { get; }

    /// <summary>The type of its rows, as which its states are stored.</summary>
    public abstract Type Row { get; }

    /// <summary>Whether a change of it is written into the log of security: it says who may what.</summary>
    public virtual bool IsAccess => false;

    /// <summary>Finds one, whatever became of it.</summary>
    public abstract Task<IRecorded?> Find(MortarDb db, Guid id, CancellationToken cancellationToken);

    /// <summary>Has those told on their open screens who may see that it changed.</summary>
    /// <param name="tellings">Takes note of them.</param>
    /// <param name="changes">Some changes of this kind, in order.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public abstract Task Tell(Tellings tellings, IReadOnlyList<ChangeRow> changes, CancellationToken cancellationToken);

    /// <summary>Whether somebody may learn by trying to take a change back that there is such a change.</summary>
    public virtual bool IsKnownTo(PersonId actor, ChangeRow change) => change.Actor == actor;

    /// <summary>Why somebody may not bring one back to an earlier state, beyond what its calendar needs at least; <c>null</c> where they may.</summary>
    /// <param name="undoing">Who, and what they may now.</param>
    /// <param name="now">As it is.</param>
    /// <param name="then">As it would be; <c>null</c> where it would not be there.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public abstract Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        IRecorded now,
        IRecorded? then,
        CancellationToken cancellationToken
    );

    /// <summary>Why it cannot stay as it is once all is brought back: a calendar or a group that nobody keeps. Asked of the store with all written.</summary>
    public virtual Task<Refusal?> WhyNotLeft(
        MortarDb db,
        IReadOnlyList<Guid> returned,
        CancellationToken cancellationToken
    ) => Task.FromResult<Refusal?>(null);

    /// <summary>Parts of a state that mean something only together, by their names; every other part means something by itself.</summary>
    public virtual IReadOnlyList<IReadOnlyCollection<string>> Together => [];

    /// <summary>Parts of a state that follow from the rest, or count its changes.</summary>
    public virtual IReadOnlyCollection<string> Derived => [nameof(IRecorded.Version)];

    /// <summary>Works out anew what follows from the rest of a state, where only parts of it came back.</summary>
    public virtual void KeepTrue(IRecorded row, ZoneClock zones) { }

    /// <summary>Takes out of one that was brought back what it would give to somebody of whom it was taken since.</summary>
    /// <param name="undoing">Who brought it back.</param>
    /// <param name="row">As it is now.</param>
    /// <param name="was">The state that it was in before that.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public virtual Task KeepEnded(Undoing undoing, IRecorded row, string was, CancellationToken cancellationToken) =>
        Task.CompletedTask;

    /// <summary>What went out with one; <c>null</c> for kinds with which nothing does.</summary>
    public virtual Mailed? Mailed(IRecorded row) => null;

    /// <summary>Puts what went out back into one that was brought back to an earlier state.</summary>
    public virtual void KeepMailed(IRecorded row, Mailed mailed) =>
        throw new NotSupportedException($"Nothing goes out with a {Subject}.");

    /// <summary>Changes that are told to a reader in their inbox though they do not name them; <c>null</c> for none.</summary>
    public virtual Task<IQueryable<ChangeRow>?> AlsoNoticed(
        MortarDb db,
        PersonId reader,
        CancellationToken cancellationToken
    ) => Task.FromResult<IQueryable<ChangeRow>?>(null);

    /// <summary>What has to be read before <see cref="Notice"/> can be asked.</summary>
    public virtual void NeedForNotice(ChangeRow change, NoticeNeeds needs) { }

    /// <summary>What a change says in the inbox of its reader; <c>null</c> where it says nothing new, or nothing they may know.</summary>
    /// <param name="change">The change, by somebody else.</param>
    /// <param name="actor">Their name.</param>
    /// <param name="facts">What was read for it.</param>
    public abstract NoticeLine? Notice(ChangeRow change, string actor, NoticeFacts facts);

    /// <summary>Which of them a digest tells by a sentence of its own.</summary>
    public virtual bool IsInDigest => false;

    /// <summary>What all changes of one since the last digest say in it; <c>null</c> where nothing the reader may know.</summary>
    public virtual string? Digest(IReadOnlyList<(ChangeRow Change, string Actor)> ofOne, DigestFacts facts) => null;

    /// <summary>What has to be read before <see cref="Deed"/> can be asked.</summary>
    public virtual void NeedForDeed(ChangeRow change, DeedNeeds needs) { }

    /// <summary>What a change says in a history or among what one did; <c>null</c> where it is not the reader's to know, or nothing.</summary>
    public abstract Deed? Deed(ChangeRow change, DeedFacts facts);

    /// <summary>Whether others than who made it can undo a change, who may do the same now.</summary>
    public static bool CanBeUndoneByOthers(ChangeRow change) =>
        UndoRules.CanBeUndoneByOthers(change.Subject, change.Concerns == change.Actor);

    /// <summary>In which history of who has access it stands.</summary>
    public virtual HistoryOf InHistory => HistoryOf.Nothing;

    /// <summary>Whether the log names whom a change is about, so that it can be asked for them.</summary>
    public virtual bool NamesWhom => true;

    /// <summary>Whom a change is about, beside who did it.</summary>
    public virtual IEnumerable<PersonId> About(ChangeRow change) => [];

    /// <summary>What a change says in the history of who has access, to be read after the name of who did it; <c>null</c> where nothing of that changed.</summary>
    public virtual string? History(ChangeRow change, HistoryFacts facts) => null;
}

/// <summary>Whose history of access tells of a kind.</summary>
internal enum HistoryOf
{
    /// <summary>None does.</summary>
    Nothing,

    /// <summary>That of the calendar it is in.</summary>
    Calendar,

    /// <summary>That of its group, by which the group's calendars reach people.</summary>
    Group,
}

/// <summary>A change with its two states read.</summary>
/// <param name="Change">The change.</param>
/// <param name="Before">The state before; <c>null</c> where it was not there.</param>
/// <param name="After">The state after.</param>
internal readonly record struct Said<TRow>(ChangeRow Change, TRow? Before, TRow After)
    where TRow : class;

/// <inheritdoc />
/// <typeparam name="TRow">Its rows.</typeparam>
internal abstract class ChangeKind<TRow> : ChangeKind
    where TRow : class, IRecorded
{
    public sealed override Type Row => typeof(TRow);

    public sealed override async Task<IRecorded?> Find(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await FindRow(db, id, cancellationToken);

    public sealed override Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        IRecorded now,
        IRecorded? then,
        CancellationToken cancellationToken
    ) => WhyNotReturn(undoing, (TRow)now, (TRow?)then, cancellationToken);

    public sealed override NoticeLine? Notice(ChangeRow change, string actor, NoticeFacts facts) =>
        change.After is null ? null : Notice(Read(change), actor, facts);

    public override async Task Tell(
        Tellings tellings,
        IReadOnlyList<ChangeRow> changes,
        CancellationToken cancellationToken
    )
    {
        foreach (var change in changes)
        {
            await Tell(tellings, change, cancellationToken);
        }
    }

    /// <summary>Has those told who may see that one changed.</summary>
    protected abstract Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken);

    protected abstract Task<TRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken);

    protected abstract Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        TRow now,
        TRow? then,
        CancellationToken cancellationToken
    );

    /// <summary>What a change says in an inbox; nothing for kinds that are seen where they are.</summary>
    protected virtual NoticeLine? Notice(Said<TRow> said, string actor, NoticeFacts facts) => null;

    /// <summary>A change with both its states; what is in a history is never erased.</summary>
    protected static Said<TRow> Read(ChangeRow change) =>
        new(
            change,
            change.Before is { } before ? StoredText.Read<TRow>(before) : null,
            StoredText.Read<TRow>(change.After ?? throw new InvalidDataException("What is recorded is never erased."))
        );

    /// <summary>Whom a change concerns, and who did it.</summary>
    protected static IEnumerable<PersonId> Concerned(ChangeRow change) =>
        change.Concerns is { } whom ? [whom, change.Actor] : [change.Actor];

    /// <summary>The calendar a change is in, for kinds that are always in one.</summary>
    protected static CalendarId CalendarOf(ChangeRow change) =>
        change.CalendarId ?? throw new InvalidDataException($"A {change.Subject} is in a calendar.");

    /// <summary>The group a change is about, for kinds that are always about one.</summary>
    protected static GroupId GroupOf(ChangeRow change) =>
        change.GroupId ?? throw new InvalidDataException($"A {change.Subject} is about a group.");

    /// <summary>A deed about who may what, for those who keep that, and for who did it.</summary>
    protected Deed? AccessDeed(ChangeRow change, DeedFacts facts)
    {
        var name =
            change.CalendarId is { } calendar ? facts.Calendars.GetValueOrDefault(calendar)
            : change.GroupId is { } group ? facts.Groups.GetValueOrDefault(group)
            : null;
        return
            change.After is not null
            && name is not null
            && (facts.Keeps(change) || facts.IsOwn(change))
            && History(change, facts.Access) is { } sentence
            ? new Deed(name, [sentence])
            : null;
    }

    /// <summary>For kinds that are brought back by whoever may change their calendar.</summary>
    protected static Task<Refusal?> Nothing() => Task.FromResult<Refusal?>(null);
}
