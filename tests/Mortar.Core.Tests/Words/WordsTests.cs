using CsCheck;
using Mortar.Core.Words;
using Xunit;

namespace Mortar.Core.Tests.Words;

public class WordsTests
{
    [Theory]
    [InlineData(" Priya@Example.ORG ", "priya@example.org")]
    [InlineData("a.b+c@sub.example.org", "a.b+c@sub.example.org")]
    [InlineData("", null)]
    [InlineData(null, null)]
    [InlineData("priya", null)]
    [InlineData("@example.org", null)]
    [InlineData("priya@example", null)]
    [InlineData("priya@example..org", null)]
    [InlineData("priya@@example.org", null)]
    [InlineData("pri ya@example.org", null)]
    [InlineData("Priya <priya@example.org>", null)]
    [InlineData("a@example.org,b@example.org", null)]
    [InlineData("a@-example.org", null)]
    [InlineData("a@example.org\nBcc: b@example.org", null)]
    public void An_address_is_read_or_refused(string? text, string? expected)
    {
        var read = Address.TryParse(text, out var address);

        Assert.Equal(expected is not null, read);
        Assert.Equal(expected, address?.Value);
    }

    [Fact]
    public void An_address_is_never_longer_than_mail_can_carry() =>
        Assert.False(Address.TryParse(new string('a', 250) + "@example.org", out _));

    [Theory]
    [InlineData("<script>alert(1)</script>", "<script>alert(1)</script>")] // shown, not run
    [InlineData("one\r\n two\t three", "one two three")]
    [InlineData("a\u0000b\u001bc\u009f", "abc")]
    [InlineData("\u202Egnirif\u202C", "gnirif")] // turns the line around
    [InlineData("  \n ", "")]
    [InlineData(null, "")]
    public void A_line_of_text_is_made_safe(string? text, string expected) =>
        Assert.Equal(expected, PlainText.OneLine(text));

    [Fact]
    public void Lines_keep_their_breaks_and_lose_other_control_characters() =>
        Assert.Equal("one\ntwo\n\nthree", PlainText.Lines("one\r\ntwo\r\rthree\u0000 "));

    [Theory]
    [InlineData("kiln", 4, "kiln")]
    [InlineData("kilns", 4, "kil…")]
    [InlineData("ab😀cd", 4, "ab…")] // not between the halves of one character
    public void Shortening_cuts_whole_characters(string text, int length, string expected) =>
        Assert.Equal(expected, PlainText.Shorten(text, length));

    [Fact]
    public void A_line_has_no_breaks_and_is_never_longer() =>
        Gen.String.Sample(text =>
        {
            var line = PlainText.OneLine(text);
            return line.Length <= text.Length && !line.Any(char.IsControl) && line == PlainText.OneLine(line);
        });
}
