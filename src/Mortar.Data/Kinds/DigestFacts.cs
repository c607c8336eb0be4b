using Mortar.Core.Access;
using Mortar.Core.Time;
using NodaTime;

namespace Mortar.Data.Kinds;

/// <summary>Whom a digest is written, and on whose clock.</summary>
internal sealed record DigestFacts(Reader Reader, DateTimeZone Zone, ZoneClock Zones);
