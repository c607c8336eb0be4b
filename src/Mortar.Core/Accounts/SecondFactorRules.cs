using Mortar.Core.Words;

namespace Mortar.Core.Accounts;

/// <summary>
/// A second factor beside the password: codes of an authenticator app (TOTP, RFC 6238: six digits, SHA-1, thirty seconds), and
/// recovery codes for the day it is lost.
/// </summary>
public static class SecondFactorRules
{
    /// <summary>How many recovery codes there are, each good once.</summary>
    public const int RecoveryCodes = 10;

    /// <summary>How many accepted codes are remembered, so that none is taken twice (RFC 6238, 5.2): more than are good at one time.</summary>
    public const int Remembered = 8;

    /// <summary>The length of a code of the app; a recovery code is longer.</summary>
    private const int Digits = 6;

    /// <summary>A code as somebody typed it: without blanks, in capitals, as recovery codes are.</summary>
    public static string Read(string? written) =>
        string.Concat((written ?? string.Empty).Where(one => !char.IsWhiteSpace(one))).ToUpperInvariant();

    /// <summary>Whether what was typed can be a code of the app; else it can be a recovery code.</summary>
    public static bool IsOfApp(string code) => code.Length == Digits && code.All(char.IsAsciiDigit);

    /// <summary>The accepted codes that are remembered once another one was.</summary>
    /// <param name="known">Those until now, parted by blanks.</param>
    /// <param name="code">The one that is good; <c>null</c> is answered where it was accepted before.</param>
    public static string? Accept(string? known, string code)
    {
        var codes = (known ?? string.Empty).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        return codes.Contains(code, StringComparer.Ordinal)
            ? null
            : string.Join(' ', codes.Append(code).TakeLast(Remembered));
    }

    /// <summary>Whether something can be a key: base32 (RFC 4648) of the 128 bits or more that RFC 4226 asks for (4, R6).</summary>
    public static bool IsKey(string? key) =>
        key is { Length: >= 26 and <= 64 } && key.All(one => one is (>= 'A' and <= 'Z') or (>= '2' and <= '7'));

    /// <summary>What an authenticator app reads: the key's address, in the form such apps share (common practice, no source).</summary>
    /// <param name="account">By which its owner knows it in the app.</param>
    /// <param name="key">The key, in base32 (RFC 4648).</param>
    public static string AddressOf(string account, string key) =>
        $"otpauth://totp/Mortar:{Uri.EscapeDataString(account)}?secret={key}&issuer=Mortar&digits=6&period=30";

    /// <summary>What is asked once the password was right.</summary>
    public static string Asked => "Give the code that your authenticator app shows now, or one of your recovery codes.";

    /// <summary>What is said of a code that is not right, was used before, or is too old.</summary>
    public static string WrongCode =>
        "That code is not right, or was used already. Wait for the next one, and see that the clock of the phone is right.";

    /// <summary>What is said where nobody has given a password before, or too long ago.</summary>
    public static string TooLate => "That took too long. Sign in from the start.";

    /// <summary>Why it cannot be switched on once more; <c>null</c> where it can.</summary>
    public static Refusal? WhyNotOn(bool isOn) =>
        isOn ? new Refusal.AgainstRule("is-on", "It is on already. Switch it off first to use another app.") : null;
}
