namespace Mortar.Data.Store;

/// <summary>Wakes those who read the log after a commit. It says that there is something, never what.</summary>
public sealed class ChangeSignal
{
    /// <summary>Raised after each commit, on the thread of the command: a listener only takes note.</summary>
    public event EventHandler? Committed;

    internal void Raise() => Committed?.Invoke(this, EventArgs.Empty);
}
