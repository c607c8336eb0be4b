using NodaTime;

namespace Mortar.Core.Words;

/// <summary>What a command came to: done, or one of the refusals every caller has to answer.</summary>
/// <typeparam name="T">What there is when it is done, and what is current when the caller's view was stale.</typeparam>
public abstract record Outcome<T>
{
    private Outcome() { }

    /// <summary>A refusal in the words of another command, of which this one was a part.</summary>
    /// <exception cref="InvalidOperationException">It is done, or about what one of them only has.</exception>
    public Outcome<TOther> As<TOther>() =>
        this switch
        {
            NotThere one => new Outcome<TOther>.NotThere(one.What),
            NotAllowed one => new Outcome<TOther>.NotAllowed(one.Sentence),
            VersionNeeded => new Outcome<TOther>.VersionNeeded(),
            Unfit one => new Outcome<TOther>.Unfit(one.Problems),
            Refused one => new Outcome<TOther>.Refused(one.Type, one.Sentence),
            TooOften one => new Outcome<TOther>.TooOften(one.Sentence, one.Wait),
            _ => throw new InvalidOperationException($"{GetType().Name} is no refusal of something else."),
        };

    /// <summary>It is done.</summary>
    public sealed record Done(T Value) : Outcome<T>;

    /// <summary>For the one who asked there is no such thing.</summary>
    /// <param name="What">The kind of thing: "calendar", "event".</param>
    public sealed record NotThere(string What) : Outcome<T>;

    /// <summary>The thing is there, but their step does not reach that far.</summary>
    /// <param name="Sentence">What step it needs, and whom to ask.</param>
    public sealed record NotAllowed(string Sentence) : Outcome<T>;

    /// <summary>The thing was changed since the caller saw it; nothing is overwritten.</summary>
    public sealed record Stale(T Current) : Outcome<T>;

    /// <summary>The caller did not say which version the change is based on.</summary>
    public sealed record VersionNeeded : Outcome<T>;

    /// <summary>What was given cannot be; every field that is wrong is named.</summary>
    public sealed record Unfit(IReadOnlyList<FieldProblem> Problems) : Outcome<T>;

    /// <summary>It was done so often that it has to wait.</summary>
    /// <param name="Sentence">What is too much, and when it can be done again.</param>
    /// <param name="Wait">How long to wait.</param>
    public sealed record TooOften(string Sentence, Duration Wait) : Outcome<T>;

    /// <summary>A rule of the trade forbids it.</summary>
    /// <param name="Type">A stable name for the rule.</param>
    /// <param name="Sentence">The rule and the way out.</param>
    public sealed record Refused(string Type, string Sentence) : Outcome<T>;
}
