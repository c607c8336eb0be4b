using System.Security.Cryptography;
using System.Text;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>The style of noticeboards: in each page, so that one answer is all a visitor waits for.</summary>
internal static class BoardStyle
{
    /// <summary>The style sheet.</summary>
    public static string Text { get; } = Read("noticeboard.css");

    /// <summary>Its name in a content security policy (CSP Level 3, 2.3.1): no other style is taken.</summary>
    public static string Source { get; } =
        $"'sha256-{Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(Text)))}'";

    /// <summary>A file that ships inside the program, without what only its readers need.</summary>
    public static string Read(string name)
    {
        using var stream =
            typeof(BoardStyle).Assembly.GetManifestResourceStream(name)
            ?? throw new InvalidOperationException($"{name} is not in the program.");
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }
}
