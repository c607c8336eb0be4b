namespace Mortar.Core.Words;

/// <summary>What was given, made safe, and what is wrong with it. Every check of what people give answers in this shape.</summary>
/// <typeparam name="T">What it is then.</typeparam>
/// <param name="Value">It, as it would be written; where it is not fit, as far as it could be read.</param>
/// <param name="Problems">Every field that is wrong; empty where it is fit.</param>
public sealed record Checked<T>(T Value, IReadOnlyList<FieldProblem> Problems)
{
    /// <summary>It is fit.</summary>
    public Checked(T value)
        : this(value, []) { }

    /// <summary>Whether nothing is wrong with it.</summary>
    public bool IsFit => Problems.Count == 0;

    /// <summary>The refusal; <c>null</c> where it is fit.</summary>
    public Refusal? WhyNot => IsFit ? null : new Refusal.Unfit(Problems);

    /// <summary>With what else was found, or what was found in another part of the same wish.</summary>
    public Checked<T> And(params IEnumerable<FieldProblem> more) => this with { Problems = [.. Problems, .. more] };
}
