using System.Diagnostics;
using System.Text.Json.Serialization;
using Mortar.Core.Events;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Server.Wire;

/// <summary>A time on the wire, in one of the three forms.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "form")]
[JsonDerivedType(typeof(Days), "days")]
[JsonDerivedType(typeof(Clock), "clock")]
[JsonDerivedType(typeof(Floating), "floating")]
internal abstract record TimeBody
{
    /// <summary>Days, both included: whole ones, or such whose hours are not known yet.</summary>
    internal sealed record Days(LocalDate First, LocalDate Last, bool ToBeSet = false) : TimeBody;

    /// <summary>A local start and end on the clock of an IANA zone.</summary>
    internal sealed record Clock(LocalDateTime Start, LocalDateTime End, string Zone) : TimeBody;

    /// <summary>A local start and end on every reader's clock.</summary>
    internal sealed record Floating(LocalDateTime Start, LocalDateTime End) : TimeBody;

    public static TimeBody Of(EventTime time) =>
        time switch
        {
            EventTime.AllDay days => new Days(days.First, days.Last, days.TimesToBeSet),
            EventTime.Timed timed => new Clock(timed.Start, timed.End, timed.Zone),
            EventTime.Floating floating => new Floating(floating.Start, floating.End),
            _ => throw new UnreachableException(),
        };

    public TimeDraft ToDraft() =>
        this switch
        {
            Days days => new TimeDraft.Days(days.First, days.Last, days.ToBeSet),
            Clock clock => new TimeDraft.Clock(clock.Start, clock.End, clock.Zone),
            Floating floating => new TimeDraft.Floating(floating.Start, floating.End),
            _ => throw new UnreachableException(),
        };
}
