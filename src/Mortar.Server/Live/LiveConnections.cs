using System.Collections.Concurrent;
using Microsoft.AspNetCore.SignalR;
using Mortar.Data.Store;

namespace Mortar.Server.Live;

/// <summary>The open lines, by the sign-in they came with; so that they can be cut with it, and bounded for each person.</summary>
internal sealed class LiveConnections
{
    /// <summary>How many lines one person can have open: screens and tabs, with room to spare.</summary>
    public const int MostOfOne = 40;

    private readonly ConcurrentDictionary<string, (string Person, Guid SignIn, HubCallerContext Line)> open = new(
        StringComparer.Ordinal
    );

    /// <summary>Takes note of a line; <c>false</c> where the person has too many, and it is cut instead.</summary>
    public bool Add(string person, Guid signIn, HubCallerContext line)
    {
        if (open.Values.Count(one => one.Person == person) >= MostOfOne)
        {
            line.Abort();
            return false;
        }

        open[line.ConnectionId] = (person, signIn, line);
        Measured.Lines.Add(1);
        return true;
    }

    public void Remove(HubCallerContext line)
    {
        if (open.TryRemove(line.ConnectionId, out _))
        {
            Measured.Lines.Add(-1);
        }
    }

    /// <summary>Cuts every line of a sign-in.</summary>
    public void Cut(Guid signIn)
    {
        foreach (var (_, _, line) in open.Values.Where(one => one.SignIn == signIn))
        {
            line.Abort();
        }
    }
}
