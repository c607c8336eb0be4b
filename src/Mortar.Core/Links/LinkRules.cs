using Mortar.Core.Access;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Links;

/// <summary>What a link to hand round gives, and how far.</summary>
/// <param name="Name">What its makers call it ("Noticeboard at the door"); may be empty.</param>
/// <param name="Role">The step it gives.</param>
/// <param name="MostUses">How many people may put the calendar on their wall by it; <c>null</c> for any number.</param>
/// <param name="EndsAt">From when on it leads nowhere; <c>null</c> for no end.</param>
public sealed record LinkTerms(string Name, Role Role, int? MostUses, Instant? EndsAt)
{
    /// <summary>The longest name, in UTF-16 units.</summary>
    public const int LongestName = 80;

    /// <summary>The highest step: as for a whole group, since nobody is asked by name.</summary>
    public const Role Highest = Role.Edit;

    /// <summary>The largest number of uses that can be set.</summary>
    public const int LargestNumber = 10_000;

    /// <summary>Makes the name safe and checks the terms.</summary>
    /// <param name="given">What is wished.</param>
    /// <param name="isForOneEvent">Whether the link gives out one event, which is only ever read.</param>
    public static Checked<LinkTerms> Check(LinkTerms given, bool isForOneEvent)
    {
        var terms = given with { Name = PlainText.OneLine(given.Name) };
        var problems = new List<FieldProblem>();
        if (isForOneEvent && terms.Role is not (Role.Outline or Role.View))
        {
            problems.Add(new FieldProblem("role", "A link to one event shows it at Outline or at View."));
        }
        else if (terms.Role is Role.None or > Highest)
        {
            problems.Add(
                new FieldProblem("role", "A link can give a step from Times only to Edit. Make coordinators by name.")
            );
        }

        if (terms.Name.Length > LongestName)
        {
            problems.Add(
                new FieldProblem(
                    "name",
                    FormattableString.Invariant($"A name can have up to {LongestName} characters. Shorten it.")
                )
            );
        }

        if (terms.MostUses is < 1 or > LargestNumber)
        {
            problems.Add(
                new FieldProblem(
                    "mostUses",
                    FormattableString.Invariant($"Let 1 to {LargestNumber} people use it, or set no number.")
                )
            );
        }

        return new(terms, problems);
    }
}

/// <summary>What a link that was handed round still does.</summary>
public static class LinkRules
{
    /// <summary>A link as it is spoken of.</summary>
    public static string Spoken(this LinkTerms terms) => terms.Name.Length > 0 ? $"the link “{terms.Name}”" : "a link";

    /// <summary>Whether it leads anywhere.</summary>
    /// <param name="terms">What it gives.</param>
    /// <param name="endedAt">When a coordinator ended it; <c>null</c> for not.</param>
    /// <param name="now">What o'clock it is.</param>
    public static bool IsOpen(this LinkTerms terms, Instant? endedAt, Instant now) =>
        endedAt is null && (terms.EndsAt is not { } end || now < end);

    /// <summary>Whether one more may put the calendar on their wall by it.</summary>
    public static bool HasUsesLeft(this LinkTerms terms, int uses) => terms.MostUses is not { } most || uses < most;

    /// <summary>How many accounts are made by one link in a day: a whole school year by one poster, and no more.</summary>
    public const int MostAccountsADay = 100;

    /// <summary>
    /// Why nobody makes an account where they open it; <c>null</c> where they do: at a step that lets them write, which takes a
    /// name. Who only reads needs none.
    /// </summary>
    /// <param name="terms">What it gives.</param>
    /// <param name="isForOneEvent">Whether it gives out one event.</param>
    /// <param name="madeToday">How many came by it since a day ago.</param>
    public static Refusal? WhyNotMakeAccount(this LinkTerms terms, bool isForOneEvent, int madeToday) =>
        isForOneEvent || terms.Role < Role.Add
            ? new Refusal.AgainstRule(
                "reading-only",
                "This link is read without an account. For one of your own, ask a coordinator to invite you."
            )
        : madeToday >= MostAccountsADay
            ? new Refusal.AgainstRule(
                "too-many",
                FormattableString.Invariant(
                    $"{MostAccountsADay} people came by this link today, which is the most. Try again tomorrow, or ask whoever gave it to you to invite you."
                )
            )
        : null;

    /// <summary>What somebody sees who only opens it: nobody changes anything without a name.</summary>
    public static Role ToRead(this LinkTerms terms) => terms.Role > Role.View ? Role.View : terms.Role;
}
