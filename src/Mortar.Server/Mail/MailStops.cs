using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;

namespace Mortar.Server.Mail;

/// <summary>
/// The link in each mail by which whoever gets it stops all mail from here. It says by itself whose address it is about, so
/// that nothing of it is stored.
/// </summary>
internal sealed class MailStops(IDataProtectionProvider protection, Func<string> publicUrl)
{
    private readonly IDataProtector protector = protection.CreateProtector("mail-stop");

    /// <summary>What stands under each mail.</summary>
    public string Sentence(string address) =>
        $"This came from Mortar at {publicUrl()}. No more mail from here to this address: {publicUrl()}/stop/{protector.Protect(address)}";

    /// <summary>
    /// What mail programs make a button of: List-Unsubscribe (RFC 2369, 3.2), and that one press is enough (RFC 8058, 3.1),
    /// which asks for https.
    /// </summary>
    public IEnumerable<(string Name, string Value)> Headers(string address)
    {
        if (!publicUrl().StartsWith("https://", StringComparison.OrdinalIgnoreCase))
        {
            yield break;
        }

        yield return ("List-Unsubscribe", $"<{publicUrl()}/api/mail-stops/{protector.Protect(address)}>");
        yield return ("List-Unsubscribe-Post", "List-Unsubscribe=One-Click");
    }

    /// <summary>Whose address a link is about; <c>null</c> for one that was not made here.</summary>
    public string? AddressOf(string token)
    {
        try
        {
            return protector.Unprotect(token);
        }
        catch (CryptographicException)
        {
            return null; // made up, or of another installation
        }
    }
}
