using System.Diagnostics;
using Mortar.Core.Words;

namespace Mortar.Core.Access;

/// <summary>Turns a verdict into the refusal that everything answers alike.</summary>
public static class Refusals
{
    /// <summary>Why not, about a calendar or what is on it; <c>null</c> where the verdict grants.</summary>
    /// <param name="verdict">Whether the step reaches that far.</param>
    /// <param name="what">What there is not where it is hidden: "calendar", "event".</param>
    /// <param name="needs">The step it needs, as the interface names it.</param>
    public static Refusal? WhyNot(this Verdict verdict, string what, string needs) =>
        verdict switch
        {
            Verdict.Granted => null,
            Verdict.Hidden => new Refusal.NotThere(what),
            Verdict.Denied => new Refusal.NotAllowed(
                $"That needs the step {needs} on this calendar. A coordinator can give it to you."
            ),
            _ => throw new UnreachableException(),
        };

    /// <summary>What is wrong where a step is to be given and none is named.</summary>
    /// <param name="path">The field.</param>
    /// <param name="otherwise">What could be done instead of giving one: "say no"; empty for nothing.</param>
    public static FieldProblem NoStep(string path = "role", string otherwise = "") =>
        new(path, $"Choose a step from Times only to Coordinate{(otherwise.Length > 0 ? $", or {otherwise}" : "")}.");

    /// <summary>Why not, about a group; <c>null</c> where the verdict grants.</summary>
    public static Refusal? WhyNotOfGroup(this Verdict verdict) =>
        verdict switch
        {
            Verdict.Granted => null,
            Verdict.Hidden => new Refusal.NotThere("group"),
            Verdict.Denied => new Refusal.NotAllowed("That is for those who coordinate the group."),
            _ => throw new UnreachableException(),
        };
}
