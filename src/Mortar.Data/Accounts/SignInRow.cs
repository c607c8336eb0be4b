using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using NodaTime;

namespace Mortar.Data.Accounts;

/// <summary>That somebody is signed in on one device. The cookie names it, and is worth nothing once it has ended.</summary>
public sealed class SignInRow
{
    /// <summary>For how long nobody has to sign in again who comes back meanwhile.</summary>
    public static readonly Duration Lasts = Duration.FromDays(30);

    /// <summary>The longest description of a device that is kept, in UTF-16 units.</summary>
    public const int LongestDevice = 160;

    public required Guid Id { get; init; }

    public required PersonId PersonId { get; init; }

    /// <summary>What the browser says it is; empty where it says nothing.</summary>
    public required string Device { get; init; }

    public required Instant StartedAt { get; init; }

    /// <summary>When it was last used, to the hour.</summary>
    public Instant SeenAt { get; set; }

    /// <summary>When it ends by itself, unless it is used before.</summary>
    public Instant EndsAt { get; set; }

    /// <summary>When it was ended; <c>null</c> while it was not.</summary>
    public Instant? EndedAt { get; set; }

    /// <summary>Whether the cookie that names it still signs somebody in.</summary>
    public bool CountsAt(Instant now) => EndedAt is null && now < EndsAt;

    /// <summary>Takes note that it is used; whether that is news, since the hour is enough.</summary>
    public bool Sees(Instant now)
    {
        if (now - SeenAt < Duration.FromHours(1))
        {
            return false;
        }

        (SeenAt, EndsAt) = (now, now + Lasts);
        return true;
    }
}

internal sealed class SignInConfiguration : IEntityTypeConfiguration<SignInRow>
{
    public void Configure(EntityTypeBuilder<SignInRow> builder)
    {
        builder.ToTable("SignIns");
        builder.HasIndex(row => row.PersonId);
        builder.HasIndex(row => row.EndsAt);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.PersonId);
    }
}
