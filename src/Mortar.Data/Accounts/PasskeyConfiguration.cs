using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Mortar.Data.Accounts;

/// <summary>Identity's row of a passkey, which it leaves out of its first schema; the rest of that schema stays as it is.</summary>
internal sealed class PasskeyConfiguration : IEntityTypeConfiguration<IdentityUserPasskey<Guid>>
{
    public void Configure(EntityTypeBuilder<IdentityUserPasskey<Guid>> builder)
    {
        builder.ToTable("Passkeys");
        builder.HasKey(row => row.CredentialId);
        // As long as an id can be (Web Authentication, 4: credential ID).
        builder.Property(row => row.CredentialId).HasMaxLength(1_023);
        builder.OwnsOne(row => row.Data).ToJson();
        builder.HasOne<Account>().WithMany().HasForeignKey(row => row.UserId).IsRequired();
    }
}
