using NodaTime;

namespace Mortar.Data.Kinds;

/// <summary>
/// What went out with a row: the hash of its secret and when. No undo brings an older one back, since the mail that holds it
/// has been followed by another one, or was meant to lead nowhere.
/// </summary>
/// <param name="Address">Where it went.</param>
internal sealed record Mailed(string? Hash, Instant? At, string? Address);
