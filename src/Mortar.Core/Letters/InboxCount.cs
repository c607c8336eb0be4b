namespace Mortar.Core.Letters;

/// <summary>How many things in an inbox want to be looked at: the number that stands beside it everywhere.</summary>
public static class InboxCount
{
    /// <summary>What waits for an answer counts each, what is new counts each, and mails that could not be sent count once.</summary>
    /// <param name="waiting">How many wait for an answer, of each sort.</param>
    /// <param name="news">How many notices were not seen yet.</param>
    /// <param name="mailsAreStuck">Whether mails of theirs could not be sent so far.</param>
    public static int Of(IEnumerable<int> waiting, int news, bool mailsAreStuck) =>
        waiting.Sum() + news + (mailsAreStuck ? 1 : 0);
}
