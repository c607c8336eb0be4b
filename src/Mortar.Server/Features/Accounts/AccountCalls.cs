using Microsoft.AspNetCore.Identity;
using Mortar.Core.Words;
using Mortar.Data.Accounts;

namespace Mortar.Server.Features.Accounts;

/// <summary>What all who ask Identity about somebody's own account have in common.</summary>
internal static class AccountCalls
{
    /// <summary>The account of somebody who is signed in.</summary>
    public static async Task<Account> Of(this UserManager<Account> accounts, PersonId person) =>
        await accounts.FindByIdAsync(person.Value.ToString())
        ?? throw new InvalidOperationException("Who is signed in has an account.");

    /// <summary>Holds Identity to what nobody gave it a reason to refuse: where it does, nothing of the write is kept.</summary>
    public static async Task Held(this Task<IdentityResult> done)
    {
        var result = await done;
        if (!result.Succeeded)
        {
            throw new InvalidOperationException(
                $"Identity refused: {string.Join(", ", result.Errors.Select(error => error.Code))}."
            );
        }
    }
}
