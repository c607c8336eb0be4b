using System.Net.Sockets;
using Microsoft.AspNetCore.Connections;
using Microsoft.Extensions.Options;
using Mortar.Data.Store;

namespace Mortar.Server.Hosting;

/// <summary>Says in a sentence why Mortar does not start, and what to do; a trace tells an operator nothing.</summary>
internal static class WhyNotStart
{
    /// <summary>The sentence; <c>null</c> for what is a fault of Mortar's own.</summary>
    /// <param name="bad">What was thrown.</param>
    /// <param name="data">The data directory.</param>
    public static string? Sentence(Exception bad, string data)
    {
        for (Exception? cause = bad; cause is not null; cause = cause.InnerException)
        {
            var sentence = cause switch
            {
                StartRefusedException refused => refused.Message,
                OptionsValidationException unfit => string.Join(' ', unfit.Failures),
                AddressInUseException or SocketException { SocketErrorCode: SocketError.AddressAlreadyInUse } =>
                    "Something else is listening on that port already. Stop it, or give this Mortar another one (--urls http://127.0.0.1:8081).",
                SocketException { SocketErrorCode: SocketError.AccessDenied } =>
                    "This user may not listen on that port. Take one above 1023 (--urls http://127.0.0.1:8081), with a web server in front.",
                UnauthorizedAccessException =>
                    $"{data} may not be written by this user. Give it to the user that Mortar runs as: chown -R USER {data}",
                IOException when File.Exists(data) =>
                    $"{data} is a file. Give a directory in which to keep everything: --Mortar:Data=DIR",
                _ => null,
            };
            if (sentence is not null)
            {
                return sentence;
            }
        }

        return StoreFaults.Of(bad) is var (fault, by) ? OfStore(fault, by, data) : null;
    }

    private static string? OfStore(StoreFault fault, Exception by, string data) =>
        fault switch
        {
            StoreFault.ReadOnly =>
                $"{data} can only be read. Mortar has to write there: make it writable, or give it another directory (--Mortar:Data=DIR).",
            StoreFault.Full =>
                $"The disk under {data} is full. Make room and start again; nothing that was acknowledged is lost.",
            StoreFault.Damaged =>
                $"The store in {data} is damaged ({by.Message}). Nothing was changed. Copy the directory to a safe place and put back a backup.",
            StoreFault.NotOpened =>
                $"The store in {data} cannot be opened. See that {StoreSetup.FileName} there is a file that this user may read and write.",
            StoreFault.Failing =>
                $"The disk under {data} does not read or write as it should ({by.Message}). Look at the disk before you start again.",
            StoreFault.Busy => $"Another program holds the store in {data}. Close it and start again.",
            _ => null,
        };
}
