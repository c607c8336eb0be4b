using Mortar.Core.Binned;
using Mortar.Core.Events;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Data.Binned;

/// <summary>Dates that one act took out of a series and that are still out.</summary>
/// <param name="Act">The act.</param>
/// <param name="At">When.</param>
/// <param name="By">The name of who did it.</param>
/// <param name="Before">The series before.</param>
/// <param name="After">The series after.</param>
/// <param name="Now">The series as it is.</param>
/// <param name="Still">What is still out, as the series counts it now.</param>
internal sealed record SeriesCut(
    ChangeSetId Act,
    Instant At,
    string By,
    Event Before,
    Event After,
    Event Now,
    TakenOut Still
);
