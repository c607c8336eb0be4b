using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.WebCalendars;
using Mortar.Core.Words;

namespace Mortar.Core.Writing;

/// <summary>An event as a command finds it.</summary>
/// <param name="Event">The event.</param>
/// <param name="IsInBin">Whether it was deleted.</param>
/// <param name="IsHomeInBin">Whether its calendar was: an event given by itself goes with it, where nobody has a step that says so.</param>
public sealed record StoredEvent(Event Event, bool IsInBin, bool IsHomeInBin)
{
    /// <summary>
    /// Why somebody may not do something with it; <c>null</c> where they may. Access first, so that neither a version nor a
    /// place in the bin is told to somebody for whom the event is not there.
    /// </summary>
    /// <typeparam name="T">What the caller tells of it.</typeparam>
    /// <param name="verdict">Whether their step reaches that far.</param>
    /// <param name="version">The version that they saw.</param>
    /// <param name="current">What is told where that is not the current one.</param>
    /// <param name="needs">The step it needs, as the interface names it.</param>
    public Outcome<T>? WhyNot<T>(Verdict verdict, int? version, T current, string needs = "Edit") =>
        WhyHidden(verdict, needs) is { } hidden ? hidden
        : IsInBin ? new Refusal.AgainstRule("in-bin", "This event was deleted in the meantime. Bring it back first.")
        : version is null ? new Refusal.VersionNeeded()
        : version != Event.Version ? new Outcome<T>.Stale(current)
        : null;

    /// <summary>The same whatever its version is.</summary>
    public Refusal? WhyHidden(Verdict verdict, string needs = "Edit") =>
        IsHomeInBin ? new Refusal.NotThere("event")
        : verdict == Verdict.Denied && Event.AddedBy == WebCalendarRules.TheWeb ? WebCalendarRules.WhyNotChange
        : verdict.WhyNot("event", needs);
}
