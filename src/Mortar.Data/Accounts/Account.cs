using Microsoft.AspNetCore.Identity;

namespace Mortar.Data.Accounts;

/// <summary>What a person signs in with. Its id is the person's.</summary>
public sealed class Account : IdentityUser<Guid>;
