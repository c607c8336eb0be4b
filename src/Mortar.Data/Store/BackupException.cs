namespace Mortar.Data.Store;

/// <summary>A backup could not be made or put back. The message says why and what to do.</summary>
public sealed class BackupException(string message) : Exception(message);
