using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Data.Store;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Demo;

/// <summary>/api/demo: the made-up people, each signed in with one click. Only there in the demo.</summary>
internal static class DemoSetup
{
    internal sealed record PersonBody(Guid PersonId, string Name, string About);

    public static void AddDemo(this IServiceCollection services) => services.AddScoped<DemoStudio>();

    public static void MapDemo(this RouteGroupBuilder api)
    {
        api.MapGet("/demo/people", People).WithName("ListDemoPeople").AllowAnonymous();
        api.MapPost("/demo/session/{personId:guid}", SignIn).WithName("SignInDemo").AllowAnonymous();
    }

    private static async Task<Results<Ok<List<PersonBody>>, ProblemHttpResult>> People(
        MortarOptions options,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        if (!options.Demo)
        {
            return Problems.NotThere("page");
        }

        var accounts = await db.Users.Select(account => account.Id).ToListAsync(cancellationToken);
        return TypedResults.Ok(
            DemoPeople
                .All.Where(person => accounts.Contains(person.Id.Value))
                .Select(person => new PersonBody(person.Id.Value, person.Name, person.About))
                .ToList()
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SignIn(
        PersonId personId,
        MortarOptions options,
        UserManager<Account> accounts,
        SignInManager<Account> signIn
    )
    {
        if (
            !options.Demo
            || DemoPeople.All.All(person => person.Id != personId)
            || await accounts.FindByIdAsync(personId.Value.ToString()) is not { } account
        )
        {
            return Problems.NotThere("page");
        }

        await signIn.SignInAsync(account, isPersistent: true);
        return TypedResults.NoContent();
    }
}
