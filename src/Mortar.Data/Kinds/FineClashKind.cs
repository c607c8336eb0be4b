using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Words;
using Mortar.Data.Availability;
using Mortar.Data.Changes;
using Mortar.Data.Store;

namespace Mortar.Data.Kinds;

/// <summary>That a clash was marked as fine.</summary>
internal sealed class FineClashKind : ChangeKind<FineClashRow>
{
    public override Subject Subject => Subject.FineClash;

    protected override async Task<FineClashRow?> FindRow(MortarDb db, Guid id, CancellationToken cancellationToken) =>
        await db.FineClashes.FindAsync([id], cancellationToken);

    protected override async Task Tell(Tellings tellings, ChangeRow change, CancellationToken cancellationToken)
    {
        var calendar = CalendarOf(change);
        var seeing = (await tellings.RolesOn(calendar, cancellationToken)).Where(one =>
            Telling.FineClashShowsTo(one.Value)
        );
        tellings.Tell(seeing.Select(one => one.Key), Topic.Wall, change, calendar);
    }

    protected override Task<Refusal?> WhyNotReturn(
        Undoing undoing,
        FineClashRow now,
        FineClashRow? then,
        CancellationToken cancellationToken
    ) => Task.FromResult(AccessRules.ToAdd(undoing.RoleOn(now.CalendarId)).WhyNot("change", "Add"));

    /// <summary>For who did it.</summary>
    public override Deed? Deed(ChangeRow change, DeedFacts facts) =>
        facts.IsOwn(change) && change.After is not null
            ? new Deed(
                facts.Calendars.GetValueOrDefault(CalendarOf(change), string.Empty),
                [
                    Read(change).After.EndedAt is null
                        ? "said that a clash is fine"
                        : "said that a clash is one after all",
                ]
            )
            : null;
}
