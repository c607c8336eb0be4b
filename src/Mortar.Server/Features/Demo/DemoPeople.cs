using System.Security.Cryptography;
using System.Text;
using Mortar.Core.Words;

namespace Mortar.Server.Features.Demo;

/// <summary>A made-up person of Kiln Street Studio.</summary>
internal sealed record DemoPerson(string Name, string About, string Zone = DemoPeople.Home)
{
    public PersonId Id { get; } = new(DemoPeople.Stable(Name));

    public string Address { get; } = $"{Name.Split(' ')[0].ToLowerInvariant()}@example.org";
}

/// <summary>The made-up people, in the order of the sign-in page.</summary>
internal static class DemoPeople
{
    public const string Home = "Europe/London";

    public const string Password = "kiln-street-demo";

    public static DemoPerson Ines { get; } = new("Ines Varga", "keeps the studio's time in order");

    public static DemoPerson Tomasz { get; } = new("Tomasz Wilk", "teaches wheel and Thursday throwing");

    public static DemoPerson Priya { get; } = new("Priya Raman", "glazes, and fires the big kiln");

    public static DemoPerson Dele { get; } = new("Dele Okoro", "part time, runs the Raku club");

    public static DemoPerson Mei { get; } = new("Mei Sato", "web shop, works from Halifax", "America/Halifax");

    public static DemoPerson Hanne { get; } = new("Hanne Lind", "gallery contact, shares times only");

    public static DemoPerson Astrid { get; } = new("Astrid Lindqvist", "throws on Thursdays, two children");

    public static IReadOnlyList<DemoPerson> All { get; } = [Ines, Tomasz, Priya, Dele, Mei, Hanne, Astrid];

    /// <summary>An id that is the same at every start, so that addresses in pictures and tests stay.</summary>
    public static Guid Stable(string text) =>
        new(SHA256.HashData(Encoding.UTF8.GetBytes($"mortar demo: {text}")).AsSpan(0, 16), bigEndian: true);
}
