using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Letters;

/// <summary>
/// How many mails somebody can have written within an hour. So many that nobody at work meets it (a class of five hundred is
/// added and asked once), and so few that nobody's mailbox is filled from here.
/// </summary>
public static class MailLimits
{
    /// <summary>The time they are counted over.</summary>
    public static readonly Duration Window = Duration.FromHours(1);

    /// <summary>To all together, by what one person does.</summary>
    public const int ByOne = 1_000;

    /// <summary>To one address, by what one person does.</summary>
    public const int ByOneToOne = 30;

    /// <summary>To one address, by what anybody does.</summary>
    public const int ToOne = 120;

    /// <summary>
    /// Why nothing is written to others for an account whose own address is not confirmed; <c>null</c> where it is only asked
    /// whether an address is theirs. Whoever holds a link makes such accounts, and would have a thousand mails written by each.
    /// </summary>
    /// <param name="to">To whom would be written.</param>
    /// <param name="own">The addresses that they say are theirs.</param>
    public static Refusal? WhyNotYet(IEnumerable<string> to, IReadOnlySet<string> own) =>
        to.All(own.Contains)
            ? null
            : new Refusal.AgainstRule(
                "not-confirmed",
                "Nothing is mailed for you until your own address is confirmed. Open the link in the mail that went there, then try again."
            );

    /// <summary>Why so many cannot be written, and when again; <c>null</c> where they can.</summary>
    /// <param name="written">What was written within the window: to whom, by whose act, and when.</param>
    /// <param name="by">Who would have these written.</param>
    /// <param name="to">The addresses, each as often as it would be written to.</param>
    /// <param name="now">What o'clock it is.</param>
    public static (string Sentence, Duration Wait)? Exceeded(
        IReadOnlyCollection<(string To, PersonId By, Instant At)> written,
        PersonId by,
        IReadOnlyCollection<string> to,
        Instant now
    )
    {
        var mine = written.Where(one => one.By == by).ToList();
        if (mine.Count + to.Count > ByOne)
        {
            return Said(
                $"You have had {mine.Count} mails written within the last hour, and {ByOne} can be.",
                mine.Select(one => one.At),
                mine.Count + to.Count - ByOne
            );
        }

        foreach (var same in to.GroupBy(address => address, StringComparer.Ordinal))
        {
            var theirs = written.Where(one => one.To == same.Key).ToList();
            var fromMe = theirs.Where(one => one.By == by).ToList();
            if (fromMe.Count + same.Count() > ByOneToOne)
            {
                return Said(
                    $"Somebody was written to {fromMe.Count} times within the last hour already. Nothing was sent, and nothing is changed.",
                    fromMe.Select(one => one.At),
                    fromMe.Count + same.Count() - ByOneToOne
                );
            }

            if (theirs.Count + same.Count() > ToOne)
            {
                return Said(
                    "Somebody is written to very often just now, by others as well. Nothing was sent, and nothing is changed.",
                    theirs.Select(one => one.At),
                    theirs.Count + same.Count() - ToOne
                );
            }
        }

        return null;

        // So many of the oldest have to be an hour old.
        (string, Duration) Said(string sentence, IEnumerable<Instant> times, int tooMany)
        {
            var free = times.Order().Take(tooMany).Select(at => at + Window).DefaultIfEmpty(now + Window).Max();
            var wait = Duration.Max(free - now, Duration.FromMinutes(1));
            var minutes = (int)Math.Ceiling(wait.TotalMinutes);
            return ($"{sentence} Try again in {Wording.Count(minutes, "minute", "minutes")}.", wait);
        }
    }
}
