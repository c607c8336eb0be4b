namespace Mortar.Core.Words;

/// <summary>What a command came to: done, refused, or done by somebody else meanwhile.</summary>
/// <typeparam name="T">What there is when it is done, and what is current when the caller's view was stale.</typeparam>
public abstract record Outcome<T>
{
    private Outcome() { }

    /// <summary>A refusal is an outcome of any command.</summary>
    public static implicit operator Outcome<T>(Refusal why) => new Not(why);

    /// <summary>What there is then says by itself that it is done.</summary>
    public static implicit operator Outcome<T>(T value) => new Done(value);

    /// <summary>Why it was not done.</summary>
    /// <exception cref="InvalidOperationException">It was done, or by somebody else meanwhile.</exception>
    public Refusal WhyNot =>
        this is Not not ? not.Why : throw new InvalidOperationException($"{GetType().Name} is no refusal.");

    /// <summary>It is done.</summary>
    public sealed record Done(T Value) : Outcome<T>;

    /// <summary>The thing was changed since the caller saw it; nothing is overwritten.</summary>
    public sealed record Stale(T Current) : Outcome<T>;

    /// <summary>It is not done.</summary>
    public sealed record Not(Refusal Why) : Outcome<T>;
}
