using System.IO.Compression;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Spreadsheets;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using Mortar.Formats.Spreadsheets;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Archives;

/// <summary>A file in an archive, as the page in it names it.</summary>
/// <param name="Path">Where it is in the archive.</param>
/// <param name="Name">What it is of.</param>
/// <param name="Group">Of which group; empty where that is not told.</param>
/// <param name="Holds">What is in it, in words.</param>
public sealed record ArchivedFile(string Path, string Name, string Group, string Holds);

/// <summary>Writes an archive: a file for each calendar somebody sees, one table of who has what for each group they coordinate, where it is of all what is their own besides, and a page that says what is in it.</summary>
internal sealed class ArchiveWriting(
    MortarDb db,
    WindowReader reader,
    CalendarFiles files,
    OwnFiles own,
    ZoneClock zones,
    IClock clock,
    IServiceProvider services
)
{
    public async Task Write(Archive archive, CancellationToken cancellationToken)
    {
        archive.Seen = await reader.See(archive.Owner, cancellationToken);
        var sight = archive.Seen.Sight;
        var groups = await db.Groups.ToDictionaryAsync(row => row.Id, row => row.Name, cancellationToken);
        var me = await db.People.AsNoTracking().SingleAsync(row => row.Id == archive.Owner, cancellationToken);
        var calendars = sight
            .Calendars.Where(one =>
                archive.Group is not { } group || (one.Role > Role.None && one.Row.GroupId == group)
            )
            .OrderBy(one => groups[one.Row.GroupId], StringComparer.OrdinalIgnoreCase)
            .ThenBy(one => one.Row.Name, StringComparer.OrdinalIgnoreCase)
            .ToList();
        var now = clock.GetCurrentInstant().InZone(zones.Zone(me.Zone));
        archive.Total = calendars.Count;
        archive.Name = FilesToGive.Name(
            FormattableString.Invariant($"{(archive.Group is { } of ? groups[of] : me.Name)} {now:uuuu-MM-dd}"),
            ".zip"
        );
        var named = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var contents = new List<ArchivedFile>();
        await using var stream = new FileStream(
            archive.Path,
            FileMode.CreateNew,
            FileAccess.Write,
            FileShare.None,
            bufferSize: 81_920,
            useAsync: true
        );
        await using var zip = await ZipArchive.CreateAsync(
            new BoundedStream(stream, FilesToGive.MostBytes),
            ZipArchiveMode.Create,
            leaveOpen: true,
            Encoding.UTF8,
            cancellationToken
        );
        foreach (var one in calendars)
        {
            var isTimes = one.Role == Role.Times;
            var file = isTimes
                ? await files.Times(archive.Owner, one.Row, cancellationToken)
                : await files.Events(archive.Owner, one.Role, one.Row, cancellationToken);
            var group = one.Role > Role.None ? groups[one.Row.GroupId] : string.Empty;
            var path = Path("calendars", group, one.Row.Name, ".ics");
            await Put(path, to => to.WriteAsync(Encoding.UTF8.GetBytes(file.Text), cancellationToken).AsTask());
            contents.Add(
                new ArchivedFile(
                    path,
                    one.Row.Name,
                    group,
                    isTimes ? Wording.Count(file.Count, "busy time", "busy times") + ", a year back and two ahead"
                        : one.Role < Role.View ? Wording.Count(file.Count, "event", "events") + ", titles and places"
                        : Wording.Count(file.Count, "event", "events")
                )
            );
            archive.Done++;
        }

        var coordinated = calendars.Where(one => one.Role == Role.Coordinate).Select(one => one.Row.GroupId).Distinct();
        foreach (var group in coordinated)
        {
            if (
                await db.AccessOverviewOf(group, archive.Owner, zones, cancellationToken)
                is Outcome<AccessOverview>.Done overview
            )
            {
                var path = Path("who has what", string.Empty, groups[group], ".xlsx");
                await Put(path, to => Workbook.Write(to, AccessRows.Of(overview.Value), cancellationToken));
                contents.Add(
                    new ArchivedFile(
                        path,
                        "Who has what",
                        groups[group],
                        Wording.Count(overview.Value.People.Length, "person", "people")
                    )
                );
            }
        }

        if (archive.Group is null)
        {
            contents.AddRange(await own.Write(me, sight, groups, Put, cancellationToken));
        }

        var page = await HtmlPages.Render<ArchiveDocument>(
            services,
            new()
            {
                ["Of"] = archive.Group is { } wanted ? groups[wanted] : "All that I see",
                ["Files"] = contents,
                ["Note"] = FormattableString.Invariant(
                    $"As {me.Name} saw it on {now:ddd d MMMM uuuu, HH:mm}, {me.Zone}."
                ),
            }
        );
        await Put("index.html", to => to.WriteAsync(Encoding.UTF8.GetBytes(page), cancellationToken).AsTask());

        string Path(string room, string group, string name, string ending)
        {
            var folder = group.Length > 0 ? $"{room}/{FilesToGive.Name(group, string.Empty)}" : room;
            var path = $"{folder}/{FilesToGive.Name(name, ending)}";
            for (var number = 2; !named.Add(path); number++)
            {
                path = $"{folder}/{FilesToGive.Name(FormattableString.Invariant($"{name} {number}"), ending)}";
            }

            return path;
        }

        async Task Put(string path, Func<Stream, Task> write)
        {
            var entry = zip.CreateEntry(path);
            entry.LastWriteTime = now.ToDateTimeOffset();
            await using var to = await entry.OpenAsync(cancellationToken);
            await write(to);
        }
    }
}
