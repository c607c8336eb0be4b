using CsCheck;
using Mortar.Core.Groups;
using Xunit;

namespace Mortar.Core.Tests.Groups;

public class PeopleListTests
{
    private static IReadOnlyList<ListedPerson> Read(string text, params string[] familiar) =>
        PeopleList.Read(text, familiar);

    [Theory]
    [InlineData("Mei Sato <Mei.Sato@Example.org>", "Mei Sato", "mei.sato@example.org")]
    [InlineData("\"Sato, Mei\" <mei@example.org>", "Mei Sato", "mei@example.org")] // the family name first (common practice, no source)
    [InlineData("Sato, Mei <mei@example.org>", "Mei Sato", "mei@example.org")]
    [InlineData("Mei Sato;mei@example.org", "Mei Sato", "mei@example.org")]
    [InlineData("Mei;Sato;mei@example.org;12", "Mei Sato", "mei@example.org")]
    [InlineData("Mei Sato|mei@example.org|Thursday throwing|paid", "Mei Sato", "mei@example.org")]
    [InlineData("mailto:mei.sato@example.org", "Mei Sato", "mei.sato@example.org")]
    [InlineData("Mei Sato <mailto:mei@example.org?subject=Clay>", "Mei Sato", "mei@example.org")]
    [InlineData("1. Mei Sato - mei@example.org", "Mei Sato", "mei@example.org")]
    [InlineData("- Mei Sato – mei@example.org", "Mei Sato", "mei@example.org")]
    [InlineData("Mei Sato: mei@example.org", "Mei Sato", "mei@example.org")]
    [InlineData("Anna-Lena Berg (anna@example.org)", "Anna-Lena Berg", "anna@example.org")]
    [InlineData("Mei Sato [mei@example.org]", "Mei Sato", "mei@example.org")]
    [InlineData("mei.sato(at)example.org", "Mei Sato", "mei.sato@example.org")]
    [InlineData("Mei Sato, mei [at] example [dot] org", "Mei Sato", "mei@example.org")]
    [InlineData("mei.sato at example.org", "Mei Sato", "mei.sato@example.org")]
    [InlineData("(mei.sato AT example dot co dot uk),", "Mei Sato", "mei.sato@example.co.uk")]
    [InlineData("Mei Sato\tmei at example.org", "Mei Sato", "mei@example.org")]
    [InlineData("Mei at the wheel", "Mei at the wheel", null)] // a word like another
    [InlineData("mei.sato@example.org.", "Mei Sato", "mei.sato@example.org")]
    [InlineData("mei.sato@example.org,", "Mei Sato", "mei.sato@example.org")]
    [InlineData("mei.sato@example.org>", "Mei Sato", "mei.sato@example.org")]
    [InlineData("<mei.sato@example.org", "Mei Sato", "mei.sato@example.org")]
    [InlineData("mei.sato@example.org", "Mei Sato", "mei.sato@example.org")] // a guess
    [InlineData("Mei Sato, mei@example.org", "Mei Sato", "mei@example.org")]
    [InlineData("Mei\tSato\tmei@example.org", "Mei Sato", "mei@example.org")] // cells of a spreadsheet
    [InlineData("mei@example.org\tMei Sato", "Mei Sato", "mei@example.org")]
    [InlineData("Mei Sato mei@example.org", "Mei Sato", "mei@example.org")]
    [InlineData("Mei Sato", "Mei Sato", null)] // a name without an account
    public void An_entry_is_understood_in_any_shape(string text, string name, string? address)
    {
        var person = Assert.Single(Read(text));

        Assert.Equal((name, address), (person.Name, person.Address?.Value));
        Assert.Equal(address is null ? ListedReading.NameOnly : ListedReading.Addressed, person.Reading);
        Assert.Null(person.Doubt);
    }

    [Theory]
    [InlineData("mei@example", "“mei@example” is not a mail address. It should look like name@example.org.")]
    [InlineData(
        "Mei <mei@@example.org>",
        "“mei@@example.org” is not a mail address. It should look like name@example.org."
    )]
    [InlineData("@", "“@” is not a mail address. It should look like name@example.org.")]
    [InlineData("12345", "This is no name and no address.")]
    public void What_is_neither_name_nor_address_says_so(string text, string doubt)
    {
        var person = Assert.Single(Read(text));

        Assert.Equal((ListedReading.Unreadable, doubt), (person.Reading, person.Doubt));
    }

    [Fact]
    public void Lines_semicolons_and_commas_between_addresses_part_people() =>
        Assert.Equal(
            ["a@example.org", "b@example.org", "c@example.org", "d@example.org"],
            Read("a@example.org; b@example.org\r\n\r\nc@example.org, Dele <d@example.org>")
                .Select(one => one.Address!.Value.Value)
        );

    [Fact]
    public void A_comma_in_a_name_parts_nobody() =>
        Assert.Equal(
            [("Priya Raman", "priya@example.org"), ("Mei Sato", "mei@example.org"), ("Dele Okoro", "dele@example.org")],
            Read("\"Raman, Priya\" <priya@example.org>, Sato, Mei <mei@example.org>; Dele Okoro <dele@example.org>")
                .Select(one => (one.Name, one.Address!.Value.Value))
        );

    [Fact]
    public void Names_alone_are_parted_and_what_may_be_none_or_two_is_doubtful()
    {
        Assert.Equal(["Mei", "Dele", "Otis"], Read("Mei, Dele, Otis").Select(one => one.Name));
        Assert.Equal(["Mei", "Dele"], Read("Mei; Dele").Select(one => one.Name));
        Assert.Equal(
            ["Otis", "Mei", "Priya Raman", "Dele"],
            Read("Otis, Mei, Raman, Priya <priya@example.org>, Dele, dele@example.org").Select(one => one.Name)
        );
        Assert.Equal(
            "Read as one person, the family name first. Write two people on two lines.",
            Assert.Single(Read("Raman, Priya")).Doubt
        );
        Assert.Equal("Is this somebody’s name?", Assert.Single(Read("Room 12")).Doubt);
    }

    /// <summary>A row that is mended is put back beside the others as they were read.</summary>
    [Fact]
    public void What_an_entry_was_read_from_reads_alike_by_itself() =>
        Gen.OneOfConst("Mei", "Sato", "\"Raman, Priya\"", "mei@example.org", "<dele@example.org>", "12", "Anna-Lena")
            .Select(Gen.OneOfConst(" ", ", ", ";", "\t", "|", " - ", ": ", "\n"), (word, after) => word + after)
            .Array[1, 8]
            .Select(string.Concat)
            .Sample(text =>
            {
                foreach (
                    var person in Read(text)
                        .Where(one => one.Reading is ListedReading.Addressed or ListedReading.NameOnly)
                )
                {
                    var again = Read(person.Text);
                    Assert.Equal((person.Name, person.Address), (again[0].Name, again[0].Address));
                }
            });

    [Fact]
    public void A_list_without_an_end_costs_no_more_than_its_length()
    {
        var few = Cost(20_000);
        var many = Cost(200_000);

        Assert.InRange(many, 0, few * 40 + 4_000_000);

        // In bytes that were taken, which no busy machine changes.
        static long Cost(int names)
        {
            var text = $"{string.Join(',', Enumerable.Repeat("Mei", names))}, a@example.org, b@example.org";
            var before = GC.GetAllocatedBytesForCurrentThread();
            Assert.Equal(PeopleList.Most, Read(text).Count);
            return GC.GetAllocatedBytesForCurrentThread() - before;
        }
    }

    [Fact]
    public void The_heads_of_columns_are_nobody() =>
        Assert.Equal("Mei", Assert.Single(Read("Name\tE-mail\nMei\tmei@example.org")).Name);

    [Fact]
    public void Who_stands_there_twice_is_said_at_the_second()
    {
        var list = Read("Mei <mei@example.org>\nMEI@example.org");

        Assert.Equal(
            [null, "This address stands in the list before. It is taken once."],
            list.Select(one => one.Doubt)
        );
    }

    [Theory]
    [InlineData("exmaple.org")] // swapped
    [InlineData("examle.org")] // left out
    [InlineData("exxample.org")] // put in
    [InlineData("example.orh")] // mistaken
    public void A_domain_one_slip_away_from_one_that_others_have_is_doubtful(string domain)
    {
        var listed = Read($"a@example.org, b@example.org, c@{domain}");
        var known = Read($"c@{domain}", "example.org");

        Assert.Equal($"Is “{domain}” right? Others have “example.org”.", listed[2].Doubt);
        Assert.Equal(listed[2].Doubt, known[0].Doubt);
        Assert.Null(listed[0].Doubt);
    }

    [Fact]
    public void Domains_that_only_look_alike_are_left_alone() =>
        Assert.All(Read("a@kiln.org, b@kilns.example.org, c@example.com"), one => Assert.Null(one.Doubt));

    [Fact]
    public void Whatever_is_pasted_nothing_breaks_and_nothing_is_made_up() =>
        Gen.String[Gen.Char["ab@<>,;\t\n \"'.éß"], 0, 80]
            .Sample(text =>
            {
                foreach (var person in Read(text, "example.org"))
                {
                    Assert.Equal(
                        person.Reading is ListedReading.Addressed or ListedReading.Again,
                        person.Address is not null
                    );
                    Assert.True(person.Reading == ListedReading.Unreadable || person.Name.Length is > 0 and <= 80);
                    Assert.True(
                        person.Address is not { } address
                            || text.Contains(address.Value, StringComparison.OrdinalIgnoreCase)
                    );
                }
            });
}
