using System.Security.Cryptography;
using System.Text;

namespace Mortar.Server.Hosting;

/// <summary>Files that ship inside the program.</summary>
internal static class ShippedFiles
{
    /// <summary>The text of one.</summary>
    public static string Read(string name)
    {
        using var stream =
            typeof(ShippedFiles).Assembly.GetManifestResourceStream(name)
            ?? throw new InvalidOperationException($"{name} is not in the program.");
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }

    /// <summary>A text's name in a content security policy (CSP Level 3, 2.3.1): no other style is taken.</summary>
    public static string SourceOf(string text) =>
        $"'sha256-{Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(text)))}'";
}
