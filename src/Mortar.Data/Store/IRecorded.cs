using Mortar.Core.Changes;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Data.Store;

/// <summary>A row whose every change goes into the log. <see cref="MortarDb"/> writes the log; nobody can forget to.</summary>
internal interface IRecorded
{
    Subject Subject { get; }

    Guid SubjectId { get; }

    /// <summary>The calendar it belongs to; <c>null</c> for what belongs to none.</summary>
    CalendarId? OfCalendar { get; }

    /// <summary>The group it is about, for what belongs to a group as such; <c>null</c> for everything else.</summary>
    GroupId? OfGroup => null;

    /// <summary>The person whom the change concerns besides those who see the calendar; shown in their inbox.</summary>
    PersonId? Concerns { get; }

    /// <summary>Counts changes from 1; set by <see cref="MortarDb"/>.</summary>
    int Version { get; set; }

    /// <summary>Goes back to not being there, in the way that rows of its kind do: nothing recorded is ever erased.</summary>
    void Vanish(Instant now);
}
