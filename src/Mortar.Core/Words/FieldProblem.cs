namespace Mortar.Core.Words;

/// <summary>What is wrong with one field, in a sentence that says the way out.</summary>
/// <param name="Path">The field as the API names it, for example <c>title</c> or <c>time.end</c>.</param>
/// <param name="Sentence">Names the thing, the value and the bound.</param>
public sealed record FieldProblem(string Path, string Sentence);
