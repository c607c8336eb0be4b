using System.Diagnostics;
using Mortar.Core.Access;
using Mortar.Core.Words;

namespace Mortar.Data.Access;

/// <summary>Turns a verdict into the refusal that every command answers alike.</summary>
internal static class Refusals
{
    /// <summary>The refusal about a group, or <c>null</c> where the verdict grants.</summary>
    public static Outcome<T>? GroupRefusal<T>(this Verdict verdict) =>
        verdict switch
        {
            Verdict.Granted => null,
            Verdict.Hidden => new Outcome<T>.NotThere("group"),
            Verdict.Denied => new Outcome<T>.NotAllowed("That is for those who coordinate the group."),
            _ => throw new UnreachableException(),
        };

    /// <summary>The refusal, or <c>null</c> where the verdict grants.</summary>
    public static Outcome<T>? Refusal<T>(this Verdict verdict, string what, string needs) =>
        verdict switch
        {
            Verdict.Granted => null,
            Verdict.Hidden => new Outcome<T>.NotThere(what),
            Verdict.Denied => new Outcome<T>.NotAllowed(
                $"That needs the step {needs} on this calendar. A coordinator can give it to you."
            ),
            _ => throw new UnreachableException(),
        };
}
