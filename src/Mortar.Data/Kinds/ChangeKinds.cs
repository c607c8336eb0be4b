using System.Collections.Frozen;
using Mortar.Core.Changes;
using Mortar.Data.Changes;

namespace Mortar.Data.Kinds;

/// <summary>The register of all kinds of record whose changes are kept. The live line, undo, inboxes, digests and histories are loops over it.</summary>
internal static class ChangeKinds
{
    public static IReadOnlyList<ChangeKind> All { get; } =
    [
        new EventKind(),
        new CalendarKind(),
        new GrantKind(),
        new InvitationKind(),
        new GroupKind(),
        new GroupGrantKind(),
        new MemberKind(),
        new AskKind(),
        new LinkKind(),
        new LinkHolderKind(),
        new GuardianKind(),
        new OpenAskKind(),
        new FineClashKind(),
        new AnswerKind(),
        new ProposalKind(),
        new SuitingsKind(),
        new AgreementKind(),
        new GuestKind(),
        new NoticeboardKind(),
    ];

    private static readonly FrozenDictionary<Subject, ChangeKind> BySubject = All.ToFrozenDictionary(kind =>
        kind.Subject
    );

    public static ChangeKind Of(Subject subject) => BySubject[subject];

    /// <summary>The kind of a change.</summary>
    public static ChangeKind Kind(this ChangeRow change) => BySubject[change.Subject];

    /// <summary>The subjects of those kinds of which something holds.</summary>
    public static List<Subject> Subjects(Func<ChangeKind, bool> which) =>
        [.. All.Where(which).Select(kind => kind.Subject)];
}
