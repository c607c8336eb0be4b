using Mortar.Data.Access;
using Mortar.Data.Groups;
using Mortar.Data.Links;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Changes;

/// <summary>
/// What went out with a row: the hash of its secret and when. No undo brings an older one back, since the mail that holds it
/// has been followed by another one, or was meant to lead nowhere.
/// </summary>
/// <param name="Address">Where it went.</param>
internal sealed record Mailed(string? Hash, Instant? At, string? Address)
{
    /// <summary>What went out with a row; <c>null</c> for rows with which nothing does.</summary>
    public static Mailed? Of(IRecorded row) =>
        row switch
        {
            InvitationRow one => new Mailed(one.LinkHash, one.SentAt, one.Address),
            MemberRow one => new Mailed(one.ClaimHash, one.InvitedAt, one.Address),
            LinkRow one => new Mailed(one.Hash, null, null),
            _ => null,
        };

    /// <summary>Puts it back into a row that was brought back to an earlier state; a link to another address leads nowhere.</summary>
    public static void Keep(IRecorded row, Mailed mailed)
    {
        switch (row)
        {
            case InvitationRow one:
                (one.LinkHash, one.SentAt) = (mailed.Hash!, mailed.At!.Value);
                break;
            case MemberRow one:
                (one.ClaimHash, one.InvitedAt) =
                    one.Address == mailed.Address && one.LeftAt is null ? (mailed.Hash, mailed.At) : (null, null);
                break;
            case LinkRow one when one.Hash != mailed.Hash:
                one.Hash = mailed.Hash!;
                break;
        }
    }
}
