using Microsoft.AspNetCore.Identity;
using Mortar.Core.Words;

namespace Mortar.Data.Accounts;

/// <summary>What a person signs in with. Its id is the person's.</summary>
public sealed class Account : IdentityUser<Guid>
{
    /// <summary>The account of somebody known by an address.</summary>
    public static Account At(PersonId person, string address) =>
        new()
        {
            Id = person.Value,
            UserName = address,
            Email = address,
        };

    /// <summary>The account of somebody whose address is not confirmed: it keeps nobody else from theirs.</summary>
    public static Account Without(PersonId person) =>
        new() { Id = person.Value, UserName = person.Value.ToString("N") };

    /// <summary>Has it go by another address, as Identity finds it.</summary>
    public void GoesBy(string address)
    {
        (UserName, Email) = (address, address);
        (NormalizedUserName, NormalizedEmail) = (address.ToUpperInvariant(), address.ToUpperInvariant());
    }
}
