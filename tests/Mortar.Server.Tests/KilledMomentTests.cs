using System.Diagnostics;
using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>Killed while a calendar of a thousand events is brought back to a moment: it is as before, or as it was then, and nothing between.</summary>
public sealed class KilledMomentTests(ITestOutputHelper output) : OnLeftStore(deep: false)
{
    private const string There =
        "DeletedAt IS NULL AND CalendarId = (SELECT CalendarId FROM Events WHERE Title = 'Stays')";

    private readonly Uri url = KillableMortar.FreeAddress();
    private readonly Random random = new(Deep.Seed);

    [Fact]
    public async Task It_is_before_or_after()
    {
        using var ines = new Browser(url);
        var path = await MakeHistory(ines);
        var kept = $"{Data}-kept";
        LeftStore.Copy(Data, kept);
        try
        {
            var usual = await BringBack(ines, path, after: null);
            Assert.Equal(300, await Left.Count("Events", There));
            var ends = new List<long>();
            for (var round = 0; round < (Deep.Is ? Deep.Rounds : 4); round++)
            {
                // The keys stay, by which she is signed in.
                foreach (var file in Directory.EnumerateFiles(Data))
                {
                    File.Delete(file);
                }

                LeftStore.Copy(kept, Data);
                var acknowledged = await BringBack(ines, path, usual * (1.2 * random.NextDouble())) > TimeSpan.Zero;
                ends.Add(await Left.Count("Events", There));
                Assert.True(ends[^1] == 300 || (ends[^1] == 1_000 && !acknowledged), $"{ends[^1]} of 1,000 and 300");
                Assert.Equal("ok", await Left.Scalar("PRAGMA integrity_check"));
            }

            output.WriteLine(
                $"{ends.Count} kills within {usual.TotalMilliseconds:N0} ms: {ends.Count(one => one == 300)} brought back, the others as before"
            );
        }
        finally
        {
            Directory.Delete(kept, recursive: true);
        }
    }

    /// <summary>A calendar with 300 events of two hours ago and 700 of one hour ago, by the log. Where the moment between is asked for.</summary>
    private async Task<string> MakeHistory(Browser ines)
    {
        string path;
        await using (var mortar = KillableMortar.Start(Data, url))
        {
            await mortar.IsUp();
            (await ines.Post($"/api/demo/session/{DemoPeople.Ines.Id.Value}")).Is(204);
            var calendar = await ines.MakeCalendar();
            path = $"/api/calendars/{calendar.Value}/moment";
            foreach (var (title, count) in new[] { ("Stays", 300), ("Came", 700) })
            {
                var import = Guid.NewGuid();
                var place = $"/api/calendars/{calendar.Value}/imports/{import}";
                (await ines.Put(place, Files.Many(title, count))).Is(200);
                (await ines.Post($"{place}/write", new { known = "keep" })).Is(202);
                await ines.Imported(calendar, import);
            }

            await mortar.Kill();
        }

        const string Hour = "3600000";
        await Left.Do(
            $"""
            UPDATE Changes SET At = At - 2 * {Hour} WHERE CalendarId = (SELECT CalendarId FROM Events WHERE Title = 'Stays');
            UPDATE Changes SET At = At + {Hour} WHERE SubjectId IN (SELECT Id FROM Events WHERE Title = 'Came');
            """
        );
        Assert.Equal(1_000, await Left.Count("Events", There));
        return path;
    }

    /// <summary>Asks for it and kills Mortar a while after, or once it answered; how long the answer took, zero for none.</summary>
    private async Task<TimeSpan> BringBack(Browser ines, string path, TimeSpan? after)
    {
        await using var mortar = KillableMortar.Start(Data, url);
        await mortar.IsUp();
        var begun = Stopwatch.GetTimestamp();
        var asked = Ask();
        if (after is { } wait)
        {
            await Task.Delay(wait, TestContext.Current.CancellationToken);
        }
        else
        {
            await asked;
        }

        await mortar.Kill();
        return await asked;

        async Task<TimeSpan> Ask()
        {
            try
            {
                // A quarter to ten lies between the two, as today begins at twelve past eleven.
                (await ines.Post(path, new { at = "2026-03-11T09:42:00Z" })).Is(200);
                return Stopwatch.GetElapsedTime(begun);
            }
            catch (HttpRequestException)
            {
                return TimeSpan.Zero; // it was killed
            }
        }
    }
}
