using Mortar.Server.Features.Demo;
using Xunit;

namespace Mortar.Server.Tests.Features.Paper;

/// <summary>Sheets as they are answered; how they print is looked at in the browser.</summary>
public class PaperTests
{
    private static string Path(string what, string more = "", string from = "2026-03-09", string to = "2026-03-15") =>
        $"/paper/{what}?from={from}&to={to}&group={World.StudioTeam}{more}";

    [Fact]
    public async Task Each_kind_of_sheet_has_its_heading_and_who_reads_it()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        foreach (
            var (what, text) in ((string, string)[])
                [
                    ("roster", "Mon 9 to Sun 15 March 2026"),
                    ("week", "Team meeting"),
                    ("agenda", "Team meeting"),
                    ("month", "March 2026"),
                    ("absences", "Days away, March 2026"),
                    ("access", "Who has what"),
                ]
        )
        {
            var page = (await ines.Get(Path(what))).Is(200).Text;
            Assert.Contains(text, page, StringComparison.Ordinal);
            Assert.Contains("<h1 dir=\"auto\">Studio team</h1>", page, StringComparison.Ordinal);
            Assert.Contains($"As {DemoPeople.Ines.Name} sees it on", page, StringComparison.Ordinal);
        }

        Assert.Contains(
            "Team meeting",
            (await ines.Get(Path("day", from: "2026-03-11", to: "2026-03-11"))).Is(200).Text,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_heading_of_ones_own_is_told_as_it_is_and_cannot_act()
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        var page = (
            await ines.Get(
                Path("week", "&title=" + Uri.EscapeDataString("<script>alert(1)</script>" + new string('x', 200)))
            )
        ).Is(200);

        Assert.DoesNotContain("<script>alert", page.Text, StringComparison.Ordinal);
        Assert.Contains("&lt;script&gt;alert(1)", page.Text, StringComparison.Ordinal);
        Assert.DoesNotContain(new string('x', 80), page.Text, StringComparison.Ordinal);
        var policy = page.Headers.GetValues("Content-Security-Policy").Single();
        Assert.Contains("frame-ancestors 'self'", policy, StringComparison.Ordinal);
        Assert.Contains("default-src 'none'", policy, StringComparison.Ordinal);
        Assert.DoesNotContain("unsafe", policy, StringComparison.Ordinal);
        Assert.Equal("no-store", page.Headers.CacheControl!.ToString());
    }

    [Fact]
    public async Task Whoever_may_not_read_it_gets_none()
    {
        await using var mortar = await TestMortar.Start();
        using var nobody = mortar.Anonymous();
        using var astrid = await mortar.As(DemoPeople.Astrid);
        using var tomasz = await mortar.As(DemoPeople.Tomasz);

        (await nobody.Get(Path("week"))).Is(401);
        foreach (var what in (string[])["roster", "week", "month", "agenda", "absences", "access"])
        {
            (await astrid.Get(Path(what))).IsProblem(404, "not-there");
        }

        (await tomasz.Get(Path("access"))).IsProblem(403, "not-allowed");
        (await astrid.Get("/paper/roster?from=2026-03-09&to=2026-03-15")).IsProblem(404, "not-there");
    }

    [Theory]
    [InlineData("poster", "2026-03-09", "2026-03-15", 404)]
    [InlineData("day", "2026-03-09", "2026-03-15", 422)]
    [InlineData("roster", "2026-01-01", "2026-06-01", 422)]
    [InlineData("week", "2026-03-15", "2026-03-09", 422)]
    [InlineData("agenda", "2020-01-01", "2026-06-01", 422)]
    public async Task What_cannot_be_printed_is_said(string what, string from, string to, int status)
    {
        await using var mortar = await TestMortar.Start();
        using var ines = await mortar.As(DemoPeople.Ines);

        Assert.NotEmpty((await ines.Get(Path(what, from: from, to: to))).Is(status).Detail);
    }
}
