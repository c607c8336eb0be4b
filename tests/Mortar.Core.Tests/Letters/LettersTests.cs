using Mortar.Core.Access;
using Mortar.Core.Answers;
using Mortar.Core.Events;
using Mortar.Core.Letters;
using Mortar.Core.Proposals;
using Mortar.Core.Reminders;
using Mortar.Core.Time;
using Mortar.Core.Words;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Letters;

public class LettersTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 3, 1, 12, 0);
    private static readonly PublicLinks Links = new("https://mortar.example.org");

    /// <summary>Mei reads on a clock five hours behind the studio's.</summary>
    private static readonly Recipient Mei = new("Mei", DateTimeZoneProviders.Tzdb["America/New_York"]);

    [Fact]
    public void A_question_tells_when_by_the_clock_of_who_is_asked_and_leaves_out_what_is_not_said()
    {
        var letter = EventLetters.ToAttend(
            Firing("Bisque firing"),
            Mei,
            "Ines",
            AskedAbout.Whether,
            Links.Answer("s3cret"),
            Now,
            Studio.Clock
        );

        Assert.Equal("Ines asks whether you come: Bisque firing", letter.Subject);
        Assert.Equal(
            "Hello Mei,\n\nInes asks whether you come:\n\nBisque firing\nTue 3 March, 04:00 to 05:00 (America/New_York)\n\n"
                + "Answer here, you need no account for it:\nhttps://mortar.example.org/answer/s3cret",
            letter.Body
        );
    }

    [Fact]
    public void A_move_says_what_it_was_before_and_what_is_off_asks_nothing()
    {
        var told = Firing("Bisque firing");
        var now = told with { Time = At(new LocalDateTime(2026, 3, 4, 9, 0)) };

        var moved = Tell(ToldOfEvent.Changed, told, now);
        Assert.StartsWith("Changed: Bisque firing, Wed 4 March", moved.Subject, StringComparison.Ordinal);
        Assert.Contains("(before: Tue 3 March, 04:00 to 05:00)", moved.Body, StringComparison.Ordinal);
        Assert.Contains("/answer/s3cret", moved.Body, StringComparison.Ordinal);

        var off = Tell(ToldOfEvent.CalledOff, told, told);
        Assert.StartsWith("Called off: Bisque firing", off.Subject, StringComparison.Ordinal);
        Assert.DoesNotContain("/answer/", off.Body, StringComparison.Ordinal);
        Assert.DoesNotContain("before", off.Body, StringComparison.Ordinal);
    }

    [Fact]
    public void Every_proposed_time_stands_on_a_line_and_the_year_where_it_is_another()
    {
        var letter = ProposalLetters.ToSuit(
            "Glaze testing",
            "Room 2",
            "",
            [
                new ProposedTime(Instant.FromUtc(2026, 3, 3, 14, 0), Instant.FromUtc(2026, 3, 3, 15, 0)),
                new ProposedTime(Instant.FromUtc(2027, 1, 5, 14, 0), Instant.FromUtc(2027, 1, 5, 15, 0)),
            ],
            Mei,
            "Ines",
            Links.Suits("s3cret"),
            Now
        );

        Assert.Contains(
            "Glaze testing\nRoom 2\n\n- Tue 3 March, 09:00 to 10:00\n- Tue 5 January 2027, 09:00 to 10:00\n",
            letter.Body,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_namedsubject_is_shortened_and_a_digest_counts_what_it_does_not_list()
    {
        var named = GroupLetters.ToAskIn("Ines", new string('x', 400), Links.Inbox);
        Assert.InRange(named.Subject.Length, 100, 180);

        var digest = DigestLetter.For(
            "Mei",
            [.. Enumerable.Range(1, DigestRules.MostEvents + 7).Select(number => $"Line {number}")],
            Links.Week
        );
        Assert.EndsWith($"{DigestRules.MostEvents + 7} events", digest.Subject, StringComparison.Ordinal);
        Assert.Contains($"- Line {DigestRules.MostEvents}\nand 7 more.\n", digest.Body, StringComparison.Ordinal);
    }

    [Fact]
    public void Access_is_asked_and_offered_in_the_words_of_the_ladder()
    {
        var offered = AccessLetters.ToInvite(
            "Ines",
            "Kiln",
            Role.View,
            inReturn: true,
            "Come and see.",
            Links.Invitation("s3cret")
        );
        Assert.Contains(RoleSentence.ForReader(Role.View, "Kiln"), offered.Body, StringComparison.Ordinal);
        Assert.Contains(
            "a calendar of yours in return.\n\nInes writes:\n\nCome and see.\n",
            offered.Body,
            StringComparison.Ordinal
        );

        var asked = AccessLetters.ToAnswer(
            ("Mei", "mei@example.org"),
            "Kiln",
            Role.Outline,
            "",
            Links.Ask(new AskId(Guid.Empty))
        );
        Assert.Equal("Mei asks for the step Outline on “Kiln”", asked.Subject);
        Assert.DoesNotContain("They write", asked.Body, StringComparison.Ordinal);
        Assert.Contains("/inbox?ask=00000000", asked.Body, StringComparison.Ordinal);
    }

    private static Letter Tell(ToldOfEvent tells, Event told, Event now) =>
        EventLetters.ToTell(tells, told, now, Mei, "Ines", Links.Answer("s3cret"), Now, Studio.Clock);

    private static EventTime At(LocalDateTime start) => Studio.Hours(start, 60);

    private static Event Firing(string title)
    {
        var whole = Studio.Event(At(new LocalDateTime(2026, 3, 3, 9, 0)), title: title);
        return whole with { Content = whole.Content with { Place = string.Empty, Notes = string.Empty } };
    }
}
