using Mortar.Core.Words;

namespace Mortar.Core.Availability;

/// <summary>How much is asked for at once, before anything of it is read.</summary>
/// <param name="Asked">How many people and places, those of a pool with them.</param>
/// <param name="Minutes">How long it is to be.</param>
/// <param name="Before">Minutes that have to be free before it.</param>
/// <param name="After">Minutes that have to be free after it.</param>
/// <param name="Any">So many of a pool; <c>null</c> where none is asked for.</param>
/// <param name="Among">How many are in the pool.</param>
public sealed record GapWish(int Asked, int Minutes, int Before, int After, int? Any, int Among)
{
    /// <summary>The most people and places that can be asked about at once.</summary>
    public const int MostAsked = 500;

    /// <summary>The shortest gap, in minutes.</summary>
    public const int Shortest = 5;

    /// <summary>The longest gap, in minutes: fourteen days.</summary>
    public const int Longest = 14 * 24 * 60;

    /// <summary>The longest margin, in minutes.</summary>
    public const int LongestMargin = 24 * 60;

    /// <summary>What is wrong where nobody, or too many, are asked about.</summary>
    /// <param name="path">The field that names them.</param>
    public static FieldProblem AskedOutOfBounds(string path) => new(path, $"Name 1 to {MostAsked} people or places.");

    /// <summary>Whether so many can be asked about at once.</summary>
    public static bool CanAsk(int asked) => asked is > 0 and <= MostAsked;

    /// <summary>Checks it.</summary>
    public Checked<GapWish> Check()
    {
        var problems = new List<FieldProblem>();
        if (!CanAsk(Asked))
        {
            problems.Add(AskedOutOfBounds("required"));
        }

        if (Minutes is < Shortest or > Longest)
        {
            problems.Add(new FieldProblem("minutes", "A gap can be 5 minutes to 14 days long."));
        }

        if (Before is < 0 or > LongestMargin || After is < 0 or > LongestMargin)
        {
            problems.Add(new FieldProblem("before", "Margins can be up to a day long."));
        }

        if (Any is { } count && (count < 1 || Among > GapPool.MostAmong))
        {
            problems.Add(new FieldProblem("any", $"Ask for one or more of at most {GapPool.MostAmong} people."));
        }

        return new(this, problems);
    }
}
