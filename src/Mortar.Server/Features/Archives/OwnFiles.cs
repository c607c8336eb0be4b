using System.Runtime.CompilerServices;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Unicode;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Spreadsheets;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Groups;
using Mortar.Data.History;
using Mortar.Data.Reading;
using Mortar.Data.Store;
using Mortar.Formats.Spreadsheets;
using Mortar.Server.Wire;
using NodaTime;

namespace Mortar.Server.Features.Archives;

/// <summary>What is somebody's own beside calendars, as files: who they are and what they like, what they may do, put in and did.</summary>
internal sealed class OwnFiles(MortarDb db, CalendarFiles files, ActHistory history, ZoneClock zones)
{
    /// <summary>How many pages of what they did are taken along, of which each has forty acts.</summary>
    private const int MostPages = 500;

    /// <param name="Addresses">All of them, the first first; those that wait to be confirmed are left out.</param>
    internal sealed record AccountFile(
        string Name,
        IReadOnlyList<string> Addresses,
        IReadOnlyList<string> Groups,
        PreferencesBody Preferences
    );

    private static readonly JsonSerializerOptions Readable = ToRead();

    /// <summary>Writes them.</summary>
    /// <param name="me">Whose.</param>
    /// <param name="sight">What they see.</param>
    /// <param name="groups">The names of groups.</param>
    /// <param name="put">Puts a file under a name into the archive.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task<IReadOnlyList<ArchivedFile>> Write(
        PersonRow me,
        Sight sight,
        IReadOnlyDictionary<GroupId, string> groups,
        Func<string, Func<Stream, Task>, Task> put,
        CancellationToken cancellationToken
    )
    {
        var account = await Account(me, groups, cancellationToken);
        await put("mine/account.json", to => JsonSerializer.SerializeAsync(to, account, Readable, cancellationToken));
        var standings = await db.StandingsOf(me.Id, cancellationToken);
        var access = sight
            .Calendars.OrderBy(one => one.Row.Name, StringComparer.OrdinalIgnoreCase)
            .Select(one => new OwnAccess(
                one.Row.Name,
                one.Role > Role.None ? groups[one.Row.GroupId] : string.Empty,
                standings.GetValueOrDefault(one.Row.Id, Standing.Outside),
                zones.Zone(one.Row.Zone)
            ))
            .ToList();
        await put("mine/access.csv", to => CommaText.Write(to, OwnRows.Access(access), cancellationToken));
        var putIn = await files.PutIn(me.Id, sight.RoleOn, [.. sight.All], me.Zone, cancellationToken);
        await put(
            "mine/what I put in.ics",
            to => to.WriteAsync(Encoding.UTF8.GetBytes(putIn.Text), cancellationToken).AsTask()
        );
        var deeds = 0;
        await put(
            "mine/what I did.csv",
            to =>
                CommaText.Write(
                    to,
                    OwnRows.Deeds(Deeds(me, cancellationToken).Select(one => (deeds++, one).one)),
                    cancellationToken
                )
        );
        return
        [
            new ArchivedFile("mine/account.json", "Account and preferences", string.Empty, "name, addresses, groups"),
            new ArchivedFile(
                "mine/access.csv",
                "What I may do",
                string.Empty,
                Wording.Count(access.Count, "calendar", "calendars")
            ),
            new ArchivedFile(
                "mine/what I put in.ics",
                "What I put in",
                string.Empty,
                Wording.Count(putIn.Count, "event", "events")
            ),
            new ArchivedFile("mine/what I did.csv", "What I did", string.Empty, Wording.Count(deeds, "line", "lines")),
        ];
    }

    private async Task<AccountFile> Account(
        PersonRow me,
        IReadOnlyDictionary<GroupId, string> groups,
        CancellationToken cancellationToken
    )
    {
        var further = await db
            .Addresses.Where(row => row.PersonId == me.Id && row.ConfirmedAt != null)
            .OrderBy(row => row.Address)
            .Select(row => row.Address)
            .ToListAsync(cancellationToken);
        var mine = await db
            .Members.Where(member => member.PersonId == me.Id)
            .Select(member => member.GroupId)
            .ToListAsync(cancellationToken);
        return new AccountFile(
            me.Name,
            [.. me.Address is { } first ? [first] : Array.Empty<string>(), .. further],
            [.. mine.Select(id => groups[id]).Order(StringComparer.OrdinalIgnoreCase)],
            PreferencesBody.Of(me.ToPreferences())
        );
    }

    private async IAsyncEnumerable<OwnDeed> Deeds(
        PersonRow me,
        [EnumeratorCancellation] CancellationToken cancellationToken
    )
    {
        var zone = zones.Zone(me.Zone);
        ChangeSetId? before = null;
        for (var page = 0; page < MostPages; page++)
        {
            var wish = new HistoryWish(new HistoryOfWhat.Mine(), Before: before);
            if (await history.Read(me.Id, wish, cancellationToken) is not Outcome<HistoryPage>.Done { Value: var read })
            {
                yield break;
            }

            foreach (var act in read.Acts)
            {
                foreach (var deed in act.Deeds)
                {
                    yield return new OwnDeed(
                        act.At.InZone(zone).LocalDateTime.With(TimeAdjusters.TruncateToMinute),
                        deed.About,
                        string.Join(", ", deed.What)
                    );
                }
            }

            if (read.Next is not { } next)
            {
                yield break;
            }

            before = next;
        }
    }

    private static JsonSerializerOptions ToRead()
    {
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web)
        {
            WriteIndented = true,
            Encoder = JavaScriptEncoder.Create(UnicodeRanges.All),
        };
        WireJson.Configure(options);
        return options;
    }
}
