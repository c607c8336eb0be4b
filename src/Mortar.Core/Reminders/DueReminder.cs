using Mortar.Core.Access;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Reminders;

/// <summary>That somebody is to be reminded of something.</summary>
/// <param name="Start">When it begins.</param>
/// <param name="Seen">What they see of it.</param>
public sealed record DueReminder(PersonId Person, Instant DueAt, Instant Start, VisibleEvent.Shown Seen);
