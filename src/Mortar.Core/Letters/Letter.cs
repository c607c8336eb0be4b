using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Core.Letters;

/// <summary>What a mail says, in plain text.</summary>
public sealed record Letter
{
    private const int LongestSubject = 180;

    /// <param name="subject">One line; shortened where it is long.</param>
    /// <param name="body">The words, in lines of any ending.</param>
    public Letter(string subject, string body) =>
        (Subject, Body) = (PlainText.Shorten(subject, LongestSubject), body.ReplaceLineEndings("\n"));

    /// <summary>What it is about.</summary>
    public string Subject { get; }

    /// <summary>The words, in lines that end with a line feed.</summary>
    public string Body { get; }

    /// <summary>What is written under a title where there is such a line, and nothing where there is none.</summary>
    internal static string Line(string text) => text.Length > 0 ? $"\n{text}" : string.Empty;

    /// <summary>The same, with a blank line before it.</summary>
    internal static string Paragraph(string? text) => text is { Length: > 0 } ? $"\n\n{text}" : string.Empty;
}

/// <summary>Somebody who is written to.</summary>
/// <param name="Name">What they are called.</param>
/// <param name="Zone">On whose clock they read times.</param>
public sealed record Recipient(string Name, DateTimeZone Zone);
