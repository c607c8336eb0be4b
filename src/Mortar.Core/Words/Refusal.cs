using NodaTime;

namespace Mortar.Core.Words;

/// <summary>Why something is not done. Every caller has to answer each of them; none is an exception.</summary>
public abstract record Refusal
{
    private Refusal() { }

    /// <summary>For the one who asked there is no such thing.</summary>
    /// <param name="What">The kind of thing: "calendar", "event".</param>
    public sealed record NotThere(string What) : Refusal;

    /// <summary>The thing is there, but their step does not reach that far.</summary>
    /// <param name="Sentence">What step it needs, and whom to ask.</param>
    public sealed record NotAllowed(string Sentence) : Refusal;

    /// <summary>The caller did not say which version the change is based on.</summary>
    public sealed record VersionNeeded : Refusal;

    /// <summary>What was given cannot be; every field that is wrong is named.</summary>
    public sealed record Unfit(IReadOnlyList<FieldProblem> Problems) : Refusal
    {
        /// <summary>One field is wrong.</summary>
        public Unfit(string path, string sentence)
            : this([new FieldProblem(path, sentence)]) { }
    }

    /// <summary>It was done so often that it has to wait.</summary>
    /// <param name="Sentence">What is too much, and when it can be done again.</param>
    /// <param name="Wait">How long to wait.</param>
    public sealed record TooOften(string Sentence, Duration Wait) : Refusal;

    /// <summary>A rule of the trade forbids it.</summary>
    /// <param name="Type">A stable name for the rule.</param>
    /// <param name="Sentence">The rule and the way out.</param>
    public sealed record AgainstRule(string Type, string Sentence) : Refusal;
}
