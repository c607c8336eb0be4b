using System.IO.Compression;
using System.Text;
using ExcelDataReader;
using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>Files that people take along and bring: opened as they lie on the disk.</summary>
public sealed class TakingAlongTests : IDisposable
{
    private readonly DirectoryInfo folder = Directory.CreateTempSubdirectory("mortar-saved-");

    static TakingAlongTests() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    public void Dispose() => folder.Delete(recursive: true);

    private string Saved(Screen screen, string name)
    {
        var path = Path.Combine(folder.FullName, name);
        screen.Until(() => File.Exists(path), $"{name} to be saved");
        return path;
    }

    [Fact]
    public async Task A_supervisor_takes_the_months_absences_and_everything_at_once()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.SaveTo(folder.FullName);
        ines.Open($"/groups/{World.StudioTeam}/absences?year=2026");
        ines.Click(Named("a", "As a spreadsheet"));
        ines.WaitForText("A row each with what it costs in working days");
        ines.Click("This month");
        Assert.Equal(string.Empty, ines.Axe());
        ines.Click("Save");
        ines.WaitForText("Saved as Studio-team-absences-2026-03-01-2026-03-31.xlsx.");
        Shot(ines, "take-along");

        using var reader = ExcelReaderFactory.CreateOpenXmlReader(
            File.OpenRead(Saved(ines, "Studio-team-absences-2026-03-01-2026-03-31.xlsx"))
        );
        reader.Read();
        Assert.True(reader.Read());
        Assert.Equal((DemoPeople.Dele.Name, new DateTime(2026, 3, 9)), (reader.GetString(0), reader.GetDateTime(1)));
        Assert.Equal(3.0, reader.GetDouble(5));

        ines.Click("Make one of Studio team");
        ines.Click(Containing("a", "Save Studio-team-2026-03-11.zip"));
        using var zip = ZipFile.OpenRead(Saved(ines, "Studio-team-2026-03-11.zip"));
        Assert.Contains(zip.Entries, entry => entry.FullName == "calendars/Studio-team/Rota.ics");
        Assert.Contains(zip.Entries, entry => entry.FullName == "index.html");
        Assert.Empty(ines.Complaints());
    }

    [Fact]
    public async Task A_programme_comes_in_from_a_spreadsheet_and_the_group_is_found_by_its_name()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        var file = Path.Combine(folder.FullName, "programme.csv");
        await File.WriteAllTextAsync(
            file,
            "Spring programme\nWhat;Day;From;Until;Room\nGlaze talk;12.3.26;19:00;21:00;Glaze room\nNo day;soon;;;\n",
            TestContext.Current.CancellationToken
        );
        ines.Open($"/week/2026-03-11?desk=calendar~{calendar.Value}~import");
        ines.Find(By.CssSelector("input[type=file]")).SendKeys(file);
        ines.WaitForText("Row 2 names them.");
        ines.WaitForText("left out: “soon” is not read as a day with its year");
        Take("From", "time it starts");
        Take("Until", "time it ends");
        ines.WaitForText("Thu 12 March 2026, 19:00 to 21:00: Glaze talk");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "sheet-import");
        ines.Click("Import 1 into Glaze tests");
        ines.WaitForText("Imported 1 into “Glaze tests”.");
        ines.Find(Brick("Glaze talk"));

        ines.Open($"/groups/{World.StudioTeam}");
        ines.Click(Containing("label", "It has one"));
        var name = Labelled($"{mortar.Url.Host}:{mortar.Url.Port}/g/");
        ines.Find(name).SendKeys(Keys.Control + "a");
        ines.Find(name).SendKeys("admin");
        ines.WaitForText("This name is kept for Mortar itself.");
        ines.Find(name).SendKeys(Keys.Control + "a");
        ines.Find(name).SendKeys("kiln-street");
        ines.WaitForText("It can be had.");
        ines.Click("Save settings");
        ines.WaitForText("Changed the settings of “Studio team”.");

        using var hanne = new Screen(mortar.Url, 390, 844).SignIn(DemoPeople.Hanne);
        hanne.Open("/g/kiln-street");
        hanne.WaitForText("Calendars you see");
        hanne.WaitForText("Big kiln");
        Assert.Equal(string.Empty, hanne.Axe());
        Shot(hanne, "group-home");
        Assert.DoesNotContain("Glaze tests", hanne.Text(By.CssSelector("main")), StringComparison.Ordinal);
        using var astrid = new Screen(mortar.Url).SignIn(DemoPeople.Astrid);
        astrid.Open("/g/kiln-street");
        astrid.WaitForText("There is no such group, or you are not in it");

        void Take(string column, string role) =>
            ines.Click(
                By.XPath(
                    $"//select[@aria-label='{column} is taken for'][not(@disabled)]/option[normalize-space()='{role}']"
                )
            );
    }
}
