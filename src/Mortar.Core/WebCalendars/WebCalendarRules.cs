using Mortar.Core.Words;

namespace Mortar.Core.WebCalendars;

/// <summary>A calendar whose events are kept elsewhere on the web, and only read here.</summary>
public static class WebCalendarRules
{
    /// <summary>The most web calendars of one group, each of which somebody has to fetch.</summary>
    public const int MostOfGroup = 50;

    /// <summary>The most that one person coordinates: each is asked of somebody else's host, and of ours.</summary>
    public const int MostOfPerson = 100;

    /// <summary>By whom its events are put in, changed and taken out: nobody of ours.</summary>
    public static PersonId TheWeb { get; } = new(new Guid("3b1c5a52-77b7-4b7e-9d35-0f5d4d2c9a01"));

    /// <summary>What that is called where it is said who did something.</summary>
    public const string Name = "The web";

    /// <summary>Why nothing is put into one by hand.</summary>
    public static Refusal WhyNotAdd { get; } =
        new Refusal.AgainstRule(
            "from-the-web",
            "What is in this calendar comes from the web, and is changed where it is kept. Choose another calendar."
        );

    /// <summary>Why an event that comes from it is not changed by hand.</summary>
    public static Refusal WhyNotChange { get; } =
        new Refusal.AgainstRule(
            "from-the-web",
            "This event comes from the web, and is changed where it is kept. Hide the layer, or ask whoever keeps it."
        );

    /// <summary>Why there can be no more of them; <c>null</c> where there can.</summary>
    /// <param name="ofGroup">How many the group has.</param>
    /// <param name="ofPerson">How many whoever makes one more coordinates.</param>
    public static Refusal? WhyNotMore(int ofGroup, int ofPerson) =>
        ofGroup >= MostOfGroup ? TooMany($"A group has up to {MostOfGroup}")
        : ofPerson >= MostOfPerson ? TooMany($"One person coordinates up to {MostOfPerson}")
        : null;

    private static Refusal.AgainstRule TooMany(string most) =>
        new("too-many-web-calendars", $"{most} calendars of the web. Delete one that nobody reads any more.");
}
