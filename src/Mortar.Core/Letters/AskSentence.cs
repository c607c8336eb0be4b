namespace Mortar.Core.Letters;

/// <summary>What somebody asks one, in a sentence: on an open screen as it arrives, and in the mail that tells what changed.</summary>
public static class AskSentence
{
    /// <summary>A group asks whether one wants to be in it.</summary>
    public static string OfMembership(string from, string group) => $"{from} asks whether you want to be in “{group}”.";

    /// <summary>Somebody is to see and answer for somebody in a group.</summary>
    /// <param name="from">Who asks.</param>
    /// <param name="group">The group.</param>
    /// <param name="ward">For whom; <c>null</c> for oneself.</param>
    /// <param name="guardian">Who; <c>null</c> for oneself.</param>
    public static string OfGuardianship(string from, string group, string? ward, string? guardian) =>
        $"{from} asks whether {guardian ?? "you"} may answer for {ward ?? "you"} in “{group}”.";

    /// <summary>One is on a group's plan as a guest, by an address of one's own.</summary>
    public static string OfGuest(string from, string group) => $"{from} put you on the plan of “{group}” as a guest.";

    /// <summary>An invitation to a calendar.</summary>
    public static string OfInvitation(string from, string calendar) =>
        $"{from} invites you to the calendar “{calendar}”.";

    /// <summary>Somebody wants access to a calendar.</summary>
    public static string OfAsk(string from, string calendar) => $"{from} asks for access to “{calendar}”.";

    /// <summary>Somebody wants a calendar of one's own, or of a group.</summary>
    /// <param name="from">Who asks.</param>
    /// <param name="group">The group; <c>null</c> where one is asked oneself.</param>
    public static string OfOpenAsk(string from, string? group) =>
        group is null ? $"{from} asks for a calendar of yours." : $"{from} asks for a calendar of “{group}”.";

    /// <summary>Whether somebody comes to an event.</summary>
    /// <param name="title">What it is called; may be empty.</param>
    /// <param name="whose">Whose answer is asked for; <c>null</c> for one's own.</param>
    public static string OfQuestion(string title, string? whose) =>
        whose is null
            ? $"Are you coming to {Spoken(title, "an event without a title")}?"
            : $"Is {whose} coming to {Spoken(title, "an event without a title")}?";

    /// <summary>Which of several times suit.</summary>
    /// <param name="title">What they are for.</param>
    /// <param name="whose">Whose answer is asked for; <c>null</c> for one's own.</param>
    public static string OfProposal(string title, string? whose) =>
        $"Which times suit {whose ?? "you"} for {Spoken(title, "something without a title")}?";

    /// <summary>An absence waits for one to agree.</summary>
    /// <param name="title">What it is called; may be empty.</param>
    /// <param name="names">Who would be away.</param>
    public static string OfAbsence(string title, IReadOnlyList<string> names) =>
        $"{Spoken(title, "An absence")}{(names.Count > 0 ? $" of {Words.Wording.List(names)}" : string.Empty)} waits for you to agree.";

    private static string Spoken(string title, string untitled) => title.Length > 0 ? $"“{title}”" : untitled;
}
