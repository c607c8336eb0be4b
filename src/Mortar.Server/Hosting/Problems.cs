using System.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Server.Hosting;

/// <summary>The one table from refusals to answers (RFC 9457): hidden is 404, denied 403, stale 412.</summary>
internal static class Problems
{
    /// <summary>Answers a command: with <paramref name="done"/> where it was done, with a problem otherwise.</summary>
    /// <param name="outcome">What the command came to.</param>
    /// <param name="done">Makes the answer; also of the current state under <c>current</c> of a stale one.</param>
    public static async Task<Results<Ok<TBody>, ProblemHttpResult>> Answer<T, TBody>(
        this Task<Outcome<T>> outcome,
        Func<T, Task<TBody>> done
    ) =>
        await outcome switch
        {
            Outcome<T>.Done value => TypedResults.Ok(await done(value.Value)),
            Outcome<T>.Stale stale => Stale(await done(stale.Current)),
            Outcome<T>.Not not => Of(not.Why),
            _ => throw new UnreachableException(),
        };

    /// <summary>Answers a command that has nothing to tell once it is done.</summary>
    public static async Task<Results<NoContent, ProblemHttpResult>> Answer<T>(this Task<Outcome<T>> outcome) =>
        await outcome switch
        {
            Outcome<T>.Done => TypedResults.NoContent(),
            Outcome<T>.Stale => Stale<object?>(null),
            Outcome<T>.Not not => Of(not.Why),
            _ => throw new UnreachableException(),
        };

    /// <summary>The problem of a refusal.</summary>
    public static ProblemHttpResult Of(Refusal why) =>
        why switch
        {
            Refusal.NotThere notThere => NotThere(notThere.What),
            Refusal.NotAllowed notAllowed => Of(StatusCodes.Status403Forbidden, "not-allowed", notAllowed.Sentence),
            Refusal.VersionNeeded => Of(
                StatusCodes.Status428PreconditionRequired,
                "version-needed",
                "Say which version the change is based on, in If-Match."
            ),
            Refusal.Unfit unfit => Unfit(unfit.Problems),
            Refusal.TooOften often => TooOften(often.Sentence, often.Wait),
            Refusal.AgainstRule refused => Of(StatusCodes.Status409Conflict, refused.Type, refused.Sentence),
            _ => throw new UnreachableException($"No problem for {why}."),
        };

    /// <summary>The problem of a refusal; <c>null</c> where nothing is refused.</summary>
    public static ProblemHttpResult? Problem(this Refusal? why) => why is null ? null : Of(why);

    public static ProblemHttpResult NotThere(string what) =>
        Of(
            StatusCodes.Status404NotFound,
            "not-there",
            $"There is no such {what}, or it is not shared with you. Ask its coordinator if you expected it."
        );

    public static ProblemHttpResult Unfit(IReadOnlyList<FieldProblem> problems) =>
        TypedResults.Problem(
            new ProblemDetails
            {
                Status = StatusCodes.Status422UnprocessableEntity,
                Type = "urn:mortar:unfit",
                Title = "unfit",
                Detail = string.Join(' ', problems.Select(problem => problem.Sentence)),
                Extensions =
                {
                    ["fields"] = problems.ToDictionary(problem => problem.Path, problem => problem.Sentence),
                },
            }
        );

    public static ProblemHttpResult Of(int status, string type, string sentence) =>
        TypedResults.Problem(
            new ProblemDetails
            {
                Status = status,
                Type = $"urn:mortar:{type}",
                Title = type,
                Detail = sentence,
            }
        );

    /// <summary>Gives the framework's own problems a sentence that a person can act on.</summary>
    public static void Explain(ProblemDetailsContext context)
    {
        var problem = context.ProblemDetails;
        (problem.Type, problem.Title, problem.Detail) = problem.Status switch
        {
            _ when problem.Type?.StartsWith("urn:mortar:", StringComparison.Ordinal) == true => (
                problem.Type,
                problem.Title,
                problem.Detail
            ),
            StatusCodes.Status400BadRequest => (
                "urn:mortar:unreadable",
                "unreadable",
                "The request could not be read: a part is missing or not in the form the API document gives."
            ),
            >= 500 => (
                "urn:mortar:failed",
                "failed",
                "Something went wrong here, and nothing was changed. Try again; if it stays, the log says more."
            ),
            _ => ($"urn:mortar:status-{problem.Status}", problem.Title, problem.Detail ?? "This cannot be asked here."),
        };
    }

    /// <summary>The problem of what has to wait; <see cref="RefusalFilter"/> makes a header of how long (RFC 9110, 10.2.3).</summary>
    public static ProblemHttpResult TooOften(string sentence, Duration wait) =>
        TypedResults.Problem(
            new ProblemDetails
            {
                Status = StatusCodes.Status429TooManyRequests,
                Type = "urn:mortar:too-often",
                Title = "too-often",
                Detail = sentence,
                Extensions = { [RefusalFilter.RetryAfter] = (int)Math.Ceiling(wait.TotalSeconds) },
            }
        );

    private static ProblemHttpResult Stale<TBody>(TBody current) =>
        TypedResults.Problem(
            new ProblemDetails
            {
                Status = StatusCodes.Status412PreconditionFailed,
                Type = "urn:mortar:stale",
                Title = "stale",
                Detail =
                    "Somebody changed this in the meantime. Nothing was overwritten; choose which version to keep.",
                Extensions = { ["current"] = current },
            }
        );
}
