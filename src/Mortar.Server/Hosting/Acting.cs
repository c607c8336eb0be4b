using System.Security.Claims;
using Mortar.Core.Words;
using Mortar.Data.Store;

namespace Mortar.Server.Hosting;

/// <summary>Who asks, and under which name the client will undo it (header <c>X-Change-Set</c>, a UUID; made here where it is missing).</summary>
internal sealed record Acting(Act Act)
{
    public const string Header = "X-Change-Set";

    public PersonId Person => Act.Actor;

    public static ValueTask<Acting?> BindAsync(HttpContext context)
    {
        var person = context.User.Person();
        var act = Guid.TryParse(context.Request.Headers[Header], out var set)
            ? new Act(person, new ChangeSetId(set))
            : Act.By(person);
        return ValueTask.FromResult<Acting?>(new Acting(act));
    }
}

internal static class SignedIn
{
    /// <summary>The person behind the cookie.</summary>
    public static PersonId Person(this ClaimsPrincipal user) =>
        new(
            Guid.Parse(
                user.FindFirstValue(ClaimTypes.NameIdentifier)
                    ?? throw new InvalidOperationException("The route group asks for a signed-in person.")
            )
        );
}

/// <summary>Entity tags are versions: <c>"5"</c>.</summary>
internal static class Versions
{
    /// <summary>The version in an If-Match header; <c>null</c> where there is none that we could have given.</summary>
    public static int? Read(string? ifMatch) =>
        int.TryParse(ifMatch?.Trim().Trim('"'), System.Globalization.CultureInfo.InvariantCulture, out var version)
            ? version
            : null;
}
