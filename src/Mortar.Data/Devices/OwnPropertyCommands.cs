using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Data.Devices;

/// <summary>Keeps what programs set on calendars for their owner alone; the log says nothing of it.</summary>
public sealed class OwnPropertyCommands(MortarDb db)
{
    /// <summary>The most that is kept of one calendar for one person.</summary>
    public const int Most = 50;

    /// <summary>Sets some and takes others away.</summary>
    /// <param name="person">Whose.</param>
    /// <param name="calendar">On which calendar.</param>
    /// <param name="properties">Their names with their namespaces, and the elements; <c>null</c> for away.</param>
    /// <param name="cancellationToken">Stops it; nothing is written then.</param>
    public async Task<Outcome<int>> Set(
        PersonId person,
        CalendarId calendar,
        IReadOnlyList<(string Name, string? Xml)> properties,
        CancellationToken cancellationToken
    )
    {
        Outcome<int> outcome = properties.Count;
        await db.WriteUnlogged(
            async () =>
            {
                var known = await db
                    .OwnProperties.Where(row => row.PersonId == person && row.CalendarId == calendar)
                    .ToDictionaryAsync(row => row.Name, cancellationToken);
                var wished = properties.GroupBy(one => one.Name).Select(same => same.Last()).ToList();
                if (known.Keys.Union(wished.Where(one => one.Xml is not null).Select(one => one.Name)).Count() > Most)
                {
                    outcome = new Refusal.AgainstRule(
                        "too-many",
                        FormattableString.Invariant($"Programs can set up to {Most} properties on one calendar.")
                    );
                    return;
                }

                foreach (var (name, xml) in wished)
                {
                    var row = known.GetValueOrDefault(name);
                    if (xml is null)
                    {
                        if (row is not null)
                        {
                            db.OwnProperties.Remove(row);
                        }
                    }
                    else if (row is not null)
                    {
                        row.Xml = xml;
                    }
                    else
                    {
                        db.OwnProperties.Add(
                            new OwnPropertyRow
                            {
                                PersonId = person,
                                CalendarId = calendar,
                                Name = name,
                                Xml = xml,
                            }
                        );
                    }
                }
            },
            cancellationToken
        );
        return outcome;
    }
}
