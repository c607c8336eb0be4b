using System.Collections.Concurrent;
using System.Net;
using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Accounts;

/// <summary>
/// Slows down whoever guesses a password, by the pair of address and network and beyond that by the address, and locks
/// nobody out: a device that was signed in before goes on. It is the same whether there is such an account or not.
/// </summary>
internal sealed class SignInBrake(IClock clock, IDataProtectionProvider protection, MortarOptions options)
{
    /// <summary>How many wrong passwords for one address from one network cost nothing.</summary>
    public const int FreeFromOne = 5;

    /// <summary>How many for one address from anywhere cost nothing.</summary>
    public const int FreeFromAll = 50;

    private static readonly Duration Longest = Duration.FromMinutes(15);
    private static readonly Duration Forgotten = Duration.FromHours(6);
    private const int MostKept = 100_000;

    private readonly ConcurrentDictionary<string, (int Failures, Instant Last)> failures = new(StringComparer.Ordinal);
    private readonly IDataProtector protector = protection.CreateProtector("known-device");

    private string CookieName => options.IsSecure ? "__Host-mortar-device" : "mortar-device";

    /// <summary>How long somebody has to wait before the next try; <c>null</c> for not at all.</summary>
    public Duration? Wait(HttpContext context, string address)
    {
        if (IsKnownDevice(context, address))
        {
            return null;
        }

        var now = clock.GetCurrentInstant();
        var wait = Duration.Max(WaitOf(Pair(context, address), FreeFromOne, now), WaitOf(address, FreeFromAll, now));
        return wait > Duration.Zero ? wait : null;
    }

    /// <summary>Takes note of a wrong password.</summary>
    public void Failed(HttpContext context, string address)
    {
        if (failures.Count > MostKept)
        {
            Forget();
        }

        foreach (var key in new[] { Pair(context, address), address })
        {
            failures.AddOrUpdate(
                key,
                _ => (1, clock.GetCurrentInstant()),
                (_, before) => (before.Failures + 1, clock.GetCurrentInstant())
            );
        }
    }

    /// <summary>Takes note that somebody is signed in here, whose device is known from now on.</summary>
    public void Succeeded(HttpContext context, string address)
    {
        failures.TryRemove(Pair(context, address), out _);
        context.Response.Cookies.Append(
            CookieName,
            protector.Protect(address),
            new CookieOptions
            {
                HttpOnly = true,
                Secure = options.IsSecure,
                SameSite = SameSiteMode.Strict,
                Path = "/",
                MaxAge = TimeSpan.FromDays(365),
                IsEssential = true,
            }
        );
    }

    private bool IsKnownDevice(HttpContext context, string address)
    {
        if (context.Request.Cookies[CookieName] is not { Length: > 0 } known)
        {
            return false;
        }

        try
        {
            // Even a known device does not guess without end.
            return protector.Unprotect(known) == address
                && (!failures.TryGetValue(Pair(context, address), out var one) || one.Failures < FreeFromAll);
        }
        catch (CryptographicException)
        {
            return false;
        }
    }

    private Duration WaitOf(string key, int free, Instant now)
    {
        if (!failures.TryGetValue(key, out var one) || one.Failures < free || now - one.Last > Forgotten)
        {
            return Duration.Zero;
        }

        // Where the clock was put back, nobody waits longer for it, and nobody guesses faster.
        var pause = Duration.Min(Longest, Duration.FromSeconds(1L << Math.Min(one.Failures - free + 1, 12)));
        return Duration.Min(pause, Duration.Max(Duration.Zero, one.Last + pause - now));
    }

    private void Forget()
    {
        var before = clock.GetCurrentInstant() - Forgotten;
        foreach (var (key, one) in failures)
        {
            if (one.Last < before || failures.Count > MostKept)
            {
                failures.TryRemove(key, out _);
            }
        }
    }

    /// <summary>A household has a network of its own in IPv6: what counts is the network and not each address in it.</summary>
    private static string Pair(HttpContext context, string address)
    {
        var network = context.Connection.RemoteIpAddress ?? IPAddress.None;
        var bytes = network.MapToIPv6().GetAddressBytes();
        return $"{address} {(network.IsIPv4MappedToIPv6 || network.AddressFamily == System.Net.Sockets.AddressFamily.InterNetwork ? network.ToString() : Convert.ToHexString(bytes.AsSpan(0, 8)))}";
    }
}
