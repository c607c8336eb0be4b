namespace Mortar.Data.Store;

/// <summary>Wakes those who read the log after a commit. It says that there is something, never what.</summary>
public sealed class ChangeSignal
{
    private long commits;
    private long writesAboutPeople;

    /// <summary>Raised after each commit, on the thread of the command: a listener only takes note.</summary>
    public event EventHandler? Committed;

    /// <summary>How many commits there were; counted before their commands answer.</summary>
    public long Commits => Interlocked.Read(ref commits);

    /// <summary>How often something about an account was written, a sign-in or what somebody prefers; counted before it is answered.</summary>
    public long WritesAboutPeople => Interlocked.Read(ref writesAboutPeople);

    internal void CountWriteAboutPeople() => Interlocked.Increment(ref writesAboutPeople);

    internal void Raise()
    {
        Interlocked.Increment(ref commits);
        Committed?.Invoke(this, EventArgs.Empty);
    }
}
