using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Availability;

/// <summary>The change of an event by which it came to take the time it takes.</summary>
/// <param name="Sequence">Its place in the log.</param>
/// <param name="At">When.</param>
/// <param name="Actor">Who did it.</param>
/// <param name="Name">Their name.</param>
public sealed record ClashOrigin(long Sequence, Instant At, PersonId Actor, string Name)
{
    /// <summary>
    /// Whose change made a clash, for somebody else: the later of the two, where both are known to the reader, since else which
    /// is the later is not. <c>null</c> where that is not known, or was the reader.
    /// </summary>
    public static ClashOrigin? Of(ClashOrigin? first, ClashOrigin? second, PersonId reader) =>
        first is null || second is null ? null
        : (first.Sequence > second.Sequence ? first : second) is var later && later.Actor != reader ? later
        : null;
}
